import { type Instrument } from '@crow-ladder/core';
import { type Strung, type VoiceName } from '@crow-ladder/core/sound';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { isBassLength, type Model } from '../model/model.ts';

/** What the strings of an instrument sound like: the wound ones are those with the highest numbers. */
export const strungAs = weakMapMemoize(({ tuning, wound, scaleLength }: Instrument): Strung => ({
  voice: isBassLength(scaleLength) ? 'bass' : 'guitar',
  plain: tuning.length - wound,
}));
/** What the strings of the chart's instrument sound like. */
export const strungOf = ({ state }: Model): Strung => strungAs(state.instrument);
export const voiceOf = (model: Model): VoiceName => strungOf(model).voice;
