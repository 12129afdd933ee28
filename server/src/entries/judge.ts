import { judgeMeasurement, gates, openingOf, type ProcedureStep } from '@torvek/core/commissioning';
import { assess, recordChecks } from '@torvek/core/design';
import type { Library } from '@torvek/core/library';
import type { RaisedCheck } from '@torvek/core/figure';
import { dayIn, mayDo, type Entry, type EntryBody, type Instrument, type Person } from '@torvek/core/record';
import type { Files } from '../files/files';
import { HttpError, invalidInput } from '../http/errors';
import type { Instruments } from '../instruments/instruments';
import { evaluated } from '../jobs/evaluated';
import type { Job } from '../jobs/jobs';
import type { LibraryParts } from '../library/parts';
import type { Witness } from '../people/people';
import { judgeBalance, judgeCellVoltages } from './judge-balance';
import { judgeJoints } from './judge-joints';
import { judgePosition } from './judge-position';
import type { Bench, Draft } from './ledger';
import type { EntryRequest } from './request';

type Judged = Pick<Draft, 'body'> & Partial<Pick<Draft, 'subjects' | 'basis' | 'instrument' | 'witness'>>;

/** Who records, when, and whom and what the judge may ask. */
export interface Court {
  /** Whoever is signed in: their name stands in the entry. */
  by: Pick<Person, 'id' | 'name' | 'roles'>;
  /** The server's time. */
  now: string;
  /** The second person, whose word was checked; null: none was given. */
  witness: Witness | null;
  instruments: Pick<Instruments, 'forEntry'>;
  files: Pick<Files, 'check'>;
  library: Pick<LibraryParts, 'library'>;
}

type Case<Kind extends EntryRequest['kind']> = {
  request: Extract<EntryRequest, { kind: Kind }>;
  bench: Bench;
  court: Court;
};

/**
 * Makes an entry from a request, against the design as it is saved: expectation, verdict and basis are the
 * server's own.
 */
export async function judgeRequest(request: EntryRequest, bench: Bench, court: Court): Promise<Draft> {
  const { id, takenAt, attachments = [] } = request;
  await court.files.check(bench.job.id, attachments, bench.db);
  const judged = await judgeKind(request, bench, court);
  return {
    id,
    takenAt,
    by: court.by.name,
    zone: zoneOf(bench.job),
    witness: null,
    subjects: [],
    basis: [],
    instrument: null,
    attachments,
    ...judged,
  };
}

const zoneOf = ({ design }: Job) => design.settings.zone ?? 'UTC';

async function judgeKind(request: EntryRequest, bench: Bench, court: Court): Promise<Judged> {
  switch (request.kind) {
    case 'result':
      return judgeResult({ request, bench, court });
    case 'acceptance':
      if (!mayDo(court.by.roles, 'designer'))
        throw new HttpError(403, 'role-too-low', 'accepting a finding asks for the role designer');
      return judgeAcceptance(request, bench, await court.library.library(bench.db), court.now);
    case 'position':
      return { body: judgePosition(request, bench) };
    case 'work':
      return {
        subjects: namedSubjects(bench.job, request.subjects),
        body: { kind: 'work', what: request.what },
      };
    case 'correction': {
      const target = await bench.at(request.of);
      if (target === null) throw invalidInput([{ path: 'of', message: 'is no entry of this job' }]);
      return {
        subjects: target.subjects,
        body: { kind: 'correction', of: request.of, reason: request.reason },
      };
    }
    case 'gate':
      return judgeGate({ request, bench, court });
    case 'deviation':
      return judgeDeviation({ request, bench, court });
    case 'snag': {
      const { what, gate } = request;
      return { subjects: namedSubjects(bench.job, request.subjects), body: { kind: 'snag', what, gate } };
    }
    case 'snag-gone':
      return judgeSnagGone({ request, bench, court });
    case 'intake': {
      const { module, serial, look, remark } = request;
      if (!Object.hasOwn(bench.job.design.modules, module))
        throw invalidInput([{ path: 'module', message: 'is no module of this design' }]);
      return {
        subjects: namedSubjects(bench.job, [module]),
        body: {
          kind: 'intake',
          serial: serial ?? null,
          look: look ?? null,
          ...(remark !== undefined && { remark }),
        },
      };
    }
    case 'cell-voltages': {
      const { job, db } = bench;
      const { instrument: asked, takenAt } = request;
      const instrument =
        'id' in asked
          ? await court.instruments.forEntry(asked.id, 'meter', dayIn(takenAt, zoneOf(job)), db)
          : asked;
      return { ...judgeCellVoltages(request, bench), instrument };
    }
    case 'balance':
      return judgeBalance(request, bench);
    case 'joints': {
      const { job, db } = bench;
      const { instrument: asked, takenAt, work } = request;
      const kind = work === 'torque' ? 'torque-wrench' : 'meter';
      const instrument =
        'id' in asked
          ? await court.instruments.forEntry(asked.id, kind, dayIn(takenAt, zoneOf(job)), db)
          : asked;
      const { body, owners } = judgeJoints(request, job);
      return { body, subjects: namedSubjects(job, owners), instrument };
    }
    case 'note':
      return {
        subjects: namedSubjects(bench.job, request.subjects ?? []),
        body: { kind: 'note', text: request.text },
      };
  }
}

function namedSubjects(job: Job, ids: string[]): { id: string; tag: string }[] {
  const known = subjectsOf(job);
  return ids.map((id, i) => {
    const subject = known.get(id);
    if (subject === undefined)
      throw invalidInput([{ path: `subjects.${i}`, message: 'is nothing in this design' }]);
    return subject;
  });
}

