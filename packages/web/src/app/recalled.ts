import { dayAt, type Review, type KeptCard, RECALL_LIMITS } from '@crow-ladder/contract';
import { nanoid } from '@reduxjs/toolkit';
import { useCallback } from 'react';
import { useClock } from '../ports/clock.ts';
import { server } from './api.ts';
import { post } from './outbox.ts';
import { useApp, useSend } from './state.ts';

/** The day that it is where the player is; it begins at four in the morning. */
export function useDay(): string {
  const { now } = useClock();
  const at = now();
  return dayAt(at, -new Date(at).getTimezoneOffset());
}

/** What there is to recall today, as the server knows of it. */
export function useRecall() {
  const day = useDay();
  return server.useRecallQuery(day, { refetchOnMountOrArgChange: true });
}
/** Cards whose answers still wait to be sent; those that were given before a time, in ms since the beginning of 1970. */
export const useAnswered = (before = Infinity): readonly string[] => {
  const entries = useApp((s) => s.outbox.entries);
  return entries.flatMap(({ at, what }) =>
    what.kind === 'review' && at < before ? [what.review.cardId] : [],
  );
};

/** What there is of an answer beside its card and its time. */
export type GivenAnswer = Pick<Review, 'grade' | 'ms' | 'strings' | 'missed'>;

/** Keeps cards, and what is answered to them. */
export function useCards() {
  const send = useSend();
  const clock = useClock();
  const day = useDay();
  const learn = useCallback(
    (cards: readonly Omit<KeptCard, 'made' | 'rested'>[]): void => {
      const made = new Date(clock.now()).toISOString();
      for (let i = 0; i < cards.length; i += RECALL_LIMITS.atATime) {
        const some = cards.slice(i, i + RECALL_LIMITS.atATime).map((it) => ({ ...it, made, rested: false }));
        void send(post({ kind: 'cards', cards: some }));
      }
    },
    [send, clock],
  );
  /** Gives the id that the answer has. */
  const answer = useCallback(
    (cardId: string, { strings, missed, grade, ms }: GivenAnswer): string => {
      const id = nanoid();
      const at = new Date(clock.now()).toISOString();
      const review = {
        id,
        cardId,
        at,
        day,
        grade,
        ms: Math.min(Math.round(ms), RECALL_LIMITS.ms),
        strings,
        missed,
      };
      void send(post({ kind: 'review', review }, id));
      return id;
    },
    [send, clock, day],
  );
  const takeBack = useCallback(
    (id: string): void => void send(post({ kind: 'reviewOut', id }, `out:${id}`)),
    [send],
  );
  const rest = useCallback(
    (id: string, rested: boolean): void => void send(post({ kind: 'cardRests', id, rested }, `rest:${id}`)),
    [send],
  );
  const takeAway = useCallback(
    (id: string): void => void send(post({ kind: 'cardOut', id }, `card:${id}`)),
    [send],
  );
  return { learn, answer, takeBack, rest, takeAway };
}
