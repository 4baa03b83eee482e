import {
  CATALOGUE, DEFAULT_INSTRUMENT, finger, type Key, layOut, LAYOUTS, type Neck, neckOf, note, pitchClass, ROOTS, scaleById, tuningById, usualSpec,
} from '../src/index.ts'; // prettier-ignore

/** Median time of a call in ms, after a warm-up. */
function time(run: () => unknown, rounds = 40): number {
  for (let i = 0; i < 5; i++) run();
  const taken = Array.from({ length: rounds }, () => {
    const start = performance.now();
    run();
    return performance.now() - start;
  });
  return taken.sort((a, b) => a - b)[rounds >> 1]!;
}

/** The same positions found as on paper: up each string fret by fret, asking at every fret whether its note is in the scale. */
function plainPositions(neck: Neck, key: Key, perString: number): number {
  const pcs = key.scale.offsets.map((o) => (o + pitchClass(key.root)) % 12);
  const inScale = (midi: number): boolean => pcs.some((pc) => pc === midi % 12);
  let spots = 0;
  const lowest = neck.open[neck.rising[0]! - 1]!;
  for (let fret = 0; fret <= neck.frets; fret++) {
    if (!inScale(lowest + fret)) continue;
    const position: { string: number; fret: number; midi: number }[] = [];
    let midi = lowest + fret;
    for (const string of neck.rising)
      for (let n = 0; n < perString; n++) {
        while (!inScale(midi)) midi++;
        position.push({ string, fret: midi - neck.open[string - 1]!, midi });
        midi++;
      }
    if (position.every((s) => s.fret >= 0 && s.fret <= neck.frets)) spots += position.length;
  }
  return spots;
}

/** A fingering without any search: the finger that the fret asks for, the hand moved whenever it does not reach. */
function plainFingering(run: readonly { fret: number }[]): number[] {
  let hand = run[0]!.fret;
  return run.map(({ fret }) => {
    if (fret < hand || fret > hand + 3) hand = fret < hand ? fret : fret - 3;
    return fret - hand + 1;
  });
}

const row = (what: string, ms: number, base: number): void =>
  console.log(
    `${what.padEnd(58)} ${ms.toFixed(3).padStart(9)} ms   plain ${base.toFixed(3).padStart(8)} ms   ratio ${(ms / base).toFixed(1)}`,
  );

const six = neckOf({ ...DEFAULT_INSTRUMENT, frets: 24 });
const nine = neckOf({ ...DEFAULT_INSTRUMENT, tuning: tuningById('nine-standard')!.tuning, frets: 27 });
const major: Key = { root: note('A'), scale: scaleById('major')! };
const three = { kind: 'count', counts: [3] } as const;

for (const [name, neck] of [
  ['6-string', six],
  ['9-string', nine],
] as const)
  row(
    `all three-note positions, ${name}`,
    time(() => layOut(neck, major, three)),
    time(() => plainPositions(neck, major, 3)),
  );

const roots = ROOTS.map((names) => note(names[0]!));
const atlas = (): number => {
  let positions = 0;
  for (const scale of CATALOGUE)
    for (const root of roots)
      for (const { kind } of LAYOUTS) {
        const result = layOut(six, { root, scale }, usualSpec(kind, scale, 6, 6));
        if (result.ok) positions += result.value.length;
      }
  return positions;
};
const plainAtlas = (): void => {
  for (const scale of CATALOGUE)
    for (const root of roots) LAYOUTS.forEach(() => plainPositions(six, { root, scale }, 3));
};
console.log(
  `the atlas holds ${atlas()} positions: ${CATALOGUE.length} scales x 12 roots x ${LAYOUTS.length} layouts; its baseline lays every layout out by count`,
);
row('the whole atlas, one 6-string', time(atlas, 3), time(plainAtlas, 3));

const positions = layOut(nine, major, three);
const twenty = positions.ok ? positions.value[4]!.spots.slice(0, 20) : [];
const run = (n: number) =>
  Array.from({ length: n }, (_, i) => twenty[(i % 38 < 20 ? i % 38 : 38 - (i % 38)) % 20]!);
const hand = { school: 'onePerFret' } as const;
row(
  'fingering of a 20-note position',
  time(() => finger(nine, twenty, hand)),
  time(() => plainFingering(twenty)),
);
for (const n of [100, 200, 400, 800]) {
  const notes = run(n);
  const ms = time(() => finger(nine, notes, hand));
  row(
    `fingering of a ${n}-note run (${((1000 * ms) / n).toFixed(2)} µs a note)`,
    ms,
    time(() => plainFingering(notes)),
  );
}
