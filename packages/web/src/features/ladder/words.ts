import { list, numberWord, type Place } from '@crow-ladder/core';
import { type JumpRule } from '@crow-ladder/core/ladder';
import { FINGERS } from '../../model/wording.ts';

/** "your little finger below, your index finger above"; an open string needs none. */
const by = (finger: number | undefined, side: string): string =>
  finger === undefined ? '' : finger === 0 ? `open ${side}` : `your ${FINGERS[finger]} ${side}`;

/** A shared note and who takes it: "fret 7, your little finger below, your index finger above". */
export const sharedSaid = ({ fret }: Place, below: number | undefined, above: number | undefined): string =>
  [
    fret === 0 ? 'the open string' : `fret ${fret}`,
    ...(fret === 0 ? [] : [by(below, 'below'), by(above, 'above')]),
  ]
    .filter(Boolean)
    .join(', ');

export const fretsSaid = (frets: readonly number[]): string =>
  `${frets.length === 1 ? 'fret' : 'frets'} ${list(frets)}`;

const count = (n: number, word: string): string => `${numberWord(n)} ${word}${n === 1 ? '' : 's'}`;
/** An octave jump: "From strings 6 and 5: two strings up and two frets up." */
export function jumpSaid({ from, strings, frets }: JumpRule): string {
  const along =
    frets === 0 ? 'at the same fret' : `${count(Math.abs(frets), 'fret')} ${frets > 0 ? 'up' : 'back'}`;
  return `From ${from.length === 1 ? 'string' : 'strings'} ${list(from)}: ${count(strings, 'string')} up and ${along}.`;
}
