import { registryOf } from '../kinds/registry.ts';
import { type Result } from '../result.ts';
import { capoMove } from './capo.ts';
import { keyMove } from './key.ts';
import { modeMove } from './mode.ts';
import { type AnyMove, type MoveSpec, type Moving, type Outcome, type Wishes } from './move.ts';
import { stringMove } from './stringSet.ts';
import { tuningMove } from './tuning.ts';

/** Every move. */
export const MOVES = registryOf<AnyMove>('move', [keyMove, modeMove, stringMove, tuningMove, capoMove]);

/**
 * What a move comes to, null where nothing is asked for. Code `move.option` where its options are out of bounds, else its own.
 *
 * @example MOVES.of('key')?.name // "Key"
 */
export function moved(moving: Moving, spec: MoveSpec, wishes: Wishes): Result<Outcome> | null {
  const found = MOVES.checked(spec);
  return found.ok ? found.value.move(moving, spec, wishes) : found;
}
