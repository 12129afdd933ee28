import { number, oneOf, record, table, text } from '@torvek/core/shape';
import { judgeMeasurement, stepsOfItem, withRecord, type ProcedureStep } from '@torvek/core/commissioning';
import { assess, openBoxBeside, type Assessment } from '@torvek/core/design';
import {
  gates,
  holdFields,
  ladderFields,
  listFields,
  isOfItem,
  openingOf,
  stepParts,
  type Entry,
  type Measured,
  type ResultBody,
} from '@torvek/core/record';
import type { Evaluation } from '@torvek/core/step';
import { HttpError, invalidInput } from '../../http/errors';
import { evaluatedAsBuilt } from '../../jobs/evaluated';
import { defineJudge, type Bench, type Case, type Court, type Judged } from '../court';
import { instrumentFields, instrumentOf, type AskedInstrument } from '../instrument';
import { refuseClosedGate } from '../closed-gate';
import { fittedIn, moduleKindOf, stockAt, thingName } from '../things';

export interface ResultRequest {
  kind: 'result';
  step: string;
  measured: Measured;
  entered: 'stand-in' | 'typed' | 'pasted';
  instrument: AskedInstrument;
  /** A sub-assembly, before it is in the vehicle. */
  occasion?: 'bench';
  remark?: string;
}

/** The fields of what was measured, by its kind. */
export const measuredShapes = {
  trace: {
    kind: oneOf(['trace']),
    samples: table({ columns: [{}, {}], minRows: 8, maxRows: 20_000 }),
    packVoltageV: number({ above: 0 }),
    unit: oneOf(['V']),
  },
  hold: holdFields,
  ladder: ladderFields,
  list: listFields,
  value: { kind: oneOf(['value']), value: number(), unit: text(20), over: oneOf.optional([true]) },
};

/** Which of them it must have. */
export const shapeOfMeasured = ({ kind }: Record<string, unknown>): keyof typeof measuredShapes =>
  Object.hasOwn(measuredShapes, String(kind)) ? (kind as keyof typeof measuredShapes) : 'value';

export const result = defineJudge<ResultRequest>({
  fields: {
    step: text(160),
    measured: record.by<keyof typeof measuredShapes>(measuredShapes, shapeOfMeasured),
    entered: oneOf(['stand-in', 'typed', 'pasted']),
    instrument: instrumentFields,
    occasion: oneOf.optional(['bench']),
    remark: text.optional(2000),
  },
  judge: (asked) => judgeResult(asked, null),
});

/**
 * Judges what was measured at a step.
 *
 * @param instead of an entry that is corrected: taken behind the gate, and with the instrument, that it was taken with
 */
