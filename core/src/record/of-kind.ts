import type { Entry } from './entry';
import type { EntryBody } from './kinds';

/** A recorded entry of one kind. */
export type EntryOf<Body> = Entry & { body: Body };

/** The entries of one kind, in order. */
export function ofKind<Body extends EntryBody>(
  entries: readonly Entry[],
  kind: Body['kind'],
): EntryOf<Body>[] {
  return entries.filter((entry): entry is EntryOf<Body> => entry.body.kind === kind);
}
