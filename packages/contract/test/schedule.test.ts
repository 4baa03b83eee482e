import fc from 'fast-check';
import { dayAfter, dayAt, daysBetween, type Grade, weekOf } from '../src/index.ts';
import { gradeOf, likelyOn, rememberedAfter, rememberedNext, usualTime } from '../src/recall/schedule.ts';

/** Default parameters of FSRS 6, as published by the Open Spaced Repetition project ("The Algorithm", FSRS-6). */
const W = [
  0.212, 1.2931, 2.3065, 8.2956, 6.4133, 0.8334, 3.0194, 0.001, 1.8722, 0.1666, 0.796, 1.4835, 0.0614, 0.2629,
  1.6483, 0.6014, 1.8729, 0.5425, 0.0912, 0.0658, 0.1542,
];
const w = (n: number): number => W[n]!;
const DECAY = -w(20);
const FACTOR = 0.9 ** (1 / DECAY) - 1;
interface Plain {
  readonly s: number;
  readonly d: number;
  readonly lapses: number;
  readonly due: number;
  readonly last: number;
}
const between = (low: number, n: number, high: number): number => Math.min(high, Math.max(low, n));
const firstDifficulty = (g: number): number => w(4) - Math.exp(w(5) * (g - 1)) + 1;
/** Stability and difficulty after an answer, by the formulas alone. */
function next({ s, d, last }: Plain, g: Grade, day: number): readonly [s: number, d: number] {
  const r = (1 + (FACTOR * (day - last)) / s) ** DECAY;
  const harder = d - (w(6) * (g - 3) * (10 - d)) / 9;
  const difficulty = between(1, w(7) * firstDifficulty(4) + (1 - w(7)) * harder, 10);
  const forgotten = w(11) * d ** -w(12) * ((s + 1) ** w(13) - 1) * Math.exp(w(14) * (1 - r));
  const recalled =
    s *
    (1 +
      Math.exp(w(8)) *
        (11 - d) *
        s ** -w(9) *
        (Math.exp(w(10) * (1 - r)) - 1) *
        (g === 2 ? w(15) : 1) *
        (g === 4 ? w(16) : 1));
  return [g === 1 ? Math.min(forgotten, s) : recalled, difficulty];
}
const GRADES: readonly Grade[] = [1, 2, 3, 4];
/** Days until it is due; each better grade comes a day later at least. */
function interval(stabilities: readonly number[], g: Grade): number {
  // Wanted retention is nine of ten: the interval is the stability.
  const days = stabilities.map((s) => between(1, Math.round(s), 36_500));
  days[0] = Math.min(days[0]!, days[1]!);
  for (const i of [1, 2, 3]) days[i] = Math.max(days[i]!, days[i - 1]! + 1);
  return days[g - 1]!;
}
function plainly(history: readonly (readonly [day: number, grade: Grade])[]): Plain | null {
  let is = null as Plain | null;
  for (const [day, g] of history) {
    const was = is;
    const now: number = was ? Math.max(day, was.last) : day;
    const of = (grade: Grade): readonly [number, number] =>
      was ? next(was, grade, now) : [w(grade - 1), between(1, firstDifficulty(grade), 10)];
    const [s, d] = of(g);
    const all = GRADES.map((it) => of(it)[0]);
    is = {
      s,
      d,
      lapses: (was?.lapses ?? 0) + (was && g === 1 ? 1 : 0),
      last: now,
      due: now + interval(all, g),
    };
  }
  return is;
}
const BEGIN = '2026-03-20';
const anyHistory = fc.array(
  fc.tuple(fc.integer({ min: 0, max: 60 }), fc.constantFrom<Grade>(1, 2, 3, 3, 3, 4)),
  { minLength: 1, maxLength: 14 },
);

