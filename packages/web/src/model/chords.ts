import { mod, ordinal, type PitchClass, refuse, type Result } from '@crow-ladder/core';
import {
  type Chord,
  chordClasses,
  chordSaid,
  harmonise,
  mostStacked,
  type Range,
  RANGES,
  type ScaleChord,
  showingChord,
  STACKS,
} from '@crow-ladder/core/chords';
import { arpeggioSource, chordsSource, type Source } from '@crow-ladder/core/sources';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model } from './model.ts';

/** Which note of a chord lies lowest. */
export const INVERSIONS: readonly string[] = Array.from({ length: 7 }, (_, i) =>
  i ? `in the ${ordinal(i)} inversion` : 'in root position',
);

/** A chord of the scale inside the position in front, or all of them in turn. */
export interface ChordAsked {
  /** Index of the degree that it stands on; null is each in turn. */
  readonly degree: number | null;
  /** How many notes are stacked, 3 to 7; as many as the scale has where it has fewer. */
  readonly size: number;
  /** Which of its notes lies lowest, counted from 0; of one chord alone. */
  readonly inversion: number;
  readonly range: Range;
}

const TURN = 'all';
/** What begins the word of chords among all that can be drilled. */
const CHORD_PREFIX = 'chord.';
/** What is asked for in one word: "chord.0.3.1.octave". */
export const chordWord = ({ degree, size, inversion, range }: ChordAsked): string =>
  CHORD_PREFIX + [degree ?? TURN, size, inversion, range].join('.');
/** What such a word says; null where it says nothing. */
export function chordFrom(word: string): ChordAsked | null {
  if (!word.startsWith(CHORD_PREFIX)) return null;
  const [degree = '', size, inversion, range, ...more] = word.slice(CHORD_PREFIX.length).split('.');
  const asked = {
    degree: degree === TURN ? null : Number(degree),
    size: Number(size),
    inversion: Number(inversion),
    range: RANGES.find(({ id }) => id === range)?.id ?? 'octave',
  };
  const isSound =
    (asked.degree === null || (/^\d+$/.test(degree) && asked.degree < 12)) &&
    STACKS.some((s) => s.size === asked.size) &&
    INVERSIONS[asked.inversion] !== undefined &&
    !more.length;
  return isSound ? asked : null;
}

/** The chords on every degree of the chart's scale. */
export const chordsOf = weakMapMemoize(({ key }: Model, size: number): readonly ScaleChord[] =>
  harmonise(key, size),
);
/** The chord that shows what the chart's scale is heard by. */
export const showingOf = weakMapMemoize(({ key }: Model): Chord | null => showingChord(key));
/** How many notes can be stacked in a scale, fewest first. */
export const stacksOf = ({ scale }: Model): readonly (typeof STACKS)[number][] => {
  const most = Math.max(STACKS[0].size, mostStacked(scale));
  return STACKS.filter(({ size }) => size <= most);
};

/** The chord that is asked for, on the root where the scale has no such degree; null where each is played in turn. */
export const chordAsked = (model: Model, { degree, size }: ChordAsked): ScaleChord | null => {
  const all = chordsOf(model, size);
  return degree === null ? null : (all[degree] ?? all[0]!);
};

/** The pitch classes of a chord, its bass note's first. */
export function classesFrom(chord: Chord, inversion: number): readonly PitchClass[] {
  const classes = chordClasses(chord);
  const from = inversion % classes.length;
  return [...classes.slice(from), ...classes.slice(0, from)];
}

const sourceFor = weakMapMemoize((model: Model, word: string): Result<Source> => {
  const { neck, front, hand } = model;
  const asked = chordFrom(word)!;
  if (!front) return refuse('chord.room', 'There is no position to play a chord in here.');
  const { position } = front;
  const one = chordAsked(model, asked);
  return one
    ? arpeggioSource(neck, position, hand, classesFrom(one.chord, asked.inversion), asked.range)
    : chordsSource(
        neck,
        position,
        hand,
        chordsOf(model, asked.size).map(({ chord }) => chordClasses(chord)),
        asked.range,
      );
});
/** What is asked for, as it is played; by its word, so that each is computed once. Code `chord.room`. */
export const sourceOfChord = (model: Model, asked: ChordAsked): Result<Source> =>
  sourceFor(model, chordWord(asked));

/** What it is called among all that can be drilled. */
export function chordAskedSaid(model: Model, asked: ChordAsked): string {
  const range = RANGES.find(({ id }) => id === asked.range)!.name;
  const one = chordAsked(model, asked);
  const { name } = STACKS.find(({ size }) => size === asked.size)!;
  return one
    ? `the chord ${chordSaid(one.chord)} ${INVERSIONS[asked.inversion % one.tones.length]!}, ${range}`
    : `the ${name} of all degrees in turn, ${range}`;
}

/** How a pitch is called in a chord: the index of its degree there, −1 where it is none of its notes. */
export const toneOf = (chord: Chord, midi: number): number => chordClasses(chord).indexOf(mod(midi, 12));
