import { defineCalculator } from '../../ground/calculator';
import { list, number, record, text } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import type { Vector } from '../../ground/math';
import { formatNumber } from '../../ground/quantity';
import {
  filleted,
  isProblem,
  legsOf,
  nearestTo,
  pointAt,
  type Legs,
  type Path,
  type Point,
} from '../../ground/space';

/** A line to stay away from: a brake line, a fuel pipe, a shaft. */
export interface HazardLine {
  id: string;
  kind: string;
  points: Point[];
  minSeparationMm: number;
  /** Half of what it is thick, mm; its line is its middle. */
  radiusMm?: number;
}

export interface RouteInput {
  points: Point[];
  bendRadiusMm: number;
  cable: { outerDiameterMm: number; minBendRadiusFactor: number; massKgPerM?: number };
  clipSpacingMm: number;
  clipFromEndMm: number;
  slackFraction: number;
  terminationMm: number;
  hazards?: HazardLine[];
  /** What lies around the cable, mm: its surface counts for distances instead of the cable’s. */
  conduitOuterMm?: number;
}

export interface RouteResult {
  /** null: the legs are shorter than their bends. */
  pathLengthM: number | null;
  cutLengthM: number | null;
  bends: { at: number; angleDeg: number; radiusMm: number; allowedRadiusMm: number; ok: boolean }[];
  totalBendDeg: number;
  massKg: number | null;
  clips: { atM: number; position: Point }[];
  separations: { id: string; distanceMm: number; requiredMm: number; ok: boolean }[];
}

const rule = rulesOf('route');
const source = 'Geometry: tangents r·tan(θ/2), arcs r·θ';

export const routeRules = {
  shortLeg: rule(
    'leg-too-short',
    'stop',
    'A leg is too short for its bends',
    'Two bends that share a leg need their tangents in it: what does not fit is bent sharper than drawn, or kinks.',
    'Move a point, leave one out, or bend with a smaller radius where the cable allows it.',
    source,
  ),
  radius: rule(
    'radius',
    'mend',
    'A bend is tighter than the cable allows',
    'Below its least radius the insulation creeps, the screen opens, and strands press through in the heat.',
    'A larger radius, or a more flexible cable.',
    'Cable maker’s least bend radius, by outer diameter',
  ),
  separation: rule(
    'separation',
    'stop',
    'A cable runs too near to something',
    'Vibration rubs through, heat ages the insulation, and a leak or a broken part meets high voltage.',
    'Lead it elsewhere, or put a shield or conduit between and judge anew.',
    'Least distances of the job, by what it is',
  ),
};

const degrees = 180 / Math.PI;
const mostClips = 5000;
export const coordinate = number({ min: -1000, max: 1000 });
export const point = list(coordinate, { minRows: 3, maxRows: 3 });

/** Where clips go along a path, m from its start. */
export function clipsAlong(pathM: number, spacingM: number, fromEndM: number): number[] {
  const rest = pathM - 2 * fromEndM;
  if (rest <= 1e-9) return [pathM / 2];
  const spaces = Math.max(1, Math.ceil(rest / spacingM - 1e-9));
  return Array.from({ length: spaces + 1 }, (_, i) => fromEndM + (rest * i) / spaces);
}

/**
 * A cable’s way through space: its length with rounded corners, bends, clips, and how near it comes to what it must stay away from.
 *
 * Source: geometry; the least distance of arcs and lines by golden section.
 */
