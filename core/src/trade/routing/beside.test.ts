import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { alongside } from './signal-step';
import { pocketM } from './tube-checks';

describe('water in a tube', () => {
  const at = (...heights: number[]): [number, number, number][] => heights.map((z, i) => [i, 0, z]);

  test('stands in a dip by the lower of its sides, and nowhere where the tube falls or rises', () => {
    expect(pocketM(at(1, 0.8, 0.5))).toBe(0);
    expect(pocketM(at(0.5, 0.8, 1.2))).toBe(0);
    expect(pocketM(at(0.5, 0.9, 0.5))).toBe(0);
    expect(pocketM(at(1, 0.6, 0.9))).toBeCloseTo(0.3, 12);
    // A dip behind a hump, though both ends are lower than it.
    expect(pocketM(at(0.2, 0.9, 0.7, 0.8, 0.1))).toBeCloseTo(0.1, 12);
  });

  test('is the same from either end, and deeper by nothing when all of it is lifted', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 2, noNaN: true }), { minLength: 2, maxLength: 8 }),
        (z) => {
          expect(pocketM(at(...z))).toBeCloseTo(pocketM(at(...[...z].reverse())), 12);
          expect(pocketM(at(...z.map((one) => one + 1)))).toBeCloseTo(pocketM(at(...z)), 9);
          expect(pocketM(at(...z))).toBeGreaterThanOrEqual(0);
        },
      ),
    );
  });
});

describe('one way along another', () => {
  const line = (from: [number, number, number], to: [number, number, number], steps = 100) =>
    Array.from({ length: steps + 1 }, (_, i): [number, number, number] => [
      from[0] + ((to[0] - from[0]) * i) / steps,
      from[1] + ((to[1] - from[1]) * i) / steps,
      from[2] + ((to[2] - from[2]) * i) / steps,
    ]);

  test('side by side it counts as long as it is, beyond the distance not at all', () => {
    const other = line([0, 0, 0], [2, 0, 0]);
    const beside = alongside(line([0, 0.15, 0], [2, 0.15, 0]), other, 0.2);
    expect(beside.lengthM).toBeCloseTo(2, 9);
    expect(beside.leastM).toBeCloseTo(0.15, 9);
    expect(alongside(line([0, 0.21, 0], [2, 0.21, 0]), other, 0.2).lengthM).toBe(0);
  });

  test('crossing at a right angle it counts twice the distance', () => {
    const found = alongside(line([1, -1, 0], [1, 1, 0], 1000), line([0, 0, 0], [2, 0, 0], 1000), 0.15);
    expect(found.lengthM).toBeCloseTo(0.3, 2);
    expect(found.leastM).toBeCloseTo(0, 9);
  });
});
