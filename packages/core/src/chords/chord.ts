import { type Degree, degree, degreeHalfSteps, degreeName, spellDegree } from '../degree.ts';
import { mod } from '../arithmetic.ts';
import { type Note, noteName, pitchClass, type PitchClass, pretty } from '../note.ts';

/** A chord: what it is built on, and its notes counted from there. */
export interface Chord {
  readonly root: Note;
  /** From the root on, in the order in which it is stacked: "1 b3 5 b7". */
  readonly degrees: readonly Degree[];
  /** What is written after the root, in plain letters ("m7b5"); null where players have no name for it. */
  readonly suffix: string | null;
}

/** What is written after the root of a chord, and its degrees (common practice, no source). */
const KINDS: readonly (readonly [suffix: string, degrees: string])[] = [
  ['', '1 3 5'],
  ['m', '1 b3 5'],
  ['dim', '1 b3 b5'],
  ['aug', '1 3 #5'],
  ['(b5)', '1 3 b5'],
  ['sus4', '1 4 5'],
  ['sus2', '1 2 5'],
  ['5', '1 5'],
  ['maj7', '1 3 5 7'],
  ['7', '1 3 5 b7'],
  ['m7', '1 b3 5 b7'],
  ['m(maj7)', '1 b3 5 7'],
  ['m7b5', '1 b3 b5 b7'],
  ['dim7', '1 b3 b5 bb7'],
  ['dim(maj7)', '1 b3 b5 7'],
  ['maj7(#5)', '1 3 #5 7'],
  ['7(#5)', '1 3 #5 b7'],
  ['maj7(b5)', '1 3 b5 7'],
  ['7(b5)', '1 3 b5 b7'],
  ['m7(#5)', '1 b3 #5 b7'],
  ['7sus4', '1 4 5 b7'],
  ['7sus2', '1 2 5 b7'],
  ['6', '1 3 5 6'],
  ['m6', '1 b3 5 6'],
  ['add9', '1 3 5 9'],
  ['m(add9)', '1 b3 5 9'],
  ['maj9', '1 3 5 7 9'],
  ['9', '1 3 5 b7 9'],
  ['m9', '1 b3 5 b7 9'],
  ['6(9)', '1 3 5 6 9'],
  ['m6(9)', '1 b3 5 6 9'],
  ['7(b9)', '1 3 5 b7 b9'],
  ['7(#9)', '1 3 5 b7 #9'],
  ['m11', '1 b3 5 b7 9 11'],
  ['13', '1 3 5 b7 9 13'],
];
const spelledAs = (degrees: readonly Degree[]): string => degrees.map(degreeName).join(' ');
const soundingAs = (halfSteps: readonly number[]): string =>
  [...new Set(halfSteps)].sort((a, b) => a - b).join(' ');
/** The kinds of chords that players name, with their degrees. */
export const CHORD_KINDS = KINDS.map(([suffix, names]) => {
  const degrees = names.split(' ').map(degree);
  return { suffix, degrees, spelled: spelledAs(degrees), sounding: soundingAs(degrees.map(degreeHalfSteps)) };
});

/** The sevenths whose own number gives way to that of a higher third: "m7" becomes "m9". */
const GROWING = ['maj7', '7', 'm7', 'm(maj7)'];
/** What the thirds above the seventh are called. */
const UPPER = [9, 11, 13];

/**
 * What a stack of thirds is called, in plain letters, its degrees in the order of the stack; null where players have no name for it. Above
 * the seventh the highest natural third gives its number where the ninth is natural too, and what is altered stands in brackets (common
 * practice, no source).
 *
 * @example stackName(['1', '3', '5', '7', '9', '#11'].map(degree)) // "maj9(#11)"
 */
export function stackName(degrees: readonly Degree[]): string | null {
  const base = CHORD_KINDS.find(({ spelled }) => spelled === spelledAs(degrees.slice(0, 4)))?.suffix;
  if (base === undefined) return null;
  const upper = degrees.slice(4).map((d, i) => ({ number: UPPER[i]!, alteration: d.alteration }));
  if (!upper.length) return base;
  const grows = GROWING.includes(base) && upper[0]!.alteration === 0;
  const top = grows ? Math.max(...upper.filter((d) => d.alteration === 0).map((d) => d.number)) : 0;
  const beside = upper.filter((d) => d.alteration !== 0 || d.number > top).map(degreeName);
  const name = grows ? base.replace('7', String(top)) : base;
  return beside.length ? withBeside(name, beside) : name;
}

/**
 * What is written after a root with notes that are played beside it.
 *
 * @example withBeside('maj7(#5)', ['9']) // "maj7(#5,9)"
 */
export const withBeside = (suffix: string, beside: readonly string[]): string =>
  suffix.endsWith(')') ? `${suffix.slice(0, -1)},${beside.join(',')})` : `${suffix}(${beside.join(',')})`;

/**
 * What notes are called as a chord on one of them, by their sound: half steps above it. Null where players have no name for it.
 *
 * @example soundingName([0, 3, 7]) // "m"
 */
export const soundingName = (halfSteps: readonly number[]): string | null =>
  CHORD_KINDS.find(({ sounding }) => sounding === soundingAs(halfSteps.map((h) => mod(h, 12))))?.suffix ??
  null;

/**
 * The notes of a chord, spelled.
 *
 * @example chordNotes({ root: note('D'), degrees: ['1', 'b3', 'b5'].map(degree), suffix: 'dim' }).map(noteName) // ["D","F","Ab"]
 */
export const chordNotes = ({ root, degrees }: Pick<Chord, 'root' | 'degrees'>): readonly Note[] =>
  degrees.map((d) => spellDegree(root, d));

/**
 * The pitch classes of a chord, in the order of its degrees.
 *
 * @example chordClasses({ root: note('D'), degrees: ['1', 'b3', 'b5'].map(degree), suffix: 'dim' }) // [2,5,8]
 */
export const chordClasses = ({ root, degrees }: Pick<Chord, 'root' | 'degrees'>): readonly PitchClass[] =>
  degrees.map((d) => mod(pitchClass(root) + degreeHalfSteps(d), 12));

/**
 * A chord as a player writes it; its notes where it has no name.
 *
 * @example chordSaid({ root: note('Bb'), degrees: ['1', 'b3', 'b5', 'b7'].map(degree), suffix: 'm7b5' }) // "B♭m7♭5"
 */
export const chordSaid = (chord: Chord): string =>
  chord.suffix === null
    ? chordNotes(chord)
        .map((n) => pretty(noteName(n)))
        .join(' ')
    : pretty(noteName(chord.root)) + pretty(chord.suffix);
