import { createRequire } from 'node:module';

const { default: Sequencer } = createRequire(import.meta.url)('@jest/test-sequencer');

/** Those that take longest begin first; on a fresh clone nothing knows that, and one alone would be waited for at the end. */
const slowest = [
  'server/test/process.test.ts',
  'server/test/take-away.test.ts',
  'server/test/power-cut.test.ts',
  'suites/demo/1.test.ts',
  'suites/core/1.test.ts',
  'server/test/people.test.ts',
  'suites/server/1.test.ts',
  'server/test/gates.test.ts',
  'server/test/verify.test.ts',
];
const rank = ({ path }) => {
  const at = slowest.findIndex((one) => path.endsWith(one));
  return at < 0 ? slowest.length : at;
};

export default class SlowestFirst extends Sequencer {
  sort(tests) {
    return [...super.sort(tests)].sort((a, b) => rank(a) - rank(b));
  }
}
