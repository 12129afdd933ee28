import { coreVersion } from '@torvek/core/design';
import type { Design } from '@torvek/core/document';
import { canonicalText } from '@torvek/core/record';
import type { Clock } from '../clock';
import type { Database, Queryable } from '../database';
import { HttpError, notFound } from '../http/errors';
import { sha256Of } from '../journal/lines';
import type { Writer } from '../journal/writer';
import { evaluated } from './evaluated';
import type { Job, Jobs } from './jobs';

export const releaseFormat = 'torvek-release';

/** What a release freezes; its canonical text stays byte for byte. */
export interface ReleaseContent {
  format: typeof releaseFormat;
  formatVersion: 1;
  job: string;
  number: number;
  version: number;
  label: string;
  by: string;
  at: string;
  core: string;
  design: Design;
  /** Every figure that had a value, in its unit. */
  figures: Record<string, { value: number; unit: string }>;
  /** The record's last entry at that moment: a head of the chain kept elsewhere than the chain. */
  head: { seq: number; sha256: string } | null;
}

export interface ReleaseSummary {
  number: number;
  version: number;
  label: string;
  by: string;
  at: string;
  sha256: string;
}

interface Row {
  number: number;
  id: string;
  version: number;
  label: string;
  released_by: string;
  released_at: string;
  sha256: string;
  content: string;
}

const summary = ({ number, version, label, released_by, released_at, sha256 }: Row): ReleaseSummary => ({
  number,
  version,
  label,
  by: released_by,
  at: released_at,
  sha256,
});

/** Numbered revisions of a design, frozen with their figures. */
export class Releases {
  constructor(
    private readonly database: Database,
    private readonly jobs: Jobs,
    private readonly writer: Writer,
    private readonly clock: Clock,
  ) {}

  async list(job: string, on: Queryable = this.database): Promise<ReleaseSummary[]> {
    await this.jobs.get(job, on);
    return (await this.rows(job, on)).map(summary);
  }

  /** Freezes the design as it is saved now. The same id again is the same release. */
  async release(
    jobId: string,
    request: { id: string; label: string; version: number },
    by: string,
  ): Promise<ReleaseSummary> {
    return this.writer.write(async (turn) => {
      const job = await this.jobs.get(jobId, turn.db);
      const before = await this.rows(jobId, turn.db);
      const known = before.find(({ id }) => id === request.id);
      if (known !== undefined) return summary(known);
      if (request.version !== job.version)
        throw new HttpError(409, 'moved-on', `the design is at version ${job.version} by now`, [
          { path: 'version', message: `is not the saved one, ${job.version}` },
        ]);
      const content = await this.contentOf(job, before.length + 1, request.label, by, turn.db);
      const text = canonicalText(content);
      const sha256 = sha256Of(text);
      await turn.job(jobId, { kind: 'release', id: request.id, sha256, text });
      const { number, version, label, at } = content;
      return { number, version, label, by, at, sha256 };
    });
  }

  /** @throws HttpError when its text is no longer what was frozen */
  async content(job: string, number: number): Promise<ReleaseContent> {
    const row = (await this.rows(job, this.database)).find((one) => one.number === number);
    if (row === undefined) throw notFound(`release ${number}`);
    if (sha256Of(row.content) !== row.sha256)
      throw new HttpError(409, 'release-altered', `release ${number} is not what was frozen`);
    return JSON.parse(row.content) as ReleaseContent;
  }

  /** The rows as they are stored, for export. */
  rows(job: string, on: Queryable): Promise<Row[]> {
    return on.query<Row>('SELECT * FROM releases WHERE job_id = $1 ORDER BY number', [job]);
  }

  private async contentOf(
    job: Job,
    number: number,
    label: string,
    by: string,
    db: Queryable,
  ): Promise<ReleaseContent> {
    const heads = await db.query<{ seq: number; sha256: string }>(
      'SELECT seq, sha256 FROM entries WHERE job_id = $1 ORDER BY seq DESC LIMIT 1',
      [job.id],
    );
    const figures = Object.entries(evaluated(job).evaluation.figures).flatMap(([id, { value, unit }]) =>
      value === null ? [] : [[id, { value, unit }] as const],
    );
    return {
      format: releaseFormat,
      formatVersion: 1,
      job: job.id,
      number,
      version: job.version,
      label,
      by,
      at: this.clock.now(),
      core: coreVersion,
      design: job.design,
      figures: Object.fromEntries(figures),
      head: heads[0] ?? null,
    };
  }
}
