import { describe, expect, test } from '@jest/globals';
import { bendCard } from '@torvek/core/routing';
import { distance } from '@torvek/core/math';
import { halfBent, seen, turnText } from './tube-drawing';

const parsed = bendCard.parse({
  points: [
    [0, 0, 0],
    [0.6, 0, 0],
    [0.6, 0.5, 0],
    [0.6, 0.5, 0.7],
  ],
  centrelineRadiusMm: 100,
  tubeOuterMm: 32,
  wallMm: 2,
});
if (!parsed.ok) throw new Error('no card');
const card = bendCard.calculate(parsed.input).result;

describe('a tube at the bender', () => {
  test('fully bent it ends as far from its start as the run does', () => {
    const { points, straightFrom } = halfBent(card, 2);
    expect(distance(points[0]!, points.at(-1)!)).toBeCloseTo(1000 * Math.hypot(0.6, 0.5, 0.7), 6);
    expect(straightFrom).toBe(points.length - 2);
  });

  test('before its first bend it is as long as it is cut, in one line', () => {
    const { points, straightFrom } = halfBent(card, 0, 15);
    expect(points.at(-1)![0]).toBeCloseTo(card.cutLengthMm + 15, 6);
    expect([points.every(([, y, z]) => y === 0 && z === 0), straightFrom]).toEqual([true, 0]);
  });

  test('after one bend the rest lies in one plane with it', () => {
    const { points } = halfBent(card, 1);
    expect(points.every(([, , z]) => Math.abs(z) < 1e-9)).toBe(true);
    expect(points.at(-1)![1]).toBeGreaterThan(500);
  });

  test('seen from the side, up is up', () => {
    expect(seen([[10, 0, 5]], 0, 0)[0]).toEqual([10, -5]);
    const [[x, y]] = seen([[10, 0, 0]], 90, 90) as [[number, number]];
    expect([x, y]).toEqual([expect.closeTo(0, 9), expect.closeTo(-10, 9)]);
  });

  test('what to say', () => {
    expect([0, 180, -180, 94.46, -12.3].map(turnText)).toEqual([
      'as it lies',
      'half a turn',
      'half a turn',
      '94.5° clockwise',
      '12.3° anticlockwise',
    ]);
  });
});
