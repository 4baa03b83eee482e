import base from './jest.config.mjs';

/** The tests that mutants of pure modules have to get past: without the atlas, which walks everything and takes too long for each. */
export default {
  ...base,
  testMatch: ['<rootDir>/packages/{core,contract}/test/**/*.test.ts'],
  testPathIgnorePatterns: ['/node_modules/', 'atlas\\.test'],
  setupFiles: ['<rootDir>/scripts/fewer-runs.mjs'],
};
