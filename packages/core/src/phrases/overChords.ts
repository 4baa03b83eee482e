import { mod } from '../arithmetic.ts';
import { type PitchClass } from '../note.ts';
import { QUARTER } from '../run/run.ts';
import { startsOf, type Tune } from './phrase.ts';

/** A chord at its time, in ticks from the beginning; pitch classes, its root's first. */
export interface ChordAt {
  readonly at: number;
  readonly ticks: number;
  readonly classes: readonly PitchClass[];
}

/** What a note of a phrase is over the chord that it begins on. */
export interface NoteOver {
  /** Which note of the phrase, and which of the chords. */
  readonly note: number;
  readonly chord: number;
  /** The pitch class that is heard: of a bent note the one that it is bent to. */
  readonly pc: PitchClass;
  /** A note of the chord; one that rubs, a half step above a note of it; or any other. */
  readonly is: 'tone' | 'rub' | 'other';
  /** The pitch class that it rubs against, null where it rubs against none. */
  readonly against: PitchClass | null;
}

/**
 * The notes of a phrase over chords that go round, where its first tick falls on tick `from` of them. A note is what it is over the chord that it begins on; what
 * lies a half step above a note of the chord rubs (common practice, no source).
 *
 * @example overChords([{ midi: 60, length: 960 }, { midi: 53, length: 960 }], [{ at: 0, ticks: 3840, classes: [0, 4, 7] }], 0).map((n) => n.is) // ["tone","rub"]
 */
export function overChords(tune: Tune, chords: readonly ChordAt[], from: number): readonly NoteOver[] {
  const last = chords.at(-1);
  if (!last) return [];
  const round = last.at + last.ticks;
  const starts = startsOf(tune);
  return tune.flatMap(({ midi, bend }, note): readonly NoteOver[] => {
    if (midi === null) return [];
    const at = mod(from + starts[note]!, round);
    const chord = chords.findLastIndex((it) => it.at <= at);
    const { classes } = chords[chord]!;
    const by = bend && Number.isInteger(bend.by) ? bend.by : 0;
    const pc = mod(midi + by, 12);
    const against = classes.includes(pc) ? null : (classes.find((tone) => mod(pc - tone, 12) === 1) ?? null);
    const is = classes.includes(pc) ? 'tone' : against === null ? 'other' : 'rub';
    return [{ note, chord, pc, is, against }];
  });
}

/** Where a phrase could begin over chords, and how it fits there. */
export interface StartOver {
  /** In ticks from the beginning of the chords. */
  readonly at: number;
  /** How many of its notes are notes of the chords, and how many rub. */
  readonly tones: number;
  readonly rubs: number;
  /** By their lengths, what part of it is notes of the chords less what rubs: −1 to 1. */
  readonly fits: number;
}

/**
 * Where a phrase could begin: on every beat of the chords, where most of it is notes of them first, then the earlier one.
 *
 * @example startsOver([{ midi: 65, length: 960 }], [{ at: 0, ticks: 3840, classes: [0, 4, 7] }, { at: 3840, ticks: 3840, classes: [5, 9, 0] }])[0].at // 3840
 */
export function startsOver(tune: Tune, chords: readonly ChordAt[]): readonly StartOver[] {
  const last = chords.at(-1);
  const sounding = tune.reduce((sum, { midi, length }) => sum + (midi === null ? 0 : length), 0);
  if (!last || !sounding) return [];
  const beats = Math.floor((last.at + last.ticks) / QUARTER);
  return Array.from({ length: beats }, (_, beat): StartOver => {
    const notes = overChords(tune, chords, beat * QUARTER);
    const ticks = (is: NoteOver['is']): number =>
      notes.reduce((sum, n) => sum + (n.is === is ? tune[n.note]!.length : 0), 0);
    const many = (is: NoteOver['is']): number => notes.filter((n) => n.is === is).length;
    return {
      at: beat * QUARTER,
      tones: many('tone'),
      rubs: many('rub'),
      fits: (ticks('tone') - ticks('rub')) / sounding,
    };
  }).sort((a, b) => b.fits - a.fits || a.at - b.at);
}
