import type { Suggestion } from '../../ground/finding';
import { catalogueOf, partKey, type FuseData, type PartOf } from '../../model/parts';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { problemsOf, type Criterion } from '../../model/step';
import { firstUncovered } from './contacts';
import { fuse, type FuseInput, type FuseResult } from './fuse';
import { continuousShare, derating } from './limits';
import { leastI2t } from './melting';
import { fuseOwnCriteria } from './own-criteria';
import { inrushRule, selectiveRule, shortTimeRule } from './rules';
import { selectivity, type UpstreamFuse } from './selective';

/** A fuse that hangs behind this one, with the faults it has to clear first. */
export interface DownstreamFuse {
  label: string;
  data: FuseData;
  faultMinA: number;
  faultMaxA: number;
}

/** The place of a fuse: its circuit, and what else has to live with it. */
export interface FusePlace {
  /** Its own fields are those of any fuse: each one that is tried brings its own. */
  circuit: FuseInput;
  upstream: UpstreamFuse[];
  downstream: DownstreamFuse[];
  /** How long the contacts in its path carry a current; null: none, or not known. */
  shortTime: [number, number][] | null;
  /** I²t that rushes through it when contacts close on empty capacitors; null: none. */
  inrushA2s: number | null;
}

/** A fuse of a list, judged for a place. */
export interface RankedFuse extends Suggestion {
  ratedA: number;
}

/** Everything a fuse is held against in its place. */
export function fuseCriteria(data: FuseData, place: FusePlace, result?: FuseResult): Criterion[] {
  const { circuit, upstream, downstream, shortTime, inrushA2s } = place;
  const input = { ...circuit, ...data };
  const { faultMinA, faultMaxA } = circuit;
  const n = formatNumber;
  const above = upstream.flatMap((one) => {
    const { fromA } = selectivity(data, one, faultMinA, faultMaxA);
    return fromA === null ? [] : [`has not cleared before ${one.label} melts, from ${n(fromA)} A on`];
  });
  const below = downstream.flatMap((one) => {
    const own = { label: '', share: 1, data };
    const { fromA } = selectivity(one.data, own, one.faultMinA, one.faultMaxA);
    return fromA === null ? [] : [`melts before ${one.label} has cleared, from ${n(fromA)} A on`];
  });
  const bad = shortTime === null ? null : firstUncovered(data, shortTime, faultMinA, faultMaxA);
  const least = leastI2t(data);
  return [
    ...fuseOwnCriteria(input, result ?? fuse.calculate(input).result),
    { rule: selectiveRule, problem: [...above, ...below][0] ?? null, values: [] },
    {
      rule: shortTimeRule,
      problem:
        bad === null
          ? null
          : `${bad.clearingS === null ? 'never clears' : `takes ${formatQuantity(bad.clearingS, 's')} at`} ${n(bad.currentA)} A, the contacts stand it for ${formatQuantity(bad.carryS, 's')}`,
      values: [],
    },
    {
      rule: inrushRule,
      problem:
        inrushA2s !== null && inrushA2s > least
          ? `may melt at ${formatQuantity(least, 'A²s')}, ${formatQuantity(inrushA2s, 'A²s')} rush in`
          : null,
      values: [],
    },
  ];
}

/**
 * Fuses for a place: fitting ones first, then those with the fewest faults; of equal fit full-range ones before
 * partial-range ones, then the smallest rating.
 */
export function rankFuses(
  place: FusePlace,
  chosen: PartOf<'fuse'> | null,
  parts: readonly PartOf<'fuse'>[] = catalogueOf('fuse'),
): RankedFuse[] {
  const all =
    chosen === null || parts.some((part) => partKey(part) === partKey(chosen)) ? parts : [chosen, ...parts];
  return all
    .map((part) => {
      const reasons = problemsOf(fuseCriteria(part.data, place));
      return { part, reasons, partial: Number(part.data.minBreakingA > 0) };
    })
    .sort(
      (a, b) =>
        a.reasons.length - b.reasons.length ||
        a.partial - b.partial ||
        a.part.data.ratedA - b.part.data.ratedA,
    )
    .map(({ part, reasons }) => ({
      partKey: partKey(part),
      label: part.label,
      ratedA: part.data.ratedA,
      fits: reasons.length === 0,
      reasons,
    }));
}

const offered = 4;

/**
 * The first of a ranking. Parts that fail by their ratings alone cannot fit: they are looked at only where there are no
 * others.
 */
export function fuseReplacements(place: FusePlace, parts: readonly PartOf<'fuse'>[]): RankedFuse[] {
  const { busVoltageV, faultMaxA } = place.circuit;
  const able = parts.filter(({ data }) => data.ratedVoltageV >= busVoltageV && data.breakingA >= faultMaxA);
  return rankFuses(place, null, able.length > 0 ? able : parts).slice(0, offered);
}

/**
 * What a fuse must have to hold in a place, in numbers.
 *
 * @param data the one that fails: by which ampere and which second
 */
export function fuseNeeds({ circuit: input, shortTime }: FusePlace, data: FuseData | null): string[] {
  const n = formatNumber;
  let [seconds, squares] = [0, 0];
  for (const [durationS, currentA] of input.loadProfile) {
    seconds += durationS;
    squares += durationS * currentA ** 2;
  }
  const ratedA = Math.sqrt(squares / seconds) / continuousShare / derating(input).value;
  const { cable, faultMinA, faultMaxA } = input;
  const result = data === null ? null : fuse.calculate({ ...input, ...data }).result;
  const uncoveredA = result?.unprotectedAtA[0];
  const contacts =
    data === null || shortTime === null ? null : firstUncovered(data, shortTime, faultMinA, faultMaxA);
  return [
    `${n(input.busVoltageV)} V DC or more`,
    `${n(faultMaxA)} A breaking capacity or more`,
    `a least breaking current of ${n(faultMinA)} A or less`,
    `to clear ${n(faultMinA)} A within ${n(input.maxClearS)} s`,
    ...(cable === undefined || uncoveredA === undefined
      ? []
      : [
          `to clear ${n(uncoveredA)} A within ${formatQuantity(Math.min(5, (cable.k * cable.areaMm2) ** 2 / uncoveredA ** 2), 's')} for the cable`,
        ]),
    ...(contacts === null
      ? []
      : [
          `to clear ${n(contacts.currentA)} A within ${formatQuantity(contacts.carryS, 's')} for the contacts`,
        ]),
    `a rating of ${n(ratedA)} A or more at this ambient`,
    ...(cable === undefined
      ? []
      : [`a clearing I²t below ${formatQuantity((cable.k * cable.areaMm2) ** 2, 'A²s')}`]),
  ];
}
