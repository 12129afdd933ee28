import {
  canonicalText,
  entryOutcome,
  entryTitle,
  longestQuoted,
  mostQuoted,
  shopShelf,
  type Arrived,
  type Item,
  type Quotation,
} from '@torvek/core/record';
import { HttpError, invalidInput } from '../http/errors';
import type { Rooms } from '../rooms';
import type { Bench, Court, RecordedEntry } from './court';
import { blankDraft, judgeRequest } from './judge';
import type { EntryRequest } from './judges';
import { thingOf } from './things';

type SentRequest = Extract<EntryRequest, { kind: 'sent' }>;

/**
 * A thing leaves one job and arrives at another, in one turn: both entries, or none. What was recorded of it goes along as quotations,
 * each with the hash that it has in the chain of its job.
 *
 * @throws HttpError 422 for a job that is not here
 */
export async function sendThing(
  { ledger, jobs }: Pick<Rooms, 'ledger' | 'jobs'>,
  job: string,
  request: SentRequest,
  court: Court,
): Promise<RecordedEntry> {
  const { id, to } = request;
  if (to === job) throw invalidInput([{ path: 'to', message: 'is this job' }]);
  let row: Arrived | null = null;
  const [made] = await ledger.appendAcross(
    [
      {
        job,
        id,
        judge: async (bench) => {
          row = await asArrived(bench, thingOf(bench, request.item));
          return judgeRequest(request, bench, court);
        },
      },
      {
        job: to,
        id: `${id}-arrival`,
        judge: (bench) => {
          if (row === null) throw new HttpError(409, 'id-taken', 'this id is that of another entry');
          return {
            ...blankDraft({ id: `${id}-arrival`, takenAt: request.takenAt }, bench, court),
            body: { kind: 'arrival', items: [row] },
          };
        },
      },
    ],
    // The shelf is there as soon as something lies on it.
    async (turn) => {
      if (to === shopShelf.id) await jobs.ensureIn(turn, to, shopShelf.name, court.by.name);
    },
  );
  return made!;
}

/** A thing as it arrives elsewhere: what is left of a reel, and what is told of it, the latest stay where there is too much. */
async function asArrived(bench: Bench, item: Item): Promise<Arrived> {
  const own: Quotation[] = [];
  for (const seq of item.history) {
    const entry = await bench.at(seq);
    if (entry !== null) own.push(quotationOf(entry));
  }
  const { part, serial, donor, price, note, lengthM, cutM, sort, from } = item;
  return {
    part,
    serial,
    donor,
    price,
    note,
    ...(lengthM !== null && { lengthM: lengthM - cutM }),
    sort,
    from: {
      job: bench.job.id,
      jobName: bench.job.name,
      item: item.id,
      entries: [...(from?.entries ?? []), ...own].slice(-mostQuoted),
    },
  };
}

function quotationOf({ sha256, ...entry }: RecordedEntry): Quotation {
  const text = canonicalText(entry);
  const outcome = entryOutcome(entry);
  return {
    job: entry.job,
    seq: entry.seq,
    sha256,
    title: `${entryTitle(entry.body)}${outcome === '' ? '' : `: ${outcome}`}`.slice(0, 400),
    by: entry.by,
    takenAt: entry.takenAt,
    text: text.length > longestQuoted ? null : text,
  };
}
