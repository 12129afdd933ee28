import { everyCircuit, mainCircuit, type Design, type Id } from '../../model/document';
import { figureId, type Gap } from '../../ground/figure';
import { logSpaced } from '../../ground/math';
import { partKey, type FuseData } from '../../model/parts';
import { formatNumber } from '../../ground/quantity';
import { gapsBehind, judge, type Reader, type StepDefinition } from '../../model/step';
import { clearingTimeS, meltTimeS } from './melting';
import { selectiveRule } from './rules';

/** A fuse that a branch's fault passes too, and the share of the fault it carries. */
export interface UpstreamFuse {
  label: string;
  share: number;
  data: FuseData;
  /** Its key and revision, where it is one of the design’s. */
  partKey?: string;
}

export interface Selectivity {
  holds: boolean;
  /** The first current at which the branch's fuse is not done before the other begins to melt; null: none. */
  fromA: number | null;
  /** At the largest fault: total clearing of the branch, fastest pre-arcing upstream, each by its own current. */
  clearingI2t: number;
  preArcingI2t: number | null;
}

/**
 * Whether a branch's fuse has cleared before the one upstream begins to melt, at 40 currents over the range of faults.
 *
 * Source: longest clearing of the one against fastest melting of the other, at the share of current it carries.
 */
export function selectivity(
  branch: FuseData,
  upstream: UpstreamFuse,
  faultMinA: number,
  faultMaxA: number,
): Selectivity {
  const { data, share } = upstream;
  const fastest = (currentA: number) =>
    meltTimeS(data.curve, (currentA * share) / (1 - data.currentToleranceFraction));
  const currents = faultMinA < faultMaxA ? logSpaced(faultMinA, faultMaxA, 40) : [faultMaxA];
  const bad = currents.find((currentA) => {
    const clears = clearingTimeS(branch, currentA);
    const melts = fastest(currentA);
    return melts !== null && (clears === null || clears >= melts);
  });
  const melts = fastest(faultMaxA);
  return {
    holds: bad === undefined,
    fromA: bad ?? null,
    clearingI2t: faultMaxA ** 2 * (clearingTimeS(branch, faultMaxA) ?? Infinity),
    preArcingI2t: melts === null ? null : (faultMaxA * share) ** 2 * melts,
  };
}

/** Fuses upstream of a branch: the main fuse where it hangs behind the mains, and each string's with its share. */
export function upstreamOf(
  { circuits, strings, parts }: Pick<Design, 'circuits' | 'strings' | 'parts'>,
  circuit: Id,
): UpstreamFuse[] {
  const found: UpstreamFuse[] = [];
  const add = (key: string | undefined, label: string, share: number) => {
    const part = parts[key ?? ''];
    if (part?.kind === 'fuse') found.push({ label, share, data: part.data, partKey: partKey(part) });
  };
  if (circuits[circuit]?.tap !== 'before') add(circuits[mainCircuit]?.fuse, 'the main fuse', 1);
  const count = Object.keys(strings).length;
  for (const { fuse, tag } of Object.values(strings)) add(fuse, `the fuse of ${tag}`, 1 / Math.max(count, 1));
  return found;
}

/** Each branch against every fuse between it and the modules. */
export const selectiveStep: StepDefinition = {
  id: 'fuse.selective',
  version: 1,
  subjects: (design) => everyCircuit(design).filter((id) => design.circuits[id]!.role === 'branch'),
  compute(subject, read: Reader) {
    const part = read.at('parts', read.at('circuits', subject, 'fuse') ?? '');
    const largest = read.figure(figureId('fuse.fault', `${subject}/largest`, 'prospectiveA'));
    const smallest = read.figure(figureId('fuse.fault', `${subject}/smallest`, 'prospectiveA'));
    const gaps: Gap[] = [largest, smallest].flatMap((figure) =>
      figure.value === null ? gapsBehind(figure) : [],
    );
    if (part?.kind !== 'fuse')
      gaps.push({ kind: 'not-given', path: `circuits.${subject}.fuse`, label: 'fuse' });
    if (gaps.length > 0 || part?.kind !== 'fuse')
      return { figures: [], checks: [judge(selectiveRule, [subject], gaps, null)] };
    const upstream = upstreamOf(
      { circuits: read.at('circuits'), strings: read.at('strings'), parts: read.at('parts') },
      subject,
    );
    const judged = upstream.map((one) => ({
      one,
      found: selectivity(part.data, one, smallest.value!, largest.value!),
    }));
    const bad = judged.find(({ found }) => !found.holds);
    const shown = bad ?? judged[0];
    return {
      figures: [],
      checks: [
        judge(
          selectiveRule,
          [subject],
          [],
          bad === undefined
            ? null
            : `From ${formatNumber(bad.found.fromA!)} A on ${bad.one.label} may melt before ${part.label} has cleared.`,
          shown === undefined
            ? []
            : [
                ...(shown.found.fromA === null
                  ? []
                  : [{ label: 'not selective from', value: shown.found.fromA, unit: 'A' }]),
                {
                  label: 'clearing I²t of the branch',
                  value: Math.min(shown.found.clearingI2t, 1e15),
                  unit: 'A²s',
                },
                {
                  label: `pre-arcing I²t of ${shown.one.label}`,
                  value: shown.found.preArcingI2t ?? 0,
                  unit: 'A²s',
                },
              ],
          { parts: [partKey(part), ...judged.flatMap(({ one }) => one.partKey ?? [])] },
        ),
      ],
    };
  },
};
