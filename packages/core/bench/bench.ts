import {
  CATALOGUE, DEFAULT_INSTRUMENT, fingers, type Key, layOut, layouts, neckOf, note, placements, positionNames, ROOTS, scaleById, tuningById, usualSpec,
} from '../src/index.ts'; // prettier-ignore
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
for (const layout of layouts()) {
  // What a layout refuses is not worked out either way.
  const cases = keys
    .map((key) => ({ key, spec: usualSpec(layout, { scale: key.scale, string: 6, strings: 6 }) }))
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
    for (const layout of layouts()) {
      const spec = usualSpec(layout, { scale: key.scale, string: 6, strings: 6 });
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
