import { between, distance, pointToStretch, type Vector } from '../../ground/math';
import type { Point } from '../../ground/space';
import type { Solid } from './solids';

/** What a way keeps clear of. */
export interface Keeping {
  /** Half of the cable’s or conduit’s outer diameter. */
  halfM: number;
  /** Boxes and devices, and places that nothing leads through. */
  solids: Solid[];
  hazards: { points: Point[]; minM: number }[];
  /** Nothing hangs lower. */
  lowM: number;
  /** Nothing leads outside. */
  bounds: Solid;
}

/** The cable is kept off boxes and devices by so much, m. */
export const offSolidM = 0.01;

/** Whether a point lies in a solid that is so much larger on all sides. */
export const isWithin = ({ low, high }: Solid, x: number, y: number, z: number, by: number) =>
  x > low[0] - by &&
  x < high[0] + by &&
  y > low[1] - by &&
  y < high[1] + by &&
  z > low[2] - by &&
  z < high[2] + by;

/** Whether a cable’s middle may lie somewhere. */
export class Room {
  constructor(
    private readonly input: Keeping,
    private readonly extraM: number,
  ) {}

  isFree(point: Vector): boolean {
    const { halfM, solids, hazards, lowM, bounds } = this.input;
    const [x, y, z] = point;
    if (z < lowM + halfM - 1e-9 || !isWithin(bounds, x, y, z, 0)) return false;
    for (const solid of solids) if (isWithin(solid, x, y, z, halfM + offSolidM - 1e-9)) return false;
    for (const { points, minM } of hazards)
      for (let i = 1; i < points.length; i += 1)
        if (pointToStretch(x, y, z, points[i - 1]!, points[i]!) < minM + halfM + this.extraM) return false;
    return true;
  }

  isOpen(a: Vector, b: Vector): boolean {
    const steps = Math.max(1, Math.ceil(distance(a, b) / 0.02));
    for (let i = 0; i <= steps; i += 1) if (!this.isFree(between(a, b, i / steps))) return false;
    return true;
  }
}
