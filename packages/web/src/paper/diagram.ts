import { type Settings } from '@crow-ladder/contract';
import { keySaid, list, type Position, rootsIn, spotSaid } from '@crow-ladder/core';
import { type Fingered, signatureOf } from '@crow-ladder/core/run';
import {
  type Figure,
  geometryOf,
  type Ink,
  type Laid,
  layersOf,
  type Mark,
  printed,
} from '@crow-ladder/picture';
import { figureOf, lookOf } from '../model/figure.ts';
import { marksOf } from '../model/marks.ts';
import { type Model } from '../model/model.ts';
import { type BookAsked } from './asked.ts';
import { type Block, ruled } from './pages.ts';
import { tabHigh, tabInks } from './tab.ts';
import { linesOf, TEXT, wrapped } from './words.ts';

/** Smaller than this its marks cannot be read, in mm to a unit. */
export const LEAST_SCALE = 0.14;
const MOST_SCALE = 0.62;
/** From fret to fret of a diagram, in the units of its drawing; so that marks have room. */
const FRET = 44;
/** Room for the player's own words under a diagram, with the line that they stand on. */
const BELOW = 7;

/** A neck with its marks, ready to be put on paper. */
export interface DrawnNeck {
  readonly inks: readonly Ink[];
  readonly width: number;
  readonly height: number;
}
export function drawnNeck(figure: Figure, marks: readonly Mark[]): DrawnNeck {
  const { width, height } = geometryOf(figure);
  return { inks: printed({ figure, layers: layersOf({ marks }) }), width, height };
}
/** Whether a mark belongs to what is shown, and not to the rest of the scale. */
export const isInside = ({ kind }: Mark): boolean => kind !== 'outside' && kind !== 'outsideRoot';

interface Diagram extends DrawnNeck {
  readonly title: string;
  /** What is said of it as far as there is room. */
  readonly said: readonly string[];
  /** The player's own words about it, which are always there. */
  readonly own: readonly string[];
  /** What its tablature holds; null where none is asked for. */
  readonly tab: { readonly steps: readonly Fingered[]; readonly strings: number } | null;
}

/** Fingers string by string: what is played on one string stays on one line. */
export const fingersSaid = (steps: readonly Fingered[]): string =>
  `Fingers ${signatureOf(steps)
    .split(' / ')
    .map((group) => group.replaceAll(' ', '\u00a0'))
    .join(' / ')}`;
/** "Frets 2 to 5. Root: string 6 fret 2.". */
export function placesSaid(position: Position): string {
  const roots = rootsIn(position);
  return `Frets ${position.lowFret} to ${position.highFret}. ${roots.length ? `Root: ${list(roots.map(spotSaid))}.` : 'No root in it.'}`;
}

/** The position in front as a diagram of the frets that it takes, with one more on each side. */
export function diagramOf(
  model: Model,
  position: Position,
  settings: Settings,
  { labels, neck, tab }: Pick<BookAsked, 'labels' | 'neck' | 'tab'>,
): Diagram {
  const { instrument } = model.state;
  const { frets } = model.neck;
  const from = Math.max(0, position.lowFret - 1);
  const to = Math.min(frets, Math.max(position.highFret + 1, from + 4));
  const upright = neck === 'upright';
  const look = {
    ...lookOf(instrument, settings, [from, to], upright),
    even: true,
    ...(upright ? {} : { long: 74 + FRET * (to - from + (from === 0 ? 0 : 1)) }),
  };
  const marks = marksOf(model, { labels, rootsOnly: false, colours: 'plain' }).filter(isInside);
  const steps = model.fingering()?.steps ?? [];
  return {
    title: `${keySaid(model.key)}: ${model.names()[position.index]!}`,
    // Tablature has its fingers under it.
    said: [placesSaid(position), ...(tab ? [] : [fingersSaid(steps)])],
    own: [],
    tab: tab ? { steps, strings: instrument.tuning.length } : null,
    ...drawnNeck(figureOf(instrument, model.accidentals, look), marks),
  };
}

/** A diagram in its part of a page: its words, how high they are, and how large its drawing can be below them. */
function laidOut(
  { title, width, height, tab }: Diagram,
  said: readonly string[],
  wide: number,
  high: number,
) {
  const size = Math.min(TEXT.head, wide / 18);
  const small = size * 0.78;
  const heads = wrapped(title, wide, size);
  const lines = said.flatMap((text) => wrapped(text, wide, small));
  const head = heads.length * size * 1.25;
  const above = head + lines.length * small * 1.3 + 2;
  const below = BELOW + (tab ? tabHigh(tab.steps, tab.strings, wide) : 0);
  return {
    words: [...linesOf(heads, 0, size, 1.25, { bold: true }), ...linesOf(lines, head, small, 1.3)],
    above,
    below,
    scale: Math.min(wide / width, (high - above - below) / height, MOST_SCALE),
  };
}
/** With as much of what is said of it as leaves the drawing large enough to be read. */
export function fitted(it: Diagram, wide: number, high: number): ReturnType<typeof laidOut> {
  const less = [it.said, it.said.slice(0, 1), []].map((said) =>
    laidOut(it, [...said, ...it.own], wide, high),
  );
  return less.find(({ scale }) => scale >= LEAST_SCALE) ?? less[0]!;
}

/** A diagram with all that stands with it, in a part of a page. */
export function cell(it: Diagram, wide: number, high: number): Block {
  const { words, above, below, scale } = fitted(it, wide, high);
  const tab = it.tab ? tabInks(it.tab.steps, it.tab.strings, wide, high - below) : [];
  const laid: readonly Laid[] = [
    { x: 0, y: 0, scale: 1, inks: [...words, ...tab, ruled(high - 3, 0, wide)] },
    { x: (wide - it.width * scale) / 2, y: above, scale, inks: it.inks },
  ];
  return { high, laid };
}
export type { Diagram };
