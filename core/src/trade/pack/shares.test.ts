import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { stringShares, type ParallelString } from '.';

const string = (resistanceOhm: number, socFraction = 0.8, capacityAh = 100): ParallelString => ({
  ocvTable: [
    [0, 300],
    [1, 400],
  ],
  capacityAh,
  resistanceOhm,
  socFraction,
});

describe('strings in parallel', () => {
  test('alike: each carries the same, nothing circulates', () => {
    const [a, b] = stringShares([string(0.1), string(0.1)], [[3600, 100]]);
    expect(a).toEqual(b);
    expect(a!.rmsA).toBeCloseTo(50, 9);
    expect(a!.endSocFraction).toBeCloseTo(0.3, 9);
    expect(a!.circulatingA).toBeCloseTo(0, 9);
  });

  test('at the first moment they share by conductance', () => {
    const [a, b] = stringShares([string(0.09), string(0.11)], [[1e-6, 200]]);
    expect(a!.peakA).toBeCloseTo((200 * 0.11) / 0.2, 6);
    expect(b!.peakA).toBeCloseTo((200 * 0.09) / 0.2, 6);
  });

  test('charge that differs circulates: 0.02 of 100 V over 0.2 Ω are 10 A', () => {
    const [a, b] = stringShares([string(0.1, 0.82), string(0.1, 0.8)], [[1e-6, 0]]);
    expect(a!.circulatingA).toBeCloseTo(10, 6);
    expect(b!.circulatingA).toBeCloseTo(-10, 6);
  });

  test('as charge runs apart the sloping voltage pulls the shares together', () => {
    const long = stringShares([string(0.09), string(0.11)], [[3600, 60]]);
    const [first] = stringShares([string(0.09), string(0.11)], [[1, 60]]);
    expect(long[0]!.rmsA).toBeLessThan(first!.rmsA);
    expect(long[0]!.rmsA).toBeGreaterThan(30);
    // Afterwards charge goes back into the one that worked harder.
    expect(long[0]!.circulatingA).toBeLessThan(0);
  });

  test('the walk ends where a string is empty, and a load of thirty years takes no longer than one of a day', () => {
    const [a] = stringShares([string(0.1), string(0.1)], [[1e9, 100]]);
    expect(a!.rmsA).toBeCloseTo(50, 9);
    const [slow] = stringShares([string(0.1), string(0.1)], [[100_000, 1]]);
    expect(slow!.endSocFraction).toBeCloseTo(0.8 - (0.5 * (100 / 3.6)) / 100, 9);
    expect(stringShares([string(0.1), string(0.1)], [[36_000, 100]])[0]!.endSocFraction).toBeCloseTo(0, 1);
  });

  test('whatever they are: charge is kept, currents add up, and smaller steps change nothing that matters', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.double({ min: 0.05, max: 0.5, noNaN: true }),
            fc.double({ min: 0.7, max: 0.9, noNaN: true }),
          ),
          { minLength: 2, maxLength: 4 },
        ),
        fc.array(
          fc.tuple(
            fc.double({ min: 1, max: 600, noNaN: true }),
            fc.double({ min: -80, max: 150, noNaN: true }),
          ),
          { minLength: 1, maxLength: 6 },
        ),
        (rows, profile) => {
          const all = rows.map(([ohm, soc]) => string(ohm, soc));
          const shares = stringShares(all, profile);
          const drawnAh =
            profile.reduce((sum, [durationS, currentA]) => sum + durationS * currentA, 0) / 3600;
          const lostAh = shares.reduce((sum, one, k) => sum + (rows[k]![1] - one.endSocFraction) * 100, 0);
          expect(lostAh).toBeCloseTo(drawnAh, 9);
          expect(shares.reduce((sum, { circulatingA }) => sum + circulatingA, 0)).toBeCloseTo(0, 6);
          const finer = stringShares(all, profile, 1);
          for (const [k, one] of shares.entries())
            expect(Math.abs(one.endSocFraction - finer[k]!.endSocFraction)).toBeLessThan(2e-3);
        },
      ),
      { numRuns: 60, seed: 6 },
    );
  });
});
