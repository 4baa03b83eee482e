import fc from 'fast-check';
import { Chord as Reference, Mode, Note } from 'tonal';
import {
  arpeggioIn,
  CATALOGUE,
  chordClasses,
  chordNotes,
  chordSaid,
  chordsInTurn,
  chordUnder,
  fingersHolding,
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

test('every scale has a chord that is held under it, of its own notes', () => {
  const under = (id: string) => chordUnder(key('C', id))?.suffix;
  // Common practice, no source.
  expect(['minor-pentatonic', 'minor-blues', 'major-pentatonic', 'whole-tone', 'dorian'].map(under)).toEqual([
    'm7',
    'm7',
    '6',
    '7(#5)',
    'm6',
  ]);
  const none = CATALOGUE.filter((scale) => {
    const chord = chordUnder({ root: C, scale });
    expect(scale.offsets).toEqual(expect.arrayContaining(chord ? [...chordClasses(chord)] : []));
    return chord === null;
  });
  // Without a perfect fifth, and without a third over a flat one, there is none.
  expect(none.map((s) => s.name)).toEqual(['Locrian bb3 bb7', 'Iwato']);
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

// Common practice, no source.
test.each([
  ['6 8 8', '134'],
  ['3 2 0 1', '3201'],
  ['2 2 2', '123'],
  ['7 7 5', '341'],
])('the fingers of a grip at frets %s are %s', (frets, fingers) => {
  const places = frets.split(' ').map((fret, i) => ({ string: 5 - i, fret: Number(fret) }));
  expect(
    fingersHolding(places)!
      .map((p) => p.finger)
      .join(''),
  ).toBe(fingers);
});
