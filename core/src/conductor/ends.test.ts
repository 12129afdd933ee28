import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { catalogueOf } from '../parts';
import { cable, glandProblem, rankGlands, rankLugs, sizeTable, type CableEnd } from '.';

const end: CableEnd = { areaMm2: 70, outerDiameterMm: 16.3, conductorTemperatureC: 84, studMm: 10 };

describe('the ends of a cable', () => {
  test('the lug for its area and stud is first, and the only one that fits', () => {
    const ranked = rankLugs(catalogueOf('lug'), end);
    expect(ranked[0]).toEqual({
      partKey: 'penhallow-c70-m10@1',
      label: expect.any(String),
      fits: true,
      reasons: [],
    });
    expect(ranked.filter(({ fits }) => fits)).toHaveLength(1);
    expect(ranked[1]!.reasons).toHaveLength(1);
  });

  test('a hot conductor rules every lug out, with both temperatures', () => {
    const ranked = rankLugs(catalogueOf('lug'), { ...end, conductorTemperatureC: 160 });
    expect(ranked.some(({ fits }) => fits)).toBe(false);
    expect(ranked[0]!.reasons).toEqual(['stands 150 °C, the conductor reaches 160 °C']);
  });

  test('a stud that nobody gave rules nothing out', () => {
    expect(rankLugs(catalogueOf('lug'), { ...end, studMm: null }).filter(({ fits }) => fits)).toHaveLength(2);
  });

  test('glands: fits exactly within its range, ends included', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 40, noNaN: true }), (outerMm) => {
        for (const { data } of catalogueOf('gland'))
          expect(glandProblem(data, outerMm) === null).toBe(
            outerMm >= data.clampMinMm && outerMm <= data.clampMaxMm,
          );
        const ranked = rankGlands(catalogueOf('gland'), outerMm);
        const firstBad = ranked.findIndex(({ fits }) => !fits);
        expect(firstBad < 0 || ranked.slice(firstBad).every(({ fits }) => !fits)).toBe(true);
      }),
      { numRuns: 100, seed: 1 },
    );
    expect(glandProblem(catalogueOf('gland')[0]!.data, 8)).toBeNull();
    expect(glandProblem(catalogueOf('gland')[0]!.data, 8.01)).toBe('clamps 4 to 8 mm, the cable has 8.01 mm');
  });

  test('the table of sizes says which areas the gland does not clamp', () => {
    const { massKgPerM: _mass, ...data } = catalogueOf('cable').find(({ id }) => id === 'marl-x70')!.data;
    const parsed = cable.parse({
      ...data,
      ambientC: 40,
      lengthM: 5,
      currentA: 20,
      install: 'free-air',
      busVoltageV: 350,
    });
    if (!parsed.ok) throw new Error(JSON.stringify(parsed.issues));
    const gland = catalogueOf('gland').find(({ id }) => id === 'wendmoor-g25')!;
    const without = sizeTable([parsed.input], 0.02, { conductorMaxC: 125 });
    const table = sizeTable([parsed.input], 0.02, { conductorMaxC: 125, gland });
    const fitting = (rows: typeof table) => rows.filter(({ fits }) => fits).map(({ areaMm2 }) => areaMm2);
    expect(fitting(table)).toEqual([35, 50, 70]);
    expect(fitting(without)).toEqual(expect.arrayContaining([35, 50, 70, 95, 120]));
    expect(table.find(({ areaMm2 }) => areaMm2 === 95)!.reasons).toEqual([
      'the gland clamps 11 to 17.5 mm, the cable has 18.7 mm',
    ]);
    const governs = (area: number) => table.find(({ areaMm2 }) => areaMm2 === area)!.governs;
    // The gland decides only where nothing else does.
    expect([governs(95), governs(0.5), governs(50)]).toEqual(['gland', 'voltage drop', 'ampacity']);
  });
});
