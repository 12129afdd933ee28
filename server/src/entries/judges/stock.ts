import { list, number, oneOf, record, text } from '@torvek/core/shape';
import { partPlaces } from '@torvek/core/document';
import { partKinds } from '@torvek/core/parts';
import { isModule, itemStates, type ItemState } from '@torvek/core/record';
import { HttpError, invalidInput } from '../../http/errors';
import { defineJudge, type Bench } from '../court';
import { holders, namedSubjects, type Subjects } from '../subjects';
import { stockAt, thingName, thingOf } from '../things';

export interface ArrivalRequest {
  kind: 'arrival';
  items: {
    part?: string;
    serial?: string;
    donor?: string;
    price?: number;
    note?: string;
    lengthM?: number;
    /** What it is where no part is named: a device or a box; absent: a module. */
    sort?: string;
  }[];
}
export interface FitRequest {
  kind: 'fit';
  item: string;
  place: string;
  reason?: string;
}
export interface RemoveRequest {
  kind: 'remove';
  item: string;
  state: ItemState;
  reason?: string;
}
export interface ItemStateRequest {
  kind: 'item-state';
  item: string;
  state: ItemState;
  reason?: string;
}

export interface SentRequest {
  kind: 'sent';
  item: string;
  /** Another job; the shelf of the shop is made when something is to lie on it. */
  to: string;
  reason?: string;
}

const reason = text.optional(2000);

/** Things that arrive: a serial is one thing’s alone. */
export const arrival = defineJudge<ArrivalRequest>({
  fields: {
    items: list(
      record({
        part: text.optional(120),
        serial: text.optional(80),
        donor: text.optional(200),
        price: number.optional({ min: 0 }),
        note: text.optional(400),
        lengthM: number.optional({ above: 0, max: 10_000 }),
        sort: oneOf.optional([...partKinds, 'device', 'box']),
      }),
      { minRows: 1, maxRows: 1000 },
    ),
  },
  async judge({ request: { items }, bench, court }) {
    const library = await court.library.library(bench.db);
    // A serial number is its maker’s: a fuse and a module may have the same.
    const key = (sort: string, serial: string) => `${sort} ${serial}`;
    const known = new Set(
      [...stockAt(bench).items.values()].flatMap(({ serial, sort, sentTo }) =>
        serial === null || sentTo !== null ? [] : [key(sort, serial)],
      ),
    );
    const sorts: (string | undefined)[] = [];
    const issues = items.flatMap(({ part, serial, sort: asked }, i) => {
      const at = `items.${i}`;
      const found = part === undefined ? null : (bench.job.design.parts[part] ?? library.find(part));
      sorts.push(found?.kind ?? asked);
      const own = key(found?.kind ?? asked ?? 'module', serial ?? '');
      const twice = serial !== undefined && known.has(own);
      if (serial !== undefined) known.add(own);
      return [
        ...(found != null && asked !== undefined && asked !== found.kind
          ? [{ path: `${at}.sort`, message: `is not that of its part, a ${found.kind}` }]
          : []),
        ...(items[i]!.lengthM !== undefined && found?.kind !== 'cable' && found?.kind !== 'hose'
          ? [{ path: `${at}.lengthM`, message: 'is of a reel: its part must be a cable or a hose' }]
          : []),
        ...(found === undefined
          ? [{ path: `${at}.part`, message: 'is no part of the design or the library' }]
          : []),
        ...(twice ? [{ path: `${at}.serial`, message: 'is here already' }] : []),
      ];
    });
    if (issues.length > 0) throw invalidInput(issues);
    return {
      body: {
        kind: 'arrival',
        items: items.map(({ part, serial, donor, price, note, lengthM }, i) => ({
          part: part ?? null,
          serial: serial ?? null,
          donor: donor ?? null,
          price: price ?? null,
          note: note ?? null,
          ...(lengthM !== undefined && { lengthM }),
          // As older records have it: what is not said to be anything else is a module, or a reel.
          ...(sorts[i] !== undefined &&
            sorts[i] !== 'module' &&
            !(lengthM !== undefined && sorts[i] === 'cable') && { sort: sorts[i] }),
        })),
      },
    };
  },
});

