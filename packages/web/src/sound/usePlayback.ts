import { type Run, type Schedule } from '@crow-ladder/core/run';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { useCallback, useEffect, useRef, useState } from 'react';
import { audioNow } from './audio.ts';
import { ticking } from './ticks.ts';
import {
  type ChordSound,
  type Groups,
  type Heard,
  type Levels,
  type Pass,
  playback,
  type Playback,
} from './playback.ts';
import { soundsOf, type Strung } from '@crow-ladder/core/sound';
import { painted } from '../ui/later.ts';

/** Chords that sound under it: their times in seconds of the schedule, and their pitches in MIDI numbers. */
export type Backing = readonly {
  readonly at: number;
  readonly until: number;
  readonly pitches: readonly number[];
}[];
/** The chords with their sounds. */
const soundsUnder = (backing: Backing): Promise<readonly ChordSound[]> => {
  const { chord } = audioNow();
  return Promise.all(
    backing.map(async ({ pitches, ...when }) => ({ ...when, buffer: await chord(pitches) })),
  );
};

interface Playable {
  /** What is drilled, in a word: the same in another place goes on, something else stops. */
  readonly what: string;
  readonly run: Run;
  readonly schedule: Schedule;
  /** Ticks of a bar. */
  readonly bar: number;
  readonly loop: boolean;
  readonly strung: Strung;
  readonly backing: Backing;
  readonly groups: Groups;
  readonly levels: Levels;
  readonly onStep: (step: number) => void;
  /** The whole of it was heard. */
  readonly onRound: () => void;
  /** A pass will begin, or goes on in other times; some seconds before it is heard. */
  readonly onPass?: (pass: Pass) => void;
}
export type Playing = 'no' | 'soon' | 'yes' | 'failed';

/** How soon is looked again at what is heard, where the clock of the sound lags behind, and where nothing will be for long, in ms. */
const LOOK_MS = { least: 4, most: 100 };

/** What is heard of a run: the same notes in the same order, whichever drawing of the page they were computed for. */
const notesOf = weakMapMemoize((run: Run): string =>
  run
    .map(({ spot: { string, fret, midi }, arrive, start }) => [string, fret, midi, arrive, start].join())
    .join(' '),
);

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
  /** Where it begins once its sounds are there, in ticks, and whether that is counted in. */
  const soon = useRef<{ readonly at: number; readonly counted: boolean } | null>(null);
  /** How many rounds were told. */
  const told = useRef(0);

  /** What is heard now; a round that is over is told. */
  const hear = useCallback((): Heard | undefined => {
    const heard = now.current?.heard();
    if (heard && heard.rounds > told.current) {
      told.current = heard.rounds;
      latest.current?.onRound();
    }
    return heard;
  }, []);

  const stop = useCallback((): void => {
    asked.current++;
    // At its very end the last round was heard.
    hear();
    now.current?.stop();
    now.current = null;
    soon.current = null;
    setPlaying('no');
    setBeat(null);
  }, [hear]);
  /** Begins to play at a step, after the count-in if there is one. */
  const start = useCallback(
    async (from: number, counted = true): Promise<void> => {
      const what = latest.current;
      if (!what) return;
      stop();
      const mine = asked.current;
      soon.current = { at: what.run[from]?.start ?? 0, counted };
      setPlaying('soon');
      try {
        const { ctx, strings } = audioNow();
        await ctx.resume();
        const [sounds, chords] = await Promise.all([
          strings(soundsOf(what.run, what.strung)),
          soundsUnder(what.backing),
        ]);
        // That it begins is seen first: what is handed over at once would hold that up.
        await painted();
        const current = latest.current;
        if (mine !== asked.current || !current || notesOf(current.run) !== notesOf(what.run)) return;
        soon.current = null;
        told.current = 0;
        now.current = playback(
          ctx,
          { ...current, sounds, chords },
          current.levels,
          from,
          ticking,
          stop,
          counted,
          (pass) => latest.current?.onPass?.(pass),
        );
        setPlaying('yes');
      } catch (error) {
        console.error(error);
        setPlaying('failed');
      }
    },
    [stop],
  );

  // What is heard is shown when it is heard; between two steps nothing is drawn.
  useEffect(() => {
    if (playing !== 'yes') return;
    let step: number | null = null;
    const look = (): void => {
      const heard = hear();
      if (heard) {
        if (heard.step !== null && heard.step !== step) latest.current?.onStep(heard.step);
        step = heard.step;
        setBeat(heard.beat);
      }
      const next = Math.max(LOOK_MS.least, (now.current?.untilNext() ?? 0) * 1000);
      timer = setTimeout(look, Math.min(LOOK_MS.most, next));
    };
    let timer = setTimeout(look);
    return () => clearTimeout(timer);
  }, [playing, hear]);
  // The same drill in another key or position goes on there, from the beginning of the bar; another drill begins anew at a word.
  const run = it?.run;
  const what = it?.what;
  const was = useRef({ run, what });
  useEffect(() => {
    const before = was.current;
    was.current = { run, what };
    if (run === before.run || (run && before.run && notesOf(run) === notesOf(before.run))) return;
    const step = now.current?.heard().step ?? 0;
    const sounding = now.current && { at: before.run?.[step]?.start ?? 0, counted: false };
    const going = sounding ?? soon.current;
    if (!going || !run || what !== before.what) return stop();
    const { at, counted } = going;
    const { bar } = latest.current!;
    const from = run.findIndex((s) => s.start >= at - (at % bar));
    void start(Math.max(0, from), counted);
  }, [run, what, start, stop]);
  useEffect(() => stop, [stop]);
  const { schedule, loop, levels, groups, backing } = it ?? {};
  useEffect(() => {
    const playingNow = now.current;
    if (!playingNow || !latest.current || !schedule) return;
    const { ctx, strings } = audioNow();
    const { run: all, strung, groups: by } = latest.current;
    void Promise.all([strings(soundsOf(all, strung)), soundsUnder(backing ?? [])]).then(
      ([sounds, chords]) => {
        if (now.current === playingNow && ctx.state === 'running')
          playingNow.retime({ run: all, schedule, sounds, chords, groups: by, loop: loop ?? false });
      },
    );
  }, [schedule, loop, groups, backing]);
  useEffect(() => {
    if (levels) now.current?.setLevels(levels);
  }, [levels]);
  return { playing, beat, start, stop };
}
