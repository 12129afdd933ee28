import { judgeMeasurement, withRecord, type ProcedureStep } from '../commissioning';
import type { RaisedCheck } from '../../ground/figure';
import { gradeRank } from '../../ground/finding';
import { movedBeyond } from './moved';
import { isExchange, isWork, opensPlace, touches, walkStatus, workText, type Walked } from './walk-status';
import { asPresent, isOfItem } from '../../record';
import type { AcceptanceBody, Basis, CorrectionBody, Entry, PositionBody, ResultBody } from '../../record';
import type { Evaluation } from '../../model/step';
import { withAcceptance } from './acceptance';
import { deviationsOf, type Deviation } from './deviations';
import { gateStatuses, type GateStatus } from './gate-status';
import { ofKind, type EntryOf } from '../../record';
import { snagsOf, type Snag } from './snags';

/** A value a result rested on, that has moved since. */
export interface Moved {
  figure: string;
  label: string;
  unit: string;
  was: number;
  /** null: it is no longer computed. */
  now: number | null;
}

export type ResultState = 'due' | 'passed' | 'failed' | 'stale';

/** One step of the procedure with the latest result that counts. */
export interface StepStatus {
  step: ProcedureStep;
  state: ResultState;
  entry: EntryOf<ResultBody> | null;
  /** Why it is stale. */
  moved: Moved[];
  /** Work on the same subject since. */
  workSince: string | null;
  /** For a stale result: whether it would still pass; null when that cannot be judged. */
  wouldStillPass: boolean | null;
  /** The result that counts was read by an instrument that measures no vehicle. */
  standIn: boolean;
  /** What the same step gave on the bench, before it was in the vehicle. */
  onBench: EntryOf<ResultBody> | null;
  /** Of a step that is recorded along walks: where that stands. */
  walked: Walked | null;
}

export interface FindingStatus {
  check: RaisedCheck;
  /** The acceptance that holds, if any. */
  accepted: EntryOf<AcceptanceBody> | null;
  /** Why the last acceptance lapsed. */
  lapsed: string | null;
}

export interface Assessment {
  findings: FindingStatus[];
  steps: StepStatus[];
  gates: GateStatus[];
  deviations: Deviation[];
  snags: Snag[];
  /** The vehicle as last recorded. */
  position: EntryOf<PositionBody> | null;
  corrected: Set<number>;
}

export interface AssessOptions {
  /** A job to practise on: readings of stand-in instruments open its gates. Those of a real job never do. */
  practice?: boolean;
}

/** Joins what follows from the design with what happened. Entries in the order of the chain. */
export function assess(
  evaluation: Evaluation,
  procedure: ProcedureStep[],
  entries: readonly Entry[],
  { practice = false }: AssessOptions = {},
): Assessment {
  const corrected = new Set(ofKind<CorrectionBody>(entries, 'correction').map(({ body }) => body.of));
  const counting = asPresent(entries);
  const acceptances = ofKind<AcceptanceBody>(counting, 'acceptance');
  const findings = evaluation.checks
    .filter((check): check is RaisedCheck => check.state === 'raised')
    .map((check) => withAcceptance(check, acceptances));
  // What may be measured, and was not, is nothing that is due.
  const happened = happenedIn(counting);
  const statuses = procedure
    .map((step) => statusOf(step, happened))
    .filter(({ step, state }) => step.optional !== true || state !== 'due');
  const snags = snagsOf(counting);
  return {
    findings: findings.sort((a, b) => gradeRank[a.check.grade] - gradeRank[b.check.grade]),
    steps: statuses,
    gates: gateStatuses(statuses, snags, practice),
    deviations: deviationsOf(counting, statuses),
    snags,
    position: ofKind<PositionBody>(counting, 'position').at(-1) ?? null,
    corrected,
  };
}

/** What of a record steps are told by, sorted out once. */
interface Happened {
  /** The last result of each step, in the vehicle; and on the bench. */
  results: Map<string, EntryOf<ResultBody>>;
  bench: Map<string, EntryOf<ResultBody>>;
  walks: Entry[];
  /** Work, and what opened a place. */
  works: Entry[];
  entries: readonly Entry[];
}

function happenedIn(entries: readonly Entry[]): Happened {
  const happened: Happened = { results: new Map(), bench: new Map(), walks: [], works: [], entries };
  for (const entry of entries) {
    const { body } = entry;
    if (body.kind === 'result')
      (body.occasion === 'bench' ? happened.bench : happened.results).set(
        body.step,
        entry as EntryOf<ResultBody>,
      );
    else if (body.kind === 'joints' || body.kind === 'cable-cut') happened.walks.push(entry);
    else if (isWork(body) || opensPlace(body) || isExchange(body)) happened.works.push(entry);
  }
  return happened;
}

function statusOf(step: ProcedureStep, { results, bench, walks, works, entries }: Happened): StepStatus {
  if (step.walk !== undefined) return walkStatus(step, step.walk, walks, works);
  const none = {
    step,
    entry: null,
    moved: [],
    workSince: null,
    wouldStillPass: null,
    standIn: false,
    onBench: bench.get(step.id) ?? null,
    walked: null,
  };
  const entry = results.get(step.id);
  if (entry === undefined) return { ...none, state: 'due' };
  const movedSince = movedBasis(entry.basis, step.basis);
  const ofItem = isOfItem(step.id);
  const work = works.findLast(
    ({ seq, subjects, body }) =>
      (!ofItem || !opensPlace(body)) && seq > entry.seq && subjects.some(({ id }) => touches(step, id)),
  );
  const standIn = entry.instrument?.standIn === true;
  if (movedSince.length === 0 && work === undefined) {
    return { ...none, entry, standIn, state: entry.body.verdict === 'pass' ? 'passed' : 'failed' };
  }
  return {
    ...none,
    entry,
    standIn,
    state: 'stale',
    moved: movedSince,
    workSince: work === undefined ? null : workText(work),
    wouldStillPass: rejudge(step, entry.body, entries),
  };
}

function movedBasis(was: readonly Basis[], now: readonly Basis[]): Moved[] {
  const current = new Map(now.map((row) => [row.figure, row]));
  const seen = new Set(was.map(({ figure }) => figure));
  const gone: Moved[] = was.flatMap(({ figure, label, unit, value, toleranceFraction }) => {
    const row = current.get(figure);
    if (row !== undefined && !movedBeyond(value, row.value, toleranceFraction)) return [];
    return [{ figure, label, unit, was: value, now: row?.value ?? null }];
  });
  // A part that was exchanged has another key: pair it with the one it replaced, by label order.
  const added = now.filter(({ figure }) => !seen.has(figure));
  return gone.map((row) =>
    row.now === null && added.length > 0 ? { ...row, now: added.shift()?.value ?? null } : row,
  );
}

function rejudge(step: ProcedureStep, body: ResultBody, entries: readonly Entry[]): boolean | null {
  const expected = withRecord(step, entries);
  if (expected === null) return null;
  const judged = judgeMeasurement(expected, body.measured);
  return judged.ok ? judged.judgement.verdict === 'pass' : null;
}
