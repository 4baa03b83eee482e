import {
  degreeNames,
  midiName,
  parseTuning,
  type Move,
  type Place,
  pretty,
  type Scale,
  tuningLetters,
} from '@crow-ladder/core';

/** A tuning as the sentence says it: letters, with octaves only where the letters alone would be read otherwise. */
export function tuningSaid(tuning: readonly number[]): string {
  const letters = parseTuning(tuningLetters(tuning));
  const clear = letters.ok && letters.value.tuning.every((m, i) => m === tuning[i]);
  return (clear ? tuningLetters(tuning) : tuning.map((m) => midiName(m)).join(' ')).replace(/#/g, '♯');
}

/** A place on the neck as a player says it. */
export const spotSaid = ({ string, fret }: Place): string =>
  fret === 0 ? `open string ${string}` : `string ${string} fret ${fret}`;

/** A scale after its root: by name, or as what it is made of where it has none. */
export const scaleSaid = (scale: Scale): string =>
  scale.name === degreeNames(scale).join(' ') ? `scale of ${pretty(scale.name)}` : pretty(scale.name);

/** What the hand does between two notes, in a word; empty where it stays. */
export const moveWord = (move: Move): string =>
  move === 'slide' ? 'slide' : move === 'stay' || move === 'start' ? '' : 'shift';
