import { asPresent, stockOf, type Item, type Stock } from '@torvek/core/record';
import type { PartOf } from '@torvek/core/parts';
import { HttpError, invalidInput } from '../http/errors';
import type { Bench, Court } from './court';

export const stockAt = ({ entries }: Pick<Bench, 'entries'>): Stock => stockOf(asPresent(entries));

/**
 * A thing of the job by its id.
 *
 * @throws HttpError 422 for one that never arrived
 */
export function thingOf(bench: Pick<Bench, 'entries'>, id: string): Item {
  const item = stockAt(bench).items.get(id);
  if (item === undefined) throw invalidInput([{ path: 'item', message: 'is nothing that arrived' }]);
  if (item.sentTo !== null)
    throw new HttpError(409, 'sent', `${thingName(item)} was sent to ${item.sentTo}: it is not here`);
  return item;
}

/** What people call it. */
export const thingName = ({ serial, id }: Pick<Item, 'serial' | 'id'>): string => serial ?? id;

/**
 * What sits in a place, for what is recorded of it; undefined: nobody told of anything there yet.
 *
 * @throws HttpError 409 where it was taken out
 */
export function fittedIn(bench: Bench, place: string): Item | undefined {
  const stock = stockAt(bench);
  const id = stock.inPlace.get(place);
  if (id === null)
    throw new HttpError(
      409,
      'nothing-fitted',
      `nothing is fitted in ${bench.job.design.modules[place]?.tag ?? place}: fit what is measured first`,
    );
  return id === undefined ? undefined : stock.items.get(id);
}

/** The kind of module that a thing is: as it arrived, else as the design’s only kind. */
export async function moduleKindOf(
  { part: key }: Item,
  { job, db }: Bench,
  { library }: Court,
): Promise<PartOf<'module'> | null> {
  const modules = Object.values(job.design.parts).filter(({ kind }) => kind === 'module');
  const part =
    key === null
      ? modules.length === 1
        ? modules[0]
        : undefined
      : (job.design.parts[key] ?? (await library.library(db)).find(key));
  return part?.kind === 'module' ? part : null;
}
