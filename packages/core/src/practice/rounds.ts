import { TEMPO } from '../run/schedule.ts';

/** A round as the player judged it. */
export interface Round {
  /** The day that it was played on, "2026-06-01". */
  readonly day: string;
  /** Quarter notes a minute; null where it is not known. */
  readonly tempo: number | null;
  /** Null where nothing was said of it. */
  readonly clean: boolean | null;
}

/**
 * The fastest tempo that was ever clean; null before the first.
 *
 * @example fastestClean([]) // null
 */
export const fastestClean = (rounds: readonly Round[]): number | null =>
  rounds.reduce<number | null>(
    (most, { clean, tempo }) => (clean && tempo !== null ? Math.max(most ?? 0, tempo) : most),
    null,
  );

/**
 * Where the next visit begins: a step below the fastest clean tempo of the last day that had one, so that it begins with what is sure.
 * Null before the first clean round.
 *
 * @example comfortable([]) // null
 */
export function comfortable(rounds: readonly Round[]): number | null {
  const clean = rounds.filter((r) => r.clean && r.tempo !== null);
  const last = clean
    .map(({ day }) => day)
    .sort()
    .at(-1);
  const fastest = fastestClean(clean.filter(({ day }) => day === last));
  return fastest === null ? null : Math.max(TEMPO.least, fastest - TEMPO.step);
}

/**
 * The step a week, in quarter notes a minute, that leads from a tempo to another one in some days: rounded up, 0 where it is there
 * already. Null where no day is left for it.
 *
 * @example stepAWeek({ from: 90, to: 120, days: 28 }) // 8
 */
export function stepAWeek({
  from,
  to,
  days,
}: {
  readonly from: number;
  readonly to: number;
  readonly days: number;
}): number | null {
  if (to <= from) return 0;
  return days > 0 ? Math.ceil(((to - from) * 7) / days) : null;
}
