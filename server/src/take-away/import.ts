import type { Queryable } from '../database';
import { HttpError } from '../http/errors';
import { heavy } from '../heavy/heavy';
import { lineOf, readChain } from '../journal/lines';
import { insertRows, rowsOfJob } from '../journal/rows';
import { tell } from '../journal/story';
import type { Rooms } from '../rooms';
import type { ImportReport } from '@torvek/core/record';
import type { Checked } from './check';

/** After so many new entries the database looks at its tables anew. */
const manyEntries = 2000;

/** Checks an archive of a job; nothing is written. */
export async function checkedArchive(bytes: Uint8Array): Promise<Checked> {
  return heavy('checkArchive', bytes, bytes.length);
}

/**
 * Brings a job in: checked first, and then all of it or nothing. Its chain goes on here with a link that says who brought it and
 * what vouched for it.
 *
 * @throws HttpError 422 with the report when something does not fit, 409 when the job is here already
 */
export async function importJob(rooms: Rooms, bytes: Uint8Array, by: string): Promise<ImportReport> {
  const { report, chain, head, files } = await checkedArchive(bytes);
  if (chain === null || report.job === null) {
    const first = report.problems[0];
    const message = `nothing was brought in: ${first?.file || 'the archive'} ${first?.message ?? 'does not fit'}`;
    throw new HttpError(422, 'archive-broken', message, [], { report });
  }
  const { id, name } = report.job;
  const refuseTwice = async (db: Queryable = rooms.database) => {
    const there = await rooms.jobs.find(id, db);
    if (there !== null || rooms.journal.has(id))
      throw new HttpError(
        409,
        'job-is-here',
        `“${there?.name ?? name}” is here already; a job is in one place once`,
      );
  };
  await refuseTwice();
  for (const file of files) rooms.files.write(file.sha256, file.bytes);
  const { vouchedBy } = report;
  const imported = lineOf({ kind: 'imported', by, vouchedBy }, head, rooms.clock.now());
  const whole = Buffer.concat([chain, imported.bytes]);
  const story = tell(readChain(whole))!;
  try {
    await rooms.writer.write(async (turn) => {
      await refuseTwice(turn.db);
      turn.adopt(id, whole, imported.link);
      for (const rows of rowsOfJob(story)) await insertRows(turn.db, rows);
      await turn.shop({ kind: 'job-here', id, name, by });
    });
  } catch (error) {
    if ((error as { code?: string }).code === '23505')
      throw new HttpError(409, 'id-taken', 'changes or entries of this job are here under another job');
    throw error;
  }
  if (report.entries > manyEntries) await rooms.database.execute('ANALYZE');
  return report;
}
