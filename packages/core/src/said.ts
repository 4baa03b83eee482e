import { type Place } from './place.ts';
import { type Accidentals, noteName, pretty } from './note.ts';
import { degreeNames, type Key, type Scale } from './scale.ts';
import { parseTuning, tuningLetters, tuningText } from './tuning.ts';

/**
 * How all that is not in a scale is named beside its notes: as they are, where they have one kind of sign alone.
 *
 * @example accidentalsOf(['A', 'B♭'], 'sharps') // "flats"
 */
export function accidentalsOf(notes: readonly string[], otherwise: Accidentals): Accidentals {
  const has = (sign: string): boolean => notes.some((n) => n.includes(sign));
  return has('♯') === has('♭') ? otherwise : has('♭') ? 'flats' : 'sharps';
}

/**
 * A tuning as a player says it: letters, with octaves only where the letters alone would be read otherwise.
 *
 * @example tuningSaid([38, 45, 50, 55, 59, 64], 'flats') // "D A D G B E"
 */
export function tuningSaid(tuning: readonly number[], accidentals: Accidentals): string {
  const letters = parseTuning(tuningLetters(tuning));
  const clear = letters.ok && letters.value.tuning.every((m, i) => m === tuning[i]);
  return pretty(clear ? tuningLetters(tuning, accidentals) : tuningText(tuning, accidentals));
}

/**
 * A place on the neck as a player says it: "string 3 fret 6", "open string 3".
 *
 * @example spotSaid({ string: 3, fret: 6 }) // "string 3 fret 6"
 */
export const spotSaid = ({ string, fret }: Place): string =>
  fret === 0 ? `open string ${string}` : `string ${string} fret ${fret}`;

/**
 * A scale after its root: by name, or as what it is made of where it has none.
 *
 * @example scaleSaid(A.scale) // "minor pentatonic"
 */
export const scaleSaid = (scale: Scale): string =>
  scale.name === degreeNames(scale).join(' ') ? `scale of ${pretty(scale.name)}` : pretty(scale.name);

/**
 * A key as a player says it.
 *
 * @example keySaid(A) // "A minor pentatonic"
 */
export const keySaid = ({ root, scale }: Pick<Key, 'root' | 'scale'>): string =>
  `${pretty(noteName(root))} ${scaleSaid(scale)}`;
