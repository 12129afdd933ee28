// npm run verify: with the server stopped, holds journals, database and files against each other.
import { command } from './lib.mjs';

await command('verify');
