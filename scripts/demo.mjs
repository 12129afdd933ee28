// npm run demo: installs, builds, fills an empty data folder with the demo jobs, serves.
import { ensureBuilt, ensureInstalled, serve } from './lib.mjs';

ensureInstalled();
await ensureBuilt();
serve(['--demo']);
