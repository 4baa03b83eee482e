import { geometryOf } from './geometry.ts';
import { isLong, LABEL_DROP, marksByString, outline } from './marks.ts';
import { type Mark, type MarkKind, type Scene } from './scene.ts';
import { boardShapes, layerShapes, nutShapes, type Shape } from './shapes.ts';

/** What is put on paper is black, one of two greys, or left white. */
export type Tone = 'ink' | 'soft' | 'faint' | 'paper';
/** How light each tone is, from 0 (black) to 255. */
export const GREY: Readonly<Record<Tone, number>> = { ink: 0, soft: 90, faint: 222, paper: 255 };
/** A line or an area, its outline from a point. */
export interface Drawn {
  readonly d: string;
  readonly x: number;
  readonly y: number;
  readonly stroke: Tone | null;
  readonly width: number;
  readonly dash: readonly number[];
  readonly fill: Tone | null;
}
/** A word on a line through its middle, beginning at a point or around it. */
export interface Lettered {
  readonly word: string;
  readonly x: number;
  readonly y: number;
  /** How high its letters are, with their leading. */
  readonly size: number;
  readonly bold: boolean;
  readonly tone: Tone;
  readonly align: 'left' | 'center' | 'right';
}
export type Ink = Drawn | Lettered;

interface Line {
  readonly stroke?: Tone;
  readonly width?: number;
  readonly dash?: readonly number[];
  readonly fill?: Tone;
}
/** How lines and areas look on paper, by the last of their classes that is named here. */
const LINES: Readonly<Record<string, Line>> = {
  inlay: { fill: 'faint' },
  wire: { stroke: 'soft', width: 1 },
  nut: { stroke: 'ink' },
  string: { stroke: 'soft' },
  region: { fill: 'faint' },
  hand: { fill: 'faint' },
  path: { stroke: 'soft', width: 2 },
  link: { stroke: 'soft', width: 1.2 },
  'link-move': { stroke: 'ink', width: 2 },
  'link-was': { stroke: 'soft', width: 1.2, dash: [2, 3] },
  'link-travel': { stroke: 'soft', width: 1.2, dash: [2, 4] },
  'link-miss': { stroke: 'ink', width: 2, dash: [3, 3] },
  ring: { stroke: 'ink', width: 3 },
  'ring-next': { stroke: 'ink', width: 1.2, dash: [2, 3] },
};
interface Words {
  readonly size: number;
  readonly tone: Tone;
}
const WORDS: Readonly<Record<string, Words>> = {
  'fret-number': { size: 13, tone: 'ink' },
  'open-name': { size: 13, tone: 'ink' },
  'capo-name': { size: 11, tone: 'ink' },
  'region-word': { size: 12, tone: 'ink' },
  'hand-word': { size: 12, tone: 'ink' },
  'link-word': { size: 11, tone: 'ink' },
};
/** How marks look on paper: told apart by their shape and filling, black alone being enough. */
const MARKS: Readonly<Record<MarkKind, Line & { readonly text: Tone }>> = {
  root: { fill: 'ink', stroke: 'ink', width: 1.8, text: 'paper' },
  note: { fill: 'paper', stroke: 'ink', width: 1.8, text: 'ink' },
  altered: { fill: 'paper', stroke: 'ink', width: 1.8, dash: [3, 2], text: 'ink' },
  added: { fill: 'paper', stroke: 'ink', width: 2.4, text: 'ink' },
  passing: { fill: 'paper', stroke: 'ink', width: 1.2, dash: [1.5, 2], text: 'ink' },
  outside: { fill: 'paper', text: 'soft' },
  outsideRoot: { fill: 'paper', stroke: 'soft', width: 1.2, text: 'soft' },
  shared: { fill: 'ink', stroke: 'ink', width: 1.8, text: 'paper' },
  lower: { fill: 'paper', stroke: 'ink', width: 1.8, text: 'ink' },
  upper: { fill: 'paper', stroke: 'ink', width: 1.4, text: 'ink' },
  was: { fill: 'paper', stroke: 'soft', width: 1.2, dash: [2, 2.5], text: 'soft' },
};
const LABEL = { usual: 13.5, long: 11 } as const;

const styled = <T>(table: Readonly<Record<string, T>>, classes: string): T | undefined =>
  classes
    .split(' ')
    .map((name) => table[name])
    .findLast((it) => it !== undefined);

function inkOf(s: Shape): readonly Ink[] {
  if (s.word !== undefined) {
    const it = styled(WORDS, s.class);
    return it
      ? [{ word: s.word, x: s.x!, y: s.y!, size: it.size, bold: false, tone: it.tone, align: 'center' }]
      : [];
  }
  const it = styled(LINES, s.class);
  return it ? [drawn(s.d!, 0, 0, { ...it, ...(s.width && { width: s.width }) })] : [];
}
const drawn = (d: string, x: number, y: number, { stroke, width, dash, fill }: Line): Drawn => ({
  d,
  x,
  y,
  stroke: stroke ?? null,
  width: width ?? 1,
  dash: dash ?? [],
  fill: fill ?? null,
});

function markInks(mark: Mark, scene: Scene): readonly Ink[] {
  const g = geometryOf(scene.figure);
  const { x, y } = g.at(mark.string, mark.fret);
  const it = MARKS[mark.kind];
  const word: Lettered = {
    word: mark.label,
    x,
    y: y + LABEL_DROP,
    size: isLong(mark.label) ? LABEL.long : LABEL.usual,
    bold: true,
    tone: it.text,
    align: 'center',
  };
  return [drawn(outline(mark.kind, g.mark.half, g.mark.tall), x, y, it), ...(mark.label ? [word] : [])];
}

/** A scene in the order in which it is put on paper, in the units of its geometry. */
export function printed(scene: Scene): readonly Ink[] {
  const { figure, layers } = scene;
  const g = geometryOf(figure);
  const { under, over } = layerShapes(layers, g);
  return [
    ...boardShapes(figure, g).flatMap(inkOf),
    ...under.flatMap(inkOf),
    ...nutShapes(figure, g).flatMap(inkOf),
    ...marksByString(layers.marks, g, figure.strings.length).flatMap((row) =>
      row.flatMap((mark) => markInks(mark, scene)),
    ),
    ...over.flatMap(inkOf),
  ];
}
