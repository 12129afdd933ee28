import type { ArchiveProblem } from '@torvek/core/record';
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { migrate, migrateTo, newestMigration, openPglite, type Queryable } from '../database';
import { syncFolder } from '../files/disk';
import { hashBytes } from '../files/files';
import { Journal } from '../journal/journal';
import { lineOf } from '../journal/lines';
import { shopChain } from '../journal/links';
import { tellShop } from '../journal/shop-story';
import { tell } from '../journal/story';
import { takeUp } from '../journal/take-up';
import { mark } from '../marks';
import { unpack, type Contents } from './archive';

export const backupFormat = 'torvek-backup';
/** 2: chains and files. Backups of version 1 held the tables of the database. */
export const backupFormatVersion = 2;

export interface RestoreReport {
  rows: { jobs: number; changes: number; entries: number; releases: number; files: number; people: number };
  /** What in it does not hold; it was so when the backup was made. */
  problems: string[];
  /** Where what was there before lies now. */
  keptIn: string;
}

export type Staged = { ok: true; report: RestoreReport } | { ok: false; problems: ArchiveProblem[] };

const stagedName = 'restore-staged';
const markerName = 'restore.json';
const chunk = 500;

/**
 * Unpacks and checks a backup into a folder beside what is there, and decides with a marker. From then on a start, too, carries it
 * to its end; before, nothing has changed.
 */
export async function stageBackup({
  bytes,
  dataFolder,
  by,
  now,
}: {
  bytes: Uint8Array;
  dataFolder: string;
  by: string;
  now: string;
}): Promise<Staged> {
  const unpacked = unpack(bytes, backupFormat, backupFormatVersion);
  if (!unpacked.ok) return { ok: false, problems: unpacked.problems };
  const { contents, manifest } = unpacked;
  const damaged = Object.entries(contents)
    .filter(([path, content]) => path.startsWith('files/') && hashBytes(content) !== path.slice(6))
    .map(([file]) => ({ file, message: 'is not what its name says' }));
  if (damaged.length > 0 && manifest.formatVersion < 2) return { ok: false, problems: damaged };
  const staged = join(dataFolder, stagedName);
  rmSync(staged, { recursive: true, force: true });
  mkdirSync(join(staged, 'files'), { recursive: true });
  mkdirSync(join(staged, 'journal'));
  try {
    for (const [path, content] of Object.entries(contents)) {
      const [folder, name] = path.split('/');
      if ((folder === 'journal' || folder === 'files') && name !== undefined)
        writeFileSync(join(staged, folder, basename(name)), content, { flush: true, mode: 0o600 });
    }
    if (manifest.formatVersion < 2) {
      const problem = await tablesToChains(contents, Number(manifest.migration), staged, now);
      if (problem !== null) return { ok: false, problems: [problem] };
    }
    const report = reportOf(staged, join(dataFolder, 'before-restore', now.replace(/[:.]/g, '-')));
    if (report === null)
      return { ok: false, problems: [{ file: 'journal', message: 'holds nobody who could sign in' }] };
    report.problems.push(...damaged.map(({ file, message }) => `${file} ${message}`));
    await recordRestore(new Journal(join(staged, 'journal')), {
      by,
      madeAt: String(manifest.madeAt),
      madeBy: String(manifest.madeBy),
      keptIn: report.keptIn,
      now,
    });
    for (const folder of ['journal', 'files', '.']) syncFolder(join(staged, folder));
    mark(dataFolder, `${markerName}.part`, JSON.stringify({ keptIn: report.keptIn }));
    renameSync(join(dataFolder, `${markerName}.part`), join(dataFolder, markerName));
    syncFolder(dataFolder);
    return { ok: true, report };
  } finally {
    if (!existsSync(join(dataFolder, markerName))) rmSync(staged, { recursive: true, force: true });
  }
}

