import { type VoiceName } from '@crow-ladder/core/sound';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model } from '../model/model.ts';
import { type Strung } from './strings.ts';

/** Scale lengths from which an instrument is a bass, in mm. */
const BASS_MM = 750;
export const voiceOf = ({ state }: Model): VoiceName =>
  state.instrument.scaleLength >= BASS_MM ? 'bass' : 'guitar';
/** What the strings of the chart's instrument sound like: the wound ones are those with the highest numbers. */
export const strungOf = weakMapMemoize((model: Model): Strung => ({
  voice: voiceOf(model),
  plain: model.neck.open.length - model.state.instrument.wound,
}));
