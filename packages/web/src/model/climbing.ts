import { type Climbing } from '@crow-ladder/core/climbs';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model } from './model.ts';

/** What a climb sets out from; null where no position is in front. */
export const climbingOf = weakMapMemoize(
  ({ neck, key, hand, positions, front, state }: Model): Climbing | null =>
    front && positions.ok
      ? { neck, key, hand, positions: positions.value, front: front.position, root: state.at }
      : null,
);
