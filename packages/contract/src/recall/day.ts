const DAY_MS = 86_400_000;
/** A day begins at four in the morning. */
const BEGINS_MS = 4 * 3_600_000;

/** A day as a number of days, and back. */
export const dayNumber = (day: string): number => Math.round(Date.parse(`${day}T00:00:00Z`) / DAY_MS);
export const dayNamed = (day: number): string => new Date(day * DAY_MS).toISOString().slice(0, 10);

/**
 * The day that a moment, in ms since the beginning of 1970, counts for where the clock is `ahead` of UTC by so many minutes: it
 * begins at four in the morning.
 *
 * @example dayAt(Date.UTC(2026, 5, 2, 1), 120) // "2026-06-01"
 */
export const dayAt = (ms: number, ahead: number): string =>
  new Date(ms + ahead * 60_000 - BEGINS_MS).toISOString().slice(0, 10);

/** The Monday of the week that a day lies in. */
export const weekOf = (day: string): string => dayNamed(dayNumber(day) - ((dayNumber(day) + 3) % 7));

/** A day some days after another one. */
export const dayAfter = (day: string, by: number): string => dayNamed(dayNumber(day) + by);
/** How many days lie between two days; less than 0 where the second comes first. */
export const daysBetween = (from: string, to: string): number => dayNumber(to) - dayNumber(from);
