import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { interpolate } from '../../ground/math';
import { benchParallel, type BenchModule } from '.';

const straight: [number, number][] = [
  [0, 3],
  [1, 4],
];
const bent: [number, number][] = [
  [0, 2.6],
  [0.1, 3.19],
  [0.6, 3.3],
  [0.9, 3.34],
  [1, 3.45],
];
const module = (id: string, voltageV: number, change: Partial<BenchModule> = {}): BenchModule => ({
  id,
  voltageV,
  capacityAh: 100,
  resistanceOhm: 0.004,
  limitA: 50,
  ...change,
});

describe('modules side by side on the bench', () => {
  test('two of them: half the difference lies on each, and they meet in the middle', () => {
    const found = benchParallel({
      modules: [module('a', 36.6), module('b', 36)],
      series: 10,
      leadOhm: 0.001,
      ocvTable: straight,
      toleranceV: 0.002,
    });
    // 0.6 V over 2 · 5 mΩ.
    expect(found.joins.map(({ currentA }) => currentA)).toEqual([
      expect.closeTo(60, 9),
      expect.closeTo(-60, 9),
    ]);
    expect(found).toMatchObject({ barV: expect.closeTo(36.3, 9), withinLimits: false });
    expect(found.levelSocFraction).toBeCloseTo(0.63, 12);
    expect(found.joins[0]!.givesAh).toBeCloseTo(3, 9);
    // Within 50 A a module may lie 0.25 V off the bars: 0.05 V of 10 V of curve, of 100 Ah.
    expect(found.joins[0]!.firstAh).toBeCloseTo(0.5, 9);
    expect(found.joins[1]!.firstAh).toBeCloseTo(-0.5, 9);
  });

  test('on a straight curve the difference falls with one time constant', () => {
    const found = benchParallel({
      modules: [module('a', 36.6), module('b', 36)],
      series: 10,
      leadOhm: 0.001,
      ocvTable: straight,
      toleranceV: 0.002,
    });
    // C dU/dt: 100 Ah over 10 V is 10 Ah/V; tau = 10 Ah/V · 5 mΩ = 0.05 h; from 30 mV a cell to 2 mV.
    expect(found.hours!).toBeGreaterThan(0.05 * Math.log(15) * 0.97);
    expect(found.hours!).toBeLessThan(0.05 * Math.log(15) * 1.1);
  });

  test('what is given is taken, at the moment of joining and in the end', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            cellV: fc.double({ min: 2.7, max: 3.44, noNaN: true }),
            capacityAh: fc.double({ min: 20, max: 300, noNaN: true }),
            resistanceOhm: fc.double({ min: 0.0005, max: 0.02, noNaN: true }),
          }),
          { minLength: 1, maxLength: 12 },
        ),
        (made) => {
          const modules = made.map(({ cellV, ...rest }, i) => module(`m${i}`, cellV * 4, rest));
          const found = benchParallel({
            modules,
            series: 4,
            leadOhm: 0.0005,
            ocvTable: bent,
            toleranceV: 0.005,
          });
          const current = found.joins.reduce((sum, { currentA }) => sum + currentA, 0);
          const charge = found.joins.reduce((sum, { givesAh }) => sum + givesAh, 0);
          const total = modules.reduce((sum, { capacityAh }) => sum + capacityAh, 0);
          expect(Math.abs(current)).toBeLessThan(1e-7 * (1 + found.worstA));
          expect(Math.abs(charge)).toBeLessThan(1e-9 * total);
          expect(found.levelCellV).toBeCloseTo(interpolate(bent, found.levelSocFraction), 12);
          expect(found.hours).not.toBeNull();
        },
      ),
      { numRuns: 60 },
    );
  });

  test('no module, or one without resistance, is a mistake of the caller', () => {
    const rest = { series: 1, leadOhm: 0, ocvTable: straight, toleranceV: 0.01 };
    expect(() => benchParallel({ modules: [], ...rest })).toThrow('no module');
    expect(() => benchParallel({ modules: [module('a', 3.5, { resistanceOhm: 0 })], ...rest })).toThrow(
      'without resistance',
    );
  });
});