test('1,000 histories are scheduled as a plain version of the published formulas does, in whole days', () => {
  let many = 0;
  fc.assert(
    fc.property(anyHistory, (gaps) => {
      let day = 0;
      const history = gaps.map(([gap, g], i) => [(day += i ? gap : 0), g] as const);
      const is = rememberedAfter(history.map(([n, grade]) => ({ day: dayAfter(BEGIN, n), grade })))!;
      const plain = plainly(history)!;
      expect(is.stability / plain.s).toBeCloseTo(1, 3);
      expect(is.difficulty).toBeCloseTo(plain.d, 3);
      expect(is.lapses).toBe(plain.lapses);
      expect(is.reviews).toBe(history.length);
      expect(is.last).toBe(dayAfter(BEGIN, plain.last));
      // Rounding may fall either way where a stability lies on the edge.
      expect(Math.abs(daysBetween(dayAfter(BEGIN, plain.due), is.due))).toBeLessThanOrEqual(1);
      if (daysBetween(dayAfter(BEGIN, plain.due), is.due) === 0) many++;
      expect(daysBetween(is.last, is.due)).toBeGreaterThanOrEqual(1);
    }),
    { numRuns: 1000 },
  );
  expect(many).toBeGreaterThan(985);
});

test('what is remembered after one answer more is what all of them together say; a clock set back counts as the last day', () => {
  fc.assert(
    fc.property(anyHistory, (gaps) => {
      const history = gaps.map(([n, grade]) => ({ day: dayAfter(BEGIN, n), grade }));
      const all = rememberedAfter(history)!;
      const before = rememberedAfter(history.slice(0, -1));
      expect(rememberedNext(before, history.at(-1)!)).toEqual(all);
      const [latest] = [...history.map(({ day }) => day)].sort().reverse();
      expect(all.last).toBe(latest);
      expect(all.due > all.last).toBe(true);
    }),
    { numRuns: 300 },
  );
});

test('a day begins at four in the morning where the player is, through summer time and over borders of years', () => {
  // Minutes ahead of UTC, as a browser tells them.
  const at = (text: string, ahead: number): string => dayAt(Date.parse(text), ahead);
  expect(at('2026-06-02T01:59:00Z', 120)).toBe('2026-06-01');
  expect(at('2026-06-02T02:00:00Z', 120)).toBe('2026-06-02');
  // The night on which the clock goes from two to three: an hour less, the same days.
  expect(at('2026-03-29T00:59:00Z', 60)).toBe('2026-03-28');
  expect(at('2026-03-29T01:59:00Z', 120)).toBe('2026-03-28');
  expect(at('2026-03-29T02:00:00Z', 120)).toBe('2026-03-29');
  expect(at('2027-01-01T03:59:00Z', 0)).toBe('2026-12-31');
  expect(at('2026-06-02T13:59:00Z', -600)).toBe('2026-06-01');
  expect(at('2026-06-01T14:00:00Z', 840)).toBe('2026-06-02');
  expect(dayAfter('2028-02-28', 2)).toBe('2028-03-01');
  expect(daysBetween('2026-03-28', '2026-03-30')).toBe(2);
});

test('an answer is graded by what was done: wrong, after a correction, right, right within half of the usual time', () => {
  expect(usualTime([9000, 1000])).toBeNull();
  expect(usualTime([9000, 1000, 4000])).toBe(4000);
  expect(gradeOf('wrong', 100, 4000)).toBe(1);
  expect(gradeOf('corrected', 100, 4000)).toBe(2);
  expect(gradeOf('first', 2001, 4000)).toBe(3);
  expect(gradeOf('first', 2000, 4000)).toBe(4);
  expect(gradeOf('first', 10, null)).toBe(3);
});

test('how likely a card is remembered follows the published curve: for certain on its day, by nine of ten after its stability', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.1, max: 400, noNaN: true }),
      fc.integer({ min: -5, max: 900 }),
      (s, days) => {
        const plain = (1 + (FACTOR * Math.max(0, days)) / s) ** DECAY;
        const is = likelyOn({ stability: s, last: '2026-06-01' }, dayAfter('2026-06-01', days));
        expect(is).toBeCloseTo(plain, 6);
      },
    ),
  );
  expect(likelyOn({ stability: 10, last: '2026-06-01' }, '2026-06-11')).toBeCloseTo(0.9, 6);
});

test('a week begins on its Monday', () => {
  // 1 June 2026 is a Monday (ISO 8601).
  expect(['2026-05-31', '2026-06-01', '2026-06-07', '2026-06-08'].map(weekOf)).toEqual([
    '2026-05-25',
    '2026-06-01',
    '2026-06-01',
    '2026-06-08',
  ]);
});
