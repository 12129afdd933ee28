import { coreVersion } from '@torvek/core/design';
import type { Design } from '@torvek/core/document';
import {
  canonicalText,
  entryFormat,
  entryFormatVersion,
  hashText,
  JournalCheck,
  standing,
  targetOf,
  topicOf,
  verdictOf,
  UnrecordableText,
  verification,
  type Entry,
  type StoredEntry,
  type Verification,
} from '@torvek/core/record';
import type { Clock } from '../clock';
import type { Hub } from '../live/hub';
import type { Database, Queryable } from '../database';
import { HttpError, invalidInput } from '../http/errors';
import type { Job, Jobs } from '../jobs/jobs';
import { inlineWalker, threadWalker } from './walker';
import { textOf, type Journal, type JournalLine } from './journal';

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

/** Entries that are verified in one go: the embedded database is slow with larger answers. */
const verifiedAtOnce = 500;
/** From this many entries on a thread of its own verifies. */
const longRecord = 5000;

/** A text that LIKE takes as it stands. */
const likeText = (text: string) => text.replace(/[\\%_]/g, '\\$&');

/** The append-only record of each job. */
export class Ledger {
  /** The entries that still matter, by job; dropped when a correction may have brought an older one back. */
  private readonly kept = new Map<string, RecordedEntry[]>();

