import { degreeHalfSteps } from '../degree.ts';
import { nameNotes, scalesWithOffsets } from '../naming.ts';
import { mod } from '../arithmetic.ts';
import { chooseRoot } from '../root.ts';
import { pitchClass } from '../note.ts';
import { ownScale } from '../ownScale.ts';
import { type Key, type Scale } from '../scale.ts';

/** A degree with more signs than these is not written. */
const MOST_SIGNS = 2;

/**
 * A scale with one degree a half step higher or lower, by its name where the catalogue has one; null where that is another note of the scale,
 * the root itself, or could not be written.
 *
 * @example withDegreeMoved(scaleById('natural-minor'), 5, 1).name // "Dorian"
 */
export function withDegreeMoved(scale: Scale, index: number, by: 1 | -1): Scale | null {
  const was = scale.degrees[index];
  if (!was || index === 0) return null;
  const is = { number: was.number, alteration: was.alteration + by };
  if (Math.abs(is.alteration) > MOST_SIGNS || scale.offsets.includes(degreeHalfSteps(is))) return null;
  const degrees = scale.degrees.map((d, i) => (i === index ? is : d));
  return scalesWithOffsets(degrees.map(degreeHalfSteps))[0] ?? ownScale(degrees);
}

/**
 * The scales of the catalogue that have the very notes of a key on another root, roots rising from its own.
 *
 * @example sameNotes({ root: A.root, scale: scaleById('natural-minor') }).map((k) => k.scale.id).slice(0, 2) // ["locrian","major"]
 */
export function sameNotes({ root, scale }: Key): readonly Key[] {
  const from = pitchClass(root);
  return nameNotes(scale.offsets.map((o) => o + from))
    .filter((named) => named.root !== from)
    .sort((a, b) => mod(a.root - from, 12) - mod(b.root - from, 12))
    .map((named) => ({ root: chooseRoot(named.root, named.scale).root, scale: named.scale }));
}
