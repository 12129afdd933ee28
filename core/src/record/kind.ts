import type { record } from '../ground/shape';
import { hashText, type Entry } from './entry';

/**
 * How long an entry counts: always; until a newer one on its topic; both, for a result that failed: it stays to be explained, and
 * replaces what was before; never, for what changes no state. A corrected one counts no longer.
 */
export type Stands = 'always' | 'newest' | 'both' | 'never';

/** The shapes of the fields of a body. */
export type Fields = Record<string, ReturnType<typeof record>>;

/** What a kind of entry is, said once: file and record, database and Book read it here. */
export interface KindOfEntry<Body extends { kind: string }> {
  kind: Body['kind'];
  /** What entries of it are called where several are meant. */
  many: string;
  /** The fields of its body, without `kind`. */
  fields: Fields;
  stands: Stands | ((body: Body) => Stands);
  /** What it is about, so that later ones on the same topic can replace it; absent: its kind. */
  topic?(entry: Pick<Entry, 'by' | 'subjects'> & { body: Body }): string;
  /** In one line. */
  title(body: Body): string;
  /** How it came out, in a few words; absent: nothing was judged. */
  outcome?(body: Body, witness: string | null): string;
}

export function defineKind<Body extends { kind: string }>(kind: KindOfEntry<Body>): KindOfEntry<Body> {
  return kind;
}

/** The subjects of an entry as a topic. */
export const aboutSubjects = ({ body, subjects }: Pick<Entry, 'subjects'> & { body: { kind: string } }) =>
  shortTopic(`${body.kind}:${subjects.map(({ id }) => id).join(' ')}`);

/** A topic fits an index. */
export const shortTopic = (topic: string) =>
  topic.length <= 200 ? topic : `${topic.slice(0, 100)}#${hashText(topic)}`;
