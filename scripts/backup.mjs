// npm run backup -- <file>: with the server stopped, everything into one sealed file.
import { command } from './lib.mjs';

await command('backup');
