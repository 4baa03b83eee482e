import { type Neck } from '@crow-ladder/core';
import { type HeardNote, type PitchRange, plainNote, type SoundingNote } from '@crow-ladder/core/listening';
import { PHRASE_LIMITS } from '@crow-ladder/core/phrases';
import { articulate, inTime, QUARTER } from '@crow-ladder/core/run';
import { soundsOf } from '@crow-ladder/core/sound';
import { useState } from 'react';
import { type Model } from '../model/model.ts';
import { strungOf } from '../sound/voiceOf.ts';
import { type Following } from './listening.ts';
import { type Ears } from './useEars.ts';

/** The pitches of a neck, and a half step around them. */
export const rangeOfNeck = ({ open, frets }: Neck): PitchRange => ({
  low: Math.min(...open) - 1,
  high: Math.max(...open) + frets + 1,
});

/** What a stand-in plays where nothing is asked for: the position in front, upward in eighths, a quarter note lasting so many seconds. */
export function standInLine(model: Model, beat: number): readonly SoundingNote[] {
  const run = inTime(articulate(model.fingering()?.steps ?? []));
  const sounds = soundsOf(run, strungOf(model));
  const seconds = beat / QUARTER;
  return run.map(({ start, length }, i) =>
    plainNote(sounds[i]!, start * seconds, (start + length) * seconds),
  );
}

/** So many are taken: with a rest after each they still are a phrase. */
const MOST = PHRASE_LIMITS.notes / 2 - 1;
/** Notes that are played, taken as they come, until it is stopped. */
export function useTaking({ followNotes, stop, state }: Ears, range: PitchRange) {
  const [notes, setNotes] = useState<readonly HeardNote[]>([]);
  const start = (): Promise<Following | null> => {
    setNotes([]);
    return followNotes(range, (more) => setNotes((before) => [...before, ...more].slice(0, MOST)));
  };
  return { notes, on: state === 'listening', start, stop };
}
