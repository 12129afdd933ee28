import type { Design, Id } from '@torvek/core/document';
import { asPresent, stockOf, type Entry, type Item } from '@torvek/core/record';
import { measures, type Measure } from '../intake/sheet';

/** One thing as the list shows it. */
export interface ThingRow {
  id: string;
  item: Item;
  name: string;
  /** Tag of its place; null: on the shelf. */
  place: string | null;
  /** It sits in a place that the design no longer has: it lies on the shelf. */
  placeGone: boolean;
  /** What was measured last, in the unit it is stored in. */
  values: Partial<Record<Measure['field'], number>>;
}

/** What people call a thing: its serial, or where it was found. */
export const nameOfThing = (
  { serial, id }: Pick<Item, 'serial' | 'id'>,
  design: Pick<Design, 'modules'>,
): string =>
  serial ?? (id.startsWith('item-of-') ? `of ${design.modules[id.slice(8)]?.tag ?? id.slice(8)}` : id);

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
    values.set(named, { ...values.get(named), [field]: body.measured.value });
  }
  const order = new Map(Object.keys(design.modules).map((id, i) => [id, i]));
  const rank = ({ item, place }: ThingRow) =>
    item.state === 'retired' ? 1e9 : place === null ? -1 : (order.get(item.place!) ?? -1);
  return [...stock.items.values()]
    .filter(({ lengthM }) => lengthM === null)
    .map((item): ThingRow => {
      const module = design.modules[item.place ?? ''];
      return {
        id: item.id,
        item,
        name: nameOfThing(item, design),
        place: module?.tag ?? null,
        placeGone: item.place !== null && module === undefined,
        values: values.get(item.place ?? item.id) ?? {},
      };
    })
    .sort((a, b) => rank(a) - rank(b));
}

/** Places of the design with nothing in them, once things are told of. */
export function emptyPlaces(design: Pick<Design, 'modules'>, entries: readonly Entry[]): Id[] {
  const { inPlace } = stockOf(entries);
  return Object.keys(design.modules).filter((id) => inPlace.get(id) == null);
}
