import { logSpaced } from '../../ground/math';
import { clearingTimeS, meltTimeS, type FuseBand } from './melting';

/** Time for which contacts carry a current; null: for ever. Log-log between points, I²t of the last beyond it. */
export const carryTimeS = meltTimeS;

/** A fault that contacts do not stand until the fuse has cleared. */
export interface Uncovered {
  currentA: number;
  /** null: the fuse never clears it. */
  clearingS: number | null;
  carryS: number;
}

/**
 * The first of 40 currents over the range of faults at which the fuse takes longer than the contacts carry it.
 *
 * @returns null when the fuse is always done before
 */
export function firstUncovered(
  fuse: FuseBand,
  shortTime: [number, number][],
  faultMinA: number,
  faultMaxA: number,
): Uncovered | null {
  for (const currentA of faultMinA < faultMaxA ? logSpaced(faultMinA, faultMaxA, 40) : [faultMaxA]) {
    const carryS = carryTimeS(shortTime, currentA);
    const clearingS = clearingTimeS(fuse, currentA);
    if (carryS !== null && (clearingS === null || clearingS > carryS)) return { currentA, clearingS, carryS };
  }
  return null;
}
