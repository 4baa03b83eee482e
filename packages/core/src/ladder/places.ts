import { fretDistance } from '../instrument.ts';
import { type Neck, spotsOf, unisons } from '../neck.ts';
import { type Place, type Spot } from '../place.ts';
import { type Key } from '../scale.ts';

/** One of the places of a pitch. */
export interface PitchPlace extends Place {
  /** From the fret to the bridge, in mm. */
  readonly soundingMm: number;
  readonly wound: boolean;
  /** Index of the region that it lies in. */
  readonly region: number;
}

/**
 * The regions of a neck: first and last fret of each, from the nut. `cuts` are the first frets of all but the lowest.
 *
 * @example regionsOf(neck, [7]) // [[0,6],[7,22]]
 */
export function regionsOf(neck: Neck, cuts: readonly number[]): readonly (readonly [number, number])[] {
  const starts = [0, ...new Set(cuts)].filter((c) => c <= neck.frets).sort((a, b) => a - b);
  return starts.map((from, i) => [from, (starts[i + 1] ?? neck.frets + 1) - 1] as const);
}

/**
 * Length of a string that sounds when it is pressed at a fret, in mm.
 *
 * @example Math.round(soundingMm(neck, 12)) // 324
 */
export const soundingMm = (neck: Neck, fret: number): number =>
  neck.scaleLength - fretDistance(neck.scaleLength, fret + neck.capo);

/**
 * All places of the pitch at a place, the place itself among them, from the lowest fret up.
 *
 * @example placesOf(neck, { string: 6, fret: 5 }).length // 2
 */
export function placesOf(
  neck: Neck,
  at: Place,
  wound: number,
  cuts: readonly number[],
): readonly PitchPlace[] {
  const regions = regionsOf(neck, cuts);
  return [{ string: at.string, fret: at.fret }, ...unisons(neck, at.string, at.fret)]
    .sort((a, b) => a.fret - b.fret)
    .map(({ string, fret }) => ({
      string,
      fret,
      soundingMm: soundingMm(neck, fret),
      wound: string > neck.open.length - wound,
      region: regions.findIndex(([from, to]) => fret >= from && fret <= to),
    }));
}

/**
 * The scale's spots whose pitch lies nowhere else on the neck.
 *
 * @example onePlaceOnly(neck, A).length > 0 // true
 */
export const onePlaceOnly = (neck: Neck, key: Key): readonly Spot[] =>
  spotsOf(neck, key).filter((s) => unisons(neck, s.string, s.fret).length === 0);
