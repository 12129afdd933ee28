import type { Operation, Design } from '@torvek/core/document';
import type { Part } from '@torvek/core/parts';
import type { InstrumentKind, Role } from '@torvek/core/record';
import { applyOperations } from '@torvek/core/document';
import type { Queryable } from '../database';
import type { ChangeRow } from '../jobs/changes';
import type { Secret } from '../people/secrets';
import type { ChangeLink, JobFact, JobLink, ShopFact } from './links';
import { designHashOf } from './story';

interface JobRow {
  id: string;
  name: string;
  demo: boolean;
  created_at: string;
  first_design: string;
  imported_at: string | null;
  imported_by: string | null;
}

/** What the database has of a job, as the facts its chain would tell; the job itself first, null when it is not there. */
export async function factsInDatabase(db: Queryable, job: string): Promise<[JobLink, ...JobFact[]] | null> {
  const [frame] = await db.query<JobRow>('SELECT * FROM jobs WHERE id = $1', [job]);
  if (frame === undefined) return null;
  const first = JSON.parse(frame.first_design) as Design;
  const rows = await db.query<ChangeRow>('SELECT * FROM changes WHERE job_id = $1 ORDER BY version', [job]);
  const entries = await entriesOf(db, job);
  const releases = await db.query<{ id: string; sha256: string; text: string }>(
    'SELECT id, sha256, content AS text FROM releases WHERE job_id = $1 ORDER BY number',
    [job],
  );
  const files = await db.query<{
    sha256: string;
    name: string;
    type: string;
    size: number;
    by: string;
    addedAt: string;
  }>(
    `SELECT sha256, name, type, size, added_by AS by, added_at AS "addedAt" FROM files WHERE job_id = $1
     ORDER BY added_at, sha256`,
    [job],
  );
  return [
    {
      kind: 'job',
      id: frame.id,
      name: frame.name,
      demo: frame.demo,
      createdAt: frame.created_at,
      design: first,
    },
    ...(frame.imported_by === null
      ? []
      : [{ kind: 'imported' as const, by: frame.imported_by, vouchedBy: 'not known' }]),
    ...changesOf(first, rows),
    ...files.map((one) => ({ kind: 'file' as const, ...one })),
    ...entries.map((one) => ({ kind: 'entry' as const, ...one })),
    ...releases.map((one) => ({ kind: 'release' as const, ...one })),
  ];
}

/** Pages: the embedded database is slow with large answers. */
const atOnce = 500;

async function entriesOf(db: Queryable, job: string): Promise<{ sha256: string; text: string }[]> {
  const all: { sha256: string; text: string }[] = [];
  for (let after = -2_147_483_648; ;) {
    const page = await db.query<{ seq: number; sha256: string; text: string }>(
      'SELECT seq, sha256, content AS text FROM entries WHERE job_id = $1 AND seq > $2 ORDER BY seq LIMIT $3',
      [job, after, atOnce],
    );
    for (const { sha256, text } of page) all.push({ sha256, text });
    if (page.length < atOnce) return all;
    after = page.at(-1)!.seq;
  }
}

function changesOf(first: Design, rows: ChangeRow[]): ChangeLink[] {
  let design: Design | null = first;
  return rows.map(({ version, id, base, label, author, made_at, saved_at, forward, inverse }) => {
    const operations = JSON.parse(forward) as Operation[];
    design = design === null ? null : applied(design, operations);
    return {
      kind: 'change',
      version,
      id,
      base,
      label,
      by: author,
      madeAt: made_at,
      savedAt: saved_at,
      forward: operations,
      inverse: JSON.parse(inverse) as Operation[],
      design: design === null ? '' : designHashOf(design),
    };
  });
}

function applied(design: Design, operations: Operation[]): Design | null {
  try {
    return applyOperations(design, operations);
  } catch {
    return null;
  }
}

/**
 * What the database has of the shop.
 *
 * @param secrets passwords by person, as far as they are known elsewhere: the database holds none
 */
export async function shopInDatabase(
  db: Queryable,
  secrets: ReadonlyMap<string, Secret>,
): Promise<ShopFact[]> {
  const people = await db.query<{
    id: string;
    name: string;
    roles: string;
    demo: boolean;
    active: boolean;
    created_at: string;
  }>('SELECT * FROM people ORDER BY created_at, id');
  const instruments = await db.query<{
    id: string;
    kind: InstrumentKind;
    name: string;
    serial: string;
    calibration_due: string | null;
    retired: boolean;
    created_at: string;
  }>('SELECT * FROM instruments ORDER BY created_at, id');
  const parts = await db.query<{ content: string; note: string; saved_by: string; saved_at: string }>(
    'SELECT * FROM library_parts ORDER BY saved_at, id, revision',
  );
  const retired = await db.query<{ id: string; retired_by: string; retired_at: string }>(
    'SELECT * FROM library_retired ORDER BY id',
  );
  const jobs = await db.query<{ id: string; name: string; imported_by: string | null }>(
    'SELECT id, name, imported_by FROM jobs ORDER BY created_at, id',
  );
  return [
    ...people.map(({ id, name, roles, demo, active, created_at }) => ({
      kind: 'person' as const,
      id,
      name,
      roles: JSON.parse(roles) as Role[],
      demo,
      active,
      createdAt: created_at,
      passwordHash: '',
      ...secrets.get(id),
      by: 'not known',
    })),
    ...instruments.map(({ id, kind, name, serial, calibration_due, retired: gone, created_at }) => ({
      kind: 'instrument' as const,
      id,
      instrument: kind,
      name,
      serial,
      calibrationDue: calibration_due,
      retired: gone,
      createdAt: created_at,
      by: 'not known',
    })),
    ...parts.map(({ content, note, saved_by, saved_at }) => ({
      kind: 'part' as const,
      part: JSON.parse(content) as Part,
      note,
      by: saved_by,
      savedAt: saved_at,
    })),
    ...retired.map(({ id, retired_by, retired_at }) => ({
      kind: 'part-retired' as const,
      id,
      retired: true,
      by: retired_by,
      retiredAt: retired_at,
    })),
    ...jobs.map(({ id, name, imported_by }) => ({
      kind: 'job-here' as const,
      id,
      name,
      by: imported_by ?? 'not known',
    })),
  ];
}

/** Names a fact among its kind: two with the same name are the same fact. */
export function factKey(fact: JobFact | ShopFact): string {
  switch (fact.kind) {
    case 'change':
      return `change ${fact.version}`;
    case 'entry':
    case 'release':
    case 'file':
      return `${fact.kind} ${fact.sha256}`;
    case 'person':
    case 'instrument':
    case 'part-retired':
    case 'job-here':
      return `${fact.kind} ${fact.id}`;
    case 'part':
      return `part ${fact.part.id} ${fact.part.revision}`;
    default:
      return fact.kind;
  }
}
