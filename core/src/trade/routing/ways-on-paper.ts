import fc from 'fast-check';
import { cross, minus, plus, times, turned, type Vector } from '../../ground/math';
import { isProblem, legsOf, type Point } from '../../ground/space';
import { bendCard, route, type BendCardInput } from '.';

export const at = (least: number, most: number) =>
  fc.double({ min: least, max: most, noNaN: true, noDefaultInfinity: true });
/** Ways whose legs are long enough for bends of 60 mm. */
export const way = fc
  .array(fc.tuple(at(-1, 1), at(-1, 1), at(-1, 1)), { minLength: 2, maxLength: 8 })
  .map((steps): Point[] => {
    let now: Vector = [0, 0, 0];
    const points: Point[] = [[0, 0, 0]];
    for (const step of steps) {
      const long = Math.hypot(...step);
      if (long < 0.2) continue;
      now = plus(now, times(step, (0.6 + long) / long));
      points.push([...now] as Point);
    }
    return points;
  })
  .filter((points) => {
    if (points.length < 2) return false;
    const legs = legsOf(points);
    return !isProblem(legs) && legs.corners.every(({ turn }) => turn < 2.6);
  });
export const card = (points: Point[], change: Partial<BendCardInput> = {}) => {
  const parsed = bendCard.parse({ points, centrelineRadiusMm: 60, tubeOuterMm: 25, wallMm: 2, ...change });
  return parsed.ok ? bendCard.calculate(parsed.input).result : null;
};
export const routed = (points: Point[], change: object = {}) => {
  const parsed = route.parse({ points, bendRadiusMm: 60, cable: { outerDiameterMm: 12 }, ...change });
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.issues));
  return route.calculate(parsed.input);
};

/** Where a tube ends that is fed straight, bent by an angle, and turned before the next bend: hands at a bender, nothing of the card's own geometry. */
export function bent(
  result: NonNullable<ReturnType<typeof card>>,
  start: Vector,
  along: Vector,
  normal: Vector,
): Vector {
  let [position, direction, axis] = [start, along, normal];
  result.bends.forEach(({ straightBeforeMm, angleDeg, rotationDeg, arcMm }, i) => {
    position = plus(position, times(direction, straightBeforeMm / 1000));
    if (i > 0) axis = turned(axis, direction, (rotationDeg * Math.PI) / 180);
    const angle = (angleDeg * Math.PI) / 180;
    const radiusM = arcMm / angle / 1000;
    const centre = plus(position, times(cross(axis, direction), radiusM));
    position = plus(centre, turned(minus(position, centre), axis, angle));
    direction = turned(direction, axis, angle);
  });
  return plus(position, times(direction, result.lastStraightMm / 1000));
}
