import fc from 'fast-check';
import {
  aligned,
  type Alignment,
  type AskedNote,
  extrasOf,
  FAULTLESS,
  heldSo,
  holesOf,
  listener,
  type NoteVerdict,
  pairCost,
  scheduleOf,
  seeded,
  standInPlays,
  standInSounds,
  summaryOf,
} from './core.ts';
import { GUITARS, listened, noFigures, quantile, RATE, runOn, tally } from './hearing.ts';

/** A line of steps and leaps, no note twice in a row, in even time. */
const line = fc
  .record({
    first: fc.integer({ min: 45, max: 70 }),
    steps: fc.array(fc.constantFrom(-4, -2, -1, 1, 2, 3, 5), { minLength: 4, maxLength: 20 }),
    length: fc.constantFrom(0.125, 0.2, 0.5, 1),
  })
  .map(({ first, steps, length }): readonly AskedNote[] => {
    let midi = first;
    return [0, ...steps].map((step, i) => ({ midi: (midi += step), at: i * length, length }));
  });
const plainly = (notes: readonly AskedNote[]): readonly { midi: number; at: number }[] =>
  notes.map(({ midi, at }) => ({ midi, at }));
const said = ({ answered, extra }: Alignment): unknown => ({ answered, extra });

test('a perfect round is all right, in any constant delay, and in any tempo of the player', () => {
  fc.assert(
    fc.property(
      line,
      fc.double({ min: 0, max: 0.4, noNaN: true }),
      fc.double({ min: 0.7, max: 1.4, noNaN: true }),
      (asked, delay, tempo) => {
        const all = asked.map((_, heard) => ({ is: 'right', heard }));
        const late = plainly(asked).map((n) => ({ ...n, at: n.at + delay }));
        expect(aligned(asked, late, 'click').answered).toEqual(all);
        const own = late.map((n) => ({ ...n, at: n.at * tempo + 3 }));
        const of = aligned(asked, own, 'own');
        expect(of.answered).toEqual(all);
        expect(of.fit.tempo).toBeCloseTo(tempo, 6);
      },
    ),
    { numRuns: 100 },
  );
});

test('one wrong note is one wrong note, one left out is one missed, one more is one extra', () => {
  fc.assert(
    fc.property(line, fc.nat(), fc.constantFrom(-2, -1, 1, 2), (asked, n, by) => {
      const i = n % asked.length;
      const played = plainly(asked);
      const wrong = aligned(
        asked,
        played.map((p, k) => (k === i ? { ...p, midi: p.midi + by } : p)),
        'click',
      );
      expect(wrong.answered.map((a) => a.is)).toEqual(asked.map((_, k) => (k === i ? 'wrong' : 'right')));
      const missed = aligned(
        asked,
        played.filter((_, k) => k !== i),
        'click',
      );
      expect(missed.answered.map((a) => a.is)).toEqual(asked.map((_, k) => (k === i ? 'missed' : 'right')));
      const between = { midi: asked[i]!.midi + 6, at: asked[i]!.at + asked[i]!.length / 2 };
      const more = aligned(asked, [...played.slice(0, i + 1), between, ...played.slice(i + 1)], 'click');
      expect(said(more)).toMatchObject({ extra: [i + 1] });
      expect(more.answered.every((a) => a.is === 'right')).toBe(true);
    }),
    { numRuns: 100 },
  );
});

/** The least cost of all ways to pair two rows in order. */
function exhaustive(
  asked: readonly AskedNote[],
  heard: readonly { midi: number; at: number }[],
  fit: Alignment['fit'],
): number {
  const [a, ...as] = asked;
  const [h, ...hs] = heard;
  if (!a) return heard.length;
  if (!h) return asked.length;
  return Math.min(
    1 + exhaustive(as, heard, fit),
    1 + exhaustive(asked, hs, fit),
    pairCost(a, h, fit) + exhaustive(as, hs, fit),
  );
}
test('of all ways to pair short rounds the cheapest is taken', () => {
  const heard = fc
    .array(
      fc.record({ midi: fc.integer({ min: 58, max: 62 }), at: fc.double({ min: 0, max: 2, noNaN: true }) }),
      { maxLength: 6 },
    )
    .map((notes) => notes.sort((a, b) => a.at - b.at));
  const asked = fc
    .array(fc.integer({ min: 58, max: 62 }), { minLength: 1, maxLength: 5 })
    .map((pitches) => pitches.map((midi, i) => ({ midi, at: i * 0.3, length: 0.3 })));
  fc.assert(
    fc.property(asked, heard, (a, h) => {
      const { answered, extra, fit } = aligned(a, h, 'own');
      const cost = answered.reduce(
        (sum, it, i) => sum + (it.is === 'missed' ? 1 : pairCost(a[i]!, h[it.heard]!, fit)),
        extra.length,
      );
      expect(cost).toBeCloseTo(exhaustive(a, h, fit), 9);
    }),
    { numRuns: 500 },
  );
});

