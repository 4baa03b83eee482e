import { LETTERS } from '@crow-ladder/core';
import { type Score, type ScoreItem } from '@crow-ladder/core/notation';
import { QUARTER, type Run, type Stroke } from '@crow-ladder/core/run';
import { Formatter, Stave, type Voice } from 'vexflow/bravura';
import { type BarNotes, barNotes, type Clef, voiceOf } from './voices.ts';

/** What is drawn: a run as it is written, with its strings and strokes. */
export interface Drawable {
  readonly run: Run;
  readonly score: Score;
  readonly clef: Clef;
  readonly strings: number;
  readonly strokes: readonly (Stroke | null)[];
  /** Whether the staff stands over the tablature. */
  readonly staff: boolean;
}

/** Major keys by their sharps, from seven flats on: how the library calls a signature. */
const SIGNATURES = 'Cb Gb Db Ab Eb Bb F C G D A E B F# C#'.split(' ');
const signatureName = (sharps: number): string => SIGNATURES[sharps + 7]!;

/** Sizes in px: half a space of the staff, between strings, of a stem, of rows of signs, of a bar's own room, of a note at least. */
export const SIZE = {
  half: 5,
  strings: 13,
  stem: 34,
  margin: 10,
  tuplet: 20,
  signs: 26,
  fingers: 22,
  count: 17,
  between: 20,
  bar: 26,
  tab: 42,
  note: 15,
} as const;
/** The last line is not drawn out to the right edge where it would stand wider than this, against what it needs. */
const WIDEST = 1.4;
/** The lowest and the highest line of a staff, as a letter counted up from C in octave 0. */
const LINES: Readonly<Record<Clef, readonly [number, number]>> = { treble: [30, 38], bass: [18, 26] };

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
  /** Width of what stands at the beginning of a line: clef, key, time. */
  readonly head: number;
}

/** What stands at the beginning of a line. */
export function addHead(stave: Stave, { clef, score }: Drawable, first: boolean): Stave {
  stave.addClef(clef).addKeySignature(signatureName(score.signature));
  return first ? stave.addTimeSignature(`${score.beats}/4`) : stave;
}

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
  const needs = Math.max(least, items.length * SIZE.note) + SIZE.bar;
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

/** As many bars on each line as there is room for. */
function intoLines(bars: readonly Measured[], room: number): readonly (readonly Measured[])[] {
  const lines: Measured[][] = [];
  let left = 0;
  for (const bar of bars) {
    if (!lines.length || bar.needs > left) {
      lines.push([]);
      left = room;
    }
    lines.at(-1)!.push(bar);
    left -= bar.needs;
  }
  return lines;
}

/** How far notes and stems reach above and below the staff, in px. */
function reach(bars: readonly Measured[], clef: Clef): readonly [above: number, below: number] {
  const [low, high] = LINES[clef];
  const middle = (low + high) / 2;
  const at = bars.flatMap(({ items }) =>
    items.flatMap(({ pitch }) =>
      pitch ? [pitch.octave * LETTERS.length + LETTERS.indexOf(pitch.note.letter)] : [],
    ),
  );
  const [least, most] = [Math.min(...at, middle), Math.max(...at, middle)];
  const up = SIZE.stem - (high - Math.min(most, middle)) * SIZE.half;
  const tuplets = bars.some(({ notes }) => notes.tuplets.length > 0) ? SIZE.tuplet : 0;
  const down = SIZE.stem - (Math.max(least, middle) - low) * SIZE.half;
  return [
    Math.max((most - high) * SIZE.half + SIZE.margin, up) + SIZE.margin + tuplets,
    Math.max((low - least) * SIZE.half + SIZE.margin, down) + SIZE.margin,
  ];
}

/** Called between two pieces of long work: it lets the page have its turn, or ends the work by throwing. */
export type Breathe = () => Promise<void>;

/** Lays a run out on lines of a width, in px. */
export async function pageOf(it: Drawable, width: number, breathe: Breathe): Promise<Page> {
  const head = it.staff ? addHead(new Stave(0, 0, width), it, true).getNoteStartX() : SIZE.tab;
  const room = width - head;
  const { score, run, clef } = it;
  const bars: Measured[] = [];
  for (const bar of score.bars) {
    const notes = barNotes(bar, run, clef, score.beats, signatureName(score.signature));
    bars.push(...fitting(measured(notes, bar.items, 0, true), room));
    await breathe();
  }
  const all = intoLines(bars, room);
  let top = 0;
  const lines = all.map((bars, n): Line => {
    const [above, below] = it.staff ? reach(bars, it.clef) : [0, 0];
    const staff = top + above;
    const signs = (it.staff ? staff + 8 * SIZE.half + below : top) + SIZE.signs / 2;
    const high = signs + SIZE.signs / 2;
    const low = high + (it.strings - 1) * SIZE.strings;
    const needed = bars.reduce((sum, b) => sum + b.needs, 0);
    const last = n > 0 && n === all.length - 1;
    const scale = Math.min(room / needed, last ? WIDEST : Infinity);
    let x = 0;
    const placed = bars.map((bar, i): PlacedBar => {
      const at = x;
      x += bar.needs * scale + (i === 0 ? head : 0);
      return { ...bar, x: at, width: x - at };
    });
    const height = low + SIZE.fingers + SIZE.count + SIZE.between - top;
    const line = { top, height, staff, signs, high, low, bars: placed };
    top += height;
    return line;
  });
  return { lines, height: top, head };
}
