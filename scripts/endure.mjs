// npm run endure [part [how often [seed]]]: kills, power cuts, alterations, malformed requests; with figures.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensureBuilt, ensureInstalled, root } from './lib.mjs';

ensureInstalled();
await ensureBuilt();
const script = join(root, 'scripts/endure/endure.ts');
// The tests' template of an empty database.
const template = spawnSync(
  process.execPath,
  [
    '--import',
    'tsx',
    '-e',
    `import(${JSON.stringify(join(root, 'server/test/template-database.ts'))}).then((m) => m.default())`,
  ],
  { cwd: root, stdio: 'inherit' },
);
if (template.status !== 0) process.exit(1);
const { status } = spawnSync(process.execPath, ['--import', 'tsx', script, ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
});
process.exit(status ?? 1);
