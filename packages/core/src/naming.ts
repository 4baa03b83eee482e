import { type PitchClass } from './note.ts';
import { mod } from './arithmetic.ts';
import { type Scale } from './scale.ts';
import { CATALOGUE } from './scaleCatalogue.ts';

export interface NamedScale {
  readonly root: PitchClass;
  readonly scale: Scale;
}

const maskOf = (offsets: readonly number[], root = 0): number =>
  offsets.reduce((mask, o) => mask | (1 << mod(o + root, 12)), 0);

const BY_MASK = new Map<number, Scale[]>();
for (const scale of CATALOGUE) {
  const mask = maskOf(scale.offsets);
  BY_MASK.set(mask, [...(BY_MASK.get(mask) ?? []), scale]);
}

/**
 * Catalogue scales with exactly these half steps above the root.
 *
 * @example scalesWithOffsets([0, 3, 5, 7, 10]).map((s) => s.id)[0] // "minor-pentatonic"
 */
export const scalesWithOffsets = (offsets: readonly number[]): readonly Scale[] =>
  BY_MASK.get(maskOf(offsets)) ?? [];

/**
 * Every catalogue scale made of exactly these pitch classes, from whichever root, roots rising from C.
 *
 * @example nameNotes([9, 0, 2, 4, 7]).length > 0 // true
 */
export function nameNotes(notes: Iterable<PitchClass>): readonly NamedScale[] {
  const set = [...new Set([...notes].map((n) => mod(n, 12)))].sort((a, b) => a - b);
  return set.flatMap((root) =>
    scalesWithOffsets(set.map((n) => mod(n - root, 12))).map((scale) => ({ root, scale })),
  );
}

/**
 * The catalogue's name for the mode that starts on a degree of a scale, or undefined where it has none.
 *
 * @example modeOn(scaleById('major'), 1)?.id // "dorian"
 */
export function modeOn(scale: Scale, degreeIndex: number): Scale | undefined {
  const start = scale.offsets[degreeIndex]!;
  const found = scalesWithOffsets(scale.offsets.map((o) => mod(o - start, 12)));
  return found.find((s) => s.family === scale.family) ?? found[0];
}
