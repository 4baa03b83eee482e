import { type Joined } from '../plan/task.ts';
import { type Place } from '../place.ts';
import { refuse, type Result, ok } from '../result.ts';
import { type Bend, isOn, QUARTER, type Vibrato } from '../run/run.ts';

export type { Joined };

/** A note of a phrase as its player wrote it, or a rest. */
export interface PhraseNote {
  /** Where it is taken, its fret counted from the capo; null is a rest. */
  readonly at: Place | null;
  /** In ticks. */
  readonly length: number;
  /** How it is reached, where it is not picked. */
  readonly joined?: Joined | undefined;
  readonly bend?: Bend | undefined;
  readonly vibrato?: Vibrato | undefined;
  readonly accent?: true | undefined;
  /** The finger of the player's own choice, 1 to 4; else the fingering chooses. */
  readonly finger?: number | undefined;
}

/** The same without regard to where it is taken: what is moved. */
export interface TuneNote extends Omit<PhraseNote, 'at'> {
  /** MIDI number; null is a rest. */
  readonly midi: number | null;
  /** The string that it was written on, where it is still to be kept. */
  readonly string: number | null;
}
/** Notes and rests in the order of play. */
export type Tune = readonly TuneNote[];

/** The most notes and rests of a phrase, and how long one of them lasts, in ticks: a 32nd note to four whole notes. */
export const PHRASE_LIMITS = { notes: 500, length: [QUARTER / 8, 16 * QUARTER] } as const;

/**
 * Notes as a tune: pitches on the open strings that they were written for, in MIDI numbers by string number − 1.
 *
 * @example tuneOf([{ at: { string: 1, fret: 3 }, length: 960 }], neck.open)[0].midi // 67
 */
export const tuneOf = (notes: readonly PhraseNote[], open: readonly number[]): Tune =>
  notes.map(({ at, ...note }) => ({
    ...note,
    midi: at && open[at.string - 1]! + at.fret,
    string: at && at.string,
  }));

/**
 * When each note begins, in ticks.
 *
 * @example startsOf([{ length: 480 }, { length: 960 }]) // [0,480]
 */
export function startsOf(notes: readonly Pick<PhraseNote, 'length'>[]): readonly number[] {
  let at = 0;
  return notes.map(({ length }) => (at += length) - length);
}
/**
 * How long notes last together, in ticks.
 *
 * @example ticksOf([{ length: 480 }, { length: 960 }]) // 1440
 */
export const ticksOf = (notes: readonly Pick<PhraseNote, 'length'>[]): number =>
  notes.reduce((sum, { length }) => sum + length, 0);

/** Parts of a beat that can be written beside each other, in ticks: 32nd notes, thirds or sixths of a beat, fifths and sevenths of it. */
export const UNITS: readonly number[] = [QUARTER / 8, QUARTER / 6, QUARTER / 5, QUARTER / 7];
/**
 * Whether notes of such lengths can be written: within a beat halves of halves, thirds, fifths or sevenths. Code `phrase.beat` names the first bar and beat in
 * which both meet; `beats` are the quarter notes of a bar.
 *
 * @example canBeWritten([{ length: 240 }, { length: 320 }], 4).error.code // "phrase.beat"
 */
export function canBeWritten(notes: readonly Pick<PhraseNote, 'length'>[], beats: number): Result<true> {
  const cuts = new Map<number, number[]>();
  for (const at of [...startsOf(notes), ticksOf(notes)]) {
    const beat = Math.floor(at / QUARTER);
    cuts.set(beat, [...(cuts.get(beat) ?? []), at % QUARTER]);
  }
  for (const [beat, within] of cuts)
    if (!UNITS.some((unit) => within.every((at) => isOn(at, unit))))
      return refuse(
        'phrase.beat',
        `Bar ${Math.floor(beat / beats) + 1}, beat ${(beat % beats) + 1}: parts of a beat meet there that are not of one kind, such as halves and thirds. Fill the beat with one of them, and it can be written.`,
      );
  return ok(true);
}
