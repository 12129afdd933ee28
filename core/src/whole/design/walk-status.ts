import type { ProcedureStep, StepWalk } from '../commissioning';
import { entryTitle, type Entry, type EntryBody } from '../../record';
import type { StepStatus } from './assess';

/** How far walks have come along the joints or bodies of a step. */
export interface Walked {
  of: number;
  /** Read last, and as expected. */
  done: number;
  /** Names of those that read otherwise. */
  bad: string[];
  /** Names of those that were worked on since. */
  again: string[];
  /** The last walk that counts, by the number of its entry. */
  last: number | null;
}

/** Whether work on a thing makes a step due again. */
export const touches = ({ subjects, touchedBy = [] }: ProcedureStep, id: string): boolean =>
  subjects.some((subject) => subject.id === id) || touchedBy.includes(id);

export const isWork = ({ kind }: EntryBody): boolean =>
  kind === 'work' || kind === 'deviation' || kind === 'levelled';
/** A thing was put into a place, or taken out: whatever was read of the place before is of another make. */
export const opensPlace = ({ kind }: EntryBody): boolean => kind === 'fit' || kind === 'remove';
/** A part was exchanged for another one. */
export const isExchange = (body: EntryBody): boolean => body.kind === 'part-fitted' && body.exchanged;

/** What was done to it, in words. */
export const workText = ({ body }: Entry): string =>
  body.kind === 'work' ? body.what : body.kind === 'deviation' ? body.tried : entryTitle(body);

/** A step whose joints or bodies are read along walks: passed when each was read as expected and none was touched since. */
export function walkStatus(
  step: ProcedureStep,
  walk: StepWalk,
  walks: readonly Entry[],
  works: readonly Entry[],
): StepStatus {
  const readings = lastReadings(walk, walks);
  const { expected } = step;
  const least = expected?.kind === 'range' ? (expected.min ?? -Infinity) : Infinity;
  const most = expected?.kind === 'range' ? (expected.max ?? Infinity) : -Infinity;
  const bad: string[] = [];
  const again: string[] = [];
  let [done, workSince, last, standIn]: [number, string | null, number | null, boolean] = [
    0,
    null,
    null,
    false,
  ];
  for (const { id, tag } of walk.items) {
    const reading = readings.get(id);
    if (reading === undefined) continue;
    last = Math.max(last ?? 0, reading.seq);
    const work = workOn(id, step, reading.seq, works);
    if (work !== undefined) {
      again.push(tag);
      workSince = workText(work);
    } else if (inside(reading.value, least, most, walk) && reading.currentA >= (walk.leastA ?? 0)) {
      done += 1;
      standIn ||= reading.standIn;
    } else bad.push(tag);
  }
  const state =
    expected === null
      ? 'due'
      : bad.length > 0
        ? 'failed'
        : again.length > 0
          ? 'stale'
          : done === walk.items.length
            ? 'passed'
            : 'due';
  const walked = { of: walk.items.length, done, bad, again, last };
  return {
    step,
    entry: null,
    state,
    moved: [],
    workSince,
    wouldStillPass: null,
    standIn,
    onBench: null,
    walked,
  };
}

/** A bond is asked to lie below its limit, a torque within its own. */
const inside = (value: number, least: number, most: number, { work }: StepWalk) =>
  work === 'bond' ? value < most : value >= least * (1 - 1e-9) && value <= most * (1 + 1e-9);

interface Reading {
  value: number;
  currentA: number;
  seq: number;
  standIn: boolean;
}

/** What was read last of each joint or body, in the order of the times. */
function lastReadings({ work }: StepWalk, entries: readonly Entry[]): Map<string, Reading> {
  const readings = new Map<string, Reading>();
  if (work === 'cut') {
    for (const { body, seq } of entries)
      if (body.kind === 'cable-cut')
        readings.set(body.place, { value: body.lengthM, currentA: 0, seq, standIn: false });
    return readings;
  }
  const walks = entries
    .flatMap((entry) =>
      entry.body.kind === 'joints' && entry.body.work === work ? [{ entry, body: entry.body }] : [],
    )
    .sort((a, b) => Date.parse(a.entry.takenAt) - Date.parse(b.entry.takenAt) || a.entry.seq - b.entry.seq);
  for (const { entry, body } of walks)
    for (const { joint, value } of body.joints) {
      const currentA = Math.abs(body.currentA ?? 0);
      readings.set(joint, {
        value: work === 'torque' ? value : currentA > 0 ? Math.abs(value) / currentA : Infinity,
        currentA,
        seq: entry.seq,
        standIn: entry.instrument?.standIn === true,
      });
    }
  return readings;
}

/** A joint is named after its owner; a length stands at it. */
const ownerOf = (id: string) => (id.startsWith('runs.') ? id.split('.')[1] : id.split('/')[0]);

/** Work on what a joint or body belongs to, or on the step as a whole, after it was read. */
const workOn = (id: string, { subjects }: ProcedureStep, seq: number, works: readonly Entry[]) =>
  works.findLast(
    (entry) =>
      entry.seq > seq &&
      entry.subjects.some(
        (subject) => subject.id === ownerOf(id) || subjects.some((own) => own.id === subject.id),
      ),
  );
