import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const ROOT = join(__dirname, '..');
const CONFIG = `import tseslint from 'typescript-eslint';
export default [
  { files: ['**/*.ts'], languageOptions: { parser: tseslint.parser }, plugins: { '@typescript-eslint': tseslint.plugin } },
  { files: ['**/*.ts'], rules: { '@typescript-eslint/no-floating-promises': 'error' } },
];`;
let place = '';
// Below the project, where its packages are found.
beforeAll(() => {
  mkdirSync(join(ROOT, 'test-results'), { recursive: true });
  place = mkdtempSync(join(ROOT, 'test-results', 'check-'));
  writeFileSync(join(place, 'eslint.config.mjs'), CONFIG);
  writeFileSync(
    join(place, 'tsconfig.json'),
    '{ "compilerOptions": { "noEmit": true, "lib": ["ES2022"], "types": [], "skipLibCheck": true } }',
  );
});
afterAll(() => rmSync(place, { recursive: true, force: true }));

test.each([
  ['nothing to say', 'export const frets: number = 24;', 0, ''],
  ['a wrong type', "export const frets: number = 'many';", 1, 'TS2322'],
  ['a promise that nobody waits for', 'Promise.resolve(24);', 1, 'no-floating-promises'],
])('types and lint of a half: %s', (_, code, status, said) => {
  writeFileSync(join(place, 'frets.ts'), code);
  const ran = spawnSync('node', [join(ROOT, 'scripts/check.mjs'), 'tsconfig.json', '.'], {
    cwd: place,
    encoding: 'utf8',
  });
  expect([ran.status, ran.stderr.includes(said)]).toEqual([status, true]);
});
