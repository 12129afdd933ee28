import { describe, expect, test } from '@jest/globals';
import type { ModuleData } from '../../model/parts';
import { intoString } from '.';

/** 4 in series, 2 side by side, on a straight table of 0.01 V per cent: 1 % is 1 Ah. */
const data = {
  cell: {
    ocvTable: [
      [0, 3],
      [1, 4],
    ],
    capacityAh: 50,
    resistanceOhm: 0.002,
    minV: 2.8,
    maxV: 4.05,
  },
  cellsInSeries: 4,
  cellsInParallel: 2,
  continuousA: 100,
  chargeA: 60,
} as unknown as ModuleData;
const ask = (change: Partial<Parameters<typeof intoString>[0]> = {}) =>
  intoString({ data, neighboursV: [14.4, 14.41, 14.36], moduleV: 14.8, toleranceVPerCell: 0.005, ...change });

describe('one module into its series string', () => {
  test('the middle of its neighbours is the target, and the table says how much charge lies between', () => {
    const found = ask()!;
    expect(found.targetV).toBeCloseTo(14.4, 12);
    expect(found.spreadV).toBeCloseTo(0.05, 12);
    expect([found.way, found.hours, found.stopV]).toEqual(['draw down', null, null]);
    // 0.1 V a cell of 1 V over 100 Ah.
    expect(found.ahToMove).toBeCloseTo(10, 9);
    // 5 mV a cell at either end: √2 · 0.5 Ah.
    expect(found.ahUnsure).toBeCloseTo(Math.SQRT2 * 0.5, 9);
    expect(found.capacityAssumed).toBe(true);
    const measured = ask({ capacityAh: 90 })!;
    expect([measured.ahToMove, measured.capacityAssumed]).toEqual([expect.closeTo(9, 9), false]);
  });

  test('drawn down: it stops where rest would show the target, and the hours are charge over mean current', () => {
    const found = ask({ loadOhm: 1.496 })!;
    // 4 mΩ inside and 1.496 Ω outside: 1.5 Ω.
    expect(found.stopV).toBeCloseTo((14.4 * 1.496) / 1.5, 9);
    expect(found.currentA).toBeCloseTo(14.8 / 1.5, 9);
    expect(found.loadW).toBeCloseTo((14.8 / 1.5) ** 2 * 1.496, 9);
    // ∫ dAh/I over a straight table: 100 Ah · 1.5 Ω / 4 V · ln(14.8/14.4).
    expect(found.hours).toBeCloseTo(((100 * 1.5) / 4) * Math.log(14.8 / 14.4), 9);
  });

  test('charged up: what flows stands on top of what rest would show', () => {
    const found = ask({ moduleV: 14, supplyA: 20 })!;
    expect([found.way, found.refused]).toEqual(['charge up', []]);
    expect(found.stopV).toBeCloseTo(14.4 + 20 * 0.004, 9);
    expect(found.hours).toBeCloseTo(10 / 20, 9);
    expect(found.loadW).toBeNull();
  });

  test('near enough is left alone; gear of the wrong kind says nothing', () => {
    expect(ask({ moduleV: 14.42 })!.way).toBe('none');
    expect(ask({ moduleV: 14.4201 })!.way).toBe('draw down');
    expect(ask({ moduleV: 14.38 })!.way).toBe('none');
    expect(ask({ supplyA: 20 })!.hours).toBeNull();
    expect(ask({ moduleV: 14, loadOhm: 1 })!.hours).toBeNull();
  });

  test('gear that the cells do not stand is refused with the reason, and gets no hours', () => {
    const load = ask({ loadOhm: 0.1 })!;
    expect([load.refused, load.hours, load.stopV]).toEqual([
      ['more current than the module may give without end'],
      null,
      null,
    ]);
    const supply = ask({ moduleV: 14, supplyA: 61 })!;
    expect([supply.refused, supply.hours]).toEqual([
      ['more current than the module takes without end'],
      null,
    ]);
    const high = ask({ neighboursV: [16.1], moduleV: 15.8, supplyA: 30 })!;
    expect(high.refused).toEqual(['at this current the cells rise above their highest voltage']);
    const low = ask({ neighboursV: [11.3], moduleV: 11.6, loadOhm: 0.2 })!;
    expect(low.refused).toEqual(['under this load the cells fall below their least voltage']);
  });

  test('without a measured neighbour there is no target', () => {
    expect(ask({ neighboursV: [] })).toBeNull();
  });
});
