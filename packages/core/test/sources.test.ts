import fc from 'fast-check';
import {
  type Climbing,
  CLIMBS,
  climbSource,
  drill,
  drillable,
  type Drilling,
  type Fingered,
  fingers,
  handPlaces,
  type Key,
  layOut,
  type Neck,
  placeId,
  plan,
  planSource,
  positionSource,
  rootSpots,
  shapeSteps,
  type Route,
  signatureOf,
  type Source,
  spotsOf,
  usualOf,
  wayThrough,
} from './core.ts';
import { anyKey, count, HAND, key, neckWith, positions, tableNeck } from './helpers.ts';

// A run has the fingers with which it is taught wherever it is shown, played or drilled. Counts of shifts are this project's own.

const STANDARD = neckWith();
function climbing(
  neck: Neck,
  k: Key,
  low = 5,
  layout = count(k.scale.degrees.length < 7 ? 2 : 3),
): Climbing | null {
  const laid = layOut(neck, k, layout);
  const root = rootSpots(neck, k)[0];
  if (!laid.ok || !laid.value.length || !root) return null;
  const front = laid.value.find((p) => p.lowFret >= low) ?? laid.value[0]!;
  return { neck, key: k, hand: HAND, positions: laid.value, front, root };
}
const climbOn = (from: Climbing, kind: string): Source => {
  const source = climbSource(
    from,
    usualOf(
      CLIMBS.all().find((c) => c.kind === kind)!,
      from,
    ),
  );
  if (!source.ok) throw new Error(source.error.message);
  return source.value;
};
const drillingOf = ({ neck, key: k, positions, front }: Climbing, source: Source): Drilling => ({
  neck,
  key: k,
  ...drillable(source),
  layout: count(3),
  positions,
  front,
});
/** The fingers of a route as it is practised. */
const practised = (neck: Neck, route: Route): readonly Fingered[] => fingers(neck, route, HAND).steps;
const held = (steps: readonly Fingered[]): readonly string[] =>
  steps.map(({ spot, finger, hand }) => `${spot.string}.${spot.fret} ${finger}${finger ? ` ${hand}` : ''}`);

/** Sources of every kind from one place. */
function sources(from: Climbing): readonly Source[] {
  const climbs = CLIMBS.all().flatMap((c) => {
    const source = climbSource(from, usualOf(c, from));
    return source.ok ? [source.value] : [];
  });
  const all = spotsOf(from.neck, from.key);
  const line = all.filter(({ string }) => string === from.root.string).slice(0, 9);
  const notes = [...line, ...[...line].reverse().slice(1)].map(({ midi, degree }) => ({
    midi,
    degree,
    places: all.filter((s) => s.midi === midi),
  }));
  const task = { neck: from.neck, hand: HAND, notes, limits: {}, speed: 4 };
  const plans = plan(task, 1).map((p) => planSource(task, p));
  return [positionSource(from.neck, from.front, HAND), ...climbs, ...plans];
}
const drawn = fc
  .record({ neck: tableNeck, k: anyKey, low: fc.integer({ min: 0, max: 12 }) })
  .map(({ neck, k, low }) => climbing(neck, k, low))
  .filter((it): it is Climbing => it !== null);

test('the fingers of a source are the same gone through, and drilled up and down, however often a place is come to', () => {
  let again = 0;
  let otherwise = 0;
  fc.assert(
    fc.property(drawn, fc.boolean(), (from, topTwice) => {
      for (const source of sources(from)) {
        const { up } = source;
        const down = source.down();
        const taught = held([...up.steps, ...down.steps.slice(topTwice ? 0 : 1)]);
        const shown = practised(from.neck, wayThrough(source, 'both', topTwice));
        expect(held(shown)).toEqual(taught);
        const drilled = drill(drillingOf(from, source), { kind: 'up-and-down', topTwice });
        if (!drilled.ok) throw new Error(drilled.error.message);
        expect(held(practised(from.neck, drilled.value.notes))).toEqual(taught);
        // The cases that the law is about: a place that is come to again, and taken by another finger.
        const byPlace = new Map<number, Set<number>>();
        for (const { spot, finger } of up.steps)
          byPlace.set(placeId(spot), (byPlace.get(placeId(spot)) ?? new Set()).add(finger));
        again += up.steps.length > byPlace.size ? 1 : 0;
        otherwise += [...byPlace.values()].some((by) => by.size > 1) ? 1 : 0;
      }
    }),
    { numRuns: 25 },
  );
  expect(Math.min(again, otherwise)).toBeGreaterThan(10);
});

test('coming down begins as going up ends', () => {
  fc.assert(
    fc.property(drawn, (from) => {
      for (const { up, down } of sources(from))
        expect(held(down().steps.slice(0, 1))).toEqual(held(up.steps.slice(-1)));
    }),
    { numRuns: 15 },
  );
});

