import {
  applyOperations,
  checkDesign,
  danglingReferences,
  differences,
  OperationError,
  operationsMeet,
  type Design,
  type Difference,
  type Operation,
} from '@torvek/core/document';
import { HttpError, invalidInput } from '../http/errors';
import type { Database, Queryable } from '../database';
import type { Clock } from '../clock';
import type { Hub } from '../live/hub';
import { designHashOf } from '../journal/story';
import type { Writer } from '../journal/writer';
import { forgetEvaluation } from './evaluated';
import type { Jobs } from './jobs';

/** A change as a client sends it. */
export interface ChangeRequest {
  id: string;
  /** The version it was made on. */
  base: number;
  /** Ids of the sender's own changes since that version, which it was made on top of. */
  own?: string[];
  label: string;
  at: string;
  forward: Operation[];
  inverse: Operation[];
}

export interface SavedChange {
  version: number;
  id: string;
  base: number;
  label: string;
  by: string;
  madeAt: string;
  savedAt: string;
}

export interface SaveAnswer {
  version: number;
  /** Present when other changes came in between: the design as it is now. */
  design?: Design;
}

/** A change as the database has it. */
export interface ChangeRow {
  version: number;
  id: string;
  base: number;
  label: string;
  author: string;
  made_at: string;
  saved_at: string;
  forward: string;
  inverse: string;
}

/** The history of designs. */
export class Changes {
  constructor(
    private readonly database: Database,
    private readonly jobs: Jobs,
    private readonly writer: Writer,
    private readonly clock: Clock,
    private readonly hub: Hub,
  ) {}

  /**
   * Saves a change. One made on an older version is merged when it touches nothing that changed since and the
   * result is still a design; otherwise it is a clash, answered with the changes it met.
   *
   * @param by the name of whoever is signed in
   */
  save(jobId: string, change: ChangeRequest, by: string): Promise<SaveAnswer> {
    const { id, label, forward, inverse, base } = change;
    return this.writer.write(async (turn) => {
      const { db } = turn;
      const job = await this.jobs.get(jobId, db);
      const known = await this.known(jobId, id, db);
      if (known !== null) return { version: known, ...(known !== base + 1 && { design: job.design }) };
      if (base > job.version) {
        throw new HttpError(409, 'unknown-version', `version ${base} is not there yet`, [
          { path: 'base', message: 'is ahead of the job' },
        ]);
      }
      const since = (await this.rowsSince(jobId, base, db)).filter((row) => !change.own?.includes(row.id));
      const met = since.filter((row) => operationsMeet(forward, JSON.parse(row.forward) as Operation[]));
      if (met.length > 0) throw clash(met, job.version, job.design);
      const design = this.apply(job.design, forward);
      const version = job.version + 1;
      const savedAt = this.clock.now();
      await turn.job(
        jobId,
        {
          kind: 'change',
          version,
          id,
          base,
          label,
          by,
          madeAt: change.at,
          savedAt,
          forward,
          inverse,
          design: designHashOf(design),
        },
        { design },
      );
      turn.undone(() => forgetEvaluation(jobId));
      turn.done(() => this.hub.publish(jobId, { kind: 'change', version, id, label, by, forward }));
      return { version, ...(since.length > 0 && { design }) };
    });
  }

  /** The newest first, or those before a version: `limit` of them at most. */
  async list(jobId: string, before: number | null, limit: number): Promise<SavedChange[]> {
    await this.jobs.get(jobId);
    const rows = await this.database.query<Omit<ChangeRow, 'forward' | 'inverse'>>(
      `SELECT version, id, base, label, author, made_at, saved_at FROM changes
       WHERE job_id = $1 AND version < $2 ORDER BY version DESC LIMIT $3`,
      [jobId, before ?? 2_147_483_647, limit],
    );
    return rows.map(({ version, id, base, label, author, made_at, saved_at }) => ({
      version,
      id,
      base,
      label,
      by: author,
      madeAt: made_at,
      savedAt: saved_at,
    }));
  }

  /** The design at a version; 0 is the first. */
  async at(jobId: string, version: number): Promise<Design> {
    const job = await this.jobs.get(jobId);
    if (!Number.isInteger(version) || version < 0 || version > job.version) {
      throw new HttpError(404, 'not-found', `version ${version} is not there`);
    }
    const rows = await this.database.query<ChangeRow>(
      'SELECT * FROM changes WHERE job_id = $1 AND version <= $2 ORDER BY version',
      [jobId, version],
    );
    const first = await this.jobs.firstDesign(jobId);
    return rows.reduce(
      (design, row) => applyOperations(design, JSON.parse(row.forward) as Operation[]),
      first,
    );
  }

  async compare(jobId: string, from: number, to: number): Promise<Difference[]> {
    return differences(await this.at(jobId, from), await this.at(jobId, to));
  }

  async known(jobId: string, id: string, db: Queryable = this.database): Promise<number | null> {
    const rows = await db.query<{ version: number; job_id: string }>(
      'SELECT version, job_id FROM changes WHERE id = $1',
      [id],
    );
    const row = rows[0];
    if (row !== undefined && row.job_id !== jobId) {
      throw new HttpError(409, 'id-taken', 'this change belongs to another job', [
        { path: 'id', message: 'is taken' },
      ]);
    }
    return row?.version ?? null;
  }

  private rowsSince(jobId: string, base: number, db: Queryable): Promise<ChangeRow[]> {
    return db.query<ChangeRow>('SELECT * FROM changes WHERE job_id = $1 AND version > $2 ORDER BY version', [
      jobId,
      base,
    ]);
  }

  private apply(design: Design, forward: Operation[]): Design {
    try {
      // What pointed at nothing already is no reason to refuse another change.
      const before = new Set(danglingReferences(design).map(({ path }) => path));
      const checked = checkDesign(applyOperations(design, forward), ({ path }) => before.has(path));
      if (!checked.ok)
        throw invalidInput(checked.issues.map(({ path, message }) => ({ path: `design.${path}`, message })));
      return checked.design;
    } catch (error) {
      if (!(error instanceof OperationError)) throw error;
      throw invalidInput([{ path: 'forward', message: error.message }]);
    }
  }
}

function clash(met: ChangeRow[], version: number, design: Design): HttpError {
  const changes = met.map(({ version: at, label, author, saved_at }) => ({
    version: at,
    label,
    by: author,
    savedAt: saved_at,
  }));
  const message = `meets ${changes.map(({ label, by }) => `“${label}” by ${by}`).join(', ')}`;
  return new HttpError(409, 'clash', message, [], { changes, version, design });
}
