import { LETTERS } from '@crow-ladder/core';
import { heightOf, LINES, type Score, type ScoreItem } from '@crow-ladder/core/notation';
import { QUARTER, type Run, type Stroke } from '@crow-ladder/core/run';
import { Formatter, Stave, TabNote, type Voice } from 'vexflow/bravura';
import { type BarNotes, barNotes, fretWidth, isAbove, voiceOf } from './voices.ts';

/** What is drawn: a run as it is written, with its strings and strokes. */
export interface Drawable {
  readonly run: Run;
  readonly score: Score;
  readonly strings: number;
  readonly strokes: readonly (Stroke | null)[];
  /** Whether the staff stands over the tablature. */
  readonly staff: boolean;
}

/** Major keys by their sharps, from seven flats on: how the library calls a signature. */
const SIGNATURES = 'Cb Gb Db Ab Eb Bb F C G D A E B F# C#'.split(' ');
const signatureName = (sharps: number): string => SIGNATURES[sharps + 7]!;

/**
 * Sizes in px: half a space of the staff, between strings, of a stem, of rows of signs, from these down to the strings, above those
 * where one is bent, of a bracket over or under the staff, of a bar's own room, between fret numbers and of a note at least.
 */
export const SIZE = {
  half: 5,
  strings: 13,
  stem: 34,
  margin: 10,
  tuplet: 20,
  signs: 26,
  arcs: 20,
  bends: 18,
  bracket: 18,
  fingers: 22,
  count: 17,
  between: 20,
  bar: 26,
  tab: 42,
  gap: 7,
  note: 15,
} as const;
/** The last line is not drawn out to the right edge where it would stand wider than this, against what it needs. */
const WIDEST = 1.4;
/** A bar, or the beats of it that fit on a line, with the width that it needs. */
interface Measured {
  readonly notes: BarNotes;
  /** What is on this line: items, their notes on staff and in tablature, both as voices; `from` is where they begin in the bar. */
  readonly items: readonly ScoreItem[];
  readonly from: number;
  readonly staff: BarNotes['staff'];
  readonly tab: BarNotes['tab'];
  readonly voices: readonly [Voice, Voice];
  /** Whether the bar ends here. */
  readonly ends: boolean;
  readonly needs: number;
}

/** A bar with its place on a line. */
export interface PlacedBar extends Measured {
  readonly x: number;
  readonly width: number;
}

/** A line of the page: how high its parts stand, from the top of the page. */
export interface Line {
  readonly top: number;
  readonly height: number;
  /** Width of what stands at its beginning: clef, key, and once the time. */
  readonly head: number;
  /** The highest line of the staff, the highest string, the lowest one, and the row of signs over the strings. */
  readonly staff: number;
  readonly signs: number;
  readonly high: number;
  readonly low: number;
  readonly bars: readonly PlacedBar[];
}

export interface Page {
  readonly lines: readonly Line[];
  readonly height: number;
  /** The narrowest page that each of its parts fits on. */
  readonly least: number;
}

/** What stands at the beginning of a line. */
export function addHead(stave: Stave, { score }: Drawable, first: boolean): Stave {
  stave.addClef(score.clef, 'default', '8vb').addKeySignature(signatureName(score.signature));
  return first ? stave.addTimeSignature(`${score.beats}/4`) : stave;
}

/** How wide a fret number is with what bends it; what is not written in tablature has no width. */
const widthOf = (note: BarNotes['tab'][number]): number =>
  note instanceof TabNote
    ? fretWidth(Number(note.getPositions()[0]!.fret)) +
      note.getModifiers().reduce((sum, it) => sum + it.getWidth(), 0)
    : 0;

/** Some beats of a bar, measured. */
function measured(notes: BarNotes, items: readonly ScoreItem[], from: number, ends: boolean): Measured {
  const beats = items.reduce((sum, item) => sum + item.length, 0) / QUARTER;
  const to = from + items.length;
  const [staff, tab] = [notes.staff.slice(from, to), notes.tab.slice(from, to)];
  const [written, fretted] = [voiceOf(staff, beats), voiceOf(tab, beats)];
  const least = new Formatter()
    .joinVoices([written])
    .joinVoices([fretted])
    .preCalculateMinTotalWidth([written, fretted]);
  const frets = tab.reduce((sum, note) => sum + Math.max(SIZE.note, widthOf(note) + SIZE.gap), 0);
  const needs = Math.max(least, frets) + SIZE.bar;
  return { notes, items, from, staff, tab, voices: [written, fretted], ends, needs };
}

