import { type Neck } from '../neck.ts';
import { type Accidentals, pitchClassName } from '../note.ts';
import { gcd } from '../arithmetic.ts';
import { fingerSign } from './signature.ts';
import { heldText } from './bend.ts';
import { type Arrive, QUARTER, type Run, type Step } from './run.ts';
import { type Stroke } from './strokes.ts';

export interface TabOptions {
  /** Quarter notes a bar. */
  readonly beats?: number;
  /** Characters a line, where a bar fits into it. */
  readonly width?: number;
  /** How open strings are named. */
  readonly accidentals?: Accidentals;
  /** The stroke of each note, if they are written. */
  readonly strokes?: readonly (Stroke | null)[];
  /** How the length of a note or a rest is written over the strings, in ticks, if it is. */
  readonly lengths?: (ticks: number, rest: boolean) => string;
  /** When it ends, its last rests too, in ticks. */
  readonly until?: number;
}

/** What stands before a fret: `h`, `p` and `s` for a hammer-on, a pull-off and a slide, `t` for a tap. */
const JOINT: Readonly<Record<Arrive, string>> = { pick: '-', slide: 's', hammer: 'h', pull: 'p', tap: 't' };
/** What stands after the finger of a note with an accent. */
const ACCENT = '>';
/** Strokes as they are written under the fingers. */
const STROKE: Readonly<Record<Stroke, string>> = { down: 'd', up: 'u' };

/** What begins at a tick: a note with the text of it on its string and the signs below, or a rest; and how its length is written. */
interface Told {
  readonly start: number;
  readonly string: number | null;
  readonly text: string;
  readonly over: string;
  readonly under: readonly string[];
}

/** Characters that a column without a note has where lengths are written. */
const EMPTY = 2;
/** How many characters what begins at a column needs. */
const widthOf = ({ text, over, under }: Told): number =>
  Math.max(text.length, ...[over, ...under].filter(Boolean).map((sign) => sign.length + 1));

/**
 * One bar as columns of text: where lengths are written a line for them, a line for each string, the highest on top, then one for each
 * row of signs. Columns are `cell` wide; where that is not given, as wide as what stands in them.
 */
function barText(
  notes: readonly Told[],
  columns: readonly number[],
  cell: number | null,
  strings: number,
  rows: { readonly over: boolean; readonly under: number },
): readonly string[] {
  const at = new Map(notes.map((told) => [told.start, told]));
  const cells = columns.map((tick) => {
    const told = at.get(tick);
    return { told, wide: cell ?? (told ? widthOf(told) + 1 : EMPTY) };
  });
  const line = (of: (told: Told | undefined) => string, fill: string): string =>
    cells.map(({ told, wide }) => of(told).padEnd(wide, fill)).join('');
  const signs = (of: (told: Told) => string | undefined): string =>
    line((told) => ` ${(told && of(told)) ?? ''}`, ' ');
  return [
    ...(rows.over ? [signs(({ over }) => over)] : []),
    ...Array.from({ length: strings }, (_, i) =>
      line((told) => (told?.string === i + 1 ? told.text : ''), '-'),
    ),
    ...Array.from({ length: rows.under }, (_, i) => signs(({ under }) => under[i])),
  ];
}

/** Columns stand for equal times, unless those would be shorter than this, in ticks: then there is one where something begins, and more where it lasts. */
const LEAST = QUARTER / 8;
const LASTS = QUARTER / 4;

/** What each sign that stands in a run means. */
function signsSaid(run: Run, strokes: TabOptions['strokes']): string {
  const some = (of: (step: Step) => boolean | undefined, said: string): readonly string[] =>
    run.some(of) ? [said] : [];
  return [
    ...(strokes?.includes('down') ? ['d down stroke'] : []),
    ...(strokes?.includes('up') ? ['u up stroke'] : []),
    ...some((s) => s.arrive === 'hammer', 'h hammered on'),
    ...some((s) => s.arrive === 'pull', 'p pulled off'),
    ...some((s) => s.arrive === 'slide', 's by a slide'),
    ...some((s) => s.arrive === 'tap', 't tapped'),
    ...some((s) => s.bend !== undefined, 'b bent to the sound of a fret'),
    ...some((s) => s.bend?.how === 'slowly', 'b> slowly'),
    ...some((s) => s.bend?.released, 'r released'),
    ...some((s) => s.vibrato !== undefined, '~ vibrato'),
    ...some((s) => s.accent, `${ACCENT} accented`),
  ].join(', ');
}

