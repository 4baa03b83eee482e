import { registryOf } from '../kinds/registry.ts';
import { type Climb, type Climbed, type Climbing, type ClimbSpec } from './climb.ts';
import { diagonalClimb } from './diagonalClimb.ts';
import { oneString } from './oneString.ts';
import { relayClimb } from './relayClimb.ts';
import { seamShift } from './seamShift.ts';
import { skipClimb } from './skipClimb.ts';
import { slideUp } from './slideUp.ts';
import { twoStrings } from './twoStrings.ts';
import { zigzag } from './zigzag.ts';

/** Every climb. */
export const CLIMBS = registryOf<Climb>('climb', [
  seamShift,
  slideUp,
  twoStrings,
  oneString,
  diagonalClimb,
  relayClimb,
  skipClimb,
  zigzag,
]);

/**
 * The way up of a climb, in the order of play. Codes as of `Climbed`.
 *
 * @example climb({ neck, key: A, hand, positions: boxes, front: box, root: { string: 6, fret: 5 } }, { kind: 'shift', string: 3 }).value?.length // 13
 */
export function climb(climbing: Climbing, spec: ClimbSpec): Climbed {
  const found = CLIMBS.checked(spec);
  return found.ok ? found.value.up(climbing, spec) : found;
}
