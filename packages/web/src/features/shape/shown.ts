import { downFrom, type Fingering, fingerings, sourceOf } from '@crow-ladder/core';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model } from '../../model/model.ts';
import { type ShapeParams, WAYS } from './params.ts';

/** The fingering that is looked at, in the order of play: everything that shows or says fingers reads this one. */
export const shownFingering = weakMapMemoize((model: Model, params: ShapeParams): Fingering => {
  const { front, neck, hand } = model;
  const spots = front?.position.spots ?? [];
  const asked = { ...hand, school: params.school ?? hand.school };
  const { up, down } = sourceOf(neck, spots, asked);
  const best = params.down ? down() : up;
  if (!params.way) return best;
  const ways = fingerings(neck, params.down ? downFrom(up) : spots, asked, WAYS);
  return ways[params.way % ways.length] ?? best;
});

/** The same fingers in the order of the position's spots. */
export const risingFingering = weakMapMemoize((model: Model, params: ShapeParams): Fingering => {
  const shown = shownFingering(model, params);
  return params.down ? { ...shown, steps: [...shown.steps].reverse() } : shown;
});
