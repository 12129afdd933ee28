import { judgeMeasurement, type ProcedureStep } from '@torvek/core/commissioning';
import { assess } from '@torvek/core/design';
import type { RaisedCheck } from '@torvek/core/figure';
import type { Entry, EntryBody, Instrument, Measured } from '@torvek/core/record';
import { HttpError, invalidInput } from '../http/errors';
import { evaluated } from '../jobs/evaluated';
import type { Job } from '../jobs/jobs';
import type { Draft } from './ledger';

interface Common {
  id: string;
  takenAt: string;
  by: string;
}

/** What a client sends; the server makes the entry of it. */
export type EntryRequest = Common &
  (
    | {
        kind: 'result';
        step: string;
        measured: Measured;
        entered: 'stand-in' | 'typed' | 'pasted';
        instrument: Instrument;
        remark?: string;
      }
    | { kind: 'acceptance'; check: string; reason: string }
    | {
        kind: 'position';
        linksOut: number;
        serviceDisconnect: 'out' | 'in';
        mains: 'open' | 'closed';
        remark?: string;
      }
    | { kind: 'work'; what: string; subjects: string[] }
    | { kind: 'correction'; of: number; reason: string }
  );

type Judged = Pick<Draft, 'body'> & Partial<Pick<Draft, 'subjects' | 'basis' | 'instrument'>>;

/**
 * Makes an entry from a request, against the design as it is saved: expectation, verdict and basis are the
 * server's own.
 */
export function judgeRequest(request: EntryRequest, job: Job, entries: Entry[]): Draft {
  const { id, takenAt, by } = request;
  const judged = judgeKind(request, job, entries);
  return {
    id,
    takenAt,
    by,
    zone: job.design.settings.zone ?? 'UTC',
    witness: null,
    subjects: [],
    basis: [],
    instrument: null,
    attachments: [],
    ...judged,
  };
}

function judgeKind(request: EntryRequest, job: Job, entries: Entry[]): Judged {
  switch (request.kind) {
    case 'result':
      return judgeResult(request, job, entries);
    case 'acceptance':
      return judgeAcceptance(request, job);
    case 'position': {
      const { linksOut, serviceDisconnect, mains, remark } = request;
      const body: EntryBody = {
        kind: 'position',
        linksOut,
        serviceDisconnect,
        mains,
        ...(remark !== undefined && { remark }),
      };
      return { body };
    }
    case 'work': {
      const known = subjectsOf(job);
      const subjects = request.subjects.map((id, i) => {
        const subject = known.get(id);
        if (subject === undefined)
          throw invalidInput([{ path: `subjects.${i}`, message: 'is nothing in this design' }]);
        return subject;
      });
      return { subjects, body: { kind: 'work', what: request.what } };
    }
    case 'correction': {
      const target = entries.find(({ seq }) => seq === request.of);
      if (target === undefined) throw invalidInput([{ path: 'of', message: 'is no entry of this job' }]);
      return {
        subjects: target.subjects,
        body: { kind: 'correction', of: request.of, reason: request.reason },
      };
    }
  }
}

function judgeResult(request: Extract<EntryRequest, { kind: 'result' }>, job: Job, entries: Entry[]): Judged {
  const { evaluation, procedure } = evaluated(job);
  const step = procedure.find(({ id }) => id === request.step);
  if (step === undefined)
    throw invalidInput([{ path: 'step', message: 'is no step of this design’s procedure' }]);
  refuseClosedGate(step, assess(evaluation, procedure, entries));
  if (step.expected === null) {
    throw new HttpError(
      409,
      'not-computed',
      'the expectation of this step is not computed; fill its gaps first',
    );
  }
  const judged = judgeMeasurement(step.expected, request.measured);
  if (!judged.ok) throw invalidInput([{ path: 'measured', message: judged.message }]);
  const { verdict, reasons, details } = judged.judgement;
  const body: EntryBody = {
    kind: 'result',
    step: step.id,
    title: step.title,
    entered: request.instrument.standIn ? 'stand-in' : request.entered,
    measured: request.measured,
    expected: step.expectedText,
    verdict,
    reasons,
    details,
    ...(request.remark !== undefined && { remark: request.remark }),
  };
  return { subjects: step.subjects, basis: step.basis, instrument: request.instrument, body };
}

function refuseClosedGate(step: ProcedureStep, { gates }: ReturnType<typeof assess>): void {
  const gate = gates.find(({ id }) => id === step.gate);
  if (gate === undefined || gate.open) return;
  throw new HttpError(
    409,
    'gate-closed',
    `the gate “${gate.title}” is closed: it waits for ${gate.waitsFor.join(' and ')}`,
  );
}

function judgeAcceptance(request: Extract<EntryRequest, { kind: 'acceptance' }>, job: Job): Judged {
  const check = evaluated(job).evaluation.checks.find(
    (one): one is RaisedCheck => one.key === request.check && one.state === 'raised',
  );
  if (check === undefined)
    throw new HttpError(409, 'not-raised', 'this finding is not raised now: there is nothing to accept');
  const { rule, grade, message, values, subjects } = check;
  const names = subjectsOf(job);
  return {
    subjects: subjects.map((id) => names.get(id) ?? { id, tag: id }),
    body: {
      kind: 'acceptance',
      check: check.key,
      rule: rule.id,
      ruleVersion: rule.version,
      grade,
      message,
      values,
      reason: request.reason,
    },
  };
}

/** Everything in a design that has a tag, by id. */
function subjectsOf({ design }: Job): Map<string, { id: string; tag: string }> {
  const { modules, boxes, strings, devices, circuits } = design;
  const tagged = Object.entries<{ tag: string }>({
    ...modules,
    ...boxes,
    ...strings,
    ...devices,
    ...circuits,
  });
  const fixed: [string, string][] = [
    ['pack', 'pack'],
    ['bus', 'bus'],
    ['vehicle', 'vehicle'],
  ];
  return new Map(
    [...tagged.map(([id, { tag }]): [string, string] => [id, tag]), ...fixed].map(([id, tag]) => [
      id,
      { id, tag },
    ]),
  );
}
