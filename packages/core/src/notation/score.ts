import { midiOf } from '../note.ts';
import { isOn, QUARTER, type Run, type Step } from '../run/run.ts';
import { type Key } from '../scale.ts';
import { type Clef, clefFor, heightOf, type Pitch, shiftsOf } from './clef.ts';
import { keySignature, spelledIn } from './keySignature.ts';

/** How far above its sound a guitar or a bass is written, in half steps (common practice). */
const WRITTEN_ABOVE = 12;

/** The length of a note as it is written: 1 is a whole note, 4 a quarter; a dot makes it half as long again. */
export interface Written {
  readonly value: 1 | 2 | 4 | 8 | 16 | 32;
  readonly dotted: boolean;
}

/** A note, or a rest, as it is written. What cannot be written as one note is two or more, tied. */
export interface ScoreItem extends Written {
  /** Which step of the run it belongs to; null is a rest. */
  readonly step: number | null;
  /** Whether it begins that step; the others are tied to what comes before. */
  readonly first: boolean;
  /** The written pitch, an octave above the sound; a rest has none. */
  readonly pitch: Pitch | null;
  /** By how many octaves it stands lower than that, under an 8va (2 is 15ma); below 0 higher. */
  readonly shift: number;
  /** What the note is bent to where it begins; null where it is not bent, or to no note that is written. */
  readonly target: Pitch | null;
  /** In ticks from the beginning of the run. */
  readonly start: number;
  readonly length: number;
}

/** Some items of a bar that are played as `actual` in the time of `normal`: `from` and `to` are their places in the bar. */
export interface Tuplet {
  readonly from: number;
  readonly to: number;
  readonly actual: 3 | 5 | 6 | 7;
  readonly normal: 2 | 4;
}

export interface Bar {
  readonly items: readonly ScoreItem[];
  readonly tuplets: readonly Tuplet[];
  /** Items under one beam, by their places in the bar. */
  readonly beams: readonly (readonly number[])[];
}

export interface Score {
  readonly clef: Clef;
  /** Sharps of the key signature, flats below 0. */
  readonly signature: number;
  /** Quarter notes a bar. */
  readonly beats: number;
  readonly bars: readonly Bar[];
}

export interface ScoreOptions {
  /** Quarter notes a bar. */
  readonly beats?: number;
  /** A tick in the last bar, where the run ends before it. */
  readonly until?: number;
  /** The clef that the instrument is usually written in. */
  readonly usual?: Clef;
}

/** Lengths of whole beats, in ticks, and how they are written; the longest first. */
const LONG: readonly (readonly [number, Written])[] = [
  [4 * QUARTER, { value: 1, dotted: false }],
  [3 * QUARTER, { value: 2, dotted: true }],
  [2 * QUARTER, { value: 2, dotted: false }],
  [QUARTER, { value: 4, dotted: false }],
];
/** A beat cut into equal parts, and how so many of them are written. */
interface Grid {
  readonly unit: number;
  readonly tuplet: Pick<Tuplet, 'actual' | 'normal'> | null;
  readonly written: Readonly<Record<number, Written>>;
}
/** Five or seven sixteenths in the time of four. */
const SIXTEENTHS: Grid['written'] = {
  6: { value: 4, dotted: true },
  4: { value: 4, dotted: false },
  3: { value: 8, dotted: true },
  2: { value: 8, dotted: false },
  1: { value: 16, dotted: false },
};
const GRIDS: readonly Grid[] = [
  {
    unit: QUARTER / 8,
    tuplet: null,
    written: {
      6: { value: 8, dotted: true },
      4: { value: 8, dotted: false },
      3: { value: 16, dotted: true },
      2: { value: 16, dotted: false },
      1: { value: 32, dotted: false },
    },
  },
  {
    unit: QUARTER / 3,
    tuplet: { actual: 3, normal: 2 },
    written: { 2: { value: 4, dotted: false }, 1: { value: 8, dotted: false } },
  },
  {
    unit: QUARTER / 6,
    tuplet: { actual: 6, normal: 4 },
    written: {
      4: { value: 4, dotted: false },
      3: { value: 8, dotted: true },
      2: { value: 8, dotted: false },
      1: { value: 16, dotted: false },
    },
  },
  { unit: QUARTER / 5, tuplet: { actual: 5, normal: 4 }, written: SIXTEENTHS },
  { unit: QUARTER / 7, tuplet: { actual: 7, normal: 4 }, written: SIXTEENTHS },
];

