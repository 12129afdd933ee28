/** A point or direction in space, in one unit. */
export type Vector = readonly [x: number, y: number, z: number];

export const plus = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const minus = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const times = (a: Vector, by: number): Vector => [a[0] * by, a[1] * by, a[2] * by];
export const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
export const lengthOf = (a: Vector): number => Math.hypot(a[0], a[1], a[2]);
export const distance = (a: Vector, b: Vector): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
export const unit = (a: Vector): Vector => times(a, 1 / lengthOf(a));

/** Angle between two directions, rad, 0 to π; right also where they are nearly parallel. */
export const angleBetween = (a: Vector, b: Vector): number => Math.atan2(lengthOf(cross(a, b)), dot(a, b));

/** Turned about an axis of length 1, right-handed (Rodrigues). */
export function turned(a: Vector, axis: Vector, rad: number): Vector {
  const [c, s] = [Math.cos(rad), Math.sin(rad)];
  return plus(plus(times(a, c), times(cross(axis, a), s)), times(axis, dot(axis, a) * (1 - c)));
}

/** The point of a stretch from a to b that is nearest to p, as a share of it. */
export function nearestShare(p: Vector, a: Vector, b: Vector): number {
  const way = minus(b, a);
  const square = dot(way, way);
  return square === 0 ? 0 : Math.min(1, Math.max(0, dot(minus(p, a), way) / square));
}

export const between = (a: Vector, b: Vector, share: number): Vector => plus(a, times(minus(b, a), share));

/** Distance of a point from a stretch. */
export const distanceToStretch = (p: Vector, a: Vector, b: Vector): number =>
  distance(p, between(a, b, nearestShare(p, a, b)));

/**
 * The nearest points of two stretches.
 *
 * Source: the unconstrained least squares, held to each stretch in turn; one of the ends decides where that leaves it.
 *
 * @returns shares along each, and the distance
 */
export function nearestOfStretches(
  a: Vector,
  b: Vector,
  c: Vector,
  d: Vector,
): { first: number; second: number; distance: number } {
  const [u, v, w] = [minus(b, a), minus(d, c), minus(a, c)];
  const [uu, uv, vv, uw, vw] = [dot(u, u), dot(u, v), dot(v, v), dot(u, w), dot(v, w)];
  const spread = uu * vv - uv * uv;
  let best = { first: 0, second: 0, distance: Infinity };
  const offer = (first: number, second: number) => {
    const x = w[0] + u[0] * first - v[0] * second;
    const y = w[1] + u[1] * first - v[1] * second;
    const z = w[2] + u[2] * first - v[2] * second;
    const far = Math.sqrt(x * x + y * y + z * z);
    if (far < best.distance) best = { first, second, distance: far };
  };
  if (spread > 1e-12 * uu * vv) {
    const [first, second] = [(uv * vw - vv * uw) / spread, (uu * vw - uv * uw) / spread];
    if (first >= 0 && first <= 1 && second >= 0 && second <= 1) {
      offer(first, second);
      return best;
    }
  }
  offer(0, nearestShare(a, c, d));
  offer(1, nearestShare(b, c, d));
  offer(nearestShare(c, a, b), 0);
  offer(nearestShare(d, a, b), 1);
  return best;
}

/** Distance of a point from a stretch, without making anything. */
export function pointToStretch(x: number, y: number, z: number, a: Vector, b: Vector): number {
  const [ux, uy, uz] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const [px, py, pz] = [x - a[0], y - a[1], z - a[2]];
  const square = ux * ux + uy * uy + uz * uz;
  const share = square === 0 ? 0 : Math.min(1, Math.max(0, (px * ux + py * uy + pz * uz) / square));
  const [dx, dy, dz] = [px - ux * share, py - uy * share, pz - uz * share];
  return Math.sqrt(dx * dx + dy * dy + dz * dz);
}
