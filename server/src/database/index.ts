import { join } from 'node:path';
import type { Database } from './database';
import { migrate } from './migrate';
import { openPgliteThread } from './pglite';
import { openPostgres } from './postgres';

export { digestOf, type Database, type Digesting, type Queryable } from './database';
export { migrate, migrateTo, newestMigration } from './migrate';
export { openPglite, wrapPglite } from './pglite';

/** Opens and migrates the database of a data folder: embedded, or a PostgreSQL server when a URL is given. */
export async function openDatabase(dataFolder: string, url: string | undefined): Promise<Database> {
  const database = url ? await openPostgres(url) : await openPgliteThread(join(dataFolder, 'database'));
  await migrate(database);
  return database;
}
