// npm run rebuild: with the server stopped, builds the database anew from the journals.
import { command } from './lib.mjs';

await command('rebuild');
