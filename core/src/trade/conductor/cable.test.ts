import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cableAreasMm2, resistancePerM } from '../../model/parts';
import { cable, type CableInput } from '.';
import { findBalance, freeAirHeatPerM, heatAtConductor } from './heat';
import { heatPathOf } from './cable';

const base: CableInput = {
  areaMm2: 50,
  conductorDiameterMm: 10.2,
  outerDiameterMm: 14.5,
  conductorMaxC: 180,
  ambientC: 40,
  lengthM: 3.5,
  currentA: 220,
  parallel: 1,
  install: 'free-air',
  grouped: 1,
  insulationKmPerW: 4,
  emissivity: 0.9,
  conduitEmissivity: 0.9,
  adiabaticK: 143,
  busVoltageV: 360,
};

const result = (change: Partial<CableInput>) => cable.calculate({ ...base, ...change }).result;

/** Cables in proportion, in free air or in a conduit twice as wide. */
const cables = fc.record({
  areaMm2: fc.constantFrom(...cableAreasMm2),
  ambientC: fc.double({ min: -40, max: 110, noNaN: true }),
  share: fc.double({ min: 0.02, max: 1.1, noNaN: true }),
  conduit: fc.boolean(),
  parallel: fc.integer({ min: 1, max: 4 }),
  grouped: fc.integer({ min: 1, max: 6 }),
});

function inputOf({
  areaMm2,
  ambientC,
  share,
  conduit,
  parallel,
  grouped,
}: {
  areaMm2: number;
  ambientC: number;
  share: number;
  conduit: boolean;
  parallel: number;
  grouped: number;
}): CableInput {
  const conductorDiameterMm = Math.sqrt(areaMm2) * 1.45;
  const outerDiameterMm = conductorDiameterMm + 2.4;
  const sized: CableInput = {
    ...base,
    areaMm2,
    conductorDiameterMm,
    outerDiameterMm,
    conductorMaxC: 125,
    ambientC,
    parallel,
    grouped,
    ...(conduit && {
      install: 'steel-conduit',
      conduitInnerMm: outerDiameterMm * 2,
      conduitOuterMm: outerDiameterMm * 2 + 4,
    }),
  };
  return { ...sized, currentA: share * cable.calculate({ ...sized, currentA: 0 }).result.ampacityA };
}

describe('heat balance', () => {
  test('over 2000 inputs its residual is below a millionth of the loss', () => {
    fc.assert(
      fc.property(cables, (given) => {
        const input = inputOf(given);
        const conductorA =
          input.currentA /
          (input.parallel * ({ 1: 1, 2: 0.8, 3: 0.7, 4: 0.65, 5: 0.6, 6: 0.57 }[input.grouped] ?? 1));
        const loss = (temperatureC: number) => conductorA ** 2 * resistancePerM(input.areaMm2, temperatureC);
        const path = heatPathOf(input);
        const balance = findBalance(path, loss)!;
        const lost = loss(balance.conductorC);
        expect(Math.abs(balance.residualWPerM) / lost).toBeLessThan(1e-6);
        expect(heatAtConductor(path, balance.conductorC) / lost).toBeCloseTo(1, 6);
      }),
      { numRuns: 2000 },
    );
  });

  test('at the ampacity the conductor is at its limit', () => {
    fc.assert(
      fc.property(cables, (given) => {
        const input = inputOf({ ...given, share: 1 });
        expect(cable.calculate(input).result.conductorTemperatureC).toBeCloseTo(125, 5);
      }),
      { numRuns: 200 },
    );
  });

  test('a thicker cable of the same insulation thickness is never hotter', () => {
    fc.assert(
      fc.property(cables, (given) => {
        const { ambientC, currentA } = inputOf({ ...given, conduit: false });
        const next = cableAreasMm2[cableAreasMm2.indexOf(given.areaMm2) + 1];
        fc.pre(next !== undefined);
        const at = (areaMm2: number) =>
          cable.calculate({ ...inputOf({ ...given, areaMm2, conduit: false }), ambientC, currentA }).result
            .conductorTemperatureC ?? Infinity;
        expect(at(next!)).toBeLessThanOrEqual(at(given.areaMm2) + 1e-9);
      }),
      { numRuns: 200 },
    );
  });

  test('a conduit never cools better than free air', () => {
    fc.assert(
      fc.property(cables, (given) => {
        const free = inputOf({ ...given, conduit: false });
        const shut = { ...inputOf({ ...given, conduit: true }), currentA: free.currentA };
        expect(cable.calculate(shut).result.ampacityA).toBeLessThanOrEqual(
          cable.calculate(free).result.ampacityA * (1 + 1e-9),
        );
      }),
      { numRuns: 200 },
    );
  });

  test('a surface colder than the air takes heat in', () => {
    expect(freeAirHeatPerM(0.0145, 20, 40, 0.9)).toBeLessThan(0);
    expect(freeAirHeatPerM(0.0145, 40, 40, 0.9)).toBe(0);
  });
});

