// npm test: installs (packages, Chromium), lints, checks types, runs unit and server tests, then the browser tests.
import { join } from 'node:path';
import { ensureBuilt, ensureChromium, ensureInstalled, root, run, runLanes, scratchFolder } from './lib.mjs';

const bin = (name) => join(root, 'node_modules/.bin', name);
const step = (title) => console.log(`\n— ${title}`);

ensureInstalled();
ensureChromium();
step('Lint, formatting and types');
await runLanes([
  [
    [bin('prettier'), '--check', '--log-level', 'warn', '.'],
    [bin('eslint'), '.', '--max-warnings', '0'],
  ],
  // What core declares is checked once; the others read the declarations.
  [
    [bin('tsc'), '-b', 'core'],
    [bin('vue-tsc'), '-p', 'web'],
    [bin('tsc'), '-p', 'server'],
    [bin('tsc'), '-p', 'e2e'],
  ],
]);
step('Unit and server tests');
// Real processes are started as they were built.
await ensureBuilt();
const inMemory = { TMPDIR: scratchFolder() };
run(
  process.execPath,
  [
    // The database's code runs for seconds only: optimising it costs more than it brings.
    '--liftoff-only',
    '--max-semi-space-size=64',
    '--experimental-vm-modules',
    '--no-warnings',
    join(root, 'node_modules/jest/bin/jest.js'),
  ],
  { env: { ...process.env, ...inMemory, TORVEK_TEST_BUILT: '1', TORVEK_TEST_SUITES: '1' } },
);
step('Browser tests');
run(bin('playwright'), ['test', '-c', 'e2e/playwright.config.ts'], {
  env: { ...process.env, ...inMemory },
});
