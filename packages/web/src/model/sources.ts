import { type Result } from '@crow-ladder/core';
import { type ClimbSpec } from '@crow-ladder/core/climbs';
import { climbSource, type Source } from '@crow-ladder/core/sources';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { addedTo } from './added.ts';
import { climbingOf } from './climbing.ts';
import { type Model } from './model.ts';

const climbFor = weakMapMemoize((model: Model, spec: string): Result<Source> =>
  climbSource(climbingOf(model)!, JSON.parse(spec) as ClimbSpec, addedTo(model)),
);
/** A climb from the position in front, of which there has to be one; by the climb in words, so that each is computed once. */
export const sourceOfClimb = (model: Model, spec: ClimbSpec): Result<Source> =>
  climbFor(model, JSON.stringify(spec));
