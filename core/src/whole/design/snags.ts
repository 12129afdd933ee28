import type { Entry, SnagBody, SnagGoneBody } from '../../record';
import { ofKind, type EntryOf } from '../../record';

/** Something provisional, and the entry that says it is gone. */
export interface Snag {
  entry: EntryOf<SnagBody>;
  gone: EntryOf<SnagGoneBody> | null;
}

/** All snags that count, in order. */
export function snagsOf(counting: readonly Entry[]): Snag[] {
  const gone = new Map(ofKind<SnagGoneBody>(counting, 'snag-gone').map((entry) => [entry.body.of, entry]));
  return ofKind<SnagBody>(counting, 'snag').map((entry) => ({ entry, gone: gone.get(entry.seq) ?? null }));
}
