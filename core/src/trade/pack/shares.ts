import { interpolate, type Table } from '../../ground/math';

/** A string beside others: what it drives and through what. */
export interface ParallelString {
  /** Open-circuit voltage of the whole string over state of charge, 0 to 1. */
  ocvTable: Table;
  capacityAh: number;
  resistanceOhm: number;
  socFraction: number;
}

/** Steps of a walk. */
const mostSteps = 20_000;

export interface StringShare {
  rmsA: number;
  /** Largest by magnitude, with its sign: out of the string is positive. */
  peakA: number;
  endSocFraction: number;
  /** What flows once the load is off: out of one string, into another. */
  circulatingA: number;
}

/**
 * What each of several strings in parallel carries over a load: at every moment all have the same voltage at their ends,
 * so that the one with less resistance or more charge carries more; as charge runs apart, the open-circuit voltages pull
 * back.
 *
 * @param profile durations in s and currents in A of all strings together, out of the pack positive; walked in order
 * @param stepS the longest step, unless the whole load would take more than 20 000 of them; the state of charge is taken as
 *   constant over it. The walk ends where a string is empty or full.
 */
export function stringShares(
  strings: readonly ParallelString[],
  profile: readonly (readonly [durationS: number, currentA: number])[],
  stepS = 10,
): StringShare[] {
  const soc = strings.map(({ socFraction }) => socFraction);
  const squares = strings.map(() => 0);
  const peaks = strings.map(() => 0);
  const conductance = strings.reduce((sum, { resistanceOhm }) => sum + 1 / resistanceOhm, 0);
  // Filled anew at every step: profiles are long.
  const driven = new Float64Array(strings.length);
  const currents = new Float64Array(strings.length);
  const share = (currentA: number) => {
    let sum = 0;
    for (let k = 0; k < strings.length; k += 1) {
      driven[k] = interpolate(strings[k]!.ocvTable, soc[k]!);
      sum += driven[k]! / strings[k]!.resistanceOhm;
    }
    const busV = (sum - currentA) / conductance;
    for (let k = 0; k < strings.length; k += 1) currents[k] = (driven[k]! - busV) / strings[k]!.resistanceOhm;
  };
  const totalS = profile.reduce((sum, [durationS]) => sum + durationS, 0);
  const longestS = Math.max(stepS, totalS / mostSteps);
  let seconds = 0;
  walk: for (const stretch of profile) {
    const durationS = stretch[0];
    const steps = Math.max(1, Math.ceil(durationS / longestS));
    const step = durationS / steps;
    for (let i = 0; i < steps; i += 1) {
      share(stretch[1]);
      seconds += step;
      let ends = false;
      for (let k = 0; k < strings.length; k += 1) {
        const own = currents[k]!;
        squares[k]! += own ** 2 * step;
        if (Math.abs(own) > Math.abs(peaks[k]!)) peaks[k] = own;
        soc[k]! -= (own * step) / 3600 / strings[k]!.capacityAh;
        ends ||= soc[k]! <= 0 || soc[k]! >= 1;
      }
      if (ends) break walk;
    }
  }
  share(0);
  return strings.map((_, k) => ({
    rmsA: Math.sqrt(squares[k]! / seconds),
    peakA: peaks[k]!,
    endSocFraction: soc[k]!,
    circulatingA: currents[k]!,
  }));
}
