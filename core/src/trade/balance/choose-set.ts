import { formatNumber } from '../../ground/quantity';
import type { Design, Id } from '../../model/document';
import type { ModuleData } from '../../model/parts';
import { intakeQuantities } from './intake';
import { scoreBatch } from './outliers';

/** A thing that could be chosen, with what is known of it. */
export interface Candidate {
  id: string;
  name: string;
  state: 'untested' | 'good' | 'suspect' | 'rejected' | 'retired';
  /** Key of the part it is; null: as designed. */
  part: string | null;
  /** Where it sits now; null: on the shelf. */
  place: Id | null;
  voltageV?: number | undefined;
  insulationMOhm?: number | undefined;
  resistanceOhm?: number | undefined;
  capacityAh?: number | undefined;
}

export interface ChosenSet {
  /** In series order, string after string; a thing for each place, null where none is left. */
  places: { place: Id; string: Id; thing: string | null; moves: boolean }[];
  /** What decides each string: its smallest, and how many of it nobody measured. */
  strings: { id: Id; smallestAh: number | null; unknown: number }[];
  /** All strings together by their smallest, Ah; null: some are not measured. */
  capacityAh: number | null;
  /** The same as things sit now. */
  capacityNowAh: number | null;
  /** Things that are not chosen, and why. */
  rest: { id: string; why: string }[];
}

type Slices = Pick<Design, 'strings' | 'modules' | 'parts'>;
const n = formatNumber;

/** Why a thing is not to be fitted at all; null: it may. */
function unfit(
  { state, part, voltageV, insulationMOhm }: Candidate,
  kind: string,
  data: ModuleData,
): string | null {
  if (state === 'rejected' || state === 'retired' || state === 'suspect') return `is ${state}`;
  if (part !== null && part !== kind) return 'is of another kind';
  const [low, high] = [data.cell.minV * data.cellsInSeries, data.cell.maxV * data.cellsInSeries];
  if (voltageV !== undefined && (voltageV < low || voltageV > high))
    return `reads ${n(voltageV, 4)} V, outside of ${n(low, 4)} to ${n(high, 4)} V`;
  if (insulationMOhm !== undefined && insulationMOhm < data.insulationMinMOhm)
    return `insulates with ${n(insulationMOhm)} MΩ, the maker asks for ${n(data.insulationMinMOhm)} MΩ`;
  return null;
}

/**
 * The best set for the places of all strings from more things than they need: strings side by side add up, and each has what its
 * smallest has, so the largest stand together. What was not measured is unknown and not good: it comes after all that is known to be
 * no outlier. Things that sit in a string that they are chosen for stay where they are.
 *
 * @returns null where there is no string, or its modules are of several kinds
 */
