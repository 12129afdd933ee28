import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { medianOf, outlierScore, scoreBatch } from '.';

describe('outliers of a batch', () => {
  test('by hand: median 3.29, deviations 0.01: a cell at 3.20 scores 6.07', () => {
    const { median, mad, scores, outliers } = scoreBatch([3.28, 3.29, 3.3, 3.28, 3.3, 3.2, 3.29]);
    expect(median).toBeCloseTo(3.29, 9);
    expect(mad).toBeCloseTo(0.01, 9);
    expect(scores[5]).toBeCloseTo((0.6745 * 0.09) / 0.01, 6);
    expect(outliers).toEqual([false, false, false, false, false, true, false]);
  });

  test('exactly at the limit is none', () => {
    // Deviations 0, four of 1, and two of 3.5/0.6745.
    const edge = outlierScore / 0.6745;
    const at = (value: number) => scoreBatch([0, 1, -1, 1, -1, value, -value]).outliers[5];
    expect(at(edge * 0.999999)).toBe(false);
    expect(at(edge * 1.000001)).toBe(true);
  });

  test('a wild value does not hide itself, nor another', () => {
    const cells = [3.29, 3.291, 3.288, 3.29, 3.292, 3.287, 32.9, 0.3];
    expect(scoreBatch(cells).outliers).toEqual([false, false, false, false, false, false, true, true]);
  });

  test('where most are equal any other one is an outlier, without a score', () => {
    const { scores, outliers } = scoreBatch([5, 5, 5, 5, 5.001]);
    expect(scores).toEqual([0, 0, 0, 0, null]);
    expect(outliers[4]).toBe(true);
  });

  test('what was not measured has no score; three make no batch', () => {
    expect(scoreBatch([1, null, 2, 9]).outliers).toEqual([false, false, false, false]);
    expect(scoreBatch([1, 1.1, null, 0.9, 1, 9]).outliers).toEqual([false, false, false, false, false, true]);
    expect(medianOf([])).toBeNull();
  });

  test('shift and scale change nothing', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -1000, max: 1000 }), { minLength: 4, maxLength: 40 }),
        fc.integer({ min: -50, max: 50 }),
        fc.constantFrom(0.5, 2, 4, -8),
        (values, shift, scale) => {
          const moved = scoreBatch(values.map((value) => value * scale + shift));
          expect(moved.outliers).toEqual(scoreBatch(values).outliers);
        },
      ),
    );
  });
});
