import { build, ensureInstalled } from './lib.mjs';

ensureInstalled();
await build();
