import { conductorsOf, runDefaults, type Design, type Id, type RunItem } from '../../model/document';
import type { Gap } from '../../ground/figure';
import type { PartOf } from '../../model/parts';
import type { Reader } from '../../model/step';

/** What lies in a run, of one kind: conductors, or coolant hoses. */
export interface Lain {
  /** Key of its part. */
  key: string;
  outerDiameterMm: number;
  massKgPerM: number;
  /** Of conductors: the area of each, and its lug. */
  areaMm2: number;
  lug: PartOf<'lug'> | null;
  count: number;
}

/** Every conductor and hose in a run, and what is not said of them. */
export function lainIn(run: RunItem, id: Id, read: Reader): { lain: Lain[]; gaps: Gap[] } {
  const gaps: Gap[] = [];
  const lain: Lain[] = [];
  for (const { cable = '', lug, count, path, tag } of conductorsOf(run, {
    circuits: read.at('circuits'),
    pack: read.at('pack'),
    devices: read.at('devices'),
  })) {
    const part = read.at('parts', cable);
    const end = read.at('parts', lug ?? '');
    if (part?.kind !== 'cable') gaps.push({ kind: 'not-given', path, label: `cable of ${tag}` });
    else {
      const { outerDiameterMm, massKgPerM, areaMm2 } = part.data;
      const kind = { key: cable, outerDiameterMm, massKgPerM, areaMm2 };
      lain.push({ ...kind, lug: end?.kind === 'lug' ? end : null, count });
    }
  }
  for (const hose of run.hoses ?? []) {
    const piece = read.at('plumbing')?.[hose];
    const part = read.at('parts', piece?.hose ?? '');
    if (part?.kind !== 'hose')
      gaps.push({ kind: 'not-given', path: `plumbing.${hose}.hose`, label: `kind of ${piece?.tag ?? hose}` });
    else {
      const { outerMm, massKgPerM } = part.data;
      const kind = { key: piece!.hose!, outerDiameterMm: outerMm, massKgPerM };
      lain.push({ ...kind, areaMm2: 0, lug: null, count: 1 });
    }
  }
  if (lain.length === 0 && gaps.length === 0)
    gaps.push({ kind: 'not-given', path: `runs.${id}.circuits`, label: `what ${run.tag} carries` });
  return { lain, gaps };
}

export const thickest = (lain: readonly Lain[]): Lain =>
  lain.reduce((a, b) => (b.outerDiameterMm > a.outerDiameterMm ? b : a));

export const kgPerM = (lain: readonly Lain[]): number =>
  lain.reduce((sum, { massKgPerM, count }) => sum + massKgPerM * count, 0);

/** Tightest bend of all that lies in a run, mm. */
export const leastRadiusMm = (
  lain: readonly Lain[],
  { minBendFactor = runDefaults.minBendFactor }: RunItem,
) => thickest(lain).outerDiameterMm * minBendFactor;

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
