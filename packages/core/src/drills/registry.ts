import { checkOptions } from '../layouts/option.ts';
import { otherScale, thereAndBack } from './backElsewhere.ts';
import { type Drill, type Drilling, type DrillResult, type DrillSpec } from './drill.ts';
import { groups, skips } from './groups.ts';
import { jumps } from './jumps.ts';
import { outFromRoot } from './outFromRoot.ts';
import { partOfStrings } from './partOfStrings.ts';
import { rootBetween } from './rootBetween.ts';
import { roots } from './roots.ts';
import { rootToRoot } from './rootToRoot.ts';
import { upAndDown } from './upAndDown.ts';
import { wholeRange } from './wholeRange.ts';

/** Every drill, in the order in which they are offered. */
export const DRILLS: readonly Drill[] = [
  upAndDown,
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
];

/** The drill of a kind, or undefined. */
export const drillOf = (kind: string): Drill | undefined => DRILLS.find((d) => d.kind === kind);

/** A drill with its usual options. */
export const usualDrill = (drill: Drill, drilling: Drilling): DrillSpec => ({
  ...drill.usual(drilling),
  kind: drill.kind,
});

/** The notes of a drill in the order of play. Codes as of `DrillResult`; throws on a kind that there is not. */
export function drill(drilling: Drilling, spec: DrillSpec): DrillResult {
  const found = drillOf(spec.kind);
  if (!found) throw new Error(`There is no drill “${spec.kind}”.`);
  const checked = checkOptions(found.options, spec);
  return checked.ok ? found.play(drilling, spec) : checked;
}
