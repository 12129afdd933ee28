import type { RunPoint } from '@torvek/core/document';

/** A row for each of three tapes: as the point was measured, else the first three marks with nothing read yet. */
export const tapesFor = (
  taped: RunPoint['taped'],
  marks: readonly string[],
): { datum: string; text: string }[] =>
  [0, 1, 2].map((i) => ({
    datum: taped?.[i]?.datum ?? marks[i] ?? '',
    text: taped?.[i]?.distanceM === undefined ? '' : String(taped[i].distanceM),
  }));

/** Which of two places lies nearer to where a point is now; the first where it is nowhere. */
export function lowOrHigh(
  places: readonly (readonly [number, number, number])[],
  point: Pick<RunPoint, 'xM' | 'yM' | 'zM'> | undefined,
): 0 | 1 {
  if (point?.xM === undefined || point.yM === undefined || point.zM === undefined) return 0;
  const { xM, yM, zM } = point;
  const [first, second] = places.map(([x, y, z]) => Math.hypot(x - xM, y - yM, z - zM)) as [number, number];
  return second < first ? 1 : 0;
}
