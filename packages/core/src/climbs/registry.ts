import { checkOptions } from '../layouts/option.ts';
import { ok } from '../result.ts';
import { routeThrough } from '../run/route.ts';
import { type Climb, type Climbed, type Climbing, type ClimbSpec, type ClimbWay } from './climb.ts';
import { diagonalClimb } from './diagonalClimb.ts';
import { oneString } from './oneString.ts';
import { relayClimb } from './relayClimb.ts';
import { seamShift } from './seamShift.ts';
import { skipClimb } from './skipClimb.ts';
import { slideUp } from './slideUp.ts';
import { twoStrings } from './twoStrings.ts';
import { zigzag } from './zigzag.ts';

/** Every climb, in the order in which they are offered. */
export const CLIMBS: readonly Climb[] = [
  seamShift,
  slideUp,
  twoStrings,
  oneString,
  diagonalClimb,
  relayClimb,
  skipClimb,
  zigzag,
];

/** The climb of a kind, or undefined. */
export const climbOf = (kind: string): Climb | undefined => CLIMBS.find((c) => c.kind === kind);

/** A climb with its usual options. */
export const usualClimb = (climb: Climb, climbing: Climbing): ClimbSpec => ({
  ...climb.usual(climbing),
  kind: climb.kind,
});

/** The notes of a climb in the order of play. Codes as of `Climbed`; throws on a kind that there is not. */
export function climb(climbing: Climbing, spec: ClimbSpec, way: ClimbWay): Climbed {
  const found = climbOf(spec.kind);
  if (!found) throw new Error(`There is no climb “${spec.kind}”.`);
  const checked = checkOptions(found.options, spec);
  if (!checked.ok) return checked;
  const up = found.up(climbing, spec);
  return up.ok ? ok(routeThrough(up.value, way.direction, way.topTwice)) : up;
}
