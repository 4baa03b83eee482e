import fc from 'fast-check';
import { Key as TonalKey } from 'tonal';
import {
  alteredBy,
  clefFor,
  comfortable,
  countOf,
  fastestClean,
  fingers,
  inTime,
  type Key,
  keySignature,
  ledgersOf,
  midiOf,
  noteName,
  note,
  pitchClass,
  QUARTER,
  type Run,
  type Score,
  stepAWeek,
  scoreOf,
  shiftsOf,
  spelledIn,
  spellScale,
  ANSWERED,
  inTurns,
  droneOf,
  triadOn,
  scaleById,
} from './core.ts';
import { articulate } from './core.ts';
import { anyKey, count, HAND, key, neckWith, positions } from './helpers.ts';

const A = positions(key('A', 'major'), count(3)).find((p) => p.lowFret >= 4)!;
const steps = articulate(fingers(neckWith(), A.spots, HAND).steps);
/** A run of notes of lengths in ticks, with rests where a length is below 0. */
function runOf(lengths: readonly number[]): Run {
  let at = 0;
  const run: Run[number][] = [];
  lengths.forEach((length, i) => {
    if (length > 0) run.push({ ...steps[i % steps.length]!, start: at, length });
    at += Math.abs(length);
  });
  return run;
}
const sign = (k: Key): number => keySignature(k);

describe('key signatures', () => {
  // The reference library’s table of major and minor keys, and common practice for what is no mode of the major scale.
  test('major and minor keys have those of the reference library', () => {
    for (const tonic of ['C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#', 'F', 'Bb', 'Eb', 'Ab', 'Db', 'Gb', 'Cb'])
      expect([tonic, sign(key(tonic, 'major'))]).toEqual([tonic, TonalKey.majorKey(tonic).alteration]);
    for (const tonic of ['A', 'E', 'B', 'F#', 'C#', 'G#', 'D#', 'D', 'G', 'C', 'F', 'Bb', 'Eb', 'Ab']) {
      const expected = TonalKey.minorKey(tonic).alteration;
      for (const scale of [
        'natural-minor',
        'harmonic-minor',
        'melodic-minor',
        'minor-pentatonic',
        'minor-blues',
      ])
        expect([tonic, scale, sign(key(tonic, scale))]).toEqual([tonic, scale, expected]);
    }
  });
  test.each([
    ['A', 'dorian', 1],
    ['E', 'phrygian', 0],
    ['F', 'lydian', 0],
    ['D', 'mixolydian', 1],
    ['B', 'locrian', 0],
    ['Eb', 'lydian', -2],
    ['G', 'major-pentatonic', 1],
    ['E', 'phrygian-dominant', 0],
  ] as const)('%s %s', (root, scale, expected) => expect(sign(key(root, scale))).toBe(expected));
  test('a mode needs no accidental beside its signature', () => {
    for (const scale of ['major', 'dorian', 'phrygian', 'lydian', 'mixolydian', 'natural-minor', 'locrian'])
      for (const root of ['C', 'G', 'D', 'A', 'E', 'F', 'Bb']) {
        const k = key(root, scale);
        for (const n of spellScale(k))
          expect([noteName(n), alteredBy(sign(k), n.letter)]).toEqual([noteName(n), n.alteration]);
      }
  });
});

describe('spelling', () => {
  test('notes of the scale have their own names; others the one that a neighbouring key has', () => {
    const name = (k: Key, midi: number): string => noteName(spelledIn(k, midi));
    // A Dorian down in A natural minor has F natural; E blues in E minor has B flat; A major borrows C natural and F natural.
    expect(name(key('A', 'dorian'), 65)).toBe('F');
    expect(name(key('A', 'major'), 60)).toBe('C');
    expect(name(key('E', 'minor-blues'), 70)).toBe('Bb');
    expect(name(key('Gb', 'major'), 71)).toBe('Cb');
    expect(name(key('C', 'major'), 66)).toBe('F#');
    expect(name(key('C', 'major'), 70)).toBe('Bb');
    fc.assert(
      fc.property(anyKey, fc.integer({ min: 20, max: 100 }), (k, midi) => {
        const n = spelledIn(k, midi);
        expect(pitchClass(n)).toBe(midi % 12);
        expect(Math.abs(n.alteration)).toBeLessThanOrEqual(2);
      }),
    );
  });
});

/** A score as text: values, a dot, r for a rest, ~ where it is tied on from before; bars between bars. */
const said = ({ bars }: Score): string =>
  bars
    .map((b) =>
      b.items
        .map((i) => `${i.value}${i.dotted ? '.' : ''}${i.step === null ? 'r' : i.first ? '' : '~'}`)
        .join(' '),
    )
    .join(' | ');
const Q = QUARTER;

