import base from './jest.config.mjs';

/**
 * The tests that mutants of pure modules have to get past: those that need no page, and without what walks everything, starts
 * processes or takes too long for each.
 */
export default {
  ...base,
  testMatch: [
    '<rootDir>/packages/{core,contract}/test/**/*.test.ts',
    '<rootDir>/packages/web/src/{model,features}/**/*.test.ts',
    '<rootDir>/packages/web/src/frame/codecs.test.ts',
    '<rootDir>/packages/web/src/sessions/sessions.test.ts',
    '<rootDir>/packages/server/src/{api,door,environment,guard,lists,pieces,time}.test.ts',
  ],
  testPathIgnorePatterns: ['/node_modules/', 'atlas\\.test'],
  setupFiles: ['<rootDir>/scripts/fewer-runs.mjs'],
};
