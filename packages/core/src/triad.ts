import { mod } from './arithmetic.ts';
import { type Scale } from './scale.ts';

export type Triad = 'major' | 'minor';

/**
 * The plain chord that a scale has on one of its degrees: major or minor by its third, with a perfect fifth; null where the scale has
 * none there. Where it has both thirds, that of the degree two on is meant in a scale of seven notes, else the major one.
 *
 * @example triadOn(scaleById('major'), 1) // "minor"
 */
export function triadOn({ offsets }: Scale, degree: number): Triad | null {
  const at = offsets[degree]!;
  const has = (halfSteps: number): boolean => offsets.includes(mod(at + halfSteps, 12));
  if (!has(7)) return null;
  if (has(4) && has(3)) {
    const third = mod(offsets[(degree + 2) % offsets.length]! - at, 12);
    return offsets.length === 7 && third === 3 ? 'minor' : 'major';
  }
  return has(4) ? 'major' : has(3) ? 'minor' : null;
}
