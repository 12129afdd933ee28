import { partPlaces, type Design, type Id } from '@torvek/core/document';
import { partKindNames, type PartKind } from '@torvek/core/parts';
import { asPresent, isModule, quotedValues, stockOf, type Entry, type Item } from '@torvek/core/record';
import { measures, type IntakeRow, type Measure } from '../intake/sheet';

/** One thing as the list shows it. */
export interface ThingRow {
  id: string;
  item: Item;
  name: string;
  what: string;
  /** Tag of its place; null: on the shelf. */
  place: string | null;
  /** It sits in a place that the design no longer has: it lies on the shelf. */
  placeGone: boolean;
  /** What was measured last, in the unit it is stored in, and where a range ended. */
  values: Pick<IntakeRow, Measure['field'] | 'over'>;
  /** Those of them that were measured in another job. */
  quoted: Measure['field'][];
}

/** What people call a thing: its serial, or where it was found. */
export const nameOfThing = (
  { serial, id }: Pick<Item, 'serial' | 'id'>,
  design: Pick<Design, 'modules'>,
): string =>
  serial ?? (id.startsWith('item-of-') ? `of ${design.modules[id.slice(8)]?.tag ?? id.slice(8)}` : id);

/** What kind of part a thing is, in words. */
export const sortWords = (sort: string): string =>
  Object.hasOwn(partKindNames, sort) ? partKindNames[sort as PartKind][0] : sort;

/** The same of many. */
export function manyWords(sort: string): string {
  if (sort === 'module') return 'modules';
  if (!Object.hasOwn(partKindNames, sort)) return sort === 'box' ? 'boxes' : `${sort}s`;
  const [, many] = partKindNames[sort as PartKind];
  return /^[A-Z]{2}/.test(many) ? many : many[0]!.toLowerCase() + many.slice(1);
}

/** Things of a job that are no modules, and modules that are here no more, as the list of parts shows them. */
export interface PartRow {
  id: string;
  item: Item;
  name: string;
  /** What kind of part it is, in words. */
  what: string;
  /** What people call its place; null: on the shelf. */
  place: string | null;
  placeGone: boolean;
}

/** Parts as things: those on the shelf first, then by place; what is retired last. Reels have their own list. */
export function partRows(design: Design, entries: readonly Entry[]): PartRow[] {
  const names = new Map(partPlaces(design).map(({ path, name, kind }, i) => [path, { name, kind, i }]));
  const rank = ({ item, place }: PartRow) =>
    item.state === 'retired' ? 1e9 : place === null ? -1 : names.get(item.place!)!.i;
  return [...stockOf(entries).items.values()]
    .filter((item) => !isModule(item) && item.lengthM === null && item.sentTo === null)
    .map((item): PartRow => {
      const at = names.get(item.place ?? '');
      const place = at?.name ?? null;
      return {
        id: item.id,
        item,
        name: nameOfThing(item, design),
        // Older records tell the place alone.
        what: sortWords(item.sort === 'part' ? (at?.kind ?? 'part') : item.sort),
        place,
        placeGone: item.place !== null && place === null,
      };
    })
    .sort((a, b) => rank(a) - rank(b));
}

/** What was sent to other jobs, of any kind. */
export const sentRows = (design: Design, entries: readonly Entry[]): PartRow[] =>
  [...stockOf(entries).items.values()]
    .filter(({ sentTo }) => sentTo !== null)
    .map((item) => ({
      id: item.id,
      item,
      name: nameOfThing(item, design),
      what: sortWords(item.sort),
      place: `in ${item.sentTo}`,
      placeGone: false,
    }));

/** Every thing of a job that is a module: those on the shelf first, then by place; what is retired last. */
export function thingRows(design: Pick<Design, 'modules'>, entries: readonly Entry[]): ThingRow[] {
  const stock = stockOf(entries);
  const values = new Map<string, ThingRow['values']>();
  const fieldOf = new Map(measures.map(({ template, field }) => [template as string, field]));
  for (const { body } of asPresent(entries)) {
    if (body.kind !== 'result' || body.measured.kind !== 'value') continue;
    const at = body.step.indexOf(':');
    const field = fieldOf.get(body.step.slice(0, at));
    if (field === undefined) continue;
    const named = body.step.slice(at + 1);
    const { over: overBefore, ...own } = values.get(named) ?? {};
    const { [field]: _before, ...others } = overBefore ?? {};
    const over = body.measured.over === true ? { ...others, [field]: true as const } : others;
    values.set(named, {
      ...own,
      [field]: body.measured.value,
      ...(Object.keys(over).length > 0 && { over }),
    });
  }
  const order = new Map(Object.keys(design.modules).map((id, i) => [id, i]));
  const rank = ({ item, place }: ThingRow) =>
    item.state === 'retired' ? 1e9 : place === null ? -1 : (order.get(item.place!) ?? -1);
  return [...stock.items.values()]
    .filter((item) => isModule(item) && item.sentTo === null)
    .map((item): ThingRow => {
      const module = design.modules[item.place ?? ''];
      const own = values.get(item.place ?? item.id) ?? {};
      const elsewhere = [...quotedValues(item)].flatMap(([template, { value }]) => {
        const field = fieldOf.get(template);
        return field === undefined || own[field] !== undefined ? [] : [[field, value] as const];
      });
      return {
        id: item.id,
        item,
        name: nameOfThing(item, design),
        what: 'module',
        place: module?.tag ?? null,
        placeGone: item.place !== null && module === undefined,
        values: { ...Object.fromEntries(elsewhere), ...own },
        quoted: elsewhere.map(([field]) => field),
      };
    })
    .sort((a, b) => rank(a) - rank(b));
}

/** Places of the design with nothing in them, once things are told of. */
export function emptyPlaces(design: Pick<Design, 'modules'>, entries: readonly Entry[]): Id[] {
  const { inPlace } = stockOf(entries);
  return Object.keys(design.modules).filter((id) => inPlace.get(id) == null);
}
