import { number, oneOf, orNull, text } from '../../ground/shape';
import { formatQuantity } from '../../ground/quantity';
import { defineKind, shortTopic } from '../kind';
import { words } from '../shapes';

/** A part as it was really fitted in a place of the design. */
export interface PartFittedBody {
  kind: 'part-fitted';
  /** Where the design names the part, such as `circuits.main.fuse`; of a device or a box the thing itself. */
  place: string;
  /** What people call that place. */
  name: string;
  /** Key of what was fitted, and of what the design had there; null: no part is named there. */
  part: string | null;
  designed: string | null;
  serial: string | null;
  /** The part itself as JSON, where another one was fitted than is designed. */
  snapshot: string | null;
  /** What it took the place of; null: the first that was recorded there. */
  formerPart: string | null;
  formerSerial: string | null;
  exchanged: boolean;
  reason: string;
  /** The thing of the stock that was taken for it. */
  item?: string;
  /** What kind of part belongs there. */
  sort?: string;
}

/** How long a conductor was really cut. */
export interface CableCutBody {
  kind: 'cable-cut';
  /** Where the design gives its length, such as `circuits.main.lengthM`. */
  place: string;
  name: string;
  lengthM: number;
  designedM: number | null;
  /** The drum or batch that it was cut from. */
  batch: string | null;
  /** The reel it was cut from, a thing of the stock; and how many conductors of this length. */
  reel?: string;
  count?: number;
}

export const partFitted = defineKind<PartFittedBody>({
  kind: 'part-fitted',
  many: 'parts as fitted',
  fields: {
    place: text(200),
    name: words(200),
    part: orNull(text(120)),
    designed: orNull(text(120)),
    serial: orNull(words(80)),
    snapshot: orNull(text(20_000)),
    formerPart: orNull(text(120)),
    formerSerial: orNull(words(80)),
    exchanged: oneOf([true, false]),
    reason: words(2000),
    item: text.optional(160),
    sort: text.optional(40),
  },
  // Which thing was there before lies on the shelf now.
  stands: 'always',
  topic: ({ body }) => shortTopic(`part-fitted:${body.place}`),
  title: ({ name, serial, part, designed, exchanged }) =>
    `${name} ${exchanged ? 'exchanged' : 'fitted'}${serial === null ? '' : `, ${serial}`}${part === designed || part === null ? '' : `: ${part} instead of ${designed ?? 'nothing'}`}`,
  outcome: ({ reason }) => reason,
});

export const cableCut = defineKind<CableCutBody>({
  kind: 'cable-cut',
  many: 'cables as cut',
  fields: {
    place: text(200),
    name: words(200),
    lengthM: number({ above: 0, max: 1000 }),
    designedM: orNull(number()),
    batch: orNull(words(80)),
    reel: text.optional(160),
    count: number.optional({ min: 1, max: 100, integer: true }),
  },
  // A second cut of the same cable is off the reel as well.
  stands: 'always',
  title: ({ name, lengthM, designedM }) =>
    `${name} cut to ${formatQuantity(lengthM, 'm')}${designedM === null ? '' : `, ${formatQuantity(designedM, 'm')} designed`}`,
});
