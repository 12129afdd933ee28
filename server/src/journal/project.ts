import { applyOperations, type Design } from '@torvek/core/document';
import { standsOf, targetOf, topicOf, type Entry } from '@torvek/core/record';
import type { Queryable } from '../database';
import type { ReleaseContent } from '../jobs/releases';
import type { Link } from './lines';
import type { FileLink, JobBody, ReleaseLink, ShopBody } from './links';

/** What whoever makes a link knows already, so that it is not worked out twice. */
export interface Known {
  /** The design that a change leads to. */
  design?: Design;
}

/** Writes the rows that follow from a link of a job: the database is what its chain tells, and nothing else. */
export async function projectJob(
  db: Queryable,
  job: string,
  { body, at }: Link,
  known: Known = {},
): Promise<void> {
  const link = body as unknown as JobBody;
  switch (link.kind) {
    case 'job':
      await db.query(
        `INSERT INTO jobs (id, name, demo, created_at, first_design, design) VALUES ($1, $2, $3, $4, $5, $5)`,
        [link.id, link.name, link.demo, link.createdAt, JSON.stringify(link.design)],
      );
      return;
    case 'name':
      await db.query('UPDATE jobs SET name = $2 WHERE id = $1', [job, link.name]);
      return;
    case 'change': {
      const { version, id, base, label, by, madeAt, savedAt, forward, inverse } = link;
      await db.query(
        `INSERT INTO changes (job_id, version, id, base, label, author, made_at, saved_at, forward, inverse)
         VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)`,
        [
          job,
          version,
          id,
          base,
          label,
          by,
          madeAt,
          savedAt,
          JSON.stringify(forward),
          JSON.stringify(inverse),
        ],
      );
      const design = known.design ?? applyOperations(await designOf(db, job), forward);
      await db.query('UPDATE jobs SET design = $2, version = $3 WHERE id = $1', [
        job,
        JSON.stringify(design),
        version,
      ]);
      return;
    }
    case 'entry':
      await insertEntry(db, JSON.parse(link.text) as Entry, link);
      return;
    case 'release':
      await insertRelease(db, job, link);
      return;
    case 'file':
      await insertFile(db, job, link);
      return;
    case 'imported':
      await db.query('UPDATE jobs SET imported_at = $2, imported_by = $3 WHERE id = $1', [job, at, link.by]);
      return;
    case 'repair':
      // What it brings came from these very rows.
      return;
  }
}

async function designOf(db: Queryable, job: string): Promise<Design> {
  const [row] = await db.query<{ design: string }>('SELECT design FROM jobs WHERE id = $1', [job]);
  return JSON.parse(row!.design) as Design;
}

async function insertEntry(db: Queryable, entry: Entry, { sha256, text }: { sha256: string; text: string }) {
  const { job, seq, id, body, previous, recordedAt } = entry;
  await db.query(
    `INSERT INTO entries (job_id, seq, id, kind, previous, sha256, recorded_at, topic, target, stands, content)
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
      standsOf(entry),
      text,
    ],
  );
}

async function insertRelease(db: Queryable, job: string, { id, sha256, text }: ReleaseLink): Promise<void> {
  const { number, version, label, by, at } = JSON.parse(text) as ReleaseContent;
  await db.query(
    `INSERT INTO releases (job_id, number, id, version, label, released_by, released_at, sha256, content)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9)`,
    [job, number, id, version, label, by, at, sha256, text],
  );
}

async function insertFile(db: Queryable, job: string, link: FileLink): Promise<void> {
  const { sha256, name, type, size, by, addedAt } = link;
  await db.query(
    `INSERT INTO files (job_id, sha256, name, type, size, added_by, added_at) VALUES ($1, $2, $3, $4, $5, $6, $7)`,
    [job, sha256, name, type, size, by, addedAt],
  );
}

/** The same for a link of the shop. Password hashes are in the journal alone. */
export async function projectShop(db: Queryable, { body }: Link): Promise<void> {
  const link = body as unknown as ShopBody;
  switch (link.kind) {
    case 'person':
      await db.query(
        `INSERT INTO people (id, name, roles, demo, active, created_at) VALUES ($1, $2, $3, $4, $5, $6)`,
        [link.id, link.name, JSON.stringify(link.roles), link.demo, link.active, link.createdAt],
      );
      return;
    case 'person-change':
      await db.query('UPDATE people SET roles = $2, active = $3 WHERE id = $1', [
        link.id,
        JSON.stringify(link.roles),
        link.active,
      ]);
      return;
    case 'instrument':
      await db.query(
        `INSERT INTO instruments (id, kind, name, serial, calibration_due, retired, created_at)
         VALUES ($1, $2, $3, $4, $5, $6, $7)`,
        [link.id, link.instrument, link.name, link.serial, link.calibrationDue, link.retired, link.createdAt],
      );
      return;
    case 'instrument-change':
      await db.query('UPDATE instruments SET calibration_due = $2, retired = $3 WHERE id = $1', [
        link.id,
        link.calibrationDue,
        link.retired,
      ]);
      return;
    case 'part':
      await db.query(
        `INSERT INTO library_parts (id, revision, kind, content, note, saved_by, saved_at)
         VALUES ($1, $2, $3, $4, $5, $6, $7)`,
        [
          link.part.id,
          link.part.revision,
          link.part.kind,
          JSON.stringify(link.part),
          link.note,
          link.by,
          link.savedAt,
        ],
      );
      return;
    case 'part-retired':
      await db.query('DELETE FROM library_retired WHERE id = $1', [link.id]);
      if (link.retired)
        await db.query('INSERT INTO library_retired (id, retired_by, retired_at) VALUES ($1, $2, $3)', [
          link.id,
          link.by,
          link.retiredAt,
        ]);
      return;
    default:
      // Passwords stand in the journal alone; where jobs stand, what was restored or repaired has no rows.
      return;
  }
}