export const route = defineCalculator<RouteInput, RouteResult>({
  name: 'route',
  version: 1,
  title: 'Way of a cable',
  rules: Object.values(routeRules),
  door: {
    schema: record({
      points: list(point, { minRows: 2, maxRows: 1000 }),
      bendRadiusMm: number({ above: 0, max: 100_000 }),
      cable: record({
        outerDiameterMm: number({ above: 0, max: 1000 }),
        minBendRadiusFactor: number.optional({ min: 0, max: 100 }),
        massKgPerM: number.optional({ min: 0 }),
      }),
      clipSpacingMm: number.optional({ above: 0 }),
      clipFromEndMm: number.optional({ min: 0 }),
      slackFraction: number.optional({ min: 0, max: 10 }),
      terminationMm: number.optional({ min: 0 }),
      hazards: list.optional(
        record({
          id: text(80),
          kind: text(80),
          points: list(point, { minRows: 2, maxRows: 1000 }),
          minSeparationMm: number({ min: 0 }),
          radiusMm: number.optional({ min: 0, max: 10_000 }),
        }),
        { maxRows: 200 },
      ),
      conduitOuterMm: number.optional({ above: 0, max: 1000 }),
    }),
    defaults: {
      'cable.minBendRadiusFactor': 5,
      clipSpacingMm: 250,
      clipFromEndMm: 100,
      slackFraction: 0.03,
      terminationMm: 60,
    },
    cross({ points, clipSpacingMm, clipFromEndMm, hazards = [] }: RouteInput, issue) {
      const legs = legsOf(points);
      if (isProblem(legs)) return issue(`points.${legs.at}`, legs.message);
      const straightM = legs.lengths.reduce((sum, one) => sum + one, 0);
      if ((straightM * 1000 - 2 * clipFromEndMm) / clipSpacingMm > mostClips)
        issue('clipSpacingMm', `gives more than ${mostClips} clips`);
      const seen = new Set<string>();
      hazards.forEach(({ id }, i) => {
        if (seen.has(id)) issue(`hazards.${i}.id`, 'is taken by an earlier line');
        seen.add(id);
      });
      if (points.length * hazards.reduce((sum, one) => sum + one.points.length, 0) > 400_000)
        issue('hazards', 'have too many points for a way of so many points');
    },
  },
  compute(input, { sheet, raise }) {
    const { bendRadiusMm, cable, slackFraction, terminationMm, hazards = [] } = input;
    const legs = legsOf(input.points) as Legs;
    const path = filleted(legs, () => bendRadiusMm / 1000);
    const straightM = legs.lengths.reduce((sum, one) => sum + one, 0);
    const arcsM = legs.corners.reduce((sum, { turn }) => sum + (bendRadiusMm / 1000) * turn, 0);
    const known = path.lengthM > 0;
    sheet.add({
      symbol: 'L',
      label: 'Length along the rounded way',
      formula: 'Σl − T + A',
      inputs: [
        { symbol: 'Σl', value: straightM, unit: 'm', from: 'points' },
        { symbol: 'T', value: straightM + arcsM - path.lengthM, unit: 'm' },
        { symbol: 'A', value: arcsM, unit: 'm' },
      ],
      value: known ? path.lengthM : null,
      unit: 'm',
      source,
    });
    const pathLengthM = known ? path.lengthM : null;
    const cutLengthM = sheet.add({
      symbol: 'L_c',
      label: 'Length to cut',
      formula: 'L·(1 + s) + 2·t/1000',
      inputs: [
        { symbol: 'L', value: path.lengthM, unit: 'm' },
        { symbol: 's', value: slackFraction, unit: 'fraction', from: 'slackFraction' },
        { symbol: 't', value: terminationMm, unit: 'mm', from: 'terminationMm' },
      ],
      value: pathLengthM === null ? null : pathLengthM * (1 + slackFraction) + (2 * terminationMm) / 1000,
      unit: 'm',
      source: 'Slack and what the terminations take',
    });
    for (const { from, to, lengthM: leg, neededM } of path.short)
      raise(
        routeRules.shortLeg,
        `From point ${from} to point ${to} are ${formatNumber(leg * 1000)} mm; its bends need ${formatNumber(neededM * 1000)} mm.`,
      );
    const allowedRadiusMm = cable.minBendRadiusFactor * cable.outerDiameterMm;
    const ok = bendRadiusMm >= allowedRadiusMm - 1e-9;
    const bends = legs.corners.map(({ at, turn }) => ({
      at,
      angleDeg: turn * degrees,
      radiusMm: bendRadiusMm,
      allowedRadiusMm,
      ok,
    }));
    if (!ok && bends.length > 0)
      raise(
        routeRules.radius,
        `Bends of ${formatNumber(bendRadiusMm)} mm; the cable allows ${formatNumber(allowedRadiusMm)} mm.`,
      );
    const clips = pathLengthM === null || path.short.length > 0 ? [] : clipsOf(path, input);
    const halfMm = (input.conduitOuterMm ?? cable.outerDiameterMm) / 2;
    const separations = hazards.map(({ id, kind, points, minSeparationMm, radiusMm = 0 }) => {
      const distanceMm = nearestTo(path, points as Vector[]).distanceM * 1000 - halfMm - radiusMm;
      const far = distanceMm >= minSeparationMm - 1e-9;
      if (!far)
        raise(
          routeRules.separation,
          `${formatNumber(distanceMm)} mm to ${id} (${kind}); ${formatNumber(minSeparationMm)} mm are asked.`,
        );
      return { id, distanceMm, requiredMm: minSeparationMm, ok: far };
    });
    return {
      pathLengthM,
      cutLengthM,
      bends,
      totalBendDeg: bends.reduce((sum, { angleDeg }) => sum + angleDeg, 0),
      massKg: pathLengthM === null || cable.massKgPerM === undefined ? null : pathLengthM * cable.massKgPerM,
      clips,
      separations,
    };
  },
});

const clipsOf = (path: Path, { clipSpacingMm, clipFromEndMm }: RouteInput): RouteResult['clips'] =>
  clipsAlong(path.lengthM, clipSpacingMm / 1000, clipFromEndMm / 1000).map((atM) => ({
    atM,
    position: [...pointAt(path, atM)] as Point,
  }));
