import { type Settings } from '@crow-ladder/contract';

/** What the marks on the neck can say. */
export const LABEL_NAMES: Readonly<Record<Settings['labels'], string>> = {
  degree: 'degrees',
  note: 'note names',
  finger: 'fingers',
  fret: 'fret numbers',
  solfa: 'sol-fa',
  order: 'order of play',
  none: 'nothing',
};

/** The names of choices that more than one page offers. */
export const HANDS = [
  { id: 'right', name: 'right-handed' },
  { id: 'left', name: 'left-handed' },
] as const;
/** Whose hand the neck is drawn for. */
export const NECK_HANDS = [{ id: 'instrument', name: 'as the instrument is strung' }, ...HANDS] as const;
/** Which way notes are played. */
export const DIRECTIONS = [
  { id: 'up', name: 'going up' },
  { id: 'down', name: 'going down' },
] as const;
export const ON_TOP = [
  { id: 'high', name: 'the highest string' },
  { id: 'low', name: 'the lowest string' },
] as const;
export const SPACINGS = [
  { id: 'true', name: 'true to the neck' },
  { id: 'even', name: 'even' },
] as const;
export const COLOURS = [
  { id: 'plain', name: 'plain' },
  { id: 'degree', name: 'by degree' },
] as const;

/** How many notes a beat has, by the name of what they are. */
export const NOTE_LENGTHS = [
  { id: '1', name: 'quarters' },
  { id: '2', name: 'eighths' },
  { id: '3', name: 'triplets' },
  { id: '4', name: 'sixteenths' },
  { id: '6', name: 'sextuplets' },
] as const;
