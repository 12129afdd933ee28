import { coreVersion } from '@torvek/core/design';
import {
  canonicalText,
  entryFormat,
  entryFormatVersion,
  standing,
  UnrecordableText,
  type Entry,
} from '@torvek/core/record';
import type { Clock } from '../clock';
import type { Hub } from '../live/hub';
import type { Database, Queryable } from '../database';
import { HttpError, invalidInput } from '../http/errors';
import type { Job, Jobs } from '../jobs/jobs';
import { sha256Of } from '../journal/lines';
import { designHashOf } from '../journal/story';
import type { Writer } from '../journal/writer';

interface EntryRow {
  job_id: string;
  seq: number;
  id: string;
  kind: string;
  previous: string | null;
  sha256: string;
  recorded_at: string;
  topic: string;
  target: number | null;
  verdict: string | null;
  content: string;
}

/** What a judge makes of a request: the entry without what the ledger itself knows. */
export type Draft = Pick<
  Entry,
  'id' | 'takenAt' | 'zone' | 'by' | 'witness' | 'subjects' | 'basis' | 'instrument' | 'attachments' | 'body'
>;

export type RecordedEntry = Entry & { sha256: string };

/** What a judge has before it, inside the transaction. */
export interface Bench {
  job: Job;
  /** The entries that still matter, in order. */
  entries: readonly RecordedEntry[];
  /** Any entry by its number, also one that matters no longer. */
  at(seq: number): Promise<Entry | null>;
  db: Queryable;
}

export interface PageRequest {
  /** Only entries with a lower number; null: from the newest. */
  before: number | null;
  limit: number;
  /** Only entries of this kind; null: all. */
  kind: string | null;
  /** Only entries about this thing of the design; null: all. */
  subject: string | null;
}

/** A page of the record, newest first. */
export interface EntryPage {
  /** How many entries of the kind the job has. */
  total: number;
  entries: (RecordedEntry & { correctedBy: number | null })[];
}

/** Numbers of the entries of job $1 that were corrected. */
const corrected = `SELECT target FROM entries WHERE job_id = $1 AND kind = 'correction'`;

/** A text that LIKE takes as it stands. */
const likeText = (text: string) => text.replace(/[\\%_]/g, '\\$&');

/** The append-only record of each job. */
export class Ledger {
  /** The entries that still matter, by job; dropped when a correction may have brought an older one back. */
  private readonly kept = new Map<string, RecordedEntry[]>();

  constructor(
    private readonly database: Database,
    private readonly jobs: Jobs,
    private readonly writer: Writer,
    private readonly clock: Clock,
    private readonly hub: Hub,
  ) {}

  /** Every entry of a job, in order: for export and tests. */
  async all(job: string): Promise<RecordedEntry[]> {
    await this.jobs.get(job);
    return (await this.rows(job, this.database)).map(recorded);
  }

  /** Entries before a number, newest first. */
  async page(job: string, { before, limit, kind, subject }: PageRequest): Promise<EntryPage> {
    await this.jobs.get(job);
    // Subjects stand in the entry's own text, its keys sorted.
    const about = subject === null ? null : `%{"id":${likeText(JSON.stringify(subject))},"tag":%`;
    const rows = await this.database.query<EntryRow & { corrected_by: number | null }>(
      `SELECT e.*, (SELECT min(c.seq) FROM entries c
         WHERE c.job_id = e.job_id AND c.kind = 'correction' AND c.target = e.seq) AS corrected_by
       FROM entries e WHERE job_id = $1 AND seq < $2 AND ($4::text IS NULL OR kind = $4)
         AND ($5::text IS NULL OR content LIKE $5)
       ORDER BY seq DESC LIMIT $3`,
      [job, before ?? 2_147_483_647, limit, kind, about],
    );
    // Numbers have no gaps: without a filter the last one counts them.
    const counted =
      kind === null && about === null
        ? 'SELECT COALESCE(max(seq), 0) AS count FROM entries WHERE job_id = $1'
        : `SELECT count(*) AS count FROM entries WHERE job_id = $1 AND ($2::text IS NULL OR kind = $2)
             AND ($3::text IS NULL OR content LIKE $3)`;
    const [{ count } = { count: 0 }] = await this.database.query<{ count: number | string }>(
      counted,
      kind === null && about === null ? [job] : [job, kind, about],
    );
    return {
      total: Number(count),
      entries: rows.map((row) => ({ ...recorded(row), correctedBy: row.corrected_by })),
    };
  }

