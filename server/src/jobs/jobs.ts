import { blankDesign, type Design } from '@torvek/core/document';
import { HttpError, notFound } from '../http/errors';
import type { Database, Queryable } from '../database';
import type { Clock } from '../clock';
import type { Turn, Writer } from '../journal/writer';

export interface JobSummary {
  id: string;
  name: string;
  demo: boolean;
  createdAt: string;
  version: number;
  entries: number;
  /** When the last change was saved or entry recorded. */
  touchedAt: string;
  /** When and by whom it was brought in from elsewhere; null: it was made here. */
  importedAt: string | null;
  importedBy: string | null;
}

export interface Job {
  id: string;
  name: string;
  demo: boolean;
  version: number;
  design: Design;
}

interface JobRow {
  id: string;
  name: string;
  demo: boolean;
  version: number;
  design: string;
}

const ofRow = ({ id, name, demo, version, design }: JobRow): Job => ({
  id,
  name,
  demo,
  version,
  design: JSON.parse(design) as Design,
});

/** Its name, the number of its changes and of its entries. */
export interface JobHead {
  name: string;
  version: number;
  entries: number;
}

/** Jobs and their current designs. */
export class Jobs {
  constructor(
    private readonly database: Database,
    private readonly writer: Writer,
    private readonly clock: Clock,
  ) {}

  async list(): Promise<JobSummary[]> {
    // Numbers have no gaps: the last one counts them, and an index finds it at once.
    return this.database.query<JobSummary>(`
      SELECT jobs.id, jobs.name, jobs.demo, jobs.created_at AS "createdAt", jobs.version,
        jobs.imported_at AS "importedAt", jobs.imported_by AS "importedBy",
        COALESCE(last_entry.seq, 0) AS entries,
        GREATEST(jobs.created_at, COALESCE(last_change.saved_at, ''), COALESCE(last_entry.recorded_at, ''))
          AS "touchedAt"
      FROM jobs
      LEFT JOIN LATERAL (
        SELECT seq, recorded_at FROM entries WHERE job_id = jobs.id ORDER BY seq DESC LIMIT 1
      ) AS last_entry ON TRUE
      LEFT JOIN LATERAL (
        SELECT saved_at FROM changes WHERE job_id = jobs.id ORDER BY version DESC LIMIT 1
      ) AS last_change ON TRUE
      ORDER BY "touchedAt" DESC, jobs.id`);
  }

  /** The name of a job that is here; null: it is not. */
  async find(id: string, on: Queryable = this.database): Promise<{ name: string } | null> {
    const [row] = await on.query<{ name: string }>('SELECT name FROM jobs WHERE id = $1', [id]);
    return row ?? null;
  }

  /** How far a job has come: what a page holds its own against. null: it is not here. */
  async head(id: string): Promise<JobHead | null> {
    const [row] = await this.database.query<JobHead>(
      `SELECT name, version, COALESCE((SELECT max(seq) FROM entries WHERE job_id = $1), 0) AS entries
       FROM jobs WHERE id = $1`,
      [id],
    );
    return row ?? null;
  }

  async get(id: string, on: Queryable = this.database): Promise<Job> {
    return ofRow(await this.row<JobRow>(id, 'id, name, demo, version, design', on));
  }

  /** Makes a job; the same id with the same name again is the same job. */
  async create(
    id: string,
    name: string,
    by: string,
    { design = blankDesign(), demo = false }: { design?: Design; demo?: boolean } = {},
  ): Promise<Job> {
    await this.writer.write(async (turn) => {
      const [known] = await turn.db.query<{ name: string }>('SELECT name FROM jobs WHERE id = $1', [id]);
      if (known === undefined) return this.make(turn, { id, name, demo, design }, by);
      if (known.name !== name)
        throw new HttpError(409, 'id-taken', 'this id belongs to another job', [
          { path: 'id', message: 'is taken' },
        ]);
    });
    return this.get(id);
  }

  /** Makes an empty job within a turn, unless it is there: with what else the turn writes, or not at all. */
  async ensureIn(turn: Turn, id: string, name: string, by: string): Promise<void> {
    if ((await this.find(id, turn.db)) === null)
      await this.make(turn, { id, name, demo: false, design: blankDesign() }, by);
  }

  private async make(turn: Turn, job: Omit<Job, 'version'>, by: string): Promise<void> {
    const { id, name } = job;
    await turn.job(id, { kind: 'job', ...job, createdAt: this.clock.now() });
    await turn.shop({ kind: 'job-here', id, name, by });
  }

  /** A copy with the current design and a history and record of its own. */
  async duplicate(from: string, id: string, name: string, by: string): Promise<Job> {
    const { design } = await this.get(from);
    return this.create(id, name, by, { design });
  }

  async rename(id: string, name: string, by: string): Promise<Job> {
    await this.writer.write(async (turn) => {
      const job = await this.get(id, turn.db);
      if (job.name !== name) await turn.job(id, { kind: 'name', name, by });
    });
    return this.get(id);
  }

  async firstDesign(id: string): Promise<Design> {
    const { design } = await this.row<{ design: string }>(id, 'first_design AS design', this.database);
    return JSON.parse(design) as Design;
  }

  /** Two designs stand in a row: no more of it is fetched than is asked for. */
  private async row<Row>(id: string, columns: string, on: Queryable): Promise<Row> {
    const rows = await on.query<Row>(`SELECT ${columns} FROM jobs WHERE id = $1`, [id]);
    if (rows[0] === undefined) throw notFound('this job');
    return rows[0];
  }
}
