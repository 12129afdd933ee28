import { readFileSync, writeFileSync } from 'node:fs';
import { readConfig } from './config';
import { openDatabase } from './database';
import { HttpError } from './http/errors';
import { takeFolder } from './lock';
import { openRooms } from './rooms';
import { makeBackup, restoreBackup } from './take-away/backup';

/**
 * `npm run backup -- <file>` and `npm run restore -- <file> [--replace]`, with the server stopped. Restoring into a
 * folder that holds jobs or people asks for `--replace`; what was there is kept beside.
 */
async function run([what, path, ...flags]: string[]): Promise<void> {
  if ((what !== 'backup' && what !== 'restore') || path === undefined)
    throw new Error('which file? npm run backup -- <file>, or npm run restore -- <file> [--replace]');
  const config = readConfig(process.env);
  const release = await takeFolder(config.dataFolder);
  const database = await openDatabase(config.dataFolder, config.databaseUrl);
  const rooms = openRooms(database, config.dataFolder, { demoMode: true });
  try {
    if (what === 'backup') {
      writeFileSync(path, await makeBackup(rooms, 'command line'), { flag: 'wx' });
      console.log(`Everything in ${config.dataFolder} is in ${path}. It holds password hashes: keep it so.`);
      return;
    }
    const used = (await rooms.jobs.list()).length + (await rooms.people.list()).length;
    if (used > 0 && !flags.includes('--replace'))
      throw new Error(`${config.dataFolder} is in use; add --replace to put the backup in its place`);
    const { rows, keptIn } = await restoreBackup(rooms, readFileSync(path), 'command line');
    console.log(
      `Restored ${rows.jobs} jobs, ${rows.changes} changes, ${rows.entries} entries, ${rows.people} people.`,
    );
    console.log(`What was there before is kept in ${keptIn}.`);
  } finally {
    await database.close();
    release();
  }
}

run(process.argv.slice(2)).catch((error: unknown) => {
  console.error(`Torvek: ${error instanceof Error ? error.message : String(error)}`);
  if (error instanceof HttpError) console.error(JSON.stringify(error.extra.report ?? {}, null, 1));
  process.exit(1);
});
