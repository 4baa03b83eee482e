import fc from 'fast-check';
import { Chord as Reference, Mode, Note } from 'tonal';
import {
  arpeggioIn,
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
  chordClasses,
  chordNotes,
  chordSaid,
  chordsInTurn,
  gripsHolding,
  harmonise,
  isByThirds,
  mod,
  mostStacked,
  neckOf,
  DEFAULT_INSTRUMENT,
  note,
  noteName,
  pitchAt,
  pitchClass,
  romanOf,
  scaleById,
  showingChord,
  spanOn,
  spellScale,
} from './core.ts';
import { anyKey, anyNeck, anyScale, key, neckWith, positions } from './helpers.ts';

const C = note('C');
const rising = (of: Iterable<number>): readonly number[] => [...new Set(of)].sort((a, b) => a - b);
const names = (root: string, scale: string, size: number): string =>
  harmonise(key(root, scale), size)
    .map(({ chord }) => chordSaid(chord))
    .join(' ');

// Common practice, no source.
test.each([
  ['C', 'major', 4, 'Cmaj7 Dm7 Em7 Fmaj7 G7 Am7 Bm7♭5'],
  ['C', 'harmonic-minor', 4, 'Cm(maj7) Dm7♭5 E♭maj7(♯5) Fm7 G7 A♭maj7 Bdim7'],
  ['G', 'phrygian', 3, 'Gm A♭ B♭ Cm Ddim E♭ Fm'],
  ['F#', 'dorian', 3, 'F♯m G♯m A B C♯m D♯dim E'],
  ['C', 'major', 7, 'Cmaj13 Dm13 Em7(♭9,11,♭13) Fmaj13(♯11) G13 Am11(♭13) Bm7♭5(♭9,11,♭13)'],
])('%s %s, %i notes on each degree', (root, scale, size, said) => {
  expect(names(root, scale, size)).toBe(said);
});

test('both ways of Roman numerals count from the major scale', () => {
  const told = (scale: string, size: number, way: 'case' | 'capitals'): string =>
    harmonise(key('C', scale), size)
      .map(({ chord, degree }) => romanOf(scaleById(scale)!.degrees[degree]!, chord, way))
      .join(' ');
  expect(told('major', 3, 'case')).toBe('I ii iii IV V vi vii°');
  expect(told('major', 4, 'case')).toBe('Imaj7 ii7 iii7 IVmaj7 V7 vi7 viiø7');
  expect(told('harmonic-minor', 4, 'case')).toBe('i(maj7) iiø7 ♭IIImaj7(♯5) iv7 V7 ♭VImaj7 vii°7');
  expect(told('natural-minor', 4, 'capitals')).toBe('Im7 IIm7♭5 ♭IIImaj7 IVm7 Vm7 ♭VImaj7 ♭VII7');
});

test('what a mode is heard by is in the chord that shows it', () => {
  const shown = ['lydian', 'major', 'mixolydian', 'dorian', 'natural-minor', 'phrygian', 'locrian'].map(
    (id) => showingChord(key('C', id))!.suffix,
  );
  // Common practice, no source.
  expect(shown).toEqual(['maj7(#11)', 'maj7', '7', 'm6', 'm7(b13)', 'm7(b9)', 'm7b5']);
  for (const scale of CATALOGUE) {
    const chord = showingChord({ root: C, scale });
    const classes = chord ? chordClasses(chord) : [];
    expect(scale.offsets).toEqual(expect.arrayContaining([...classes]));
    expect(chord === null || classes.includes(0)).toBe(true);
  }
});

/** Our name as the reference library writes it. */
const theirs = (suffix: string): string =>
  suffix
    .replace('m(maj', 'mM')
    .replace('dim(maj', 'oM')
    .replace(/^\(b5\)/, 'Mb5')
    .replace(/[(),]/g, '');
const chroma = (of: readonly string[]): readonly number[] => rising(of.map((n) => Note.chroma(n)!));

test('chords of every scale are what a reference library makes of their names', () => {
  const known = new Set<string>();
  for (const scale of CATALOGUE)
    for (const size of [3, 4, 5, 6, 7])
      for (const { chord } of harmonise({ root: C, scale }, size)) {
        const it = Reference.get(noteName(chord.root) + theirs(chord.suffix ?? 'none'));
        // It adds the fifth to one whose fifth is flat.
        if (chord.suffix === null || it.empty || chord.suffix === '7(b5,b9)') continue;
        known.add(chord.suffix);
        const ours = rising(chordClasses(chord));
        // It leaves out the third, the eleventh or the ninth of the large ones, as players do.
        if (size > 5) expect(ours).toEqual(expect.arrayContaining([...chroma(it.notes)]));
        else expect([chord.suffix, ours]).toEqual([chord.suffix, chroma(it.notes)]);
      }
  expect(known.size).toBe(39);
});

