import { list, number, oneOf, record, text } from '@torvek/core/calculator';
import { itemStates, type ItemState } from '@torvek/core/record';
import { HttpError, invalidInput } from '../../http/errors';
import { defineJudge } from '../court';
import { namedSubjects } from '../subjects';
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
      }),
      { minRows: 1, maxRows: 1000 },
    ),
  },
  async judge({ request: { items }, bench, court }) {
    const library = await court.library.library(bench.db);
    const known = new Set([...stockAt(bench).items.values()].flatMap(({ serial }) => serial ?? []));
    const issues = items.flatMap(({ part, serial }, i) => {
      const at = `items.${i}`;
      const found = part === undefined ? null : (bench.job.design.parts[part] ?? library.find(part));
      const twice = serial !== undefined && known.has(serial);
      if (serial !== undefined) known.add(serial);
      return [
        ...(items[i]!.lengthM !== undefined && found?.kind !== 'cable'
          ? [{ path: `${at}.lengthM`, message: 'is of a reel: its part must be a cable' }]
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
        items: items.map(({ part, serial, donor, price, note, lengthM }) => ({
          part: part ?? null,
          serial: serial ?? null,
          donor: donor ?? null,
          price: price ?? null,
          note: note ?? null,
          ...(lengthM !== undefined && { lengthM }),
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
    const known = Object.hasOwn(bench.job.design.modules, item.place);
    return {
      subjects: known ? namedSubjects(bench.job, [item.place]) : [],
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
    if (state === 'retired' && item.place !== null && Object.hasOwn(bench.job.design.modules, item.place))
      throw new HttpError(409, 'fitted', `${thingName(item)} is fitted: take it out first`);
    const known = item.place !== null && Object.hasOwn(bench.job.design.modules, item.place);
    return {
      subjects: known ? namedSubjects(bench.job, [item.place!]) : [],
      body: { kind: 'item-state', item: item.id, serial: item.serial, state, reason: why ?? '' },
    };
  },
});
