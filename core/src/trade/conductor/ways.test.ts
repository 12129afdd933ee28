import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { CircuitItem, Stretch } from '../../model/document';
import { catalogueOf } from '../../model/parts';
import { cable, lengthOf, shortestShare, sizeTable, together, waysOf, type CableInput } from '.';

const input = (own: Partial<CableInput>): CableInput => {
  const { massKgPerM: _mass, ...data } = catalogueOf('cable').find(({ id }) => id === 'marl-x35')!.data;
  const parsed = cable.parse({
    ...data,
    ambientC: 40,
    lengthM: 4,
    currentA: 120,
    install: 'free-air',
    grouped: 2,
    busVoltageV: 350,
    ...own,
  });
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.issues));
  return parsed.input;
};
const result = (own: Partial<CableInput>) => cable.calculate(input(own)).result;

describe('a cable whose way has parts', () => {
  test('two parts of one place are as one of both lengths', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 20, noNaN: true }),
        fc.double({ min: 0.1, max: 20, noNaN: true }),
        fc.double({ min: -20, max: 80, noNaN: true }),
        (a, b, ambientC) => {
          const parts = together([result({ lengthM: a, ambientC }), result({ lengthM: b, ambientC })]);
          const whole = result({ lengthM: a + b, ambientC });
          expect(parts.voltageDropV! / whole.voltageDropV!).toBeCloseTo(1, 9);
          expect(parts.lossW! / whole.lossW!).toBeCloseTo(1, 9);
          expect(parts.ampacityA).toBe(whole.ampacityA);
          expect(parts.conductorTemperatureC).toBe(whole.conductorTemperatureC);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('the hot part governs what it carries; the cool one still drops its own', () => {
    const [cool, hot] = [result({ ambientC: 20 }), result({ ambientC: 85, lengthM: 1 })];
    const both = together([cool, hot]);
    expect(both.ampacityA).toBe(hot.ampacityA);
    expect(both.conductorTemperatureC).toBe(hot.conductorTemperatureC);
    expect(both.voltageDropV).toBeCloseTo(cool.voltageDropV! + hot.voltageDropV!, 12);
    expect(hot.ampacityA).toBeLessThan(cool.ampacityA);
  });

  test('a part that finds no balance leaves nothing to add up', () => {
    const burnt = result({ currentA: 3000 });
    expect(burnt.conductorTemperatureC).toBeNull();
    expect(together([result({}), burnt])).toMatchObject({
      conductorTemperatureC: null,
      voltageDropV: null,
      lossW: null,
    });
  });

  test('areas are ranked over all parts: one that fits the cool part alone does not fit', () => {
    const ways = [input({ ambientC: 20 }), input({ ambientC: 100, lengthM: 1 })];
    const find = (list: CableInput[]) =>
      sizeTable(
        {
          ways: list,
          profile: [],
          maxDropFraction: 0.02,
          fuse: null,
          lug: null,
          gland: null,
          studMm: null,
          screensClamped: 0,
        },
        { conductorMaxC: 125 },
      ).find(({ areaMm2 }) => areaMm2 === 25)!;
    expect(find([ways[0]!]).fits).toBe(true);
    expect(find(ways)).toMatchObject({ fits: false, governs: 'ampacity' });
    expect(find(ways).reasons[0]).toMatch(/^carries .* A of the 120 A asked$/);
  });
});

describe('where the parts lie', () => {
  const circuit = (stretches: Stretch[]): CircuitItem => ({
    tag: 'C',
    role: 'branch',
    lengthM: 9,
    stretches,
  });
  test('without parts the cable is one; with them their lengths count, and a missing one is named', () => {
    expect(lengthOf(circuit([]), 'c')).toEqual({ lengthM: 9, gaps: [] });
    expect(waysOf(circuit([]), 'c').map(({ at, tag }) => [at, tag])).toEqual([['circuits.c', null]]);
    const two = circuit([
      { tag: 'Floor', lengthM: 2 },
      { tag: 'Roof', lengthM: 3.5 },
    ]);
    expect(lengthOf(two, 'c')).toEqual({ lengthM: 5.5, gaps: [] });
    expect(waysOf(two, 'c').map(({ at }) => at)).toEqual([
      'circuits.c.stretches.0',
      'circuits.c.stretches.1',
    ]);
    expect(lengthOf(circuit([{ tag: 'Floor' }]), 'c').gaps).toEqual([
      { kind: 'not-given', path: 'circuits.c.stretches.0.lengthM', label: 'length of Floor' },
    ]);
    expect(lengthOf(circuit([{ tag: 'Floor', lengthM: -1 }]), 'c').gaps[0]).toMatchObject({
      kind: 'invalid',
    });
  });
});

describe('conductors side by side', () => {
  test('alike they share alike; one that is half as long carries twice as much as the other', () => {
    expect(shortestShare(3, 8, 0)).toBeCloseTo(1 / 3, 12);
    expect(shortestShare(2, 5, 5)).toBeCloseTo(2 / 3, 12);
  });
  test('the shortest carries more the longer the others are, and never all of it', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 6 }),
        fc.double({ min: 0.1, max: 20, noNaN: true }),
        fc.double({ min: 0, max: 20, noNaN: true }),
        (count, shortestM, unevenM) => {
          const share = shortestShare(count, shortestM, unevenM);
          expect(share).toBeGreaterThanOrEqual(1 / count - 1e-12);
          expect(share).toBeLessThan(1);
          expect(shortestShare(count, shortestM, unevenM + 1)).toBeGreaterThan(share);
        },
      ),
    );
  });
});
