import { number, text } from '@torvek/core/shape';
import { cutPlaces, partPlaces, type PartPlace } from '@torvek/core/document';
import { isModule, type Item, type PartFittedBody } from '@torvek/core/record';
import { HttpError, invalidInput } from '../../http/errors';
import { defineJudge, type Bench } from '../court';
import { holders } from '../subjects';
import { stockAt, thingName, thingOf } from '../things';

export interface PartFittedRequest {
  kind: 'part-fitted';
  place: string;
  /** Absent: as designed. */
  part?: string;
  serial?: string;
  reason?: string;
  /** A thing of the stock: its part and its serial number are known. */
  item?: string;
}

/** A part as it was fitted: as designed, or another one of its kind with a reason. */
export const partFitted = defineJudge<PartFittedRequest>({
  fields: {
    place: text(200),
    part: text.optional(120),
    serial: text.optional(80),
    reason: text.optional(2000),
    item: text.optional(160),
  },
  cross({ item, part, serial }, issue) {
    if (item === undefined) return;
    if (part !== undefined) issue('part', 'is that of the thing');
    if (serial !== undefined) issue('serial', 'is that of the thing');
  },
  async judge({ request: { place: path, reason, item: id, ...typed }, bench, court }) {
    const { design } = bench.job;
    const item = id === undefined ? null : thingOf(bench, id);
    const serial = item?.serial ?? typed.serial;
    const asked = item?.part ?? typed.part;
    const place = partPlaces(design).find((one) => one.path === path);
    if (place === undefined)
      throw invalidInput([{ path: 'place', message: 'is no place of a part in this design' }]);
    if (item !== null) mustFit(bench, item, place);
    if (asked !== undefined && place.part === null)
      throw invalidInput([
        { path: 'part', message: 'the design names no part there: its serial number alone' },
      ]);
    const part = asked ?? place.part;
    const other = part !== null && part !== place.part;
    const found =
      part === null ? undefined : (design.parts[part] ?? (await court.library.library(bench.db)).find(part));
    if (part !== null && found?.kind !== place.kind)
      throw invalidInput([
        {
          path: 'part',
          message:
            found === undefined
              ? 'is no part of the design or the library'
              : `is a ${found.kind}, not a ${place.kind}`,
        },
      ]);
    if (other && (reason ?? '').trim() === '')
      throw invalidInput([
        { path: 'reason', message: 'is needed where another part is fitted than designed' },
      ]);
    if (item === null && !other && serial === undefined && (reason ?? '').trim() === '')
      throw invalidInput([{ path: 'serial', message: 'or a reason: there is nothing to record' }]);
    const stock = stockAt(bench);
    const twice = [...stock.items.values()].find(
      (one) =>
        item === null &&
        serial !== undefined &&
        one.serial === serial &&
        one.place !== null &&
        one.place !== path &&
        one.part === part &&
        !isModule(one),
    );
    if (twice !== undefined) {
      const name = partPlaces(design).find((one) => one.path === twice.place)?.name;
      if (name !== undefined)
        throw new HttpError(409, 'serial-twice', `${serial} is recorded as ${name} already`);
    }
    const former = stock.items.get(stock.inPlace.get(path) ?? '');
    const body: PartFittedBody = {
      kind: 'part-fitted',
      place: path,
      name: place.name,
      part,
      designed: place.part,
      serial: serial ?? null,
      snapshot: other && found !== undefined ? JSON.stringify(found) : null,
      formerPart: former?.part ?? null,
      formerSerial: former?.serial ?? null,
      // A serial that was not known before is the same thing, better known.
      exchanged:
        former !== undefined &&
        (item !== null ||
          former.part !== part ||
          (former.serial !== null && serial !== undefined && former.serial !== serial)),
      reason: reason ?? '',
      sort: place.kind,
      ...(item !== null && { item: item.id }),
    };
    return { subjects: holders(bench.job, place.holder), body };
  },
});

export interface CableCutRequest {
  kind: 'cable-cut';
  place: string;
  lengthM: number;
  batch?: string;
  /** A reel of the stock. */
  reel?: string;
  count?: number;
}

/** A cable as it was cut. */
export const cableCut = defineJudge<CableCutRequest>({
  fields: {
    place: text(200),
    lengthM: number({ above: 0, max: 200 }),
    batch: text.optional(80),
    reel: text.optional(160),
    count: number.optional({ min: 1, max: 100, integer: true }),
  },
  judge({ request: { place: path, lengthM, batch, reel: from, count = 1 }, bench }) {
    const place = cutPlaces(bench.job.design).find((one) => one.path === path);
    if (place === undefined) throw invalidInput([{ path: 'place', message: 'is no cable of this design' }]);
    const reel = from === undefined ? null : thingOf(bench, from);
    if (reel !== null) {
      if (reel.lengthM === null) throw invalidInput([{ path: 'reel', message: 'is no reel of cable' }]);
      const leftM = reel.lengthM - reel.cutM;
      if (lengthM * count > leftM + 1e-9)
        throw invalidInput([
          { path: 'lengthM', message: `is more than ${thingName(reel)} has left: ${leftM.toFixed(2)} m` },
        ]);
    }
    return {
      subjects: holders(bench.job, place.holder),
      body: {
        kind: 'cable-cut',
        place: path,
        name: place.name,
        lengthM,
        designedM: place.lengthM,
        batch: batch ?? reel?.serial ?? null,
        ...(reel !== null && { reel: reel.id, count }),
      },
    };
  },
});

/**
 * Whether a thing may go into a place of a part.
 *
 * @throws HttpError where it may not
 */
function mustFit({ job }: Bench, item: Item, place: PartPlace): void {
  const name = thingName(item);
  if (item.lengthM !== null)
    throw new HttpError(409, 'reel', `${name} is a reel of cable: it is cut, not fitted`);
  if (item.sort !== place.kind && item.sort !== 'part')
    throw invalidInput([{ path: 'item', message: `is a ${item.sort}, not a ${place.kind}` }]);
  if (item.place === place.path) throw new HttpError(409, 'fitted', `${name} sits there already`);
  const elsewhere = partPlaces(job.design).find(({ path }) => path === item.place);
  if (elsewhere !== undefined)
    throw new HttpError(409, 'fitted-elsewhere', `${name} sits in ${elsewhere.name}: take it out first`);
  if (item.state === 'rejected' || item.state === 'retired')
    throw new HttpError(409, 'not-usable', `${name} is ${item.state}: judge it anew first`);
}
