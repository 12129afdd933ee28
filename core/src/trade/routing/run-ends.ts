import type { Check, Figure, Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { fieldAt, loopsM, type Id, type RunGeometry, type RunItem } from '../../model/document';
import { judge } from '../../model/step';
import { dropBefore, dropM, leadsIn } from './drip';
import { runRules } from './rules';
import { pointsAlong } from './solids';

const n = formatNumber;

/** Loops shorter than nothing. */
export const loopGaps = (subject: Id, run: RunItem): Gap[] =>
  (['fromLoopMm', 'toLoopMm'] as const).flatMap((field): Gap[] =>
    (run[field] ?? 0) >= 0
      ? []
      : [
          {
            kind: 'invalid',
            path: `runs.${subject}.${field}`,
            label: `${fieldAt(`runs.${subject}.${field}`)!.field.label.toLowerCase()} of ${run.tag}`,
            message: 'must be 0 or more',
          },
        ],
  );

/** The length to cut with the loops that are left at its ends. */
export function withLoops(subject: Id, run: RunItem, cut: Figure): Figure {
  const loops = loopsM(run);
  if (loops === 0 || cut.value === null) return cut;
  const value = cut.value + loops;
  const loop = (field: 'fromLoopMm' | 'toLoopMm', symbol: string) => ({
    symbol,
    label: fieldAt(`runs.${subject}.${field}`)!.field.label,
    value: (run[field] ?? 0) / 1000,
    unit: 'm',
    origin: {
      kind: run[field] === undefined ? ('default' as const) : ('document' as const),
      path: `runs.${subject}.${field}`,
    },
  });
  return {
    ...cut,
    value,
    working: [
      ...cut.working,
      {
        symbol: 'L_w',
        label: `${cut.label}, with its loops`,
        formula: 'L_c + l_1 + l_2',
        inputs: [
          { symbol: 'L_c', value: cut.value, unit: 'm' },
          loop('fromLoopMm', 'l_1'),
          loop('toLoopMm', 'l_2'),
        ],
        value,
        unit: 'm',
        source: 'A loop at an end lets it be made again',
      },
    ],
  };
}

/** Entries that get wet: whether the cable drips before it reaches them. Nothing is asked where it stays dry, or nobody said how it enters. */
export function entryChecks(subject: Id, run: RunItem, found: RunGeometry | null, gaps: Gap[]): Check[] {
  return (['from', 'to'] as const).flatMap((end): Check[] => {
    const entry = run[`${end}Entry`];
    if (entry === undefined || entry === 'dry') return [];
    const at = [`${subject}/${end}`];
    if (found === null) return [judge(runRules.noDrip, at, gaps, null)];
    const along = pointsAlong(found.path);
    const hangsM = dropBefore(end === 'from' ? along : along.toReversed());
    const isWet = leadsIn(hangsM);
    return [
      judge(
        runRules.noDrip,
        at,
        [],
        isWet && hangsM !== null
          ? `${run.tag} comes down to its ${entry} where it ${end === 'from' ? 'begins' : 'ends'}, and hangs ${n(hangsM * 1000)} mm below it before; ${n(dropM * 1000)} mm are asked.`
          : null,
        [
          { label: 'hangs below its entry', value: hangsM ?? dropM, unit: 'm' },
          { label: 'asked', value: dropM, unit: 'm' },
        ],
        { also: [subject] },
      ),
    ];
  });
}
