import { type VoiceName } from '@crow-ladder/core/sound';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { isBass, type Model } from '../model/model.ts';
import { type Strung } from '@crow-ladder/core/sound';

export const voiceOf = (model: Model): VoiceName => (isBass(model) ? 'bass' : 'guitar');
/** What the strings of the chart's instrument sound like: the wound ones are those with the highest numbers. */
export const strungOf = weakMapMemoize((model: Model): Strung => ({
  voice: voiceOf(model),
  plain: model.neck.open.length - model.state.instrument.wound,
}));