test('who rushes is followed, and a late note stays late', () => {
  const asked = Array.from({ length: 40 }, (_, i) => ({ midi: 57 + (i % 7), at: i * 0.15, length: 0.15 }));
  const rushed = plainly(asked).map((n) => ({ ...n, at: n.at * 0.93 }));
  expect(aligned(asked, rushed, 'click').answered.every((a) => a.is === 'right')).toBe(true);
});

const [guitar, seven, bass] = GUITARS as [(typeof GUITARS)[0], (typeof GUITARS)[0], (typeof GUITARS)[0]];
test.each([
  [
    'a guitar, sixteenths at 120, detuned by 20 cents',
    { guitar, run: runOn(guitar, 2, 4), tempo: 120, faults: { ...FAULTLESS, jitter: 6, detuned: 20 } },
  ],
  [
    'a seven-string whose notes ring on, in noise',
    {
      guitar: seven,
      run: runOn(seven, 0, 2),
      tempo: 90,
      faults: { ...FAULTLESS, jitter: 6, ringing: 300, noise: -43 },
    },
  ],
  [
    'a bass with hum',
    {
      guitar: bass,
      run: runOn(bass, 1, 2),
      tempo: 120,
      faults: { ...FAULTLESS, jitter: 6, hum: -46, noise: -50 },
    },
  ],
  [
    'a guitar with slurs',
    { guitar, run: runOn(guitar, 4, 2, 'slurred'), tempo: 110, faults: { ...FAULTLESS, jitter: 6 } },
  ],
  [
    'a guitar late by a tenth of a second, with mistakes',
    {
      guitar,
      run: runOn(guitar, 5, 3),
      tempo: 90,
      faults: { ...FAULTLESS, jitter: 8, delay: 100, wrong: 2, missed: 2, doubled: 1 },
    },
  ],
] as const)('what the stand-in plays is heard: %s', (_, it) => {
  const figures = noFigures();
  tally(figures, listened({ ...it, seed: 5 }), it.faults.detuned);
  // Asked are 95 % of the notes, 99 % of them right in pitch, 1 % false, and times within 10 ms for 95 %.
  expect(figures.found / figures.sounding).toBeGreaterThanOrEqual(0.95);
  expect(figures.pitch / figures.found).toBeGreaterThanOrEqual(0.99);
  expect(figures.heard).toBe(figures.found);
  expect(quantile(figures.told, 0.95)).toBeLessThan(10);
  expect(figures.right).toBe(figures.verdicts);
  // Intonation in cents, in the middle; strings that ring on blur it.
  if (!it.faults.ringing) expect(quantile(figures.cents, 0.5)).toBeLessThan(5);
});

test('what becomes of a note is said within 100 ms of it, long before the next one, and stays; one that is missed, once it is due', () => {
  const run = runOn(guitar, 3, 2);
  const faults = { ...FAULTLESS, jitter: 6, delay: 30, wrong: 1, missed: 1, doubled: 1 };
  const { played, verdicts, told, asked, heard } = listened({ guitar, run, tempo: 60, faults, seed: 6 });
  const after = played.flatMap(({ step, at }) => (step === null ? [] : [(told.get(step)! - at) * 1000]));
  expect(after).toHaveLength(run.length - 1);
  expect(Math.max(...after)).toBeLessThan(100);
  const missed = verdicts.findIndex((v) => v.is === 'missed');
  expect(told.get(missed)! - asked[missed]!.at).toBeGreaterThan(0.5);
  const doubled = played.findIndex(({ kind }) => kind === 'doubled');
  const { step, midi } = played[doubled - 1]!;
  expect(extrasOf(asked, heard)).toEqual([{ midi, after: step }]);
});

test('slides that arrive with no stroke are heard where they arrive', () => {
  const picked = runOn(guitar, 2, 2);
  const run = picked.map((step, i) =>
    i % 3 === 2 && picked[i - 1]!.spot.string === step.spot.string
      ? { ...step, arrive: 'slide' as const }
      : step,
  );
  const figures = noFigures();
  const it = listened({ guitar, run, tempo: 80, faults: { ...FAULTLESS, jitter: 6 }, seed: 2 });
  tally(figures, it, 0);
  expect(figures.slurred).toBeGreaterThan(3);
  expect(figures.slurredFound).toBe(figures.slurred);
  expect(figures.right).toBe(run.length);
  expect(it.heard.extra).toEqual([]);
});

