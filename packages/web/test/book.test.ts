import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type ChartState, DEFAULT_SETTINGS, FIRST_STATE } from '@crow-ladder/contract';
import { type Book, type Lettered, PAPERS, sheetSvg } from '@crow-ladder/picture';
import { pdfOf } from '@crow-ladder/picture/pdf';
import { onPaper as drillOnPaper } from '../src/features/practice/onPaper.ts';
import { AT_FIRST } from '../src/features/practice/params.ts';
import { onPaper as shapeOnPaper } from '../src/features/shape/onPaper.ts';
import { modelOf, played } from '../src/model/model.ts';
import { barsUp } from '../src/model/music.ts';
import { type BookAsked } from '../src/paper/asked.ts';
import { type OnPaper } from '../src/paper/onPaper.ts';
import { bookOf } from '../src/paper/book.ts';
import { tabHigh, tabInks } from '../src/paper/tab.ts';
import { wrapped } from '../src/paper/words.ts';

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
  tab: false,
};
const book = (state: ChartState, asked: Partial<BookAsked> = {}, onPaper: OnPaper | null = null): Book =>
  bookOf(
    {
      charts: [{ name: 'Deck four', notes: 'Slowly.\nThen as it comes.', tags: ['opener'], state }],
      settings: DEFAULT_SETTINGS,
      onPaper,
    },
    { ...ASKED, ...asked },
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
  staysOnPaper(it);
});
/** Whether all words stand on the paper, with what they take of it. */
function staysOnPaper({ sheets, paper }: Book): void {
  const { width, height } = PAPERS[paper];
  for (const sheet of sheets)
    for (const { x, y, scale, inks } of sheet)
      for (const ink of inks) {
        const at = x + ink.x * scale;
        expect(at).toBeGreaterThanOrEqual(0);
        expect(at).toBeLessThanOrEqual(width);
        expect(y + ink.y * scale).toBeLessThanOrEqual(height);
      }
}

