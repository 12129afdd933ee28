import { describe, expect, test } from '@jest/globals';
import { twelveVolt, wire12v, type TwelveVoltInput, type Wire12vInput } from '.';

describe('the low-voltage system', () => {
  const base: TwelveVoltInput = {
    loads: [
      { id: 'lamps', watts: 138, dutyFraction: 1, when: 'driving' },
      { id: 'radio', watts: 27.6, dutyFraction: 0.5, when: 'driving', essential: false },
      { id: 'computer', watts: 6.9, dutyFraction: 1, when: 'always' },
      { id: 'pump', watts: 276, dutyFraction: 1, when: 'charging' },
    ],
    systemV: 13.8,
    batteryAh: 40,
    usableFraction: 0.5,
    deratingFraction: 0.8,
  };
  const run = (change: Partial<TwelveVoltInput>) => twelveVolt.calculate({ ...base, ...change });

  test('sums by what runs when; the battery alone by hours and days', () => {
    const { result } = run({});
    expect(result.drivingA).toBeCloseTo(10 + 1 + 0.5, 9);
    expect(result.chargingA).toBeCloseTo(20.5, 9);
    expect(result.parkedA).toBeCloseTo(0.5, 9);
    expect(result.hoursOnBatteryDriving).toBeCloseTo(20 / 11.5, 9);
    expect(result.hoursEssentialOnly).toBeCloseTo(20 / 10.5, 9);
    expect(result.daysParked).toBeCloseTo(20 / 0.5 / 24, 9);
    expect([result.dcdcOk, result.marginA]).toEqual([null, null]);
  });
  test('the larger of driving and charging decides over the converter', () => {
    expect(run({ dcdcA: 30 }).result.marginA).toBeCloseTo(24 - 20.5, 9);
    const small = run({ dcdcA: 25 });
    expect(small.result.dcdcOk).toBe(false);
    expect(small.findings.map(({ rule }) => rule.id)).toEqual([
      'twelve-volt.converter-small',
      'twelve-volt.high-rate',
    ]);
    expect(run({ dcdcA: 20.5 / 0.8 }).result.dcdcOk).toBe(true);
  });
  test('nothing that draws has no end', () => {
    expect(run({ loads: [] }).result).toMatchObject({
      drivingA: 0,
      hoursOnBatteryDriving: null,
      hoursEssentialOnly: null,
      daysParked: null,
    });
  });
});

describe('a wire', () => {
  const base: Wire12vInput = {
    currentA: 10,
    lengthM: 1,
    returnLengthM: 0,
    systemV: 13.8,
    maxDropFraction: 0.03,
    ambientC: 30,
    maxConductorC: 105,
  };
  const run = (change: Partial<Wire12vInput>) => wire12v.calculate({ ...base, ...change });

  test('current, then drop, then nothing that fits', () => {
    expect(run({}).result).toMatchObject({ areaMm2: 0.75, governedBy: 'current' });
    expect(run({ currentA: 12, lengthM: 0.3 }).result).toMatchObject({
      areaMm2: 0.75,
      governedBy: 'current',
      fuseA: null,
    });
    expect(run({ lengthM: 5 }).result).toMatchObject({ areaMm2: 4, governedBy: 'drop' });
    expect(run({ lengthM: 5 }).result.dropV).toBeCloseTo((10 * 4.95 * 1.1572 * 5) / 1000, 9);
    expect(run({ lengthM: 500 }).result).toEqual({
      areaMm2: null,
      dropV: null,
      governedBy: 'drop',
      fuseA: null,
    });
    expect(run({ currentA: 150, lengthM: 0 }).result).toEqual({
      areaMm2: null,
      dropV: null,
      governedBy: 'current',
      fuseA: null,
    });
  });
  test('the largest fuse that the wire stands; one close to the load is said', () => {
    expect(run({ currentA: 12, lengthM: 2 }).result).toMatchObject({ areaMm2: 1.5, fuseA: 20 });
    const near = run({ currentA: 19, lengthM: 0.5 });
    expect(near.result.fuseA).toBe(20);
    expect(near.findings.map(({ rule }) => rule.id)).toEqual(['wire-12v.fuse-near']);
  });
  test('at its limit of ambient no wire carries anything', () => {
    const parsed = wire12v.parse({ ...base, ambientC: 105 });
    expect(parsed.ok ? [] : parsed.issues.map(({ path }) => path)).toEqual(['ambientC']);
  });
});
