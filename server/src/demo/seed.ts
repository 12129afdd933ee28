import { standInReading } from '@torvek/core/commissioning';
import { edit, type Design } from '@torvek/core/document';
import { deriveNetwork, stagesOf } from '@torvek/core/network';
import { openDoor } from '@torvek/core/shape';
import { sha256Of } from '../journal/lines';
import { libraryBus } from '../../../demo/library-bus';
import { orchardTruck } from '../../../demo/orchard-truck';
import { shopInstruments, shopPassword, shopPeople } from '../../../demo/shop';
import type { DemoJob, StoryEntry, StoryLine } from '../../../demo/story';
import type { Clock } from '../clock';
import type { Bench, Court } from '../entries/court';
import { judgeRequest } from '../entries/judge';
import type { EntryRequest } from '../entries/judges';
import { entryDoor } from '../entries/request';
import { evaluated } from '../jobs/evaluated';
import type { Job } from '../jobs/jobs';
import { openRooms, type Rooms } from '../rooms';
import type { Store } from '../store';

/** A clock that stands where the story is. */
class StoryClock implements Clock {
  at = '2026-10-26T08:00:00.000Z';
  now(): string {
    return this.at;
  }
}

/** Who furnished the shop, as its acts say. */
const keeper = shopPeople.find(({ roles }) => roles.includes('owner'))!.name;

const demoJobs = [libraryBus, orchardTruck];

/**
 * Names one telling of a story: a data folder that holds another one keeps it, for its ids stand for other lines. What
 * the lines say may differ by the day; what they are does not.
 */
const editionOf = (lines: readonly StoryLine[]) =>
  sha256Of(lines.map((line) => ('entry' in line ? line.entry.kind : line.label)).join('\n')).slice(0, 8);
const lineId = ({ id }: DemoJob, lines: readonly StoryLine[], i: number) =>
  `${id}-${editionOf(lines)}-${i + 1}`;

/** Whether telling this job’s story was interrupted: it is there, told up to some line of this very edition. */
async function isInterrupted(demo: DemoJob, { jobs, ledger }: Rooms): Promise<boolean> {
  const job = (await jobs.list()).find(({ id }) => id === demo.id);
  if (job === undefined) return false;
  const lines = demo.story(new Date());
  if (job.version + job.entries >= lines.length) return false;
  const [first] = (await ledger.page(demo.id, { before: 2, limit: 1, kind: null, subject: null })).entries;
  return first === undefined ? job.version === 0 : first.id === lineId(demo, lines, 0);
}

/** True for an empty data folder, and for one in which telling the story was interrupted. */
export async function demoIsDue(rooms: Rooms): Promise<boolean> {
  if ((await rooms.jobs.list()).length === 0) return true;
  for (const demo of demoJobs) if (await isInterrupted(demo, rooms)) return true;
  return false;
}

/**
 * Fills a data folder with the demo jobs by the same ways a person's work takes: changes are saved and entries
 * judged, in the order of the story and at its times. What was told already is not told again: ids are fixed.
 */
export async function seedDemo(store: Store): Promise<void> {
  await furnish(openRooms(store, { clock: new StoryClock(), demoMode: true }));
  for (const demo of demoJobs) await tell(demo, store);
}

/** The people and instruments of the demo shop, unless they are there. */
async function furnish({ people, instruments }: Rooms): Promise<void> {
  const there = new Set((await people.list()).map(({ id }) => id));
  for (const person of shopPeople)
    if (!there.has(person.id)) await people.create({ ...person, password: shopPassword }, keeper, true);
  for (const instrument of shopInstruments) await instruments.create(instrument, keeper);
}

async function tell(demo: DemoJob, store: Store): Promise<void> {
  const clock = new StoryClock();
  const rooms = openRooms(store, { clock, demoMode: true });
  const isThere = (await rooms.jobs.list()).some(({ id }) => id === demo.id);
  if (isThere && !(await isInterrupted(demo, rooms))) return;
  if (!isThere) await rooms.jobs.create(demo.id, demo.name, keeper, { design: demo.design, demo: true });
  const lines = demo.story(new Date());
  for (const [i, line] of lines.entries()) {
    clock.at = new Date(line.at).toISOString();
    const id = lineId(demo, lines, i);
    if ('entry' in line) await record(rooms, demo.id, id, line, line.entry);
    else await change(rooms, demo.id, id, line);
  }
}

async function change(
  rooms: Rooms,
  jobId: string,
  id: string,
  line: Extract<StoryLine, { change: unknown }>,
): Promise<void> {
  const job = await rooms.jobs.get(jobId);
  if ((await rooms.changes.known(jobId, id)) !== null) return;
  const edited = edit(job.design, (draft) => line.change(draft as Design));
  if (edited === null) throw new Error(`the demo's change “${line.label}” changes nothing`);
  const { forward, inverse } = edited;
  const made = { id, base: job.version, label: line.label, at: line.at, forward, inverse };
  await rooms.changes.save(jobId, made, line.by);
}