  constructor(
    private readonly database: Database,
    private readonly jobs: Jobs,
    readonly journal: Journal,
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
    const [{ count } = { count: 0 }] = await this.database.query<{ count: number | string }>(
      `SELECT count(*) AS count FROM entries WHERE job_id = $1 AND ($2::text IS NULL OR kind = $2)
         AND ($3::text IS NULL OR content LIKE $3)`,
      [job, kind, about],
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
    const rows = await on.query<EntryRow>(
      `SELECT * FROM entries WHERE job_id = $1 AND seq IN (
         SELECT max(seq) FROM entries
         WHERE job_id = $1 AND kind IN ('result', 'acceptance', 'position', 'work', 'gate', 'intake') AND seq NOT IN (${corrected})
         GROUP BY kind, topic
         UNION
         SELECT seq FROM entries WHERE job_id = $1 AND kind IN ('deviation', 'snag', 'snag-gone', 'cell-voltages', 'balance', 'joints')
         UNION
         SELECT seq FROM entries WHERE job_id = $1 AND verdict = 'fail'
       ) AND seq NOT IN (${corrected})
       ORDER BY seq`,
      [job],
    );
    return standing(rows.map(recorded));
  }

  /**
   * Appends an entry: journal first, fsynced, then the database. The same id again answers with the entry that
   * is there.
   *
   * @param judge makes the entry from the job as it is saved, inside the transaction
   */
  async append(
    jobId: string,
    id: string,
    judge: (bench: Bench) => Draft | Promise<Draft>,
  ): Promise<RecordedEntry> {
    let line: JournalLine | null = null;
    let made: RecordedEntry;
    try {
      made = await this.database.transaction(async (db) => {
        const job = await this.jobs.lock(jobId, db);
        const known = await this.known(jobId, id, db);
        if (known !== null) return known;
        const entries = await this.standing(jobId, db);
        this.kept.set(jobId, entries);
        const draft = await judge({ job, entries, db, at: (seq) => this.at(jobId, seq, db) });
        const entry = this.complete(job, draft, await this.tail(jobId, db));
        const text = this.canonical(entry);
        const written = { seq: entry.seq, sha256: hashText(text), text };
        this.journal.append(jobId, written);
        // From here on it stands there, and has to be taken back should the database refuse it.
        line = written;
        await insertEntry(db, entry, line);
        // Before the commit: the next append, which waits for the job's row, judges with this entry.
        return this.keep({ ...entry, sha256: line.sha256 });
      });
    } catch (error) {
      this.kept.delete(jobId);
      if (line !== null) this.journal.abandon(jobId, line);
      throw error;
    }
    if (line !== null) {
      this.journal.commit(jobId, line);
      this.hub.publish(jobId, { kind: 'entry', entry: made });
    }
    return made;
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
    this.journal.forget();
  }

  /**
   * Walks the chain, some thousand entries at a time, and tells how far it is. Says too which entries the database
   * had lost and got back from the journal.
   */
  async verify(job: string): Promise<Verification & { restored: { seq: number; at: string }[] }> {
    await this.jobs.get(job);
    const journal = this.journal.read(job);
    const restored = journal.flatMap(({ seq, restoredAt }) =>
      restoredAt === null ? [] : [{ seq, at: restoredAt }],
    );
    const check = new JournalCheck(journal);
    const walker = journal.length > longRecord ? threadWalker(job) : inlineWalker(job);
    let taken = 0;
    let last = -2_147_483_648;
    for (;;) {
      const rows = await this.storedAfter(job, last);
      await walker.take(rows.map((row) => ({ ...row, asRecorded: check.take(row) })));
      taken += rows.length;
      last = rows.at(-1)?.seq ?? last;
      if (rows.length < verifiedAtOnce) break;
      const fraction = Math.min(0.99, taken / Math.max(taken, journal.length));
      this.hub.publish(job, { kind: 'progress', task: 'verify', fraction });
    }
    const { entries, problems } = await walker.end();
    return { ...verification(entries, [...problems, ...check.end()]), restored };
  }

  /** The next entries as they are stored. The small columns come as one: the embedded database is slow with many. */
  private async storedAfter(job: string, seq: number): Promise<StoredEntry[]> {
    const rows = await this.database.query<{ content: string; rest: string }>(
      `SELECT content, json_build_array(
         job_id, seq, id, kind, previous, sha256, recorded_at, topic, target, verdict)::text AS rest
       FROM entries WHERE job_id = $1 AND seq > $2 ORDER BY seq LIMIT $3`,
      [job, seq, verifiedAtOnce],
    );
    return rows.map(({ content, rest }) => stored(JSON.parse(rest) as StoredColumns, content));
  }

  /**
   * At start: brings entries of the journal that the database does not have back into it, as long as they go on
   * where its chain ends. Those it had and lost (the embedded database does not fsync) are marked as restored in the
   * journal; a gap in the middle is left for `verify` to name.
   *
   * @returns how many entries were brought in
   */
  async reconcile(): Promise<number> {
    let count = 0;
    for (const { id } of await this.jobs.list()) {
      this.journal.mend(id);
      let tail = await this.tailInDatabase(id, this.database);
      for (const line of this.journal.read(id)) {
        if (line.seq !== tail.seq + 1) continue;
        const text = textOf(line);
        // A line that was damaged is left as it is, for `verify` to name: the chain does not go on over it.
        if (text === null || hashText(text) !== line.sha256) break;
        const entry = JSON.parse(text) as Entry;
        if (entry.previous !== tail.sha256) break;
        await insertEntry(this.database, entry, { ...line, text });
        if (line.committed) this.journal.restore(id, line, this.clock.now());
        else this.journal.commit(id, line);
        tail = { seq: line.seq, sha256: line.sha256 };
        count += 1;
      }
    }
    return count;
  }

  /** Where the chain goes on: after the last entry, or after the journal's when the database has lost some. */
  private async tail(job: string, db: Queryable): Promise<Tail> {
    const inDatabase = await this.tailInDatabase(job, db);
    const inJournal = tailOf(this.journal.last(job));
    return inJournal.seq > inDatabase.seq ? inJournal : inDatabase;
  }

  private async tailInDatabase(job: string, db: Queryable): Promise<Tail> {
    const rows = await db.query<{ seq: number; sha256: string }>(
      'SELECT seq, sha256 FROM entries WHERE job_id = $1 ORDER BY seq DESC LIMIT 1',
      [job],
    );
    return tailOf(rows[0]);
  }

  private async at(job: string, seq: number, db: Queryable): Promise<Entry | null> {
    const rows = await db.query<EntryRow>('SELECT * FROM entries WHERE job_id = $1 AND seq = $2', [job, seq]);
    return rows[0] === undefined ? null : recorded(rows[0]);
  }

  private complete(job: Job, draft: Draft, tail: Tail): Entry {
    return {
      format: entryFormat,
      formatVersion: entryFormatVersion,
      ...draft,
      job: job.id,
      seq: tail.seq + 1,
      previous: tail.sha256,
      recordedAt: this.clock.now(),
      against: { version: job.version, sha256: designHash(job.design), core: coreVersion },
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

  private async known(job: string, id: string, db: Queryable): Promise<RecordedEntry | null> {
    const rows = await db.query<EntryRow>('SELECT * FROM entries WHERE id = $1', [id]);
    const row = rows[0];
    if (row === undefined) return null;
    if (row.job_id !== job)
      throw new HttpError(409, 'id-taken', 'this entry belongs to another job', [
        { path: 'id', message: 'is taken' },
      ]);
    return recorded(row);
  }

  private rows(job: string, on: Queryable): Promise<EntryRow[]> {
    return on.query<EntryRow>('SELECT * FROM entries WHERE job_id = $1 ORDER BY seq', [job]);
  }
}

interface Tail {
  seq: number;
  sha256: string | null;
}

const tailOf = (last: { seq: number; sha256: string } | undefined): Tail =>
  last === undefined ? { seq: 0, sha256: null } : { seq: last.seq, sha256: last.sha256 };

/** SHA-256 of a design's canonical text. */
export function designHash(design: Design): string {
  return hashText(canonicalText(design));
}

const recorded = ({ content, sha256 }: EntryRow): RecordedEntry => ({
  ...(JSON.parse(content) as Entry),
  sha256,
});

/** Writes an entry's row. */
export async function insertEntry(db: Queryable, entry: Entry, { sha256, text }: JournalLine): Promise<void> {
  const { job, seq, id, body, previous, recordedAt } = entry;
  await db.query(
    `INSERT INTO entries (job_id, seq, id, kind, previous, sha256, recorded_at, topic, target, verdict, content)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)`,
    [
      job,
      seq,
      id,
      body.kind,
      previous,
      sha256,
      recordedAt,
      topicOf(entry),
      targetOf(entry),
      verdictOf(entry),
      text,
    ],
  );
}

type StoredColumns = [
  job: string,
  seq: number,
  id: string,
  kind: string,
  previous: string | null,
  sha256: string,
  recordedAt: string,
  topic: string,
  target: number | null,
  verdict: string | null,
];

function stored(columns: StoredColumns, text: string): StoredEntry {
  const [job, seq, id, kind, previous, sha256, recordedAt, topic, target, verdict] = columns;
  return { job, seq, id, kind, previous, sha256, recordedAt, topic, target, verdict, text };
}
