import { alterationsOf, alteredScale, keySaid, type Scale } from '@crow-ladder/core';
import { type LayoutSpec } from '@crow-ladder/core/layouts';
import { type Model } from './model.ts';

/** What the altered notes of a layout or a climb make, a sentence each; none where nothing is altered. */
export function alteredSaid({ scale: own, key }: Model, spec: LayoutSpec): readonly string[] {
  const altered = alterationsOf(spec);
  if (!altered.length) return [];
  const { scale, mode } = alteredScale(own, altered);
  const named = (made: Scale): string => keySaid({ root: key.root, scale: made });
  if (!scale && !mode) return ['Altered so, it makes no scale of the catalogue.'];
  return [
    ...(scale ? [`Altered so, it is ${named(scale)}.`] : []),
    ...(mode ? [`Its notes are in ${named(mode)}, and in no other mode of a major scale.`] : []),
  ];
}
