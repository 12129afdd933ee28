import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { catalogueOf } from '../../model/parts';
import { coilOf, decayS, holdCurrentA, pullInAtV, releaseMs, type Coil } from '.';

const coil: Coil = {
  coilV: 12,
  coilHoldW: 4.8,
  openMs: 8,
  coilOhm: 30,
  coilHenry: 0.36,
  pullInV: 7.2,
  dropOutA: 0.048,
  economiser: false,
};

describe('a coil that is switched off', () => {
  test('closed form: with a plain diode 12 ms · ln((12 + 0.8)/(1.44 + 0.8))', () => {
    expect(holdCurrentA(coil)).toBeCloseTo(0.4, 12);
    expect(decayS(coil, 'diode', 24)).toBeCloseTo(0.012 * Math.log(12.8 / 2.24), 12);
    expect(releaseMs(coil, 'diode', 24)).toBeCloseTo(8 + 20.9156, 3);
    // A zener of 24 V: ln(36.8/26.24).
    expect(releaseMs(coil, 'diode-zener', 24)).toBeCloseTo(8 + 4.059, 3);
    expect(decayS(coil, 'none', 24)).toBe(0);
  });

  test('agrees with the integrated equation of the coil within a tenth of a percent', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2, max: 60, noNaN: true }),
        fc.double({ min: 0.004, max: 0.03, noNaN: true }),
        fc.double({ min: 5, max: 60, noNaN: true }),
        fc.double({ min: 0.05, max: 0.6, noNaN: true }),
        (coilOhm, tauS, clampV, dropShare) => {
          const own = { ...coil, coilOhm, coilHenry: tauS * coilOhm, dropOutA: (dropShare * 12) / coilOhm };
          const stepS = tauS / 20_000;
          let [currentA, timeS] = [12 / coilOhm, 0];
          while (currentA > own.dropOutA) {
            const slope = (i: number) => -(i * coilOhm + 0.8 + clampV) / own.coilHenry;
            currentA += stepS * slope(currentA + (stepS / 2) * slope(currentA));
            timeS += stepS;
          }
          expect(Math.abs(timeS - decayS(own, 'tvs', clampV))).toBeLessThan(2 * stepS + 1e-3 * timeS);
        },
      ),
      { numRuns: 25, seed: 8 },
    );
  });

  test('a higher clamp never releases later, and a plain diode is the slowest', () => {
    for (const { data } of catalogueOf('contactor')) {
      const own = coilOf(data)!;
      const times = [12, 24, 48].map((clampV) => releaseMs(own, 'diode-zener', clampV));
      expect(times).toEqual([...times].sort((a, b) => b - a));
      expect(releaseMs(own, 'diode', 24)).toBeGreaterThanOrEqual(times[0]!);
    }
  });

  test('an economiser holds with less, and so lets go sooner', () => {
    const economised = { ...coil, economiser: true, coilHoldW: 1.2 };
    expect(holdCurrentA(economised)).toBeCloseTo(0.2, 12);
    expect(decayS(economised, 'diode', 24)).toBeLessThan(decayS(coil, 'diode', 24));
    expect(decayS({ ...economised, dropOutA: 0.3 }, 'diode', 24)).toBe(0);
  });
});

test('a warm coil needs more voltage: 7.2 V at 20 °C are 8.33 V at 60 °C', () => {
  expect(pullInAtV(coil, 20)).toBe(7.2);
  expect(pullInAtV(coil, 60)).toBeCloseTo(8.33184, 9);
});

test('without its data a coil is not guessed', () => {
  const { coilHenry: _coilHenry, ...without } = catalogueOf('contactor')[0]!.data;
  expect(coilOf(without)).toBeNull();
});