/** A stretch of time that sounds or does not. */
interface Span {
  readonly step: number | null;
  readonly from: number;
  readonly to: number;
}

/** A run as stretches without gaps, to the end of a bar: one note at a time, each until the next one at most. */
function spansOf(run: Run, bar: number, until: number): readonly Span[] {
  const spans: Span[] = [];
  let at = 0;
  run.forEach(({ start, length }, step) => {
    if (start > at) spans.push({ step: null, from: at, to: start });
    at = Math.min(start + length, run[step + 1]?.start ?? Infinity);
    spans.push({ step, from: start, to: at });
  });
  const end = Math.ceil(Math.max(at, until) / bar) * bar;
  if (end > at) spans.push({ step: null, from: at, to: end });
  return spans;
}

/**
 * Cuts a span where a beat begins, but for whole beats that are written as one note; a bar is never crossed. Rests show the middle of
 * a bar of four beats: none but that of a whole bar crosses it, and none is dotted (common practice).
 */
function cut({ step, from, to }: Span, bar: number): readonly Span[] {
  const pieces: Span[] = [];
  let at = from;
  while (at < to) {
    const within = at % QUARTER;
    const left = Math.min(to, (Math.floor(at / bar) + 1) * bar) - at;
    const fits = ([ticks, { dotted }]: (typeof LONG)[number]): boolean =>
      ticks <= left && (step !== null || ticks === bar || (!dotted && (at % bar) % ticks === 0));
    const long = within === 0 ? LONG.find(fits)?.[0] : undefined;
    const length = long ?? Math.min(left, QUARTER - within);
    pieces.push({ step, from: at, to: at + length });
    at += length;
  }
  return pieces;
}

interface Piece extends Span, Written {}

/** What lies within one beat, written in the first grid that it fits; throws where it fits none. */
function inBeat(spans: readonly Span[]): { readonly pieces: readonly Piece[]; readonly grid: Grid } {
  const fits = ({ unit }: Grid): boolean => spans.every((s) => isOn(s.from, unit) && isOn(s.to, unit));
  const grid = GRIDS.find(fits);
  if (!grid) throw new RangeError('Notes of such lengths cannot be written.');
  const { unit, written } = grid;
  const pieces = spans.flatMap(({ step, from, to }): readonly Piece[] => {
    const parts: Piece[] = [];
    for (let at = from; at < to;) {
      const left = Math.round((to - at) / unit);
      const many = Math.max(
        ...Object.keys(written)
          .map(Number)
          .filter((n) => n <= left),
      );
      const next = many === left ? to : Math.round(at + many * unit);
      parts.push({ step, from: at, to: next, ...written[many]! });
      at = next;
    }
    return parts;
  });
  return { pieces, grid };
}

/** The pieces of a bar, with the tuplets among them. */
function piecesOf(spans: readonly Span[]): {
  readonly pieces: readonly Piece[];
  readonly tuplets: readonly Tuplet[];
} {
  const pieces: Piece[] = [];
  const tuplets: Tuplet[] = [];
  for (let i = 0; i < spans.length;) {
    const { from, to } = spans[i]!;
    if (to - from >= QUARTER) {
      pieces.push({ ...spans[i]!, ...LONG.find(([ticks]) => ticks === to - from)![1] });
      i++;
      continue;
    }
    const beat = Math.floor(from / QUARTER);
    const same = spans.filter((s, k) => k >= i && Math.floor(s.from / QUARTER) === beat);
    const { pieces: written, grid } = inBeat(same);
    if (grid.tuplet)
      tuplets.push({ from: pieces.length, to: pieces.length + written.length - 1, ...grid.tuplet });
    pieces.push(...written);
    i += same.length;
  }
  return { pieces, tuplets };
}

