import {
  type Card,
  createEmptyCard,
  fsrs,
  generatorParameters,
  type Grade as FsrsGrade,
  State,
} from 'ts-fsrs';
import { type Grade, type Remembered, type Review } from './card.ts';

/** FSRS 6 with its published default parameters; whole days, nothing by chance. */
const scheduler = fsrs(
  generatorParameters({ request_retention: 0.9, enable_short_term: false, enable_fuzz: false }),
);
const DAY_MS = 86_400_000;
/** A day begins at four in the morning. */
const BEGINS_MS = 4 * 3_600_000;

/** The day as a number, and back. */
const numbered = (day: string): number => Math.round(Date.parse(`${day}T00:00:00Z`) / DAY_MS);
const named = (day: number): string => new Date(day * DAY_MS).toISOString().slice(0, 10);

/**
 * The day that a moment counts for where the clock is `ahead` of UTC by so many minutes: it begins at four in the morning.
 *
 * @example dayAt(Date.UTC(2026, 5, 2, 1), 120) // "2026-06-01"
 */
export const dayAt = (ms: number, ahead: number): string =>
  new Date(ms + ahead * 60_000 - BEGINS_MS).toISOString().slice(0, 10);

/** A day some days after another one. */
export const dayAfter = (day: string, by: number): string => named(numbered(day) + by);
/** How many days lie between two days; less than 0 where the second comes first. */
export const daysBetween = (from: string, to: string): number => numbered(to) - numbered(from);

/** How a card is remembered after one more answer; a day that lies before the last one counts as that one. */
export function rememberedNext(
  was: Remembered | null,
  { day, grade }: Pick<Review, 'day' | 'grade'>,
): Remembered {
  const at = (n: number): Date => new Date(n * DAY_MS);
  const today = Math.max(numbered(day), was ? numbered(was.last) : -Infinity);
  const card: Card = was
    ? {
        ...createEmptyCard(at(numbered(was.last))),
        state: State.Review,
        stability: was.stability,
        difficulty: was.difficulty,
        reps: was.reviews,
        lapses: was.lapses,
        last_review: at(numbered(was.last)),
        due: at(numbered(was.due)),
        scheduled_days: daysBetween(was.last, was.due),
      }
    : createEmptyCard(at(today));
  const { card: now } = scheduler.next(card, at(today), grade as FsrsGrade);
  return {
    stability: now.stability,
    difficulty: now.difficulty,
    reviews: (was?.reviews ?? 0) + 1,
    lapses: now.lapses,
    last: named(today),
    // Good today is due tomorrow at the earliest.
    due: named(Math.max(today + 1, numbered(now.due.toISOString().slice(0, 10)))),
  };
}
/** How a card is remembered after its answers, in the order in which they were given; null before the first one. */
export const rememberedAfter = (reviews: readonly Pick<Review, 'day' | 'grade'>[]): Remembered | null =>
  reviews.reduce<Remembered | null>(rememberedNext, null);

/** An answer that took less than this part of the usual time was known at once. */
const AT_ONCE = 0.5;
/** Answers of which the usual time is taken. */
export const USUAL_OF = 30;

/** The usual time of answers, in ms: the middle one; null where there are too few. */
export function usualTime(ms: readonly number[]): number | null {
  if (ms.length < 3) return null;
  const sorted = [...ms].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)]!;
}

/** What an answer is worth by what was done: right at the first try or after one correction, and how long it took. */
export function gradeOf(tries: 'first' | 'corrected' | 'wrong', ms: number, usual: number | null): Grade {
  if (tries === 'wrong') return 1;
  if (tries === 'corrected') return 2;
  return usual !== null && ms <= usual * AT_ONCE ? 4 : 3;
}
