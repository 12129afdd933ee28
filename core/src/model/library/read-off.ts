/** A place in a picture, in its own pixels: x to the right, y downwards. */
export type Pixel = readonly [xPx: number, yPx: number];

/** Two places on an axis, and the values that stand there. */
export interface AxisMarks {
  scale: 'log' | 'linear';
  at: readonly [Pixel, Pixel];
  values: readonly [number, number];
}

export interface PlotMarks {
  x: AxisMarks;
  y: AxisMarks;
}

export type ReadOff = { ok: true; at(pixel: Pixel): [x: number, y: number] } | { ok: false; problem: string };

/**
 * Values of a plot in a picture from two marks on each axis. The picture may be turned or askew: lines of equal x run
 * along the y axis, and the other way round.
 *
 * @param marks pixels and values; on a log axis both values above 0
 * @returns a function from pixel to values, or what is wrong with the marks
 */
export function readOff({ x, y }: PlotMarks): ReadOff {
  const along = { x: vector(x.at), y: vector(y.at) };
  const cross = along.x[0] * along.y[1] - along.x[1] * along.y[0];
  const lengths = { x: Math.hypot(...along.x), y: Math.hypot(...along.y) };
  for (const [name, marks] of [['x', x] as const, ['y', y] as const]) {
    if (lengths[name] < 5)
      return { ok: false, problem: `the two marks on the ${name} axis lie on each other` };
    if (marks.values.some((value) => !Number.isFinite(value)))
      return { ok: false, problem: `the marks on the ${name} axis need a value each` };
    if (marks.scale === 'log' && marks.values.some((value) => value <= 0))
      return { ok: false, problem: `a log ${name} axis has values above 0 only` };
    if (marks.values[0] === marks.values[1])
      return { ok: false, problem: `the two marks on the ${name} axis have the same value` };
  }
  // Axes that lie within six degrees of each other are one axis marked twice.
  if (Math.abs(cross) < 0.1 * lengths.x * lengths.y)
    return { ok: false, problem: 'the marks of the two axes lie on one line' };
  return {
    ok: true,
    at([xPx, yPx]) {
      const toX = [xPx - x.at[0][0], yPx - x.at[0][1]] as const;
      const toY = [xPx - y.at[0][0], yPx - y.at[0][1]] as const;
      const shareX = (toX[0] * along.y[1] - toX[1] * along.y[0]) / cross;
      const shareY = (along.x[0] * toY[1] - along.x[1] * toY[0]) / cross;
      return [valueAt(x, shareX), valueAt(y, shareY)];
    },
  };
}

const vector = ([from, to]: readonly [Pixel, Pixel]) => [to[0] - from[0], to[1] - from[1]] as const;

function valueAt({ scale, values: [from, to] }: AxisMarks, share: number): number {
  return scale === 'linear' ? from + share * (to - from) : from * (to / from) ** share;
}
