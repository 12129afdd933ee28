/** A table of points, the first column rising strictly. */
export type Table = readonly (readonly [number, number])[];

/**
 * Piecewise-linear reading of a table, its end values held beyond its ends.
 *
 * @throws when the table is empty
 */
export function interpolate(table: Table, x: number): number {
  const last = table.length - 1;
  if (last < 0) throw new Error('an empty table has no values');
  if (x <= table[0]![0]) return table[0]![1];
  if (x >= table[last]![0]) return table[last]![1];
  const i = below(table, x);
  const [x0, y0] = table[i]!;
  const [x1, y1] = table[i + 1]!;
  return y0 + ((y1 - y0) * (x - x0)) / (x1 - x0);
}

/** The last point at or below `x`, by its place; `x` must lie inside the table. */
function below(table: Table, x: number): number {
  let low = 0;
  let high = table.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (table[middle]![0] <= x) low = middle;
    else high = middle;
  }
  return low;
}

/** The two neighbouring points between which `x` lies; `x` must lie inside the table. */
export function bracket(table: Table, x: number): [readonly [number, number], readonly [number, number]] {
  const i = below(table, x);
  return [table[i]!, table[i + 1]!];
}

/** Integral of the piecewise-linear table from `from` to `to` (trapezoids; end values held beyond the ends). */
export function integrate(table: Table, from: number, to: number): number {
  if (to < from) return -integrate(table, to, from);
  const inside = table.filter(([x]) => x > from && x < to);
  const points: [number, number][] = [
    [from, interpolate(table, from)],
    ...inside.map(([x, y]): [number, number] => [x, y]),
    [to, interpolate(table, to)],
  ];
  let area = 0;
  for (let i = 1; i < points.length; i += 1) {
    const [x0, y0] = points[i - 1]!;
    const [x1, y1] = points[i]!;
    area += ((x1 - x0) * (y0 + y1)) / 2;
  }
  return area;
}

/** `count` values from `from` to `to`, evenly spaced in the logarithm; both ends exact. Both must be above 0. */
export function logSpaced(from: number, to: number, count: number): number[] {
  const step = Math.log(to / from) / (count - 1);
  const values = new Array<number>(count);
  for (let i = 0; i < count; i += 1) values[i] = from * Math.exp(step * i);
  values[count - 1] = to;
  values[0] = from;
  return values;
}
