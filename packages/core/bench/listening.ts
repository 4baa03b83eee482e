import { PitchDetector } from 'pitchy';
import { FAULTLESS, type Faults, type Touch } from '../test/core.ts';
import { type Figures, GUITARS, listened, noFigures, quantile, RATE, runOn, tally } from '../test/hearing.ts';

/** What a condition changes of the stand-in. */
const CONDITIONS: readonly {
  readonly name: string;
  readonly faults: Partial<Faults>;
  readonly touch?: Touch;
}[] = [
  { name: 'clean', faults: { jitter: 6 } },
  { name: 'noise 35 dB below', faults: { jitter: 6, noise: -43 } },
  { name: 'ringing 0.3 s', faults: { jitter: 6, ringing: 300 } },
  { name: 'detuned by 20 cents', faults: { jitter: 6, detuned: 20 } },
  { name: 'detuned by −20 cents', faults: { jitter: 6, detuned: -20 } },
  { name: 'uneven by 8 dB', faults: { jitter: 6, uneven: 8 } },
  { name: 'hum and noise', faults: { jitter: 6, noise: -50, hum: -46 } },
  { name: 'slurred', faults: { jitter: 6 }, touch: 'slurred' },
  { name: 'mistakes', faults: { jitter: 10, wrong: 2, missed: 2, doubled: 2, delay: 120 } },
  { name: 'rushing', faults: { jitter: 8, tempo: 0.98, delay: 60 } },
  {
    name: 'all at once',
    faults: { jitter: 8, noise: -46, ringing: 200, detuned: 12, uneven: 6, wrong: 1, missed: 1 },
  },
];
/** Quarters a minute, with notes a beat. */
const SPEEDS = [
  [60, 2],
  [60, 4],
  [90, 3],
  [120, 4],
  [150, 2],
  [180, 2],
  [180, 4],
] as const;

const only = process.argv[2];
const percent = (part: number, of: number): string =>
  (of ? `${((100 * part) / of).toFixed(1)} %` : '–').padStart(8);
const row = (name: string, f: Figures): void =>
  console.log(
    `${name.padEnd(34)}${percent(f.found, f.sounding)}${percent(f.pitch, f.found)}${percent(f.heard - f.found, f.heard)}` +
      `${quantile(f.off, 0.95).toFixed(1).padStart(8)}${quantile(f.told, 0.95).toFixed(1).padStart(8)}${percent(f.slurredFound, f.slurred)}${percent(f.right, f.verdicts)}${quantile(f.cents, 0.95).toFixed(1).padStart(8)}`,
  );
console.log(`${''.padEnd(34)}   found   pitch   false  on p95 told p95  slurs  verdict  cents p95`);
const all = noFigures();
for (const { name, faults, touch } of CONDITIONS) {
  if (only && !name.includes(only)) continue;
  for (const guitar of GUITARS) {
    const figures = noFigures();
    SPEEDS.forEach(([tempo, perBeat], k) => {
      const it = { ...FAULTLESS, ...faults };
      const run = runOn(guitar, k, perBeat, touch);
      const result = listened({ guitar, run, tempo, faults: it, seed: 11 * k + 3 });
      tally(figures, result, it.detuned);
      tally(all, result, it.detuned);
    });
    row(`${name}, ${guitar.name}`, figures);
  }
}
row('all', all);

// The same sound, beside a blind method: McLeod's (pitchy) on the sound after each beginning that was found.
console.log(`\n${'pitch of what was found'.padEnd(34)} knowing what may come       blind`);
for (const { name, faults, touch } of CONDITIONS) {
  if (only && !name.includes(only)) continue;
  const [knowing, blind] = [noFigures(), { found: 0, right: 0 }];
  for (const guitar of GUITARS)
    SPEEDS.forEach(([tempo, perBeat], k) => {
      const it = { ...FAULTLESS, ...faults };
      const result = listened({
        guitar,
        run: runOn(guitar, k, perBeat, touch),
        tempo,
        faults: it,
        seed: 11 * k + 3,
      });
      tally(knowing, result, it.detuned);
      const size = guitar.voice === 'bass' ? 4096 : 2048;
      const detector = PitchDetector.forFloat32Array(size);
      for (const note of result.played) {
        const heard = result.heard.heard.find(({ at }) => Math.abs(at - note.at) < 0.05);
        if (!heard) continue;
        const from = Math.round((heard.at + 0.004) * RATE);
        const piece = new Float32Array(size);
        piece.set(result.samples.subarray(from, from + size));
        const [hz] = detector.findPitch(piece, RATE);
        blind.found++;
        if (hz > 0 && Math.round(69 + 12 * Math.log2(hz / 440) - it.detuned / 100) === note.midi)
          blind.right++;
      }
    });
  console.log(
    `${name.padEnd(34)}${percent(knowing.pitch, knowing.found).padStart(22)}${percent(blind.right, blind.found).padStart(14)}`,
  );
}
