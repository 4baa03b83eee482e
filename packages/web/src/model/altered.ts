import { alteredScale, pretty, scaleSaid } from '@crow-ladder/core';
import { type Alteration } from '@crow-ladder/core/kinds';
import { type LayoutSpec } from '@crow-ladder/core/layouts';
import { type Model } from './model.ts';

/** What the altered notes of a layout or a climb make, a sentence each; none where nothing is altered. */
export function alteredSaid({ scale, state }: Model, spec: LayoutSpec): readonly string[] {
  const altered = (spec['altered'] ?? []) as readonly Alteration[];
  if (!altered.length) return [];
  const made = alteredScale(scale, altered);
  const named = (s: typeof scale): string => `${pretty(state.key.root)} ${scaleSaid(s)}`;
  if (!made.scale && !made.mode) return ['Altered so, it makes no scale of the catalogue.'];
  return [
    ...(made.scale ? [`Altered so, it is ${named(made.scale)}.`] : []),
    ...(made.mode ? [`Its notes are in ${named(made.mode)}, and in no other mode of a major scale.`] : []),
  ];
}
