import { mod } from '../arithmetic.ts';
import { degreeHalfSteps, parseDegree } from '../degree.ts';
import { type PitchClass } from '../note.ts';
import { classesOf, type Key } from '../scale.ts';
import { type Bars, chordId, type ProgressionChord, type ScaleAbove } from './progression.ts';

/** What a scale is over a chord. */
export interface ScaleOver {
  readonly key: Key;
  /** How many notes of the chord it has. */
  readonly held: number;
  /** Pitch classes of the chord that it has not. */
  readonly missing: readonly PitchClass[];
  /** Its notes that are none of the chord's and lie a half step above one, or beside one that it has not: what rubs, and against what. */
  readonly clashes: readonly (readonly [note: PitchClass, against: PitchClass])[];
  /** How far the hand moves to it, in frets. */
  readonly move: number;
}

/**
 * The pitch classes of a chord of a progression, its root's first; `root` is the key's.
 *
 * @example progressionClasses(chord, 9) // [9,1,4,7]
 */
export const progressionClasses = (
  { above, degrees }: ProgressionChord,
  root: PitchClass,
): readonly PitchClass[] => [
  ...new Set(
    degrees.flatMap((name) => {
      const read = parseDegree(name);
      return read.ok ? [mod(root + above + degreeHalfSteps(read.value), 12)] : [];
    }),
  ),
];

/**
 * What a scale is over a chord: the chord tones that it holds, and which of its other notes lie a half step from one. `move` says how far the hand
 * goes to it.
 *
 * @example scaleOver([4, 8, 11, 2], { root: note('A'), scale: scaleById('natural-minor') }, 0).missing // [8]
 */
export function scaleOver(chord: readonly PitchClass[], key: Key, move: number): ScaleOver {
  const notes = classesOf(key);
  const missing = chord.filter((pc) => !notes.includes(pc));
  const clashes = notes
    .filter((pc) => !chord.includes(pc))
    .flatMap((pc) => {
      const against =
        chord.find((tone) => mod(pc - tone, 12) === 1) ?? missing.find((tone) => mod(tone - pc, 12) === 1);
      return against === undefined ? [] : [[pc, against] as const];
    });
  return { key, held: chord.length - missing.length, missing, clashes, move };
}

/**
 * Scales over a chord: those that hold most of its notes first, then those with the fewest notes that rub, then those that lie nearest to the hand,
 * then as the list has them. `moveTo` says how far the hand goes to a key, in frets.
 *
 * @example scalesOver([9, 1, 4, 7], [A, { root: A.root, scale: scaleById('mixolydian') }], () => 0)[0].key.scale.id // "mixolydian"
 */
export function scalesOver(
  chord: readonly PitchClass[],
  among: readonly Key[],
  moveTo: (key: Key) => number,
): readonly ScaleOver[] {
  return among
    .map((key) => scaleOver(chord, key, moveTo(key)))
    .sort((a, b) => b.held - a.held || a.clashes.length - b.clashes.length || a.move - b.move);
}

/** A common way to play over a blues. */
export interface BluesWay {
  readonly id: string;
  readonly name: string;
  /** What it is like. */
  readonly why: string;
  /** The scale over the chord so far above the key's root. */
  readonly over: (above: number) => ScaleAbove;
}
const [FOUR, FIVE] = [5, 7];
const all = (scale: string) => (): ScaleAbove => ({ scale, above: 0 });
/** Common ways over a blues (common practice, no source). */
export const BLUES_WAYS: readonly BluesWay[] = [
  {
    id: 'three',
    name: 'three modes of the key’s root: Mixolydian, Dorian on IV, Aeolian on V',
    why: 'The root stays. On IV the third falls; on V the flat seventh of the key lies against the chord’s third: dark, and touched rather than rested on.',
    over: (above) => ({
      scale: above === FOUR ? 'dorian' : above === FIVE ? 'natural-minor' : 'mixolydian',
      above: 0,
    }),
  },
  {
    id: 'own',
    name: 'Mixolydian on each chord’s own root',
    why: 'Every note of each chord is there, and nothing of the next one.',
    over: (above) => ({ scale: 'mixolydian', above }),
  },
  {
    id: 'blues',
    name: 'the blues scale of the key’s root throughout',
    why: 'One scale for all: its minor third and flat fifth rub against I and V, which is the sound of it.',
    over: all('minor-blues'),
  },
  {
    id: 'minor',
    name: 'the minor pentatonic of the key’s root throughout',
    why: 'One scale for all: its minor third rubs against the major third of I.',
    over: all('minor-pentatonic'),
  },
  {
    id: 'major',
    name: 'the major pentatonic of the key’s root, the minor one on IV',
    why: 'Bright on I and V; on IV the third of the key falls with it.',
    over: (above) => ({ scale: above === FOUR ? 'minor-pentatonic' : 'major-pentatonic', above: 0 }),
  },
];

/**
 * Whether a progression is a blues: dominant sevenths on I, IV and V and not more than one chord else.
 *
 * @example isBlues([[chord], [{ ...chord, above: 5 }], [{ ...chord, above: 7 }]]) // true
 */
export function isBlues(bars: Bars): boolean {
  const chords = [...new Map(bars.flat().map((chord) => [chordId(chord), chord])).values()];
  const isDominant = ({ degrees }: ProgressionChord): boolean =>
    degrees.includes('3') && degrees.includes('b7');
  const on = (above: number): boolean => chords.some((chord) => chord.above === above && isDominant(chord));
  return on(0) && on(FOUR) && on(FIVE) && chords.length <= 4;
}
