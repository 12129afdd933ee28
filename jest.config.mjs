const swc = [
  '<rootDir>/scripts/jest-transform.mjs',
  {
    jsc: { target: 'es2022', parser: { syntax: 'typescript' }, experimental: { keepImportAttributes: true } },
    module: { type: 'es6' },
  },
];
const project = (name, roots) => ({
  displayName: name,
  roots,
  testEnvironment: 'node',
  // The same for packages, which are wrapped in functions.
  sandboxInjectedGlobals: ['Array', 'JSON', 'Math', 'Number', 'Object'],
  extensionsToTreatAsEsm: ['.ts'],
  transform: { '^.+\\.ts$': swc },
  testMatch: ['**/*.test.ts'],
});

export default {
  // Jest would leave one core to whoever watches.
  maxWorkers: '100%',
  testSequencer: '<rootDir>/scripts/test-sequencer.mjs',
  testTimeout: 90_000,
  projects: [
    project('core', ['<rootDir>/core/src']),
    {
      ...project('server', ['<rootDir>/server']),
      globalSetup: '<rootDir>/server/test/template-database.ts',
      globalTeardown: '<rootDir>/server/test/close-engines.mjs',
      testEnvironment: '<rootDir>/server/test/environment.mjs',
    },
    project('web', ['<rootDir>/web/src']),
    project('demo', ['<rootDir>/demo']),
  ],
};
