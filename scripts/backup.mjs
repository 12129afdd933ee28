// npm run backup -- <file>: with the server stopped, everything into one sealed file.
import { join } from 'node:path';
import { ensureBuilt, ensureInstalled, root, run } from './lib.mjs';

ensureInstalled();
await ensureBuilt();
run(process.execPath, [join(root, 'server/dist/backup.js'), 'backup', ...process.argv.slice(2)], {
  cwd: process.cwd(),
});
