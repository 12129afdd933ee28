import { describe, expect, test } from '@jest/globals';
import { highPoints, postureOf } from './posture';

const joins = {
  front: { tag: 'Front', xM: 0, yM: 0.5, zM: 1 },
  rear: { tag: 'Rear', xM: -4, yM: -0.5, zM: 1.1 },
};
const deg = Math.PI / 180;

describe('the posture of filling', () => {
  test('level, heights are as they are given', () => {
    const { heights, gaps, words } = postureOf({ tag: 'L' }, joins);
    expect([[...heights], gaps, words]).toEqual([
      [
        ['front', 1],
        ['rear', 1.1],
      ],
      [],
      null,
    ]);
  });

  test('with the nose up what lies behind the front axle sinks', () => {
    const { heights, words } = postureOf({ tag: 'L', fillNoseUpDeg: 10 }, joins);
    expect(heights.get('front')).toBeCloseTo(Math.cos(10 * deg), 12);
    expect(heights.get('rear')).toBeCloseTo(1.1 * Math.cos(10 * deg) - 4 * Math.sin(10 * deg), 12);
    expect(words).toBe('its nose 10° up');
  });

  test('with the left side up what lies left rises, on top of the pitch', () => {
    const { heights, words } = postureOf({ tag: 'L', fillNoseUpDeg: -5, fillLeftUpDeg: 12 }, joins);
    const pitched = 1.1 * Math.cos(5 * deg) + 4 * Math.sin(5 * deg);
    expect(heights.get('rear')).toBeCloseTo(pitched * Math.cos(12 * deg) - 0.5 * Math.sin(12 * deg), 12);
    expect(words).toBe('its nose 5° down and its left side 12° up');
  });

  test('asks for a place only along what is turned', () => {
    const bare = { a: { tag: 'A', zM: 1 }, b: { tag: 'B', xM: 1 } };
    const asked = (change: object) =>
      postureOf({ tag: 'L', ...change }, bare).gaps.map((gap) => 'path' in gap && gap.path);
    expect(asked({})).toEqual(['joins.b.zM']);
    expect(asked({ fillNoseUpDeg: 3 })).toEqual(['joins.a.xM', 'joins.b.zM']);
    expect(asked({ fillLeftUpDeg: 3 })).toEqual(['joins.a.yM', 'joins.b.zM', 'joins.b.yM']);
  });

  test('air gathers elsewhere than on level ground', () => {
    const ways = [
      { from: 'front', to: 'middle' },
      { from: 'middle', to: 'rear' },
    ];
    const all = { ...joins, middle: { tag: 'Middle', xM: -2, yM: 0, zM: 1.2 } };
    const highs = (fillNoseUpDeg: number) =>
      highPoints(postureOf({ tag: 'L', fillNoseUpDeg }, all).heights, ways);
    expect(highs(0)).toEqual([['middle']]);
    expect(highs(20)).toEqual([['front']]);
    expect(highs(-20)).toEqual([['rear']]);
  });
});