test('the triads and sevenths of the seven modes are those of a reference library', () => {
  for (const [id, name] of [
    ['major', 'ionian'],
    ['natural-minor', 'aeolian'],
    ...['dorian', 'phrygian', 'lydian', 'mixolydian', 'locrian'].map((n) => [n, n]),
  ] as const)
    for (const root of ['C', 'F#', 'Bb', 'Eb']) {
      const plain = (size: number): readonly string[] =>
        harmonise(key(root, id!), size).map(({ chord }) => noteName(chord.root) + chord.suffix!);
      expect(plain(3)).toEqual(Mode.triads(name!, root));
      expect(plain(4)).toEqual(Mode.seventhChords(name!, root).map((n) => n.replace(/Maj7/i, 'maj7')));
    }
});

test('a chord of a scale is every other note of it, spelled as the scale is', () => {
  fc.assert(
    fc.property(anyKey, fc.integer({ min: 3, max: 7 }), (k, size) => {
      const spelled = spellScale(k);
      const many = k.scale.degrees.length;
      const chords = harmonise(k, size);
      expect(chords).toHaveLength(many);
      for (const { chord, tones, degree, over, mode } of chords) {
        expect(tones).toEqual(
          Array.from({ length: Math.min(size, mostStacked(k.scale)) }, (_, i) => (degree + 2 * i) % many),
        );
        expect(chordNotes(chord)).toEqual(tones.map((tone) => spelled[tone]));
        expect(new Set(tones).size).toBe(tones.length);
        expect(pitchClass(mode.root)).toBe(chordClasses(chord)[0]);
        if (isByThirds(k.scale))
          expect(chord.degrees.map((d) => d.number)).toEqual([1, 3, 5, 7, 2, 4, 6].slice(0, size));
        if (over) expect(rising(chordClasses(over))).toEqual(rising(chordClasses(chord)));
      }
    }),
  );
});

test('triads inside one octave from string 5 fret 3, hand at fret 2', () => {
  const k = key('C', 'major');
  const place = positions(k, { kind: 'inPosition', school: 'index', every: false }).find(
    (p) => p.indexFret === 2,
  )!;
  const triads = harmonise(k, 3).map(({ chord }) => chordClasses(chord));
  const lines = chordsInTurn(place, triads, 'octave');
  if (!lines.ok) throw new Error(lines.error.message);
  const said = lines.value.map((line) =>
    line.map(({ midi }) => 'C D EF G A B'[mod(midi, 12)]! + String(Math.floor(midi / 12) - 1)).join(' '),
  );
  // Common practice, no source: what would lie above the octave is taken below.
  expect(said).toEqual(['C3 E3 G3', 'D3 F3 A3', 'E3 G3 B3', 'F3 A3 C4', 'G3 B3 D3', 'A3 C4 E3', 'B3 D3 F3']);
  expect(lines.value[0]!.map(({ string, fret }) => `${string}/${fret}`)).toEqual(['5/3', '4/2', '4/5']);
});

test('arpeggios keep to their notes, begin on their bass and rise', () => {
  const anyRange = fc.constantFrom('octave' as const, 'all' as const);
  const neck = neckWith();
  fc.assert(
    fc.property(
      anyKey,
      fc.nat(6),
      fc.nat(6),
      fc.integer({ min: 3, max: 4 }),
      anyRange,
      (k, nth, turn, size, range) => {
        const all = positions(k, { kind: 'count', counts: [3] }, neck);
        const chords = harmonise(k, size);
        const { chord } = chords[nth % chords.length]!;
        const root = chordClasses(chord);
        const classes = [...root.slice(turn % root.length), ...root.slice(0, turn % root.length)];
        for (const position of all.slice(0, 3)) {
          const line = arpeggioIn(position, classes, range);
          if (!line.ok) continue;
          const midis = line.value.map((s) => s.midi);
          // An inversion has the very notes of the chord.
          expect(rising(midis.map((m) => mod(m, 12)))).toEqual(rising(root));
          expect(mod(midis[0]!, 12)).toBe(classes[0]);
          expect(midis).toEqual(rising(midis));
          if (range === 'octave') expect(midis.at(-1)! - midis[0]!).toBeLessThanOrEqual(12);
          const turned = chordsInTurn(
            position,
            chords.map((c) => chordClasses(c.chord)),
            range,
          );
          if (turned.ok)
            for (const one of turned.value) {
              const of = chords.find((c) => chordClasses(c.chord)[0] === mod(one[0]!.midi, 12))!;
              expect(one.map((s) => mod(s.midi, 12))).toEqual(chordClasses(of.chord));
              if (range === 'all') expect(one.map((s) => s.midi)).toEqual(rising(one.map((s) => s.midi)));
            }
        }
      },
    ),
  );
});

