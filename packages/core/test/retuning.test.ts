import fc from 'fast-check';
import {
  type FitShape,
  fitOf,
  fitTunings,
  type Key,
  retuning,
  tensionChange,
  tuningById,
  TUNINGS,
  usualOf,
  LAYOUTS,
} from './core.ts';
import { anyKey, HAND, key, six } from './helpers.ts';

describe('tension and retuning', () => {
  // Mersenne's law, as in the handbook, section 6.
  test('the square of the frequency: one up 12.2 %, two up 26.0 %, two down 20.6 %', () => {
    expect([1, 2, -2].map((n) => Number((100 * tensionChange(n)).toFixed(1)))).toEqual([12.2, 26, -20.6]);
    expect(tensionChange(12)).toBeCloseTo(3, 12);
  });
  test('strings that go too high or slack are cautioned', () => {
    const made = [64, 59, 55, 50, 45, 40];
    const { strings } = retuning(made, [67, 59, 55, 50, 45, 35], made);
    expect(strings.map((s) => s.caution)).toEqual(['high', null, null, null, null, 'slack']);
  });
  test('the order changes the pull least at once: the same as trying every order', () => {
    const orders = (of: readonly number[]): number[][] =>
      of.length ? of.flatMap((x) => orders(of.filter((y) => y !== x)).map((r) => [x, ...r])) : [[]];
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -5, max: 4 }), { minLength: 3, maxLength: 6 }), (steps) => {
        const made = [64, 59, 55, 50, 45, 40].slice(0, steps.length);
        const to = made.map((m, i) => m + steps[i]!);
        const { order, most } = retuning(made, to, made);
        const furthest = (way: readonly number[]): number => {
          let sum = 0;
          return way.reduce((far, s) => Math.max(far, Math.abs((sum += tensionChange(steps[s - 1]!)))), 0);
        };
        const changed = steps.flatMap((s, i) => (s ? [i + 1] : []));
        expect([...order].sort((a, b) => a - b)).toEqual(changed);
        expect(furthest(order)).toBeCloseTo(most, 9);
        expect(most).toBeCloseTo(Math.min(...orders(changed).map(furthest)), 9);
      }),
      { numRuns: 60 },
    );
  });
});

describe('the tuning that fits', () => {
  const tunings = TUNINGS.filter((t) => t.tuning.length === 6);
  test('the best of all that were tried, by what each is said to cost', () => {
    fc.assert(
      fc.property(
        fc.array(anyKey, { minLength: 1, maxLength: 2 }),
        fc.constantFrom(...LAYOUTS.all()),
        (keys, layout) => {
          const shapes = keys.map((k): FitShape => ({
            key: k,
            layout: usualOf(layout, { scale: k.scale, string: 6, strings: 6 }),
          }));
          let tried = 0;
          const ranked = fitTunings(tunings, shapes, six, HAND, (n) => (tried = n));
          expect(tried).toBe(tunings.length);
          const costs = tunings.map((t) => fitOf(t, shapes, six, HAND).cost);
          expect(ranked.map((r) => r.cost)).toEqual([...costs].sort((a, b) => a - b || 0));
          for (const r of ranked) expect(r.why === null).toBe(Number.isFinite(r.cost));
        },
      ),
      { numRuns: 8 },
    );
  });
  test('a scale of the open strings of a tuning lies best there, other things alike', () => {
    const fits = (name: string, k: Key) =>
      fitOf(
        { name, tuning: tuningById(name)!.tuning },
        [
          {
            key: k,
            layout: usualOf(
              LAYOUTS.all().find((l) => l.kind === 'inPosition')!,
              { scale: k.scale, string: 6, strings: 6 },
            ),
          },
        ],
        six,
        HAND,
      );
    const it = fits('dadgad', key('D', 'mixolydian'));
    expect(it.open).toEqual([6, 6]);
    expect(it.halfSteps).toBe(6);
    expect(fits('standard', key('Eb', 'major')).open[0]).toBeLessThan(4);
  });
});
