import { mkdir } from 'node:fs/promises';
import { PGlite } from '@electric-sql/pglite';
import type { Database, Queryable } from './database';

/** Opens the embedded database in a folder; without one it lives in memory (tests). */
export async function openPglite(folder: string | null, loadDataDir?: Blob): Promise<Database> {
  if (folder !== null) await mkdir(folder, { recursive: true });
  const options = loadDataDir === undefined ? {} : { loadDataDir };
  const lite = folder === null ? await PGlite.create(options) : await PGlite.create(folder, options);
  return wrapPglite(lite);
}

export function wrapPglite(lite: PGlite): Database {
  const queryable = (on: Pick<PGlite, 'query'>): Queryable => ({
    query: async <Row>(sql: string, parameters: unknown[] = []) =>
      (await on.query<Row>(sql, parameters)).rows,
  });
  return {
    ...queryable(lite),
    execute: async (sql) => void (await lite.exec(sql)),
    transaction: (work) =>
      lite.transaction((transaction) => work(queryable(transaction as unknown as PGlite))),
    close: () => lite.close(),
  };
}