/** A bar in as few parts as fit into the width that there is: cut where a beat begins, in the middle if it can be. */
function fitting(whole: Measured, room: number): readonly Measured[] {
  const { notes, items, from, ends, needs } = whole;
  const middle = items[0]!.start + items.reduce((sum, i) => sum + i.length, 0) / 2;
  const cuts = items.flatMap(({ start }, i) => (i > 0 && start % QUARTER === 0 ? [i] : []));
  const far = (i: number): number => Math.abs(items[i]!.start - middle);
  const cut = cuts.sort((a, b) => far(a) - far(b))[0];
  if (needs <= room || cut === undefined) return [whole];
  return [
    ...fitting(measured(notes, items.slice(0, cut), from, false), room),
    ...fitting(measured(notes, items.slice(cut), from + cut, ends), room),
  ];
}

/** As many bars on each line as there is room for; the first line has the time besides. */
function intoLines(
  bars: readonly Measured[],
  room: (first: boolean) => number,
): readonly (readonly Measured[])[] {
  const lines: Measured[][] = [];
  let left = 0;
  for (const bar of bars) {
    if (!lines.length || bar.needs > left) {
      left = room(!lines.length);
      lines.push([]);
    }
    lines.at(-1)!.push(bar);
    left -= bar.needs;
  }
  return lines;
}

/** How far notes, stems and brackets reach above and below the staff, in px. */
function reach(bars: readonly Measured[], { score }: Drawable): readonly [above: number, below: number] {
  const [low, high] = LINES[score.clef];
  const middle = (low + high) / 2;
  const written = bars.flatMap(({ items }) => items.filter((item) => item.pitch !== null));
  const at = written.map(({ pitch, shift }) => heightOf(pitch!) - shift * LETTERS.length);
  const bracket = (by: 1 | -1): number => (written.some((i) => i.shift * by > 0) ? SIZE.bracket : 0);
  const [least, most] = [Math.min(...at, middle), Math.max(...at, middle)];
  const up = SIZE.stem - (high - Math.min(most, middle)) * SIZE.half;
  const tuplets = (above: boolean): number =>
    bars.some(({ notes }) => notes.tuplets.some((t) => isAbove(t.getNotes()) === above)) ? SIZE.tuplet : 0;
  const down = SIZE.stem - (Math.max(least, middle) - low) * SIZE.half;
  return [
    Math.max((most - high) * SIZE.half + SIZE.margin, up) + SIZE.margin + tuplets(true) + bracket(1),
    Math.max((low - least) * SIZE.half + SIZE.margin, down) + SIZE.margin + tuplets(false) + bracket(-1),
  ];
}

/** Lays a run out on lines of a width, in px. */
export function pageOf(it: Drawable, width: number): Page {
  const { score, run } = it;
  const headOf = (first: boolean): number =>
    it.staff ? addHead(new Stave(0, 0, width), it, first).getNoteStartX() : SIZE.tab;
  const heads = [headOf(true), headOf(false)] as const;
  const room = (first: boolean): number => width - heads[first ? 0 : 1];
  const bars: Measured[] = [];
  for (const bar of score.bars) {
    const notes = barNotes(bar, run, score.clef, score.beats, signatureName(score.signature));
    bars.push(...fitting(measured(notes, bar.items, 0, true), room(!bars.length)));
  }
  const all = intoLines(bars, room);
  let top = 0;
  const lines = all.map((bars, n): Line => {
    const head = heads[n ? 1 : 0];
    const [above, below] = it.staff ? reach(bars, it) : [0, 0];
    const staff = top + above;
    const bent = bars.some(({ items }) => items.some(({ step }) => step !== null && run[step]!.bend));
    const signs = (it.staff ? staff + 8 * SIZE.half + below : top) + SIZE.signs / 2;
    const high = signs + SIZE.arcs + (bent ? SIZE.bends : 0);
    const low = high + (it.strings - 1) * SIZE.strings;
    const needed = bars.reduce((sum, b) => sum + b.needs, 0);
    const last = n > 0 && n === all.length - 1;
    const scale = Math.min(room(!n) / needed, last ? WIDEST : Infinity);
    let x = 0;
    const placed = bars.map((bar, i): PlacedBar => {
      const at = x;
      x += bar.needs * scale + (i === 0 ? head : 0);
      return { ...bar, x: at, width: x - at };
    });
    const height = low + SIZE.fingers + SIZE.count + SIZE.between - top;
    const line = { top, height, head, staff, signs, high, low, bars: placed };
    top += height;
    return line;
  });
  return { lines, height: top, least: heads[0] + Math.max(0, ...bars.map((b) => b.needs)) };
}
