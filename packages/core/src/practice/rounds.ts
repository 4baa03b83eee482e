import { TEMPO } from '../run/schedule.ts';

/** A round as the player judged it. */
export interface Round {
  /** When it was played, as ISO text. */
  readonly at: string;
  /** Quarter notes a minute. */
  readonly tempo: number;
  readonly clean: boolean;
}

const day = (round: Round): string => round.at.slice(0, 10);

/**
 * The fastest tempo that was ever clean; null before the first.
 *
 * @example fastestClean([]) // null
 */
export const fastestClean = (rounds: readonly Round[]): number | null =>
  rounds.reduce<number | null>((most, r) => (r.clean ? Math.max(most ?? 0, r.tempo) : most), null);

/**
 * Where the next visit begins: a step below the fastest clean tempo of the last day that had one, so that it begins with what is sure.
 * Null before the first clean round.
 *
 * @example comfortable([]) // null
 */
export function comfortable(rounds: readonly Round[]): number | null {
  const clean = rounds.filter((r) => r.clean);
  const last = clean.map(day).sort().at(-1);
  const fastest = fastestClean(clean.filter((r) => day(r) === last));
  return fastest === null ? null : Math.max(TEMPO.least, fastest - TEMPO.step);
}