async function record(
  rooms: Rooms,
  jobId: string,
  id: string,
  { at, by }: StoryLine,
  entry: StoryEntry,
): Promise<void> {
  const person = shopPeople.find(({ name }) => name === by);
  if (person === undefined) throw new Error(`the demo knows nobody called ${by}`);
  const court: Court = {
    by: person,
    now: at,
    instruments: rooms.instruments,
    files: rooms.files,
    library: rooms.library,
    // The story's witnesses gave their word at its time.
    witness:
      entry.kind === 'gate' && entry.witness !== undefined ? { name: entry.witness, passwordBy: null } : null,
  };
  await rooms.ledger.append(jobId, id, (bench) => {
    const request = { id, takenAt: at, ...requestOf(entry, bench) };
    // What nobody could send is not told either; a witness of the story types no password.
    const sent = openDoor(request, entryDoor);
    if (!sent.ok && entry.kind !== 'gate') {
      const [{ path, message } = { path: '', message: '' }] = sent.issues;
      throw new Error(`the demo’s entry ${id}: ${path} ${message}`);
    }
    return judgeRequest(request, bench, court);
  });
}

type Body = EntryRequest extends infer Request
  ? Request extends unknown
    ? Omit<Request, 'id' | 'takenAt' | 'attachments'>
    : never
  : never;

function requestOf(entry: StoryEntry, { job, entries }: Bench): Body {
  switch (entry.kind) {
    case 'result': {
      const { value, ...rest } = entry;
      return { ...rest, entered: 'typed', measured: { kind: 'value', value, unit: unitOf(entry.step, job) } };
    }
    case 'ladder': {
      const { taps, ...rest } = entry;
      return { ...rest, kind: 'result', entered: 'typed', measured: { kind: 'ladder', taps, unit: 'V' } };
    }
    case 'list': {
      const { values, unit, ...rest } = entry;
      return { ...rest, kind: 'result', entered: 'typed', measured: { kind: 'list', values, unit } };
    }
    case 'hold': {
      const { from, to, minutes, ...rest } = entry;
      const measured = {
        kind: 'hold' as const,
        startKPaGauge: from[0],
        startC: from[1],
        endKPaGauge: to[0],
        endC: to[1],
        minutes,
        unit: 'kPa' as const,
      };
      return { ...rest, kind: 'result', entered: 'typed', measured };
    }
    case 'rise': {
      const { evaluation, procedure } = evaluated(job);
      const step = procedure.find(({ id }) => id === entry.step)!;
      const measured = standInReading(step, job.design, evaluation, 'true', entry.seed);
      if (measured === null) throw new Error(`the demo's ${entry.step} has no expectation`);
      return { kind: 'result', step: entry.step, entered: 'pasted', measured, instrument: entry.instrument };
    }
    case 'correction':
      return { kind: 'correction', of: entries.at(-1)!.seq, reason: entry.reason };
    case 'position': {
      const { stage, ...rest } = entry;
      const found = stagesOf(job.design, deriveNetwork(job.design)).find(({ id }) => id === stage);
      if (found === undefined)
        throw new Error(`the demo stands at ${stage}, which its network does not have`);
      return { ...rest, open: found.open };
    }
    case 'gate':
      return entry.witness === undefined
        ? { kind: 'gate', gate: entry.gate, alone: entry.alone }
        : { kind: 'gate', gate: entry.gate, witness: { name: entry.witness, password: '' } };
    case 'deviation': {
      const { ofStep, ...rest } = entry;
      const failed = entries.findLast(
        ({ body }) => body.kind === 'result' && body.step === ofStep && body.verdict === 'fail',
      );
      if (failed === undefined) throw new Error(`the demo's ${ofStep} has not failed`);
      return { ...rest, of: failed.seq };
    }
    case 'acceptance': {
      const check = evaluated(job).evaluation.checks.find(
        ({ rule, state }) => rule.id === entry.rule && state === 'raised',
      );
      if (check === undefined) throw new Error(`the demo accepts ${entry.rule}, which is not raised`);
      return { kind: 'acceptance', check: check.key, reason: entry.reason };
    }
    default:
      return entry;
  }
}

function unitOf(stepId: string, job: Job): string {
  const step = evaluated(job).procedure.find(({ id }) => id === stepId);
  if (step?.expected == null) throw new Error(`the demo measures ${stepId}, which is not expected`);
  return step.expected.unit;
}
