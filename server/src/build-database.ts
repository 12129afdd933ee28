import { existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { Clock } from './clock';
import { migrate, openDatabase, type Database } from './database';
import type { Journal } from './journal/journal';
import { shopChain } from './journal/links';
import { fill, reconcile } from './journal/reconcile';
import { keepHead } from './journal/writer';
import { mark } from './marks';

/** The marker of a database that is being built. */
export const rebuildingName = 'rebuilding';

export const messageOf = (error: unknown) =>
  error instanceof Error ? error.message.split('\n')[0]! : String(error);

/** Sets the database aside and builds it from the journals. */
export async function build(
  dataFolder: string,
  url: string | undefined,
  journal: Journal,
  clock: Clock,
  notes: string[],
): Promise<Database> {
  mark(dataFolder, rebuildingName, '');
  setAside(dataFolder, clock.now());
  let database = await openDatabase(dataFolder, url);
  if (url !== undefined && !(await isEmpty(database))) {
    notes.push(`the tables of before lie in the schema ${await tablesAside(database, clock.now())}`);
    database = await openDatabase(dataFolder, url);
  }
  await fillAll(database, journal, notes);
  const { notes: more } = await reconcile(database, journal, clock.now());
  notes.push(...more);
  await database.execute('ANALYZE');
  rmSync(join(dataFolder, rebuildingName), { force: true });
  return database;
}

/** On a server the tables of before are kept under another name. */
async function tablesAside(database: Database, now: string): Promise<string> {
  const name = `torvek_aside_${now.replace(/\D/g, '')}`;
  await database.execute(`ALTER SCHEMA public RENAME TO ${name}; CREATE SCHEMA public;`);
  await database.close();
  return name;
}

/** Tells every chain to an empty database. */
export async function fillAll(database: Database, journal: Journal, notes: string[]): Promise<void> {
  for (const chain of [shopChain, ...journal.jobs()]) {
    const read = journal.read(chain);
    journal.mend(chain, read);
    journal.stands(chain, read.head);
    if (read.head === null) continue;
    try {
      await database.transaction(async (db) => {
        await fill(db, chain, read);
        await keepHead(db, chain, read.head!);
      });
    } catch (error) {
      notes.push(`the chain of ${chain} could not be told: ${messageOf(error)}`);
    }
  }
}

/** Databases that were set aside and are still kept. */
const mostAside = 2;

function setAside(dataFolder: string, now: string): void {
  const path = join(dataFolder, 'database');
  if (!existsSync(path)) return;
  const aside = join(dataFolder, 'set-aside');
  mkdirSync(aside, { recursive: true });
  renameSync(path, join(aside, `database-${now.replace(/[:.]/g, '-')}`));
  for (const name of readdirSync(aside).sort().slice(0, -mostAside))
    rmSync(join(aside, name), { recursive: true });
}

export async function isEmpty(database: Database): Promise<boolean> {
  await migrate(database);
  const [row] = await database.query<{ count: number | string }>(
    'SELECT (SELECT count(*) FROM jobs) + (SELECT count(*) FROM people) + (SELECT count(*) FROM chains) AS count',
  );
  return Number(row?.count ?? 0) === 0;
}

/** Takes every table out of a database that is open, and makes them anew. */
export async function emptied(database: Database): Promise<void> {
  await database.execute('DROP SCHEMA public CASCADE; CREATE SCHEMA public;');
  await migrate(database);
}

/** Lets the database look at its tables anew when the record has grown: nobody else tells it. */
export async function analyze(database: Database): Promise<void> {
  const [row] = await database.query<{ known: number; count: number | string }>(
    `SELECT (SELECT reltuples FROM pg_class WHERE relname = 'entries' LIMIT 1) AS known, count(*) AS count FROM entries`,
  );
  const count = Number(row?.count ?? 0);
  if (Math.abs(count - Math.max(0, row?.known ?? 0)) > count / 10 + 50) await database.execute('ANALYZE');
}
