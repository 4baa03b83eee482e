import { specFrom, specWord } from '@crow-ladder/contract';
import { checkOptions, drillOf, type DrillSpec } from '@crow-ladder/core';

export const drillWord = (spec: DrillSpec): string => specWord(drillOf(spec.kind)!.options, spec);

/** The drill that a word names, or null where there is none of that kind or its options are out of bounds. */
export function drillFrom(word: string): DrillSpec | null {
  const spec = specFrom(word, (kind) => drillOf(kind)?.options) as DrillSpec;
  const found = drillOf(spec.kind);
  return found && checkOptions(found.options, spec).ok ? spec : null;
}
