import { type Place } from '@crow-ladder/core';
import { type HandPlace, type Move } from '@crow-ladder/core/run';

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

/** What the widest place of the hand takes: "at most 77 mm under the hand, frets 5 to 8". */
export const handSaid = ({ frets: [low, high], mm }: Pick<HandPlace, 'frets' | 'mm'>): string =>
  low === high
    ? 'one fret at a time'
    : `at most ${Math.round(mm)} mm under the hand, frets ${low} to ${high}`;

/** What the hand does between two notes, in a word; empty where it stays. */
export const moveWord = (move: Move): string =>
  move === 'slide' ? 'slide' : move === 'stay' || move === 'start' ? '' : 'shift';
