import type { Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import type { Design, Id } from '../../model/document';

/** A join counts as higher than its neighbours from here on, m. */
const higherByM = 0.02;

type Joins = NonNullable<Design['joins']>;
type Loop = NonNullable<Design['loops']>[Id];

/** Heights of the joins of a loop as the vehicle stands while it is filled, and what is missing to say so. */
export interface Posture {
  /** Over the ground below the front axle, m; only those that are known. */
  heights: ReadonlyMap<Id, number>;
  gaps: Gap[];
  /** Null: it stands level. */
  words: string | null;
  /** The same as what a check carries. */
  angles: { label: string; value: number; unit: '°' }[];
}

const rad = (deg: number) => (deg * Math.PI) / 180;

/**
 * Turns the heights of joins into the posture of filling: nose up about the front axle, then the left side up about the middle.
 *
 * @param joins those that pieces of the loop touch
 */
export function postureOf({ fillNoseUpDeg = 0, fillLeftUpDeg = 0 }: Loop, joins: Joins): Posture {
  const [pitch, roll] = [rad(fillNoseUpDeg), rad(fillLeftUpDeg)];
  const heights = new Map<Id, number>();
  const gaps: Gap[] = [];
  for (const [id, { tag, xM, yM, zM }] of Object.entries(joins)) {
    const missing = (
      [
        ['zM', zM, 'height'],
        ...(pitch === 0 ? [] : [['xM', xM, 'place along the vehicle'] as const]),
        ...(roll === 0 ? [] : [['yM', yM, 'place across the vehicle'] as const]),
      ] as const
    ).filter(([, value]) => value === undefined);
    for (const [field, , label] of missing)
      gaps.push({ kind: 'not-given', path: `joins.${id}.${field}`, label: `${label} of ${tag}` });
    if (missing.length > 0) continue;
    const pitched = zM! * Math.cos(pitch) + (xM ?? 0) * Math.sin(pitch);
    heights.set(id, pitched * Math.cos(roll) + (yM ?? 0) * Math.sin(roll));
  }
  const words = [
    ...(fillNoseUpDeg === 0 ? [] : [`its nose ${side(fillNoseUpDeg)}`]),
    ...(fillLeftUpDeg === 0 ? [] : [`its left side ${side(fillLeftUpDeg)}`]),
  ];
  const angles = (
    [
      ['nose', fillNoseUpDeg],
      ['left side', fillLeftUpDeg],
    ] as const
  ).flatMap(([what, deg]) =>
    deg === 0
      ? []
      : [{ label: `${what} ${deg > 0 ? 'up' : 'down'}`, value: Math.abs(deg), unit: '°' as const }],
  );
  return { heights, gaps, words: words.length === 0 ? null : words.join(' and '), angles };
}

const side = (deg: number) => `${formatNumber(Math.abs(deg))}° ${deg > 0 ? 'up' : 'down'}`;

/** Joins of a loop that lie higher than all their neighbours, those level with each other together: air gathers there. */
export function highPoints(heights: ReadonlyMap<Id, number>, ways: readonly { from: Id; to: Id }[]): Id[][] {
  const beside = new Map<Id, Set<Id>>();
  for (const { from, to } of ways) {
    beside.set(from, (beside.get(from) ?? new Set()).add(to));
    beside.set(to, (beside.get(to) ?? new Set()).add(from));
  }
  const zOf = (id: Id) => heights.get(id);
  const highs: Id[][] = [];
  const seen = new Set<Id>();
  for (const start of beside.keys()) {
    const z = zOf(start);
    if (z === undefined || seen.has(start)) continue;
    // A level stretch counts as one place.
    const level = [start];
    let isHigh = true;
    for (let i = 0; i < level.length; i += 1)
      for (const next of beside.get(level[i]!)!) {
        const own = zOf(next);
        if (own === undefined || level.includes(next)) continue;
        if (Math.abs(own - z) <= higherByM) level.push(next);
        else if (own > z) isHigh = false;
      }
    level.forEach((id) => seen.add(id));
    if (isHigh) highs.push(level.sort((a, b) => zOf(b)! - zOf(a)!));
  }
  return highs;
}
