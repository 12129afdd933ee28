import { openPgliteThread } from '../database/pglite';
import { migrate } from '../database';

/** At the build: makes an empty, migrated database in a folder. Copying it takes a twentieth of the time of making one. */
const folder = process.argv[2];
if (folder === undefined) throw new Error('which folder?');
const database = await openPgliteThread(folder, null);
await migrate(database);
await database.close();
