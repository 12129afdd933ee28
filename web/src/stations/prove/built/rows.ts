import { cutPlaces, partPlaces, type CutPlace, type Design, type PartPlace } from '@torvek/core/document';
import { partKey, type Part, type PartsList } from '@torvek/core/parts';
import type { Evaluation } from '@torvek/core/step';
import type { CableCutBody, Entry, Item, PartFittedBody, Stock } from '@torvek/core/record';

/** A place with what was recorded of it last. */
export interface BuiltRow extends PartPlace {
  told: { seq: number; at: string; by: string; attachments: readonly string[]; body: PartFittedBody } | null;
  /** What was there was taken out. */
  out: boolean;
}
export interface CutRow extends CutPlace {
  told: { seq: number; at: string; by: string; body: CableCutBody } | null;
}

/** Rarely has a number of its own: listed after what has one. */
const withoutSerial = new Set<PartPlace['kind']>(['cable', 'lug', 'gland', 'resistor']);

type Told = Pick<Entry, 'seq' | 'takenAt' | 'by' | 'attachments' | 'body'>;

/** @param inPlace what sits in each place, by the stock: null where it was taken out */
export function builtRows(
  design: Design,
  entries: readonly Told[],
  inPlace: ReadonlyMap<string, string | null> = new Map(),
): BuiltRow[] {
  const last = new Map<string, BuiltRow['told']>();
  for (const { seq, takenAt, by, attachments, body } of entries)
    if (body.kind === 'part-fitted') last.set(body.place, { seq, at: takenAt, by, attachments, body });
  const rank = ({ kind }: PartPlace) => (withoutSerial.has(kind) ? 1 : 0);
  return partPlaces(design)
    .map((place) => ({
      ...place,
      told: last.get(place.path) ?? null,
      out: inPlace.get(place.path) === null,
    }))
    .sort((a, b) => rank(a) - rank(b));
}

export function cutRows(design: Design, entries: readonly Told[]): CutRow[] {
  const last = new Map<string, CutRow['told']>();
  for (const { seq, takenAt, by, body } of entries)
    if (body.kind === 'cable-cut') last.set(body.place, { seq, at: takenAt, by, body });
  return cutPlaces(design).map((place) => ({ ...place, told: last.get(place.path) ?? null }));
}

/** A figure that is another one as built. */
export interface MovedFigure {
  id: string;
  label: string;
  subject: string;
  unit: string;
  designed: number | null;
  built: number | null;
}

const leastShare = 0.005;

/** Figures that are others as built, those that moved most first. */
export function movedFigures(designed: Evaluation, built: Evaluation): MovedFigure[] {
  if (designed === built) return [];
  const moved = Object.entries(built.figures).flatMap(([id, { label, unit, value }]) => {
    const was = designed.figures[id as keyof typeof designed.figures]?.value ?? null;
    if (was === value) return [];
    const share =
      was === null || value === null ? Infinity : Math.abs(value - was) / Math.max(Math.abs(was), 1e-12);
    const [, subject = ''] = id.split(':');
    return share < leastShare ? [] : [{ id, label, subject, unit, designed: was, built: value, share }];
  });
  return moved.sort((a, b) => b.share - a.share).map(({ share: _share, ...one }) => one);
}

/** Things on the shelf that may go into a place: those of its kind, the designed part first. */
export const shelvedFor = ({ kind, part }: BuiltRow, stock: Stock): Item[] =>
  [...stock.items.values()]
    .filter(
      (one) =>
        one.sort === kind &&
        one.place === null &&
        one.sentTo === null &&
        one.lengthM === null &&
        one.state !== 'rejected' &&
        one.state !== 'retired',
    )
    .sort((a, b) => Number(b.part === part) - Number(a.part === part));

/** Parts that may have been fitted instead of the designed one; of devices and boxes there are none to choose from. */
export const othersFor = ({ kind, part }: BuiltRow, library: PartsList): Part[] =>
  kind === 'device' || kind === 'box'
    ? []
    : (library.of(kind) as readonly Part[]).filter((one) => partKey(one) !== part);
