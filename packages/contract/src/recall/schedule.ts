import {
  type Card,
  createEmptyCard,
  fsrs,
  generatorParameters,
  type Grade as FsrsGrade,
  State,
} from 'ts-fsrs';
import { type Grade, type Remembered, type Review } from './card.ts';
import { dayNamed, dayNumber, daysBetween } from './day.ts';

/** FSRS 6 with its published default parameters; whole days, nothing by chance. */
const scheduler = fsrs(
  generatorParameters({ request_retention: 0.9, enable_short_term: false, enable_fuzz: false }),
);
/** The beginning of a day by its number, as the scheduler has time. */
const timeOf = (day: number): Date => new Date(`${dayNamed(day)}T00:00:00Z`);

/** How a card is remembered after one more answer; a day that lies before the last one counts as that one. */
export function rememberedNext(
  was: Remembered | null,
  { day, grade }: Pick<Review, 'day' | 'grade'>,
): Remembered {
  const today = Math.max(dayNumber(day), was ? dayNumber(was.last) : -Infinity);
  const card: Card = was
    ? {
        ...createEmptyCard(timeOf(dayNumber(was.last))),
        state: State.Review,
        stability: was.stability,
        difficulty: was.difficulty,
        reps: was.reviews,
        lapses: was.lapses,
        last_review: timeOf(dayNumber(was.last)),
        due: timeOf(dayNumber(was.due)),
        scheduled_days: daysBetween(was.last, was.due),
      }
    : createEmptyCard(timeOf(today));
  const { card: now } = scheduler.next(card, timeOf(today), grade as FsrsGrade);
  return {
    stability: now.stability,
    difficulty: now.difficulty,
    reviews: (was?.reviews ?? 0) + 1,
    lapses: now.lapses,
    last: dayNamed(today),
    // Tomorrow at the earliest: the steps of minutes are off.
    due: now.due.toISOString().slice(0, 10),
  };
}
/** How a card is remembered after its answers, in the order in which they were given; null before the first one. */
export const rememberedAfter = (reviews: readonly Pick<Review, 'day' | 'grade'>[]): Remembered | null =>
  reviews.reduce<Remembered | null>(rememberedNext, null);

/**
 * How likely a card is remembered on a day, from 0 to 1 (the forgetting curve of FSRS 6).
 */
export const likelyOn = ({ stability, last }: Pick<Remembered, 'stability' | 'last'>, day: string): number =>
  scheduler.forgetting_curve(Math.max(0, daysBetween(last, day)), stability);

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
