import { standing } from '@torvek/core/record';
import type { Queryable } from '../database';
import type { RecordedEntry } from './court';
import { recorded, type EntryRow } from './stored';

/**
 * The entries of a job that still matter, in order. Topic after topic along the index, the newest of each, and all that count whatever
 * comes after: a long record is mostly entries that were replaced.
 */
export async function countingEntries(on: Queryable, job: string): Promise<RecordedEntry[]> {
  const rows = await on.query<EntryRow>(
    `WITH RECURSIVE corrected AS MATERIALIZED (
       SELECT target FROM entries WHERE job_id = $1 AND kind = 'correction'
     ),
     topics AS (
       (SELECT kind, topic FROM entries WHERE job_id = $1 ORDER BY kind, topic LIMIT 1)
       UNION ALL
       SELECT next.kind, next.topic FROM topics, LATERAL (
         SELECT kind, topic FROM entries WHERE job_id = $1 AND (kind, topic) > (topics.kind, topics.topic)
         ORDER BY kind, topic LIMIT 1) AS next
     )
     SELECT * FROM entries WHERE job_id = $1 AND seq IN (
       SELECT newest.seq FROM topics, LATERAL (
         SELECT seq, stands FROM entries WHERE job_id = $1 AND kind = topics.kind AND topic = topics.topic
           AND seq NOT IN (SELECT target FROM corrected)
         ORDER BY seq DESC LIMIT 1) AS newest
       WHERE newest.stands IN ('newest', 'both')
       UNION
       SELECT seq FROM entries WHERE job_id = $1 AND stands IN ('always', 'both')
     ) AND seq NOT IN (SELECT target FROM corrected)
     ORDER BY seq`,
    [job],
  );
  return standing(rows.map(recorded));
}
