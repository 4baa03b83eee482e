import { pitchClass } from '../note.ts';
import { mod } from '../arithmetic.ts';
import { type Key } from '../scale.ts';
import { triadOn } from '../triad.ts';

/** What sounds under the player: the root alone, or the plain chord on it. */
export type Drone = 'root' | 'chord';

/** The lowest pitch that a drone begins on: E2, the lowest string of a guitar. */
const LOWEST = 40;

/**
 * Pitches of a drone, MIDI numbers: the root, from E2 up, with its octave, or with the third and the fifth that the scale has on it. A
 * scale without a major or minor chord on its root leaves the third out, and one without the perfect fifth has its octave instead.
 *
 * @example droneOf(A, 'root') // [45,57]
 */
export function droneOf({ root, scale }: Key, drone: Drone): readonly number[] {
  const low = LOWEST + mod(pitchClass(root) - LOWEST, 12);
  if (drone === 'root') return [low, low + 12];
  const triad = triadOn(scale, 0);
  const fifth = scale.offsets.includes(7) ? [low + 7] : [];
  return [low, ...fifth, low + 12, ...(triad ? [low + 12 + (triad === 'major' ? 4 : 3)] : [])];
}
