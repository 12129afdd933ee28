// npm start: installs, builds, serves the data that is there.
import { ensureBuilt, ensureInstalled, serve } from './lib.mjs';

ensureInstalled();
await ensureBuilt();
serve();