/** Opens an HV gate: by a second person with their own password, or alone with what replaces them. */
async function judgeGate({ request, bench, court }: Case<'gate'>): Promise<Judged> {
  const { id, title, hv } = gates.find((gate) => gate.id === request.gate)!;
  if (!hv)
    throw invalidInput([
      { path: 'gate', message: 'asks for no second person: nothing there is at high voltage' },
    ]);
  const { evaluation, procedure } = evaluated(bench.job);
  refuseClosedGate(id, assess(evaluation, procedure, bench.entries, { practice: bench.job.demo }));
  const body = { kind: 'gate' as const, gate: id, title };
  if (request.alone !== undefined) return { body: { ...body, alone: request.alone } };
  const { name, passwordBy } = court.witness!;
  return {
    witness: name,
    body: { ...body, alone: null, ...(passwordBy !== null && { witnessPassword: passwordBy }) },
  };
}

function judgeDeviation({ request, bench }: Case<'deviation'>): Judged {
  const { of, tried, cause = null, cured } = request;
  const failed = bench.entries.find(({ seq }) => seq === of);
  if (failed?.body.kind !== 'result' || failed.body.verdict !== 'fail')
    throw invalidInput([{ path: 'of', message: 'is no failed result of this job that counts' }]);
  return {
    subjects: namedSubjects(bench.job, request.subjects),
    body: { kind: 'deviation', of, tried, cause, cured },
  };
}

function judgeSnagGone({ request: { of, how }, bench }: Case<'snag-gone'>): Judged {
  const snag = bench.entries.find(({ seq }) => seq === of);
  if (snag?.body.kind !== 'snag')
    throw invalidInput([{ path: 'of', message: 'is no snag of this job that counts' }]);
  if (bench.entries.some(({ body }) => body.kind === 'snag-gone' && body.of === of))
    throw new HttpError(409, 'already-gone', 'this snag is gone already');
  return { subjects: snag.subjects, body: { kind: 'snag-gone', of, how } };
}

async function judgeResult({ request, bench, court }: Case<'result'>): Promise<Judged> {
  const { evaluation, procedure } = evaluated(bench.job);
  const step = procedure.find(({ id }) => id === request.step);
  if (step === undefined)
    throw invalidInput([{ path: 'step', message: 'is no step of this design’s procedure' }]);
  if (step.walk !== undefined)
    throw new HttpError(409, 'by-walk', 'this step is recorded by walks along its joints or bodies');
  refuseClosedGate(step.gate, assess(evaluation, procedure, bench.entries, { practice: bench.job.demo }));
  const opening = openingFor(step, bench, court);
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
  const instrument = await instrumentFor(step, request, bench, court);
  const body: EntryBody = {
    kind: 'result',
    step: step.id,
    title: step.title,
    entered: instrument.standIn ? 'stand-in' : request.entered,
    measured: request.measured,
    expected: step.expectedText,
    verdict,
    reasons,
    details,
    ...(opening !== null && { confirmedBy: opening.seq }),
    ...(request.remark !== undefined && { remark: request.remark }),
  };
  const witness = opening?.witness ?? null;
  return { subjects: step.subjects, basis: step.basis, instrument, witness, body };
}

async function instrumentFor(
  step: ProcedureStep,
  { instrument, takenAt }: Case<'result'>['request'],
  { job, db }: Bench,
  { instruments }: Court,
): Promise<Instrument> {
  if (!('id' in instrument)) return instrument;
  return instruments.forEntry(instrument.id, step.instrument, dayIn(takenAt, zoneOf(job)), db);
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

function refuseClosedGate(id: string, { gates: statuses }: ReturnType<typeof assess>): void {
  const gate = statuses.find((one) => one.id === id);
  if (gate === undefined || gate.open) return;
  throw new HttpError(
    409,
    'gate-closed',
    `the gate “${gate.title}” is closed: it waits for ${gate.waitsFor.join('; ')}`,
  );
}

function judgeAcceptance(
  request: Extract<EntryRequest, { kind: 'acceptance' }>,
  { job, entries }: Bench,
  library: Library,
  now: string,
): Judged {
  const checks = [
    ...evaluated(job, library).evaluation.checks,
    ...recordChecks(job.design, entries, Date.parse(now)),
  ];
  const check = checks.find((one): one is RaisedCheck => one.key === request.check && one.state === 'raised');
  if (check === undefined)
    throw new HttpError(409, 'not-raised', 'this finding is not raised now: there is nothing to accept');
  const { rule, grade, message, values, parts, subjects } = check;
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
      parts,
      reason: request.reason,
    },
  };
}

/** Bodies that stand nowhere else in the design. */
const ownBodies = (bonds: Job['design']['bonds'] = {}) =>
  Object.fromEntries(
    Object.entries(bonds).flatMap(([id, { tag }]) => (tag === undefined ? [] : [[id, { tag }]])),
  );

/** Everything in a design that has a tag, by id. */
function subjectsOf({ design }: Job): Map<string, { id: string; tag: string }> {
  const { modules, boxes, strings, devices, circuits, joints, bonds, pack } = design;
  const tagged = Object.entries<{ tag: string }>({
    ...modules,
    ...boxes,
    ...strings,
    ...devices,
    ...circuits,
    ...joints,
    ...pack.busbars,
    ...ownBodies(bonds),
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
