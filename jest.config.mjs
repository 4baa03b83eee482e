/** Unit tests of every workspace; the browser tests in e2e run under Playwright. */
export default {
  testMatch: ['<rootDir>/packages/*/{src,test}/**/*.test.{ts,tsx}', '<rootDir>/scripts/*.test.ts'],
  testEnvironment: 'node',
  // A machine that is busy breaks no test; one that does not end is ended, and so is what it leaves running.
  testTimeout: process.env.THOROUGH ? 1_800_000 : 120_000,
  forceExit: true,
  maxWorkers: 2,
  modulePathIgnorePatterns: ['<rootDir>/test-results/'],
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'automatic' } },
        },
        module: { type: 'commonjs' },
      },
    ],
    '^.+\\.m?js$': ['@swc/jest', { jsc: { target: 'es2022' }, module: { type: 'commonjs' } }],
  },
  transformIgnorePatterns: [
    'node_modules/(?!(nanoid|@tonaljs|tonal|fast-check|pure-rand|@crow-ladder|tinykeys|hono|@hono|pitchy|fft.js|chord-symbol|d3-[a-z-]+|internmap)/)',
  ],
};
