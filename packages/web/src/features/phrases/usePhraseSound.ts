import { type PhraseWay } from '@crow-ladder/core/phrases';
import { QUARTER, type Run, scheduleOf, SWING } from '@crow-ladder/core/run';
import { useMemo } from 'react';
import { type HearingNow } from '../../hearing/useHearing.ts';
import { type Model } from '../../model/model.ts';
import { usePlayback } from '../../sound/usePlayback.ts';
import { strungOf } from '../../sound/voiceOf.ts';

const LEVELS = { notes: 0.8, click: 0, chords: 0 } as const;
/** Who is heard plays it himself, to the click. */
const TO_THE_CLICK = { notes: 0, click: 0.8, chords: 0 } as const;
const GROUPS = { size: 1, from: 0 } as const;
const NO_BACKING: readonly never[] = [];

interface Heard {
  readonly model: Model;
  /** What is heard, and what is heard after it; null where there is nothing to hear it beside. */
  readonly first: PhraseWay;
  readonly then: PhraseWay | null;
  readonly beats: number;
  readonly tempo: number;
  /** What listens to it: begins before it is played, is told its pass, and ends with it; null where nothing does. */
  readonly listens: Pick<HearingNow, 'begin' | 'onPass' | 'stop'> | null;
  /** Which note of which is heard. */
  readonly onStep: (step: number, isThen: boolean) => void;
}

/** Both in one run, the second one from the beginning of a bar on. */
function joined({ run, ticks }: PhraseWay, then: PhraseWay | null, beats: number): Run {
  if (!then) return run;
  const bar = beats * QUARTER;
  const from = Math.ceil(ticks / bar) * bar;
  return [...run, ...then.run.map((step) => ({ ...step, start: step.start + from }))];
}

/** Plays a phrase: as it lies in one place, or in one after the other. */
export function usePhraseSound({ model, first, then, beats, tempo, listens, onStep }: Heard) {
  const run = useMemo(() => joined(first, then, beats), [first, then, beats]);
  const schedule = useMemo(
    () =>
      scheduleOf(run, {
        tempo,
        swing: SWING.least,
        beatsPerBar: beats,
        countIn: listens ? 1 : 0,
        endsOn: QUARTER,
      }),
    [run, tempo, beats, listens],
  );
  const many = first.run.length;
  const { playing, start, stop } = usePlayback(
    run.length
      ? {
          what: 'phrase',
          run,
          schedule,
          bar: beats * QUARTER,
          loop: false,
          strung: strungOf(model),
          backing: NO_BACKING,
          groups: GROUPS,
          levels: listens ? TO_THE_CLICK : LEVELS,
          onStep: (step) => (step < many ? onStep(step, false) : onStep(step - many, true)),
          onRound: () => undefined,
          onPass: (pass) => listens?.onPass(run, pass),
        }
      : null,
  );
  const on = playing === 'soon' || playing === 'yes';
  const toggle = (from: number): void => {
    if (on) {
      stop();
      return listens?.stop();
    }
    if (!listens) return void start(from);
    void listens.begin(run, schedule, from).then(() => start(from));
  };
  return {
    on,
    playing,
    /** Plays what is moved, or, where nothing is, the phrase from a step on; or stops. */
    play: run.length ? (step: number): void => toggle(then ? many : step) : null,
    /** Plays the one and then the other; or stops. */
    both: then?.run.length ? (): void => toggle(0) : null,
  };
}