  /** The entries that still matter to the state of a job, in order. */
  async standing(job: string, on: Queryable = this.database): Promise<RecordedEntry[]> {
    const known = this.kept.get(job);
    if (known !== undefined) return known;
    await this.jobs.get(job, on);
    // Topic after topic along the index, the newest of each: a long record is mostly entries that were replaced.
    const rows = await on.query<EntryRow>(
      `WITH RECURSIVE corrected AS MATERIALIZED (${corrected}),
       topics AS (
         (SELECT kind, topic FROM entries WHERE job_id = $1 ORDER BY kind, topic LIMIT 1)
         UNION ALL
         SELECT next.kind, next.topic FROM topics, LATERAL (
           SELECT kind, topic FROM entries WHERE job_id = $1 AND (kind, topic) > (topics.kind, topics.topic)
           ORDER BY kind, topic LIMIT 1) AS next
       )
       SELECT * FROM entries WHERE job_id = $1 AND seq IN (
         SELECT newest.seq FROM topics, LATERAL (
           SELECT seq FROM entries WHERE job_id = $1 AND kind = topics.kind AND topic = topics.topic
             AND seq NOT IN (SELECT target FROM corrected)
           ORDER BY seq DESC LIMIT 1) AS newest
         WHERE topics.kind IN ('result', 'acceptance', 'position', 'work', 'gate', 'intake')
         UNION
         SELECT seq FROM entries WHERE job_id = $1 AND kind IN ('deviation', 'snag', 'snag-gone', 'cell-voltages', 'balance', 'joints')
         UNION
         SELECT seq FROM entries WHERE job_id = $1 AND verdict = 'fail'
       ) AND seq NOT IN (SELECT target FROM corrected)
       ORDER BY seq`,
      [job],
    );
    return standing(rows.map(recorded));
  }

  /**
   * Appends an entry; answered when it is on the disk. The same id again answers with the entry that is there.
   *
   * @param judge makes the entry from the job as it is saved, when its turn comes
   */
  append(jobId: string, id: string, judge: (bench: Bench) => Draft | Promise<Draft>): Promise<RecordedEntry> {
    return this.writer.write(async (turn) => {
      const { db } = turn;
      const job = await this.jobs.get(jobId, db);
      const known = await this.known(jobId, id, db);
      if (known !== null) return known;
      const entries = await this.standing(jobId, db);
      this.kept.set(jobId, entries);
      turn.undone(() => this.kept.delete(jobId));
      const draft = await judge({ job, entries, db, at: (seq) => this.at(jobId, seq, db) });
      const entry = this.complete(job, draft, await this.tail(jobId, db));
      const text = this.canonical(entry);
      const sha256 = sha256Of(text);
      await turn.job(jobId, { kind: 'entry', sha256, text });
      // Whoever has the next turn judges with this entry.
      const made = this.keep({ ...entry, sha256 });
      turn.done(() => this.hub.publish(jobId, { kind: 'entry', entry: made }));
      return made;
    });
  }

  /** The entry with this id, when it is there already. */
  async known(job: string, id: string, db: Queryable = this.database): Promise<RecordedEntry | null> {
    const rows = await db.query<EntryRow>('SELECT * FROM entries WHERE id = $1', [id]);
    const row = rows[0];
    if (row === undefined) return null;
    if (row.job_id !== job)
      throw new HttpError(409, 'id-taken', 'this entry belongs to another job', [
        { path: 'id', message: 'is taken' },
      ]);
    return recorded(row);
  }

  private keep(entry: RecordedEntry): RecordedEntry {
    const known = this.kept.get(entry.job);
    if (known === undefined || entry.body.kind === 'correction') this.kept.delete(entry.job);
    else this.kept.set(entry.job, standing([...known, entry]));
    return entry;
  }

  /** Forgets what is kept in memory: the data was replaced. */
  forget(): void {
    this.kept.clear();
  }

  private async tail(job: string, db: Queryable): Promise<Tail> {
    const rows = await db.query<{ seq: number; sha256: string; recordedAt: string }>(
      'SELECT seq, sha256, recorded_at AS "recordedAt" FROM entries WHERE job_id = $1 ORDER BY seq DESC LIMIT 1',
      [job],
    );
    return rows[0] ?? { seq: 0, sha256: null, recordedAt: null };
  }

  private async at(job: string, seq: number, db: Queryable): Promise<Entry | null> {
    const rows = await db.query<EntryRow>('SELECT * FROM entries WHERE job_id = $1 AND seq = $2', [job, seq]);
    return rows[0] === undefined ? null : recorded(rows[0]);
  }

  private complete(job: Job, draft: Draft, tail: Tail): Entry {
    const recordedAt = this.clock.now();
    return {
      format: entryFormat,
      formatVersion: entryFormatVersion,
      ...draft,
      job: job.id,
      seq: tail.seq + 1,
      previous: tail.sha256,
      recordedAt,
      // Said in the entry itself: whoever reads its time must know that the clock is not to be trusted here.
      ...(tail.recordedAt !== null && recordedAt < tail.recordedAt && { clockWentBack: tail.recordedAt }),
      against: { version: job.version, sha256: designHashOf(job.design), core: coreVersion },
    };
  }

  private canonical(entry: Entry): string {
    try {
      return canonicalText(entry);
    } catch (error) {
      if (error instanceof UnrecordableText)
        throw invalidInput([{ path: error.path, message: 'holds a character that cannot be recorded' }]);
      throw error;
    }
  }

  private rows(job: string, on: Queryable): Promise<EntryRow[]> {
    return on.query<EntryRow>('SELECT * FROM entries WHERE job_id = $1 ORDER BY seq', [job]);
  }
}

interface Tail {
  seq: number;
  sha256: string | null;
  recordedAt: string | null;
}

const recorded = ({ content, sha256 }: EntryRow): RecordedEntry => ({
  ...(JSON.parse(content) as Entry),
  sha256,
});
