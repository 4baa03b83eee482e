import fc from 'fast-check';
import { BEND, bendTimes, bentAt, heldSaid, heldSo, heldText, type Held, TAP, VIBRATO } from './core.ts';
import { articulate, type Articulated } from './core.ts';

const note = (string: number, fret: number, finger = fret ? 3 : 0): Articulated =>
  articulate([
    { spot: { string, fret, midi: 40 + fret, degree: 0 }, finger, hand: Math.max(1, fret - 2) },
  ])[0]!;
const bend = (by: number, how: 'once' | 'slowly' = 'once', released = false): Held => ({
  bend: { by, how, released },
});
const code = (step: Articulated, held: Held, plain = 3): string => {
  const so = heldSo(step, held, plain);
  return so.ok ? so.value.remarks.map((r) => r.code).join(' ') || 'fine' : so.error.code;
};

test('what cannot be bent is refused with what to do, and what is hard is remarked', () => {
  expect(code(note(2, 0), bend(1))).toBe('bend.open');
  expect(code(note(2, 0), { vibrato: { cents: 30, waves: 5 } })).toBe('vibrato.open');
  for (const by of [0, 0.3, 3.5, -1]) expect(code(note(2, 8), bend(by))).toBe('bend.far');
  expect(code(note(2, 8), { vibrato: { cents: 200, waves: 5 } })).toBe('vibrato.far');
  expect(code(note(2, 8, TAP), bend(1))).toBe('held.tap');
  for (const by of [0.5, 1, 1.5, 2, 2.5, 3]) expect(code(note(2, 8), bend(by))).toBe('fine');
  // Common practice, no source: low on the neck, and on wound strings beyond a half step.
  expect(code(note(2, 2), bend(1))).toBe('bend.low');
  expect(code(note(2, 3), bend(1))).toBe('fine');
  expect(code(note(4, 8), bend(1))).toBe('fine');
  expect(code(note(4, 8), bend(1.5))).toBe('bend.wound');
  expect(code(note(5, 2), bend(2))).toBe('bend.low bend.wound');
  expect(code(note(3, 8), bend(2), 2)).toBe('bend.wound');
});

const anyHeld: fc.Arbitrary<Held> = fc.record(
  {
    bend: fc.record({
      by: fc.integer({ min: 1, max: BEND.most / BEND.step }).map((n) => n * BEND.step),
      how: fc.constantFrom('once' as const, 'slowly' as const),
      released: fc.boolean(),
    }),
    vibrato: fc.record({
      cents: fc.integer({ min: VIBRATO.cents[0], max: VIBRATO.cents[1] }),
      waves: fc.integer({ min: VIBRATO.waves[0], max: VIBRATO.waves[1] }),
    }),
  },
  { requiredKeys: [] },
);

test('a bend begins at its fret, is where it should be when it should, stays there or comes back, and is never let below the fret or beyond', () => {
  fc.assert(
    fc.property(
      anyHeld,
      fc.double({ min: 0.05, max: 4, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (held, seconds, part) => {
        const at = (t: number): number => bentAt(held, t, seconds);
        const { bend, vibrato } = held;
        const deep = (vibrato?.cents ?? 0) / 100;
        expect(at(0)).toBeCloseTo(0, 9);
        expect(at(part * seconds)).toBeGreaterThanOrEqual(0);
        expect(at(part * seconds)).toBeLessThanOrEqual((bend?.by ?? deep) + 1e-9);
        if (!bend) return;
        const { there, letGo, back } = bendTimes(bend, seconds);
        expect([there > 0, there <= letGo, letGo <= back, back <= seconds]).toEqual([true, true, true, true]);
        const straight: Held = { bend };
        expect(bentAt(straight, there, seconds)).toBeCloseTo(bend.by, 9);
        expect(bentAt(straight, letGo, seconds)).toBeCloseTo(bend.by, 9);
        expect(bentAt(straight, seconds, seconds)).toBeCloseTo(bend.released ? 0 : bend.by, 9);
        // What wavers on a bend falls below it by no more than its depth.
        const held_ = there + part * (letGo - there);
        expect(at(held_)).toBeGreaterThanOrEqual(bend.by - deep - 1e-9);
      },
    ),
  );
});

test('a bend that is not released stays where it is to the very end, and past it', () => {
  const held: Held = { bend: { by: 1, how: 'once', released: false } };
  for (const at of [2, 2 + Number.EPSILON * 2, 2.1]) expect(bentAt(held, at, 2)).toBe(1);
});

test('a vibrato has its depth and its waves: an unbent note wavers above its pitch, a bent one below', () => {
  const wave = { vibrato: { cents: 40, waves: 5 } };
  const seen = (held: Held): readonly number[] =>
    Array.from({ length: 1000 }, (_, i) => bentAt(held, 0.5 + i / 1000, 4));
  expect([Math.min(...seen(wave)), Math.max(...seen(wave))]).toEqual([
    expect.closeTo(0, 3),
    expect.closeTo(0.4, 3),
  ]);
  const bent = seen({ ...bend(2), ...wave });
  expect([Math.min(...bent), Math.max(...bent)]).toEqual([expect.closeTo(1.6, 3), expect.closeTo(2, 3)]);
  const turns = bent.filter((v, i) => i > 0 && v < 1.8 !== bent[i - 1]! < 1.8).length;
  expect(turns).toBe(10);
});

test('how a note is held is said in words, and in plain text by what it sounds like', () => {
  expect(heldSaid({})).toBeNull();
  expect(heldSaid(bend(0.5, 'once', true))).toBe('bent by a quarter tone and released');
  expect(heldSaid({ ...bend(3), vibrato: { cents: 30, waves: 6 } })).toBe(
    'bent by three half steps, held with vibrato, 30 cents, 6 waves a second',
  );
  expect(heldText(7, bend(2, 'slowly'))).toBe('b>9');
  expect(heldText(7, bend(2.5, 'once', true))).toBe('b9½r7');
});
