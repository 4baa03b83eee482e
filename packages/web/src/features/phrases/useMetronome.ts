import { asFound } from '@crow-ladder/core/phrases';
import { QUARTER, scheduleOf, SWING } from '@crow-ladder/core/run';
import { useMemo } from 'react';
import { type Model } from '../../model/model.ts';
import { groundOf } from '../../model/phrases.ts';
import { type Pass } from '../../sound/playback.ts';
import { usePlayback } from '../../sound/usePlayback.ts';
import { strungOf } from '../../sound/voiceOf.ts';

const CLICKS = { notes: 0, click: 0.8, chords: 0 } as const;
const GROUPS = { size: 1, from: 0 } as const;
const NONE: readonly never[] = [];

/** A metronome: bars of so many quarter notes, so many a minute, until it is stopped; each is told before it sounds. */
export function useMetronome(
  model: Model,
  beats: number,
  tempo: number,
  onPass: (pass: Pass) => void = () => undefined,
) {
  const bar = beats * QUARTER;
  // A silent note a bar long: what is heard are its clicks.
  const { run } = useMemo(
    () => asFound(groundOf(model), [{ midi: model.neck.open[0]!, string: 1, length: bar }]),
    [model, bar],
  );
  const schedule = useMemo(
    () => scheduleOf(run, { tempo, swing: SWING.least, beatsPerBar: beats, countIn: 0, endsOn: bar }),
    [run, tempo, beats, bar],
  );
  const { playing, beat, start, stop } = usePlayback({
    what: 'metronome',
    run,
    schedule,
    bar,
    loop: true,
    strung: strungOf(model),
    backing: NONE,
    groups: GROUPS,
    levels: CLICKS,
    onStep: () => undefined,
    onRound: () => undefined,
    onPass,
  });
  return { playing, beat, start: () => void start(0), stop, on: playing === 'soon' || playing === 'yes' };
}
