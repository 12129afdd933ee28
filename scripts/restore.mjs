// npm run restore -- <file> [--replace]: with the server stopped, a backup in the place of everything.
import { command } from './lib.mjs';

await command('restore');
