import { describe, expect, test } from '@jest/globals';
import { runGeometry, waysAlong, type LaidWay } from '../../model/document';
import { clipReachM, holdOf } from './hold-step';

type Spot = [xM: number, yM: number, zM: number, after?: LaidWay];
const held = (points: Spot[], fixings: { tag: string; spot: [number, number, number] }[]) => {
  const given = points.map(([xM, yM, zM, after]) => ({ xM, yM, zM, ...(after !== undefined && { after }) }));
  return holdOf(runGeometry({ tag: 'R', bendRadiusMm: 100, points: given })!, waysAlong(given), fixings);
};
const fixing = (tag: string, ...spot: [number, number, number]) => ({ tag, spot });

describe('what is there holds a run', () => {
  const straight: Spot[] = [
    [0, 0, 1],
    [2, 0, 1],
  ];
  const free = (...fixings: ReturnType<typeof fixing>[]) => {
    const { fromM, toM } = held(straight, fixings).longest;
    return [fromM, toM].map((atM) => Number(atM.toFixed(6)));
  };

  test('without any it hangs from end to end; one within reach of a clip divides it', () => {
    expect(free()).toEqual([0, 2]);
    expect(free(fixing('Stud', 0.5, 0.05, 1))).toEqual([0.5, 2]);
    expect(free(fixing('Stud', 1.2, 0, 1 - clipReachM))).toEqual([0, 1.2]);
    expect(free(fixing('Stud', 1.2, 0, 1 - clipReachM - 0.001))).toEqual([0, 2]);
    expect(free(fixing('A', 0.5, 0, 1), fixing('B', 1.4, 0.03, 1.02))).toEqual([0.5, 1.4]);
  });

  test('a box it lies in holds it all along, and is no free stretch however long', () => {
    const run: Spot[] = [
      [0, 0, 1],
      [0.3, 0, 1, 'box'],
      [1.9, 0, 1, 'clipped'],
      [2.1, 0, 1],
    ];
    const { held: all, longest } = held(run, []);
    expect(all.map(({ by }) => by)).toEqual(['its beginning', 'a box', 'a box', 'its end']);
    expect([longest.fromM, longest.toM]).toEqual([0, expect.closeTo(0.3, 6)]);
  });

  test('along a corner it is measured along the cable', () => {
    const run: Spot[] = [
      [0, 0, 1],
      [1, 0, 1],
      [1, 1, 1],
    ];
    const { longest } = held(run, [fixing('Stud', 1, 1, 1)]);
    // 2 m less what the radius cuts off: 0.2 − 0.1·π/2.
    expect(longest.toM - longest.fromM).toBeCloseTo(2 - 0.2 + (0.1 * Math.PI) / 2, 6);
  });
});
