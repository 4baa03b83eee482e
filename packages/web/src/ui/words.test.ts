// The test reads the sources themselves, which the interface never does.
/* eslint-disable no-restricted-imports */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { type Term, WORDS } from './words.ts';

const PACKAGES = join(__dirname, '../../..');
const sources = (folder: string): readonly string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.tsx?$/.test(name) && !/\.test\.tsx?$/.test(name) && !name.endsWith('ui/words.ts'))
    .map((name) => join(folder, name));
/** What players may read in a source: what stands between quotes or tags; comments are not for them. */
const texts = (source: string): readonly string[] =>
  readFileSync(source, 'utf8')
    .replace(/\/\*[\s\S]*?\*\/|^\s*\/\/.*$/gm, '')
    .split('\n')
    .filter((line) => /['"`>]|^\s*[A-Z][\w ,]+/.test(line) && !/^\s*import /.test(line));

const all = ['core/src', 'contract/src', 'server/src', 'web/src'].flatMap((p) => sources(join(PACKAGES, p)));

test('one word a thing: nothing says otherwise what the table of words names', () => {
  expect(all.length).toBeGreaterThan(100);
  const banned = Object.values(WORDS).flatMap(({ word, not = [] }: Term) =>
    not.map((pattern) => ({ word, pattern })),
  );
  expect(banned.length).toBeGreaterThan(5);
  const found = all.flatMap((source) =>
    texts(source).flatMap((line) =>
      banned
        .filter(({ pattern }) => pattern.test(line))
        .map(({ word }) => `${source}: ${line.trim()} (say ${word})`),
    ),
  );
  expect(found).toEqual([]);
});

test('every word is explained in a sentence of its own', () => {
  for (const { word, means } of Object.values(WORDS)) {
    expect([word, means.length > 20 && means.endsWith('.')]).toEqual([word, true]);
  }
});
