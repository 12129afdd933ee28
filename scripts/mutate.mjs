// npm run mutate [word]: makes plausible mistakes in a copy of the tree, one at a time, and says which no test notices.
import { spawnSync } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { ensureInstalled, root, scratchFolder } from './lib.mjs';
import { mutations as older } from './mutate/mutations.mjs';
import { newer } from './mutate/newer.mjs';

ensureInstalled();
const copy = join(scratchFolder(), `torvek-mutate-${process.pid}`);
const mostSurvivors = 2;

/** The sources, with the packages of this tree and the workspaces of the copy. */
function makeCopy() {
  mkdirSync(copy);
  const left = new Set(['node_modules', '.git', 'dist', 'data', 'test-results']);
  for (const name of readdirSync(root)) {
    if (left.has(name)) continue;
    cpSync(join(root, name), join(copy, name), {
      recursive: true,
      filter: (path) => !/\/(node_modules|dist)$/.test(path),
    });
  }
  for (const folder of ['', 'core', 'server', 'web', 'e2e']) {
    const from = join(root, folder, 'node_modules');
    const to = join(copy, folder, 'node_modules');
    if (!existsSync(from)) continue;
    const names = readdirSync(from);
    mkdirSync(to, { recursive: true });
    for (const name of names) if (name !== '@torvek') symlinkSync(join(from, name), join(to, name));
  }
  mkdirSync(join(copy, 'node_modules/@torvek'));
  for (const name of ['core', 'server', 'web', 'e2e'])
    symlinkSync(join(copy, name), join(copy, 'node_modules/@torvek', name));
}

/** Whether these tests pass in the copy. */
function passes(project, patterns) {
  const { status } = spawnSync(
    process.execPath,
    [
      ...['--liftoff-only', '--experimental-vm-modules', '--no-warnings'],
      join(copy, 'node_modules/jest/bin/jest.js'),
      ...['--selectProjects', project, '--bail', '--silent', '--reporters=default'],
      ...['--testPathPatterns', ...patterns.split('|')],
    ],
    { cwd: copy, stdio: 'ignore', env: { ...process.env, TORVEK_TEST_BUILT: '1' }, timeout: 180_000 },
  );
  return status === 0;
}

const mutations = [...older, ...newer];
const word = process.argv[2] ?? '';
const chosen = mutations.filter(({ file, from }) => file.includes(word) || from.includes(word));
const survivors = [];
let broken = false;
try {
  makeCopy();
  for (const [i, { project, file, from, to, tests }] of chosen.entries()) {
    const path = join(copy, file);
    const text = readFileSync(path, 'utf8');
    const say = (what) =>
      console.log(`  ${String(i + 1).padStart(2)} ${what.padEnd(8)} ${file}: ${from.replace(/\s+/g, ' ')}`);
    if (text.split(from).length !== 2) {
      say('GONE');
      broken = true;
      continue;
    }
    writeFileSync(
      path,
      text.replace(from, () => to),
    );
    const alive = passes(project, tests);
    writeFileSync(path, text);
    if (alive) survivors.push(file);
    say(alive ? 'SURVIVES' : 'found');
  }
} finally {
  rmSync(copy, { recursive: true, force: true });
}
console.log(
  `${chosen.length - survivors.length} of ${chosen.length} found, ${survivors.length} survive (limit ${mostSurvivors})`,
);
process.exit(broken || survivors.length > mostSurvivors ? 1 : 0);
