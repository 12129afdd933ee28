// npm run endure [part [how often [seed]]]: the long tests, kills, power cuts, alterations,
// malformed requests; with figures.
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
const part = process.argv[2];
const started = (args, env) =>
  spawnSync(process.execPath, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } })
    .status ?? 1;
// The tests that `npm test` runs in part, in full.
const tests = () =>
  started(
    [
      ...['--max-semi-space-size=64', '--experimental-vm-modules', '--no-warnings'],
      join(root, 'node_modules/jest/bin/jest.js'),
      ...[
        '--testTimeout=600000',
        '--testPathPatterns',
        'power-cut',
        'process',
        'fuzz',
        'damage',
        'take-away',
        'together',
      ],
      ...['library-bus', 'offers'],
    ],
    { TORVEK_ENDURE: '1', TORVEK_TEST_BUILT: '1' },
  );
let failed = part === undefined || part === 'tests' ? tests() !== 0 : false;
if (part !== 'tests') failed = started(['--import', 'tsx', script, ...process.argv.slice(2)]) !== 0 || failed;
process.exit(failed ? 1 : 0);