export function chooseSet(
  { strings, modules, parts }: Slices,
  candidates: readonly Candidate[],
): ChosenSet | null {
  const filled = Object.entries(strings).filter(([, string]) => string.modules.length > 0);
  const kinds = new Set(filled.flatMap(([, string]) => string.modules.map((id) => modules[id]?.part ?? '')));
  const [kind = ''] = kinds;
  const part = parts[kind];
  if (kinds.size !== 1 || part?.kind !== 'module') return null;
  const rest: ChosenSet['rest'] = [];
  const fit = candidates.filter((one) => {
    const why = unfit(one, kind, part.data);
    if (why !== null) rest.push({ id: one.id, why });
    return why === null;
  });
  const scored = intakeQuantities.flatMap(({ field, outlier }) =>
    field === 'capacityAh' || field === 'resistanceOhm'
      ? [
          scoreBatch(
            fit.map((one) => one[field] ?? null),
            outlier,
          ),
        ]
      : [],
  );
  /** Far off to the bad side: weak, or of high resistance. */
  const farOff = new Set(
    fit.flatMap(({ id }, i) => (scored.some(({ outliers }) => outliers[i]!) ? [id] : [])),
  );
  const ranked = [...fit].sort(
    (a, b) =>
      Number(farOff.has(a.id)) - Number(farOff.has(b.id)) ||
      // What nobody measured comes after all that is known.
      (b.capacityAh ?? 0) - (a.capacityAh ?? 0) ||
      // What sits already is not exchanged for what is no better.
      Number(b.place !== null) - Number(a.place !== null),
  );
  const needed = filled.reduce((sum, [, string]) => sum + string.modules.length, 0);
  const chosen = ranked.slice(0, needed);
  const known = chosen.flatMap(({ capacityAh }) => capacityAh ?? []);
  const least = known.length === 0 ? null : Math.min(...known);
  for (const one of ranked.slice(needed))
    rest.push({
      id: one.id,
      why: farOff.has(one.id)
        ? 'lies far off the rest'
        : one.capacityAh === undefined
          ? 'its capacity was not measured'
          : `${n(one.capacityAh, 4)} Ah; the smallest that is chosen has ${least === null ? 'an unknown capacity' : `${n(least, 4)} Ah`}`,
    });
  return { ...placed(filled, chosen), capacityNowAh: capacityOf(filled, candidates), rest };
}

type Filled = [Id, { modules: Id[] }][];

/** Blocks of the largest, each for the string in which most of it sits already. */
function placed(
  filled: Filled,
  chosen: readonly Candidate[],
): Pick<ChosenSet, 'places' | 'strings' | 'capacityAh'> {
  const open = new Map(filled.map(([id, { modules }]) => [id, modules]));
  const inString = new Map<Id, Candidate[]>();
  let at = 0;
  // Strings of one length: blocks fit any of them. Of several lengths: the longest takes the first block that it fills.
  const lengths = filled.map(([, { modules }]) => modules.length).sort((a, b) => b - a);
  for (const length of lengths) {
    const block = chosen.slice(at, at + length);
    at += length;
    const homes = [...open].filter(([, modules]) => modules.length === length);
    const [home] = homes.reduce((best, one) =>
      block.filter(({ place }) => one[1].includes(place ?? '')).length >
      block.filter(({ place }) => best[1].includes(place ?? '')).length
        ? one
        : best,
    );
    inString.set(home, block);
    open.delete(home);
  }
  const places = filled.flatMap(([string, { modules }]): ChosenSet['places'] => {
    const block = inString.get(string)!;
    const stay = new Map(
      block.flatMap((one) => (modules.includes(one.place ?? '') ? [[one.place!, one]] : [])),
    );
    const others = block.filter(({ place }) => !modules.includes(place ?? ''));
    return modules.map((place) => {
      const there = stay.get(place);
      const thing = there ?? others.shift() ?? null;
      return { place, string, thing: thing?.id ?? null, moves: thing !== null && there === undefined };
    });
  });
  const strings = filled.map(([id, { modules }]): ChosenSet['strings'][number] => {
    const block = inString.get(id)!;
    const known = block.flatMap(({ capacityAh }) => capacityAh ?? []);
    return {
      id,
      smallestAh: known.length === 0 ? null : Math.min(...known),
      unknown: modules.length - known.length,
    };
  });
  return {
    places,
    strings,
    capacityAh: strings.some(({ unknown }) => unknown > 0)
      ? null
      : strings.reduce((sum, { smallestAh }) => sum + smallestAh!, 0),
  };
}

/** What the strings have as things sit now; null: a place is empty, or not measured. */
function capacityOf(filled: Filled, candidates: readonly Candidate[]): number | null {
  const at = new Map(candidates.flatMap((one) => (one.place === null ? [] : [[one.place, one.capacityAh]])));
  let sum = 0;
  for (const [, { modules }] of filled) {
    const known = modules.map((id) => at.get(id));
    if (known.some((one) => one === undefined)) return null;
    sum += Math.min(...(known as number[]));
  }
  return sum;
}
