import { standInReading } from '@torvek/core/commissioning';
import { edit, type Design } from '@torvek/core/document';
import type { Entry } from '@torvek/core/record';
import { libraryBus } from '../../../demo/library-bus';
import type { DemoJob, StoryEntry, StoryLine } from '../../../demo/story';
import type { Clock } from '../clock';
import type { Database } from '../database';
import { judgeRequest, type EntryRequest } from '../entries/judge';
import { evaluated } from '../jobs/evaluated';
import type { Job } from '../jobs/jobs';
import { openRooms, type Rooms } from '../rooms';

/** A clock that stands where the story is. */
class StoryClock implements Clock {
  at = '2026-10-26T08:00:00.000Z';
  now(): string {
    return this.at;
  }
}

const demoJobs = [libraryBus];

/** True for an empty data folder, and for one in which telling the story was interrupted. */
export async function demoIsDue({ jobs }: Rooms): Promise<boolean> {
  const there = await jobs.list();
  if (there.length === 0) return true;
  return demoJobs.some(({ id, story }) => {
    const job = there.find((one) => one.id === id);
    return job !== undefined && job.version + job.entries < story.length;
  });
}

/**
 * Fills a data folder with the demo jobs by the same ways a person's work takes: changes are saved and entries
 * judged, in the order of the story and at its times. What was told already is not told again: ids are fixed.
 */
export async function seedDemo(database: Database, dataFolder: string): Promise<void> {
  for (const demo of demoJobs) await tell(demo, database, dataFolder);
}

async function tell(demo: DemoJob, database: Database, dataFolder: string): Promise<void> {
  const clock = new StoryClock();
  const rooms = openRooms(database, dataFolder, clock);
  await rooms.jobs.create(demo.id, demo.name, demo.design, true);
  for (const [i, line] of demo.story.entries()) {
    clock.at = new Date(line.at).toISOString();
    const id = `${demo.id}-${i + 1}`;
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
  if ((await rooms.changes.list(jobId)).some((saved) => saved.id === id)) return;
  const edited = edit(job.design, (draft) => line.change(draft as Design));
  if (edited === null) throw new Error(`the demo's change “${line.label}” changes nothing`);
  const { forward, inverse } = edited;
  await rooms.changes.save(jobId, {
    id,
    base: job.version,
    label: line.label,
    by: line.by,
    at: line.at,
    forward,
    inverse,
  });
}

async function record(
  rooms: Rooms,
  jobId: string,
  id: string,
  { at, by }: StoryLine,
  entry: StoryEntry,
): Promise<void> {
  await rooms.ledger.append(jobId, id, (job, entries) =>
    judgeRequest({ id, takenAt: at, by, ...requestOf(entry, job, entries) }, job, entries),
  );
}

type Body = EntryRequest extends infer Request
  ? Request extends unknown
    ? Omit<Request, 'id' | 'takenAt' | 'by'>
    : never
  : never;

function requestOf(entry: StoryEntry, job: Job, entries: Entry[]): Body {
  switch (entry.kind) {
    case 'result': {
      const { value, ...rest } = entry;
      return { ...rest, entered: 'typed', measured: { kind: 'value', value, unit: unitOf(entry.step, job) } };
    }
    case 'rise': {
      const { evaluation, procedure } = evaluated(job);
      const step = procedure.find(({ id }) => id === entry.step)!;
      const measured = standInReading(step, job.design, evaluation, 'true', entry.seed);
      if (measured === null) throw new Error(`the demo's ${entry.step} has no expectation`);
      return { kind: 'result', step: entry.step, entered: 'pasted', measured, instrument: entry.instrument };
    }
    case 'correction':
      return { kind: 'correction', of: entries.length, reason: entry.reason };
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