test('a late finger is late, the others are in time, and the round says which move was late', () => {
  const run = runOn(guitar, 3, 2);
  const faults = { ...FAULTLESS, jitter: 3, delay: 90, lateFinger: 4, late: 70 };
  const { verdicts, heard } = listened({ guitar, run, tempo: 100, faults, seed: 3 });
  const timing = verdicts.map((v) => (v.is === 'missed' ? v.is : v.timing));
  expect(timing).toEqual(run.map(({ finger }) => (finger === 4 ? 'late' : 'in time')));
  const said = summaryOf(run, verdicts, heard.extra.length);
  expect(said).toMatchObject({ right: run.length, wrong: 0, missed: 0, extra: 0, clean: false });
  const fourth = run.filter(({ finger }) => finger === 4).length;
  expect(said.mean).toBeCloseTo((70 * fourth) / run.length, -1);
});

test('what is said of a round follows from its notes', () => {
  const run = runOn(guitar, 3, 2).slice(0, 6);
  const right = (off: number, level = -20, cents = 4): NoteVerdict => ({
    is: 'right',
    midi: 60,
    cents,
    off,
    within: 20,
    timing: Math.abs(off) < 20 ? 'in time' : off < 0 ? 'early' : 'late',
    near: Math.abs(off) < 40,
    level,
    bent: null,
  });
  const even = run.map((_, i) => right(i % 2 ? 10 : -10, i % 2 ? -23 : -20));
  expect(summaryOf(run, even, 0)).toMatchObject({
    right: 6,
    mean: 0,
    spread: 10,
    accent: 3,
    cents: 4,
    clean: true,
  });
  expect(summaryOf(run, even, 1).clean).toBe(false);
  expect(summaryOf(run, [{ is: 'missed' }, ...even.slice(1)], 0)).toMatchObject({ missed: 1, clean: false });
  // The crossing to the next string comes 60 ms after the others.
  const crossing = run.findIndex((step, i) => i > 0 && step.spot.string !== run[i - 1]!.spot.string);
  const late = summaryOf(
    run,
    run.map((_, i) => right(i === crossing ? 60 : 0)),
    0,
  );
  expect(late.lateMoves).toEqual([{ step: crossing, move: 'crossing', ms: 60 }]);
  expect(late.clean).toBe(false);
  const bent = even.map((v, i) => (v.is === 'right' ? { ...v, bent: i === 2 ? -31 : 4 } : v));
  expect(summaryOf(run, bent, 0).offBends).toEqual([{ step: 2, cents: -31 }]);
});

test('bends are told within 10 cents, at once and slowly, let go or held, and are no other notes', () => {
  for (const [nth, it] of GUITARS.entries())
    for (const [k, how] of (['once', 'slowly'] as const).entries())
      for (const short of [0, 30]) {
        const by = [0.5, 1, 2, 3][(nth + 2 * k) % 4]!;
        const run = runOn(it, 3, 1)
          .slice(0, 9)
          .map((step, i) => {
            const held = heldSo(step, { bend: { by, how, released: k === nth % 2 } }, it.plain);
            return i % 3 === 1 && held.ok ? held.value.step : step;
          });
        const faults = { ...FAULTLESS, jitter: 5, noise: -60, short };
        const { verdicts, heard } = listened({ guitar: it, run, tempo: 60 + 40 * nth, faults, seed: 4 });
        expect(heard.extra).toEqual([]);
        expect(verdicts.map((v) => v.is)).toEqual(run.map(() => 'right'));
        const told = verdicts.flatMap((v) => (v.is === 'missed' || v.bent === null ? [] : [v.bent]));
        expect(told).toHaveLength(run.filter(({ bend }) => bend).length);
        expect(told.length).toBeGreaterThan(1);
        for (const cents of told) expect(Math.abs(cents + short)).toBeLessThan(10);
      }
});

test('a note that rings long is one note, on every string', () => {
  for (const it of [guitar, bass]) {
    const run = runOn(it, 2, 1)
      .slice(0, 4)
      .map((step, i) => ({ ...step, start: i * 3840, length: 3840 }));
    const { heard } = listened({
      guitar: it,
      run,
      tempo: 150,
      faults: { ...FAULTLESS, ringing: 300, noise: -50 },
      seed: 1,
    });
    expect(heard.heard).toHaveLength(run.length);
  }
});

