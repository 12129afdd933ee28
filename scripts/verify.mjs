// npm run verify: with the server stopped, walks every job's record.
import { join } from 'node:path';
import { ensureBuilt, ensureInstalled, root, run } from './lib.mjs';

ensureInstalled();
await ensureBuilt();
run(process.execPath, [join(root, 'server/dist/verify.js')]);
