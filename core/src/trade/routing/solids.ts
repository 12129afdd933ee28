import type { Gap } from '../../ground/figure';
import type { Vector } from '../../ground/math';
import { pointOf, type Path } from '../../ground/space';

/** A box with its faces along the axes of the vehicle. */
export interface Solid {
  low: Vector;
  high: Vector;
}

interface Placed {
  xM?: number;
  yM?: number;
  zM?: number;
  lengthM?: number;
  widthM?: number;
  heightM?: number;
}

/** The room that something takes; null: place or size are not given. */
export function solidOf({ xM, yM, zM, lengthM, widthM, heightM }: Placed): Solid | null {
  if (xM === undefined || yM === undefined || zM === undefined) return null;
  if (lengthM === undefined || widthM === undefined || heightM === undefined) return null;
  const half = [lengthM / 2, widthM / 2, heightM / 2] as const;
  return {
    low: [xM - half[0], yM - half[1], zM - half[2]],
    high: [xM + half[0], yM + half[1], zM + half[2]],
  };
}

const stepM = 0.02;

/** Points along a way, none farther from the next than 20 mm. */
export function pointsAlong({ pieces }: Pick<Path, 'pieces'>): Vector[] {
  const points = pieces.flatMap((piece) => {
    const steps = Math.min(2000, Math.max(1, Math.ceil(piece.lengthM / stepM)));
    return Array.from({ length: steps }, (_, i) => pointOf(piece, i / steps));
  });
  const last = pieces.at(-1);
  return last === undefined ? points : [...points, pointOf(last, 1)];
}

/** How far a point lies inside of a solid, m; negative: how far outside of it. */
export function depthIn({ low, high }: Solid, point: Vector): number {
  const x = Math.min(point[0] - low[0], high[0] - point[0]);
  const y = Math.min(point[1] - low[1], high[1] - point[1]);
  const z = Math.min(point[2] - low[2], high[2] - point[2]);
  const least = Math.min(x, y, z);
  if (least >= 0) return least;
  return -Math.hypot(Math.min(0, x), Math.min(0, y), Math.min(0, z));
}

const sizes = [
  ['xM', 'place'],
  ['yM', 'place'],
  ['zM', 'height'],
  ['lengthM', 'length'],
  ['widthM', 'width'],
  ['heightM', 'height of its body'],
] as const;

/** What keeps something from having a room of its own in the vehicle. */
export const placeGaps = (at: string, thing: { tag: string } & Parameters<typeof solidOf>[0]): Gap[] =>
  sizes.flatMap(([field, what]): Gap[] =>
    thing[field] === undefined
      ? [{ kind: 'not-given', path: `${at}.${field}`, label: `${what} of ${thing.tag}` }]
      : [],
  );
