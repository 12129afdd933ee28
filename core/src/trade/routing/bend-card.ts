import { defineCalculator } from '../../ground/calculator';
import { list, number, oneOf, orNull, record } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { cross, dot, type Vector } from '../../ground/math';
import { formatNumber } from '../../ground/quantity';
import { isProblem, legsOf, type Legs, type Point } from '../../ground/space';
import { point } from './route';

export interface BendCardInput {
  points: Point[];
  /** After spring-back. */
  centrelineRadiusMm: number;
  /** By point, where a bend has a radius of its own; null: as the others. */
  radiiMm?: (number | null)[];
  tubeOuterMm: number;
  wallMm: number;
  springbackFraction: number;
  startAllowanceMm: number;
  endAllowanceMm: number;
  mirror: boolean;
}

export type Kink = 'low' | 'use a former' | 'fill and heat, or a made elbow';

export interface BendOnCard {
  number: number;
  straightBeforeMm: number;
  angleDeg: number;
  setAngleDeg: number;
  rotationDeg: number;
  arcMm: number;
  startMarkMm: number;
  centreMarkMm: number;
  endMarkMm: number;
}

export interface BendCardResult {
  cutLengthMm: number;
  bends: BendOnCard[];
  lastStraightMm: number;
  radiusOverDiameter: number;
  kink: Kink;
}

const rule = rulesOf('bend-card');
const source =
  'Ratio of bend radius to tube diameter, and of wall to diameter: usual limits of bending by hand';

export const bendCardRules = {
  kink: rule(
    'kink',
    'mend',
    'The tube kinks at this radius',
    'On the outside the wall thins, on the inside it folds: the bore closes and the cable does not pass.',
    'Fill it with dry sand and heat it over a former, or use a made elbow. Galvanised tube gives off zinc fume when heated: strip it first, outdoors, with a respirator.',
    source,
  ),
  former: rule(
    'former',
    'note',
    'The tube wants a former',
    'Bent free by hand it flattens at this radius.',
    'A bender with a shoe of this tube’s diameter, or a former with a groove.',
    source,
  ),
};

const degrees = 180 / Math.PI;
/** Straights shorter by no more than this are none, mm. */
const slackMm = 1e-6;
/** A half turn is +180, whichever way rounding leads, °. */
const halfTurn = 1e-7;

/** How a tube of this diameter and wall takes a bend. */
export function kinkOf(radiusMm: number, tubeOuterMm: number, wallMm: number): Kink {
  const ratio = radiusMm / tubeOuterMm;
  if (ratio < 2) return 'fill and heat, or a made elbow';
  if (ratio > 4) return 'low';
  return wallMm / tubeOuterMm < 0.05 ? 'fill and heat, or a made elbow' : 'use a former';
}

/** By how much the plane of each bend is turned from the one before it, ° in (−180, 180]; 0 for the first. */
export function rotationsOf({ directions, corners }: Pick<Legs, 'directions' | 'corners'>): number[] {
  const normals = corners.map((_corner, i) => cross(directions[i]!, directions[i + 1]!));
  return normals.map((normal, i) => {
    if (i === 0) return 0;
    const before = normals[i - 1]!;
    const along: Vector = directions[i]!;
    return wrapped(Math.atan2(dot(cross(before, normal), along), dot(before, normal)) * degrees);
  });
}

const wrapped = (deg: number) => (deg <= -180 + halfTurn ? 180 : deg === 0 ? 0 : deg);

/** Tangents at both ends of each leg, mm, and the straight that is left between them. */
function straightsOf(legs: Legs, radiusMm: (corner: number) => number) {
  const tangents = legs.corners.map(({ turn }, i) => radiusMm(i) * Math.tan(turn / 2));
  return legs.lengths.map((leg, i) => leg * 1000 - (tangents[i - 1] ?? 0) - (tangents[i] ?? 0));
}

const radiusAt =
  (legs: Legs, { centrelineRadiusMm, radiiMm }: Pick<BendCardInput, 'centrelineRadiusMm' | 'radiiMm'>) =>
  (corner: number) =>
    radiiMm?.[legs.corners[corner]!.at] ?? centrelineRadiusMm;

/**
 * What to do at the bender for a tube along these points: marks, angles with spring-back, rotations, and what to cut.
 *
 * Source: bend angles between legs, rotations between the planes of neighbouring bends, marks along the straight tube.
 */
