import { aboutOf, aboutSaid, type ChartDraft, type Settings } from '@crow-ladder/contract';
import { capital } from '@crow-ladder/core';
import { scoreOf } from '@crow-ladder/core/notation';
import { type Fingered } from '@crow-ladder/core/run';
import { type Book, type Laid } from '@crow-ladder/picture';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { figureOf, lookOf } from '../model/figure.ts';
import { marksOf } from '../model/marks.ts';
import { type Model, modelOf } from '../model/model.ts';
import { writables } from '../model/music.ts';
import { wayLayers } from '../model/way.ts';
import { type ScoreInk, scoreInk } from '../notation/draw.ts';
import { type BookAsked } from './asked.ts';
import { drawnNeck, type DrawnNeck, fingersSaid, isInside, placesSaid } from './diagram.ts';
import { type OnPaper } from './onPaper.ts';
import { type Block, flowed, roomOn, ruled } from './pages.ts';
import { linesOf, ownWords, TEXT, word, wrapped } from './words.ts';

/** How large staff and tablature are, in mm to their own px: as large as the sheet has room for, else as is well read. */
const ENGRAVED = [0.26, 0.23, 0.2, 0.18, 0.16] as const;
const USUAL = 0.2;
/** How wide the close-up is, where there is room and where there is not, what is said stands beside it, in mm; and the most frets that one has. */
const CLOSE = { wide: [96, 72], gap: 8, frets: 10, long: 560 } as const;
/** Between blocks, of a row of the record, and how many rows it has, in mm. */
const SPACE = 5;
const RECORD = { row: 7.5, least: 3, most: 12 } as const;
const COLUMNS = [
  { name: 'Day', at: 0 },
  { name: 'Tempo', at: 0.16 },
  { name: 'Clean', at: 0.3 },
  { name: 'What to watch', at: 0.42 },
] as const;

/** Text as a block. */
function textBlock(texts: readonly string[], wide: number, size: number, bold = false): Block {
  const lines = texts.flatMap((text) => wrapped(text, wide, size));
  return {
    high: lines.length * size * 1.35,
    laid: [{ x: 0, y: 0, scale: 1, inks: linesOf(lines, 0, size, 1.35, { bold }) }],
  };
}
const space = (high: number): Block => ({ high, laid: [] });
const neckBlock = ({ inks, width, height }: DrawnNeck, wide: number): Block => ({
  high: (height * wide) / width,
  laid: [{ x: 0, y: 0, scale: wide / width, inks }],
});

/** The position in front, played up and down, where no task has a run of its own. */
function plainRun(model: Model): OnPaper | null {
  const it = writables(model).find(({ id }) => id === 'position');
  const music = it?.music();
  if (!it || !music?.ok) return null;
  const { run, ticks, beats, clef } = music.value;
  return {
    sheet: 'position',
    title: it.name,
    said: [],
    run,
    steps: model.fingering()?.steps ?? run,
    as: { beats, until: ticks, usual: clef },
    strokes: [],
  };
}

/** The marks of what is played, or of the position in front. */
function marksFor(model: Model, on: OnPaper | null, labels: BookAsked['labels']) {
  const shown = { labels, rootsOnly: false, colours: 'plain' } as const;
  const marks = on ? (wayLayers(model, 0, shown, on.steps, 'run').marks ?? []) : marksOf(model, shown);
  // What says nothing would only hide a piece of its string.
  return marks.filter(({ kind, label }) => kind !== 'outside' || label !== '');
}

/** The frets that are played, with one more on each side; null where they are too many for a close-up. */
function framed({ neck }: Model, steps: readonly Fingered[]): readonly [number, number] | null {
  const frets = steps.map(({ spot }) => spot.fret);
  if (!frets.length) return null;
  const low = Math.max(0, Math.min(...frets) - 1);
  const high = Math.min(neck.frets, Math.max(...frets) + 1);
  return high - low > CLOSE.frets ? null : [low, Math.max(high, Math.min(neck.frets, low + 4))];
}

/** The close-up with its fingers, what is said of the shape beside it. */
function closeBlock(model: Model, settings: Settings, on: OnPaper, wide: number, close: number): Block {
  const { instrument } = model.state;
  const { front } = model;
  const frets = framed(model, on.steps);
  const neck =
    frets &&
    drawnNeck(
      figureOf(instrument, model.accidentals, {
        ...lookOf(instrument, settings, frets, false),
        even: true,
        roomy: true,
        long: CLOSE.long,
      }),
      marksFor(model, on, 'finger').filter(isInside),
    );
  const left = neck ? close + CLOSE.gap : 0;
  // The fingers of a long way stand under its tablature.
  const ofPosition = on.sheet === 'position' && front;
  const said = ofPosition ? [placesSaid(front.position), fingersSaid(on.steps), ...on.said] : on.said;
  const text = textBlock(said, wide - left, TEXT.plain);
  const picture = neck ? neckBlock(neck, close) : null;
  return {
    high: Math.max(text.high, picture?.high ?? 0),
    laid: [...(picture?.laid ?? []), ...text.laid.map((it): Laid => ({ ...it, x: left }))],
  };
}

