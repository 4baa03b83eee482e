import { type Neck } from '../neck.ts';
import { type Accidentals, pitchClassName } from '../note.ts';
import { gcd } from '../arithmetic.ts';
import { fingerSign } from './signature.ts';
import { type Arrive, QUARTER, type Run, type Step } from './run.ts';

export interface TabOptions {
  /** Quarter notes a bar. */
  readonly beats?: number;
  /** Characters a line, where a bar fits into it. */
  readonly width?: number;
  /** How open strings are named. */
  readonly accidentals?: Accidentals;
}

/** What stands between two frets of a string: `h`, `p` and `s` for a hammer-on, a pull-off and a slide. */
const JOINT: Readonly<Record<Arrive, string>> = { pick: '-', slide: 's', hammer: 'h', pull: 'p', tap: 't' };

/** One bar as a column of text: a line for each string, the highest on top, and one for the fingers. */
function barText(
  steps: readonly Step[],
  from: number,
  ticks: number,
  unit: number,
  cell: number,
  strings: number,
) {
  const lines = Array.from({ length: strings }, () => [] as string[]);
  const fingers: string[] = [];
  for (let at = from; at < from + ticks; at += unit) {
    const here = steps.filter((s) => s.start >= at && s.start < at + unit);
    lines.forEach((line, i) => {
      const step = here.find((s) => s.spot.string === i + 1);
      line.push((step ? JOINT[step.arrive] + step.spot.fret : '').padEnd(cell, '-'));
    });
    fingers.push((here[0] ? ` ${fingerSign(here[0].finger)}` : '').padEnd(cell));
  }
  return [...lines, fingers].map((line) => line.join(''));
}

/**
 * A run as plain text in a monospaced face: string 1 on top, bar lines, columns in proportion to time, and the finger of
 * each note below it (0 is an open string, t a tap). Bars that do not fit into a line go on below.
 *
 * @example tablature(inTime(articulate(steps.slice(0, 2))), neck).split('\n').length // 7
 */
export function tablature(
  run: Run,
  neck: Neck,
  { beats = 4, width = 78, accidentals = 'sharps' }: TabOptions = {},
): string {
  if (!run.length) return '';
  const bar = beats * QUARTER;
  const unit = run.reduce((so, s) => gcd(gcd(so, s.start), s.length), bar);
  const cell = 1 + Math.max(...run.map((s) => String(s.spot.fret).length));
  const end = run.reduce((so, s) => Math.max(so, s.start + s.length), 0);
  const names = neck.open.map((midi) => pitchClassName(midi, accidentals));
  const label = Math.max(...names.map((n) => n.length));
  const bars: string[][] = [];
  for (let from = 0; from < end; from += bar)
    bars.push(barText(run, from, Math.min(bar, end - from), unit, cell, names.length));
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
  return systems.map((system) => [...names, ''].map((_, i) => line(system, i)).join('\n')).join('\n\n');
}
