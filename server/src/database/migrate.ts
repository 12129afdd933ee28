import { readdir, readFile } from 'node:fs/promises';
import type { Database } from './database';

const folder = new URL('./migrations/', import.meta.url);

/**
 * Brings the database to the newest numbered migration; each runs once, in a transaction of its own.
 *
 * @throws Error when the database is newer than this program
 */
export async function migrate(database: Database): Promise<void> {
  await migrateTo(Infinity, database);
}

/** The number of the newest migration this program knows. */
export async function newestMigration(): Promise<number> {
  return Math.max(0, ...(await migrationFiles()).map(numberOf));
}

const migrationFiles = async () => (await readdir(folder)).filter((name) => name.endsWith('.sql')).sort();

/** Brings the database to one numbered migration. */
export async function migrateTo(last: number, database: Database): Promise<void> {
  await database.execute(
    'CREATE TABLE IF NOT EXISTS migrations (number integer PRIMARY KEY, name text NOT NULL)',
  );
  const done = await database.query<{ number: number }>('SELECT number FROM migrations ORDER BY number');
  const files = await migrationFiles();
  const newest = Math.max(0, ...files.map(numberOf));
  const ahead = done.find(({ number }) => number > newest);
  if (ahead !== undefined) {
    throw new Error(`this data is of a newer Torvek (migration ${ahead.number}; this one knows ${newest})`);
  }
  for (const name of files) {
    const number = numberOf(name);
    if (number > last || done.some((one) => one.number === number)) continue;
    const sql = await readFile(new URL(name, folder), 'utf8');
    await database.execute(`BEGIN;\n${sql}\nINSERT INTO migrations VALUES (${number}, '${name}');\nCOMMIT;`);
  }
}

const numberOf = (name: string) => Number.parseInt(name, 10);
