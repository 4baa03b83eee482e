import { mod } from '../arithmetic.ts';
import { degreeHalfSteps, parseDegree } from '../degree.ts';
import { type Note, pitchClass } from '../note.ts';
import { ok, refuse, type Result } from '../result.ts';
import { type Tune } from './phrase.ts';

/** A letter for each half step above the root, so that a piece of a line is found as a piece of a word, in any key. */
const LETTERS = 'abcdefghijkl';

/**
 * A tune by how far each of its notes lies above a root, octaves and rests left out: a letter a note.
 *
 * @example halfStepWord([{ midi: 45, length: 480 }, { midi: null, length: 480 }, { midi: 60, length: 480 }], A.root) // "ad"
 */
export const halfStepWord = (tune: Tune, root: Note): string =>
  tune.flatMap(({ midi }) => (midi === null ? [] : [LETTERS[mod(midi - pitchClass(root), 12)]!])).join('');

/**
 * Typed degrees in such letters: "b3 4 b5". Code `degree.unknown`.
 *
 * @example halfStepsTyped('♭3 4 b5').value // "dfg"
 */
export function halfStepsTyped(text: string): Result<string> {
  let word = '';
  for (const typed of text.split(/[\s,]+/).filter((it) => it !== '')) {
    const degree = parseDegree(typed);
    if (!degree.ok)
      return refuse('degree.unknown', `“${typed}” is no degree: write them in order, such as ♭3 4 ♭5.`);
    word += LETTERS[degreeHalfSteps(degree.value)]!;
  }
  return ok(word);
}

/**
 * How long each half step above a root sounds in a tune, in ticks: 12 numbers.
 *
 * @example halfStepTicks([{ midi: 48, length: 480 }], A.root)[3] // 480
 */
export function halfStepTicks(tune: Tune, root: Note): readonly number[] {
  const ticks = Array.from({ length: 12 }, () => 0);
  for (const { midi, length } of tune) if (midi !== null) ticks[mod(midi - pitchClass(root), 12)]! += length;
  return ticks;
}

/** Chords on the root that a phrase can be looked for over, by half steps above it; the second of them tells the chord most. */
export const PHRASE_CHORDS = [
  { id: 'major', name: 'a major triad', above: [0, 4, 7] },
  { id: 'minor', name: 'a minor triad', above: [0, 3, 7] },
  { id: '7', name: 'a dominant seventh', above: [0, 4, 7, 10] },
  { id: 'm7', name: 'a minor seventh', above: [0, 3, 7, 10] },
  { id: 'maj7', name: 'a major seventh', above: [0, 4, 7, 11] },
  { id: 'm7b5', name: 'a half-diminished seventh', above: [0, 3, 6, 10] },
  { id: 'dim7', name: 'a diminished seventh', above: [0, 3, 6, 9] },
] as const;
export type PhraseChord = (typeof PHRASE_CHORDS)[number]['id'];
