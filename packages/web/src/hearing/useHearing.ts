import {
  type AskedStep,
  type ExtraNote,
  extrasOf,
  type HeardRound,
  type NoteVerdict,
  type RoundSummary,
  summaryOf,
  verdictsOf,
} from '@crow-ladder/core/listening';
import { type Run, type Schedule } from '@crow-ladder/core/run';
import { type Strung } from '@crow-ladder/core/sound';
import { useCallback, useEffect, useRef } from 'react';
import { type Pass } from '../sound/playback.ts';
import { type Listening, listenTo } from './listening.ts';
import { rangeOf, useEars } from './useEars.ts';

/** What was heard of a pass so far. */
export interface HeardPass {
  /** Of each note that was heard, or is due, by its step in the run. */
  readonly verdicts: ReadonlyMap<number, NoteVerdict>;
  readonly extra: readonly ExtraNote[];
  /** All of it is due, and this is what is said of it; null before. */
  readonly summary: RoundSummary | null;
}

interface Asked {
  readonly run: Run;
  /** From which step on; earlier ones are not played. */
  readonly from: number;
  /** Of each step, when it is asked for; in seconds from where listening began. */
  readonly notes: readonly AskedStep[];
  over: boolean;
  /** What was said of it last, in short. */
  said: string;
}
/** What a player sees of verdicts, in short: the same is not told twice. */
const inShort = (verdicts: HeardPass['verdicts'], extra: HeardPass['extra']): string =>
  JSON.stringify([
    [...verdicts].map(([at, it]) => [
      at,
      it.is,
      ...(it.is === 'missed' ? [] : [it.midi, it.timing, it.near]),
    ]),
    extra,
  ]);

interface Hearing {
  readonly strung: Strung;
  /** What of it the page itself sounds, which a loudspeaker may give back. */
  readonly sounds: { readonly notes: boolean; readonly click: boolean };
  readonly onHeard: (heard: HeardPass) => void;
}

/** What was heard of the notes of a run from one of them on, by their steps in all of it. */
export function passFrom(first: number, { verdicts, extra, summary }: HeardPass): HeardPass {
  const on = <T extends { readonly step: number }>(it: T): T => ({ ...it, step: it.step + first });
  return {
    verdicts: new Map([...verdicts].map(([step, it]) => [step + first, it])),
    extra: extra.map((it) => ({ ...it, after: it.after + first })),
    summary: summary && {
      ...summary,
      lateMoves: summary.lateMoves.map(on),
      offBends: summary.offBends.map(on),
    },
  };
}

/** Listens while a run is played: what was heard is told pass by pass. */
export function useHearing(it: Hearing) {
  const ears = useEars();
  const { listenBy, loud, delay, stop: end } = ears;
  const latest = useRef({ ...it, delay });
  useEffect(() => {
    latest.current = { ...it, delay };
  });
  const listening = useRef<Listening | null>(null);
  const asked = useRef(new Map<number, Asked>());
  const stop = useCallback((): void => {
    listening.current = null;
    asked.current.clear();
    end();
  }, [end]);

  const onRounds = (rounds: readonly HeardRound[]): void => {
    for (const round of rounds) {
      const of = asked.current.get(round.id);
      if (!of || of.over) continue;
      const { delay: known, onHeard } = latest.current;
      const all = verdictsOf(of.notes, round, 'click', known === null ? null : known / 1000);
      const verdicts = new Map(all.flatMap((it, i) => (it ? [[i, it] as const] : [])));
      const extra = extrasOf(of.notes, round);
      of.over = round.due === of.notes.length;
      const said = inShort(verdicts, extra);
      if (said === of.said && !of.over) continue;
      of.said = said;
      const summary = of.over
        ? summaryOf(of.run.slice(of.from), [...verdicts.values()], round.extra.length)
        : null;
      onHeard(passFrom(of.from, { verdicts, extra, summary }));
    }
  };

  /** Begins to listen, before a run is played from one of its notes on. */
  const begin = useCallback(
    async (run: Run, schedule: Schedule, at: number): Promise<void> => {
      stop();
      const first = { pass: 0, run, notes: schedule.notes.slice(at), end: schedule.end };
      listening.current = await listenBy((ctx, to) =>
        listenTo(ctx, to, latest.current.strung, rangeOf(run.map(({ spot }) => spot.midi)), first, {
          onRounds,
          onLevel: loud.tell,
        }),
      );
    },
    [listenBy, loud, stop],
  );

  /** A pass of a run will be heard, or goes on in other times. */
  const onPass = useCallback((run: Run, { pass, origin, schedule, from: comes }: Pass): void => {
    const now = listening.current;
    if (!now) return;
    const { base } = now;
    const notes = schedule.notes.map(({ step, at, until }): AskedStep => {
      const { spot, arrive, bend } = run[step]!;
      return { midi: spot.midi, at: origin + at - base, length: until - at, arrive, bend };
    });
    const going = asked.current.get(pass);
    const first = going?.from ?? comes;
    // What was asked for in other times was asked for then.
    const before = going && going.notes.length === notes.length - first ? going.notes : [];
    const these = notes.slice(first).map((note, i) => (i + first < comes ? (before[i] ?? note) : note));
    asked.current.set(pass, { run, from: first, notes: these, over: false, said: '' });
    for (const old of asked.current.keys()) if (old < pass - 2) asked.current.delete(old);
    const { sounds } = latest.current;
    const own = [...(sounds.click ? schedule.clicks : []), ...(sounds.notes ? schedule.notes : [])];
    now.ask({ id: pass, notes: these, to: 'click', own: own.map(({ at }) => origin + at - base) });
    now.play({ pass, run, notes: schedule.notes.slice(first), end: schedule.end }, origin);
  }, []);

  return { ...ears, begin, onPass, stop };
}
export type HearingNow = ReturnType<typeof useHearing>;
