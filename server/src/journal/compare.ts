import { digestOf, type Digesting, type Queryable } from '../database';
import type { Row, Rows, Value } from './rows';

/** Columns of keys that are numbers; all others are texts. */
const isNumber = new Set(['changes.version', 'entries.seq', 'releases.number', 'library_parts.revision']);

/** Columns of long texts, which are compared as they are: JSON without an end of line in it. */
const long = new Set(['content', 'forward', 'inverse', 'design', 'first_design']);

/**
 * Columns of numbers, hashes, times and words of ours, which are written as they are: what is recorded in them has no end of line, so
 * that a text with as many lines as expected cannot be divided in another way. Quicker than JSON on both sides.
 */
const plain = new Set([
  ...['seq', 'version', 'base', 'number', 'revision', 'size', 'target'],
  ...['previous', 'sha256', 'stands', 'recorded_at', 'made_at', 'saved_at', 'released_at', 'added_at'],
]);

/** How the columns of a table are written. */
const writing = (columns: readonly string[]) => {
  const of = (is: (name: string) => boolean) => [...columns.keys()].filter((i) => is(columns[i]!));
  const lines = of((name) => plain.has(name));
  const texts = of((name) => long.has(name));
  const hash = columns.indexOf('sha256');
  return {
    list: of((name) => !plain.has(name) && !long.has(name)),
    lines,
    texts,
    /** A text with its hash beside it is held against that where the database is: here its link was. */
    held:
      hash < 0 || !columns.includes('content')
        ? null
        : { lines: 1 + lines.length + texts.length, hashLine: 1 + lines.indexOf(hash) },
  };
};

/** Writes rows down as both sides do: what people typed as one list, everything else on a line of its own. */
function rowWriter(columns: readonly string[]): (row: Row) => string {
  const { list, lines, texts, held } = writing(columns);
  return (row) => {
    let line = '[';
    for (const i of list) {
      const value = row[i]!;
      line += `${line === '[' ? '' : ', '}${typeof value === 'string' ? JSON.stringify(value) : String(value)}`;
    }
    line += ']';
    for (const i of lines) line += row[i] === null ? '\n' : `\n=${String(row[i])}`;
    for (const i of texts) line += held === null ? `\n${String(row[i])}` : '\n';
    return line;
  };
}

/** The same in SQL. */
function rowSql({ columns }: Pick<Rows, 'columns'>): string {
  const { list, lines, texts } = writing(columns);
  const named = (of: number[]) => of.map((i) => columns[i]!);
  return [
    `json_build_array(${named(list).join(', ')})::text`,
    ...named(lines).map((name) => `coalesce('=' || ${name}, '')`),
    ...named(texts),
  ].join(` || E'\\n' || `);
}

const picked = ({ table, job }: Pick<Rows, 'table' | 'job'>) =>
  job === null ? 'TRUE' : `${table === 'jobs' ? 'id' : 'job_id'} = $1`;
const ordered = ({ table, columns, key }: Rows) =>
  columns
    .slice(0, key)
    .map((name) => (isNumber.has(`${table}.${name}`) ? name : `${name} COLLATE "C"`))
    .join(', ');

/** Rows of one page: a question of some milliseconds to the database. */
const perPage = 120;
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
  const { held } = writing(rows.columns);
  const [last] =
    by === null
      ? []
      : await db.query<{ key: number | null }>(
          `SELECT max(${by}) AS key FROM ${rows.table} WHERE ${picked(rows)}`,
          parameters,
        );
  for (let page: number | null = 0; page !== null;) {
    const { where, parameters: all, beyond } = within(rows, page);
    const { count, digest, next } = await db.digest(
      `SELECT count(*) AS count, string_agg(line, E'\\n') AS text, ${beyond} AS next
       FROM (SELECT ${rowSql(rows)} AS line FROM ${rows.table} WHERE ${picked(rows)} ${where} ORDER BY ${ordered(rows)}) AS lines`,
      all,
      held,
    );
    if (count > 0) digests.set(page, digest);
    turn(Math.min(1, ((page + 1) * perPage) / Math.max(1, last?.key ?? 1)));
    page = next === null ? null : pageOf(next);
  }
  return digests;
}

const pageOf = (key: number) => Math.floor((Math.max(key, 1) - 1) / perPage);

/** The part of a WHERE that picks a page, and the first number beyond it, which an index finds however far away it is. */
function within(
  rows: Rows,
  page: number,
): { where: string; beyond: string; parameters: (string | number)[] } {
  const by = pagedBy(rows);
  const parameters: (string | number)[] = rows.job === null ? [] : [rows.job];
  if (by === null) return { where: '', beyond: 'NULL::integer', parameters };
  const first = page === 0 ? -2_147_483_648 : page * perPage + 1;
  const n = parameters.length;
  return {
    where: `AND ${by} >= $${n + 1} AND ${by} <= $${n + 2}`,
    beyond: `(SELECT min(${by}) FROM ${rows.table} WHERE ${picked(rows)} AND ${by} > $${n + 2})`,
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
