import { type Climbing, type ClimbSpec } from '../climbs/climb.ts';
import { climb } from '../climbs/registry.ts';
import { type AddedNote } from '../overlays/added.ts';
import { ok, type Result } from '../result.ts';
import { addedAlong } from './added.ts';
import { type Source, sourceOf } from './source.ts';

/**
 * A climb from the position in front, with the notes that are added to its scale. Codes as of `Climbed`.
 *
 * @example climbSource(climbing, { kind: 'shift', string: 3 }).value?.up.steps.length // 13
 */
export function climbSource(
  climbing: Climbing,
  spec: ClimbSpec,
  added: readonly AddedNote[] = [],
): Result<Source> {
  const up = climb(climbing, spec);
  return up.ok ? ok(sourceOf(climbing.neck, addedAlong(climbing.key, up.value, added), climbing.hand)) : up;
}
