import type { Check } from '../../ground/figure';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import type { Design, Id, JointItem } from '../../model/document';
import { judge } from '../../model/step';
import type { Told } from '../../record';
import { scoreBatch, type BatchScores } from '../balance';
import { measuredJointRules as rules, torqueTolerance } from './rules';
import { jointStates, type JointState } from './state';

const n = formatNumber;
/** Where deviations have no measure, a joint of this many times the median is an outlier all the same. */
const timesMedian = 2;

/** The joints of one kind that carry alike, with how far each lies from the rest. */
export interface JointBatch {
  kind: Id;
  states: JointState[];
  scores: BatchScores;
  /** Only those far above: a joint cannot be too good. */
  outliers: boolean[];
}

/** Joints of each kind as one batch, scored by their resistance. */
export function jointBatches(states: readonly JointState[]): JointBatch[] {
  const kinds = [...new Set(states.flatMap(({ kind }) => (kind === null ? [] : [kind])))];
  return kinds.map((kind) => {
    const own = states.filter((state) => state.kind === kind);
    const scores = scoreBatch(own.map(({ drop }) => drop?.ohm ?? null));
    const outliers = own.map(({ drop }, i) => {
      if (drop === null || scores.median === null || drop.ohm <= scores.median) return false;
      const enough = scores.bounds !== null;
      return enough && (scores.outliers[i]! || drop.ohm > timesMedian * scores.median);
    });
    return { kind, states: own, scores, outliers };
  });
}

/** Names of a few, or their number with the first. */
const names = (states: readonly { tag: string }[]) =>
  states.length <= 3
    ? states.map(({ tag }) => tag).join(', ')
    : `${states
        .slice(0, 2)
        .map(({ tag }) => tag)
        .join(', ')} and ${states.length - 2} others`;

function outlierCheck({ kind, states, scores, outliers }: JointBatch, tag: string): Check[] {
  if (scores.bounds === null || scores.median === null) return [];
  const bad = states.filter((_, i) => outliers[i]);
  const worst = bad.reduce<JointState | null>(
    (most, one) => (one.drop!.ohm > (most?.drop?.ohm ?? 0) ? one : most),
    null,
  );
  return [
    judge(
      rules.outlier,
      [kind],
      [],
      worst === null
        ? null
        : `${tag}: ${names(bad)} ${bad.length === 1 ? 'lies' : 'lie'} far above the rest, ${bad.length === 1 ? '' : `${worst.tag} `}at ${formatQuantity(worst.drop!.ohm, 'Ω')}; the middle is ${formatQuantity(scores.median, 'Ω')}.`,
      [
        { label: 'outliers', value: bad.length, unit: '' },
        { label: 'worst', value: worst?.drop?.ohm ?? 0, unit: 'Ω' },
      ],
    ),
  ];
}

function limitCheck(kind: Id, { tag, limitOhm }: JointItem, states: readonly JointState[]): Check[] {
  const read = states.filter(({ drop }) => drop !== null);
  if (limitOhm === undefined || read.length === 0) return [];
  const over = read.filter(({ drop }) => drop!.ohm > limitOhm);
  const most = Math.max(...read.map(({ drop }) => drop!.ohm));
  return [
    judge(
      rules.overLimit,
      [kind],
      [],
      over.length === 0
        ? null
        : `${tag}: ${names(over)} ${over.length === 1 ? 'has' : 'have'} up to ${formatQuantity(most, 'Ω')}; ${formatQuantity(limitOhm, 'Ω')} are allowed.`,
      [{ label: 'most', value: most, unit: 'Ω' }],
    ),
  ];
}

function torqueCheck(kind: Id, { tag, torqueNm }: JointItem, states: readonly JointState[]): Check[] {
  const torqued = states.filter(({ torque }) => torque !== null);
  if (torqueNm === undefined || !(torqueNm > 0) || torqued.length === 0) return [];
  const off = torqued.filter(
    ({ torque }) => Math.abs(torque!.torqueNm / torqueNm - 1) > torqueTolerance + 1e-9,
  );
  const worst = off.reduce<JointState | null>(
    (most, one) =>
      most === null || Math.abs(one.torque!.torqueNm - torqueNm) > Math.abs(most.torque!.torqueNm - torqueNm)
        ? one
        : most,
    null,
  );
  return [
    judge(
      rules.torqueOff,
      [kind],
      [],
      worst === null
        ? null
        : `${tag}: ${names(off)} ${off.length === 1 ? 'was' : 'were'} torqued otherwise than with ${n(torqueNm)} N·m, ${worst.tag} with ${n(worst.torque!.torqueNm)} N·m.`,
      [
        { label: 'torqued otherwise', value: off.length, unit: '' },
        { label: 'wanted', value: torqueNm, unit: 'N·m' },
      ],
    ),
  ];
}

function dueCheck(
  kind: Id,
  { tag, retorqueDays = 0 }: JointItem,
  states: readonly JointState[],
  nowMs: number,
): Check[] {
  const known = states.filter(({ dueMs }) => dueMs !== null);
  if (known.length === 0) return [];
  const due = known.filter(({ dueMs }) => dueMs! <= nowMs);
  const first = Math.min(...due.map(({ dueMs }) => dueMs!));
  return [
    judge(
      rules.due,
      [kind],
      [],
      due.length === 0
        ? null
        : `${tag}: ${due.length} of ${states.length} are to be torqued again since ${new Date(first).toISOString().slice(0, 10)}, ${n(retorqueDays)} days after the first time.`,
      [{ label: 'joints that are due', value: due.length, unit: '' }],
    ),
  ];
}

/**
 * What the record says against joints; nothing of those that were not measured.
 *
 * @param entries those that count
 */
export function jointRecordChecks(
  design: Pick<Design, 'joints' | 'modules' | 'strings' | 'circuits' | 'pack'>,
  entries: readonly Told[],
  nowMs: number,
): Check[] {
  if (!entries.some(({ body }) => body.kind === 'joints')) return [];
  return jointBatches(jointStates(design, entries)).flatMap((batch) => {
    const item = design.joints![batch.kind]!;
    return [
      ...outlierCheck(batch, item.tag),
      ...limitCheck(batch.kind, item, batch.states),
      ...torqueCheck(batch.kind, item, batch.states),
      ...dueCheck(batch.kind, item, batch.states, nowMs),
    ];
  });
}
