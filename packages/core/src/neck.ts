import { fretSpan, type Instrument } from './instrument.ts';
import { type Place, type Spot } from './place.ts';
import { mod } from './arithmetic.ts';
import { degreeIndex, type Key } from './scale.ts';

/** An instrument made ready for computing: sounding open strings, free frets. */
export interface Neck {
  /** Sounding pitch of each string at fret 0 (the capo counted in), by string number − 1. */
  readonly open: readonly number[];
  /** String numbers in rising order of pitch; of two in unison the higher number comes first. */
  readonly rising: readonly number[];
  /** Highest fret, counted from the capo. */
  readonly frets: number;
  readonly scaleLength: number;
  readonly capo: number;
}

/**
 * An instrument made ready: frets are counted from its capo.
 *
 * @example neckOf(moving.instrument).rising // [6,5,4,3,2,1]
 */
export function neckOf({ tuning, frets, scaleLength, capo }: Instrument): Neck {
  const open = tuning.map((midi) => midi + capo).reverse();
  const rising = open.map((_, i) => i + 1).sort((a, b) => open[a - 1]! - open[b - 1]! || b - a);
  return { open, rising, frets: frets - capo, scaleLength, capo };
}

/**
 * Sounding pitch at a spot; any fret, also off the neck.
 *
 * @example pitchAt(neck, 6, 5) // 45
 */
export const pitchAt = (neck: Neck, string: number, fret: number): number => neck.open[string - 1]! + fret;

/**
 * Whether there is such a string and fret.
 *
 * @example onNeck(neck, 6, 23) // false
 */
export const onNeck = (neck: Neck, string: number, fret: number): boolean =>
  Number.isInteger(fret) && string >= 1 && string <= neck.open.length && fret >= 0 && fret <= neck.frets;

/**
 * Every spot of the scale, string by string from the lowest-pitched, frets rising.
 *
 * @example spotsOf(neck, A).filter((s) => s.string === 6).map((s) => s.fret) // [0,3,5,8,10,12,15,17,20,22]
 */
export function spotsOf(neck: Neck, key: Key): readonly Spot[] {
  const spots: Spot[] = [];
  for (const string of neck.rising)
    for (let fret = 0; fret <= neck.frets; fret++) {
      const midi = pitchAt(neck, string, fret);
      const degree = degreeIndex(key, midi);
      if (degree >= 0) spots.push({ string, fret, midi, degree });
    }
  return spots;
}

/**
 * Same pitch on the other strings, in rising order of strings.
 *
 * @example unisons(neck, 6, 5) // [{"string":5,"fret":0}]
 */
export const unisons = (neck: Neck, string: number, fret: number): readonly Place[] =>
  neck.rising
    .filter((s) => s !== string)
    .map((s) => ({ string: s, fret: pitchAt(neck, string, fret) - neck.open[s - 1]! }))
    .filter((s) => onNeck(neck, s.string, s.fret));

/**
 * Distance in mm between two frets counted from the capo.
 *
 * @example Math.round(spanOn(neck, 5, 8)) // 77
 */
export const spanOn = (neck: Neck, a: number, b: number): number =>
  fretSpan(neck.scaleLength, a + neck.capo, b + neck.capo);

/**
 * The fret on a string with this pitch class that lies closest to `near`; ties go to the lower fret.
 *
 * @example nearestFret(neck, 5, 9, 11) // 12
 */
export function nearestFret(neck: Neck, string: number, pc: number, near: number): number {
  const first = mod(pc - neck.open[string - 1]!, 12);
  let best = first;
  for (let fret = first; fret <= neck.frets; fret += 12)
    if (Math.abs(fret - near) < Math.abs(best - near)) best = fret;
  return best;
}
