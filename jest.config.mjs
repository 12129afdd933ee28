import { suitesOf } from './scripts/suites.mjs';

const swc = [
  '<rootDir>/scripts/jest-transform.mjs',
  {
    jsc: { target: 'es2022', parser: { syntax: 'typescript' }, experimental: { keepImportAttributes: true } },
    module: { type: 'es6' },
  },
];
const project = (name, folder, suites = 0) => ({
  displayName: name,
  testEnvironment: 'node',
  // The same for packages, which are wrapped in functions.
  sandboxInjectedGlobals: ['Array', 'JSON', 'Math', 'Number', 'Object'],
  extensionsToTreatAsEsm: ['.ts'],
  transform: { '^.+\\.ts$': swc },
  ...(suites > 0 && process.env.TORVEK_TEST_SUITES !== undefined
    ? suitesOf(name, folder, suites)
    : { roots: [`<rootDir>/${folder}`], testMatch: ['**/*.test.ts'] }),
});

export default {
  // Jest would leave one core to whoever watches.
  maxWorkers: '100%',
  testSequencer: '<rootDir>/scripts/test-sequencer.mjs',
  testTimeout: 90_000,
  projects: [
    project('core', 'core/src', 3),
    {
      ...project('server', 'server', 2),
      globalSetup: '<rootDir>/server/test/template-database.ts',
      globalTeardown: '<rootDir>/server/test/close-engines.mjs',
      testEnvironment: '<rootDir>/server/test/environment.mjs',
    },
    project('web', 'web/src', 1),
    project('demo', 'demo', 3),
  ],
};