describe('lengths as they are written', () => {
  test.each<[string, readonly number[], string]>([
    ['quarters', [Q, Q, Q, Q], '4 4 4 4'],
    ['eighths, and the bar filled up', [Q / 2, Q / 2, Q / 2], '8 8 8 8r 2r'],
    ['triplets', [320, 320, 320, 3 * Q], '8 8 8 2.'],
    ['sextuplets', [160, 160, 160, 160, 160, 160, 3 * Q], '16 16 16 16 16 16 2.'],
    ['a dotted rhythm', [(3 * Q) / 4, Q / 4, 3 * Q], '8. 16 2.'],
    ['over the bar line it is tied', [3 * Q, 2 * Q, 3 * Q], '2. 4 | 4~ 2.'],
    ['over a beat it is tied', [Q / 2, Q, Q / 2, 2 * Q], '8 8 8~ 8 2'],
    ['a quarter in a triplet', [640, 320, 3 * Q], '4 8 2.'],
    ['rests between', [Q, -Q, Q, -Q], '4 4r 4 4r'],
    // Common practice, no source: no rest is dotted in four beats, and only that of a whole bar crosses its middle.
    ['three beats of rest at the end', [Q, -3 * Q], '4 4r 2r'],
    ['three beats of rest at the beginning', [-3 * Q, Q], '2r 4r 4'],
    ['two beats of rest over the middle', [Q, -2 * Q, Q], '4 4r 4r 4'],
    ['a bar of rest', [4 * Q, -4 * Q, 4 * Q], '1 | 1r | 1'],
  ])('%s', (_, lengths, expected) => {
    expect(said(scoreOf(runOf(lengths), key('A', 'major')))).toBe(expected);
  });
  test('beams and tuplets go by the beat', () => {
    const [bar] = scoreOf(
      runOf([Q / 2, Q / 2, 320, 320, 320, Q / 4, Q / 4, Q / 2, Q]),
      key('A', 'major'),
    ).bars;
    expect(bar!.beams).toEqual([
      [0, 1],
      [2, 3, 4],
      [5, 6, 7],
    ]);
    expect(bar!.tuplets).toEqual([{ from: 2, to: 4, actual: 3, normal: 2 }]);
  });
  test('it counts', () => {
    const line = (perBeat: 1 | 2 | 3 | 4): string =>
      inTime(steps.slice(0, 8), perBeat)
        .map((s) => countOf(s.start, 4))
        .join(' ');
    expect(line(4)).toBe('1 e + a 2 e + a');
    expect(line(2)).toBe('1 + 2 + 3 + 4 +');
    expect(line(3)).toBe('1 · · 2 · · 3 ·');
    expect(line(1)).toBe('1 2 3 4 1 2 3 4');
  });
  test('a length of no written form is an error of the code that asks', () => {
    expect(() => scoreOf(runOf([100, 860]), key('A', 'major'))).toThrow(RangeError);
  });
  test('whatever the lengths, items fill their bars, each step has its length and its pitch an octave up', () => {
    const beat = fc.constantFrom(
      [Q],
      [Q / 2, Q / 2],
      [320, 320, 320],
      [Q / 4, Q / 4, Q / 2],
      [160, 160, 160, 160, 160, 160],
      [-Q / 2, Q / 2],
      [-320, 640],
      [(3 * Q) / 4, Q / 4],
    );
    const long = fc.constantFrom([2 * Q], [3 * Q], [5 * Q], [-2 * Q], [Q + Q / 2, Q / 2]);
    fc.assert(
      fc.property(fc.array(fc.oneof(beat, long), { minLength: 1, maxLength: 12 }), anyKey, (beats, k) => {
        const run = runOf(beats.flat());
        fc.pre(run.length > 0);
        const score = scoreOf(run, k);
        const lengths = run.map(() => 0);
        for (const { items } of score.bars) {
          expect(items.reduce((sum, i) => sum + i.length, 0)).toBe(4 * Q);
          for (const { step, length, pitch } of items) {
            if (step === null) continue;
            lengths[step]! += length;
            expect(midiOf(pitch!.note, pitch!.octave)).toBe(run[step]!.spot.midi + 12);
          }
        }
        expect(lengths).toEqual(run.map((s) => s.length));
        const firsts = score.bars.flatMap((b) => b.items.flatMap((i) => (i.first ? [i.start] : [])));
        expect(firsts).toEqual(run.map((s) => s.start));
      }),
    );
  });
  test('call and answer: two bars sound, two are free, and the answer is written as rests', () => {
    const run = inTurns(
      inTime(
        Array.from({ length: 12 }, (_, i) => steps[i]!),
        1,
      ),
      4,
      ANSWERED,
    );
    expect(run.map((s) => s.start / Q)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 16, 17, 18, 19]);
    expect(said(scoreOf(run, key('A', 'major'), { until: 32 * Q }))).toBe(
      '4 4 4 4 | 4 4 4 4 | 1r | 1r | 4 4 4 4 | 1r | 1r | 1r',
    );
  });
});

