import { type ChartState, type Settings } from '@crow-ladder/contract';
import { keySaid, plural, type Position, refOf, rootsIn, spotSaid, list } from '@crow-ladder/core';
import { signatureOf } from '@crow-ladder/core/run';
import {
  type Book,
  geometryOf,
  type Laid,
  type Lettered,
  layersOf,
  type Ink,
  PAPERS,
  type PaperId,
  printed,
  type Sheet,
} from '@crow-ladder/picture';
import { figureOf, lookOf } from './figure.ts';
import { marksOf } from './marks.ts';
import { type Model, modelOf } from './model.ts';
import { transpose, withFront } from './moves.ts';

/** What can be printed. */
export const BOOKS = [
  { id: 'position', name: 'this position', note: 'as large as the page' },
  { id: 'ladder', name: 'the whole ladder', note: 'every position of this chart' },
  { id: 'keys', name: 'this position in all keys', note: 'near the nut and an octave up' },
  { id: 'ladders', name: 'the whole ladder in all keys', note: 'each shape once in each key' },
] as const;
export type BookId = (typeof BOOKS)[number]['id'];
/** How many diagrams stand on a page, and how they are laid out. */
export const PER_PAGE = [
  { id: '1', name: 'one to a page' },
  { id: '2', name: 'two to a page' },
  { id: '4', name: 'four to a page' },
  { id: '6', name: 'six to a page' },
  { id: '12', name: 'twelve to a page' },
] as const;
const GRIDS: Readonly<Record<PerPage, readonly [columns: number, rows: number]>> = {
  1: [1, 1],
  2: [1, 2],
  4: [2, 2],
  6: [2, 3],
  12: [3, 4],
};
export type PerPage = (typeof PER_PAGE)[number]['id'];
/** What the marks of a diagram say. */
export const BOOK_LABELS = [
  { id: 'degree', name: 'degrees' },
  { id: 'finger', name: 'fingers' },
  { id: 'note', name: 'notes' },
] as const;
export type BookLabels = (typeof BOOK_LABELS)[number]['id'];
export const BOOK_NECKS = [
  { id: 'lying', name: 'lying' },
  { id: 'upright', name: 'upright' },
] as const;

/** A book that is asked for. */
export interface BookAsked {
  readonly what: BookId;
  readonly paper: PaperId;
  readonly perPage: PerPage;
  readonly labels: BookLabels;
  readonly neck: (typeof BOOK_NECKS)[number]['id'];
  /** Whether the player's own words stand at its beginning. */
  readonly words: boolean;
}
/** The chart that it is made of. */
export interface BookChart {
  readonly name: string;
  readonly notes: string;
  readonly tags: readonly string[];
  readonly state: ChartState;
}

