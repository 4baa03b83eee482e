import { type HeardNote, type PitchRange } from '@crow-ladder/core/listening';
import { useCallback, useEffect, useRef, useState } from 'react';
import { audioNow } from '../sound/audio.ts';
import { delayOf, keepDelay } from './delays.ts';
import { follow, type Following } from './listening.ts';
import { type Deaf, type Heeded, type Microphone, openMicrophone, type Source } from './source.ts';
import { type Level } from '../workers/listening.ts';
import { told } from './told.ts';

/** How far beyond the notes that are asked for a wrong one is looked for, in half steps. */
const AROUND = 13;
export const rangeOf = (pitches: readonly number[]): PitchRange => ({
  low: Math.min(...pitches) - AROUND,
  high: Math.max(...pitches) + AROUND,
});

/** How listening stands. */
export type HearingState = 'off' | 'opening' | 'ready' | 'listening' | Deaf;

/** What the page listens to, one thing at a time; whatever is asked for later ends what was asked for before. */
export function useEars() {
  const [source, setSource] = useState<Source | null>(null);
  const [state, setState] = useState<HearingState>('off');
  const [loud] = useState(told<Level>);
  const [label, setLabel] = useState('');
  const [delay, setDelay] = useState<number | null>(null);
  const microphone = useRef<Microphone | null>(null);
  const ending = useRef<() => void>(() => undefined);
  /** Counts what was asked for, and what was chosen: what comes after something else was is not listened to. */
  const turn = useRef(0);
  const choice = useRef(0);

  const stop = useCallback((): void => {
    turn.current++;
    ending.current();
    ending.current = () => undefined;
    loud.tell(null);
    setState((now) => (now === 'listening' ? 'ready' : now));
  }, [loud]);
  const close = useCallback((): void => {
    choice.current++;
    stop();
    microphone.current?.close();
    microphone.current = null;
  }, [stop]);
  useEffect(() => close, [close]);

  /** Chooses what is listened to; null is nothing. A microphone is opened at once, so that the browser asks by then. */
  const choose = useCallback(
    async (to: Source | null): Promise<void> => {
      close();
      const mine = choice.current;
      setSource(to);
      setLabel('');
      setDelay(null);
      if (!to) return setState('off');
      if (to.kind === 'standIn') {
        // There is no device between.
        setDelay(0);
        return setState('ready');
      }
      setState('opening');
      const opened = await openMicrophone(to.device, () => {
        close();
        setState('gone');
      });
      if (choice.current !== mine) return typeof opened === 'string' ? undefined : opened.close();
      if (typeof opened === 'string') return setState(opened);
      microphone.current = opened;
      setLabel(opened.label);
      setDelay(delayOf(opened.label));
      setState('ready');
    },
    [close],
  );

  /** Listens by what is opened; null where there is nothing to listen to, it fails, or something else was asked for meanwhile. */
  const listenBy = useCallback(
    async <T extends { readonly stop: () => void }>(
      open: (ctx: AudioContext, to: Heeded) => Promise<T>,
    ): Promise<T | null> => {
      stop();
      const mine = turn.current;
      const to: Heeded | null =
        source?.kind !== 'microphone'
          ? source
          : microphone.current && {
              kind: 'microphone',
              microphone: microphone.current,
              channel: source.channel,
            };
      if (!to) return null;
      try {
        const { ctx } = audioNow();
        await ctx.resume();
        const opened = await open(ctx, to);
        if (turn.current !== mine) {
          opened.stop();
          return null;
        }
        ending.current = opened.stop;
        setState('listening');
        return opened;
      } catch (error) {
        console.error(error);
        if (turn.current === mine) setState('failed');
        return null;
      }
    },
    [source, stop],
  );

  /** Follows notes as they come, whenever that is; null where nothing is listened to. */
  const followNotes = useCallback(
    (range: PitchRange, onNotes: (notes: readonly HeardNote[]) => void): Promise<Following | null> =>
      listenBy((ctx, to) => follow(ctx, to, range, onNotes, loud.tell)),
    [listenBy, loud],
  );

  /** Which of the things that were asked for is listened to now: another one after each. */
  const turnNow = useCallback((): number => turn.current, []);
  /** Says what the input adds, in ms; null is not known. */
  const put = useCallback(
    (ms: number | null): void => {
      keepDelay(label, ms);
      setDelay(ms);
    },
    [label],
  );
  /** Whether there is something that can be listened to now. */
  const hears = source !== null && (state === 'ready' || state === 'listening');
  return {
    source,
    state,
    hears,
    loud,
    label,
    delay,
    choose,
    listenBy,
    followNotes,
    setDelay: put,
    turnNow,
    stop,
  };
}
export type Ears = ReturnType<typeof useEars>;