describe('cases at the edge', () => {
  test('no current: ambient, no drop, and the time constant of a 1 K rise', () => {
    const { conductorTemperatureC, voltageDropV, lossW, timeConstantS } = result({ currentA: 0 });
    expect([conductorTemperatureC, voltageDropV, lossW]).toEqual([40, 0, 0]);
    expect(timeConstantS).toBeGreaterThan(400);
    const oneKelvinA = Math.sqrt(heatAtConductor(heatPathOf(base), 41) / resistancePerM(50, 41));
    const warm = result({ currentA: oneKelvinA });
    expect(warm.conductorTemperatureC).toBeCloseTo(41, 9);
    expect(timeConstantS! / warm.timeConstantS!).toBeCloseTo(1, 9);
  });
  test('a current without balance below 400 °C gives null, and says so', () => {
    const { result: hot, findings } = cable.calculate({ ...base, currentA: 5000 });
    expect(hot).toMatchObject({
      conductorTemperatureC: null,
      voltageDropV: null,
      dropFraction: null,
      lossW: null,
      timeConstantS: null,
    });
    expect(findings.map(({ rule }) => rule.id)).toEqual(['cable.no-balance']);
  });
  test('two conductors carry twice as much and drop half', () => {
    const one = result({});
    const two = result({ parallel: 2, currentA: 440 });
    expect(two.ampacityA).toBeCloseTo(2 * one.ampacityA, 9);
    expect(two.voltageDropV).toBeCloseTo(one.voltageDropV!, 9);
    expect([two.adiabaticA2s, two.adiabaticPerConductorA2s]).toEqual([(143 * 100) ** 2, (143 * 50) ** 2]);
  });
  test.each([
    ['a 0.5 mm² sense lead', { areaMm2: 0.5, conductorDiameterMm: 0.95, outerDiameterMm: 2.1, currentA: 2 }],
    ['−40 °C ambient', { ambientC: -40 }],
    ['+120 °C ambient', { ambientC: 120 }],
    [
      '120 mm² in parallel',
      { areaMm2: 120, conductorDiameterMm: 16, outerDiameterMm: 20.8, parallel: 4, currentA: 1500 },
    ],
  ])('%s balances between ambient and limit', (_name, change) => {
    const input = { ...base, ...change };
    const { conductorTemperatureC } = cable.calculate(input).result;
    expect(conductorTemperatureC).toBeGreaterThan(input.ambientC);
    expect(conductorTemperatureC).toBeLessThan(input.conductorMaxC);
  });
  test('beyond the ampacity a finding gives current, ampacity and temperature', () => {
    const { findings } = cable.calculate({ ...base, currentA: 430 });
    expect(findings[0]!.message).toMatch(
      /^430 A against an ampacity of 417 A: the conductor reaches 18\d °C, its limit is 180 °C\.$/,
    );
  });
});