const scoreBlocks = ({ lines, by }: ScoreInk, scale: number): readonly Block[] =>
  lines.map(({ high, inks }) => ({
    high: high * by * scale,
    laid: [{ x: 0, y: 0, scale: by * scale, inks }],
  }));

/** Rows in which a record is kept by hand. */
function recordBlock(rows: number, wide: number): Block {
  const heads = COLUMNS.map(({ name, at }) => word(name, at * wide, 2, TEXT.small, { bold: true }));
  const lines = Array.from({ length: rows + 1 }, (_, i) => ruled(4.5 + i * RECORD.row, 0, wide));
  return { high: 5 + rows * RECORD.row, laid: [{ x: 0, y: 0, scale: 1, inks: [...heads, ...lines] }] };
}

/** The chart's sentence, with its instrument. */
function sentenceOf(state: ChartDraft['state'], settings: Settings): string {
  const { name, frets, capo } = state.instrument;
  return `${aboutSaid(aboutOf(state), settings)}. ${capital(name)}, ${frets} frets${capo ? `, capo at fret ${capo}` : ''}.`;
}

/** A chart on a sheet: its sentence, the neck at full width, the close-up with fingers, all that is played on staff and tablature, the player's own words. */
export function sheetOf(
  chart: ChartDraft,
  settings: Settings,
  { what, paper, labels, words }: BookAsked,
  given: OnPaper | null,
): Pick<Book, 'sheets' | 'outline' | 'remarks'> {
  const model = modelOf(chart.state, settings);
  const { wide, high } = roomOn(paper);
  const { instrument } = model.state;
  const on = given ?? plainRun(model);
  const name = model.front && model.names()[model.front.position.index];
  const neck = drawnNeck(
    figureOf(instrument, model.accidentals, lookOf(instrument, settings, null, false)),
    marksFor(model, on, labels),
  );
  const above: readonly Block[] = [
    textBlock([chart.name], wide, TEXT.title, true),
    space(1),
    textBlock([sentenceOf(chart.state, settings)], wide, TEXT.plain),
    space(SPACE),
    textBlock([what === 'practice' && on ? on.title : capital(name ?? 'no position')], wide, TEXT.head, true),
    space(2),
    neckBlock(neck, wide),
    space(SPACE),
  ];
  const closeUp = weakMapMemoize((close: number): readonly Block[] =>
    on ? [closeBlock(model, settings, on, wide, close), space(SPACE)] : [],
  );
  const own = words ? ownWords(chart) : [];
  const below: readonly Block[] = own.flatMap((text) => [
    ...wrapped(text, wide, TEXT.plain).map((line) => textBlock([line], wide, TEXT.plain)),
    space(1.5),
  ]);
  const least = what === 'practice' ? 5 + RECORD.least * RECORD.row : 8;
  const sum = (blocks: readonly Block[]): number => blocks.reduce((all, it) => all + it.high, 0);
  const around = sum(above) + sum(below) + least;
  const score = on && { run: on.run, score: scoreOf(on.run, model.key, on.as) };
  // Each size is engraved once, whichever close-up stands over it.
  const engraved = weakMapMemoize((scale: number): readonly Block[] =>
    score
      ? scoreBlocks(
          scoreInk(
            { ...score, strings: instrument.tuning.length, strokes: on.strokes, staff: true },
            wide / scale,
          ),
          scale,
        )
      : [],
  );
  const middle = (close: number, scale: number): readonly Block[] => [...closeUp(close), ...engraved(scale)];
  const fits = (blocks: readonly Block[]): boolean => around + sum(blocks) <= high;
  /** As large as fits on the sheet; as is well read where nothing does. */
  const asFits = (): readonly Block[] => {
    const smallest = middle(Math.min(...CLOSE.wide), Math.min(...ENGRAVED));
    if (!fits(smallest)) return middle(CLOSE.wide[0], USUAL);
    for (const close of CLOSE.wide)
      for (const scale of ENGRAVED) {
        const blocks = middle(close, scale);
        if (fits(blocks)) return blocks;
      }
    return smallest;
  };
  const played = asFits();
  const free = fits(played) ? high - around - sum(played) : 0;
  const rows = Math.min(RECORD.most, RECORD.least + Math.floor(free / RECORD.row));
  const end: readonly Block[] =
    what === 'practice'
      ? [recordBlock(rows, wide)]
      : [{ high: 8, laid: [{ x: 0, y: 0, scale: 1, inks: [ruled(7, 0, wide)] }] }];
  return {
    sheets: flowed([...above, ...played, ...below, ...end], paper),
    outline: [{ title: chart.name, page: 1 }],
    remarks: [],
  };
}
