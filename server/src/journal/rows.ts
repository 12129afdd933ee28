import type { Queryable } from '../database';
import type { ShopStory } from './shop-story';
import type { Story } from './story';

export type Value = string | number | boolean | null;
export type Row = Value[];

/** Rows as they must stand in one table, in the order of its key. */
export interface Rows {
  table: string;
  columns: readonly string[];
  /** How many of the first columns make the key. */
  key: number;
  /** What the rows of one job are picked by; null: the table belongs to the shop. */
  job: string | null;
  rows: Row[];
}

type Table = Pick<Rows, 'table' | 'columns' | 'key'>;

/** The tables of a job, in an order in which each refers to earlier ones only. */
const jobTables: Table[] = [
  {
    table: 'jobs',
    columns: [
      'id',
      'name',
      'demo',
      'created_at',
      'first_design',
      'design',
      'version',
      'imported_at',
      'imported_by',
    ],
    key: 1,
  },
  {
    table: 'changes',
    columns: ['version', 'id', 'base', 'label', 'author', 'made_at', 'saved_at', 'forward', 'inverse'],
    key: 1,
  },
  {
    table: 'entries',
    columns: [
      'seq',
      'id',
      'kind',
      'previous',
      'sha256',
      'recorded_at',
      'topic',
      'target',
      'stands',
      'content',
    ],
    key: 1,
  },
  {
    table: 'releases',
    columns: ['number', 'id', 'version', 'label', 'released_by', 'released_at', 'sha256', 'content'],
    key: 1,
  },
  { table: 'files', columns: ['sha256', 'name', 'type', 'size', 'added_by', 'added_at'], key: 1 },
];

const shopTables: Table[] = [
  { table: 'people', columns: ['id', 'name', 'roles', 'demo', 'active', 'created_at'], key: 1 },
  {
    table: 'instruments',
    columns: ['id', 'kind', 'name', 'serial', 'calibration_due', 'retired', 'created_at'],
    key: 1,
  },
  {
    table: 'library_parts',
    columns: ['id', 'revision', 'kind', 'content', 'note', 'saved_by', 'saved_at'],
    key: 2,
  },
  { table: 'library_retired', columns: ['id', 'retired_by', 'retired_at'], key: 1 },
];

/** The tables of a job, without rows. */
export const tablesOfJob = (job: string): Rows[] => jobTables.map((one) => ({ ...one, job, rows: [] }));
/** Those of the shop. */
export const tablesOfShop: Rows[] = shopTables.map((one) => ({ ...one, job: null, rows: [] }));

/**
 * What the rows of a job must be: all that its chain tells.
 *
 * @param texts false: without the texts of entries, for digests, which go by their hashes
 */
export function rowsOfJob(story: Story, { texts } = { texts: true }): Rows[] {
  const job = story.job.id;
  const rows: Row[][] = [
    [
      [
        job,
        story.name,
        story.job.demo,
        story.job.createdAt,
        JSON.stringify(story.job.design),
        JSON.stringify(story.design),
        story.changes.length,
        story.imported?.at ?? null,
        story.imported?.by ?? null,
      ],
    ],
    story.changes.map((one) => [
      one.version,
      one.id,
      one.base,
      one.label,
      one.by,
      one.madeAt,
      one.savedAt,
      JSON.stringify(one.forward),
      JSON.stringify(one.inverse),
    ]),
    story.entries.map((one) => [
      one.seq,
      one.id,
      one.kind,
      one.previous,
      one.sha256,
      one.recordedAt,
      one.topic,
      one.target,
      one.stands,
      texts ? one.link.text : '',
    ]),
    story.releases.map(({ id, sha256, text, content: { number, version, label, by, at } }) => [
      number,
      id,
      version,
      label,
      by,
      at,
      sha256,
      text,
    ]),
    inOrder(
      story.files.map(({ sha256, name, type, size, by, addedAt }) => [sha256, name, type, size, by, addedAt]),
    ),
  ];
  return tablesOfJob(job).map((table, i) => ({ ...table, rows: rows[i]! }));
}

export function rowsOfShop(story: ShopStory): Rows[] {
  const rows: Row[][] = [
    [...story.people.values()].map((one) => [
      one.id,
      one.name,
      JSON.stringify(one.roles),
      one.demo,
      one.active,
      one.createdAt,
    ]),
    [...story.instruments.values()].map((one) => [
      one.id,
      one.instrument,
      one.name,
      one.serial,
      one.calibrationDue,
      one.retired,
      one.createdAt,
    ]),
    story.parts.map(({ part, note, by, savedAt }) => [
      part.id,
      part.revision,
      part.kind,
      JSON.stringify(part),
      note,
      by,
      savedAt,
    ]),
    [...story.retired.values()].map(({ id, by, retiredAt }) => [id, by, retiredAt]),
  ];
  return tablesOfShop.map((table, i) => ({ ...table, rows: inOrder(rows[i]!) }));
}

/** By the first columns, texts by their code points, as `COLLATE "C"` does. */
function inOrder(rows: Row[]): Row[] {
  return rows.sort((a, b) => {
    for (const [i, x] of a.entries()) {
      const y = b[i]!;
      if (x === y) continue;
      if (typeof x === 'number' && typeof y === 'number') return x - y;
      return Buffer.compare(Buffer.from(String(x)), Buffer.from(String(y)));
    }
    return 0;
  });
}

/** Rows of one insert. */
const atOnce = 500;

/** Writes rows into tables that do not have them. */
export async function insertRows(db: Queryable, { table, columns, job, rows }: Rows): Promise<void> {
  // The table of jobs itself is picked by its id.
  const own = job !== null && table !== 'jobs';
  for (let at = 0; at < rows.length; at += atOnce) {
    const objects = rows
      .slice(at, at + atOnce)
      .map((row) => Object.fromEntries([...columns.entries()].map(([i, name]) => [name, row[i]!])));
    if (own) for (const one of objects) one.job_id = job;
    const names = [...(own ? ['job_id'] : []), ...columns].join(', ');
    await db.query(
      `INSERT INTO ${table} (${names}) SELECT ${names} FROM json_populate_recordset(NULL::${table}, $1::json)`,
      [JSON.stringify(objects)],
    );
  }
}
