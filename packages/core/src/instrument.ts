import { midiName } from './note.ts';
import { ok, refuse, type Result } from './result.ts';
import { plural } from './words.ts';

/** What the player holds. Strings are kept as players say them: from the lowest-numbered pitch upward. */
export interface Instrument {
  readonly name: string;
  /** Open strings as MIDI numbers without the capo; the last one is string 1. 3 to 12 of them. */
  readonly tuning: readonly number[];
  /** 12 to 36. */
  readonly frets: number;
  /** Nut to bridge in mm, 400 to 1000. */
  readonly scaleLength: number;
  /** Fret under the capo; 0 is none. At least 12 frets stay free above it. */
  readonly capo: number;
  readonly handed: 'right' | 'left';
  /** How many strings, counted from the lowest, are wound. */
  readonly wound: number;
}

/** Bounds of an instrument; forms and validation read them here. */
export const LIMITS = {
  strings: [3, 12],
  frets: [12, 36],
  scaleLength: [400, 1000],
  midi: [12, 100],
} as const;

const said = ([low, high]: readonly [number, number]): string => `${low} to ${high}`;

const STANDARD = [40, 45, 50, 55, 59, 64] as const;

export const DEFAULT_INSTRUMENT: Instrument = {
  name: 'six-string',
  tuning: STANDARD,
  frets: 22,
  scaleLength: 648,
  capo: 0,
  handed: 'right',
  wound: 3,
};

/**
 * The highest fret for a capo: as many frets as the shortest neck has stay free above it.
 *
 * @example mostCapo(22) // 10
 */
export const mostCapo = (frets: number): number => frets - LIMITS.frets[0];

/**
 * Checks the bounds; the refusal names the field (codes `instrument.<field>`).
 *
 * @example checkInstrument(moving.instrument).ok // true
 */
export function checkInstrument(it: Instrument): Result<Instrument> {
  const outside = (n: number, [low, high]: readonly [number, number]): boolean => n < low || n > high;
  if (outside(it.tuning.length, LIMITS.strings))
    return refuse(
      'instrument.tuning',
      `A tuning has ${said(LIMITS.strings)} strings; this one has ${it.tuning.length}.`,
    );
  const odd = it.tuning.find((m) => outside(m, LIMITS.midi));
  if (odd !== undefined)
    return refuse(
      'instrument.tuning',
      `A string at ${midiName(odd)} cannot be strung: use ${midiName(LIMITS.midi[0])} to ${midiName(LIMITS.midi[1])}.`,
    );
  if (outside(it.frets, LIMITS.frets))
    return refuse('instrument.frets', `A neck has ${said(LIMITS.frets)} frets.`);
  if (outside(it.scaleLength, LIMITS.scaleLength))
    return refuse('instrument.scaleLength', `The scale length is ${said(LIMITS.scaleLength)} mm.`);
  if (it.capo < 0 || it.capo > mostCapo(it.frets))
    return refuse(
      'instrument.capo',
      `With ${plural(it.frets, 'fret')} the capo goes up to fret ${mostCapo(it.frets)}.`,
    );
  if (it.wound < 0 || it.wound > it.tuning.length)
    return refuse('instrument.wound', `Between 0 and ${it.tuning.length} strings can be wound.`);
  return ok(it);
}

/**
 * Distance of a fret from the nut in mm, L(1 − 2^(−n/12)): the equal-temperament fret rule, in which each
 * fret shortens the string by the twelfth root of two.
 *
 * @example Math.round(fretDistance(648, 12)) // 324
 */
export const fretDistance = (scaleLength: number, fret: number): number =>
  scaleLength * (1 - 2 ** (-fret / 12));

/**
 * Distance in mm between two frets of a string, never negative.
 *
 * @example Math.round(fretSpan(648, 1, 5)) // 126
 */
export const fretSpan = (scaleLength: number, a: number, b: number): number =>
  Math.abs(fretDistance(scaleLength, b) - fretDistance(scaleLength, a));
