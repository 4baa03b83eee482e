import { type ChartDraft, type Settings } from '@crow-ladder/contract';
import { plural, type Position, refOf } from '@crow-ladder/core';
import { type Book, type Lettered, PAPERS, type PaperId, type Sheet } from '@crow-ladder/picture';
import { type Model, modelOf } from '../model/model.ts';
import { transpose, withFront } from '../model/moves.ts';
import { type BookAsked, type BookOf, BOOKS, isSheet, PER_PAGE, type PerPage } from './asked.ts';
import { cell, type Diagram, diagramOf, fitted, LEAST_SCALE } from './diagram.ts';
import { MARGIN, roomOn, withFeet } from './pages.ts';
import { sheetOf } from './sheet.ts';
import { ownWords, TEXT, word, wrapped } from './words.ts';

const GRIDS: Readonly<Record<PerPage, readonly [columns: number, rows: number]>> = {
  1: [1, 1],
  2: [1, 2],
  4: [2, 2],
  6: [2, 3],
  12: [3, 4],
};
/** Between diagrams, and from line to line of contents, in mm. */
const GAP = { x: 8, y: 6 } as const;
const LINE = 5.2;

/** The positions of a chart that a book shows, each as the one in front of its own model. */
function* shown(
  state: ChartDraft['state'],
  settings: Settings,
  what: BookAsked['what'],
): Generator<readonly [Model, Position]> {
  const inFront = function* (
    of: ChartDraft['state'],
    wanted: (p: Position, all: readonly Position[]) => boolean,
  ) {
    const { positions } = modelOf(of, settings);
    const all = positions.ok ? positions.value : [];
    for (const position of all.filter((p) => wanted(p, all)))
      yield [modelOf(withFront(of, refOf(all, position)), settings), position] as const;
  };
  const at = modelOf(state, settings).front?.position;
  if (!at) return;
  if (what === 'charts') yield* inFront(state, (p) => p.index === at.index);
  else if (what === 'ladder') yield* inFront(state, () => true);
  else
    for (let by = 0; by < 12; by++) {
      const there = transpose(state, by, settings.spelling);
      const isFirst = (p: Position, all: readonly Position[]): boolean =>
        all.find(({ start }) => start === p.start) === p;
      yield* inFront(there, (p, all) => (what === 'keys' ? p.start === at.start : isFirst(p, all)));
    }
}

/** A page's worth of contents, with the player's own words above them on the first one. */
function contents(
  title: string,
  said: readonly string[],
  entries: readonly { readonly title: string; readonly page: number }[],
  paper: PaperId,
): readonly Sheet[] {
  const { height } = PAPERS[paper];
  const { wide } = roomOn(paper);
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
const titleOf = ([chart]: readonly ChartDraft[], { what }: BookAsked): string => {
  const { name } = BOOKS.find(({ id }) => id === what)!;
  return what === 'charts' || !chart ? 'Charts' : `${chart.name}: ${name}`;
};

/** Charts as a book of diagrams, or one of them on a sheet; told of each diagram that is done. */
export function bookOf(of: BookOf, asked: BookAsked, onDiagram?: (done: number) => void): Book {
  const { charts, settings } = of;
  const { paper, perPage, what } = asked;
  const title = titleOf(charts, asked);
  const [first] = charts;
  const nothing: Book = { title, paper, remarks: [], sheets: [], outline: [] };
  if (!first) return nothing;
  if (isSheet(what)) {
    const sheet = sheetOf(first, settings, asked, of.onPaper?.sheet === what ? of.onPaper : null);
    return { ...sheet, title, paper, sheets: withFeet(title, paper, sheet.sheets) };
  }
  const diagrams: Diagram[] = [];
  for (const chart of charts)
    for (const [there, position] of shown(chart.state, settings, what)) {
      const { title: called, ...rest } = diagramOf(there, position, settings, asked);
      const isMany = what === 'charts';
      diagrams.push({
        ...rest,
        title: isMany ? `${chart.name}: ${called}` : called,
        own: isMany && asked.words ? ownWords(chart) : [],
      });
      onDiagram?.(diagrams.length);
    }
  if (!diagrams.length) return nothing;
  const grid = (many: PerPage) => {
    const [columns, rows] = GRIDS[many];
    const room = roomOn(paper);
    return {
      columns,
      each: columns * rows,
      wide: (room.wide - GAP.x * (columns - 1)) / columns,
      high: (room.high - GAP.y * (rows - 1)) / rows,
    };
  };
  const canBeRead = (many: PerPage): boolean => {
    const { wide, high } = grid(many);
    return diagrams.every((it) => fitted(it, wide, high).scale >= LEAST_SCALE);
  };
  const fewer = PER_PAGE.map(({ id }) => id).filter((id) => Number(id) <= Number(perPage));
  const many = fewer.findLast(canBeRead) ?? '1';
  const { columns, each, wide, high } = grid(many);
  const pages: Sheet[] = [];
  for (let i = 0; i < diagrams.length; i += each)
    pages.push(
      diagrams.slice(i, i + each).flatMap((it, n) => {
        const x = MARGIN + (n % columns) * (wide + GAP.x);
        const y = MARGIN + Math.floor(n / columns) * (high + GAP.y);
        return cell(it, wide, high).laid.map((laid) => ({ ...laid, x: laid.x + x, y: laid.y + y }));
      }),
    );
  const said = asked.words && what !== 'charts' ? ownWords(first) : [];
  const pageOf = (i: number): number => Math.floor(i / each) + 1;
  const front = (from: number): readonly Sheet[] =>
    contents(
      title,
      [`${plural(diagrams.length, 'diagram')}.`, ...said],
      diagrams.map((it, i) => ({ title: it.title, page: pageOf(i) + from })),
      paper,
    );
  // How many pages the contents take tells on which page what they name stands.
  const before = front(front(0).length);
  return {
    title,
    paper,
    remarks:
      many === perPage
        ? []
        : [
            `${perPage} to a page would be too small to read on this instrument: ${plural(Number(many), 'diagram')} to a page.`,
          ],
    sheets: withFeet(title, paper, [...before, ...pages]),
    outline: diagrams.map((it, i) => ({ title: it.title, page: pageOf(i) + before.length })),
  };
}
