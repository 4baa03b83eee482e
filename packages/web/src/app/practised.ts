import {
  type KeptRound,
  type Practised,
  ROUND_LIMITS,
  type RoundDraft,
  type RoundQuery,
} from '@crow-ladder/contract';
import { nanoid } from '@reduxjs/toolkit';
import { skipToken } from '@reduxjs/toolkit/query';
import { useCallback, useMemo } from 'react';
import { useClock } from '../ports/clock.ts';
import { server } from './api.ts';
import { useDay } from './recalled.ts';
import { post } from './outbox.ts';
import { withRounds } from './sending.ts';
import { useApp, useSend } from './state.ts';

/** What the log of practice holds of something, with what still waits to be sent; none until it was read. */
export function usePractised(asked: RoundQuery | null): Practised | undefined {
  // That it is on its way draws nothing.
  const { currentData } = server.usePractisedQuery(asked ?? skipToken, {
    selectFromResult: ({ currentData: read }) => ({ currentData: read }),
  });
  const entries = useApp((s) => s.outbox.entries);
  return useMemo(() => {
    if (!currentData || !asked || !entries.length) return currentData;
    const isIt = (r: KeptRound): boolean =>
      r.drill === asked.drill && r.shape === asked.shape && r.perBeat === asked.perBeat;
    const played = entries.flatMap(({ what }) =>
      what.kind === 'round' && isIt(what.round) ? [what.round] : [],
    );
    const out = new Set(entries.flatMap(({ what }) => (what.kind === 'roundOut' ? [what.id] : [])));
    const log = withRounds(currentData, played);
    return { ...log, rounds: log.rounds.filter(({ id }) => !out.has(id)) };
  }, [currentData, asked, entries]);
}

/** Puts a round into the log of practice, and takes one out. */
export function useRounds(): {
  /** Gives the id that the round has there: one of its own, or the one that it had before more was said of it. */
  readonly keep: (round: RoundDraft, is?: string) => string;
  readonly keepAll: (rounds: readonly KeptRound[]) => void;
  readonly note: (id: string, note: string) => void;
  readonly takeOut: (id: string) => void;
} {
  const send = useSend();
  const clock = useClock();
  const day = useDay();
  const keep = useCallback(
    (draft: RoundDraft, is?: string) => {
      const at = new Date(clock.now()).toISOString();
      const ms = Math.min(Math.round(draft.ms), ROUND_LIMITS.ms);
      const round = { ...draft, ms, id: is ?? nanoid(), at, day };
      void send(post({ kind: 'round', round }, round.id));
      return round.id;
    },
    [send, clock, day],
  );
  const keepAll = useCallback(
    (rounds: readonly KeptRound[]) => {
      for (let i = 0; i < rounds.length; i += ROUND_LIMITS.atATime)
        void send(post({ kind: 'rounds', rounds: rounds.slice(i, i + ROUND_LIMITS.atATime) }));
    },
    [send],
  );
  const note = useCallback(
    (id: string, text: string) => void send(post({ kind: 'roundNote', id, note: text }, `note:${id}`)),
    [send],
  );
  const takeOut = useCallback((id: string) => void send(post({ kind: 'roundOut', id }, `out:${id}`)), [send]);
  return { keep, keepAll, note, takeOut };
}
