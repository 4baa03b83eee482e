import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type ChartState, DEFAULT_SETTINGS, FIRST_STATE } from '@crow-ladder/contract';
import { type Book, type Lettered, PAPERS } from '@crow-ladder/picture';
import { pdfOf } from '@crow-ladder/picture/pdf';
import { type BookAsked, bookOf, wrapped } from '../src/model/book.ts';

const A_MINOR: ChartState = {
  ...FIRST_STATE,
  key: { root: 'A', scale: 'minor-pentatonic' },
  at: { string: 6, fret: 5 },
  layout: { kind: 'count', counts: [2] },
};
const NINE: ChartState = {
  ...FIRST_STATE,
  key: { root: 'C#', scale: 'harmonic-minor' },
  instrument: {
    ...FIRST_STATE.instrument,
    tuning: [25, 30, 35, 40, 45, 50, 55, 59, 64],
    frets: 27,
    wound: 5,
    handed: 'left',
  },
  at: { string: 9, fret: 12 },
  layout: { kind: 'count', counts: [3] },
};
const ASKED: BookAsked = {
  what: 'ladders',
  paper: 'a4',
  perPage: '6',
  labels: 'degree',
  neck: 'lying',
  words: true,
};
const book = (state: ChartState, asked: Partial<BookAsked> = {}): Book =>
  bookOf(
    { name: 'Deck four', notes: 'Slowly.\nThen as it comes.', tags: ['opener'], state },
    DEFAULT_SETTINGS,
    {
      ...ASKED,
      ...asked,
    },
  );
const words = (it: Book, sheet: number): readonly Lettered[] =>
  it.sheets[sheet]!.flatMap(({ inks }) => inks.flatMap((ink) => ('word' in ink ? [ink] : [])));

let folder = '';
beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'book-'))));
afterAll(() => rmSync(folder, { recursive: true }));
const { resolve } = createRequire(__filename);
const face = (name: string): string =>
  readFileSync(resolve(`dejavu-fonts-ttf/ttf/${name}.ttf`)).toString('base64');
const FACES = { normal: face('DejaVuSansCondensed'), bold: face('DejaVuSansCondensed-Bold') };
/** A book as a file; the path of it. */
function filed(it: Book, name: string): string {
  const path = join(folder, name);
  writeFileSync(path, pdfOf(it, { faces: FACES, made: new Date(0) }));
  return path;
}
function asked(program: string, ...args: readonly string[]): Buffer {
  const { stdout, status, error } = spawnSync(program, args, { maxBuffer: 64 * 1024 * 1024 });
  if (error ?? status) throw new Error(`${program} is needed: on Debian, sudo apt-get install poppler-utils`);
  return stdout;
}

test('the whole ladder in all keys: five boxes in twelve keys, each in the contents with its page, read back by pdftotext', () => {
  const it = book(A_MINOR);
  expect(it.outline).toHaveLength(60);
  expect(it.sheets).toHaveLength(2 + 10);
  const path = filed(it, 'keys.pdf');
  const pages = asked('pdftotext', '-layout', path, '-').toString().split('\f');
  const contents = `${pages[0]}${pages[1]}`;
  for (const { title, page } of it.outline) {
    expect(pages[page - 1]).toContain(title);
    expect(contents).toMatch(new RegExp(`${title.replace(/[()]/g, '\\$&')}\\s+${page}\\n`));
  }
  expect(pages[0]).toContain('Then as it comes.');
  expect(pages[0]).toContain('Tags: opener');
  expect(pages[11]).toContain('12 of 12');
  // A♭ minor pentatonic has its flats.
  expect(it.outline.some(({ title }) => title.startsWith('C♯ minor pentatonic'))).toBe(true);
  expect(pages.join('')).toContain('♭3');
  // A bookmark for each diagram, beside the title of the file.
  expect(readFileSync(path, 'latin1').match(/\/Title/gu)).toHaveLength(60 + 1);
  const fonts = asked('pdffonts', path).toString();
  expect(fonts.match(/Book\s+CID TrueType\s+Identity-H\s+yes/gu)).toHaveLength(2);
});

