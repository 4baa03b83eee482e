import { type Move, type Place } from '@crow-ladder/core';

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

/** What the hand does between two notes, in a word; empty where it stays. */
export const moveWord = (move: Move): string =>
  move === 'slide' ? 'slide' : move === 'stay' || move === 'start' ? '' : 'shift';
