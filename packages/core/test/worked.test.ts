import fc from 'fast-check';
import { drawn } from '../../../scripts/thorough.ts';
import {
  type Fingered,
  FINGERING_SCHOOLS,
  fingers,
  handPlaces,
  isAlike,
  kindsOf,
  movesAt,
  moveTo,
  plan,
  type PlanTask,
  presses,
  spotsOf,
} from './core.ts';
import { anyKey, HAND, tableNeck } from './helpers.ts';
import { WORKED, WORKED_IN_SCHOOLS, written } from './worked.ts';

test.each([...WORKED, ...WORKED_IN_SCHOOLS].map((w) => [w.asked, w] as const))(
  '%s is planned as it is taught',
  (_, { task, frets, fingers: taught }) => {
    expect(written(plan(task, 1)[0]!)).toEqual({ frets, fingers: taught });
  },
);

/** Lines up a scale, and down, on any instrument, with limits and hands of any kind. */
const anyTask: fc.Arbitrary<PlanTask> = fc
  .record({
    neck: tableNeck,
    k: anyKey,
    from: fc.nat(10),
    many: fc.integer({ min: 3, max: 16 }),
    down: fc.boolean(),
    hand: fc.record({
      school: fc.constantFrom(...FINGERING_SCHOOLS.map((s) => s.id)),
      spanMm: fc.integer({ min: 80, max: 130 }),
    }),
    limits: fc.record(
      {
        reach: fc.constantFrom(3, 4),
        reachMm: fc.integer({ min: 60, max: 140 }),
        most: fc.integer({ min: 2, max: 4 }),
        closed: fc.constant(true as const),
      },
      { requiredKeys: [] },
    ),
  })
  .map(({ neck, k, from, many, down, hand, limits }) => {
    const spots = spotsOf(neck, k);
    const pitches = [...new Set(spots.map((s) => s.midi))].sort((a, b) => a - b).slice(from, from + many);
    const notes = (down ? pitches.reverse() : pitches).map((midi) => {
      const places = spots.filter((s) => s.midi === midi);
      return { midi, degree: places[0]!.degree, places };
    });
    return { neck, hand, notes, limits, speed: 4 };
  });

test('a place of the hand takes at most its reach, in frets and in mm, bent or not', () => {
  let bound = 0;
  fc.assert(
    fc.property(anyTask, (task) => {
      const { reach = 4, reachMm = Infinity } = task.limits;
      for (const { steps } of plan(task, 2))
        for (const { frets, mm } of handPlaces(task.neck, steps)) {
          if (frets[1] > frets[0] && mm > 0.8 * reachMm) bound++;
          expect(frets[1] - frets[0]).toBeLessThanOrEqual(reach);
          expect(mm).toBeLessThanOrEqual(reachMm);
        }
    }),
    { numRuns: drawn(600) },
  );
  expect(bound).toBeGreaterThan(drawn(20));
});

test('no line slides far on the little finger, twice in a row on one finger, or goes back with the hand on a string', () => {
  let slides = 0;
  fc.assert(
    fc.property(anyTask, fc.boolean(), (task, planned) => {
      const [best] = plan(task, 1);
      if (!best) return;
      // What is planned, and the same places fingered alone.
      const route = best.steps.map(({ spot }) => spot);
      const steps = planned ? best.steps : fingers(task.neck, route, task.hand).steps;
      const rises = task.notes[0]!.midi < task.notes.at(-1)!.midi;
      steps.forEach((s, i) => {
        const before = steps[i - 1];
        if (moveTo(steps, i) === 'slide') {
          slides++;
          if (s.finger === 4) expect(Math.abs(s.spot.fret - before!.spot.fret)).toBeLessThanOrEqual(2);
          expect(moveTo(steps, i - 1)).not.toBe('slide');
        }
        if (before?.spot.string !== s.spot.string || !presses(before.finger) || !presses(s.finger)) return;
        expect(rises ? s.hand - before.hand : before.hand - s.hand).toBeGreaterThanOrEqual(0);
        // A higher fret by a lower finger: the hand has moved up for it.
        if (s.spot.fret > before.spot.fret && s.finger < before.finger)
          expect(s.hand).toBeGreaterThan(before.hand);
      });
    }),
    { numRuns: drawn(600) },
  );
  expect(slides).toBeGreaterThan(drawn(20));
});

test('an open string is taken where the hand is at the nut, and not while it stands above fret 5', () => {
  fc.assert(
    fc.property(anyTask, ({ hand: _, ...rest }) => {
      const task = { ...rest, hand: HAND, limits: {} };
      for (const { spot, hand } of plan(task, 1)[0]?.steps ?? [])
        if (spot.fret === 0 && hand > 5) {
          // Nothing limits it: only where its pitch lies nowhere else.
          const note = task.notes.find((n) => n.midi === spot.midi)!;
          expect(note.places.filter((p) => p.fret > 0)).toEqual([]);
        }
    }),
    { numRuns: drawn(600) },
  );
});

test('the ways of a smaller number are the first of a larger one, and a limit of shifts that binds nothing changes nothing', () => {
  for (const { task } of WORKED) {
    const many = plan(task, 12);
    expect(many.map((p) => p.cost).slice(0, 3)).toEqual(plan(task, 3).map((p) => p.cost));
    expect(plan({ ...task, limits: { ...task.limits, shifts: 99 } }, 12)).toEqual(many);
  }
});

test('groups that are alike are planned alike, unless that costs two shifts more', () => {
  const unlike = (steps: readonly Fingered[]): number =>
    kindsOf(steps.map(({ spot }) => spot)).filter((kind) => !isAlike({ steps }, kind)).length;
  let kept = 0;
  fc.assert(
    fc.property(anyTask, (task) => {
      const [best] = plan({ ...task, limits: { most: 3 } }, 1);
      if (!best) return;
      const { steps } = fingers(
        task.neck,
        best.steps.map(({ spot }) => spot),
        task.hand,
      );
      if (kindsOf(steps.map(({ spot }) => spot)).length) kept++;
      const moves = (of: readonly Fingered[]): number => of.filter((_, i) => movesAt(of, i)).length;
      if (unlike(best.steps) > unlike(steps)) expect(moves(steps)).toBeGreaterThan(moves(best.steps) + 1);
    }),
    { numRuns: drawn(600) },
  );
  expect(kept).toBeGreaterThan(drawn(10));
});
