// npm run owner -- <name>: with the server stopped, gives a person a new password.
import { command } from './lib.mjs';

await command('owner');
