import type { Table } from './interpolate';

/**
 * A curve through points that neither overshoots nor wiggles: cubic pieces whose slopes are the weighted harmonic mean of the
 * secants beside each point.
 *
 * Source: F. N. Fritsch and J. Butland, SIAM J. Sci. Stat. Comput. 5 (1984); end slopes by the three-point formula, held so that
 * the curve stays between its points. Two points give a straight line.
 */
export class Pchip {
  private readonly slopes: readonly number[];

  /** @param points at least two, the first column rising strictly */
  constructor(private readonly points: Table) {
    this.slopes = slopesOf(points);
  }

  /** Value and slope at x; x must lie inside the points. */
  at(x: number): { value: number; slope: number } {
    const { points, slopes } = this;
    let [i, above] = [0, points.length - 1];
    while (above - i > 1) {
      const middle = (i + above) >> 1;
      if (points[middle]![0] <= x) i = middle;
      else above = middle;
    }
    const [x0, y0] = points[i]!;
    const [x1, y1] = points[i + 1]!;
    const h = x1 - x0;
    const t = (x - x0) / h;
    const d = (y1 - y0) / h;
    const [m0, m1] = [slopes[i]!, slopes[i + 1]!];
    const second = (3 * d - 2 * m0 - m1) / h;
    const third = (m0 + m1 - 2 * d) / (h * h);
    const s = t * h;
    return { value: y0 + s * (m0 + s * (second + s * third)), slope: m0 + s * (2 * second + 3 * s * third) };
  }
}

function slopesOf(points: Table): number[] {
  const h = points.slice(1).map(([x], i) => x - points[i]![0]);
  const d = points.slice(1).map(([, y], i) => (y - points[i]![1]) / h[i]!);
  const last = points.length - 1;
  if (last === 1) return [d[0]!, d[0]!];
  return points.map((_, i) => {
    if (i === 0) return endSlope(h[0]!, h[1]!, d[0]!, d[1]!);
    if (i === last) return endSlope(h[last - 1]!, h[last - 2]!, d[last - 1]!, d[last - 2]!);
    const [h1, h2, d1, d2] = [h[i - 1]!, h[i]!, d[i - 1]!, d[i]!];
    if (d1 * d2 <= 0) return 0;
    const [w1, w2] = [2 * h2 + h1, h2 + 2 * h1];
    return (w1 + w2) / (w1 / d1 + w2 / d2);
  });
}

function endSlope(h1: number, h2: number, d1: number, d2: number): number {
  const slope = ((2 * h1 + h2) * d1 - h1 * d2) / (h1 + h2);
  if (slope * d1 <= 0) return 0;
  return d1 * d2 < 0 && Math.abs(slope) > Math.abs(3 * d1) ? 3 * d1 : slope;
}
