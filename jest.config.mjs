export default {
  testMatch: ['<rootDir>/packages/*/test/**/*.test.ts', '<rootDir>/examples/*/test/**/*.test.ts'],
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      { jsc: { parser: { syntax: 'typescript' }, target: 'es2022' }, module: { type: 'es6' } },
    ],
  },
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  moduleNameMapper: { '^(\\.{1,2}/.*)\\.js$': '$1' },
  // Packages that are staged for publishing have the names of those here.
  modulePathIgnorePatterns: ['<rootDir>/out/'],
  testEnvironment: 'node',
  testEnvironmentOptions: { customExportConditions: ['@dot-hop/source', 'node', 'node-addons'] },
  reporters: ['default', '<rootDir>/scripts/slowest-tests.mjs'],
  setupFiles: ['<rootDir>/scripts/short-shrinking.mjs'],
  globalSetup: '<rootDir>/scripts/serve-pages.mjs',
  globalTeardown: '<rootDir>/scripts/stop-pages.mjs',
  // Tests of pages wait more than they compute, so that two cores have time for two of them.
  maxWorkers: 2,
  // A machine that is shared can be many times slower for a while: waits are long, and end as soon as they can.
  testTimeout: 240_000,
};
