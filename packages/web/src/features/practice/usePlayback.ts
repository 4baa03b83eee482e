import { type Run, type Schedule } from '@crow-ladder/core/run';
import { useCallback, useEffect, useRef, useState } from 'react';
import { audioNow } from '../../sound/audio.ts';
import { ticking } from '../../sound/ticks.ts';
import { type Groups, type Levels, playback, type Playback } from '../../sound/playback.ts';
import { soundsOf, type Strung } from '../../sound/strings.ts';

interface Playable {
  readonly run: Run;
  readonly schedule: Schedule;
  readonly loop: boolean;
  readonly strung: Strung;
  readonly groups: Groups;
  readonly levels: Levels;
  readonly onStep: (step: number) => void;
}
export type Playing = 'no' | 'soon' | 'yes' | 'failed';

/** Plays a run: another run stops it, other times and levels are taken over while it plays, and leaving the page ends all sound. */
export function usePlayback(it: Playable | null) {
  const [playing, setPlaying] = useState<Playing>('no');
  const [beat, setBeat] = useState<number | null>(null);
  const latest = useRef(it);
  useEffect(() => {
    latest.current = it;
  });
  const now = useRef<Playback | null>(null);
  const asked = useRef(0);

  const stop = useCallback((): void => {
    asked.current++;
    now.current?.stop();
    now.current = null;
    setPlaying('no');
    setBeat(null);
  }, []);
  /** Begins to play at a step. */
  const start = useCallback(
    async (from: number): Promise<void> => {
      const what = latest.current;
      if (!what) return;
      stop();
      const mine = asked.current;
      setPlaying('soon');
      try {
        const { ctx, strings } = audioNow();
        await ctx.resume();
        const sounds = await strings(soundsOf(what.run, what.strung));
        const current = latest.current;
        if (mine !== asked.current || !current || current.run !== what.run) return;
        now.current = playback(ctx, { ...current, sounds }, current.levels, from, ticking, stop);
        setPlaying('yes');
      } catch (error) {
        console.error(error);
        setPlaying('failed');
      }
    },
    [stop],
  );

  // What is heard is shown as it is drawn.
  useEffect(() => {
    if (playing !== 'yes') return;
    let frame = 0;
    let step: number | null = null;
    const look = (): void => {
      const heard = now.current?.heard();
      if (heard) {
        if (heard.step !== null && heard.step !== step) latest.current?.onStep(heard.step);
        step = heard.step;
        setBeat(heard.beat);
      }
      frame = requestAnimationFrame(look);
    };
    frame = requestAnimationFrame(look);
    return () => cancelAnimationFrame(frame);
  }, [playing]);
  // Another drill begins anew at a word.
  const run = it?.run;
  useEffect(() => stop, [run, stop]);
  const { schedule, loop, levels, groups } = it ?? {};
  useEffect(() => {
    const playingNow = now.current;
    if (!playingNow || !latest.current || !schedule) return;
    const { ctx, strings } = audioNow();
    const { run: all, strung, groups: by } = latest.current;
    void strings(soundsOf(all, strung)).then((sounds) => {
      if (now.current === playingNow && ctx.state === 'running')
        playingNow.retime({ run: all, schedule, sounds, groups: by, loop: loop ?? false });
    });
  }, [schedule, loop, groups]);
  useEffect(() => {
    if (levels) now.current?.setLevels(levels);
  }, [levels]);
  return { playing, beat, start, stop };
}
