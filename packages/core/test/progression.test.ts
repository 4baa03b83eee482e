import fc from 'fast-check';
import {
  BLUES_WAYS,
  isBlues,
  lineCost,
  type LineSlot,
  lineThrough,
  type ProgressionChord,
  progressionClasses,
  readBars,
  scaleOver,
  scalesOver,
  slotsOf,
  type SymbolRead,
  voiceMoves,
  VOICING,
  voicings,
  CATALOGUE,
  mod,
  note,
  pitchClass,
} from './core.ts';
import { key } from './helpers.ts';

const seventh = (above: number, ...degrees: string[]): ProgressionChord => ({
  above,
  suffix: '7',
  degrees: degrees.length ? degrees : ['1', '3', '5', 'b7'],
  bass: null,
});
/** A reader of what stands in these tests. */
const plainRead = (symbol: string): SymbolRead | null => {
  const [, name, suffix = ''] = /^([A-G][b#]?)(m7b5|m7|maj7|dim|m|7|)$/.exec(symbol) ?? [];
  return name ? { root: pitchClass(note(name)), suffix, degrees: ['1'], bass: null } : null;
};

test('a progression is read bar by bar, by symbol and by numeral, and what is not understood is named with its bar', () => {
  const read = (text: string, within: 'major' | 'minor' = 'major') => readBars(text, 9, within, plainRead);
  const heights = (text: string, within?: 'major' | 'minor'): unknown => {
    const bars = read(text, within);
    return bars.ok ? bars.value.map((bar) => bar.map((c) => c.above + c.suffix)) : bars.error.message;
  };
  expect(heights('A7 | D7 A7 | E7 % | A7 E7')).toEqual([['07'], ['57', '07'], ['77', '77'], ['07', '77']]);
  expect(heights('| I7 | % |\n iim7 viim7b5 |')).toEqual([['07'], ['07'], ['2m7', '11m7b5']]);
  expect(heights('i | III | ♭VI | vii° | iiø7', 'minor')).toEqual([
    ['0m'],
    ['3'],
    ['8'],
    ['10dim'],
    ['2m7b5'],
  ]);
  expect(heights('VI')).toEqual([['9']]);
  expect(heights('A7 | D7 Hx')).toMatch(/^Bar 2: “Hx” is not understood/);
  expect(heights('% | A7')).toMatch(/^Bar 1 begins with %/);
  expect(heights(' | ')).toMatch(/^Type at least one chord/);
  expect(heights('A7 A7 A7 A7 A7 A7 A7 A7 A7')).toMatch(/^Bar 1 has more than 8 chords/);
  expect(
    slotsOf([[seventh(0)], [seventh(5), seventh(0)], [seventh(0)]], 4).map((s) => [s.at, s.beats]),
  ).toEqual([
    [0, 4],
    [4, 2],
    [6, 6],
  ]);
});

test('scales over a chord: what they hold, what rubs, and the common ways over a blues', () => {
  const over = (chord: ProgressionChord, scale: string) =>
    scaleOver(progressionClasses(chord, 9), key('A', scale), 0);
  // Common practice, no source: A Mixolydian holds A7, A Dorian D7; A Aeolian has G against the G sharp of E7.
  expect(over(seventh(0), 'mixolydian').missing).toEqual([]);
  expect(over(seventh(5), 'dorian').missing).toEqual([]);
  expect([over(seventh(7), 'natural-minor').missing, over(seventh(7), 'natural-minor').clashes]).toEqual([
    [8],
    [
      [9, 8],
      [0, 11],
      [5, 4],
      [7, 8],
    ],
  ]);
  const found = scalesOver(
    progressionClasses(seventh(0), 9),
    CATALOGUE.map((scale) => ({ root: note('A'), scale })),
    () => 0,
  );
  found.slice(1).forEach((it, i) => {
    const before = found[i]!;
    expect(
      before.held > it.held || (before.held === it.held && before.clashes.length <= it.clashes.length),
    ).toBe(true);
  });
  const blues = [[seventh(0)], [seventh(5)], [seventh(7)]];
  expect([
    isBlues(blues),
    isBlues(blues.slice(1)),
    isBlues([...blues, [seventh(2, '1', 'b3', '5')]]),
  ]).toEqual([true, false, true]);
  const three = BLUES_WAYS.find(({ id }) => id === 'three')!;
  expect([0, 5, 7].map((above) => three.over(above).scale)).toEqual([
    'mixolydian',
    'dorian',
    'natural-minor',
  ]);
});

test('a line through chords has a note of the chord on each first beat, and is the cheapest of all lines', () => {
  const anySlot = fc
    .record({ root: fc.nat(11), notes: fc.integer({ min: 1, max: 2 }) })
    .map(({ root, notes }): LineSlot => ({
      notes,
      firsts: [0],
      tones: [0, 4, 7].map((o) => (root + o) % 12),
      scale: [0, 2, 4, 5, 7, 9, 10].map((o) => (root + o) % 12),
    }));
  const spots = Array.from({ length: 14 }, (_, i) => ({ string: 1, fret: i, midi: 60 + i, degree: -1 }));
  fc.assert(
    fc.property(fc.array(anySlot, { minLength: 1, maxLength: 3 }), (slots) => {
      const line = lineThrough(spots, slots);
      if (!line.ok) throw new Error(line.error.message);
      const may = slots.flatMap((slot) =>
        Array.from({ length: slot.notes }, (_, i) => ({ slot, isFirst: slot.firsts.includes(i) })),
      );
      const midis = line.value.map((s) => s.midi);
      const reach = spots.map((s) => s.midi);
      const fits = (midi: number, i: number): boolean =>
        (may[i]!.isFirst ? may[i]!.slot.tones : may[i]!.slot.scale).includes(mod(midi, 12));
      midis.forEach((midi, i) => expect(fits(midi, i)).toBe(true));
      const costOf = (of: readonly number[]): number => {
        let [sum, way]: [number, 1 | -1] = [0, 1];
        for (let i = 1; i < of.length; i++) {
          const among = reach.filter((m) => may[i]!.slot.scale.includes(mod(m, 12)));
          const step = lineCost(of[i - 1]!, of[i]!, way, among);
          [sum, way] = [sum + step.cost, step.way];
        }
        return sum;
      };
      const every = (i: number): readonly (readonly number[])[] =>
        i === may.length
          ? [[]]
          : (i === 0 ? [midis[0]!] : reach.filter((m) => fits(m, i))).flatMap((m) =>
              every(i + 1).map((rest) => [m, ...rest]),
            );
      expect(costOf(midis)).toBeCloseTo(Math.min(...every(0).map(costOf)), 9);
    }),
    { numRuns: 40 },
  );
  expect(lineThrough([], [{ notes: 1, firsts: [0], tones: [0], scale: [0] }]).ok).toBe(false);
});

test('chords that sound move as little as they can, their bass note first', () => {
  const blues = [0, 5, 0, 7].map((above) => progressionClasses(seventh(above), 3));
  const sounding = voicings(blues.map((classes) => ({ classes, bass: classes[0]! })));
  sounding.forEach(([bass, ...upper], i) => {
    expect(mod(bass!, 12)).toBe(blues[i]![0]);
    expect(bass).toBeLessThan(Math.min(...upper));
    expect(blues[i]).toEqual(expect.arrayContaining(upper.map((m) => mod(m, 12))));
    // The third and the seventh are what tells them.
    expect(upper.map((m) => mod(m - blues[i]![0]!, 12))).toEqual(expect.arrayContaining([4, 10]));
  });
  const moved = (line: readonly (readonly number[])[]): number =>
    line.slice(1).reduce((sum, chord, i) => sum + voiceMoves(line[i]!, chord), 0);
  const upper = sounding.map(([, ...rest]) => rest);
  // Every placing of three chords' upper notes.
  const placed = (of: readonly number[]): readonly (readonly number[])[] => {
    const classes = of.map((m) => mod(m, 12));
    const range = Array.from(
      { length: VOICING.upper[1] - VOICING.upper[0] + 1 },
      (_, i) => VOICING.upper[0] + i,
    );
    return classes
      .reduce<readonly (readonly number[])[]>(
        (so, pc) => so.flatMap((c) => range.filter((m) => mod(m, 12) === pc).map((m) => [...c, m])),
        [[]],
      )
      .map((c) => [...c].sort((a, b) => a - b));
  };
  const [a, b, c] = upper.slice(0, 3).map(placed);
  const least = Math.min(...a!.flatMap((x) => b!.flatMap((y) => c!.map((z) => moved([x, y, z])))));
  expect(
    moved(
      voicings(blues.slice(0, 3).map((classes) => ({ classes, bass: classes[0]! }))).map(([, ...u]) => u),
    ),
  ).toBe(least);
});
