import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { studentQuantile, studentWithin } from '../../ground/math';
import { restPredict, type RestPredictResult } from '.';

/** Numbers from a seed; two of them make one of a normal distribution (Box and Muller). */
function seeded(seed: number) {
  let state = seed >>> 0;
  const next = () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return (state + 0.5) / 2 ** 32;
  };
  const normal = () => Math.sqrt(-2 * Math.log(next())) * Math.cos(2 * Math.PI * next());
  return { next, normal };
}

const predict = (samples: [number, number][], targetV = 2.9, toleranceV = 0.04): RestPredictResult => {
  const parsed = restPredict.parse({ samples, targetV, toleranceV });
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.issues));
  return restPredict.calculate(parsed.input).result;
};
const model = (settledV: number, swingV: number, tauH: number) => (hours: number) =>
  settledV - swingV * Math.exp(-Math.sqrt(hours / tauH));
const readings = (hours: number[], volts: (hours: number) => number): [number, number][] =>
  hours.map((at) => [at, volts(at)]);
const spaced = (from: number, to: number, count: number) =>
  Array.from({ length: count }, (_, i) => from * (to / from) ** (i / (count - 1)));

describe('Student’s t', () => {
  test.each([
    [1, 12.706],
    [2, 4.3027],
    [3, 3.1824],
    [5, 2.5706],
    [10, 2.2281],
    [27, 2.0518],
    [120, 1.9799],
  ])('with %s degrees of freedom 95 % lie within %s', (degrees, t) => {
    expect(studentQuantile(0.95, degrees)).toBeCloseTo(t, 3);
    expect(studentWithin(t, degrees)).toBeCloseTo(0.95, 4);
  });
});

describe('rest prediction', () => {
  test('finds the truth from readings without noise, whatever the sign of the swing', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2.5, max: 3.6, noNaN: true }),
        fc.double({ min: 0.02, max: 0.5, noNaN: true }),
        fc.boolean(),
        fc.double({ min: 0.5, max: 200, noNaN: true }),
        (settledV, swing, falls, tauH) => {
          const swingV = falls ? -swing : swing;
          const found = predict(readings(spaced(0.02 * tauH, 4 * tauH, 20), model(settledV, swingV, tauH)));
          expect(found.settledV).toBeCloseTo(settledV, 5);
          expect(found.tauH! / tauH).toBeCloseTo(1, 3);
          expect(found.hoursToWithin1mV! / (tauH * Math.log(swing / 0.001) ** 2)).toBeCloseTo(1, 2);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('the interval narrows as readings without noise of their own are added', () => {
    // A fixed misfit: readings cut to whole millivolts.
    const volts = (hours: number) => Math.round(model(2.93, 0.25, 12)(hours) * 1000) / 1000;
    const width = (count: number) => {
      const { settledLowV, settledHighV } = predict(readings(spaced(0.2, 2 * count, count), volts));
      return settledHighV! - settledLowV!;
    };
    expect(width(12)).toBeLessThan(width(8));
    expect(width(20)).toBeLessThan(width(12));
    expect(width(40)).toBeLessThan(width(20));
  });

  test('200 rests with 1 mV of noise, tau 5 to 200 h: the interval holds the truth in 90 to 99 %, and “inside” is hardly ever wrong', () => {
    const { next, normal } = seeded(20261126);
    let held = 0;
    let inside = 0;
    let wrong = 0;
    const runs = 200;
    for (let i = 0; i < runs; i += 1) {
      const settledV = 2.84 + 0.12 * next();
      const tauH = 5 * 40 ** next();
      const truth = model(settledV, 0.15 + 0.2 * next(), tauH);
      const samples = readings(
        spaced(0.25, tauH * (1 + 3 * next()), 30),
        (hours) => truth(hours) + 0.001 * normal(),
      );
      const { settledLowV, settledHighV, verdict } = predict(samples);
      if (settledLowV !== null && settledLowV <= settledV && settledV <= settledHighV!) held += 1;
      if (verdict === 'will settle inside') {
        inside += 1;
        if (Math.abs(settledV - 2.9) > 0.04) wrong += 1;
      }
    }
    expect(held / runs).toBeGreaterThanOrEqual(0.9);
    expect(held / runs).toBeLessThanOrEqual(0.99);
    expect(inside).toBeGreaterThan(30);
    expect(wrong / inside).toBeLessThanOrEqual(0.02);
  });

  test('a straddled bound is never decided', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5000 }), (seed) => {
        const { next, normal } = seeded(seed);
        const truth = model(2.9 + 0.1 * (next() - 0.5), 0.2, 20);
        const found = predict(
          readings(spaced(0.2, 3 + 40 * next(), 10), (hours) => truth(hours) + 0.002 * normal()),
        );
        const { settledLowV: low, settledHighV: high, verdict } = found;
        if (low === null || high === null) return expect(verdict).toBe('too early to tell');
        const straddles = [2.86, 2.94].some((bound) => low < bound && bound < high);
        if (straddles) expect(verdict).toBe('too early to tell');
      }),
      { numRuns: 150 },
    );
  });

  test('flat readings are their mean, without a time constant', () => {
    expect(predict(readings([1, 2, 3, 4, 5, 6], () => 2.95))).toEqual({
      settledV: 2.95,
      settledLowV: 2.95,
      settledHighV: 2.95,
      tauH: null,
      hoursToWithin1mV: null,
      verdict: 'will settle too high',
    });
    // An end exactly on a bound counts as inside.
    expect(
      predict(
        readings([1, 2, 3, 4, 5, 6], () => 3),
        2.75,
        0.25,
      ).verdict,
    ).toBe('will settle inside');
    expect(predict(readings([1, 2, 3, 4, 5, 6], () => 2.7)).verdict).toBe('will settle too low');
  });

  test('a rest of which only the beginning was seen: on the bound, too early, no hours', () => {
    const found = predict(readings([0.5, 1, 2, 3, 4, 5], (hours) => 2.7 + Math.sqrt(hours) / 1000));
    expect(found).toMatchObject({ verdict: 'too early to tell', hoursToWithin1mV: null });
    expect(found.tauH).toBeCloseTo(10_000, 3);
  });

  test('less than a millivolt to go is there already', () => {
    expect(predict(readings(spaced(0.1, 40, 12), model(2.9, 0.0008, 6))).hoursToWithin1mV).toBe(0);
  });

  test.each([
    ['samples', { samples: readings([1, 2, 3, 4, 5], () => 2.9) }],
    ['samples', { samples: readings([1, 2, 2, 4, 5, 6], () => 2.9) }],
    ['samples.0.0', { samples: readings([-1, 2, 3, 4, 5, 6], () => 2.9) }],
    ['toleranceV', { toleranceV: -0.01 }],
    ['target', { target: 2.9 }],
  ])('refuses a wrong %s', (path, change) => {
    const body = {
      samples: readings([1, 2, 3, 4, 5, 6], () => 2.9),
      targetV: 2.9,
      toleranceV: 0.04,
      ...change,
    };
    const parsed = restPredict.parse(body);
    expect(parsed.ok ? [] : parsed.issues.map((issue) => issue.path)).toContain(path);
  });
});
