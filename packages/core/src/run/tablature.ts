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
}

/** What stands before a fret: `h`, `p` and `s` for a hammer-on, a pull-off and a slide, `t` for a tap. */
const JOINT: Readonly<Record<Arrive, string>> = { pick: '-', slide: 's', hammer: 'h', pull: 'p', tap: 't' };
/** What stands after the finger of a note with an accent. */
const ACCENT = '>';
/** Strokes as they are written under the fingers. */
const STROKE: Readonly<Record<Stroke, string>> = { down: 'd', up: 'u' };

/** A note of a run with the text of it on its string, and the signs below. */
interface Told extends Step {
  readonly text: string;
  readonly under: readonly string[];
}

/** One bar as columns of text: a line for each string, the highest on top, then one for each row of signs. */
function barText(
  notes: readonly Told[],
  from: number,
  ticks: number,
  unit: number,
  cell: number,
  strings: number,
) {
  const lines = Array.from({ length: strings }, () => [] as string[]);
  const rows = notes[0]!.under.map(() => [] as string[]);
  for (let at = from; at < from + ticks; at += unit) {
    const here = notes.find((s) => s.start >= at && s.start < at + unit);
    lines.forEach((line, i) => line.push((here?.spot.string === i + 1 ? here.text : '').padEnd(cell, '-')));
    rows.forEach((row, i) => row.push(` ${here?.under[i] ?? ''}`.padEnd(cell)));
  }
  return [...lines, ...rows].map((line) => line.join(''));
}

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
  { beats = 4, width = 78, accidentals = 'sharps', strokes }: TabOptions = {},
): string {
  if (!run.length) return '';
  const bar = beats * QUARTER;
  const unit = run.reduce((so, s) => gcd(gcd(so, s.start), s.length), bar);
  const notes = run.map((step, i): Told => ({
    ...step,
    text: `${JOINT[step.arrive]}${step.spot.fret}${heldText(step.spot.fret, step)}`,
    under: [
      `${fingerSign(step.finger)}${step.accent ? ACCENT : ''}`,
      ...(strokes ? [strokes[i] ? STROKE[strokes[i]] : ''] : []),
    ],
  }));
  const cell = Math.max(
    ...notes.flatMap(({ text, under }) => [text, ...under.map((sign) => ` ${sign}`)].map((it) => it.length)),
  );
  const end = run.reduce((so, s) => Math.max(so, s.start + s.length), 0);
  const names = neck.open.map((midi) => pitchClassName(midi, accidentals));
  const label = Math.max(...names.map((n) => n.length));
  const bars: string[][] = [];
  for (let from = 0; from < end; from += bar)
    bars.push(barText(notes, from, Math.min(bar, end - from), unit, cell, names.length));
  const systems: string[][][] = [];
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
  const line = (system: readonly (readonly string[])[], i: number): string =>
    i < names.length
      ? `${names[i]!.padEnd(label)}|${system.map((b) => b[i]).join('|')}|`
      : `${' '.repeat(label + 1)}${system.map((b) => b[i]).join(' ')}`.trimEnd();
  const rows = [...names, ...notes[0]!.under];
  const signs = signsSaid(run, strokes);
  return [
    ...systems.map((system) =>
      rows
        .map((_, i) => line(system, i))
        .join('\n')
        .trimEnd(),
    ),
    ...(signs ? [signs] : []),
  ].join('\n\n');
}
