import { type Alteration } from './kinds/option.ts';
import { type Spec } from './kinds/spec.ts';
import { modeOn, scalesWithOffsets } from './naming.ts';
import { mod } from './arithmetic.ts';
import { type Scale } from './scale.ts';
import { scaleById } from './scaleCatalogue.ts';

/**
 * The alterations that a layout or a climb has; none where it knows none.
 *
 * @example alterationsOf({ kind: 'count', counts: [2] }) // []
 */
export const alterationsOf = (spec: Spec): readonly Alteration[] =>
  (spec['altered'] ?? []) as readonly Alteration[];

/**
 * Half steps above the root, 0 to 11, at which each degree of a scale sounds with alterations: where it was as well, if it is altered
 * on single strings alone.
 *
 * @example offsetsAltered(A.scale, [{ degree: 4, by: -1, string: 1 }])[4] // [10,9]
 */
export const offsetsAltered = (
  { offsets }: Pick<Scale, 'offsets'>,
  altered: readonly Alteration[],
): readonly (readonly number[])[] =>
  offsets.map((offset, degree) => {
    const here = altered.filter((a) => a.degree === degree);
    const stays = here.every((a) => a.string !== undefined);
    return [...(stays ? [offset] : []), ...here.map((a) => mod(offset + a.by, 12))];
  });

/** What a scale with alterations is called, from the root that it had. */
export interface AlteredScale {
  /** The scale of the catalogue that has these notes and no others. */
  readonly scale: Scale | null;
  /** The one mode of the major scale that holds them and has more; null where there is none, or several. */
  readonly mode: Scale | null;
}

/**
 * The scale that alterations make over the same root.
 *
 * @example alteredScale(A.scale, [{ degree: 4, by: -1 }]).mode?.name // "Dorian"
 */
export function alteredScale(scale: Scale, altered: readonly Alteration[]): AlteredScale {
  const offsets = [...new Set(offsetsAltered(scale, altered).flat())].sort((a, b) => a - b);
  const major = scaleById('major')!;
  const holding = major.degrees.flatMap((_, degree) => {
    const mode = degree === 0 ? major : modeOn(major, degree);
    return mode && offsets.every((o) => mode.offsets.includes(o)) ? [mode] : [];
  });
  const more = holding.length === 1 && holding[0]!.offsets.length > offsets.length;
  return { scale: scalesWithOffsets(offsets)[0] ?? null, mode: more ? holding[0]! : null };
}
