/** Whether a value has moved by more than a share of the larger of both. */
export const movedBeyond = (was: number, now: number, toleranceFraction: number): boolean =>
  Math.abs(now - was) > toleranceFraction * Math.max(Math.abs(was), Math.abs(now));
