import { HttpError } from '../http/errors';
import { readConfig, type Config } from '../config';
import { takeFolder } from '../lock';
import { openRooms, type Rooms } from '../rooms';
import { openStore, type OpenOptions } from '../store';

/**
 * Runs a command on the data folder with the server stopped; what goes wrong is said in words.
 *
 * @param run gets the words after the command's name, and answers with the exit code
 */
export function command(run: (words: string[], config: Config) => Promise<number>): void {
  run(process.argv.slice(2), readConfig(process.env)).then(
    (code) => process.exit(code),
    (error: unknown) => {
      console.error(`Torvek: ${error instanceof Error ? error.message : String(error)}`);
      if (error instanceof HttpError && error.extra.report !== undefined)
        console.error(JSON.stringify(error.extra.report, null, 1));
      process.exit(2);
    },
  );
}

/** Opens the data folder for a command, and lets it go afterwards. */
export async function withRooms<T>(
  config: Config,
  work: (rooms: Rooms) => Promise<T>,
  options: OpenOptions = {},
): Promise<T> {
  const release = await takeFolder(config.dataFolder);
  try {
    const store = await openStore(config.dataFolder, config.databaseUrl, options);
    for (const note of store.notes) console.log(note);
    const rooms = openRooms(store, { demoMode: true });
    try {
      return await work(rooms);
    } finally {
      await rooms.writer.idle();
      await store.close();
    }
  } finally {
    release();
  }
}
