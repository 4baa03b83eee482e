import tseslint from 'typescript-eslint';
import hooks from 'eslint-plugin-react-hooks';

/** Imports run core ◀ contract ◀ server and web; nothing imports the other way, and core imports nothing. */
const direction = (files, patterns) => ({
  files,
  rules: { 'no-restricted-imports': ['error', { patterns }] },
});
const group = (names, message) => ({ group: names, message });

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', 'data/**', 'test-results/**', 'playwright-report/**'] },
  ...tseslint.configs.recommended,
  ...tseslint.configs.stylistic,
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/consistent-type-definitions': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      'no-restricted-syntax': [
        'error',
        { selector: 'ExportDefaultDeclaration', message: 'Exports have names.' },
        {
          selector: 'ImportDeclaration[source.value=/packages[/]/]',
          message: 'Packages are imported by name.',
        },
      ],
      eqeqeq: 'error',
    },
  },
  { files: ['**/*.config.ts'], rules: { 'no-restricted-syntax': 'off' } },
  direction(
    ['packages/core/src/**/*.ts'],
    [
      group(
        ['@crow-ladder/*', 'node:*', 'react', 'react-*', 'yup', 'hono', 'knex'],
        'core holds computation only',
      ),
    ],
  ),
  { files: ['packages/core/src/**/*.test.ts'], rules: { 'no-restricted-imports': 'off' } },
  direction(
    ['packages/contract/src/**/*.ts'],
    [
      group(
        ['@crow-ladder/server*', '@crow-ladder/web*', 'node:*', 'react*'],
        'the contract is shared by server and web',
      ),
    ],
  ),
  direction(
    ['packages/server/src/**/*.ts'],
    [group(['@crow-ladder/web*', 'react*'], 'the server does not know the interface')],
  ),
  direction(
    ['packages/web/src/**/*.{ts,tsx}'],
    [
      group(
        ['@crow-ladder/server*', 'node:*', 'knex', 'hono', 'hono/*'],
        'the interface talks to the server over /api',
      ),
    ],
  ),
  direction(
    ['packages/web/src/features/**/*.{ts,tsx}'],
    [
      group(
        ['@crow-ladder/server*', 'node:*', 'knex', 'hono', 'hono/*'],
        'the interface talks to the server over /api',
      ),
      {
        regex: '^(\\.\\./)+(charts|instruments|settings|workbench)/',
        message: 'features share through ui, app or core',
      },
    ],
  ),
  { files: ['packages/web/src/**/*.{ts,tsx}'], ...hooks.configs.flat['recommended-latest'] },
  { files: ['**/*.mjs'], languageOptions: { globals: { process: 'readonly', console: 'readonly' } } },
);
