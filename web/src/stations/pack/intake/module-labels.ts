import type { Design, Id } from '@torvek/core/document';
import { stockOf, type Entry } from '@torvek/core/record';
import type { Label } from '../../../parts/labels';

/** A label for each module: by the serial of what sits there, which goes where it goes, and the place it sits in. */
export function moduleLabels(
  job: string,
  design: Pick<Design, 'modules' | 'parts'>,
  entries: readonly Entry[],
  rows: readonly { id: Id; name: string }[],
): Label[] {
  const stock = stockOf(entries);
  return rows.map(({ id, name }) => {
    const item = stock.items.get(stock.inPlace.get(id) ?? id);
    const place = design.modules[id];
    const part = design.parts[item?.part ?? place?.part ?? ''];
    const serial = item?.serial ?? null;
    return {
      title: serial ?? name,
      lines: [
        job,
        ...(part === undefined ? [] : [part.number]),
        ...(serial !== null && place !== undefined ? [`in ${place.tag}`] : []),
      ],
      path: `pack?panel=intake&module=${encodeURIComponent(id)}`,
    };
  });
}
