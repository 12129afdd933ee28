import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { coreVersion } from '@torvek/core/design';
import { migrate, migrateTo, newestMigration, type Queryable } from '../database';
import { hashBytes } from '../files/files';
import { HttpError } from '../http/errors';
import { forgetEvaluations } from '../jobs/evaluated';
import type { Rooms } from '../rooms';
import { pack, textFile, unpack, type ArchiveProblem, type Contents } from './archive';

export const backupFormat = 'torvek-backup';
export const backupFormatVersion = 1;

/** All tables with data of their own, in an order in which each refers to earlier ones only. Sessions stay behind. */
const tables = [
  'people',
  'instruments',
  'library_parts',
  'library_retired',
  'jobs',
  'changes',
  'entries',
  'releases',
  'files',
] as const;
/** Rows of one insert. */
const chunk = 500;

/** Everything there is, as one sealed zip: tables, journal, files. It holds password hashes: for owners alone. */
export async function makeBackup(rooms: Rooms, by: string): Promise<Uint8Array> {
  const at = rooms.clock.now();
  return rooms.database.transaction(async (db) => {
    const contents: Contents = {};
    for (const table of tables) contents[`tables/${table}.jsonl`] = textFile(await dump(table, db));
    for (const { name, bytes } of rooms.ledger.journal.files()) contents[`journal/${name}`] = bytes;
    const files = await db.query<{ sha256: string }>('SELECT DISTINCT sha256 FROM files');
    for (const { sha256 } of files) contents[`files/${sha256}`] = rooms.files.read(sha256);
    const [{ migration } = { migration: 0 }] = await db.query<{ migration: number }>(
      'SELECT max(number) AS migration FROM migrations',
    );
    const manifest = {
      format: backupFormat,
      formatVersion: backupFormatVersion,
      migration,
      core: coreVersion,
      madeAt: at,
      madeBy: by,
    };
    return pack(manifest, contents, at);
  });
}

async function dump(table: string, db: Queryable): Promise<string> {
  const rows = await db.query<{ row: string }>(`SELECT row_to_json(t)::text AS row FROM ${table} t`);
  return rows.map(({ row }) => `${row}\n`).join('');
}

export interface RestoreReport {
  rows: Record<string, number>;
  /** Where what was there before lies now. */
  keptIn: string;
}

/**
 * Puts a backup in the place of everything. It is checked through first; what was there is kept beside: as a backup
 * of its own and the old journal. The database changes in one transaction or not at all.
 *
 * @throws HttpError 422 naming what does not fit; nothing is changed then
 */
export async function restoreBackup(rooms: Rooms, bytes: Uint8Array, by: string): Promise<RestoreReport> {
  const unpacked = unpack(bytes, backupFormat, backupFormatVersion);
  if (!unpacked.ok) throw refused(unpacked.problems);
  const { contents, manifest } = unpacked;
  const migration = Number(manifest.migration);
  const newest = await newestMigration();
  if (!(migration >= 1 && migration <= newest)) {
    const message = `is of data version ${migration}; this Torvek knows ${newest}`;
    throw refused([{ file: 'manifest.json', message }]);
  }
  const damaged = Object.entries(contents)
    .filter(([path, content]) => path.startsWith('files/') && hashBytes(content) !== path.slice(6))
    .map(([file]) => ({ file, message: 'is not what its name says' }));
  if (damaged.length > 0) throw refused(damaged);

  const keptIn = join(rooms.dataFolder, 'before-restore', rooms.clock.now().replace(/[:.]/g, '-'));
  mkdirSync(keptIn, { recursive: true });
  writeFileSync(join(keptIn, 'backup.zip'), await makeBackup(rooms, by));
  for (const [path, content] of Object.entries(contents))
    if (path.startsWith('files/')) rooms.files.write(path.slice(6), content);
  const rows = await replaceTables(rooms, contents, migration);
  const journal = Object.entries(contents)
    .filter(([path]) => path.startsWith('journal/'))
    .map(([path, content]) => ({ name: path.slice(8), bytes: content }));
  rooms.ledger.journal.replace(journal, join(keptIn, 'journal'));
  rooms.ledger.forget();
  rooms.library.forget();
  forgetEvaluations();
  return { rows, keptIn };
}

function refused(problems: ArchiveProblem[]): HttpError {
  const [first] = problems;
  const what = `${first?.file || 'the backup'} ${first?.message ?? 'does not fit'}`;
  return new HttpError(422, 'archive-broken', `nothing was restored: ${what}`, [], {
    report: { problems: problems.slice(0, 50) },
  });
}

async function replaceTables(
  { database }: Rooms,
  contents: Contents,
  migration: number,
): Promise<Record<string, number>> {
  const counts = await database.transaction(async (db) => {
    const within = {
      query: db.query.bind(db),
      // Migrations are files of several statements, each in a transaction of its own: here they share this one.
      execute: async (sql: string) => {
        for (const statement of statementsOf(sql)) await db.query(statement);
      },
      transaction: <T>(work: (inner: Queryable) => Promise<T>) => work(db),
      close: () => Promise.resolve(),
    };
    await db.query(`DROP TABLE IF EXISTS ${[...tables, 'sessions', 'migrations'].join(', ')} CASCADE`);
    await db.query('DROP FUNCTION IF EXISTS refuse_rewrite() CASCADE');
    await migrateTo(migration, within);
    const found: Record<string, number> = {};
    for (const table of tables) found[table] = await load(table, contents[`tables/${table}.jsonl`], db);
    return found;
  });
  await migrate(database);
  return counts;
}

async function load(table: string, bytes: Uint8Array | undefined, db: Queryable): Promise<number> {
  if (bytes === undefined) return 0;
  const lines = new TextDecoder()
    .decode(bytes)
    .split('\n')
    .filter((line) => line !== '');
  for (let at = 0; at < lines.length; at += chunk)
    await db.query(`INSERT INTO ${table} SELECT * FROM json_populate_recordset(NULL::${table}, $1::json)`, [
      `[${lines.slice(at, at + chunk).join(',')}]`,
    ]);
  return lines.length;
}

/** The statements of a migration, without its BEGIN and COMMIT; a function's body is one piece. */
function statementsOf(sql: string): string[] {
  const pieces = sql.split(/(\$\$[\s\S]*?\$\$)/);
  const statements: string[] = [];
  let current = '';
  for (const piece of pieces) {
    if (piece.startsWith('$$')) current += piece;
    else {
      const parts = piece.replace(/--.*$/gm, '').split(';');
      parts.forEach((part, i) => {
        current += part;
        if (i < parts.length - 1) {
          statements.push(current.trim());
          current = '';
        }
      });
    }
  }
  statements.push(current.trim());
  return statements.filter((one) => one !== '' && one !== 'BEGIN' && one !== 'COMMIT');
}
