/** Rows of a query. */
export interface Queryable {
  /** Runs one statement with `$1`-style parameters. */
  query<Row>(sql: string, parameters?: unknown[]): Promise<Row[]>;
}

/** What the rooms need of a database: plain SQL and transactions. */
export interface Database extends Queryable {
  /** Runs several statements without parameters (migrations). */
  execute(sql: string): Promise<void>;
  /** All or nothing; the callback's queries run on one connection, serialised where rows are locked. */
  transaction<T>(work: (db: Queryable) => Promise<T>): Promise<T>;
  close(): Promise<void>;
}
