import tseslint from 'typescript-eslint';
import hooks from 'eslint-plugin-react-hooks';

/** Imports run core ◀ picture, formats ◀ web and core ◀ contract ◀ server and web; nothing imports the other way, and core imports nothing. */
const direction = (files, ...patterns) => ({
  files,
  rules: { 'no-restricted-imports': ['error', { patterns }] },
});
const group = (names, message) => ({ group: names, message });
const regex = (pattern, message) => ({ regex: pattern, message });
const OTHER_SIDE = group(
  ['@crow-ladder/server*', 'node:*', 'knex', 'hono', 'hono/*'],
  'the interface talks to the server over /api',
);
/** The types of some files are those of a project; each half of the code is one, so that nothing is read twice. */
const typed = (project, ...files) => ({
  files,
  languageOptions: { parserOptions: { project, tsconfigRootDir: import.meta.dirname } },
});
const NO_PAGES = ['react', 'react-*', 'node:*', '@crow-ladder/web*', '@crow-ladder/server*'];

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', 'data/**', 'test-results/**', 'playwright-report/**'] },
  ...tseslint.configs.stylistic,
  typed('tsconfig.node.json', 'packages/{core,picture,contract,formats,server}/**/*.ts', 'scripts/**/*.ts'),
  typed('tsconfig.page.json', 'packages/web/**/*.{ts,tsx}', 'e2e/**/*.ts'),
  { files: ['**/*.{ts,tsx}'], extends: tseslint.configs.recommendedTypeChecked },
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
      // An assertion says to the reader what the driver of the database or a test knows.
      '@typescript-eslint/no-unnecessary-type-assertion': 'off',
      '@typescript-eslint/restrict-template-expressions': [
        'error',
        { allow: ['URLSearchParams'], allowNumber: true },
      ],
      'no-warning-comments': ['error', { terms: ['prettier-ignore', 'todo', 'fixme'], location: 'anywhere' }],
    },
  },
  {
    // What a matcher of Jest stands for, and what a page or a file gives back, is of any type.
    files: ['**/*.test.{ts,tsx}', '**/test/**', 'e2e/**'],
    rules: {
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-call': 'off',
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
      '@typescript-eslint/unbound-method': 'off',
    },
  },
  { files: ['**/*.config.ts'], rules: { 'no-restricted-syntax': 'off' } },
  direction(
    ['packages/core/src/**/*.ts'],
    group(
      ['@crow-ladder/*', 'node:*', 'react', 'react-*', 'yup', 'hono', 'knex'],
      'core holds computation only',
    ),
  ),
  direction(
    ['packages/picture/src/**/*.ts'],
    group([...NO_PAGES, '@crow-ladder/contract*', 'yup'], 'a picture needs core only'),
  ),
  direction(
    ['packages/contract/src/**/*.ts'],
    group([...NO_PAGES, '@crow-ladder/picture*'], 'the contract is shared by server and web'),
  ),
  direction(
    ['packages/formats/src/**/*.ts'],
    group(
      [...NO_PAGES, '@crow-ladder/contract*', '@crow-ladder/picture*', 'yup'],
      'a format needs core only',
    ),
  ),
  direction(
    ['packages/server/src/**/*.ts'],
    group(['@crow-ladder/web*', '@crow-ladder/picture*', 'react*'], 'the server does not know the interface'),
  ),
  direction(['packages/web/src/**/*.{ts,tsx}'], OTHER_SIDE),
  direction(
    ['packages/web/src/ui/**/*.{ts,tsx}'],
    OTHER_SIDE,
    regex('^(\\.\\./)+(app|features|frame|model|sessions)/', 'ui holds what any page could use'),
  ),
  direction(
    ['packages/web/src/model/**/*.{ts,tsx}'],
    OTHER_SIDE,
    regex('^(\\.\\./)+(app|features|frame|sessions|ui)/', 'the model is computed from values alone'),
  ),
  direction(
    ['packages/web/src/app/**/*.{ts,tsx}'],
    OTHER_SIDE,
    regex(
      '^(\\.\\./)+(features|frame|sessions|task|store|tasks|compose)\\b',
      'what every page has knows no open chart',
    ),
  ),
  direction(
    ['packages/web/src/sessions/**/*.{ts,tsx}'],
    OTHER_SIDE,
    regex(
      '^(\\.\\./)+(features|frame|task|store|tasks|compose)\\b',
      'the frame and its tasks stand on open charts',
    ),
  ),
  direction(
    ['packages/web/src/frame/**/*.{ts,tsx}'],
    OTHER_SIDE,
    regex('^(\\.\\./)+(features|store|tasks|compose)\\b', 'the frame is given its tasks'),
  ),
  direction(
    ['packages/web/src/features/**/*.{ts,tsx}'],
    OTHER_SIDE,
    regex('^\\.\\./(?!\\.\\./)', 'features share through task, model, ui, app and sessions'),
    regex(
      '^(\\.\\./)+(features|frame|store|tasks|compose)\\b',
      'features share through task, model, ui, app and sessions',
    ),
  ),
  {
    // What React renders or is hooked into; what is computed and tests are neither.
    files: ['packages/web/src/{app,frame,features,ui,workers,sessions,ports}/**/*.{ts,tsx}'],
    ignores: ['**/*.test.{ts,tsx}', '**/params.ts'],
    // What its compiler finds takes as long as all else, and is looked for in the thorough run.
    ...(process.env.THOROUGH
      ? hooks.configs.flat['recommended-latest']
      : {
          plugins: { 'react-hooks': hooks },
          rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
        }),
  },
  { files: ['**/*.mjs'], languageOptions: { globals: { process: 'readonly', console: 'readonly' } } },
);
