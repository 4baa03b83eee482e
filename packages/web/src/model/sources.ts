import { type Position, positionSource, type Source } from '@crow-ladder/core';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model } from './model.ts';

/** A position of the chart, as the player uses the hand. */
export const sourceOfPosition = weakMapMemoize(({ neck, hand }: Model, position: Position): Source =>
  positionSource(neck, position, hand),
);