/** A thing goes into a place of the design; what sits there goes onto the shelf. */
export const fit = defineJudge<FitRequest>({
  fields: { item: text(160), place: text(160), reason },
  judge({ request: { item: id, place, reason: why }, bench }) {
    const item = thingOf(bench, id);
    const { modules } = bench.job.design;
    if (item.lengthM !== null)
      throw new HttpError(409, 'reel', `${thingName(item)} is a reel of cable: it is cut, not fitted`);
    if (!isModule(item))
      throw new HttpError(409, 'no-module', `${thingName(item)} is no module: fit it in Prove, As built`);
    if (!Object.hasOwn(modules, place))
      throw invalidInput([{ path: 'place', message: 'is no module of this design' }]);
    if (item.place === place) throw new HttpError(409, 'fitted', `${thingName(item)} sits there already`);
    if (item.place !== null && Object.hasOwn(modules, item.place))
      throw new HttpError(
        409,
        'fitted-elsewhere',
        `${thingName(item)} sits in ${modules[item.place]!.tag}: take it out first`,
      );
    if (item.state === 'rejected' || item.state === 'retired')
      throw new HttpError(409, 'not-usable', `${thingName(item)} is ${item.state}: judge it anew first`);
    const stock = stockAt(bench);
    const former = stock.items.get(stock.inPlace.get(place) ?? '');
    return {
      subjects: namedSubjects(bench.job, [place]),
      body: {
        kind: 'fit',
        place,
        item: item.id,
        serial: item.serial,
        former: former?.id ?? null,
        formerSerial: former?.serial ?? null,
        reason: why ?? '',
      },
    };
  },
});

export const remove = defineJudge<RemoveRequest>({
  fields: { item: text(160), state: oneOf(itemStates), reason },
  judge({ request: { item: id, state, reason: why }, bench }) {
    const item = thingOf(bench, id);
    if (item.place === null)
      throw new HttpError(409, 'on-shelf', `${thingName(item)} is on the shelf already`);
    return {
      subjects: whereIs(bench, item.place),
      body: {
        kind: 'remove',
        place: item.place,
        item: item.id,
        serial: item.serial,
        state,
        reason: why ?? '',
      },
    };
  },
});

export const itemState = defineJudge<ItemStateRequest>({
  fields: { item: text(160), state: oneOf(itemStates), reason },
  judge({ request: { item: id, state, reason: why }, bench }) {
    const item = thingOf(bench, id);
    const subjects = item.place === null ? [] : whereIs(bench, item.place);
    if (state === 'retired' && subjects.length > 0)
      throw new HttpError(409, 'fitted', `${thingName(item)} is fitted: take it out first`);
    return {
      subjects,
      body: { kind: 'item-state', item: item.id, serial: item.serial, state, reason: why ?? '' },
    };
  },
});

/** A thing on the shelf goes to another job. The other half, its arrival there, is made in the same turn. */
export const sent = defineJudge<SentRequest>({
  fields: { item: text(160), to: text(80), reason },
  async judge({ request: { item: id, to, reason: why }, bench }) {
    const item = thingOf(bench, id);
    if (item.place !== null && whereIs(bench, item.place).length > 0)
      throw new HttpError(409, 'fitted', `${thingName(item)} is fitted: take it out first`);
    if (item.lengthM !== null && item.lengthM - item.cutM <= 0)
      throw new HttpError(409, 'used-up', `${thingName(item)} is used up: nothing of it is left to send`);
    const [other] = await bench.db.query<{ name: string }>('SELECT name FROM jobs WHERE id = $1', [to]);
    if (other === undefined) throw invalidInput([{ path: 'to', message: 'is no job here' }]);
    return {
      body: { kind: 'sent', item: item.id, serial: item.serial, to, toName: other.name, reason: why ?? '' },
    };
  },
});

/** What of the design a thing sits in; nothing where its place is gone. */
function whereIs({ job }: Bench, place: string): Subjects {
  if (Object.hasOwn(job.design.modules, place)) return namedSubjects(job, [place]);
  const part = partPlaces(job.design).find(({ path }) => path === place);
  return part === undefined ? [] : holders(job, part.holder);
}
