import { list, number, oneOf, orNull, record, text } from '../../ground/calculator';
import { defineKind } from '../kind';
import { words } from '../shapes';

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
      }),
      { minRows: 1, maxRows: 1000 },
    ),
  },
  stands: 'always',
  title: ({ items }) => `${many(items.length)} arrived`,
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
