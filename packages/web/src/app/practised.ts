import { type KeptRound, type Practised, type RoundDraft, type RoundQuery } from '@crow-ladder/contract';
import { nanoid } from '@reduxjs/toolkit';
import { skipToken } from '@reduxjs/toolkit/query';
import { useCallback, useMemo } from 'react';
import { useClock } from '../ports/clock.ts';
import { server } from './api.ts';
import { post } from './outbox.ts';
import { withRounds } from './sending.ts';
import { useApp, useSend } from './state.ts';

/** What the log of practice holds of something, with what still waits to be sent; none until it was read. */
export function usePractised(asked: RoundQuery | null): Practised | undefined {
  const { currentData } = server.usePractisedQuery(asked ?? skipToken);
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
  /** Gives the id that the round has there. */
  readonly keep: (round: RoundDraft) => string;
  readonly takeOut: (id: string) => void;
} {
  const send = useSend();
  const clock = useClock();
  const keep = useCallback(
    (draft: RoundDraft) => {
      const round = { ...draft, id: nanoid(), at: new Date(clock.now()).toISOString() };
      void send(post({ kind: 'round', round }, round.id));
      return round.id;
    },
    [send, clock],
  );
  const takeOut = useCallback((id: string) => void send(post({ kind: 'roundOut', id }, `out:${id}`)), [send]);
  return { keep, takeOut };
}
