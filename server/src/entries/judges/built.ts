import { number, text } from '@torvek/core/calculator';
import { cutPlaces, partPlaces } from '@torvek/core/document';
import type { PartFittedBody } from '@torvek/core/record';
import { HttpError, invalidInput } from '../../http/errors';
import { defineJudge } from '../court';
import type { Job } from '../../jobs/jobs';
import { namedSubjects, subjectsOf } from '../subjects';
import { thingName, thingOf } from '../things';

export interface PartFittedRequest {
  kind: 'part-fitted';
  place: string;
  /** Absent: as designed. */
  part?: string;
  serial?: string;
  reason?: string;
}

/** A part as it was fitted: as designed, or another one of its kind with a reason. */
export const partFitted = defineJudge<PartFittedRequest>({
  fields: {
    place: text(200),
    part: text.optional(120),
    serial: text.optional(80),
    reason: text.optional(2000),
  },
  async judge({ request: { place: path, part: asked, serial, reason }, bench, court }) {
    const { design } = bench.job;
    const place = partPlaces(design).find((one) => one.path === path);
    if (place === undefined)
      throw invalidInput([{ path: 'place', message: 'is no place of a part in this design' }]);
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
    if (!other && serial === undefined && (reason ?? '').trim() === '')
      throw invalidInput([{ path: 'serial', message: 'or a reason: there is nothing to record' }]);
    const bodies = bench.entries.flatMap(({ body }) => (body.kind === 'part-fitted' ? [body] : []));
    const twice = bodies.find(
      (one) => serial !== undefined && one.serial === serial && one.place !== path && one.part === part,
    );
    if (twice !== undefined)
      throw new HttpError(409, 'serial-twice', `${serial} is recorded as ${twice.name} already`);
    const former = bodies.findLast((one) => one.place === path);
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
        (former.part !== part || (former.serial !== null && former.serial !== (serial ?? null))),
      reason: reason ?? '',
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

/** What the entry is about; cables and sense leads of the pack are of the pack. */
const holders = (job: Job, id: string) => namedSubjects(job, [subjectsOf(job).has(id) ? id : 'pack']);
