import { type Fingering, fingerings } from '@crow-ladder/core/run';
import { downFrom, positionSource } from '@crow-ladder/core/sources';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model } from '../../model/model.ts';
import { type ShapeParams, WAYS } from './params.ts';

export const NOTHING: Fingering = { steps: [], cost: 0, shifts: 0, stretches: 0 };

/** The fingering that is looked at, in the order of play: everything that shows or says fingers reads this one. */
export const shownFingering = weakMapMemoize((model: Model, params: ShapeParams): Fingering => {
  const { front, neck, hand } = model;
  const asked = { ...hand, school: params.school ?? hand.school };
  if (!front) return NOTHING;
  const { up, down } = positionSource(neck, front.position, asked);
  const best = params.down ? down() : up;
  if (!params.way) return best;
  const ways = fingerings(neck, params.down ? downFrom(up) : front.position.spots, asked, WAYS);
  return ways[params.way % ways.length] ?? best;
});

/** The same fingers in the order of the position's spots. */
export const risingFingering = weakMapMemoize((model: Model, params: ShapeParams): Fingering => {
  const shown = shownFingering(model, params);
  return params.down ? { ...shown, steps: [...shown.steps].reverse() } : shown;
});
