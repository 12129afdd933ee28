import type { Check, Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import type { Design, Id } from '../../model/document';
import { judge } from '../../model/step';
import { coolingRules } from './rules';

const n = formatNumber;
/** Nearer beside each other than this, what drips from one falls on the other, m. */
const besideM = 0.15;

/** Joins with a place of their own, above ends of HV runs with one. */
export function overHv(
  subject: Id,
  touched: readonly Id[],
  joins: NonNullable<Design['joins']>,
  runs: NonNullable<Design['runs']>,
  nothing: Gap[],
): Check {
  const met: { tag: string; run: string; besideM: number; also: Id[] }[] = [];
  for (const id of touched) {
    const { tag, xM, yM, zM } = joins[id] ?? { tag: id };
    if (xM === undefined || yM === undefined || zM === undefined) continue;
    for (const [runId, run] of Object.entries(runs))
      for (const end of [run.points?.[0], run.points?.at(-1)]) {
        if (end?.xM === undefined || end.yM === undefined || end.zM === undefined || end.zM > zM) continue;
        const own = Math.hypot(end.xM - xM, end.yM - yM);
        if (own < besideM) met.push({ tag, run: run.tag, besideM: own, also: [id, runId] });
      }
  }
  const unplaced = touched.flatMap((id): Gap[] => {
    const join = joins[id];
    return join?.xM === undefined || join.yM === undefined || join.zM === undefined
      ? [{ kind: 'not-given', path: `joins.${id}`, label: `place of ${join?.tag ?? id}` }]
      : [];
  });
  // What is known to lie above is said; clear it is only once all have a place.
  return judge(
    coolingRules.overHv,
    [subject],
    met.length > 0 ? [] : [...nothing, ...unplaced],
    met.length > 0
      ? `${met
          .slice(0, 6)
          .map(({ tag, run, besideM: own }) => `${tag} above an end of ${run}, ${n(own)} m beside it`)
          .join('; ')}.`
      : null,
    met.map(({ tag, besideM: own }) => ({ label: `${tag} beside it`, value: own, unit: 'm' })),
    { also: met.flatMap(({ also }) => also) },
  );
}
