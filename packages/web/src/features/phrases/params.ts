import { LIMITS } from '@crow-ladder/core';
import { type ModeWay, MODE_WAYS, type PhraseNote, type PhraseWay } from '@crow-ladder/core/phrases';
import { QUARTER, TEMPO } from '@crow-ladder/core/run';
import { type HeardNotes } from '../../hearing/heardNotes.ts';
import { type Params } from '../../task/task.ts';

/** Where a phrase is played, and how the sentence says it. */
export const VIEWS = [
  { id: 'made', name: 'as it was made', note: 'to make it and to change it' },
  { id: 'place', name: 'in another place', note: 'the same pitches elsewhere, the easiest first' },
  { id: 'positions', name: 'in every position', note: 'of the ladder, with what lies outside' },
  { id: 'key', name: 'in another key', note: 'its degrees from another root' },
  { id: 'mode', name: 'in another mode', note: 'its degrees in another scale on the root' },
  {
    id: 'chords',
    name: 'over chords',
    note: 'which of its notes are theirs, what rubs, where it could start',
  },
  { id: 'turned', name: 'turned', note: 'backwards, upside down, or by steps of the scale' },
] as const;
export type View = (typeof VIEWS)[number]['id'];

export const OCTAVES = [
  { id: '0', name: 'as high as it is' },
  { id: '1', name: 'an octave up' },
  { id: '-1', name: 'an octave down' },
] as const;
export const TURNS = [
  { id: 'backwards', name: 'backwards', note: 'the last note first' },
  { id: 'round', name: 'upside down', note: 'what rose falls, from its first note' },
  { id: 'up', name: 'a step up', note: 'every note a step of the scale higher' },
  { id: 'down', name: 'a step down', note: 'every note a step of the scale lower' },
] as const;
export type Turn = (typeof TURNS)[number]['id'];

/** What the worker found: for each lot that was asked for its ways, the easiest first. */
export interface Found {
  readonly id: string;
  readonly ways: readonly (readonly PhraseWay[])[];
}

export interface PhraseParams {
  /** The name of the phrase; null is the first one. */
  readonly phrase: string | null;
  readonly view: View;
  /** The note that the cursor stands on, −1 before the first; and where the stretch that is marked begins, null where none is. */
  readonly cursor: number;
  readonly marked: number | null;
  /** Ticks of the note that comes next. */
  readonly length: number;
  readonly octave: (typeof OCTAVES)[number]['id'];
  readonly frets: readonly [number, number] | null;
  readonly strings: readonly [number, number] | null;
  readonly root: string | null;
  readonly scale: string | null;
  readonly way: ModeWay;
  readonly turn: Turn;
  /** The beat of the chords on which it begins, from 0; null is where it fits best. */
  readonly start: number | null;
  /** Which of the places that were found is looked at, and which of its notes. */
  readonly pick: number;
  readonly step: number;
  /** Quarter notes a minute. */
  readonly tempo: number;
  readonly found: Found | null;
  /** What was heard of the notes that were played last. */
  readonly heard: HeardNotes | null;
  /** What was copied; neither this nor what was found or heard is in the address. */
  readonly copied: readonly PhraseNote[];
}

export const AT_FIRST: PhraseParams = {
  phrase: null,
  view: 'made',
  cursor: -1,
  marked: null,
  length: QUARTER / 2,
  octave: '0',
  frets: null,
  strings: null,
  root: null,
  scale: null,
  way: 'number',
  turn: 'backwards',
  start: null,
  pick: 0,
  step: 0,
  tempo: 90,
  found: null,
  heard: null,
  copied: [],
};

const one = <T extends string>(of: readonly { readonly id: T }[], word: string | null, usual: T): T =>
  of.find(({ id }) => id === word)?.id ?? usual;
const pair = (
  word: string | null,
  [least, most]: readonly [number, number],
): readonly [number, number] | null => {
  const [, a, b] = /^(\d{1,2})-(\d{1,2})$/.exec(word ?? '') ?? [];
  if (a === undefined) return null;
  const [low, high] = [Number(a), Number(b)].sort((x, y) => x - y) as [number, number];
  return low >= least && high <= most ? [low, high] : null;
};
const whole = (word: string | null, usual: number, least: number, most: number): number =>
  word !== null && /^\d{1,3}$/.test(word) && Number(word) >= least && Number(word) <= most
    ? Number(word)
    : usual;

/** A number that is counted from 1 as one from 0; 0 is none. */
const before = (n: number): number | null => (n > 0 ? n - 1 : null);

export const params: Params<PhraseParams> = {
  read: (query) => ({
    ...AT_FIRST,
    phrase: query.get('lick'),
    view: one(VIEWS, query.get('played'), AT_FIRST.view),
    cursor: whole(query.get('note'), 0, 1, 999) - 1,
    octave: one(OCTAVES, query.get('octave'), AT_FIRST.octave),
    frets: pair(query.get('frets'), [0, LIMITS.frets[1]]),
    strings: pair(query.get('on'), [1, LIMITS.strings[1]]),
    root: query.get('into'),
    scale: query.get('mode'),
    way: one(MODE_WAYS, query.get('by'), AT_FIRST.way),
    turn: one(TURNS, query.get('turn'), AT_FIRST.turn),
    start: before(whole(query.get('beat'), 0, 1, 999)),
    pick: whole(query.get('pick'), 0, 0, 99),
    tempo: whole(query.get('tempo'), AT_FIRST.tempo, TEMPO.least, TEMPO.most),
  }),
  write: ({ phrase, view, cursor, octave, frets, strings, root, scale, way, turn, start, pick, tempo }) => ({
    lick: phrase,
    played: view === AT_FIRST.view ? null : view,
    note: view === 'made' && cursor >= 0 ? String(cursor + 1) : null,
    octave: view === 'place' && octave !== AT_FIRST.octave ? octave : null,
    frets: view === 'place' && frets ? frets.join('-') : null,
    on: view === 'place' && strings ? strings.join('-') : null,
    into: view === 'key' ? root : null,
    mode: view === 'mode' ? scale : null,
    by: view === 'mode' && way !== AT_FIRST.way ? way : null,
    turn: view === 'turned' && turn !== AT_FIRST.turn ? turn : null,
    beat: view === 'chords' && start !== null ? String(start + 1) : null,
    pick: view !== 'made' && pick ? String(pick) : null,
    tempo: tempo === AT_FIRST.tempo ? null : String(tempo),
  }),
};
