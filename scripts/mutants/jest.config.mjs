import { fileURLToPath } from 'node:url';
import base from '../../jest.config.mjs';

// The tests of the core need no page and no browser, and every run has another mutant.
const { globalSetup, globalTeardown, reporters, transform, ...rest } = base;
const [[pattern, [, options]]] = Object.entries(transform);
export default {
  ...rest,
  rootDir: fileURLToPath(new URL('../..', import.meta.url)),
  testSequencer: '<rootDir>/scripts/mutants/sequencer.cjs',
  transform: { [pattern]: ['<rootDir>/scripts/mutants/transform.cjs', options] },
};