test('what pdftoppm sees of a page is black on white, in each part of it', () => {
  const path = filed(book(A_MINOR, { what: 'ladder' }), 'ladder.pdf');
  // A plain grey map: P5, width, height, 255, then a byte for each point.
  const map = asked('pdftoppm', '-gray', '-r', '40', '-f', '2', '-l', '2', path);
  const [, wide, high] = /^P5\s+(\d+)\s+(\d+)\s+255\s/u
    .exec(map.subarray(0, 40).toString('latin1'))!
    .map(Number);
  const points = map.subarray(map.length - wide! * high!);
  const dark = (column: number, row: number): number => {
    let many = 0;
    for (let y = Math.floor((row * high!) / 3); y < Math.floor(((row + 1) * high!) / 3); y++)
      for (let x = Math.floor((column * wide!) / 2); x < Math.floor(((column + 1) * wide!) / 2); x++)
        if (points[y * wide! + x]! < 64) many++;
    return many / ((wide! * high!) / 6);
  };
  for (const [column, row] of [
    [0, 0],
    [1, 0],
    [0, 1],
    [1, 1],
    [0, 2],
    [1, 2],
  ] as const) {
    expect(dark(column, row)).toBeGreaterThan(0.004);
    expect(dark(column, row)).toBeLessThan(0.2);
  }
});

test('a position in all keys stands near the nut and an octave up; nothing leaves the paper', () => {
  const it = book(A_MINOR, { what: 'keys', paper: 'letter' });
  const boxes = it.outline.filter(({ title }) => title.startsWith('A minor pentatonic'));
  expect(boxes.length).toBeGreaterThanOrEqual(2);
  const { width, height } = PAPERS.letter;
  for (const sheet of it.sheets)
    for (const { x, y, scale, inks } of sheet)
      for (const ink of inks) {
        expect(x + ink.x * scale).toBeGreaterThanOrEqual(0);
        expect(x + ink.x * scale).toBeLessThanOrEqual(width);
        expect(y + ink.y * scale).toBeLessThanOrEqual(height);
      }
});

test('marks say degrees, fingers or notes; the position alone has the page; nine strings upright have fewer to a page', () => {
  const said = (labels: BookAsked['labels']): ReadonlySet<string> =>
    new Set(
      words(book(A_MINOR, { what: 'position', labels, words: false }), 0)
        .filter(({ bold, align }) => bold && align === 'center')
        .map(({ word }) => word),
    );
  expect([...said('degree')].sort()).toEqual(['1', '4', '5', '♭3', '♭7']);
  expect([...said('note')].sort()).toEqual(['A', 'C', 'D', 'E', 'G']);
  expect([...said('finger')].sort()).toEqual(['1', '3', '4']);
  expect(book(A_MINOR, { what: 'position', words: false }).sheets).toHaveLength(1);
  const nine = book(NINE, { what: 'ladder', neck: 'upright', perPage: '12' });
  expect(nine.remarks).toEqual([
    '12 to a page would be too small to read on this instrument: 4 diagrams to a page.',
  ]);
  expect(book(A_MINOR, { perPage: '12' }).remarks).toEqual([]);
});

test('text is cut into lines that fit, at spaces where it can be', () => {
  expect(wrapped('a bb ccc', 100, 3)).toEqual(['a bb ccc']);
  const lines = wrapped('Frets 3 to 6. Root: string 6 fret 6\nx', 20, 3);
  expect(lines.join(' ')).toBe('Frets 3 to 6. Root: string 6 fret 6 x');
  expect(lines.length).toBeGreaterThan(2);
  expect(wrapped('w'.repeat(40), 20, 3).length).toBeGreaterThan(3);
});
