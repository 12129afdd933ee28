import type { Entry } from './entry';
import type { KindOfEntry, Stands } from './kind';
import { entryKinds, type EntryBody } from './kinds';

type About = Pick<Entry, 'body' | 'by' | 'subjects'>;

/** The kind of an entry, for any of them; null for one that this program does not know: its file is checked elsewhere. */
const kindOf = ({ kind }: EntryBody) =>
  Object.hasOwn(entryKinds, kind) ? (entryKinds[kind] as unknown as KindOfEntry<EntryBody>) : null;

/** What an entry is about, so that later ones on the same topic can replace it. */
export function topicOf(entry: About): string {
  return kindOf(entry.body)?.topic?.(entry) ?? entry.body.kind;
}

/** How long an entry counts. */
export function standsOf({ body }: Pick<Entry, 'body'>): Stands {
  const stands = kindOf(body)?.stands ?? 'never';
  return typeof stands === 'function' ? stands(body) : stands;
}

/** What an entry is about, in one line. */
export function entryTitle(body: EntryBody): string {
  return kindOf(body)?.title(body) ?? body.kind;
}

/** How it came out, in a few words; empty where nothing was judged. */
export function entryOutcome({ body, witness }: Pick<Entry, 'body' | 'witness'>): string {
  return kindOf(body)?.outcome?.(body, witness) ?? '';
}

/** The entry that this one is about, by number; null for most. */
export function targetOf({ body }: Pick<Entry, 'body'>): number | null {
  return 'of' in body ? body.of : null;
}

/**
 * The entries that still matter to the state of a job, in order: each as its kind says. Corrected entries and corrections are left
 * out. `assess` makes the same of these as of all.
 */
export function standing<One extends Entry>(entries: readonly One[]): One[] {
  const corrected = new Set(entries.flatMap(({ body }) => (body.kind === 'correction' ? [body.of] : [])));
  const newest = new Map<string, number>();
  const counting = entries
    .filter(({ seq }) => !corrected.has(seq))
    .map((entry) => ({ entry, stands: standsOf(entry), topic: topicOf(entry) }));
  for (const { entry, stands, topic } of counting)
    if (stands === 'newest' || stands === 'both') newest.set(`${entry.body.kind} ${topic}`, entry.seq);
  return counting
    .filter(({ entry, stands, topic }) =>
      stands === 'newest'
        ? newest.get(`${entry.body.kind} ${topic}`) === entry.seq
        : stands === 'always' || stands === 'both',
    )
    .map(({ entry }) => entry);
}
