import { median } from '../arithmetic.ts';
import { type AskedNote } from './align.ts';
import { type AskedStep, type HeardRound } from './ear.ts';

/** How a note was in time. */
export type Timing = 'in time' | 'early' | 'late';
/** What is said of a note that was asked for. */
export type NoteVerdict =
  | { readonly is: 'missed' }
  | {
      readonly is: 'right' | 'wrong';
      /** What was heard, MIDI number, and how far from it in cents. */
      readonly midi: number;
      readonly cents: number;
      /** How late it was, in ms; negative is early. */
      readonly off: number;
      readonly timing: Timing;
      /** Within how many ms it would be in time. */
      readonly within: number;
      /** Late or early, but not by more than twice what is in time. */
      readonly near: boolean;
      /** How loud it began, in dB below full scale. */
      readonly level: number;
      /** How far its bend was from where it should arrive, in cents; null where none was measured. */
      readonly bent: number | null;
    };

/** A note that was heard, and that nobody asked for. */
export interface ExtraNote {
  /** MIDI number. */
  readonly midi: number;
  /** The note that was asked for before it, from 0; −1 before the first. */
  readonly after: number;
}

/** *In time* is within a tenth of a note's length, but at least and at most so many ms: this project's own judgement. */
const IN_TIME = { part: 0.1, least: 15, most: 30 };
/** Intonation within so many cents is in tune (common practice, no source). */
export const IN_TUNE_CENTS = 10;

/** A bend within so many cents is on pitch: this project's own judgement. */
export const BENT_CENTS = 20;

/**
 * Within how many ms a note of a length in seconds is in time.
 *
 * @example inTimeWithin(0.5) // 30
 */
export const inTimeWithin = (length: number): number =>
  Math.max(IN_TIME.least, Math.min(IN_TIME.most, IN_TIME.part * length * 1000));

/**
 * What is said of each note that was asked for: as soon as it was heard, or once it is due; null before, and while another pitch may be
 * a slide on its way. `delay` is what the device adds, in seconds, where it was measured; else what
 * the player was late by on the whole is taken for it.
 *
 * @example verdictsOf([{ midi: 57, at: 0, length: 1, arrive: 'pick' }], { id: 0, heard: [], due: 1, answered: [{ is: 'missed' }], extra: [], fit: { delay: 0, tempo: 1 }, bent: new Map() }, 'click', null) // [{"is":"missed"}]
 */
export function verdictsOf(
  asked: readonly AskedStep[],
  { heard, answered, due, fit, bent }: HeardRound,
  to: 'click' | 'own',
  delay: number | null,
): readonly (NoteVerdict | null)[] {
  const tempo = to === 'click' ? 1 : fit.tempo;
  const late = answered.map((a, i) => (a.is === 'missed' ? 0 : heard[a.heard]!.at - tempo * asked[i]!.at));
  const constant = delay ?? median(late.filter((_, i) => answered[i]!.is === 'right'));
  return answered.map((a, i): NoteVerdict | null => {
    if (i >= due && (a.is === 'missed' || (a.is === 'wrong' && asked[i]!.arrive === 'slide'))) return null;
    if (a.is === 'missed') return a;
    const { midi, cents, level } = heard[a.heard]!;
    const off = (late[i]! - constant) * 1000;
    const within = inTimeWithin(asked[i]!.length);
    return {
      is: a.is,
      midi,
      cents,
      level,
      bent: bent.get(i) ?? null,
      off,
      within,
      timing: Math.abs(off) <= within ? 'in time' : off < 0 ? 'early' : 'late',
      near: Math.abs(off) <= 2 * within,
    };
  });
}

/**
 * The notes of a round that nobody asked for, in order; of what comes after the last note that is due nothing is said yet.
 *
 * @example extrasOf([{ midi: 57, at: 0, length: 1 }], { heard: [], due: 1, extra: [], fit: { delay: 0, tempo: 1 } }) // []
 */
export function extrasOf(
  asked: readonly AskedNote[],
  { heard, extra, due, fit }: Pick<HeardRound, 'heard' | 'extra' | 'due' | 'fit'>,
): readonly ExtraNote[] {
  return extra.flatMap((i) => {
    const { midi, at } = heard[i]!;
    const after = asked.findLastIndex((note) => fit.delay + fit.tempo * note.at <= at);
    return after < due ? [{ midi, after }] : [];
  });
}
