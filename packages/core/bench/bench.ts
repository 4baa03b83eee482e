import { everyWay, plainBest } from '../test/plainPlan.ts';
import { placeOf, WORKED, WORKED_IN_SCHOOLS } from '../test/worked.ts';
import {
  CATALOGUE,
  DEFAULT_INSTRUMENT,
  degreeIndex,
  fingers,
  fitTunings,
  type Key,
  layOut,
  type Neck,
  neckOf,
  note,
  nearestPlace,
  notesBetween,
  placements,
  PHRASE_LIMITS,
  type Place,
  placesOfPhrase,
  plan,
  type PlanTask,
  positionNames,
  ROOTS,
  scaleById,
  seeded,
  type Tune,
  tuningById,
  TUNINGS,
  usualOf,
  LAYOUTS,
} from '../test/core.ts';
import { plainShapes } from '../test/plain.ts';

/** Median times of two calls in ms, measured in turn after a warm-up, so that what disturbs one disturbs the other. */
function times(rounds: number, warm: number, ...runs: readonly (() => unknown)[]): number[] {
  for (let i = 0; i < warm; i++) runs.forEach((run) => run());
  const taken = runs.map((): number[] => []);
  for (let i = 0; i < rounds; i++)
    runs.forEach((run, k) => {
      const start = performance.now();
      run();
      taken[k]!.push(performance.now() - start);
    });
  return taken.map((t) => t.sort((a, b) => a - b)[rounds >> 1]!);
}

/** A fingering without any search: the finger that the fret asks for, the hand moved whenever it does not reach. */
function plainFingering(run: readonly { fret: number }[]): number[] {
  let hand = run[0]!.fret;
  return run.map(({ fret }) => {
    if (fret < hand || fret > hand + 3) hand = fret < hand ? fret : fret - 3;
    return fret - hand + 1;
  });
}

const row = (what: string, [ms, base]: readonly number[]): void =>
  console.log(
    `${what.padEnd(58)} ${ms!.toFixed(3).padStart(9)} ms   plain ${base!.toFixed(3).padStart(9)} ms   ratio ${(ms! / base!).toFixed(2)}`,
  );

const six = neckOf({ ...DEFAULT_INSTRUMENT, frets: 24 });
const nine = neckOf({ ...DEFAULT_INSTRUMENT, tuning: tuningById('nine-standard')!.tuning, frets: 27 });
const roots = ROOTS.map((names) => note(names[0]!));
const keys: readonly Key[] = CATALOGUE.flatMap((scale) => roots.map((root) => ({ root, scale })));

console.log(
  'placements alone, against the same layout worked out note by note: every scale on every root, 6 strings',
);
const total = [0, 0];
for (const layout of LAYOUTS.all()) {
  // What a layout refuses is not worked out either way.
  const cases = keys
    .map((key) => ({ key, spec: usualOf(layout, { scale: key.scale, string: 6, strings: 6 }) }))
    .filter(({ key, spec }) => placements(six, key, spec).ok);
  const [own, plain] = times(
    7,
    3,
    () => cases.forEach(({ key, spec }) => placements(six, key, spec)),
    () => cases.forEach(({ key, spec }) => plainShapes(six, key, spec)),
  );
  const found = [placements, plainShapes].map((of) =>
    cases.reduce((sum, { key, spec }) => {
      const shapes = of(six, key, spec);
      return sum + ('ok' in shapes ? (shapes.ok ? shapes.value.length : 0) : shapes.length);
    }, 0),
  );
  total[0]! += own!;
  total[1]! += plain!;
  row(`  ${layout.name}: ${found[0]} placements, ${found[1]} by hand`, [own!, plain!]);
}
row('  all layouts', total);
const atlas = (measured: boolean, named: boolean) => (): void => {
  for (const key of keys)
    for (const layout of LAYOUTS.all()) {
      const spec = usualOf(layout, { scale: key.scale, string: 6, strings: 6 });
      const result = layOut(six, key, spec);
      if (!result.ok) continue;
      if (measured) for (const p of result.value) void p.groups;
      if (named) positionNames(result.value, key, 'minorRoot', spec);
    }
};
const [bare, groups, names] = times(3, 1, atlas(false, false), atlas(true, false), atlas(false, true));
console.log(
  `  put in neck order ${bare!.toFixed(0)} ms; with every group measured ${groups!.toFixed(0)} ms; with every position named ${names!.toFixed(0)} ms`,
);

const major: Key = { root: note('A'), scale: scaleById('major')! };
const positions = layOut(nine, major, { kind: 'count', counts: [3] });
const twenty = positions.ok ? positions.value[4]!.spots.slice(0, 20) : [];
const run = (n: number) =>
  Array.from({ length: n }, (_, i) => twenty[(i % 38 < 20 ? i % 38 : 38 - (i % 38)) % 20]!);
const hand = { school: 'onePerFret' } as const;
for (const n of [20, 100, 200, 400, 800]) {
  const notes = run(n);
  const taken = times(
    60,
    200,
    () => fingers(nine, notes, hand),
    () => plainFingering(notes),
  );
  row(`fingering of a ${n}-note run (${((1000 * taken[0]!) / n).toFixed(2)} µs a note)`, taken);
}

