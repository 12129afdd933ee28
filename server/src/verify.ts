import { readConfig } from './config';
import { openDatabase } from './database';
import { takeFolder } from './lock';
import { refuseLostDatabase, refuseMissingData } from './refused';
import { openRooms } from './rooms';

/** `npm run verify`: walks every job's chain with the server stopped; exit 1 when something does not fit. */
async function verifyAll(): Promise<void> {
  const config = readConfig(process.env);
  refuseMissingData(config);
  const release = await takeFolder(config.dataFolder);
  const database = await openDatabase(config.dataFolder, config.databaseUrl);
  const rooms = openRooms(database, config.dataFolder);
  await refuseLostDatabase(rooms);
  const { jobs, ledger } = rooms;
  let whole = true;
  const known = new Set((await jobs.list()).map(({ id }) => id));
  for (const id of ledger.journal.jobs().filter((one) => !known.has(one))) {
    console.log(`BROKEN  a journal of ${id} lies here, and the job is not in the database`);
    whole = false;
  }
  for (const { id, name } of await jobs.list()) {
    const { ok, entries, problems } = await ledger.verify(id);
    console.log(`${ok ? 'fits   ' : 'BROKEN '} ${name} (${id}): ${entries} entries`);
    for (const { seq, message } of problems) console.log(`        entry ${seq} ${message}`);
    whole &&= ok;
  }
  console.log(
    whole
      ? 'Every entry fits the one before it, its own hash and the journal beside the database. A complete rewrite of chain and journal together would not show.'
      : 'The record does not fit.',
  );
  await database.close();
  release();
  process.exit(whole ? 0 : 1);
}

verifyAll().catch((error: unknown) => {
  console.error(error instanceof Error ? `Torvek: ${error.message}` : 'Torvek: failed');
  process.exit(2);
});
