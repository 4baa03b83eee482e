import fc from 'fast-check';
import {
  type Choice, costOfWay, FINGERING_SCHOOLS, forbidding, type LimitName, type Limits, type Neck, onNeck, plan, type PlanNote, type PlanTask,
  type Planned, wayBetween,
} from '../src/index.ts'; // prettier-ignore
import { key, neckWith, oddNeck, tableNeck } from './helpers.ts';
import { everyWay } from './plainPlan.ts';

/** Notes by their pitches, on every place that a neck has for them, at most `most` each. */
const notesOn = (neck: Neck, pitches: readonly number[], most = 9): readonly PlanNote[] =>
  pitches.map((midi) => ({
    midi,
    degree: 0,
    places: neck.open
      .map((open, i) => ({ string: i + 1, fret: midi - open }))
      .filter((p) => onNeck(neck, p.string, p.fret))
      .slice(0, most),
  }));

const moved = (way: readonly Choice[]): readonly boolean[] =>
  way.map((c, i) => i > 0 && wayBetween(way[i - 1]!, c) !== null);
const sign = (way: readonly Choice[]): string =>
  way.map((c, i) => `${c.spot.string}${moved(way)[i] ? '!' : ''}`).join(' ');

const smallTask: fc.Arbitrary<PlanTask> = fc
  .record({
    neck: fc.oneof(tableNeck, oddNeck),
    school: fc.constantFrom(...FINGERING_SCHOOLS.map((s) => s.id)),
    spanMm: fc.integer({ min: 80, max: 130 }),
    from: fc.nat(14),
    steps: fc.array(fc.integer({ min: -4, max: 4 }), { minLength: 1, maxLength: 3 }),
    string: fc.nat(11),
    speed: fc.integer({ min: 1, max: 12 }),
    limits: fc.record(
      {
        reach: fc.constantFrom(2, 3, 4),
        reachMm: fc.integer({ min: 70, max: 140 }),
        strings: fc.subarray([1, 2, 3, 4, 5, 6], { minLength: 1 }),
        least: fc.integer({ min: 1, max: 3 }),
        most: fc.integer({ min: 1, max: 3 }),
        ways: fc.subarray(['change', 'slide', 'close', 'open'] as const),
        shifts: fc.nat(2),
      },
      { requiredKeys: [] },
    ),
  })
  .map(({ neck, school, spanMm, from, steps, string, speed, limits }) => {
    const pitches = [neck.open[string % neck.open.length]! + from];
    for (const s of school === 'onePerFret' ? steps.slice(0, 2) : steps) pitches.push(pitches.at(-1)! + s);
    return { neck, hand: { school, spanMm }, notes: notesOn(neck, pitches, 2), limits, speed };
  });

test('the easiest ways equal exhaustive search: cost, feasibility, and the k best that differ', () => {
  let possible = 0;
  let impossible = 0;
  fc.assert(
    fc.property(smallTask, (task) => {
      const found = plan(task, 3);
      const seen = new Set<string>();
      const best: number[] = [];
      for (const w of everyWay(task)) {
        if (best.length === 3) break;
        if (seen.has(sign(w))) continue;
        seen.add(sign(w));
        best.push(costOfWay(task, w));
      }
      if (best.length) possible++;
      else impossible++;
      expect(found).toHaveLength(best.length);
      found.forEach((f, i) => expect(f.cost).toBeCloseTo(best[i]!, 9));
    }),
    { numRuns: 2000 },
  );
  expect(possible).toBeGreaterThan(300);
  expect(impossible).toBeGreaterThan(300);
});

test('the limits that are blamed forbid it together, and none of them without the others', () => {
  let blamed = 0;
  fc.assert(
    fc.property(smallTask, (task) => {
      const names = forbidding(task);
      expect(names === null).toBe(plan(task, 1).length > 0);
      if (!names?.length) return;
      blamed++;
      const only = (keep: readonly LimitName[]): Limits =>
        Object.fromEntries(keep.map((n) => [n, task.limits[n]]));
      expect(plan({ ...task, limits: only(names) }, 1)).toEqual([]);
      for (const name of names)
        expect(plan({ ...task, limits: only(names.filter((n) => n !== name)) }, 1)).not.toEqual([]);
    }),
    { numRuns: 300 },
  );
  expect(blamed).toBeGreaterThan(30);
});

describe('A minor pentatonic in standard tuning', () => {
  const neck = neckWith();
  const scale = key('A', 'minor-pentatonic').scale.offsets;
  const pitches = [0, 1].flatMap((octave) => scale.map((o) => 45 + 12 * octave + o)).concat(69);
  const task = (limits: Limits, speed = 4): PlanTask => ({
    neck,
    hand: { school: 'onePerFret', spanMm: 110 },
    notes: notesOn(neck, pitches),
    limits,
    speed,
  });
  const one = (limits: Limits, speed?: number): Planned | undefined => plan(task(limits, speed), 1)[0];

  test('two octaves stay in one place where nothing is asked', () => {
    const [best, ...others] = plan(task({}), 3);
    expect(best!.moves).toEqual([]);
    expect(best!.widest).toBeNull();
    expect(others.every((o) => o.cost >= best!.cost)).toBe(true);
  });

  /** Two notes of string 6, on those frets and nowhere else. */
  const alone = (...frets: number[]): readonly PlanNote[] =>
    frets.map((fret) => ({ midi: 40 + fret, degree: 0, places: [{ string: 6, fret }] }));
  const scaleNotes = notesOn(neck, pitches);
  const NEVER: readonly (readonly [LimitName, Limits, readonly PlanNote[]])[] = [
    ['reach', { reach: 2 }, scaleNotes],
    // Five frets are reached by a stretch or by moving: without either there is no way.
    ['reachMm', { reachMm: 1, shifts: 0 }, alone(1, 5)],
    ['strings', { strings: [6] }, scaleNotes],
    ['least', { least: 12 }, scaleNotes],
    ['most', { most: 1 }, alone(5, 7)],
    ['ways', { ways: [] }, alone(5, 17)],
    ['shifts', { shifts: 0 }, alone(5, 17)],
  ];
  test.each(NEVER)('%s can forbid a climb, and is blamed', (name, limits, notes) => {
    const asked = { ...task(limits), notes };
    expect(plan(asked, 1)).toEqual([]);
    expect(forbidding(asked)).toEqual(Object.keys(limits));
    const rest: Limits = Object.fromEntries(Object.entries(limits).filter(([n]) => n !== name));
    expect(plan({ ...asked, limits: rest }, 1)).toHaveLength(1);
  });

  test('the faster it goes, the more a move weighs', () => {
    const two = { strings: [3, 4, 5] };
    expect(one(two, 12)!.cost).toBeGreaterThan(one(two, 4)!.cost);
    expect(one(two, 4)!.cost).toBe(one(two, 2)!.cost);
    expect(one({}, 12)!.cost).toBe(one({}, 4)!.cost);
  });

  test('a limit on shifts is met, and costs something', () => {
    const free = one({ strings: [3, 4, 5] })!;
    expect(free.moves.length).toBeGreaterThan(0);
    for (const m of free.moves) expect(m.mm).toBeGreaterThan(0);
  });
});
