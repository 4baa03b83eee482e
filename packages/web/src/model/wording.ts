import {
  type Accidentals,
  degreeNames,
  parseTuning,
  type Move,
  type Place,
  pretty,
  type Scale,
  tuningLetters,
  tuningText,
} from '@crow-ladder/core';

/** A tuning as the sentence says it: letters, with octaves only where the letters alone would be read otherwise. */
export function tuningSaid(tuning: readonly number[], accidentals: Accidentals): string {
  const letters = parseTuning(tuningLetters(tuning));
  const clear = letters.ok && letters.value.tuning.every((m, i) => m === tuning[i]);
  return pretty(clear ? tuningLetters(tuning, accidentals) : tuningText(tuning, accidentals));
}

/** A place on the neck as a player says it: "string 3 fret 6", "open string 3". */
export const spotSaid = ({ string, fret }: Place): string =>
  fret === 0 ? `open string ${string}` : `string ${string} fret ${fret}`;

/** A place before what is said of it: "String 3, fret 6". */
export const spotNamed = ({ string, fret }: Place): string =>
  `String ${string}, ${fret === 0 ? 'open' : `fret ${fret}`}`;

/** The fingers by their number; 0 is an open string, which needs none, 5 a tap of the picking hand. */
export const FINGERS = [
  'open string',
  'index finger',
  'middle finger',
  'ring finger',
  'little finger',
  'tapped with the picking hand',
] as const;

/** A scale after its root: by name, or as what it is made of where it has none. */
export const scaleSaid = (scale: Scale): string =>
  scale.name === degreeNames(scale).join(' ') ? `scale of ${pretty(scale.name)}` : pretty(scale.name);

/** What the hand does between two notes, in a word; empty where it stays. */
export const moveWord = (move: Move): string =>
  move === 'slide' ? 'slide' : move === 'stay' || move === 'start' ? '' : 'shift';
