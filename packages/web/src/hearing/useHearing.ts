import {
  type AskedStep,
  type HeardNote,
  type HeardRound,
  type NoteVerdict,
  type RoundSummary,
  summaryOf,
  verdictsOf,
} from '@crow-ladder/core/listening';
import { type Run, type Schedule } from '@crow-ladder/core/run';
import { type Strung } from '@crow-ladder/core/sound';
import { useCallback, useEffect, useRef, useState } from 'react';
import { audioNow } from '../sound/audio.ts';
import { type Pass } from '../sound/playback.ts';
import { levels } from './levels.ts';
import { follow, type Following, type Listening, listenTo, listenToStandIn } from './listening.ts';
import { type Deaf, type Microphone, openMicrophone, type Source } from './source.ts';

/** How far beyond the notes that are asked for a wrong one is looked for, in half steps. */
const AROUND = 13;
const rangeOf = (pitches: readonly number[]) => ({
  low: Math.min(...pitches) - AROUND,
  high: Math.max(...pitches) + AROUND,
});

/** What was heard of a pass so far. */
export interface HeardPass {
  /** Of each note that is due, by its step in the run. */
  readonly verdicts: ReadonlyMap<number, NoteVerdict>;
  /** All of it is due, and this is what is said of it; null before. */
  readonly summary: RoundSummary | null;
}

/** How listening stands. */
export type HearingState = 'off' | 'opening' | 'ready' | 'listening' | Deaf;

interface Asked {
  readonly run: Run;
  /** From which step on; earlier ones are not played. */
  readonly from: number;
  /** Of each step, when it is asked for; in seconds from where listening began. */
  readonly notes: readonly AskedStep[];
  over: boolean;
}

interface Hearing {
  readonly strung: Strung;
  /** What the device adds, in seconds; null where it was not measured. */
  readonly delay: number | null;
  /** What of it the page itself sounds, which a loudspeaker may give back. */
  readonly sounds: { readonly notes: boolean; readonly click: boolean };
  readonly onHeard: (heard: HeardPass) => void;
}

/** Listens while a run is played: what was heard is told pass by pass. */
export function useHearing(it: Hearing) {
  const [source, setSource] = useState<Source | null>(null);
  const [state, setState] = useState<HearingState>('off');
  const [loud] = useState(levels);
  const [label, setLabel] = useState('');
  const latest = useRef(it);
  useEffect(() => {
    latest.current = it;
  });
  const microphone = useRef<Microphone | null>(null);
  const listening = useRef<Listening | null>(null);
  const followed = useRef<Following | null>(null);
  const asked = useRef(new Map<number, Asked>());

  const stop = useCallback((): void => {
    listening.current?.stop();
    listening.current = null;
    followed.current?.stop();
    followed.current = null;
    asked.current.clear();
    loud.tell(null);
    setState((now) => (now === 'listening' ? 'ready' : now));
  }, [loud]);
  const close = useCallback((): void => {
    stop();
    microphone.current?.close();
    microphone.current = null;
  }, [stop]);
  useEffect(() => close, [close]);

  /** Chooses what is listened to; null is nothing. A microphone is opened at once, so that the browser asks by then. */
  const choose = useCallback(
    async (to: Source | null): Promise<void> => {
      close();
      setSource(to);
      setLabel('');
      if (!to) return setState('off');
      if (to.kind === 'standIn') return setState('ready');
      setState('opening');
      const opened = await openMicrophone(to.device, () => {
        close();
        setState('gone');
      });
      if (typeof opened === 'string') return setState(opened);
      microphone.current = opened;
      setLabel(opened.label);
      setState('ready');
    },
    [close],
  );

  const onRounds = (rounds: readonly HeardRound[]): void => {
    for (const round of rounds) {
      const of = asked.current.get(round.id);
      if (!of || of.over) continue;
      const verdicts = verdictsOf(of.notes, round, 'click', latest.current.delay);
      of.over = round.due === of.notes.length;
      latest.current.onHeard({
        verdicts: new Map(verdicts.map((v, i) => [i + of.from, v])),
        summary: of.over ? summaryOf(of.run.slice(of.from), verdicts, round.extra.length) : null,
      });
    }
  };

  /** The audio that is listened with, nothing else being listened to any more; null where there is nothing to listen to. */
  const awake = useCallback(async (): Promise<AudioContext | null> => {
    stop();
    if (!source || (source.kind === 'microphone' && !microphone.current)) return null;
    const { ctx } = audioNow();
    await ctx.resume();
    return ctx;
  }, [source, stop]);

  /** Begins to listen, before a run is played. */
  const begin = useCallback(
    async (run: Run, schedule: Schedule): Promise<void> => {
      const ctx = await awake();
      if (!source || !ctx) return;
      const range = rangeOf(run.map(({ spot }) => spot.midi));
      const told = { onRounds, onLevel: loud.tell };
      listening.current =
        source.kind === 'microphone'
          ? await listenTo(ctx, microphone.current!, source.channel, range, told)
          : await listenToStandIn(
              ctx,
              source,
              latest.current.strung,
              range,
              { pass: 0, run, notes: schedule.notes, end: schedule.end },
              told,
            );
      setState('listening');
    },
    [source, loud, awake],
  );

  /** Follows notes as they come, whenever that is; null where nothing is listened to. */
  const followNotes = useCallback(
    async (
      pitches: readonly number[],
      onNotes: (notes: readonly HeardNote[]) => void,
    ): Promise<Following | null> => {
      const ctx = await awake();
      if (!source || !ctx) return null;
      const by =
        source.kind === 'microphone' ? { microphone: microphone.current!, channel: source.channel } : null;
      followed.current = await follow(ctx, by, rangeOf(pitches), onNotes, loud.tell);
      setState('listening');
      return followed.current;
    },
    [source, loud, awake],
  );

  /** A pass of a run will be heard, or goes on in other times. */
  const onPass = useCallback((run: Run, { pass, origin, schedule, from }: Pass): void => {
    const now = listening.current;
    if (!now) return;
    const { base } = now;
    const notes = schedule.notes.map(({ step, at, until }): AskedStep => {
      const { spot, arrive } = run[step]!;
      return { midi: spot.midi, at: origin + at - base, length: until - at, arrive };
    });
    const going = asked.current.get(pass);
    const first = going?.from ?? from;
    // What was asked for in other times was asked for then.
    const before = going && going.notes.length === notes.length - first ? going.notes : [];
    const these = notes.slice(first).map((note, i) => (i + first < from ? (before[i] ?? note) : note));
    asked.current.set(pass, { run, from: first, notes: these, over: false });
    for (const old of asked.current.keys()) if (old < pass - 2) asked.current.delete(old);
    const { sounds } = latest.current;
    const own = [...(sounds.click ? schedule.clicks : []), ...(sounds.notes ? schedule.notes : [])];
    now.ask({ id: pass, notes: these, to: 'click', own: own.map(({ at }) => origin + at - base) });
    now.play({ pass, run, notes: schedule.notes, end: schedule.end }, origin);
  }, []);

  return { source, state, loud, label, choose, begin, onPass, followNotes, stop };
}
export type HearingNow = ReturnType<typeof useHearing>;