/** A climb of the major scale from fret 5 of the string that is the sixth from above, or the lowest. */
function planTask(neck: Neck, octaves: number, back: boolean, limits: PlanTask['limits'] = {}): PlanTask {
  const place = { string: Math.min(6, neck.open.length), fret: 5 };
  const midi = neck.open[place.string - 1]! + place.fret;
  const root = roots.find((r) => degreeIndex({ root: r, scale: major.scale }, midi) === 0)!;
  const to = { midi: midi + 12 * octaves, place: null };
  const notes = notesBetween({ neck, key: { root, scale: major.scale } }, { midi, place }, to, back);
  return { neck, hand, notes, limits, speed: 4 };
}
/** Megabytes that a call leaves behind it on the heap. */
function megabytes(run: () => unknown): number {
  const before = process.memoryUsage().heapUsed;
  run();
  return Math.max(0, process.memoryUsage().heapUsed - before) / 1e6;
}
const PLANS: readonly (readonly [string, PlanTask, number])[] = [
  ['6 strings, two octaves up, 1 way', planTask(six, 2, false), 1],
  ['6 strings, two octaves up, 3 ways', planTask(six, 2, false), 3],
  ['9 strings, 27 frets, three octaves up and back, 5 ways', planTask(nine, 3, true), 5],
  ['the same under limits', planTask(nine, 3, true, { shifts: 6, least: 2, most: 3 }), 5],
];
console.log('planned climbs, against the easiest way alone worked out plainly');
for (const [what, task, k] of PLANS) {
  const taken = times(
    7,
    2,
    () => plan(task, k),
    () => plainBest(task),
  );
  row(`  ${what}: ${task.notes.length} notes, ${megabytes(() => plan(task, k)).toFixed(0)} MB`, taken);
}
const grows = (what: string, cases: readonly (readonly [string | number, PlanTask, number])[]): void => {
  const said = cases.map(([at, task, k]) => `${at}: ${times(7, 2, () => plan(task, k))[0]!.toFixed(1)} ms`);
  console.log(`  by ${what}: ${said.join(', ')}`);
};
const twoUp = planTask(six, 2, false);
grows(
  'ways',
  [1, 2, 4, 8, 16, 32].map((k) => [k, twoUp, k]),
);
grows(
  'notes',
  [8, 15, 29, 43].map((n) => [
    n,
    { ...planTask(nine, 3, true), notes: planTask(nine, 3, true).notes.slice(0, n) },
    3,
  ]),
);
grows(
  'strings',
  [4, 5, 6, 7, 8, 9].map((n) => {
    const neck = neckOf({
      ...DEFAULT_INSTRUMENT,
      tuning: tuningById('nine-standard')!.tuning.slice(-n),
      frets: 24,
    });
    return [n, planTask(neck, 1, true), 3];
  }),
);
grows(
  'frets',
  [15, 19, 24, 27].map((frets) => [frets, planTask(neckOf({ ...DEFAULT_INSTRUMENT, frets }), 2, false), 3]),
);
const worked = [...WORKED, ...WORKED_IN_SCHOOLS].map((w) => ({
  asked: w.asked,
  at: placeOf(w, 3),
  ms: times(5, 1, () => plan(w.task, 1))[0]!,
}));
console.log(
  `worked climbs: ${worked.filter(({ at }) => at === 1).length} of ${worked.length} are the easiest way, ${worked.filter(({ at }) => at > 0).length} among three`,
);
for (const { asked, at, ms } of worked) console.log(`  ${asked}: ${at || 'none'}, ${ms.toFixed(1)} ms`);
console.log('tunings that fit');
const shape = {
  key: { root: note('D'), scale: scaleById('mixolydian')! },
  layout: { kind: 'count', counts: [3] },
};
for (const many of [5, 10, 20, 40, TUNINGS.length]) {
  const tunings = TUNINGS.slice(0, many);
  row(
    `  ${many} tunings, one shape, against laying it out on each alone`,
    times(
      5,
      2,
      () => fitTunings(tunings, [shape], DEFAULT_INSTRUMENT, hand),
      () =>
        tunings.forEach((t) =>
          layOut(neckOf({ ...DEFAULT_INSTRUMENT, tuning: t.tuning }), shape.key, shape.layout),
        ),
    ),
  );
}
const short = { ...twoUp, notes: twoUp.notes.slice(0, 4) };
row(
  '  4 notes, 3 ways, against trying all of them',
  times(
    5,
    1,
    () => plan(short, 3),
    () => everyWay(short),
  ),
);

/** A phrase of as many notes as can be kept, by seed, with a slur on every fifth. */
const random = seeded(7);
let midi = 57;
const long: Tune = Array.from({ length: PHRASE_LIMITS.notes }, (_, i) => {
  midi += Math.round(random() * 8 - 4);
  if (midi < 45) midi += 7;
  if (midi > 76) midi -= 7;
  return { midi, string: null, length: 480, ...(i % 5 === 1 && { joined: 'slur' as const }) };
});
const ground = {
  neck: six,
  key: { root: note('A'), scale: scaleById('natural-minor')! },
  hand: { school: 'onePerFret', spanMm: 110 },
  plain: 3,
  tempo: 100,
} as const;
row(
  'a phrase of 500 notes placed anew, against each note at the nearest place',
  times(
    3,
    1,
    () => placesOfPhrase(ground, long, {}, 6),
    () => long.reduce<Place>((at, it) => nearestPlace(six, it.midi!, at) ?? at, { string: 3, fret: 5 }),
  ),
);
