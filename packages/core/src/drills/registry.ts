import { registryOf } from '../kinds/registry.ts';
import { otherScale, thereAndBack } from './backElsewhere.ts';
import { type Drill, type Drilling, type DrillResult, type DrillSpec } from './drill.ts';
import { groups, skips } from './groups.ts';
import { jumps } from './jumps.ts';
import { outFromRoot } from './outFromRoot.ts';
import { partOfStrings } from './partOfStrings.ts';
import { rootBetween } from './rootBetween.ts';
import { roots } from './roots.ts';
import { rootToRoot } from './rootToRoot.ts';
import { straight } from './straight.ts';
import { upAndDown } from './upAndDown.ts';
import { wholeRange } from './wholeRange.ts';

/** Every drill. */
export const DRILLS = registryOf<Drill>('drill', [
  upAndDown,
  straight,
  rootToRoot,
  wholeRange,
  outFromRoot,
  rootBetween,
  groups,
  skips,
  partOfStrings,
  thereAndBack,
  otherScale,
  jumps,
  roots,
]);

/**
 * The notes of a drill in the order of play. Codes as of `DrillResult`.
 *
 * @example drill(drilling, { kind: 'up-and-down', topTwice: false }).value?.notes.length // 23
 */
export function drill(drilling: Drilling, spec: DrillSpec): DrillResult {
  const found = DRILLS.checked(spec);
  return found.ok ? found.value.play(drilling, spec) : found;
}