/**
 * A run as plain text in a monospaced face: string 1 on top, bar lines, columns in proportion to time, the finger of each note below
 * it (0 is an open string, t a tap), and its stroke where strokes are given. Bars that do not fit into a line go on below; what the
 * signs mean stands at the end.
 *
 * @example tablature(inTime(articulate(steps.slice(0, 2))), neck).split('\n').length // 7
 */
export function tablature(
  run: Run,
  neck: Neck,
  { beats = 4, width = 78, accidentals = 'sharps', strokes, lengths, until = 0 }: TabOptions = {},
): string {
  if (!run.length) return '';
  const bar = beats * QUARTER;
  const end = run.reduce((so, s) => Math.max(so, s.start + s.length), until);
  const unit = run.reduce((so, s) => gcd(gcd(so, s.start), s.length), gcd(bar, end));
  const notes: Told[] = [];
  let at = 0;
  const rest = (to: number): void => {
    if (lengths && to > at)
      notes.push({ start: at, string: null, text: '', over: lengths(to - at, true), under: [] });
  };
  run.forEach((step, i) => {
    const { spot, start, length } = step;
    rest(start);
    at = Math.min(start + length, run[i + 1]?.start ?? Infinity);
    notes.push({
      start,
      string: spot.string,
      text: `${JOINT[step.arrive]}${spot.fret}${heldText(spot.fret, step)}`,
      over: lengths?.(at - start, false) ?? '',
      under: [
        `${fingerSign(step.finger)}${step.accent ? ACCENT : ''}`,
        ...(strokes ? [strokes[i] ? STROKE[strokes[i]] : ''] : []),
      ],
    });
  });
  rest(end);
  const under = strokes ? 2 : 1;
  const cell = lengths ? null : Math.max(...notes.map(widthOf));
  const names = neck.open.map((midi) => pitchClassName(midi, accidentals));
  const label = Math.max(...names.map((n) => n.length));
  const columnsOf = (from: number, to: number): readonly number[] => {
    if (unit < LEAST) {
      const begin = [from, ...notes.map(({ start }) => start).filter((start) => start > from && start < to)];
      return begin.flatMap((start, i) => {
        const many = Math.max(1, Math.round(((begin[i + 1] ?? to) - start) / LASTS));
        return Array.from({ length: many }, (_, k) => (k === 0 ? start : NaN));
      });
    }
    return Array.from({ length: (to - from) / unit }, (_, i) => from + i * unit);
  };
  const bars: (readonly string[])[] = [];
  for (let from = 0; from < end; from += bar)
    bars.push(
      barText(notes, columnsOf(from, Math.min(from + bar, end)), cell, names.length, {
        over: Boolean(lengths),
        under,
      }),
    );
  const systems: (readonly string[])[][] = [];
  let room = 0;
  for (const text of bars) {
    const needs = text[0]!.length + 1;
    if (!systems.length || needs > room) {
      systems.push([]);
      room = width - label - 1;
    }
    systems.at(-1)!.push(text);
    room -= needs;
  }
  const above = lengths ? 1 : 0;
  const line = (system: readonly (readonly string[])[], i: number): string => {
    const name = names[i - above];
    return name !== undefined
      ? `${name.padEnd(label)}|${system.map((b) => b[i]).join('|')}|`
      : `${' '.repeat(label + 1)}${system.map((b) => b[i]).join(' ')}`.trimEnd();
  };
  const signs = signsSaid(run, strokes);
  return [
    ...systems.map((system) =>
      Array.from({ length: above + names.length + under }, (_, i) => line(system, i))
        .join('\n')
        .trimEnd(),
    ),
    ...(signs ? [signs] : []),
  ].join('\n\n');
}
