import { expect, test } from '@jest/globals';
import { conduitFill, overfilled } from './conduit';
import { glandProblems, jacketOf, screensClamped } from './ends';

const steel = { install: 'steel-conduit' as const };

test('both poles fill a conduit by the square of the diameters; two may fill 31 %, four 40 %', () => {
  // 2·(10/20)² = 50 %.
  expect(conduitFill({ ...steel, conduitInnerMm: 20 }, 10)).toEqual({
    cables: 2,
    fill: 0.5,
    most: 0.31,
    conduitInnerMm: 20,
  });
  const at = (conduitInnerMm: number, parallel?: number) =>
    overfilled(conduitFill({ ...steel, conduitInnerMm, ...(parallel !== undefined && { parallel }) }, 10));
  // √(2/0.31) = 2.540: a conduit of 25.4 mm is the least for two of 10 mm, √(4/0.4) = 3.162 for four.
  expect([at(25.3), at(25.5)]).toEqual([true, false]);
  expect([at(31.5, 2), at(31.7, 2)]).toEqual([true, false]);
  expect(conduitFill({ install: 'free-air', conduitInnerMm: 20 }, 10)).toBeNull();
  expect(conduitFill(steel, 10)).toBeNull();
});

test('a gland feels the jacket, 15 K below the conductor, and meets the screen where it is clamped', () => {
  const gland = { threadMm: 16, clampMinMm: 4, clampMaxMm: 8, screenContact: false, maxC: 100 };
  const end = { areaMm2: 4, outerDiameterMm: 6, studMm: 5, conductorTemperatureC: 115 };
  expect(jacketOf(end)).toBe(100);
  expect(glandProblems(gland, end)).toEqual([]);
  expect(glandProblems(gland, { ...end, conductorTemperatureC: 116 })).toEqual([
    'stands 100 °C, the jacket reaches about 101 °C',
  ]);
  expect(glandProblems(gland, { ...end, screensClamped: 1 })).toEqual(['does not meet the screen']);
  expect(glandProblems({ ...gland, screenContact: true }, { ...end, screensClamped: 2 })).toEqual([]);
  expect(screensClamped({ screened: true, screenFrom: 'clamp', screenTo: 'pigtail' })).toBe(1);
  expect(screensClamped({ screened: false, screenFrom: 'clamp', screenTo: 'clamp' })).toBe(0);
});
