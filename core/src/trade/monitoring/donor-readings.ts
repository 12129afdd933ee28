import { interpolate } from '../../ground/math';
import type { PackLayout } from '../pack';
import type { SensingSettings } from '../../model/document';

/** What is so, and what a donor’s monitor tells of it, over the true state of charge. */
export interface DonorReadings {
  /** [true state of charge, told state of charge]: counted from a full charge, as its own pack would have it. */
  charge: [trueFraction: number, toldFraction: number][];
  /** [true state of charge, volts of the pack, volts as told] */
  voltage: [trueFraction: number, trueV: number, toldV: number][];
  /** True state of charge at which it tells empty; null: never within the charge. */
  emptyAtFraction: number | null;
}

/**
 * What a donor’s monitor tells over the charge of this pack. It counts ampere-hours from full in shares of the capacity that it
 * knows, and tells the mean cell times the cells that it expects.
 */
export function donorReadings(
  layout: Pick<PackLayout, 'seriesCells' | 'strings' | 'part'>,
  { donorCells, donorAh }: Pick<SensingSettings, 'donorCells' | 'donorAh'>,
  points = 21,
): DonorReadings | null {
  if (donorCells === undefined || donorAh === undefined || donorAh <= 0) return null;
  const { cell, cellsInParallel } = layout.part.data;
  const ratio = (cell.capacityAh * cellsInParallel * layout.strings) / donorAh;
  const told = (fraction: number) => Math.max(0, 1 - (1 - fraction) * ratio);
  const fractions = Array.from({ length: points }, (_, i) => i / (points - 1));
  const emptyAt = 1 - 1 / ratio;
  return {
    charge: fractions.map((fraction) => [fraction, told(fraction)]),
    voltage: fractions.map((fraction) => {
      const cellV = interpolate(cell.ocvTable, fraction);
      return [fraction, cellV * layout.seriesCells, cellV * donorCells];
    }),
    emptyAtFraction: emptyAt > 1e-9 ? emptyAt : null,
  };
}
