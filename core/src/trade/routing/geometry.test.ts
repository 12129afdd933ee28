import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cross, distance, dot, minus, plus, times, turned, unit, type Vector } from '../../ground/math';
import { filleted, isProblem, legsOf, nearestTo, pointAt, pointOf, type Point } from '../../ground/space';
import { bendCard, route, type BendCardInput, type RouteInput } from '.';

const at = (least: number, most: number) =>
  fc.double({ min: least, max: most, noNaN: true, noDefaultInfinity: true });
/** Ways whose legs are long enough for bends of 60 mm. */
const way = fc
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
const card = (points: Point[], change: Partial<BendCardInput> = {}) => {
  const parsed = bendCard.parse({ points, centrelineRadiusMm: 60, tubeOuterMm: 25, wallMm: 2, ...change });
  return parsed.ok ? bendCard.calculate(parsed.input).result : null;
};
const routed = (points: Point[], change: object = {}) => {
  const parsed = route.parse({ points, bendRadiusMm: 60, cable: { outerDiameterMm: 12 }, ...change });
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.issues));
  return route.calculate(parsed.input);
};

/** Where a tube ends that is fed straight, bent by an angle, and turned before the next bend: hands at a bender, nothing of the card's own geometry. */
function bent(
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

describe('bend cards', () => {
  test('a tube bent by the card ends where the run ends, within 0.1 mm and 0.01°', () => {
    let tried = 0;
    fc.assert(
      fc.property(way, (points) => {
        const result = card(points);
        if (result === null) return;
        tried += 1;
        const legs = legsOf(points);
        if (isProblem(legs)) throw new Error('no way');
        const [first, second] = legs.directions;
        const normal =
          second === undefined ? unit(cross(first!, [0.3, 0.2, 0.9])) : unit(cross(first!, second));
        const end = bent(result, points[0]!, first!, normal);
        expect(distance(end, points.at(-1)!)).toBeLessThan(1e-6);
      }),
      { numRuns: 2000 },
    );
    expect(tried).toBeGreaterThan(1500);
  });

  test('marks rise, and together with straights and allowances they are the length to cut', () => {
    fc.assert(
      fc.property(way, (points) => {
        const result = card(points, { startAllowanceMm: 15, endAllowanceMm: 20 });
        if (result === null) return;
        let last = 15;
        for (const { startMarkMm, centreMarkMm, endMarkMm, straightBeforeMm } of result.bends) {
          expect(startMarkMm - last).toBeCloseTo(straightBeforeMm, 6);
          expect(centreMarkMm).toBeGreaterThan(startMarkMm);
          expect(endMarkMm).toBeGreaterThan(centreMarkMm);
          last = endMarkMm;
        }
        expect(last + result.lastStraightMm + 20).toBeCloseTo(result.cutLengthMm, 6);
      }),
    );
  });

  test('the card of the mirrored run is the mirrored card; mirrored twice is the same', () => {
    fc.assert(
      fc.property(way, (points) => {
        const mirrored = card(points.map(([x, y, z]): Point => [x, -y, z]));
        const asked = card(points, { mirror: true });
        if (mirrored === null || asked === null) return;
        asked.bends.forEach(({ rotationDeg, angleDeg }, i) => {
          const off = Math.abs(rotationDeg - mirrored.bends[i]!.rotationDeg);
          expect(Math.min(off, 360 - off)).toBeLessThan(1e-6);
          expect(rotationDeg).toBeGreaterThan(-180);
          expect(angleDeg).toBeCloseTo(mirrored.bends[i]!.angleDeg, 9);
        });
        const twice = card(
          points.map(([x, y, z]): Point => [x, -y, z]),
          { mirror: true },
        );
        expect(twice!.cutLengthMm).toBeCloseTo(card(points)!.cutLengthMm, 9);
      }),
    );
  });

  test('a flat S turns by +180°, mirrored too; the way a twist goes has its sign', () => {
    const flat: Point[] = [
      [0, 0, 0],
      [0.5, 0, 0],
      [0.8, 0.3, 0],
      [1.3, 0.3, 0],
    ];
    expect(card(flat)!.bends.map(({ rotationDeg }) => rotationDeg)).toEqual([0, 180]);
    expect(card(flat, { mirror: true })!.bends.map(({ rotationDeg }) => rotationDeg)).toEqual([0, 180]);
    // First to the left (+y), then up: seen along +y the plane turns from z to x, by −90°.
    const twist: Point[] = [
      [0, 0, 0],
      [0.5, 0, 0],
      [0.5, 0.5, 0],
      [0.5, 0.5, 0.5],
    ];
    expect(card(twist)!.bends[1]!.rotationDeg).toBeCloseTo(90, 9);
    expect(card(twist, { mirror: true })!.bends[1]!.rotationDeg).toBeCloseTo(-90, 9);
  });

  test('what leaves no room is refused by both points; a micrometre of it is none', () => {
    const tight = (leg: number): Point[] => [
      [0, 0, 0],
      [0.5, 0, 0],
      [0.5, leg, 0],
      [1, leg, 0],
    ];
    const refused = bendCard.parse({
      points: tight(0.119),
      centrelineRadiusMm: 60,
      tubeOuterMm: 25,
      wallMm: 2,
    });
    expect(refused).toMatchObject({
      ok: false,
      issues: [{ path: 'points', message: expect.stringMatching(/point 1 and point 2.*1 mm/) }],
    });
    expect(card(tight(0.12 - 5e-10))!.bends[1]!.straightBeforeMm).toBe(0);
  });

  test('kinks by radius and wall: the limits belong to the milder word only above', () => {
    const kink = (radius: number, wall: number) =>
      card(
        [
          [0, 0, 0],
          [2, 0, 0],
          [2, 2, 0],
        ],
        { centrelineRadiusMm: radius, tubeOuterMm: 20, wallMm: wall },
      )!.kink;
    expect([kink(39.9, 2), kink(40, 2), kink(80, 2), kink(80.1, 2)]).toEqual([
      'fill and heat, or a made elbow',
      'use a former',
      'use a former',
      'low',
    ]);
    expect([kink(60, 0.99), kink(60, 1), kink(81, 0.5)]).toEqual([
      'fill and heat, or a made elbow',
      'use a former',
      'low',
    ]);
  });

  test('a bend may have a radius of its own', () => {
    const corner: Point[] = [
      [0, 0, 0],
      [1, 0, 0],
      [1, 1, 0],
      [2, 1, 0],
    ];
    const own = card(corner, { radiiMm: [null, null, 150, null] })!;
    expect(own.bends.map(({ arcMm }) => arcMm)).toEqual([
      expect.closeTo((60 * Math.PI) / 2, 9),
      expect.closeTo((150 * Math.PI) / 2, 9),
    ]);
    expect(own.bends[1]!.straightBeforeMm).toBeCloseTo(1000 - 60 - 150, 9);
  });
});

describe('ways', () => {
  test('the length is the same from either end, and that of the pieces', () => {
    fc.assert(
      fc.property(way, (points) => {
        const forward = routed(points).result;
        const backward = routed([...points].reverse()).result;
        expect(backward.pathLengthM).toBeCloseTo(forward.pathLengthM!, 9);
        expect(backward.totalBendDeg).toBeCloseTo(forward.totalBendDeg, 6);
        const legs = legsOf(points);
        if (isProblem(legs)) throw new Error('no way');
        const path = filleted(legs, () => 0.06);
        if (path.short.length > 0) return;
        expect(path.pieces.reduce((sum, { lengthM }) => sum + lengthM, 0)).toBeCloseTo(
          forward.pathLengthM!,
          9,
        );
      }),
    );
  });

  test('pieces join end to end without a corner', () => {
    fc.assert(
      fc.property(way, (points) => {
        const legs = legsOf(points);
        if (isProblem(legs)) throw new Error('no way');
        const path = filleted(legs, () => 0.06);
        if (path.short.length > 0) return;
        path.pieces.forEach((piece, i) => {
          expect(distance(pointOf(piece, 0), piece.from)).toBeLessThan(1e-9);
          expect(distance(pointOf(piece, 1), piece.to)).toBeLessThan(1e-9);
          const next = path.pieces[i + 1];
          if (next === undefined) return;
          expect(distance(piece.to, next.from)).toBeLessThan(1e-9);
          const [leaves, enters] = [
            unit(minus(piece.to, pointOf(piece, 1 - 1e-4))),
            unit(minus(pointOf(next, 1e-4), next.from)),
          ];
          expect(dot(leaves, enters)).toBeGreaterThan(1 - 1e-6);
        });
      }),
    );
  });

  test('the least distance is never more than that of any point of the way, and one point has it', () => {
    fc.assert(
      fc.property(
        way,
        fc.tuple(at(-2, 2), at(-2, 2), at(-2, 2)),
        fc.tuple(at(-2, 2), at(-2, 2), at(-2, 2)),
        (points, a, b) => {
          const legs = legsOf(points);
          if (isProblem(legs)) throw new Error('no way');
          const path = filleted(legs, () => 0.06);
          const found = nearestTo(path, [a, b]);
          let least = Infinity;
          const length = path.pieces.reduce((sum, { lengthM }) => sum + lengthM, 0);
          for (let i = 0; i <= 400; i += 1) {
            const p = pointAt(path, (length * i) / 400);
            for (let j = 0; j <= 40; j += 1)
              least = Math.min(least, distance(p, plus(a, times(minus(b, a), j / 40))));
          }
          expect(found.distanceM).toBeLessThanOrEqual(least + 1e-9);
          expect(found.distanceM).toBeGreaterThan(least - 0.06);
        },
      ),
      { numRuns: 150 },
    );
  });

  test('a quarter bend around a point in its middle is as far as its radius', () => {
    const { result } = routed(
      [
        [0, 0, 0],
        [1, 0, 0],
        [1, 1, 0],
      ],
      {
        bendRadiusMm: 400,
        hazards: [
          {
            id: 'shaft',
            kind: 'shaft',
            points: [
              [0.6, 0.4, -1],
              [0.6, 0.4, 1],
            ],
            minSeparationMm: 394.001,
            radiusMm: 0,
          },
        ],
      },
    );
    // The centre lies at (0.6, 0.4): 400 mm less half the cable.
    expect(result.separations[0]).toMatchObject({ distanceMm: expect.closeTo(394, 6), ok: false });
  });

  test('a leg that is too short is named, its corners stay sharp, and clips are left out', () => {
    const points: Point[] = [
      [0, 0, 0],
      [1, 0, 0],
      [1, 0.1, 0],
      [2, 0.1, 0],
    ];
    const hazards = [
      {
        id: 'at the corner',
        kind: 'brake',
        points: [
          [1, 0, 0.05],
          [1, 0, 0.06],
        ],
        minSeparationMm: 1,
      },
    ];
    const { result, findings } = routed(points, { hazards });
    expect(findings[0]!.message).toMatch(/point 1 to point 2.*100 mm.*120 mm/);
    expect(result.pathLengthM).toBeCloseTo(2.1 - 4 * 0.06 + (2 * 0.06 * Math.PI) / 2, 9);
    expect([result.clips, result.massKg]).toEqual([[], null]);
    expect(result.separations[0]!.distanceMm).toBeCloseTo(50 - 6, 6);
    const none = routed([
      [0, 0, 0],
      [0.01, 0, 0],
      [0.01, 0.01, 0],
      [0.02, 0.01, 0],
    ]).result;
    expect([none.pathLengthM, none.cutLengthM]).toEqual([null, null]);
  });

  test('clips: even spaces, one in the middle of what is short', () => {
    const clips = (length: number, change: Partial<RouteInput> = {}) =>
      routed(
        [
          [0, 0, 0],
          [length, 0, 0],
        ],
        change,
      ).result.clips.map(({ atM }) => Number(atM.toFixed(6)));
    expect(clips(0.2)).toEqual([0.1]);
    expect(clips(0.15)).toEqual([0.075]);
    expect(clips(0.45)).toEqual([0.1, 0.35]);
    expect(clips(0.4501)).toEqual([0.1, 0.22505, 0.3501]);
    expect(clips(1, { clipSpacingMm: 400, clipFromEndMm: 0 })).toEqual([0, 0.333333, 0.666667, 1]);
  });

  test('points that coincide or turn back are named by their own path', () => {
    const paths = (points: Point[]) => {
      const parsed = route.parse({ points, bendRadiusMm: 60, cable: { outerDiameterMm: 12 } });
      return parsed.ok ? [] : parsed.issues.map(({ path }) => path);
    };
    expect(
      paths([
        [0, 0, 0],
        [1, 0, 0],
        [1, 0, 0],
        [2, 0, 0],
      ]),
    ).toEqual(['points.2']);
    expect(
      paths([
        [0, 0, 0],
        [1, 0, 0],
        [0.2, 0.0001, 0],
      ]),
    ).toEqual(['points.1']);
    expect(
      paths([
        [0, 0, 0],
        [1, 0, 0],
        [2, 0.0001, 0],
      ]),
    ).toEqual([]);
    expect(
      routed([
        [0, 0, 0],
        [1, 0, 0],
        [2, 0.0001, 0],
      ]).result.bends,
    ).toEqual([]);
  });
});
