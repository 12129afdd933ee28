import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cross, distance, unit } from '../../ground/math';
import { isProblem, legsOf, type Point } from '../../ground/space';
import { bendCard } from '.';
import { way, card, bent } from './ways-on-paper';

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
