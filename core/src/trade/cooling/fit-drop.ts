/** Two coefficients of a part, kPa = a·Q + b·Q², and how far they miss what was read. */
export interface FittedDrop {
  kPaPerLpm: number;
  kPaPerLpm2: number;
  /** Largest miss, over what was read there. */
  worstFraction: number;
}

/**
 * The coefficients of a plate out of timed readings of flow and pressure; neither is below 0.
 *
 * Source: least squares on the relative miss, so that a small reading counts as much as a large one.
 *
 * @param readings flow, L/min, and pressure, kPa, both above 0
 * @returns null with fewer than two flows that differ
 */
export function fitDrop(
  readings: readonly (readonly [flowLPerMin: number, kPa: number])[],
): FittedDrop | null {
  const usable = readings.filter(([q, p]) => q > 0 && p > 0);
  if (new Set(usable.map(([q]) => q)).size < 2) return null;
  let [xx, xy, yy, x, y] = [0, 0, 0, 0, 0];
  for (const [q, p] of usable) {
    const [u, v] = [q / p, (q * q) / p];
    xx += u * u;
    xy += u * v;
    yy += v * v;
    x += u;
    y += v;
  }
  const spread = xx * yy - xy * xy;
  let [a, b] = spread > 1e-15 * xx * yy ? [(x * yy - y * xy) / spread, (y * xx - x * xy) / spread] : [-1, 0];
  if (a < 0) [a, b] = [0, y / yy];
  else if (b < 0) [a, b] = [x / xx, 0];
  const worstFraction = Math.max(...usable.map(([q, p]) => Math.abs((a * q + b * q * q) / p - 1)));
  return { kPaPerLpm: a, kPaPerLpm2: b, worstFraction };
}
