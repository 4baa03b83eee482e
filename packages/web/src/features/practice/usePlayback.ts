import { type Run, type Schedule, type VoiceName } from '@crow-ladder/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import { type Heard, type Levels, playback, type Playback } from '../../sound/playback.ts';
import { stringsFor } from '../../sound/strings.ts';

interface Playable {
  readonly run: Run;
  readonly schedule: Schedule;
  readonly loop: boolean;
  readonly voice: VoiceName;
  readonly levels: Levels;
  readonly onStep: (step: number) => void;
}
export type Playing = 'no' | 'soon' | 'yes' | 'failed';

/** The audio of this page, made when something is played first: a browser lets it sound after a click or a key alone. */
let audio: { readonly ctx: AudioContext; readonly strings: ReturnType<typeof stringsFor> } | null = null;
function audioNow() {
  if (!audio) {
    const ctx = new AudioContext();
    audio = { ctx, strings: stringsFor(ctx) };
  }
  return audio;
}

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
  const start = useCallback(async (): Promise<void> => {
    const what = latest.current;
    if (!what) return;
    stop();
    const mine = asked.current;
    setPlaying('soon');
    try {
      const { ctx, strings } = audioNow();
      await ctx.resume();
      const pitches = what.run.map((s) => s.spot.midi);
      const sounds = await strings(pitches, what.voice);
      const current = latest.current;
      if (mine !== asked.current || !current || current.run !== what.run) return;
      now.current = playback(ctx, { ...current, strings: sounds }, current.levels, stop);
      setPlaying('yes');
    } catch (error) {
      console.error(error);
      setPlaying('failed');
    }
  }, [stop]);

  // What is heard is shown as it is drawn; another drill begins anew at a word.
  const run = it?.run;
  useEffect(() => {
    if (playing !== 'yes') return;
    let frame = 0;
    let shown: Heard = null;
    const look = (): void => {
      const heard = now.current?.heard() ?? null;
      const same = JSON.stringify(heard) === JSON.stringify(shown);
      if (!same && heard) {
        if ('step' in heard) latest.current?.onStep(heard.step);
        setBeat('beat' in heard ? heard.beat : null);
      }
      shown = heard;
      frame = requestAnimationFrame(look);
    };
    frame = requestAnimationFrame(look);
    return () => cancelAnimationFrame(frame);
  }, [playing]);
  useEffect(() => stop, [run, stop]);
  const { schedule, loop, levels } = it ?? {};
  useEffect(() => {
    if (now.current && latest.current && schedule) {
      const { ctx, strings } = audioNow();
      const { run: all, voice } = latest.current;
      const playingNow = now.current;
      void strings(
        all.map((s) => s.spot.midi),
        voice,
      ).then((sounds) => {
        if (now.current === playingNow && ctx.state === 'running')
          playingNow.retime({ run: all, schedule, strings: sounds, loop: loop ?? false });
      });
    }
  }, [schedule, loop]);
  useEffect(() => {
    if (levels) now.current?.setLevels(levels);
  }, [levels]);
  return { playing, beat, start, stop };
}
