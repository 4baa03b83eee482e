import {
  GRIP_STRINGS,
  type Range,
  RANGES,
  ROMAN_WAYS,
  type RomanWay,
  STACKS,
} from '@crow-ladder/core/chords';
import { type ChordAsked, INVERSIONS } from '../../model/chords.ts';
import { type Params } from '../../task/task.ts';

/** What is done with the chords, and how the sentence says it. */
export const VIEWS = [
  { id: 'one', name: 'Play one of', note: 'an arpeggio inside the position in front' },
  { id: 'turn', name: 'Play all of', note: 'the chord on every degree in turn' },
  { id: 'changes', name: 'Play over', note: 'a progression, a scale for each chord' },
  { id: 'hold', name: 'Hold one of', note: 'grips that a hand can hold, all over the neck' },
] as const;
export type View = (typeof VIEWS)[number]['id'];

export interface ChordParams {
  readonly view: View;
  readonly size: number;
  /** Index of the degree that the chord stands on. */
  readonly degree: number;
  /** Which of its notes lies lowest; null is any, of a grip alone. */
  readonly bass: number | null;
  readonly range: Range;
  /** On how many strings a grip lies; null is any number. */
  readonly strings: number | null;
  /** Which grip is looked at: its frets from the lowest string up, "x.3.2.0.1.0"; null is the first one. */
  readonly grip: string | null;
  /** A grip of the player's own, as it is typed; empty where there is none. */
  readonly own: string;
  readonly roman: RomanWay;
  /** Which chord of the progression is looked at, from 0. */
  readonly slot: number;
  /** Which note is looked at, from 0; not in the address. */
  readonly step: number;
}

export const AT_FIRST: ChordParams = {
  view: 'one',
  size: 3,
  degree: 0,
  bass: null,
  range: 'octave',
  strings: null,
  grip: null,
  own: '',
  roman: 'case',
  slot: 0,
  step: 0,
};

/** What of it is played. */
export const askedOf = ({ view, size, degree, bass, range }: ChordParams): ChordAsked => ({
  degree: view === 'turn' ? null : degree,
  size,
  inversion: view === 'turn' ? 0 : (bass ?? 0),
  range,
});

const below = (word: string | null, most: number): number | null =>
  word !== null && /^\d+$/.test(word) && Number(word) < most ? Number(word) : null;

export const params: Params<ChordParams> = {
  read: (query) => ({
    ...AT_FIRST,
    view: VIEWS.find(({ id }) => id === query.get('do'))?.id ?? AT_FIRST.view,
    size: STACKS.find(({ size }) => String(size) === query.get('stack'))?.size ?? AT_FIRST.size,
    degree: below(query.get('chord'), 12) ?? AT_FIRST.degree,
    bass: below(query.get('bass'), INVERSIONS.length),
    range: RANGES.find(({ id }) => id === query.get('range'))?.id ?? AT_FIRST.range,
    strings: below(query.get('on'), GRIP_STRINGS + 1),
    grip: query.get('grip'),
    own: query.get('held') ?? '',
    roman: ROMAN_WAYS.find(({ id }) => id === query.get('roman'))?.id ?? AT_FIRST.roman,
    slot: below(query.get('at-chord'), 999) ?? AT_FIRST.slot,
  }),
  write: ({ view, size, degree, bass, range, strings, grip, own, roman, slot }) => ({
    do: view === AT_FIRST.view ? null : view,
    stack: size === AT_FIRST.size ? null : String(size),
    chord: degree === AT_FIRST.degree ? null : String(degree),
    bass: bass === null ? null : String(bass),
    range: range === AT_FIRST.range ? null : range,
    on: strings === null ? null : String(strings),
    grip: view === 'hold' ? grip : null,
    held: view === 'hold' && own ? own : null,
    'at-chord': view === 'changes' && slot ? String(slot) : null,
    roman: roman === AT_FIRST.roman ? null : roman,
  }),
};
