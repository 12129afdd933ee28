import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { distance, dot, minus, plus, times, unit } from '../../ground/math';
import { filleted, isProblem, legsOf, nearestTo, pointAt, pointOf, type Point } from '../../ground/space';
import { route, type RouteInput } from '.';
import { at, way, routed } from './ways-on-paper';

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
