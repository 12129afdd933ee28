// npm run demo: installs, builds, fills an empty data folder with the demo jobs, serves.
import { buildAndServeDemo, ensureInstalled } from './lib.mjs';

ensureInstalled();
await buildAndServeDemo();