function reportOf(staged: string, keptIn: string): RestoreReport | null {
  const journal = new Journal(join(staged, 'journal'));
  const shop = tellShop(journal.read(shopChain));
  if (shop.people.size === 0) return null;
  const report: RestoreReport = {
    rows: { jobs: 0, changes: 0, entries: 0, releases: 0, files: 0, people: shop.people.size },
    problems: shop.problems.map(({ what, message }) => `${what} ${message}`),
    keptIn,
  };
  for (const id of journal.jobs()) {
    const story = tell(journal.read(id));
    if (story === null) {
      report.problems.push(`the journal of ${id} does not begin with a job`);
      continue;
    }
    report.rows.jobs += 1;
    report.rows.changes += story.changes.length;
    report.rows.entries += story.entries.length;
    report.rows.releases += story.releases.length;
    report.rows.files += story.files.length;
    report.problems.push(...story.problems.map(({ what, message }) => `${id}: ${what} ${message}`));
  }
  return report;
}

async function recordRestore(
  journal: Journal,
  {
    by,
    madeAt,
    madeBy,
    keptIn,
    now,
  }: { by: string; madeAt: string; madeBy: string; keptIn: string; now: string },
): Promise<void> {
  const { bytes } = lineOf({ kind: 'restored', by, madeAt, madeBy, keptIn }, journal.head(shopChain), now);
  await journal.write(new Map([[shopChain, { lines: [bytes] }]]));
}

/** A backup of version 1: its tables go through a database in memory, which is taken up into chains. */
async function tablesToChains(
  contents: Contents,
  migration: number,
  staged: string,
  now: string,
): Promise<ArchiveProblem | null> {
  const newest = await newestMigration();
  if (!(migration >= 1 && migration <= newest))
    return {
      file: 'manifest.json',
      message: `is of data version ${migration}; this Torvek knows ${newest}`,
    };
  const scratch = await openPglite();
  try {
    await migrateTo(migration, scratch);
    for (const table of tables) await load(table, contents[`tables/${table}.jsonl`], scratch);
    await migrate(scratch);
    await takeUp(scratch, staged, now);
    return null;
  } finally {
    await scratch.close();
  }
}

/** Tables of a backup of version 1, in an order in which each refers to earlier ones only. */
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

async function load(table: string, bytes: Uint8Array | undefined, db: Queryable): Promise<void> {
  if (bytes === undefined) return;
  const lines = new TextDecoder()
    .decode(bytes)
    .split('\n')
    .filter((line) => line !== '');
  for (let at = 0; at < lines.length; at += chunk)
    await db.query(`INSERT INTO ${table} SELECT * FROM json_populate_recordset(NULL::${table}, $1::json)`, [
      `[${lines.slice(at, at + chunk).join(',')}]`,
    ]);
}

/**
 * Carries a restore to its end that was decided: what was there goes aside, what came takes its place. Each step can be repeated.
 *
 * @param databaseIsOpen whoever has it open empties it; otherwise it goes aside, too
 * @returns where what was there lies; null: there was nothing to carry on
 */
export function finishRestore(dataFolder: string, databaseIsOpen = false): string | null {
  const marker = join(dataFolder, markerName);
  const staged = join(dataFolder, stagedName);
  if (!existsSync(marker)) {
    rmSync(staged, { recursive: true, force: true });
    return null;
  }
  const { keptIn } = JSON.parse(readFileSync(marker, 'utf8')) as { keptIn: string };
  mkdirSync(keptIn, { recursive: true });
  const aside = (name: string) => {
    const from = join(dataFolder, name);
    if (existsSync(from) && !existsSync(join(keptIn, name))) renameSync(from, join(keptIn, name));
  };
  if (existsSync(join(staged, 'journal'))) {
    aside('journal');
    renameSync(join(staged, 'journal'), join(dataFolder, 'journal'));
  }
  mkdirSync(join(dataFolder, 'files'), { recursive: true });
  if (existsSync(join(staged, 'files')))
    for (const name of readdirSync(join(staged, 'files')))
      renameSync(join(staged, 'files', name), join(dataFolder, 'files', name));
  if (!databaseIsOpen) aside('database');
  mark(dataFolder, 'rebuilding', '');
  rmSync(staged, { recursive: true, force: true });
  rmSync(marker, { force: true });
  syncFolder(dataFolder);
  return keptIn;
}
