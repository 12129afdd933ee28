import { writeFileSync } from 'node:fs';
import { makeBackup } from '../take-away/backup';
import { command, withRooms } from './command';

/** `npm run backup -- <file>`, with the server stopped. */
command(async ([path], config) => {
  if (path === undefined) throw new Error('which file? npm run backup -- <file>');
  await withRooms(config, async (rooms) =>
    writeFileSync(path, await makeBackup(rooms, 'command line'), { flag: 'wx', mode: 0o600, flush: true }),
  );
  console.log(`Everything in ${config.dataFolder} is in ${path}. It holds password hashes: keep it so.`);
  return 0;
});
