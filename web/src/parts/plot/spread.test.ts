import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { spreadLabels } from './spread';

describe('labels at the ends of lines', () => {
  test('stay where they are when they do not meet', () => {
    expect([
      ...spreadLabels(
        [
          { id: 'a', yPx: 10 },
          { id: 'b', yPx: 40 },
        ],
        200,
      ).values(),
    ]).toEqual([0, 0]);
  });

  test('the lower of two gives way, and near the bottom the upper one', () => {
    expect(
      spreadLabels(
        [
          { id: 'a', yPx: 12 },
          { id: 'b', yPx: 10 },
        ],
        200,
      ),
    ).toEqual(
      new Map([
        ['b', 0],
        ['a', 13],
      ]),
    );
    expect(
      spreadLabels(
        [
          { id: 'a', yPx: 199 },
          { id: 'b', yPx: 200 },
        ],
        200,
      ),
    ).toEqual(
      new Map([
        ['a', -14],
        ['b', 0],
      ]),
    );
  });

  test('never meet, keep their order, and stay above the bottom', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 200, noNaN: true }), { maxLength: 8 }), (ys) => {
        const ends = ys.map((yPx, i) => ({ id: String(i), yPx }));
        const moved = spreadLabels(ends, 202);
        const at = [...ends].sort((a, b) => a.yPx - b.yPx).map(({ id, yPx }) => yPx + moved.get(id)!);
        expect(at.every((y, i) => i === 0 || y - at[i - 1]! >= 15 - 1e-9)).toBe(true);
        expect(at.every((y) => y <= 202 + 1e-9)).toBe(true);
      }),
      { numRuns: 200, seed: 2 },
    );
  });
});