test('every grip can be held within its span, one note a string, all notes of its chord', () => {
  fc.assert(
    fc.property(anyNeck, anyScale, fc.integer({ min: 60, max: 140 }), (neck, scale, spanMm) => {
      const classes = chordClasses(harmonise({ root: C, scale }, 3)[0]!.chord);
      for (const grip of gripsHolding(neck, classes, { spanMm, most: 5 })) {
        const { places, mm } = grip;
        expect(rising(places.map((p) => mod(pitchAt(neck, p.string, p.fret), 12)))).toEqual(rising(classes));
        expect(new Set(places.map((p) => p.string)).size).toBe(places.length);
        const pressed = places.filter((p) => p.fret > 0);
        expect(places.every((p) => (p.fret === 0) === (p.finger === 0))).toBe(true);
        const frets = pressed.map((p) => p.fret);
        expect(mm).toBeCloseTo(frets.length ? spanOn(neck, Math.min(...frets), Math.max(...frets)) : 0);
        expect(mm).toBeLessThanOrEqual(spanMm);
        for (const a of pressed)
          for (const b of pressed) {
            if (a.fret < b.fret) expect(a.finger).toBeLessThan(b.finger);
            if (a !== b && a.finger === b.finger) expect([a.finger, a.fret]).toEqual([1, b.fret]);
          }
      }
    }),
    { numRuns: 12 },
  );
});

test('a plain search through all places of a short neck finds the same grips', () => {
  const neck = neckOf({ ...DEFAULT_INSTRUMENT, tuning: [40, 45, 50, 55, 59], frets: 4 });
  /** Whether four fingers hold it: each its own, or the index over all strings at the lowest fret. */
  const holds = (frets: readonly number[]): boolean => {
    const pressed = frets.filter((f) => f > 0);
    if (pressed.length <= 4) return true;
    const low = Math.min(...pressed);
    return frets.every((f) => f >= low) && frets.filter((f) => f === low).length >= 2;
  };
  for (const classes of [
    [0, 4, 7],
    [9, 0, 4],
    [7, 11, 2, 5],
    [2, 6, 9],
  ]) {
    const plain = new Set<string>();
    for (let from = 0; from < 5; from++)
      for (let to = from + 1; to <= 5; to++) {
        const strings = neck.rising.slice(from, to);
        for (let n = 0; n < 5 ** strings.length; n++) {
          const frets = strings.map((_, i) => Math.floor(n / 5 ** i) % 5);
          const sounds = strings.map((s, i) => mod(pitchAt(neck, s, frets[i]!), 12));
          const pressed = frets.filter((f) => f > 0);
          const fits = !pressed.length || spanOn(neck, Math.min(...pressed), Math.max(...pressed)) <= 100;
          if (fits && holds(frets) && String(rising(sounds)) === String(rising(classes)))
            plain.add(strings.map((s, i) => `${s}/${frets[i]}`).join(' '));
        }
      }
    const found = gripsHolding(neck, classes, { spanMm: 100 });
    expect(found.map((g) => g.places.map((p) => `${p.string}/${p.fret}`).join(' ')).toSorted()).toEqual(
      [...plain].toSorted(),
    );
    expect(found.map((g) => g.mm)).toEqual(found.map((g) => g.mm).toSorted((a, b) => a - b));
  }
});

test('chords of a hand: an index finger laid over all strings, and open strings near the nut alone', () => {
  const grips = gripsHolding(neckWith(), [5, 9, 0], { spanMm: 110 });
  // F major as it is held at the first fret. Common practice, no source.
  const barre = grips.find((g) => g.places.map((p) => p.fret).join(' ') === '1 3 3 2 1 1')!;
  expect([barre.places.map((p) => p.finger), barre.fingers, barre.barre]).toEqual([
    [1, 3, 4, 2, 1, 1],
    4,
    true,
  ]);
  for (const { places } of gripsHolding(neckWith(), [4, 8, 11], { spanMm: 110 }))
    if (places.some((p) => p.fret === 0))
      expect(Math.max(...places.map((p) => p.fret))).toBeLessThanOrEqual(5);
});

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
