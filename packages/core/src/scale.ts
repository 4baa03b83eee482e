import { type Degree, degree, degreeHalfSteps, degreeName, spellDegree } from './degree.ts';
import { type Note, type PitchClass, pitchClass } from './note.ts';
import { mod } from './arithmetic.ts';

export type ScaleFamily =
  | 'major modes'
  | 'melodic minor modes'
  | 'harmonic minor modes'
  | 'harmonic major modes'
  | 'double harmonic'
  | 'pentatonic'
  | 'other five-note'
  | 'blues'
  | 'symmetric'
  | 'bebop'
  | 'other'
  | 'own';

/** A scale: its degrees in rising order from the root, and what the trade calls it. */
export interface Scale {
  readonly id: string;
  readonly name: string;
  readonly aliases: readonly string[];
  readonly family: ScaleFamily;
  readonly degrees: readonly Degree[];
  /** Half steps of each degree above the root, rising, beginning with 0. */
  readonly offsets: readonly number[];
  /** Half steps from each degree to the next, the last one to the octave; they add up to 12. */
  readonly steps: readonly number[];
  /** The scale whose mode this is, and which mode (1 = the parent itself). */
  readonly parent: { readonly id: string; readonly mode: number } | null;
  /** Names of the degrees that set it apart. */
  readonly characteristic: readonly string[];
}

export interface ScaleDetails {
  readonly id: string;
  readonly name: string;
  readonly family: ScaleFamily;
  readonly aliases?: readonly string[];
  readonly parent?: Scale['parent'];
  readonly characteristic?: readonly string[];
}

/**
 * Builds a scale from degree names in rising order, the first one "1".
 *
 * @example makeScale(['1', 'b3', '5'], { id: 'own:1,b3,5', name: '1 b3 5', family: 'own' }).steps // [3,4,5]
 */
export function makeScale(names: readonly string[], details: ScaleDetails): Scale {
  const degrees = names.map(degree);
  const offsets = degrees.map(degreeHalfSteps);
  return {
    aliases: [],
    parent: null,
    characteristic: [],
    ...details,
    degrees,
    offsets,
    steps: offsets.map((o, i) => (offsets[i + 1] ?? 12) - o),
  };
}

/** A scale on a root. */
export interface Key {
  readonly root: Note;
  readonly scale: Scale;
}

/**
 * The notes of a key, spelled from its degrees.
 *
 * @example spellScale(A).map(noteName) // ["A","C","D","E","G"]
 */
export const spellScale = ({ root, scale }: Key): readonly Note[] =>
  scale.degrees.map((d) => spellDegree(root, d));

/**
 * The pitch classes of a key, by degree.
 *
 * @example classesOf(A) // [9,0,2,4,7]
 */
export const classesOf = ({ root, scale }: Key): readonly PitchClass[] =>
  scale.offsets.map((offset) => mod(pitchClass(root) + offset, 12));

/** Degree index of each pitch class, by key: layouts ask for it at every spot of a neck. */
const DEGREE_TABLES = new WeakMap<Key, readonly number[]>();

/**
 * Index of the degree of each pitch class, 0 = C, −1 where it is not in the scale.
 *
 * @example degreeTable(A) // [1,-1,2,-1,3,-1,-1,4,-1,0,-1,-1]
 */
export function degreeTable(key: Key): readonly number[] {
  let table = DEGREE_TABLES.get(key);
  if (!table) {
    const root = pitchClass(key.root);
    table = Array.from({ length: 12 }, (_, pc) => key.scale.offsets.indexOf(mod(pc - root, 12)));
    DEGREE_TABLES.set(key, table);
  }
  return table;
}

/**
 * Index of the degree that a MIDI number or pitch class has in a key, −1 where it is not in the scale.
 *
 * @example degreeIndex(A, 48) // 1
 */
export const degreeIndex = (key: Key, pitch: PitchClass): number => degreeTable(key)[mod(pitch, 12)]!;

/**
 * The degrees of a scale as they are typed.
 *
 * @example degreeNames(A.scale) // ["1","b3","4","5","b7"]
 */
export const degreeNames = (scale: Scale): readonly string[] => scale.degrees.map(degreeName);

/**
 * Steps as players write them: W, H, and W+H for three half steps; larger ones as a number.
 *
 * @example stepName(3) // "W+H"
 */
export const stepName = (halfSteps: number): string => ['', 'H', 'W', 'W+H'][halfSteps] || String(halfSteps);

/**
 * The offsets of a scale begun on its degree with this index: the mode's half steps above its own root.
 *
 * @example rotate([0, 2, 4, 5, 7, 9, 11], 1) // [0,2,3,5,7,9,10]
 */
export function rotate(offsets: readonly number[], index: number): readonly number[] {
  return offsets.map((_, i) => mod(offsets[(i + index) % offsets.length]! - offsets[index]!, 12));
}

/**
 * Interval vector of a pitch-class set: how often intervals of 1 to 6 half steps occur between its members.
 *
 * @example intervalVector([0, 4, 7]) // [0,0,1,1,1,0]
 */
export function intervalVector(offsets: readonly number[]): readonly number[] {
  const vector = [0, 0, 0, 0, 0, 0];
  offsets.forEach((a, i) =>
    offsets.slice(i + 1).forEach((b) => {
      const interval = mod(b - a, 12);
      vector[Math.min(interval, 12 - interval) - 1]! += 1;
    }),
  );
  return vector;
}
