import { digestOf, type Digesting, type Queryable } from '../database';
import type { ShopStory } from './shop-story';
import { storedOf, type Story } from './story';

type Value = string | number | boolean | null;
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
      'verdict',
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

/** What the rows of a job must be: all that its chain tells. */
export function rowsOfJob(story: Story): Rows[] {
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
    story.entries.map((one) => {
      const { seq, id, kind, previous, sha256, recordedAt, topic, target, verdict, text } = storedOf(one);
      return [seq, id, kind, previous, sha256, recordedAt, topic, target, verdict, text];
    }),
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

/** Columns of long texts, which are compared as they are: JSON without an end of line in it. */
const long = new Set(['content', 'forward', 'inverse', 'design', 'first_design']);

/** Writes rows down as both sides do: short columns as one list, each long one on a line of its own. */
function rowWriter(columns: readonly string[]): (row: Row) => string {
  const short = [...columns.keys()].filter((i) => !long.has(columns[i]!));
  const texts = [...columns.keys()].filter((i) => long.has(columns[i]!));
  return (row) => {
    let line = '[';
    for (const i of short) {
      const value = row[i]!;
      line += `${line === '[' ? '' : ', '}${typeof value === 'string' ? JSON.stringify(value) : String(value)}`;
    }
    line += ']';
    for (const i of texts) line += `\n${String(row[i])}`;
    return line;
  };
}

/** The same in SQL. */
function rowSql({ columns }: Pick<Rows, 'columns'>): string {
  const short = columns.filter((name) => !long.has(name));
  const texts = columns.filter((name) => long.has(name));
  return [`json_build_array(${short.join(', ')})::text`, ...texts].join(` || E'\\n' || `);
}

const picked = ({ table, job }: Pick<Rows, 'table' | 'job'>) =>
  job === null ? 'TRUE' : `${table === 'jobs' ? 'id' : 'job_id'} = $1`;
const isNumber = new Set(['changes.version', 'entries.seq', 'releases.number', 'library_parts.revision']);
const ordered = ({ table, columns, key }: Rows) =>
  columns
    .slice(0, key)
    .map((name) => (isNumber.has(`${table}.${name}`) ? name : `${name} COLLATE "C"`))
    .join(', ');

/** Rows of one page: a question of some milliseconds to the database. */
const perPage = 200;
/** Tables that are read in pages, by their number; all others are one page. */
const pagedBy = ({ table, columns }: Pick<Rows, 'table' | 'columns'>) =>
  isNumber.has(`${table}.${columns[0]!}`) ? columns[0]! : null;

/** Digests of pages by their number. */
export type Digests = Map<number, string>;

/** The rows of each page, as they must be. */
export function pagesOf(rows: Rows): Map<number, Row[]> {
  const paged = pagedBy(rows) !== null;
  const pages = new Map<number, Row[]>();
  for (const row of rows.rows) {
    const page = paged ? pageOf(row[0] as number) : 0;
    const there = pages.get(page);
    if (there === undefined) pages.set(page, [row]);
    else there.push(row);
  }
  return pages;
}

/** What the database must hold, page by page. */
export function digestsOf(rows: Rows): Digests {
  const written = rowWriter(rows.columns);
  return new Map(
    [...pagesOf(rows)].map(([page, there]) => [page, digestOf(there.length, there.map(written).join('\n'))]),
  );
}

/**
 * What the database holds, page by page.
 *
 * @param turn called after each page
 */
export async function digestsIn(db: Digesting, rows: Rows, turn: (done: number) => void): Promise<Digests> {
  const by = pagedBy(rows);
  const parameters = rows.job === null ? [] : [rows.job];
  const digests: Digests = new Map();
  const [last] =
    by === null
      ? []
      : await db.query<{ key: number | null }>(
          `SELECT max(${by}) AS key FROM ${rows.table} WHERE ${picked(rows)}`,
          parameters,
        );
  for (let page: number | null = by === null ? 0 : await nextPage(db, rows, -1); page !== null;) {
    const { where, parameters: all } = within(rows, page);
    const { count, digest } = await db.digest(
      `SELECT count(*) AS count, string_agg(${rowSql(rows)}, E'\\n' ORDER BY ${ordered(rows)}) AS text
       FROM ${rows.table} WHERE ${picked(rows)} ${where}`,
      all,
    );
    if (count > 0) digests.set(page, digest);
    turn(Math.min(1, ((page + 1) * perPage) / Math.max(1, last?.key ?? 1)));
    page = by === null ? null : await nextPage(db, rows, page);
  }
  return digests;
}

/** The page of the first number beyond a page; null: there is none. An index finds it, however far away it is. */
async function nextPage(db: Queryable, rows: Rows, page: number): Promise<number | null> {
  const by = pagedBy(rows)!;
  const from = page < 0 ? -2_147_483_648 : Math.min((page + 1) * perPage + 1, 2_147_483_647);
  const parameters = rows.job === null ? [from] : [rows.job, from];
  const [first] = await db.query<{ key: number | null }>(
    `SELECT min(${by}) AS key FROM ${rows.table} WHERE ${picked(rows)} AND ${by} >= $${parameters.length}`,
    parameters,
  );
  return first?.key == null ? null : pageOf(first.key);
}

const pageOf = (key: number) => Math.floor((Math.max(key, 1) - 1) / perPage);

/** The part of a WHERE that picks a page. */
function within(rows: Rows, page: number): { where: string; parameters: (string | number)[] } {
  const by = pagedBy(rows);
  const parameters: (string | number)[] = rows.job === null ? [] : [rows.job];
  if (by === null) return { where: '', parameters };
  const first = page === 0 ? -2_147_483_648 : page * perPage + 1;
  const n = parameters.length;
  return {
    where: `AND ${by} >= $${n + 1} AND ${by} <= $${n + 2}`,
    parameters: [...parameters, first, Math.min((page + 1) * perPage, 2_147_483_647)],
  };
}

export interface RowProblem {
  key: Value[];
  message: string;
}

/** What exactly differs in a page that does not fit. */
export async function rowProblems(
  db: Queryable,
  rows: Rows,
  page: number,
  expected: readonly Row[],
): Promise<RowProblem[]> {
  const { parameters, where } = within(rows, page);
  const found = await db.query<{ text: string }>(
    `SELECT json_build_array(${rows.columns.join(', ')})::text AS text
     FROM ${rows.table} WHERE ${picked(rows)} ${where} ORDER BY ${ordered(rows)}`,
    parameters,
  );
  const keyOf = (row: Row) => JSON.stringify(row.slice(0, rows.key));
  const there = new Map(
    found.map(({ text }) => {
      const row = JSON.parse(text) as Row;
      return [keyOf(row), row];
    }),
  );
  const problems: RowProblem[] = [];
  for (const row of expected) {
    const stored = there.get(keyOf(row));
    there.delete(keyOf(row));
    const key = row.slice(0, rows.key);
    if (stored === undefined) problems.push({ key, message: 'is missing in the database' });
    else
      for (const [i, name] of rows.columns.entries())
        if (stored[i] !== row[i] && !sameJson(name, stored[i]!, row[i]!))
          problems.push({ key, message: `has another ${inWords(name)} in the database than was recorded` });
  }
  for (const row of there.values())
    problems.push({ key: row.slice(0, rows.key), message: 'is in the database, and was never recorded' });
  return problems;
}

const inWords = (column: string) =>
  column.replaceAll('_', ' ').replace('content', 'text').replace('previous', 'previous hash');

/** A design is the same whatever the order of its keys. */
function sameJson(column: string, a: Value, b: Value): boolean {
  if (column !== 'design' && column !== 'first_design') return false;
  try {
    return sortedText(JSON.parse(String(a))) === sortedText(JSON.parse(String(b)));
  } catch {
    return false;
  }
}

const sortedText = (value: unknown): string =>
  JSON.stringify(value, (_key, one: unknown) =>
    typeof one === 'object' && one !== null && !Array.isArray(one)
      ? Object.fromEntries(Object.entries(one).sort(([x], [y]) => (x < y ? -1 : 1)))
      : one,
  );
