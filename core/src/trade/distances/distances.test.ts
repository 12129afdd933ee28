import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { materialGroups } from '../../model/document';
import { impulseVoltages, leastDistances, type DistanceInput } from '.';

const input: DistanceInput = {
  workingV: 400,
  impulseV: 2500,
  pollution: 2,
  material: 'IIIa',
  altitudeM: 2000,
};

describe('least distances', () => {
  test('400 V, 2.5 kV, pollution 2, group IIIa: 1.5 mm through the air, 4 mm along the surface', () => {
    expect(leastDistances(input, false)).toMatchObject({ clearanceMm: 1.5, creepageMm: 4 });
  });

  test('reinforced: the next impulse voltage, and the way doubled', () => {
    expect(leastDistances(input, true)).toMatchObject({ clearanceMm: 3, creepageMm: 8 });
  });

  test.each<[string, Partial<DistanceInput>, number, number]>([
    ['dirt that conducts', { pollution: 3 }, 1.5, 6.3],
    ['a better material', { material: 'I' }, 1.5, 2],
    ['sealed', { pollution: 1 }, 1.5, 1.5],
    ['4000 m up', { altitudeM: 4000 }, 1.5 * 1.29, 4],
    ['between two heights', { altitudeM: 2500 }, 1.5 * 1.07, 4],
    ['between two voltages', { workingV: 450 }, 1.5, 4.5],
    ['between two impulse voltages the larger counts', { impulseV: 2501 }, 3, 4],
    ['115 V on a surge: creepage is never below the clearance', { workingV: 115, impulseV: 4000 }, 3, 3],
    ['below the table', { workingV: 20, impulseV: 330 }, 0.2, 1.2],
  ])('%s', (_, change, clearanceMm, creepageMm) => {
    const found = leastDistances({ ...input, ...change }, false)!;
    expect(found.clearanceMm).toBeCloseTo(clearanceMm, 9);
    expect(found.creepageMm).toBeCloseTo(creepageMm, 9);
  });

  test('says what governs: the surge, dirt at small surges, the height, the voltage or the clearance', () => {
    const of = (change: Partial<DistanceInput>) => leastDistances({ ...input, ...change }, false)!;
    expect(of({})).toMatchObject({ clearanceBy: 'surge', creepageBy: 'voltage', altitudeFactor: 1 });
    expect(of({ impulseV: 500, pollution: 3 }).clearanceBy).toBe('pollution');
    expect(of({ impulseV: 500, pollution: 1 }).clearanceBy).toBe('surge');
    expect(of({ altitudeM: 3000 }).altitudeFactor).toBe(1.14);
    expect(of({ workingV: 115, impulseV: 4000 }).creepageBy).toBe('clearance');
  });

  test.each<[string, Partial<DistanceInput>]>([
    ['above 1000 V', { workingV: 1001 }],
    ['above 12 kV', { impulseV: 12_001 }],
    ['above 6000 m', { altitudeM: 6001 }],
  ])('%s no figure is given', (_, change) => {
    expect(leastDistances({ ...input, ...change }, false)).toBeNull();
  });

  test('more voltage, dirt or height never asks for less; reinforced never for less than basic', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 10, max: 900, noNaN: true }),
        fc.double({ min: 0, max: 100, noNaN: true }),
        fc.constantFrom(...impulseVoltages.slice(0, -1)),
        fc.constantFrom(1 as const, 2 as const),
        fc.constantFrom(...materialGroups),
        fc.double({ min: 0, max: 5900, noNaN: true }),
        (workingV, more, impulseV, pollution, material, altitudeM) => {
          const one = { workingV, impulseV, pollution, material, altitudeM };
          const base = leastDistances(one, false)!;
          const worse = [
            leastDistances({ ...one, workingV: workingV + more }, false)!,
            leastDistances({ ...one, pollution: (pollution + 1) as 2 | 3 }, false)!,
            leastDistances({ ...one, altitudeM: altitudeM + more }, false)!,
            leastDistances(one, true)!,
          ];
          for (const { clearanceMm, creepageMm } of worse) {
            expect(clearanceMm).toBeGreaterThanOrEqual(base.clearanceMm - 1e-12);
            expect(creepageMm).toBeGreaterThanOrEqual(base.creepageMm - 1e-12);
          }
          expect(base.creepageMm).toBeGreaterThanOrEqual(base.clearanceMm);
        },
      ),
      { numRuns: 400, seed: 12 },
    );
  });
});
