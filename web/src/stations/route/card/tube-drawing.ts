import type { BendCardResult } from '@torvek/core/routing';
import { cross, minus, plus, times, turned, unit, type Vector } from '@torvek/core/math';

/** A tube as it is after its first bends: straight from there on. */
export interface HalfBent {
  /** Along its middle. */
  points: Vector[];
  /** Index of the point from which on it is still straight. */
  straightFrom: number;
}

const stepsPerBend = 10;

/**
 * The tube as hands at a bender make it from its card: fed straight, bent, turned, bent. In mm, from the origin along x.
 *
 * @param done how many bends are made
 * @param startMm allowance before the first straight
 */
export function halfBent({ bends, lastStraightMm }: BendCardResult, done: number, startMm = 0): HalfBent {
  let position: Vector = [0, 0, 0];
  let along: Vector = [1, 0, 0];
  let axis: Vector = [0, 0, 1];
  const points: Vector[] = [position];
  let straightFrom = 0;
  const go = (lengthMm: number) => {
    position = plus(position, times(along, lengthMm));
    points.push(position);
  };
  if (startMm > 0) go(startMm);
  bends.forEach(({ straightBeforeMm, angleDeg, rotationDeg, arcMm }, i) => {
    go(straightBeforeMm);
    if (i > 0) axis = turned(axis, along, (rotationDeg * Math.PI) / 180);
    if (i >= done) {
      go(arcMm);
      return;
    }
    const angle = (angleDeg * Math.PI) / 180;
    const centre = plus(position, times(cross(axis, along), arcMm / angle));
    const arm = minus(position, centre);
    for (let step = 1; step <= stepsPerBend; step += 1)
      points.push(plus(centre, turned(arm, axis, (angle * step) / stepsPerBend)));
    position = points.at(-1)!;
    along = unit(turned(along, axis, angle));
    straightFrom = points.length - 1;
  });
  go(lastStraightMm);
  return { points, straightFrom };
}

/** Seen from a direction: turned about the upright by one angle, and from above by the other, °. */
export function seen(points: readonly Vector[], turnDeg: number, tiltDeg: number): [x: number, y: number][] {
  const [a, b] = [(turnDeg * Math.PI) / 180, (tiltDeg * Math.PI) / 180];
  return points.map(([x, y, z]) => {
    const [across, deep] = [x * Math.cos(a) - y * Math.sin(a), x * Math.sin(a) + y * Math.cos(a)];
    return [across, -(z * Math.cos(b) + deep * Math.sin(b))];
  });
}

/** Rotations are turned to the nearer side: what to say at the bender. */
export const turnText = (rotationDeg: number): string => {
  const deg = Math.round(Math.abs(rotationDeg) * 10) / 10;
  if (deg === 0) return 'as it lies';
  if (deg >= 179.95) return 'half a turn';
  return `${deg}° ${rotationDeg > 0 ? 'clockwise' : 'anticlockwise'}`;
};
