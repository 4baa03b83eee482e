import { resolveScale, type Scale } from '@crow-ladder/core';
import { type OwnScale } from './settings.ts';

/** A scale by the name that the player gave it, if any. */
export function called(scale: Scale, own: readonly OwnScale[]): Scale {
  const named = own.find((o) => o.id === scale.id);
  return named ? { ...scale, name: named.name } : scale;
}

/** The player's own scales. */
export const namedScales = (own: readonly OwnScale[]): readonly Scale[] =>
  scalesOf(
    own.map(({ id }) => id),
    own,
  );

/** The scales of some ids, by the player's names for them. */
export const scalesOf = (ids: readonly string[], own: readonly OwnScale[]): readonly Scale[] =>
  ids.flatMap((id) => {
    const scale = resolveScale(id);
    return scale.ok ? [called(scale.value, own)] : [];
  });