/** Lengths on the sheet, in mm. */
const MARGIN = 15;
const FOOT = 8;
const GAP = { x: 8, y: 6 } as const;
const LINE = 5.2;
const TEXT = { title: 6.5, head: 4.2, plain: 3.4, small: 3 } as const;
/** Smaller than this its marks cannot be read, in mm to a unit. */
const LEAST_SCALE = 0.14;
/** How wide signs of the condensed face are, in parts of their size; a little more than they are. */
const WIDE: readonly (readonly [signs: RegExp, wide: number])[] = [
  [/[ \u00a0.,:;'|iljI/()-]/u, 0.36],
  [/[mwMW%@]/u, 0.9],
  [/[A-Z♯♭]/u, 0.68],
];
const OTHERS = 0.58;
/** At most how wide a text is, in the unit of its size. */
const widthOf = (text: string, size: number): number =>
  size * [...text].reduce((sum, c) => sum + (WIDE.find(([signs]) => signs.test(c))?.[1] ?? OTHERS), 0);
/** From fret to fret of a diagram, in the units of its drawing; so that marks have room. */
const FRET = 44;
const MOST_SCALE = 0.62;

interface Diagram {
  readonly title: string;
  readonly said: readonly string[];
  readonly inks: readonly Ink[];
  readonly width: number;
  readonly height: number;
}

const word = (text: string, x: number, y: number, size: number, more: Partial<Lettered> = {}): Lettered => ({
  word: text,
  x,
  y,
  size,
  bold: false,
  tone: 'ink',
  align: 'left',
  ...more,
});
/** Text in lines that are no wider than a length; words that are longer are cut. */
export function wrapped(text: string, wide: number, size: number): readonly string[] {
  const fits = (line: string): boolean => widthOf(line, size) <= wide;
  return text.split('\n').flatMap((paragraph) => {
    const lines: string[] = [];
    let line = '';
    for (let rest of paragraph.split(/[ \t]+/u).filter(Boolean)) {
      if (line && fits(`${line} ${rest}`)) {
        line = `${line} ${rest}`;
        continue;
      }
      if (line) lines.push(line);
      while (!fits(rest)) {
        const piece = [...rest];
        while (piece.length > 1 && !fits(piece.join(''))) piece.pop();
        lines.push(piece.join(''));
        rest = rest.slice(piece.join('').length);
      }
      line = rest;
    }
    return [...lines, line];
  });
}

/** A position as a diagram of the frets that it takes, with one more on each side. */
function diagramOf(
  model: Model,
  position: Position,
  settings: Settings,
  { labels, neck }: BookAsked,
): Diagram {
  const { state, accidentals } = model;
  const { instrument } = state;
  const frets = model.neck.frets;
  const from = Math.max(0, position.lowFret - 1);
  const to = Math.min(frets, Math.max(position.highFret + 1, from + 4));
  const upright = neck === 'upright';
  const look = {
    ...lookOf(instrument, settings, [from, to], upright),
    even: true,
    ...(upright ? {} : { long: 74 + FRET * (to - from + (from === 0 ? 0 : 1)) }),
  };
  const figure = figureOf(instrument, accidentals, look);
  const marks = marksOf(model, { labels, rootsOnly: false, colours: 'plain' }).filter(
    ({ kind }) => kind !== 'outside' && kind !== 'outsideRoot',
  );
  const { width, height } = geometryOf(figure);
  const roots = rootsIn(position);
  const steps = model.fingering()?.steps ?? [];
  return {
    title: `${keySaid(model.key)}: ${model.names()[position.index]!}`,
    said: [
      `Frets ${position.lowFret} to ${position.highFret}. ${roots.length ? `Root: ${list(roots.map(spotSaid))}.` : 'No root in it.'}`,
      // What is played on one string stays on one line.
      `Fingers ${signatureOf(steps)
        .split(' / ')
        .map((group) => group.replaceAll(' ', '\u00a0'))
        .join(' / ')}`,
    ],
    inks: printed({ figure, layers: layersOf({ marks }) }),
    width,
    height,
  };
}

/** The positions that a book shows, each as the one in front of its own model. */
function* shown(
  model: Model,
  settings: Settings,
  { what }: BookAsked,
): Generator<readonly [Model, Position]> {
  const inFront = function* (state: ChartState, wanted: (p: Position, all: readonly Position[]) => boolean) {
    const { positions } = modelOf(state, settings);
    const all = positions.ok ? positions.value : [];
    for (const position of all.filter((p) => wanted(p, all)))
      yield [modelOf(withFront(state, refOf(all, position)), settings), position] as const;
  };
  const { state, front } = model;
  const at = front?.position;
  if (!at) return;
  if (what === 'position') yield* inFront(state, (p) => p.index === at.index);
  else if (what === 'ladder') yield* inFront(state, () => true);
  else
    for (let by = 0; by < 12; by++) {
      const there = transpose(state, by, settings.spelling);
      const isFirst = (p: Position, all: readonly Position[]): boolean =>
        all.find(({ start }) => start === p.start) === p;
      yield* inFront(there, (p, all) => (what === 'keys' ? p.start === at.start : isFirst(p, all)));
    }
}

/** A diagram in its part of a page: its words, how high they are, and how large its drawing can be below them. */
function laidOut({ title, width, height }: Diagram, said: readonly string[], wide: number, high: number) {
  const size = Math.min(TEXT.head, wide / 18);
  const small = size * 0.78;
  const heads = wrapped(title, wide, size);
  const lines = said.flatMap((text) => wrapped(text, wide, small));
  const head = heads.length * size * 1.25;
  const above = head + lines.length * small * 1.3 + 2;
  const words = [
    ...heads.map((text, i) => word(text, 0, (i + 0.5) * size * 1.25, size, { bold: true })),
    ...lines.map((text, i) => word(text, 0, head + (i + 0.6) * small * 1.3, small)),
  ];
  return { words, above, scale: Math.min(wide / width, (high - above - BELOW) / height, MOST_SCALE) };
}
/** With as much of what is said of it as leaves the drawing large enough to be read. */
function fitted(it: Diagram, wide: number, high: number): ReturnType<typeof laidOut> {
  const less = [it.said, it.said.slice(0, 1), []].map((said) => laidOut(it, said, wide, high));
  return less.find(({ scale }) => scale >= LEAST_SCALE) ?? less[0]!;
}
/** Room for the player's own words under a diagram, with the line that they stand on. */
const BELOW = 7;
function cell(it: Diagram, x: number, y: number, wide: number, high: number): readonly Laid[] {
  const { words, above, scale } = fitted(it, wide, high);
  const line: Ink = {
    d: `M0 0H${wide}`,
    x: 0,
    y: high - 3,
    stroke: 'soft',
    width: 0.15,
    dash: [],
    fill: null,
  };
  return [
    { x, y, scale: 1, inks: [...words, line] },
    { x: x + (wide - it.width * scale) / 2, y: y + above, scale, inks: it.inks },
  ];
}

/** What stands on every page below: the book's name, and which page it is. */
const foot = (title: string, paper: PaperId, page: number, pages: number): Laid => {
  const { width, height } = PAPERS[paper];
  return {
    x: MARGIN,
    y: height - FOOT,
    scale: 1,
    inks: [
      word(title, 0, 0, TEXT.small, { tone: 'soft' }),
      word(`${page} of ${pages}`, width - 2 * MARGIN, 0, TEXT.small, { tone: 'soft', align: 'right' }),
    ],
  };
};

/** A page's worth of contents, with the player's own words above them on the first one. */
function contents(
  title: string,
  said: readonly string[],
  entries: readonly { readonly title: string; readonly page: number }[],
  paper: PaperId,
): readonly Sheet[] {
  const { width, height } = PAPERS[paper];
  const wide = width - 2 * MARGIN;
  const lines = said.flatMap((text) => wrapped(text, wide, TEXT.plain));
  const rows: Lettered[][] = [
    ...lines.map((text) => [word(text, 0, 0, TEXT.plain)]),
    ...(lines.length ? [[]] : []),
    ...entries.map(({ title: called, page }) => [
      word(wrapped(called, wide - 20, TEXT.plain)[0]!, 0, 0, TEXT.plain),
      word(String(page), wide, 0, TEXT.plain, { align: 'right' }),
    ]),
  ];
  const room = Math.floor((height - 2 * MARGIN - 14) / LINE);
  const sheets: Sheet[] = [];
  for (let i = 0; i < rows.length || !sheets.length; i += room)
    sheets.push([
      {
        x: MARGIN,
        y: MARGIN,
        scale: 1,
        inks: [
          word(sheets.length ? `${title}, contents` : title, 0, 3, TEXT.title, { bold: true }),
          ...rows.slice(i, i + room).flatMap((row, n) => row.map((it) => ({ ...it, y: 14 + n * LINE }))),
        ],
      },
    ]);
  return sheets;
}

/** What a book is called. */
const titleOf = ({ name }: BookChart, { what }: BookAsked): string =>
  `${name}: ${BOOKS.find(({ id }) => id === what)!.name}`;

/** A chart as a book of diagrams, told of each that is done. */
export function bookOf(
  chart: BookChart,
  settings: Settings,
  asked: BookAsked,
  onDiagram?: (done: number) => void,
): Book {
  const model = modelOf(chart.state, settings);
  const { paper, perPage } = asked;
  const { width, height } = PAPERS[paper];
  const diagrams: Diagram[] = [];
  for (const [there, position] of shown(model, settings, asked)) {
    diagrams.push(diagramOf(there, position, settings, asked));
    onDiagram?.(diagrams.length);
  }
  const grid = (many: PerPage) => {
    const [columns, rows] = GRIDS[many];
    return {
      columns,
      each: columns * rows,
      wide: (width - 2 * MARGIN - GAP.x * (columns - 1)) / columns,
      high: (height - 2 * MARGIN - FOOT - GAP.y * (rows - 1)) / rows,
    };
  };
  const canBeRead = (many: PerPage): boolean => {
    const { wide, high } = grid(many);
    return diagrams.every((it) => fitted(it, wide, high).scale >= LEAST_SCALE);
  };
  const wanted = asked.what === 'position' ? '1' : perPage;
  const fewer = PER_PAGE.map(({ id }) => id).filter((id) => Number(id) <= Number(wanted));
  const many = fewer.findLast(canBeRead) ?? '1';
  const { columns, each, wide, high } = grid(many);
  const pages: Sheet[] = [];
  for (let i = 0; i < diagrams.length; i += each)
    pages.push(
      diagrams.slice(i, i + each).flatMap((it, n) => {
        const [column, row] = [n % columns, Math.floor(n / columns)];
        return cell(it, MARGIN + column * (wide + GAP.x), MARGIN + row * (high + GAP.y), wide, high);
      }),
    );
  const title = titleOf(chart, asked);
  const said = asked.words
    ? [chart.notes, chart.tags.length ? `Tags: ${chart.tags.join(', ')}` : ''].filter(Boolean)
    : [];
  const pageOf = (i: number): number => Math.floor(i / each) + 1;
  const front = (first: number): readonly Sheet[] =>
    diagrams.length > 1 || said.length
      ? contents(
          title,
          [`${plural(diagrams.length, 'diagram')}.`, ...said],
          diagrams.map((it, i) => ({ title: it.title, page: pageOf(i) + first })),
          paper,
        )
      : [];
  // How many pages the contents take tells on which page what they name stands.
  const before = front(front(0).length);
  const all = [...before, ...pages];
  return {
    title,
    paper,
    remarks:
      many === wanted
        ? []
        : [
            `${wanted} to a page would be too small to read on this instrument: ${plural(Number(many), 'diagram')} to a page.`,
          ],
    sheets: all.map((sheet, i) => [...sheet, foot(title, paper, i + 1, all.length)]),
    outline: diagrams.map((it, i) => ({ title: it.title, page: pageOf(i) + before.length })),
  };
}
