import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { findRoot, integrate, interpolate, logSpaced, minimise, type Table } from '.';

const table: Table = [
  [0, 3],
  [0.5, 3.6],
  [1, 4.2],
];

describe('tables', () => {
  test('between points linear, beyond the ends held', () => {
    expect(interpolate(table, 0.25)).toBeCloseTo(3.3, 12);
    expect([interpolate(table, -1), interpolate(table, 2)]).toEqual([3, 4.2]);
  });
  test('an integral between table points', () => {
    expect(integrate(table, 0, 1)).toBeCloseTo(3.6, 12);
    expect(integrate(table, 0.25, 0.75)).toBeCloseTo(1.8, 12);
    expect(integrate(table, 0.75, 0.25)).toBeCloseTo(-1.8, 12);
  });
  test('parts of an integral add up wherever it is cut', () => {
    const place = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(place, (cut) => {
        expect(integrate(table, 0, cut) + integrate(table, cut, 1)).toBeCloseTo(3.6, 10);
      }),
    );
  });
  test('log spacing keeps both ends exactly and steps evenly', () => {
    const values = logSpaced(900, 6500, 40);
    expect([values.length, values[0], values[39]]).toEqual([40, 900, 6500]);
    expect(values[1]! / values[0]!).toBeCloseTo(values[20]! / values[19]!, 10);
  });
});

describe('roots and minima', () => {
  test('finds a known root to machine precision', () => {
    const root = findRoot((x) => x ** 3 - 2, 0, 2)!;
    expect(root.x).toBeCloseTo(Math.cbrt(2), 13);
    expect(root.iterations).toBeLessThan(20);
  });
  test('says so when there is no change of sign', () => {
    expect(findRoot((x) => x ** 2 + 1, -1, 1)).toBeNull();
  });
  test('is not caught by a local minimum', () => {
    const wavy = (x: number) => Math.cos(3 * x) + (x - 4) ** 2 / 10;
    const { x, onBound } = minimise(wavy, -5, 10);
    expect(x).toBeCloseTo(3.19, 1);
    expect(onBound).toBe(false);
  });
  test('tells a minimum on the bound', () => {
    expect(minimise((x) => x, 1, 2)).toMatchObject({ onBound: true });
  });
});
