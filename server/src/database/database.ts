import { createHash } from 'node:crypto';

/** Rows of a query. */
export interface Queryable {
  /** Runs one statement with `$1`-style parameters. */
  query<Row>(sql: string, parameters?: unknown[]): Promise<Row[]>;
}

/** The digest of a long text that a statement answers with, made where the database is: the text itself goes nowhere. */
export interface Digesting extends Queryable {
  /** @param sql answers with one row: `count` and `text` */
  digest(sql: string, parameters: unknown[]): Promise<{ count: number; digest: string }>;
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

/** The same for whoever has the text here. */
export function digesting(on: Queryable): Digesting['digest'] {
  return async (sql, parameters) => {
    const [row] = await on.query<{ count: number | string; text: string | null }>(sql, parameters);
    const count = Number(row?.count ?? 0);
    return { count, digest: digestOf(count, row?.text ?? '') };
  };
}