export async function judgeResult(
  asked: Case<ResultRequest>,
  instead: (Entry & { body: ResultBody }) | null,
): Promise<Judged<'result'>> {
  const { request, bench, court } = asked;
  const { evaluation, procedure, upTo } = evaluatedAsBuilt(bench.job, bench.entries);
  const step =
    procedure.find(({ id }) => id === request.step) ?? (await stepOnShelf(request.step, evaluation, asked));
  if (step === undefined)
    throw invalidInput([{ path: 'step', message: 'is no step of this design’s procedure' }]);
  if (step.walk !== undefined)
    throw new HttpError(409, 'by-walk', 'this step is recorded by walks along its joints or bodies');
  const { hv } = gates.find(({ id }) => id === step.gate)!;
  if (request.occasion !== undefined && (hv || isOfItem(step.id)))
    throw invalidInput([
      {
        path: 'occasion',
        message: hv
          ? 'goes with no step at high voltage: that is of the vehicle'
          : 'goes with no step of a single thing',
      },
    ]);
  // On the bench nothing of the vehicle has to be passed before.
  if (instead === null && request.occasion === undefined) {
    const state = assessed(bench, evaluation, procedure);
    const beside = openBoxBeside(step, bench.job.design, state.position);
    if (beside !== null) throw new HttpError(409, 'lid-off', beside);
    refuseClosedGate(step.gate, state);
  }
  const opening = instead === null ? openingFor(step, bench, court) : null;
  if (step.expected === null) {
    throw new HttpError(
      409,
      'not-computed',
      'the expectation of this step is not computed; fill its gaps first',
    );
  }
  const judged = judgeMeasurement(withRecord(step, bench.entries) ?? step.expected, request.measured);
  if (!judged.ok) throw invalidInput([{ path: 'measured', message: judged.message }]);
  const { verdict, reasons, details } = judged.judgement;
  const instrument = instead?.instrument ?? (await instrumentOf(asked, step.instrument));
  // What was measured is the thing that it was, wherever that is by now.
  const item = isOfItem(step.id)
    ? instead === null
      ? itemOf(step.id, bench)
      : (instead.body.item ?? null)
    : null;
  const body: ResultBody = {
    kind: 'result',
    step: step.id,
    ...(item !== null && { item }),
    title: step.title,
    entered: instrument.standIn ? 'stand-in' : request.entered,
    measured: request.measured,
    expected: step.expectedText,
    verdict,
    reasons,
    details,
    ...(opening !== null && { confirmedBy: opening.seq }),
    ...(instead?.body.confirmedBy !== undefined && { confirmedBy: instead.body.confirmedBy }),
    ...(request.occasion !== undefined && { occasion: request.occasion }),
    ...(instead?.body.occasion !== undefined && { occasion: instead.body.occasion }),
    ...(upTo !== null && { asBuilt: upTo }),
    ...(request.remark !== undefined && { remark: request.remark }),
  };
  const witness = opening?.witness ?? instead?.witness ?? null;
  return { subjects: step.subjects, basis: step.basis, instrument, witness, body };
}

/** Of the record that was assessed last: a batch is judged against one. */
let last: { entries: Bench['entries']; evaluation: Evaluation; assessment: Assessment } | null = null;

function assessed({ entries, job }: Bench, evaluation: Evaluation, procedure: ProcedureStep[]): Assessment {
  if (last?.entries !== entries || last.evaluation !== evaluation)
    last = {
      entries,
      evaluation,
      assessment: assess(evaluation, procedure, entries, { practice: job.demo }),
    };
  return last.assessment;
}

/** A step of a thing that lies on the shelf. */
async function stepOnShelf(
  id: string,
  evaluation: Evaluation,
  { bench, court }: Case<ResultRequest>,
): Promise<ProcedureStep | undefined> {
  const item = isOfItem(id) ? stockAt(bench).items.get(stepParts(id).subject) : undefined;
  if (item === undefined) return undefined;
  if (item.place !== null && Object.hasOwn(bench.job.design.modules, item.place))
    throw new HttpError(409, 'fitted', `${thingName(item)} is fitted: it is measured in its place`);
  const part = await moduleKindOf(item, bench, court);
  if (part === null)
    throw new HttpError(
      409,
      'no-kind',
      `what kind ${thingName(item)} is was not said: nothing is expected of it`,
    );
  return stepsOfItem(bench.job.design, evaluation, item, part).find((step) => step.id === id);
}

/** The thing that a step measures: it lies on the shelf, or in the step’s place; null: nobody told of it yet. */
function itemOf(step: string, bench: Bench): string | null {
  const { subject } = stepParts(step);
  return stockAt(bench).items.has(subject) ? subject : (fittedIn(bench, subject)?.id ?? null);
}

/** The opening of the step's HV gate that holds for this person now; null where none is asked for. */
function openingFor(step: ProcedureStep, { entries }: Bench, { by, now }: Court): Entry | null {
  const gate = gates.find(({ id }) => id === step.gate)!;
  if (!gate.hv) return null;
  const opening = openingOf(gate.id, by.name, entries, now);
  if (opening !== null) return opening;
  throw new HttpError(
    409,
    'not-confirmed',
    `the gate “${gate.title}” is at high voltage: a second person confirms it first, or a solo concession is recorded`,
  );
}
