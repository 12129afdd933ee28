import { describe, expect, test } from '@jest/globals';
import { typicalCellV, typicalModule } from './index';

const label = { nominalV: 44.4, capacityAh: 94, massKg: 28, lengthMm: 560, widthMm: 210, heightMm: 110 };

describe('a module of which only the label is known', () => {
  test('gets as many cells as its voltage holds, the curve of its chemistry, and cautious limits', () => {
    const made = typicalModule({ chemistry: 'NMC', ...label });
    if (!made.ok) throw new Error('refused');
    expect(made.data).toMatchObject({
      cellsInSeries: 12,
      cellsInParallel: 1,
      massKg: 28,
      continuousA: 94,
      peakA: 188,
      chargeA: 47,
      chargePeakA: 94,
      typical: true,
    });
    expect(made.data.cell).toMatchObject({ capacityAh: 94, minV: 3, maxV: 4.2 });
    expect(made.data.cell.resistanceOhm).toBeCloseTo(0.09 / 94, 12);
    expect(made.data.cell.ocvTable[0]).toEqual([0, 3]);
  });

  test('four cells of iron phosphate are 12.8 V on the label, eight 25.6 V, a loose one 3.2 V', () => {
    for (const [nominalV, cells] of [
      [12.8, 4],
      [25.6, 8],
      [3.2, 1],
    ] as const) {
      const made = typicalModule({ chemistry: 'LFP', ...label, nominalV });
      expect(made.ok && made.data.cellsInSeries).toBe(cells);
      expect(made.ok && made.data.cell.maxV).toBe(3.65);
    }
  });

  test('a voltage that no whole number of cells gives is asked again, at the field', () => {
    const made = typicalModule({ chemistry: 'LFP', ...label, nominalV: 14.4 });
    expect(made).toEqual({
      ok: false,
      issues: [{ path: 'nominalV', message: expect.stringContaining('4 LFP cells in series are about 13') }],
    });
    const counted = typicalModule({ chemistry: 'NMC', ...label, cellsInSeries: 10 });
    expect(counted).toMatchObject({ ok: false, issues: [{ path: 'cellsInSeries' }] });
    expect(typicalModule({ chemistry: 'NMC', ...label, cellsInSeries: 12 }).ok).toBe(true);
  });

  test('what is not above 0 is named, each by itself', () => {
    const made = typicalModule({ chemistry: 'NMC', ...label, capacityAh: 0, massKg: Number.NaN });
    expect(made.ok ? [] : made.issues.map(({ path }) => path)).toEqual(['capacityAh', 'massKg']);
  });

  test('cells of a curve lie where their chemistry does', () => {
    expect(typicalCellV('NMC')).toBeCloseTo(3.72, 1);
    expect(typicalCellV('LFP')).toBeCloseTo(3.26, 1);
  });
});
