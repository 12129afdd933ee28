import type { Check, Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { isHoseRun, type Id, type RunItem } from '../../model/document';
import { judge, type Reader } from '../../model/step';
import { pointGaps } from './point-gaps';
import { runRules } from './rules';

const n = formatNumber;
/** A hose reaches this far past the end of its run, m. */
const reachM = 0.1;

/** What carries hoses: coolant beside current in one run, and ends that are not where the hose is said to join. */
export function hoseChecks(subject: Id, run: RunItem, read: Reader): Check[] {
  const { hoses = [], tag, points = [] } = run;
  if (hoses.length === 0) return [];
  const plumbing = read.at('plumbing') ?? {};
  const joins = read.at('joins') ?? {};
  const ends = [points[0], points.at(-1)];
  const off: { id: Id; tag: string; offM: number; join: Id }[] = [];
  const gaps: Gap[] = pointGaps(points, `runs.${subject}`, tag);
  for (const hose of hoses) {
    const piece = plumbing[hose];
    for (const [i, join] of [piece?.from, piece?.to].entries()) {
      const at = joins[join ?? ''];
      if (piece === undefined || join === undefined || at === undefined) continue;
      const { xM, yM, zM } = at;
      if (xM === undefined || yM === undefined || zM === undefined) {
        gaps.push({ kind: 'not-given', path: `joins.${join}`, label: `place of ${at.tag}` });
        continue;
      }
      // Two hoses side by side may flow against each other: either end of the run may be theirs.
      const own = hoses.length > 1 ? ends : [ends[i]];
      const distances = own.flatMap((end) =>
        end?.xM === undefined || end.yM === undefined || end.zM === undefined
          ? []
          : [Math.hypot(end.xM - xM, end.yM - yM, end.zM - zM)],
      );
      const offM = Math.min(...distances);
      if (Number.isFinite(offM) && offM > reachM + 1e-9)
        off.push({ id: hose, tag: `${piece.tag} at ${at.tag}`, offM, join });
    }
  }
  return [
    judge(
      runRules.mixed,
      [subject],
      [],
      isHoseRun(run)
        ? null
        : `${tag} carries ${n(hoses.length)} coolant ${hoses.length === 1 ? 'hose' : 'hoses'} beside conductors.`,
      [{ label: 'hoses beside conductors', value: isHoseRun(run) ? 0 : hoses.length, unit: '' }],
      { also: hoses },
    ),
    judge(
      runRules.hoseOff,
      [subject],
      off.length > 0 ? [] : gaps,
      off.length > 0 ? `${off.map((one) => `${one.tag}: ${n(one.offM)} m off`).join('; ')}.` : null,
      off.map((one) => ({ label: one.tag, value: one.offM, unit: 'm' })),
      { also: off.flatMap(({ id, join }) => [id, join]) },
    ),
  ];
}
