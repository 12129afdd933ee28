import type { Table } from '../../ground/math';

// Bound once: a ranking asks for these some ten thousand times.
const { exp, log } = Math;

/** Average pre-arcing curve: currents rise strictly, times fall strictly. */
export type MeltingCurve = Table;

/**
 * Pre-arcing time at a current on the average curve.
 *
 * Linear in log-log between points; above the last point I²t of the last point holds.
 *
 * @returns seconds, or null at or below the first point, where it never melts
 */
export function meltTimeS(curve: MeltingCurve, currentA: number): number | null {
  if (currentA <= curve[0]![0]) return null;
  const last = curve[curve.length - 1]!;
  if (currentA >= last[0]) return last[1] * (last[0] / currentA) ** 2;
  const [currents, times] = logsOf(curve);
  const wanted = log(currentA);
  let left = 0;
  for (let right = currents.length - 1; right - left > 1;) {
    const middle = (left + right) >> 1;
    if (currents[middle]! <= wanted) left = middle;
    else right = middle;
  }
  const share = (wanted - currents[left]!) / (currents[left + 1]! - currents[left]!);
  return exp(times[left]! + share * (times[left + 1]! - times[left]!));
}

const logs = new WeakMap<MeltingCurve, [currents: Float64Array, times: Float64Array]>();

/** The logarithms of a curve's points; a curve is never changed in place. */
function logsOf(curve: MeltingCurve): [currents: Float64Array, times: Float64Array] {
  let found = logs.get(curve);
  if (found === undefined) {
    found = [
      Float64Array.from(curve, ([currentA]) => log(currentA)),
      Float64Array.from(curve, ([, timeS]) => log(timeS)),
    ];
    logs.set(curve, found);
  }
  return found;
}

export interface FuseBand {
  curve: MeltingCurve;
  /** Tolerance on current. */
  currentToleranceFraction: number;
  /** Total clearing I²t over pre-arcing I²t. */
  arcI2tFactor: number;
}

/** Fastest, average and slowest melting of a batch within its tolerance; null where it never melts. */
export function meltBand(fuse: Pick<FuseBand, 'curve' | 'currentToleranceFraction'>, currentA: number) {
  const tolerance = fuse.currentToleranceFraction;
  return {
    fastestS: meltTimeS(fuse.curve, currentA / (1 - tolerance)),
    averageS: meltTimeS(fuse.curve, currentA),
    slowestS: meltTimeS(fuse.curve, currentA / (1 + tolerance)),
  };
}

/** The least pre-arcing I²t of a fuse at large currents, A²s. */
export const leastI2t = ({
  curve,
  currentToleranceFraction,
}: Pick<FuseBand, 'curve' | 'currentToleranceFraction'>): number => {
  const [currentA, timeS] = curve[curve.length - 1]!;
  return (currentA * (1 - currentToleranceFraction)) ** 2 * timeS;
};

/** The longest arc that is added to the melting time. */
const arcAtMostS = 0.1;

/** Longest clearing time: slowest melting and its arc; null where the slowest never melts. */
export function clearingTimeS(fuse: FuseBand, currentA: number): number | null {
  const slowestS = meltTimeS(fuse.curve, currentA / (1 + fuse.currentToleranceFraction));
  return slowestS === null ? null : slowestS + (fuse.arcI2tFactor - 1) * Math.min(slowestS, arcAtMostS);
}
