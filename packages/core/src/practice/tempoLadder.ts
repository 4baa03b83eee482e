import { TEMPO } from '../run/schedule.ts';

/** A ladder of tempos: where it leads, in quarter notes a minute, by which steps, and after how many clean rounds it goes up. */
export interface TempoLadder {
  readonly to: number;
  readonly step: number;
  readonly rounds: number;
}
export const LADDER_LIMITS = { step: [1, 40], rounds: [1, 16] } as const;
export const USUAL_LADDER: TempoLadder = { to: 160, step: TEMPO.step, rounds: 2 };

/** Where a player is on a ladder. */
export interface Rung {
  readonly tempo: number;
  /** Clean rounds at this tempo so far. */
  readonly clean: number;
  /** The fastest tempo that was clean often enough; null before the first. */
  readonly best: number | null;
}

/**
 * The rung after a round, as the player judges it: after enough clean ones a step up from the tempo that was clean just now, never
 * beyond the end of the ladder. One that was not clean begins the count anew.
 *
 * @example afterRound({ to: 120, step: 5, rounds: 1 }, { tempo: 100, clean: 0, best: 0 }, true).tempo // 105
 */
export function afterRound(
  { to, step, rounds }: TempoLadder,
  { tempo, clean, best }: Rung,
  wasClean: boolean,
): Rung {
  if (!wasClean) return { tempo, clean: 0, best };
  if (clean + 1 < rounds) return { tempo, clean: clean + 1, best };
  return {
    tempo: Math.max(tempo, Math.min(to, tempo + step)),
    clean: 0,
    best: Math.max(best ?? tempo, tempo),
  };
}
