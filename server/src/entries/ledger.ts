import { standing } from '@torvek/core/record';
import type { Clock } from '../clock';
import type { Database, Queryable } from '../database';
import { HttpError } from '../http/errors';
import type { Jobs } from '../jobs/jobs';
import type { Turn, Writer } from '../journal/writer';
import type { Hub } from '../live/hub';
import { countingEntries } from './counting';
import type { Bench, Draft, RecordedEntry } from './court';
import { pageOfRecord, type EntryPage, type PageRequest } from './pages';
import { sealed, type Tail } from './seal';
import { recorded, type EntryRow } from './stored';

/** Makes an entry from the job as it is saved, when its turn comes. */
type MakeEntry = (bench: Bench) => Draft | Promise<Draft>;

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
  async page(job: string, request: PageRequest): Promise<EntryPage> {
    await this.jobs.get(job);
    return pageOfRecord(this.database, job, request);
  }

  /** The entries that still matter to the state of a job, in order. */
  async standing(job: string, on: Queryable = this.database): Promise<RecordedEntry[]> {
    const known = this.kept.get(job);
    if (known !== undefined) return known;
    await this.jobs.get(job, on);
    return countingEntries(on, job);
  }

  /**
   * Appends an entry; answered when it is on the disk. The same id again answers with the entry that is there.
   *
   * @param judge makes the entry from the job as it is saved, when its turn comes
   */
  append(jobId: string, id: string, judge: MakeEntry): Promise<RecordedEntry> {
    return this.writer.write((turn) => this.appendIn(turn, jobId, id, judge));
  }

  /**
   * Appends entries to several jobs in one turn, one after the other: all of them, or none. The same ids again answer with the entries
   * that are there.
   *
   * @param first what has to be there before, made in the same turn
   */
  appendAcross(
    wanted: readonly { job: string; id: string; judge: MakeEntry }[],
    first: (turn: Turn) => Promise<void>,
  ): Promise<RecordedEntry[]> {
    return this.writer.write(async (turn) => {
      await first(turn);
      const made: RecordedEntry[] = [];
      for (const { job, id, judge } of wanted) made.push(await this.appendIn(turn, job, id, judge));
      return made;
    });
  }

  private async appendIn(turn: Turn, jobId: string, id: string, judge: MakeEntry): Promise<RecordedEntry> {
    const { db } = turn;
    const job = await this.jobs.get(jobId, db);
    const known = await this.known(jobId, id, db);
    if (known !== null) return known;
    const entries = await this.standing(jobId, db);
    this.kept.set(jobId, entries);
    turn.undone(() => this.kept.delete(jobId));
    const draft = await judge({ job, entries, db, at: (seq) => this.at(jobId, seq, db) });
    const { entry, text, sha256 } = sealed(job, draft, await this.tail(jobId, db), this.clock.now());
    await turn.job(jobId, { kind: 'entry', sha256, text });
    // Whoever has the next turn judges with this entry.
    const made = this.keep({ ...entry, sha256 });
    turn.done(() => this.hub.publish(jobId, { kind: 'entry', entry: made }));
    return made;
  }

  /**
   * Appends several entries that do not hang on each other in one turn: all, or none. Each is judged against the record as it was
   * before. The same ids again answer with the entries that are there.
   *
   * @param judge makes the entries, in order
   */
  appendAll(
    jobId: string,
    ids: readonly string[],
    judge: (bench: Bench) => Promise<Draft[]>,
  ): Promise<RecordedEntry[]> {
    return this.writer.write(async (turn) => {
      const { db } = turn;
      const job = await this.jobs.get(jobId, db);
      const there = await this.knownOf(jobId, ids, db);
      if (there.length === ids.length) return there;
      if (there.length > 0)
        throw new HttpError(
          409,
          'some-known',
          'some of these are recorded already: send the others by themselves',
        );
      const entries = await this.standing(jobId, db);
      turn.undone(() => this.kept.delete(jobId));
      const drafts = await judge({ job, entries, db, at: (seq) => this.at(jobId, seq, db) });
      let tail = await this.tail(jobId, db);
      const made: RecordedEntry[] = [];
      for (const draft of drafts) {
        const { entry, text, sha256 } = sealed(job, draft, tail, this.clock.now());
        await turn.job(jobId, { kind: 'entry', sha256, text });
        tail = { seq: entry.seq, sha256, recordedAt: entry.recordedAt };
        made.push({ ...entry, sha256 });
      }
      // A correction may bring an older entry back.
      if (made.some(({ body }) => body.kind === 'correction')) this.kept.delete(jobId);
      else this.kept.set(jobId, standing([...entries, ...made]));
      turn.done(() => this.hub.publish(jobId, { kind: 'entries', entries: made }));
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

  /** Those of these entries that are there already, in the order asked for. */
  private async knownOf(job: string, ids: readonly string[], db: Queryable): Promise<RecordedEntry[]> {
    const rows = await db.query<EntryRow>(
      'SELECT * FROM entries WHERE id IN (SELECT jsonb_array_elements_text($1::jsonb))',
      [JSON.stringify(ids)],
    );
    if (rows.some(({ job_id: of }) => of !== job))
      throw new HttpError(409, 'id-taken', 'one of these entries belongs to another job');
    const byId = new Map(rows.map(recorded).map((one) => [one.id, one]));
    return ids.flatMap((id) => byId.get(id) ?? []);
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

  private async at(job: string, seq: number, db: Queryable): Promise<RecordedEntry | null> {
    const rows = await db.query<EntryRow>('SELECT * FROM entries WHERE job_id = $1 AND seq = $2', [job, seq]);
    return rows[0] === undefined ? null : recorded(rows[0]);
  }

  private rows(job: string, on: Queryable): Promise<EntryRow[]> {
    return on.query<EntryRow>('SELECT * FROM entries WHERE job_id = $1 ORDER BY seq', [job]);
  }
}