test('marks say degrees, fingers or notes; nine strings upright have fewer to a page', () => {
  const said = (labels: BookAsked['labels']): ReadonlySet<string> =>
    new Set(
      words(book(A_MINOR, { what: 'ladder', labels, perPage: '1' }), 1)
        .filter(({ bold, align }) => bold && align === 'center')
        .map(({ word }) => word),
    );
  expect([...said('degree')].sort()).toEqual(['1', '4', '5', '♭3', '♭7']);
  expect([...said('note')].sort()).toEqual(['A', 'C', 'D', 'E', 'G']);
  expect([...said('finger')].sort()).toEqual(['0', '1', '2', '3']);
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

/** The frets of tablature on a page, in the order in which they stand, line by line. */
const fretsOf = (it: Book): readonly number[] =>
  it.sheets.flatMap((_, page) =>
    words(it, page)
      .filter(({ size, bold, word }) => bold && size === 14 && /^\d+$/u.test(word))
      .map(({ word }) => Number(word)),
  );

test('a position has a sheet of its own: its sentence, its fingers, and every note of it up and down on staff and tablature', () => {
  for (const [state, asked] of [
    [A_MINOR, {}],
    [FIRST_STATE, { paper: 'letter' }],
    [NINE, { labels: 'note' }],
    [
      {
        ...A_MINOR,
        instrument: { ...A_MINOR.instrument, tuning: [28, 33, 38, 43], scaleLength: 864 },
        at: { string: 4, fret: 5 },
      },
      {},
    ],
  ] as const) {
    const it = book(state, { what: 'position', ...asked });
    const model = modelOf(state, DEFAULT_SETTINGS);
    const { spots } = model.front!.position;
    const up = spots.map(({ fret }) => fret);
    expect(fretsOf(it)).toEqual([...up, ...up.slice(0, -1).reverse()]);
    staysOnPaper(it);
    const said = words(it, 0)
      .map(({ word }) => word)
      .join(' ');
    expect(said).toContain('Deck four');
    expect(said).toMatch(/Frets \d+ to \d+\. Root: .*string \d/u);
    expect(said).toMatch(/Fingers [\d ]+/u);
    expect(it.sheets.flatMap((_, page) => words(it, page)).map(({ word }) => word)).toContain('Tags: opener');
  }
  expect(book(FIRST_STATE, { what: 'position' }).sheets).toHaveLength(1);
  const bare = book(FIRST_STATE, { what: 'position', words: false });
  expect(words(bare, 0).some(({ word }) => word.startsWith('Tags'))).toBe(false);
});

test('a practice sheet has what is practised as it is written, however long, and lines to keep a record on', () => {
  const model = modelOf(A_MINOR, DEFAULT_SETTINGS);
  const { steps } = model.fingering()!;
  const long = Array.from({ length: 30 }, () => steps).flat();
  const run = played({ steps: long, cost: 0, shifts: 0, stretches: 0 });
  const onPaper: OnPaper = {
    sheet: 'practice',
    title: 'Thirty times',
    said: ['At 90.'],
    run,
    steps: long,
    as: { beats: 4, until: barsUp(run, 4), usual: 'treble' },
    strokes: run.map((_, i) => (i % 2 ? 'up' : 'down')),
  };
  const it = book(A_MINOR, { what: 'practice' }, onPaper);
  expect(it.sheets.length).toBeGreaterThan(1);
  expect(fretsOf(it)).toEqual(long.map(({ spot }) => spot.fret));
  staysOnPaper(it);
  const said = it.sheets.flatMap((_, page) => words(it, page)).map(({ word }) => word);
  for (const text of ['Thirty times', 'At 90.', 'Day', 'Tempo', 'Clean']) expect(said).toContain(text);
  const path = filed(it, 'practice.pdf');
  expect(asked('pdftotext', '-layout', path, '-').toString()).toContain('Thirty times');
});

test('several charts make one book; tablature stands with a diagram where it is asked for', () => {
  const charts = ['Deck one', 'Deck two'].map((name, i) => ({
    name,
    notes: '',
    tags: [`t${i}`],
    state: A_MINOR,
  }));
  const it = bookOf(
    { charts, settings: DEFAULT_SETTINGS, onPaper: null },
    { ...ASKED, what: 'charts', tab: true },
  );
  expect(it.outline.map(({ title }) => title)).toEqual([
    'Deck one: A minor pentatonic: position 1',
    'Deck two: A minor pentatonic: position 1',
  ]);
  staysOnPaper(it);
  const frets = words(it, 1).filter(({ size, word }) => size === 2.9 && /^\d+$/u.test(word));
  const up = modelOf(A_MINOR, DEFAULT_SETTINGS).front!.position.spots.map(({ fret }) => String(fret));
  expect(frets.map(({ word }) => word)).toEqual([...up, ...up]);
  // Each number stands on its string, and none touches the next.
  frets.slice(1, up.length).forEach(({ x }, i) => expect(x - frets[i]!.x).toBeGreaterThan(3));
  expect(words(it, 1).map(({ word }) => word)).toContain('Tags: t1');
});

test('a page as SVG stands by itself: its size, its words, its faces where they are given, no mark of the file in a word', () => {
  const it = book(A_MINOR, { what: 'position' });
  const svg = sheetSvg(it.sheets[0]!, 'a4', { title: 'A < B & "C"', fonts: '@font-face{}' });
  expect(svg).toContain('width="210mm" height="297mm"');
  expect(svg).toContain('<title>A &lt; B &amp; &quot;C&quot;</title>');
  expect(svg).toContain('<style>@font-face{}</style>');
  expect(svg.match(/<text/gu)).toHaveLength(words(it, 0).length);
  const { status, stderr } = spawnSync('xmllint', ['--noout', '-'], { input: svg });
  expect([status, stderr.toString()]).toEqual([0, '']);
});

test('tablature stands on its strings from the highest down, in lines as long as one another, no number touching the next', () => {
  const { steps } = modelOf(NINE, DEFAULT_SETTINGS).fingering()!;
  expect(steps).toHaveLength(27);
  const numbers = tabInks(steps, 9, 60, 5).flatMap((ink) =>
    'word' in ink && ink.bold ? [{ fret: Number(ink.word), x: ink.x, y: ink.y }] : [],
  );
  expect(numbers.map(({ fret }) => fret)).toEqual(steps.map(({ spot }) => spot.fret));
  const lines = [numbers.slice(0, 14), numbers.slice(14)];
  const high = tabHigh(steps, 9, 60);
  lines.forEach((line, n) =>
    line.forEach(({ x, y }, i) => {
      const { string } = steps[14 * n + i]!.spot;
      expect(y).toBeCloseTo(5 + (n * high) / 2 + 2 + (string - 1) * 2.5, 6);
      if (i) expect(x - line[i - 1]!.x).toBeGreaterThan(4);
      expect(x).toBeLessThan(60);
    }),
  );
});

test('what tasks put on paper: a position up and down, a drill with a stroke for each note that is picked', () => {
  const model = modelOf(A_MINOR, DEFAULT_SETTINGS);
  const shape = shapeOnPaper(model, { school: null, down: true, way: 0, slurred: false })!;
  const up = model.front!.position.spots.map(({ midi }) => midi);
  expect(shape.run.map(({ spot }) => spot.midi)).toEqual([...up, ...up.slice(0, -1).reverse()]);
  const drill = drillOnPaper(model, { ...AT_FIRST, tempo: 91 })!;
  expect(drill.said[0]).toBe('Eighths, 4/4, 91 beats a minute.');
  expect(drill.strokes.slice(0, 4)).toEqual(['down', 'up', 'down', 'up']);
  expect(drill.strokes).toHaveLength(drill.run.length);
  expect(drill.as.until).toBe(3 * 4 * 960);
});
