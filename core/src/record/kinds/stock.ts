import { list, number, oneOf, orNull, record, text } from '../../ground/shape';
import { defineKind } from '../kind';
import { hash, seq, words } from '../shapes';

/** What is thought of a thing. Where it is follows from what happened to it. */
export const itemStates = ['untested', 'good', 'suspect', 'rejected', 'retired'] as const;
export type ItemState = (typeof itemStates)[number];

/** A thing as it arrives. */
export interface Arrived {
  /** Key of the part it is; null: not known. */
  part: string | null;
  serial: string | null;
  donor: string | null;
  price: number | null;
  note: string | null;
  /** Of a reel of cable, m; absent: it is none. */
  lengthM?: number;
  /** What kind of part it is, `device` or `box` for what the library does not have; absent: a module, or a reel. */
  sort?: string;
  /** The job it comes from, with what was recorded of it there. */
  from?: Quoted;
}

/** What another job’s record tells of a thing: each entry with its hash, so that it can be held against that record. */
export interface Quoted {
  job: string;
  jobName: string;
  /** Its id there. */
  item: string;
  entries: Quotation[];
}

export interface Quotation {
  /** The job in whose chain it stands: a thing may have come through several. */
  job: string;
  seq: number;
  sha256: string;
  /** In one line, with how it came out. */
  title: string;
  by: string;
  takenAt: string;
  /** The canonical text that the hash is of; null: too long to go along. */
  text: string | null;
}

/** Things that arrived together, in a crate: each gets its id by the number of this entry and its row. */
export interface ArrivalBody {
  kind: 'arrival';
  items: Arrived[];
}

/** A thing goes into a place. What was there before goes onto the shelf: then it is a swap. */
export interface FitBody {
  kind: 'fit';
  place: string;
  item: string;
  serial: string | null;
  former: string | null;
  formerSerial: string | null;
  reason: string;
}

/** A thing is taken out of its place. */
export interface RemoveBody {
  kind: 'remove';
  place: string;
  item: string;
  serial: string | null;
  state: ItemState;
  reason: string;
}

/** What is thought of a thing from now on, and why. */
export interface ItemStateBody {
  kind: 'item-state';
  item: string;
  serial: string | null;
  state: ItemState;
  reason: string;
}

/** A thing goes to another job, or onto the shelf of the shop: here it is no more. */
export interface SentBody {
  kind: 'sent';
  item: string;
  serial: string | null;
  to: string;
  toName: string;
  reason: string;
}

/** Longer texts stay where they are: their hash and title go along. */
export const longestQuoted = 12_000;
export const mostQuoted = 200;

const named = (serial: string | null, item: string) => serial ?? item;
const many = (count: number) => (count === 1 ? 'One thing' : `${count} things`);

export const arrival = defineKind<ArrivalBody>({
  kind: 'arrival',
  many: 'arrivals',
  fields: {
    items: list(
      record({
        part: orNull(text(120)),
        serial: orNull(words(80)),
        donor: orNull(words(200)),
        price: orNull(number()),
        note: orNull(words(400)),
        lengthM: number.optional({ above: 0, max: 10_000 }),
        sort: text.optional(40),
        from: record.optional({
          job: text(80),
          jobName: words(120),
          item: text(160),
          entries: list(
            record({
              job: text(80),
              seq,
              sha256: hash,
              title: words(400),
              by: words(200),
              takenAt: text(40),
              text: orNull(text(longestQuoted)),
            }),
            { maxRows: mostQuoted },
          ),
        }),
      }),
      { minRows: 1, maxRows: 1000 },
    ),
  },
  stands: 'always',
  title: ({ items }) =>
    `${many(items.length)} arrived${items[0]?.from === undefined ? '' : ` from ${items[0].from.jobName}`}`,
});

export const fit = defineKind<FitBody>({
  kind: 'fit',
  many: 'fitted and swapped',
  fields: {
    place: text(160),
    item: text(160),
    serial: orNull(words(80)),
    former: orNull(text(160)),
    formerSerial: orNull(words(80)),
    reason: words(2000),
  },
  stands: 'always',
  title: ({ item, serial, former, formerSerial }) =>
    former === null
      ? `${named(serial, item)} fitted`
      : `${named(formerSerial, former)} swapped for ${named(serial, item)}`,
  outcome: ({ reason }) => reason,
});

export const remove = defineKind<RemoveBody>({
  kind: 'remove',
  many: 'taken out',
  fields: {
    place: text(160),
    item: text(160),
    serial: orNull(words(80)),
    state: oneOf(itemStates),
    reason: words(2000),
  },
  stands: 'always',
  title: ({ item, serial }) => `${named(serial, item)} taken out`,
  outcome: ({ state, reason }) => `${state}${reason === '' ? '' : `: ${reason}`}`,
});

export const itemState = defineKind<ItemStateBody>({
  kind: 'item-state',
  many: 'states of things',
  fields: {
    item: text(160),
    serial: orNull(words(80)),
    state: oneOf(itemStates),
    reason: words(2000),
  },
  stands: 'always',
  title: ({ item, serial, state }) => `${named(serial, item)} is ${state}`,
  outcome: ({ reason }) => reason,
});

export const sent = defineKind<SentBody>({
  kind: 'sent',
  many: 'sent to other jobs',
  fields: {
    item: text(160),
    serial: orNull(words(80)),
    to: text(80),
    toName: words(120),
    reason: words(2000),
  },
  stands: 'always',
  title: ({ item, serial, toName }) => `${named(serial, item)} sent to ${toName}`,
  outcome: ({ reason }) => reason,
});
