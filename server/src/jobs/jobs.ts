import { blankDesign, type Design } from '@torvek/core/document';
import { HttpError, notFound } from '../http/errors';
import type { Database, Queryable } from '../database';
import type { Clock } from '../clock';

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
  first_design: string;
}

const ofRow = ({ id, name, demo, version, design }: JobRow): Job => ({
  id,
  name,
  demo,
  version,
  design: JSON.parse(design) as Design,
});

/** Jobs and their current designs. */
export class Jobs {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
  ) {}

  async list(): Promise<JobSummary[]> {
    const rows = await this.database.query<JobSummary & { entries: string | number }>(`
      SELECT jobs.id, jobs.name, jobs.demo, jobs.created_at AS "createdAt", jobs.version,
        jobs.imported_at AS "importedAt", jobs.imported_by AS "importedBy",
        (SELECT count(*) FROM entries WHERE entries.job_id = jobs.id) AS entries,
        GREATEST(
          jobs.created_at,
          COALESCE((SELECT max(saved_at) FROM changes WHERE changes.job_id = jobs.id), ''),
          COALESCE((SELECT max(recorded_at) FROM entries WHERE entries.job_id = jobs.id), '')
        ) AS "touchedAt"
      FROM jobs ORDER BY "touchedAt" DESC, jobs.id`);
    return rows.map((row) => ({ ...row, entries: Number(row.entries) }));
  }

  async get(id: string, on: Queryable = this.database): Promise<Job> {
    return ofRow(await this.row(id, on));
  }

  /** The same, its row locked until the transaction ends: one writer of a job at a time. */
  async lock(id: string, on: Queryable): Promise<Job> {
    const rows = await on.query<JobRow>('SELECT * FROM jobs WHERE id = $1 FOR UPDATE', [id]);
    if (rows[0] === undefined) throw notFound('this job');
    return ofRow(rows[0]);
  }

  /** Makes a job; the same id with the same name again is the same job. */
  async create(id: string, name: string, design: Design = blankDesign(), demo = false): Promise<Job> {
    const text = JSON.stringify(design);
    await this.database.query(
      `INSERT INTO jobs (id, name, demo, created_at, first_design, design) VALUES ($1, $2, $3, $4, $5, $5)
       ON CONFLICT (id) DO NOTHING`,
      [id, name, demo, this.clock.now(), text],
    );
    const job = await this.get(id);
    if (job.name !== name)
      throw new HttpError(409, 'id-taken', 'this id belongs to another job', [
        { path: 'id', message: 'is taken' },
      ]);
    return job;
  }

  /** A copy with the current design and a history and record of its own. */
  async duplicate(from: string, id: string, name: string): Promise<Job> {
    const { design } = await this.get(from);
    return this.create(id, name, design);
  }

  async rename(id: string, name: string): Promise<Job> {
    await this.database.query('UPDATE jobs SET name = $2 WHERE id = $1', [id, name]);
    return this.get(id);
  }

  async firstDesign(id: string): Promise<Design> {
    return JSON.parse((await this.row(id, this.database)).first_design) as Design;
  }

  private async row(id: string, on: Queryable): Promise<JobRow> {
    const rows = await on.query<JobRow>('SELECT * FROM jobs WHERE id = $1', [id]);
    if (rows[0] === undefined) throw notFound('this job');
    return rows[0];
  }
}
