// npm run restore -- <file>: with the server stopped, a backup in the place of everything.
import { join } from 'node:path';
import { ensureBuilt, ensureInstalled, root, run } from './lib.mjs';

ensureInstalled();
await ensureBuilt();
run(process.execPath, [join(root, 'server/dist/backup.js'), 'restore', ...process.argv.slice(2)], {
  cwd: process.cwd(),
});
