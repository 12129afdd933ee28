import type { FuseBand } from '../fuse';
import type { GlandData, LugData } from '../../model/parts';
import type { CableInput, CableResult } from './cable';

/** Which criterion decides: the one whose use of its limit is the greatest. */
export type CableCriterion =
  | 'ampacity'
  | 'load over time'
  | 'voltage drop'
  | 'short circuit'
  | 'fuse too slow'
  | 'lug'
  | 'gland'
  | 'does not fit the conduit';

/** The place of a cable: its way, its load, the fuse that protects it, and what it ends in. */
export interface CablePlace {
  /** Parts of the way; the fields of the cable itself are those of any cable. */
  ways: CableInput[];
  /** The load over time; empty: not given. */
  profile: [durationS: number, currentA: number][];
  maxDropFraction: number;
  /** The fuse and the faults it has to clear; null: none, or not known. */
  fuse: CableFuse | null;
  /** The chosen ends; null: none. */
  lug: LugData | null;
  gland: GlandData | null;
  studMm: number | null;
  /** At how many ends its screen is clamped. */
  screensClamped: number;
}

/** A fuse with what the smallest fault at the far end of a cable follows from. */
export interface CableFuse extends FuseBand {
  label: string;
  minBreakingA: number;
  maxClearS: number;
  faultMaxA: number;
  lowV: number;
  coldOhm: number;
  contactOhm: number;
}

/** What a cable’s parts make together: the hottest governs, drops and losses add up. */
export type Together = Pick<
  CableResult,
  'ampacityA' | 'conductorTemperatureC' | 'voltageDropV' | 'dropFraction' | 'lossW'
>;

/** Puts the results of a cable’s parts together; null as soon as one of them finds no balance. */
export function together(results: readonly CableResult[]): Together {
  const sum = (name: 'voltageDropV' | 'dropFraction' | 'lossW') =>
    results.some((one) => one[name] === null)
      ? null
      : results.reduce((total, one) => total + (one[name] as number), 0);
  return {
    ampacityA: Math.min(...results.map(({ ampacityA }) => ampacityA)),
    conductorTemperatureC: results.some((one) => one.conductorTemperatureC === null)
      ? null
      : Math.max(...results.map((one) => one.conductorTemperatureC!)),
    voltageDropV: sum('voltageDropV'),
    dropFraction: sum('dropFraction'),
    lossW: sum('lossW'),
  };
}
