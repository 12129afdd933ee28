import type { Design } from '@torvek/core/document';
import { pointOf, type Piece } from '@torvek/core/space';

/** From which side the vehicle is looked at: from above, or from its right. The front is to the right in both. */
export type Side = 'plan' | 'side';
export type Axis = 'xM' | 'yM' | 'zM';

/** Drawn in centimetres; up and left are negative. */
export const unitsPerM = 100;

/** The axes of the vehicle that a view shows, across and up. */
export const axesOf: Record<Side, { across: Axis; up: Axis }> = {
  plan: { across: 'xM', up: 'yM' },
  side: { across: 'xM', up: 'zM' },
};
const index: Record<Axis, 0 | 1 | 2> = { xM: 0, yM: 1, zM: 2 };

type At = readonly [x: number, y: number, z: number];

/** Where a point of the vehicle lies on the paper. */
export function onPaper(point: At, side: Side): [x: number, y: number] {
  const { across, up } = axesOf[side];
  return [point[index[across]] * unitsPerM, -point[index[up]] * unitsPerM];
}

const text = (value: number) => String(Math.round(value * 10) / 10);

/** The way of a run as an SVG path: bends in small steps, for most are seen askew. */
export function pathText(pieces: readonly Piece[], side: Side): string {
  const first = pieces[0];
  if (first === undefined) return '';
  const points: [number, number][] = [onPaper(first.from, side)];
  for (const piece of pieces) {
    const steps = piece.kind === 'arc' ? Math.max(2, Math.ceil((piece.turn * 180) / Math.PI / 8)) : 1;
    for (let i = 1; i <= steps; i += 1) points.push(onPaper(pointOf(piece, i / steps), side));
  }
  return points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${text(x)},${text(y)}`).join('');
}

export const lineText = (points: readonly At[], side: Side): string =>
  points
    .map((point) => onPaper(point, side))
    .map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${text(x)},${text(y)}`)
    .join('');

/** The body of a vehicle as far as it is given, m: its front, and how long, wide and high it is drawn. */
export function bodyOf({ wheelbaseM = 2.6, lengthM, frontOverhangM, heightM = 1.6 }: Design['vehicle']) {
  const longM = Math.min(Math.max(lengthM ?? wheelbaseM * 1.6, 1), 25);
  return {
    wheelbaseM,
    frontM: frontOverhangM ?? wheelbaseM * 0.3,
    longM,
    wideM: Math.min(2.4, Math.max(1.4, longM * 0.3)),
    highM: heightM,
  };
}

interface Placed {
  xM?: number;
  yM?: number;
  zM?: number;
  lengthM?: number;
  widthM?: number;
  heightM?: number;
}

export interface Drawn {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** A box with its faces along the axes; null: place or size are not given. */
export function rectOf({ xM, yM, zM, lengthM, widthM, heightM }: Placed, side: Side): Drawn | null {
  const [up, high] = side === 'plan' ? [yM, widthM] : [zM, heightM];
  if (xM === undefined || lengthM === undefined || up === undefined || high === undefined) return null;
  return {
    x: (xM - lengthM / 2) * unitsPerM,
    y: -(up + high / 2) * unitsPerM,
    w: lengthM * unitsPerM,
    h: high * unitsPerM,
  };
}

export interface Snap {
  value: number;
  /** What it was drawn to; null: to the grid. */
  to: string | null;
}

const gridM = 0.01;
export const snapWithinM = 0.025;

/** A coordinate drawn to what is near: a neighbour’s axis, a face; else to the centimetre. */
export function snapped(value: number, near: readonly { at: number; what: string }[]): Snap {
  let best: { at: number; what: string } | null = null;
  for (const one of near) {
    const off = Math.abs(one.at - value);
    if (off <= snapWithinM && (best === null || off < Math.abs(best.at - value))) best = one;
  }
  return best !== null
    ? { value: best.at, to: best.what }
    : { value: Number((Math.round(value / gridM) * gridM).toFixed(4)), to: null };
}

/** What a point of a run may be drawn to along an axis: its neighbours, and the faces of boxes and devices. */
export function snapsAlong(
  axis: Axis,
  points: readonly { xM?: number; yM?: number; zM?: number }[],
  i: number,
  things: readonly (Placed & { tag: string })[],
): { at: number; what: string }[] {
  const neighbours = [points[i - 1], points[i + 1]].flatMap((one) =>
    one?.[axis] === undefined ? [] : [{ at: one[axis], what: 'in line with the next point' }],
  );
  const size = { xM: 'lengthM', yM: 'widthM', zM: 'heightM' } as const;
  const faces = things.flatMap((thing) => {
    const [middle, long] = [thing[axis], thing[size[axis]]];
    if (middle === undefined || long === undefined) return [];
    return [middle - long / 2, middle + long / 2].map((at) => ({ at, what: `face of ${thing.tag}` }));
  });
  return [...neighbours, ...faces];
}

export interface Frame {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** What a view shows: all that is drawn, with a margin; of one run, that run alone. */
export function frameOf(rects: readonly Drawn[], points: readonly [number, number][], margin = 25): Frame {
  const xs = [...rects.flatMap(({ x, w }) => [x, x + w]), ...points.map(([x]) => x)];
  const ys = [...rects.flatMap(({ y, h }) => [y, y + h]), ...points.map(([, y]) => y)];
  if (xs.length === 0) return { left: -100, top: -100, width: 200, height: 200 };
  const [left, right] = [Math.min(...xs), Math.max(...xs)];
  const [top, bottom] = [Math.min(...ys), Math.max(...ys)];
  return {
    left: left - margin,
    top: top - margin,
    width: Math.max(right - left, 20) + 2 * margin,
    height: Math.max(bottom - top, 20) + 2 * margin,
  };
}
