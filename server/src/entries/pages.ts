import type { Queryable } from '../database';
import type { RecordedEntry } from './court';
import { recorded, type EntryRow } from './stored';

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

/** A text that LIKE takes as it stands. */
const likeText = (text: string) => text.replace(/[\\%_]/g, '\\$&');

/** Entries before a number, newest first. */
export async function pageOfRecord(
  database: Queryable,
  job: string,
  { before, limit, kind, subject }: PageRequest,
): Promise<EntryPage> {
  // Subjects stand in the entry's own text, its keys sorted.
  const about = subject === null ? null : `%{"id":${likeText(JSON.stringify(subject))},"tag":%`;
  const rows = await database.query<EntryRow & { corrected_by: number | null }>(
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
  const [{ count } = { count: 0 }] = await database.query<{ count: number | string }>(
    counted,
    kind === null && about === null ? [job] : [job, kind, about],
  );
  return {
    total: Number(count),
    entries: rows.map((row) => ({ ...recorded(row), correctedBy: row.corrected_by })),
  };
}
