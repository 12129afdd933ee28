import { conductorsOf, runDefaults, type Design, type Id, type RunItem } from '../../model/document';
import type { Gap } from '../../ground/figure';
import type { PartOf } from '../../model/parts';
import type { Reader } from '../../model/step';

/** Conductors of one kind in a run. */
export interface CablesOfKind {
  part: PartOf<'cable'>;
  lug: PartOf<'lug'> | null;
  count: number;
}

/** Every conductor in a run, and what is not said of them. */
export function cablesIn(run: RunItem, id: Id, read: Reader): { cables: CablesOfKind[]; gaps: Gap[] } {
  const gaps: Gap[] = [];
  const cables: CablesOfKind[] = [];
  for (const { cable, lug, count, path, tag } of conductorsOf(run, {
    circuits: read.at('circuits'),
    pack: read.at('pack'),
  })) {
    const part = read.at('parts', cable ?? '');
    const end = read.at('parts', lug ?? '');
    if (part?.kind !== 'cable') gaps.push({ kind: 'not-given', path, label: `cable of ${tag}` });
    else cables.push({ part, lug: end?.kind === 'lug' ? end : null, count });
  }
  if (cables.length === 0 && gaps.length === 0)
    gaps.push({ kind: 'not-given', path: `runs.${id}.circuits`, label: `what ${run.tag} carries` });
  return { cables, gaps };
}

export const thickest = (cables: readonly CablesOfKind[]): PartOf<'cable'> =>
  cables.reduce((a, b) => (b.part.data.outerDiameterMm > a.part.data.outerDiameterMm ? b : a)).part;

export const kgPerM = (cables: readonly CablesOfKind[]): number =>
  cables.reduce((sum, { part, count }) => sum + part.data.massKgPerM * count, 0);

/** Tightest bend of all cables of a run, mm. */
export const leastRadiusMm = (
  cables: readonly CablesOfKind[],
  { minBendFactor = runDefaults.minBendFactor }: RunItem,
) => thickest(cables).data.outerDiameterMm * minBendFactor;

/** A stretch of a run that lies in one tube, by the indices of its points. */
export interface Tube {
  from: number;
  to: number;
}

/** The tubes of a run, in its order. */
export function tubesOf(ways: readonly string[]): Tube[] {
  const tubes: Tube[] = [];
  for (let leg = 0; leg < ways.length - 1; leg += 1) {
    if (ways[leg] !== 'conduit') continue;
    const last = tubes.at(-1);
    if (last?.to === leg) last.to = leg + 1;
    else tubes.push({ from: leg, to: leg + 1 });
  }
  return tubes;
}

export const runsOf = ({ runs = {} }: Pick<Design, 'runs'>): Id[] => Object.keys(runs);
