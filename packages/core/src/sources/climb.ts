import { type Climbing, type ClimbSpec } from '../climbs/climb.ts';
import { climb } from '../climbs/registry.ts';
import { ok, type Result } from '../result.ts';
import { type Source, sourceOf } from './source.ts';

/**
 * A climb from the position in front. Codes as of `Climbed`.
 *
 * @example climbSource(climbing, { kind: 'shift', string: 3 }).value?.up.steps.length // 13
 */
export function climbSource(climbing: Climbing, spec: ClimbSpec): Result<Source> {
  const up = climb(climbing, spec);
  return up.ok ? ok(sourceOf(climbing.neck, up.value, climbing.hand)) : up;
}
