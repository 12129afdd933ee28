// Jest loads every module anew for each test file, which takes longer than most files' tests. `npm test` therefore runs many files in
// one: each suite imports its share of a project's test files.
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { filesBelow, root } from './lib.mjs';

/** What a file would do to the tests of another, and what cannot stand within a `describe` (see `jest-transform.mjs`). */
export const keepsToItself = /\bjest\.|\bdefineRule\(|\bprocess\.env\.\w+ = |^export |^(\w.* = )?await /m;

/** Those that would be waited for at the end of a suite. */
const long = /server\/test\/(process|take-away|power-cut|verify|people|gates)\.test\.ts$/;

/**
 * Writes the suites of a project below `.cache/suites`.
 * @param name the project's
 * @param folder where its test files are, relative to the repository
 * @param count how many suites
 * @returns `roots` and `testMatch` of the project: the suites, and the files that run by themselves
 */
export function suitesOf(name, folder, count) {
  const to = join(root, '.cache/suites', name);
  rmSync(to, { recursive: true, force: true });
  mkdirSync(to, { recursive: true });
  const files = [...filesBelow(join(root, folder))].filter((path) => path.endsWith('.test.ts')).sort();
  const alone = files.filter((path) => long.test(path) || keepsToItself.test(readFileSync(path, 'utf8')));
  const together = files.filter((path) => !alone.includes(path));
  for (let suite = 0; suite < count; suite += 1) {
    const lines = together
      .filter((_, at) => at % count === suite)
      .map((path) => `import '${relative(to, path)}';\n`);
    writeFileSync(join(to, `${suite + 1}.test.ts`), lines.join(''));
  }
  return {
    roots: [`<rootDir>/${folder}`, to],
    testMatch: [...readdirSync(to).map((file) => join(to, file)), ...alone],
  };
}
