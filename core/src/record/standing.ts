import { hashText, type Entry } from './entry';

/** Topics of which only the newest entry counts. */
const replaced = new Set(['result', 'acceptance', 'position', 'work', 'gate', 'intake']);

/**
 * What an entry is about, so that later ones on the same topic can replace it: a step, a finding, the subjects of a
 * work, a gate with its person.
 */
export function topicOf({ body, by, subjects }: Pick<Entry, 'body' | 'by' | 'subjects'>): string {
  switch (body.kind) {
    case 'result':
      return short(`result:${body.step}`);
    case 'acceptance':
      return short(`acceptance:${body.check}`);
    case 'work':
      return short(`work:${subjects.map(({ id }) => id).join(' ')}`);
    case 'intake':
      return short(`intake:${subjects.map(({ id }) => id).join(' ')}`);
    case 'gate':
      return short(`gate:${body.gate}:${by}`);
    default:
      return body.kind;
  }
}

/** The entry that this one is about, by number; null for most. */
export function targetOf({ body }: Pick<Entry, 'body'>): number | null {
  return 'of' in body ? body.of : null;
}

/** The verdict of a result; null for every other entry. */
export function verdictOf({ body }: Pick<Entry, 'body'>): string | null {
  return body.kind === 'result' ? body.verdict : null;
}

/** A topic fits an index. */
const short = (topic: string) => (topic.length <= 200 ? topic : `${topic.slice(0, 100)}#${hashText(topic)}`);

/**
 * The entries that still matter to the state of a job, in order: of each step, finding, gate and subject the newest
 * that was not corrected, every failed result, and all that is said about deviations and snags. Corrected entries and
 * corrections are left out. `assess` makes the same of these as of all.
 */
export function standing<One extends Entry>(entries: readonly One[]): One[] {
  const corrected = new Set(entries.flatMap(({ body }) => (body.kind === 'correction' ? [body.of] : [])));
  const newest = new Map<string, number>();
  const counting = entries.filter(({ seq, body }) => !corrected.has(seq) && body.kind !== 'correction');
  for (const entry of counting) if (replaced.has(entry.body.kind)) newest.set(topicOf(entry), entry.seq);
  return counting.filter((entry) => {
    const { kind } = entry.body;
    if (kind === 'note') return false;
    if (!replaced.has(kind)) return true;
    return (
      newest.get(topicOf(entry)) === entry.seq ||
      (entry.body.kind === 'result' && entry.body.verdict === 'fail')
    );
  });
}
