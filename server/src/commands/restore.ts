import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { takeFolder } from '../lock';
import { backupsIn } from '../take-away/backup';
import { finishRestore, stageBackup } from '../take-away/restore';
import { command, withRooms } from './command';

/**
 * `npm run restore -- <file> [--replace]`, with the server stopped; `latest` stands for the newest of the nightly backups. Into a
 * folder that holds something it asks for `--replace`; what was there is kept beside. The database that is there need not open.
 */
command(async (words, config) => {
  const { dataFolder } = config;
  const wanted = words.find((word) => !word.startsWith('--'));
  if (wanted === undefined) throw new Error('which file? npm run restore -- <file> [--replace]');
  const nightly = join(dataFolder, 'backups');
  const newest = wanted === 'latest' && existsSync(nightly) ? backupsIn(nightly)[0]?.name : undefined;
  const path = newest === undefined ? wanted : join(nightly, newest);
  if (!existsSync(path)) throw new Error(`there is no file ${path}`);
  const journal = join(dataFolder, 'journal');
  const used = [journal, join(dataFolder, 'database')].some(
    (folder) => existsSync(folder) && readdirSync(folder).length > 0,
  );
  if (used && !words.includes('--replace'))
    throw new Error(`${dataFolder} is in use; add --replace to put the backup in its place`);
  const release = await takeFolder(dataFolder);
  const now = new Date().toISOString();
  const staged = await stageBackup({ bytes: readFileSync(path), dataFolder, by: 'command line', now });
  if (!staged.ok) {
    release();
    for (const { file, message } of staged.problems.slice(0, 20)) console.error(`${file} ${message}`);
    throw new Error('nothing was restored: the backup does not fit');
  }
  finishRestore(dataFolder);
  release();
  const { rows, keptIn, problems } = staged.report;
  await withRooms(config, () => Promise.resolve());
  console.log(
    `Restored ${rows.jobs} jobs, ${rows.changes} changes, ${rows.entries} entries, ${rows.people} people from ${path}.`,
  );
  for (const one of problems) console.log(`It was so when the backup was made: ${one}`);
  if (used) console.log(`What was there before is kept in ${keptIn}.`);
  return 0;
});
