/** Breaks the pure modules in small ways, one at a time, and tells which of them no test notices. */
export default {
  testRunner: 'jest',
  jest: { projectType: 'custom', configFile: 'jest.mutants.config.mjs' },
  coverageAnalysis: 'perTest',
  mutate: [
    'packages/core/src/layouts/*.ts',
    'packages/core/src/position.ts',
    'packages/core/src/numbering.ts',
    'packages/core/src/run/*.ts',
    'packages/contract/src/**/*.ts',
    'packages/web/src/model/*.ts',
    'packages/web/src/features/*/params.ts',
    'packages/web/src/features/practice/{asking,words}.ts',
    'packages/web/src/sessions/sessions.ts',
    'packages/server/src/{environment,guard,lists,practice,refused,rows}.ts',
    '!packages/**/*.test.ts',
  ],
  // What is said to the player is judged by eye; tables are read once, when their module is loaded.
  mutator: { excludedMutations: ['StringLiteral'] },
  ignoreStatic: true,
  concurrency: 2,
  timeoutMS: 5000,
  reporters: ['clear-text', 'json', 'progress-append-only'],
  jsonReporter: { fileName: 'test-results/mutants.json' },
  clearTextReporter: { logTests: false, allowColor: false },
  tempDirName: 'test-results/stryker-tmp',
};