test('what a loudspeaker gives back of the click is left out', () => {
  const run = runOn(guitar, 1, 3);
  const { clicks } = scheduleOf(run, { tempo: 90, swing: 50, beatsPerBar: 4, countIn: 1, endsOn: 3840 });
  const faults = { ...FAULTLESS, jitter: 8, delay: 60, wrong: 1, missed: 1 };
  const own = clicks.map(({ at }) => at);
  // A click as the metronome's, 10 dB softer, 25 ms later.
  const sound = (samples: Float32Array): void => {
    for (const at of own)
      for (let i = 0; i < 0.04 * RATE; i++)
        samples[Math.round((at + 0.025) * RATE) + i]! +=
          0.16 * Math.sin((2 * Math.PI * 1175 * i) / RATE) * Math.exp((-120 * i) / RATE);
  };
  const { verdicts, heard } = listened({ guitar, run, tempo: 90, faults, seed: 4 }, { own, sound });
  const count = (is: string): number => verdicts.filter((v) => v.is === is).length;
  expect([count('right'), count('wrong'), count('missed'), heard.extra.length]).toEqual([
    run.length - 2,
    1,
    1,
    0,
  ]);
});

test('sound that is lost for some milliseconds begins no note, and hides none', () => {
  const figures = noFigures();
  for (const it of GUITARS)
    for (const [at, noise] of [
      [0, null],
      [1, null],
      [2, -43],
    ] as const) {
      const chance = seeded(7);
      const lose = (samples: Float32Array, at: number): void =>
        void samples.fill(0, at * RATE, (at + 0.01 + 0.01 * chance()) * RATE);
      // Some three times a second, or amid the pluck of every third note.
      const sound = (samples: Float32Array): void => {
        if (noise) for (let at = 3; at < samples.length / RATE; at += 1.125) lose(samples, at + 0.014);
        else for (let at = 2.5; at < samples.length / RATE; at += 0.15 + 0.3 * chance()) lose(samples, at);
      };
      const faults = { ...FAULTLESS, ...(noise && { noise }) };
      const round = listened(
        { guitar: it, run: runOn(it, at, 2), tempo: 80, faults, seed: 8 },
        { own: [], sound },
      );
      tally(figures, round, 0);
    }
  expect(figures.found).toBe(figures.sounding);
  expect(figures.pitch / figures.found).toBeGreaterThan(0.98);
  expect((figures.heard - figures.found) / figures.heard).toBeLessThan(0.02);
});

test('nothing for a moment amid what is loud is a hole; what dies away is none, nor is a rest that is over', () => {
  const tone = (loud: (i: number) => number): Float32Array =>
    Float32Array.from({ length: RATE }, (_, i) => loud(i) * Math.sin((2 * Math.PI * 110 * i) / RATE));
  const half = RATE / 2;
  const around = (loud: (i: number) => number): number => {
    const holes = holesOf(RATE);
    holes.hear(tone(loud));
    const { from, to } = holes.clear(half - 1000, half + 2000);
    return to - from;
  };
  const hole = around((i) => (i >= half && i < half + 480 ? 0 : 0.5));
  expect(hole).toBeLessThan(1520);
  expect(hole).toBeGreaterThan(1300);
  expect(around((i) => (i < half ? 0.5 * Math.exp((i - half + 600) / -96) : i < half + 480 ? 0 : 0.5))).toBe(
    3000,
  );
  const rest = holesOf(RATE);
  rest.hear(tone((i) => (i < half || i > 1.8 * half ? 0.5 : 0)));
  expect(rest.clear(1.3 * half, 2 * half)).toEqual({ from: 1.3 * half, to: 2 * half });
});

test('noise with hum holds no notes, and how sound comes in pieces changes nothing of what is heard', () => {
  const chance = seeded(3);
  const hum = Float32Array.from(
    { length: 2 * RATE },
    (_, i) => 0.02 * (chance() - 0.5) + 0.01 * Math.sin((2 * Math.PI * 50 * i) / RATE),
  );
  const quiet = listener(RATE, { low: 34, high: 80 });
  expect([...quiet.hear(hum), ...quiet.end()]).toEqual([]);
  const run = runOn(guitar, 0, 4);
  const { notes } = scheduleOf(run, { tempo: 100, swing: 50, beatsPerBar: 4, countIn: 1, endsOn: 3840 });
  const sound = standInSounds(standInPlays(run, notes, guitar, FAULTLESS, 1), FAULTLESS, 5, RATE, 1);
  const inPieces = (size: number): unknown => {
    const ear = listener(RATE, { low: 34, high: 80 });
    const heard = Array.from({ length: Math.ceil(sound.length / size) }, (_, i) =>
      ear.hear(sound.subarray(i * size, (i + 1) * size)),
    );
    return [...heard.flat(), ...ear.end()];
  };
  const whole = inPieces(sound.length);
  expect(whole).toHaveLength(notes.length);
  expect(inPieces(128)).toEqual(inPieces(4096));
});