test('climbs are practised with the shifts with which they are taught', () => {
  const pentatonic = climbing(STANDARD, key('A', 'minor-pentatonic'))!;
  const g = climbing(STANDARD, key('G', 'major'), 3)!;
  for (const [from, kind] of [
    [pentatonic, 'zigzag'],
    [pentatonic, 'relay'],
    [g, 'zigzag'],
    [g, 'relay'],
  ] as const) {
    const source = climbOn(from, kind);
    const shifts = fingers(STANDARD, drillable(source).notes, HAND).shifts;
    expect([kind, shifts]).toEqual([kind, source.up.shifts]);
  }
  expect(climbOn(pentatonic, 'zigzag').up.shifts).toBeLessThan(12);
});

test('a diagonal comes down with the index finger sliding back, in a drill as in the shape', () => {
  const from = climbing(STANDARD, key('D', 'minor-pentatonic'), 8, { kind: 'diagonal' })!;
  const source = positionSource(STANDARD, from.front, HAND);
  expect(signatureOf(source.up.steps)).toBe('1 3 / 1 3 s3 / 1 3 / 1 3 s3 / 1 3 / 1 3 s3');
  expect(signatureOf(source.down().steps)).toBe('3 1 s1 / 3 1 / 3 1 s1 / 3 1 / 3 1 s1 / 3 1');
  const groups = drill(drillingOf(from, source), { kind: 'groups', length: 3, topTwice: false });
  const up = drill(drillingOf(from, source), { kind: 'up-and-down', topTwice: false });
  if (!groups.ok || !up.ok) throw new Error('It cannot be drilled.');
  expect(signatureOf(practised(STANDARD, up.value.notes).slice(-15))).toContain('3 1 s1');
  // In groups the way down is taken with the fingers of coming down as well.
  const { notes } = groups.value;
  const down = notes.slice(-3).map((n) => n.by);
  expect(down).toEqual(
    source
      .down()
      .steps.slice(-3)
      .map((s) => s.finger),
  );
});

describe('in position', () => {
  const front = (tuning: string, root: string, scale: string, fret: number, school = 'index') => {
    const neck = neckWith(tuning, 22);
    const all = positions(key(root, scale), { kind: 'inPosition', school, every: true }, neck);
    return { neck, position: all.find((p) => p.indexFret === fret)! };
  };
  // Handbook, section 3: both places of a pitch stay in the shape, and a run takes the one on the lower string.
  test('both places of a pitch that lies twice under the hand stay', () => {
    const { neck, position } = front('D2 A2 D3 G3 A3 D4', 'A', 'minor-pentatonic', 4);
    expect(position.groups.find((g) => g.string === 2)!.frets).toEqual([5, 7]);
    expect(position.spots.filter((s) => s.string === 2).map((s) => s.fret)).toEqual([7]);
    const { up } = positionSource(neck, position, HAND);
    const steps = shapeSteps(neck, position, up.steps);
    expect(signatureOf(steps.filter((s) => s.spot.string === 2))).toBe('2 4');
    const midis = up.steps.map((s) => s.spot.midi);
    expect(new Set(midis).size).toBe(midis.length);
  });
  test('where it would have to stretch both ways it moves instead', () => {
    const { neck, position } = front('D2 A2 D3 G3 A3 D4', 'E', 'major', 3);
    const { up } = positionSource(neck, position, HAND);
    expect(up.shifts).toBeGreaterThan(0);
    for (const { frets } of handPlaces(neck, up.steps)) expect(frets[1] - frets[0]).toBeLessThanOrEqual(4);
  });
  test('the hand stays where the position says, stretching to what it lacks', () => {
    // Handbook, section 3: A major at II stretches in the school of the index finger.
    const two = front('E2 A2 D3 G3 B3 E4', 'A', 'major', 2);
    const { up, down } = positionSource(two.neck, two.position, HAND);
    expect([up.shifts, down().shifts, up.stretches]).toEqual([0, 0, two.position.stretches]);
    fc.assert(
      fc.property(
        anyKey,
        fc.integer({ min: 1, max: 12 }),
        fc.constantFrom('index', 'little'),
        (k, p, school) => {
          const neck = neckWith();
          const laid = layOut(neck, k, { kind: 'inPosition', school, every: true });
          const position = laid.ok ? laid.value.find((it) => it.indexFret === p) : undefined;
          const bent = position?.spots.filter((s) => s.stretch) ?? [];
          if (!position || new Set(bent.map((s) => s.fret < p)).size > 1) return;
          const { up, down } = positionSource(neck, position, HAND);
          expect(new Set([...up.steps, ...down().steps].map((s) => s.hand))).toEqual(new Set([p]));
        },
      ),
      { numRuns: 100 },
    );
  });
});
