import { createHash, hash } from 'node:crypto';

/** Rows of a query. */
export interface Queryable {
  /** Runs one statement with `$1`-style parameters. */
  query<Row>(sql: string, parameters?: unknown[]): Promise<Row[]>;
}

/** A text of rows of so many lines, in which the last line of a row is held by its SHA-256, written as `=<hex>` in another. */
export interface HeldTexts {
  lines: number;
  hashLine: number;
}

export interface Digested {
  count: number;
  digest: string;
  next: number | null;
}

/** The digest of a long text that a statement answers with, made where the database is: the text itself goes nowhere. */
export interface Digesting extends Queryable {
  /**
   * @param sql answers with one row: `count`, `text`, and the `next` number to go on from
   * @param held where the text holds longer ones beside their hashes: those that fit are left out of the digest
   */
  digest(sql: string, parameters: unknown[], held: HeldTexts | null): Promise<Digested>;
}

/** What the rooms need of a database: plain SQL and transactions. */
export interface Database extends Digesting {
  /** Runs several statements without parameters (migrations). */
  execute(sql: string): Promise<void>;
  /** All or nothing; the callback's queries run on one connection, serialised where rows are locked. */
  transaction<T>(work: (db: Queryable) => Promise<T>): Promise<T>;
  close(): Promise<void>;
}

/** BLAKE2b of a count and a text. Nothing keeps these digests: they may be of the quicker kind. */
export const digestOf = (count: number, text: string) =>
  createHash('blake2b512').update(`${count}\n`).update(text).digest('hex');

/** Leaves out the texts that fit the hashes beside them; one that does not stays, and is marked. */
function withoutHeld(text: string, count: number, { lines, hashLine }: HeldTexts): string {
  const all = text.split('\n');
  if (all.length !== count * lines) return text;
  for (let from = 0; from < all.length; from += lines) {
    const at = from + lines - 1;
    const held = all[at]!;
    all[at] = all[from + hashLine] === `=${hash('sha256', held, 'hex')}` ? '' : `another: ${held}`;
  }
  return all.join('\n');
}

/** The same for whoever has the text here. */
export function digesting(on: Queryable): Digesting['digest'] {
  return async (sql, parameters, held) => {
    const [row] = await on.query<{ count: number | string; text: string | null; next: number | null }>(
      sql,
      parameters,
    );
    const count = Number(row?.count ?? 0);
    const text = row?.text ?? '';
    const digest = digestOf(count, held === null ? text : withoutHeld(text, count, held));
    return { count, digest, next: row?.next ?? null };
  };
}