describe('what a visit begins with', () => {
  const round = (at: string, tempo: number, clean: boolean) => ({
    day: `2026-06-${at}`,
    tempo,
    clean,
  });
  test('a step below the fastest clean tempo of the last day that had one', () => {
    expect(comfortable([])).toBeNull();
    expect(comfortable([round('01', 120, false)])).toBeNull();
    const rounds = [
      round('01', 140, true),
      round('02', 90, true),
      round('02', 100, true),
      round('02', 110, false),
      round('03', 120, false),
    ];
    expect(comfortable(rounds)).toBe(95);
    expect(comfortable([round('01', 30, true)])).toBe(30);
    expect(fastestClean(rounds)).toBe(140);
    // What was played elsewhere, or nothing said of, is no measure.
    expect(comfortable([{ day: '2026-06-09', tempo: null, clean: true }, ...rounds])).toBe(95);
    expect(fastestClean([{ day: '2026-06-09', tempo: 200, clean: null }, ...rounds])).toBe(140);
  });
});

test('the step a week leads to the goal in the days that are left', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 20, max: 300 }),
      fc.integer({ min: 20, max: 300 }),
      fc.integer({ min: 1, max: 400 }),
      (from, to, days) => {
        const step = stepAWeek({ from, to, days })!;
        expect(from + (step * days) / 7).toBeGreaterThanOrEqual(Math.min(to, from));
        if (to > from)
          expect([from + (step * days) / 7 >= to, from + ((step - 1) * days) / 7 < to]).toEqual([true, true]);
        else expect(step).toBe(0);
      },
    ),
  );
  expect([stepAWeek({ from: 90, to: 120, days: 0 }), stepAWeek({ from: 120, to: 90, days: -3 })]).toEqual([
    null,
    0,
  ]);
});

describe('plain chords', () => {
  // Chords of the major and the natural minor key: common practice, no source.
  test('of each degree', () => {
    const triads = (id: string) =>
      scaleById(id)!
        .offsets.map((_, i) => triadOn(scaleById(id)!, i)?.slice(0, 3) ?? '-')
        .join(' ');
    expect(triads('major')).toBe('maj min min maj maj min -');
    expect(triads('natural-minor')).toBe('min - maj min min maj maj');
    expect(triads('minor-pentatonic')).toBe('min maj - - -');
    expect(triadOn(scaleById('whole-tone')!, 0)).toBeNull();
  });
  test('a drone is the root, or its chord, from E2 up', () => {
    expect(droneOf(key('A', 'dorian'), 'root')).toEqual([45, 57]);
    expect(droneOf(key('A', 'dorian'), 'chord')).toEqual([45, 52, 57, 60]);
    expect(droneOf(key('Eb', 'major'), 'chord')).toEqual([51, 58, 63, 67]);
    expect(droneOf(key('B', 'locrian'), 'chord')).toEqual([47, 59]);
    for (const root of ['C', 'E', 'F#'])
      expect(droneOf(key(root, 'major'), 'root')[0]! % 12).toBe(pitchClass(note(root)));
  });
});

test('what would need more than four ledger lines is written an octave nearer, with what lies beside and between; all of it in the other clef', () => {
  // Heights are letters from C in octave 0: the top line of a treble staff is 38, its lowest 30; of a bass staff 26 and 18.
  expect([47, 48, 34, 28, 22, 20].map((h) => ledgersOf(h, 'treble'))).toEqual([4, 5, 0, -1, -4, -5]);
  expect(shiftsOf([47, 48, 56, 30, 20], 'treble')).toEqual([1, 1, 2, 0, -1]);
  // Nothing is written more than two octaves away.
  expect(shiftsOf([64], 'treble')).toEqual([2]);
  // Two that need it have what lies high between them written with them, what lies low not.
  expect(shiftsOf([48, 45, 43, 48], 'treble')).toEqual([1, 1, 1, 1]);
  expect(shiftsOf([48, 30, 48], 'treble')).toEqual([1, 0, 1]);
  // Beside such ones: as far as more than two ledger lines would be needed.
  expect(shiftsOf([38, 42, 44, 46, 48, 42], 'treble')).toEqual([0, 0, 1, 1, 1, 0]);
  expect(clefFor([10, 12, 14, 40], 'treble')).toBe('bass');
  expect(clefFor([20, 24, 30, 40], 'treble')).toBe('treble');
  expect(clefFor([40, 42, 44], 'bass')).toBe('treble');
});
