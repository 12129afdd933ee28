import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { catalogueOf } from '../../model/parts';
import {
  cable,
  glandProblem,
  rankGlands,
  rankLugs,
  sizeTable,
  type CableEnd,
  type CablePlace,
  type SizedCable,
} from '.';

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
        const ranked = rankGlands(catalogueOf('gland'), {
          areaMm2: 1,
          outerDiameterMm: outerMm,
          conductorTemperatureC: null,
          studMm: null,
        });
        const firstBad = ranked.findIndex(({ fits }) => !fits);
        expect(firstBad < 0 || ranked.slice(firstBad).every(({ fits }) => !fits)).toBe(true);
      }),
      { numRuns: 100, seed: 1 },
    );
    const g16 = catalogueOf('gland').find(({ id }) => id === 'wendmoor-g16')!.data;
    expect(glandProblem(g16, 8)).toBeNull();
    expect(glandProblem(g16, 8.01)).toBe('clamps 4 to 8 mm, the cable has 8.01 mm');
  });

  test('the table of sizes takes along what the area needs, and says where nothing of the library does', () => {
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
    const place: CablePlace = {
      ways: [parsed.input],
      profile: [],
      maxDropFraction: 0.02,
      fuse: null,
      lug: null,
      gland: gland.data,
      studMm: null,
      screensClamped: 0,
    };
    const with95 = (table: SizedCable[]) => table.find(({ areaMm2 }) => areaMm2 === 95)!;
    const fitting = (rows: SizedCable[]) => rows.filter(({ fits }) => fits).map(({ areaMm2 }) => areaMm2);
    // Another gland of the library goes along; where there is none, the gland decides.
    const table = sizeTable(place, { conductorMaxC: 125 });
    expect(fitting(table)).toEqual(expect.arrayContaining([35, 50, 70, 95, 120]));
    expect(with95(table)).toMatchObject({
      fits: true,
      along: [{ kind: 'gland', partKey: 'wendmoor-g32@1' }],
    });
    const alone = sizeTable(place, { conductorMaxC: 125, glands: [gland] });
    expect(fitting(alone)).toEqual([35, 50, 70]);
    expect(with95(alone).reasons).toEqual(['has no gland for 18.7 mm in the library']);
    const governs = (area: number) => alone.find(({ areaMm2 }) => areaMm2 === area)!.governs;
    expect([governs(95), governs(50)]).toEqual(['gland', 'ampacity']);
  });
});