export const bendCard = defineCalculator<BendCardInput, BendCardResult>({
  name: 'bend-card',
  version: 1,
  title: 'Bend card',
  rules: Object.values(bendCardRules),
  door: {
    schema: record({
      points: list(point, { minRows: 2, maxRows: 1000 }),
      centrelineRadiusMm: number({ above: 0, max: 100_000 }),
      radiiMm: list.optional(orNull(number({ above: 0, max: 100_000 })), { maxRows: 1000 }),
      tubeOuterMm: number({ above: 0, max: 10_000 }),
      wallMm: number({ above: 0, max: 10_000 }),
      springbackFraction: number.optional({ min: 0, max: 1 }),
      startAllowanceMm: number.optional({ min: 0 }),
      endAllowanceMm: number.optional({ min: 0 }),
      mirror: oneOf.optional([true, false]),
    }),
    defaults: { springbackFraction: 0.02, startAllowanceMm: 0, endAllowanceMm: 0, mirror: false },
    cross(input: BendCardInput, issue) {
      if (input.wallMm * 2 >= input.tubeOuterMm) issue('wallMm', 'must be below half of the tube’s diameter');
      const legs = legsOf(input.points);
      if (isProblem(legs)) return issue(`points.${legs.at}`, legs.message);
      straightsOf(legs, radiusAt(legs, input)).forEach((straight, i) => {
        if (straight < -slackMm)
          issue(
            'points',
            `leave no room between point ${legs.at[i]} and point ${legs.at[i + 1]}: the bends need ${formatNumber(-straight)} mm more`,
          );
      });
    },
  },
  compute(input, { sheet, raise }) {
    const { springbackFraction, startAllowanceMm, endAllowanceMm, mirror, tubeOuterMm, wallMm } = input;
    const legs = legsOf(input.points) as Legs;
    const radius = radiusAt(legs, input);
    const straights = straightsOf(legs, radius).map((one) => Math.max(0, one));
    const rotations = rotationsOf(legs).map((deg) => (mirror ? wrapped(-deg) : deg));
    let at = startAllowanceMm;
    const bends = legs.corners.map(({ turn }, i): BendOnCard => {
      const arcMm = radius(i) * turn;
      at += straights[i]!;
      const startMarkMm = at;
      at += arcMm;
      return {
        number: i + 1,
        straightBeforeMm: straights[i]!,
        angleDeg: turn * degrees,
        setAngleDeg: turn * degrees * (1 + springbackFraction),
        rotationDeg: rotations[i]!,
        arcMm,
        startMarkMm,
        centreMarkMm: startMarkMm + arcMm / 2,
        endMarkMm: at,
      };
    });
    const lastStraightMm = straights.at(-1)!;
    const arcsMm = bends.reduce((sum, { arcMm }) => sum + arcMm, 0);
    const cutLengthMm = sheet.add({
      symbol: 'L',
      label: 'Tube to cut',
      formula: 'a + Σs + Σb + e',
      inputs: [
        { symbol: 'a', value: startAllowanceMm, unit: 'mm', from: 'startAllowanceMm' },
        { symbol: 'Σs', value: straights.reduce((sum, one) => sum + one, 0), unit: 'mm' },
        { symbol: 'Σb', value: arcsMm, unit: 'mm' },
        { symbol: 'e', value: endAllowanceMm, unit: 'mm', from: 'endAllowanceMm' },
      ],
      value: at + lastStraightMm + endAllowanceMm,
      unit: 'mm',
      source: 'Straights between tangents, arcs r·θ',
    });
    const least = legs.corners.reduce(
      (found, _corner, i) => Math.min(found, radius(i)),
      legs.corners.length === 0 ? input.centrelineRadiusMm : Infinity,
    );
    const radiusOverDiameter = sheet.add({
      symbol: 'q',
      label: 'Tightest radius over the diameter',
      formula: 'r/D',
      inputs: [
        { symbol: 'r', value: least, unit: 'mm', from: 'centrelineRadiusMm' },
        { symbol: 'D', value: tubeOuterMm, unit: 'mm', from: 'tubeOuterMm' },
      ],
      value: least / tubeOuterMm,
      unit: '',
      source,
    });
    const kink = kinkOf(least, tubeOuterMm, wallMm);
    if (bends.length > 0 && kink !== 'low')
      raise(
        kink === 'use a former' ? bendCardRules.former : bendCardRules.kink,
        `Radius ${formatNumber(radiusOverDiameter)} times the diameter, wall ${formatNumber((wallMm / tubeOuterMm) * 100, 2)} % of it: ${kink}.`,
      );
    return { cutLengthMm, bends, lastStraightMm, radiusOverDiameter, kink };
  },
});
