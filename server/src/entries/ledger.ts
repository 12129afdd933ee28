import { coreVersion } from '@torvek/core/design';
import type { Design } from '@torvek/core/document';
import {
  canonicalText,
  entryFormat,
  entryFormatVersion,
  hashText,
  UnrecordableText,
  verifyChain,
  type Entry,
  type StoredEntry,
  type Verification,
} from '@torvek/core/record';
import type { Clock } from '../clock';
import type { Database, Queryable } from '../database';
import { HttpError, invalidInput } from '../http/errors';
import type { Job, Jobs } from '../jobs/jobs';
import type { Journal, JournalLine } from './journal';

interface EntryRow {
  job_id: string;
  seq: number;
  id: string;
  kind: string;
  previous: string | null;
  sha256: string;
  recorded_at: string;
  content: string;
}

/** What a judge makes of a request: the entry without what the ledger itself knows. */
export type Draft = Pick<
  Entry,
  'id' | 'takenAt' | 'zone' | 'by' | 'witness' | 'subjects' | 'basis' | 'instrument' | 'attachments' | 'body'
>;

export type RecordedEntry = Entry & { sha256: string };

/** The append-only record of each job. */
export class Ledger {
  constructor(
    private readonly database: Database,
    private readonly jobs: Jobs,
    private readonly journal: Journal,
    private readonly clock: Clock,
  ) {}

  async list(job: string): Promise<RecordedEntry[]> {
    await this.jobs.get(job);
    return (await this.rows(job, this.database)).map(({ content, sha256 }) => ({
      ...(JSON.parse(content) as Entry),
      sha256,
    }));
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
    judge: (job: Job, entries: Entry[]) => Draft,
  ): Promise<RecordedEntry> {
    let line: JournalLine | null = null;
    let recorded: RecordedEntry;
    try {
      recorded = await this.database.transaction(async (db) => {
        const job = await this.jobs.lock(jobId, db);
        const known = await this.known(jobId, id, db);
        if (known !== null) return known;
        const rows = await this.rows(jobId, db);
        const draft = judge(
          job,
          rows.map(({ content }) => JSON.parse(content) as Entry),
        );
        const entry = this.complete(job, draft, this.tail(jobId, rows));
        const text = this.canonical(entry);
        line = { seq: entry.seq, sha256: hashText(text), text };
        this.journal.append(jobId, line);
        await insert(db, entry, line);
        return { ...entry, sha256: line.sha256 };
      });
    } catch (error) {
      if (line !== null) this.journal.abandon(jobId, line);
      throw error;
    }
    if (line !== null) this.journal.commit(jobId, line);
    return recorded;
  }

  async verify(job: string): Promise<Verification> {
    await this.jobs.get(job);
    const rows = await this.rows(job, this.database);
    return verifyChain(job, rows.map(stored), this.journal.read(job));
  }

  /**
   * After a crash between journal and database: brings entries that the database never had into it. An entry that
   * it had and lost is left for `verify` to name.
   *
   * @returns how many entries were brought in
   */
  async reconcile(): Promise<number> {
    let count = 0;
    for (const { id } of await this.jobs.list()) {
      this.journal.mend(id);
      let tail = tailOf((await this.rows(id, this.database)).at(-1));
      for (const line of this.journal.read(id)) {
        if (line.committed || line.seq !== tail.seq + 1) continue;
        const entry = JSON.parse(line.text) as Entry;
        if (hashText(line.text) !== line.sha256 || entry.previous !== tail.sha256) break;
        await insert(this.database, entry, line);
        this.journal.commit(id, line);
        tail = { seq: line.seq, sha256: line.sha256 };
        count += 1;
      }
    }
    return count;
  }

  /** Where the chain goes on: after the last entry, or after the journal's when the database has lost some. */
  private tail(job: string, rows: EntryRow[]): Tail {
    const inDatabase = tailOf(rows.at(-1));
    const inJournal = tailOf(this.journal.last(job));
    return inJournal.seq > inDatabase.seq ? inJournal : inDatabase;
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
    return { ...(JSON.parse(row.content) as Entry), sha256: row.sha256 };
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

function rowOf(entry: Entry, { sha256, text }: JournalLine): EntryRow {
  const { job, seq, id, body, previous, recordedAt } = entry;
  return { job_id: job, seq, id, kind: body.kind, previous, sha256, recorded_at: recordedAt, content: text };
}

async function insert(db: Queryable, entry: Entry, line: JournalLine): Promise<void> {
  const row = rowOf(entry, line);
  await db.query(
    'INSERT INTO entries (job_id, seq, id, kind, previous, sha256, recorded_at, content) VALUES ($1, $2, $3, $4, $5, $6, $7, $8)',
    [row.job_id, row.seq, row.id, row.kind, row.previous, row.sha256, row.recorded_at, row.content],
  );
}

function stored(row: EntryRow): StoredEntry {
  const { job_id, seq, id, kind, previous, sha256, recorded_at, content } = row;
  return { job: job_id, seq, id, kind, previous, sha256, recordedAt: recorded_at, text: content };
}
