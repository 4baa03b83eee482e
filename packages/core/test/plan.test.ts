import fc from 'fast-check';
import { drawn } from '../../../scripts/thorough.ts';
import {
  type Choice,
  costOfWay,
  FINGERING_SCHOOLS,
  forbidding,
  layOut,
  type LimitName,
  type Limits,
  lineEnds,
  type Neck,
  notesBetween,
  onNeck,
  plan,
  type PlanEnd,
  type PlanGround,
  type PlanNote,
  type PlanTask,
  type Planned,
  refOf,
  wayBetween,
} from './core.ts';
import { count, HAND, key, neckWith, oddNeck, tableNeck } from './helpers.ts';
import { everyWay, plainBest } from './plainPlan.ts';

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
        reachMm: fc.integer({ min: 10, max: 140 }),
        closed: fc.constant(true as const),
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
    { numRuns: drawn(2000) },
  );
  expect(possible).toBeGreaterThan(drawn(200));
  expect(impossible).toBeGreaterThan(drawn(300));
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
    { numRuns: drawn(1500) },
  );
  expect(blamed).toBeGreaterThan(drawn(100));
});

describe('A minor pentatonic in standard tuning', () => {
  const neck = neckWith();
  const scale = key('A', 'minor-pentatonic').scale.offsets;
  const pitches = [0, 1].flatMap((octave) => scale.map((o) => 45 + 12 * octave + o)).concat(69);
  const task = (limits: Limits, speed = 4): PlanTask => ({
    neck,
    hand: HAND,
    notes: notesOn(neck, pitches),
    limits,
    speed,
  });
  const one = (limits: Limits, speed?: number): Planned | undefined => plan(task(limits, speed), 1)[0];

  test('two octaves stay in one place where nothing is asked', () => {
    const [best, ...others] = plan(task({}), 3);
    expect(best!.moves).toEqual([]);
    expect(best!.widest).toMatchObject({ frets: [5, 8] });
    expect(others.every((o) => o.cost >= best!.cost)).toBe(true);
  });

  /** Two notes of string 6, on those frets and nowhere else. */
  const alone = (...frets: number[]): readonly PlanNote[] =>
    frets.map((fret) => ({ midi: 40 + fret, degree: 0, places: [{ string: 6, fret }] }));
  const scaleNotes = notesOn(neck, pitches);
  /** A note on each of three strings: the one between is alone there, and neither the first nor the last. */
  const across: readonly PlanNote[] = [6, 5, 4].map((string, i) => ({
    midi: 45 + 5 * i,
    degree: 0,
    places: [{ string, fret: 5 }],
  }));
  const NEVER: readonly (readonly [LimitName, Limits, readonly PlanNote[]])[] = [
    ['reach', { reach: 2, shifts: 0 }, alone(5, 8)],
    ['closed', { closed: true }, alone(0)],
    // Five frets are reached by a stretch or by moving: without either there is no way.
    ['reachMm', { reachMm: 1, shifts: 0 }, alone(1, 5)],
    ['strings', { strings: [6] }, scaleNotes],
    ['least', { least: 2 }, across],
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

describe('from one end to another, A minor pentatonic in standard tuning', () => {
  const neck = neckWith();
  const k = key('A', 'minor-pentatonic');
  const laid = layOut(neck, k, count(2));
  if (!laid.ok) throw new Error(laid.error.message);
  const positions = laid.value;
  const ground: PlanGround = { neck, key: k, positions, root: { string: 6, fret: 5 } };
  const line = (from: PlanEnd, to: PlanEnd, back = false): readonly PlanNote[] => {
    const ends = lineEnds(ground, from, to);
    if (!ends.ok) throw new Error(ends.error.message);
    return notesBetween(ground, ...ends.value, back);
  };
  const pitches = (notes: readonly PlanNote[]): readonly number[] => notes.map((n) => n.midi);
  const at = (index: number): PlanEnd => ({ at: 'position', ref: refOf(positions, positions[index]!) });
  const place = (string: number, fret: number): PlanEnd => ({ at: 'place', place: { string, fret } });

  test('octaves go up and down from the root, and end with the neck', () => {
    expect(pitches(line({ at: 'root' }, { at: 'octaves', octaves: 1 }))).toEqual([45, 48, 50, 52, 55, 57]);
    expect(pitches(line(place(3, 2), { at: 'octaves', octaves: -1 }))).toEqual([57, 55, 52, 50, 48, 45]);
    expect(pitches(line({ at: 'root' }, { at: 'octaves', octaves: -1 })).at(-1)).toBe(40);
    expect(pitches(line({ at: 'lowest' }, { at: 'highest' }))).toEqual(
      pitches(line({ at: 'highest' }, { at: 'lowest' })).toReversed(),
    );
  });
  test('the ends are taken where they were put, what lies between anywhere', () => {
    const notes = line(place(6, 5), place(2, 5));
    expect(notes.at(-1)).toMatchObject({ midi: 64, places: [{ string: 2, fret: 5 }] });
    expect(notes[0]!.places).toEqual([{ string: 6, fret: 5 }]);
    expect(notes[3]!.places.length).toBeGreaterThan(1);
    const back = line(place(6, 5), place(2, 5), true);
    expect(pitches(back)).toEqual([...pitches(notes), ...pitches(notes).slice(0, -1).toReversed()]);
  });
  test('between positions it goes from far side to far side, whichever way that is', () => {
    const [low, high] = [positions[1]!, positions[3]!];
    const up = line(at(1), at(3));
    expect([up[0]!.places, up.at(-1)!.places]).toEqual([
      [{ string: 6, fret: low.spots[0]!.fret }],
      [{ string: 1, fret: high.spots.at(-1)!.fret }],
    ]);
    expect(pitches(line(at(3), at(1)))).toEqual(pitches(up).toReversed());
  });
  test('what is no note of the scale, and what left the ladder, is refused', () => {
    const code = (from: PlanEnd, to: PlanEnd): string => {
      const ends = lineEnds(ground, from, to);
      return ends.ok ? '' : `${ends.error.code} ${ends.error.message}`;
    };
    expect(code(place(6, 6), { at: 'highest' })).toBe(
      'plan.place String 6 fret 6 is no note of the scale: the nearest on this string are at frets 5 and 8.',
    );
    expect(code({ at: 'root' }, place(9, 1))).toMatch(/^plan.place There is no string 9/);
    expect(code({ at: 'position', ref: { start: 3, low: 99, nth: 0 } }, { at: 'highest' })).toMatch(
      /^plan.position/,
    );
    expect(code({ at: 'octaves', octaves: 1 }, { at: 'highest' })).toMatch(/^plan.end/);
    expect(line(place(6, 5), place(6, 5))).toEqual([]);
  });
  test('at full size the easiest way costs what it costs worked out plainly', () => {
    for (const school of FINGERING_SCHOOLS)
      for (const speed of [3, 11]) {
        const task: PlanTask = {
          neck,
          hand: { school: school.id, spanMm: 100 },
          notes: line({ at: 'lowest' }, { at: 'highest' }),
          limits: {},
          speed,
        };
        expect(plan(task, 1)[0]!.cost).toBeCloseTo(plainBest(task), 9);
      }
  });
});
