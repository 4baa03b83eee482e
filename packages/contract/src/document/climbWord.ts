import { checkOptions, climbOf, type ClimbSpec } from '@crow-ladder/core';
import { specFrom, specWord } from './words.ts';

export const climbWord = (spec: ClimbSpec): string => specWord(climbOf(spec.kind)!.options, spec);
/** The climb that a word names, or null where there is none of that kind or its options are out of bounds. */
export function climbFrom(word: string): ClimbSpec | null {
  const spec = specFrom(word, (kind) => climbOf(kind)?.options);
  return isClimb(spec) ? spec : null;
}
/** Whether a value from outside is a climb with options within their bounds. */
export function isClimb(value: unknown): value is ClimbSpec {
  const spec = value as ClimbSpec;
  const found = typeof spec?.kind === 'string' ? climbOf(spec.kind) : undefined;
  return found !== undefined && checkOptions(found.options, spec).ok;
}
