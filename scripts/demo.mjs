// npm run demo: installs, builds, fills an empty data folder with the demo jobs, serves.
import { ensureBuiltAndSeeded, ensureInstalled, serve } from './lib.mjs';

ensureInstalled();
await ensureBuiltAndSeeded();
serve(['--demo']);