/** Short notes that follow each other in a beat are under one beam. */
function beamsOf(pieces: readonly Piece[]): readonly (readonly number[])[] {
  const beams: number[][] = [];
  let last = -1;
  pieces.forEach(({ step, value, from }, i) => {
    if (step === null || value < 8) return;
    const beat = Math.floor(from / QUARTER);
    if (last === i - 1 && beams.length && Math.floor(pieces[last]!.from / QUARTER) === beat)
      beams.at(-1)!.push(i);
    else beams.push([i]);
    last = i;
  });
  return beams.filter((b) => b.length > 1);
}

/**
 * A run as it is written in a key: its bars, from the first note to the end of the bar that tick `until` falls in, or of the last note;
 * in the instrument's usual clef, or in the other one where most notes would lie far outside it.
 * Notes that a bar line or a beat cuts are tied; beats of 320, 160, 192 or 137 ticks a note are tuplets. Throws on lengths that have no written
 * form, which are those that cut a beat into other parts than eighths of it, thirds, sixths, fifths or sevenths.
 *
 * @example scoreOf(run, A).bars.length // 2
 */
export function scoreOf(
  run: Run,
  key: Key,
  { beats = 4, until = 0, usual = 'treble' }: ScoreOptions = {},
): Score {
  const bar = beats * QUARTER;
  const pitches = run.map(({ spot }) => writtenPitch(key, spot.midi));
  const heights = pitches.map(heightOf);
  const clef = clefFor(heights, usual);
  const shifts = shiftsOf(heights, clef);
  const spans = spansOf(run, bar, until).flatMap((s) => cut(s, bar));
  const bars: Bar[] = [];
  const begun = new Set<number>();
  for (let from = 0; from < (spans.at(-1)?.to ?? 0); from += bar) {
    const { pieces, tuplets } = piecesOf(spans.filter((s) => s.from >= from && s.from < from + bar));
    const items = pieces.map(({ step, from: start, to, value, dotted }): ScoreItem => {
      const first = step !== null && !begun.has(step);
      if (step !== null) begun.add(step);
      return {
        step,
        first,
        pitch: step === null ? null : pitches[step]!,
        shift: step === null ? 0 : shifts[step]!,
        target: first ? targetOf(run[step]!, key) : null,
        start,
        length: to - start,
        value,
        dotted,
      };
    });
    bars.push({ items, tuplets, beams: beamsOf(pieces) });
  }
  return { clef, signature: keySignature(key), beats, bars };
}

/** What a note is bent to. */
const targetOf = ({ spot, bend }: Step, key: Key): Pitch | null =>
  bend && bend.by % 1 === 0 ? writtenPitch(key, spot.midi + bend.by) : null;

function writtenPitch(key: Key, midi: number): Pitch {
  const note = spelledIn(key, midi);
  return { note, octave: (midi + WRITTEN_ABOVE - midiOf(note, 0)) / 12 };
}

/**
 * How the place of a note in its bar is counted aloud: "2", "+" half a beat later, "e" and "a" between; other places have a dot.
 *
 * @example countOf(480, 4) // "+"
 */
export function countOf(start: number, beats: number): string {
  const within = start % QUARTER;
  if (within === 0) return String((Math.floor(start / QUARTER) % beats) + 1);
  return { [QUARTER / 4]: 'e', [QUARTER / 2]: '+', [(3 * QUARTER) / 4]: 'a' }[within] ?? '·';
}
