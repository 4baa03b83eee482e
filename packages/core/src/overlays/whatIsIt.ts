import { mod } from '../arithmetic.ts';
import { type Degree } from '../degree.ts';
import { type PitchClass } from '../note.ts';
import { type Scale } from '../scale.ts';

/** A scale that holds given notes. */
export interface ScaleHolding {
  readonly root: PitchClass;
  readonly scale: Scale;
  /** Its degrees that were not given; empty where the notes are the scale. */
  readonly more: readonly Degree[];
}

/**
 * Scales of a list that hold all the given pitch classes, rooted on each of these in turn: those with the fewest other notes first, then
 * by root from the first one given, then as the list has them.
 *
 * @example scalesHolding([9, 0, 2, 4, 7], [A.scale]).map((h) => h.root) // [9]
 */
export function scalesHolding(
  notes: readonly PitchClass[],
  among: readonly Scale[],
): readonly ScaleHolding[] {
  const given = [...new Set(notes.map((n) => mod(n, 12)))];
  return given
    .flatMap((root) =>
      among.flatMap((scale): ScaleHolding[] => {
        const offsets = given.map((pc) => mod(pc - root, 12));
        if (!offsets.every((o) => scale.offsets.includes(o))) return [];
        return [{ root, scale, more: scale.degrees.filter((_, i) => !offsets.includes(scale.offsets[i]!)) }];
      }),
    )
    .sort((a, b) => a.more.length - b.more.length || given.indexOf(a.root) - given.indexOf(b.root));
}
