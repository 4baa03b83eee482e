import fc from 'fast-check';
import { Note, Scale as TonalScale, ScaleType } from 'tonal';
import {
  CATALOGUE,
  chooseRoot,
  degree,
  findScales,
  frequency,
  intervalVector,
  mends,
  midiName,
  mod,
  nameNotes,
  note,
  noteName,
  offsetsFromSteps,
  parseFormula,
  parseNote,
  parsePitch,
  pitchClass,
  pretty,
  ROOTS,
  scaleById,
  scaleFromToggles,
  stepsOf,
  simplerRoot,
  solfa,
  spellScale,
  TUNINGS,
  parseTuning,
  readTuning,
  tuningCalled,
  tuningLetters,
  tuningWords,
  tuningText,
  crossings,
} from './core.ts';
import { anyKey, key, tuning } from './helpers.ts';

const names = (root: string, scale: string): string => spellScale(key(root, scale)).map(noteName).join(' ');

describe('notes', () => {
  test('pitches follow the MIDI numbering and ISO 16', () => {
    // MIDI 1.0: middle C is note 60. ISO 16: A4 = 440 Hz. E2 and E4 from the equal-temperament table.
    expect(['C4', 'A4', 'E2', 'Cb4', 'B#3'].map((p) => parsePitch(p))).toEqual(
      [60, 69, 40, 59, 60].map((value) => ({ ok: true, value })),
    );
    expect(frequency(69)).toBe(440);
    expect(frequency(40)).toBeCloseTo(82.407, 3);
    expect(frequency(64)).toBeCloseTo(329.628, 3);
    expect(midiName(70, 'flats')).toBe('Bb4');
  });

  test('every note name agrees with the reference library on pitch class and frequency', () => {
    for (const letter of 'CDEFGAB')
      for (const signs of ['', '#', 'b', '##', 'bb']) {
        const n = note(letter + signs);
        expect(pitchClass(n)).toBe(Note.chroma(letter + signs));
        expect(frequency(Note.midi(`${letter}${signs}3`)!)).toBeCloseTo(Note.freq(`${letter}${signs}3`)!, 6);
      }
  });

  test('refuses what is not a note and says what to write', () => {
    for (const bad of ['H', 'F#b', '', 'A####'])
      expect(parseNote(bad)).toMatchObject({ ok: false, error: { code: 'note.unknown' } });
    expect(parsePitch('E')).toMatchObject({
      ok: false,
      error: { message: expect.stringContaining('octave') },
    });
  });

  test('prints accidentals', () => {
    expect(['F#', 'Bb', 'Bbb', 'bb7', 'b3', '#4', 'F##'].map(pretty)).toEqual([
      'F♯',
      'B♭',
      'B♭♭',
      '♭♭7',
      '♭3',
      '♯4',
      'F♯♯',
    ]);
    expect(solfa(degree('b3'))).toBe('me');
  });
});

describe('scales', () => {
  // tonal 6.4.3 names its scale types; core does not use it. Scales it spells with other letters are compared as sounds.
  const known = CATALOGUE.flatMap((scale) => {
    const type = ScaleType.all().find((t) =>
      [t.name, ...t.aliases].some((n) =>
        [scale.name, ...scale.aliases].map((x) => x.toLowerCase()).includes(n),
      ),
    );
    return type ? [{ scale, type }] : [];
  });

  test('the catalogue is large, every entry is findable, and ids are unique', () => {
    expect(CATALOGUE.length).toBeGreaterThanOrEqual(45);
    expect(new Set(CATALOGUE.map((s) => s.id)).size).toBe(CATALOGUE.length);
    for (const s of CATALOGUE) {
      expect(s.steps.reduce((a, b) => a + b, 0)).toBe(12);
      expect(s.steps.every((x) => x > 0)).toBe(true);
      for (const n of [s.name, ...s.aliases]) expect(findScales(n)).toContain(s);
    }
    expect(findScales('aeolian')[0]!.id).toBe('natural-minor');
    expect(findScales('Ionian')[0]!.id).toBe('major');
  });

  test('modes are rotations of their parents', () => {
    for (const s of CATALOGUE.filter((c) => c.parent)) {
      const parent = scaleById(s.parent!.id)!;
      const start = parent.offsets[s.parent!.mode - 1]!;
      const rotated = parent.offsets.map((o) => mod(o - start, 12)).sort((a, b) => a - b);
      expect([s.id, ...s.offsets]).toEqual([s.id, ...rotated]);
    }
  });

  test('steps and spelling agree with the reference library in all keys that players use', () => {
    expect(known.length).toBeGreaterThanOrEqual(40);
    const chroma = (offsets: readonly number[]): string =>
      Array.from({ length: 12 }, (_, i) => (offsets.includes(i) ? '1' : '0')).join('');
    expect(known.map(({ scale }) => [scale.id, chroma(scale.offsets)])).toEqual(
      known.map(({ scale, type }) => [scale.id, type.chroma]),
    );
    for (const id of [
      'major',
      'natural-minor',
      'dorian',
      'phrygian',
      'lydian',
      'mixolydian',
      'locrian',
      'harmonic-minor',
      'major-pentatonic',
      'minor-pentatonic',
      'minor-blues',
    ])
      for (const root of ROOTS.flat()) {
        const reference =
          { 'natural-minor': 'minor', 'harmonic-minor': 'harmonic minor', 'minor-blues': 'minor blues' }[
            id
          ] ?? id.replace('-', ' ');
        expect(names(root, id)).toBe(TonalScale.get(`${root} ${reference}`).notes.join(' '));
      }
  });

  test('interval vectors agree with the published set classes', () => {
    // Forte, The Structure of Atonal Music, 1973, appendix: 7-35, 7-34, 7-32, 5-35, 6-35, 8-28, 6-20 (values from memory).
    const table: [string, string][] = [
      ['major', '254361'],
      ['melodic-minor', '254442'],
      ['harmonic-minor', '335442'],
      ['minor-pentatonic', '032140'],
      ['whole-tone', '060603'],
      ['diminished-half-whole', '448444'],
      ['augmented', '303630'],
    ];
    for (const [id, vector] of table)
      expect([id, intervalVector(scaleById(id)!.offsets).join('')]).toEqual([id, vector]);
  });

  test('a seven-note scale uses each letter once; the flat fifth of A blues is Eb', () => {
    expect(names('F#', 'dorian')).toBe('F# G# A B C# D# E');
    expect(names('A', 'minor-blues')).toBe('A C D Eb E G');
    fc.assert(
      fc.property(anyKey, (k) => {
        const spelled = spellScale(k);
        spelled.forEach((n, i) =>
          expect(mod(pitchClass(n) - pitchClass(k.root), 12)).toBe(k.scale.offsets[i]),
        );
        if (k.scale.degrees.length === 7) expect(new Set(spelled.map((n) => n.letter)).size).toBe(7);
      }),
    );
  });

  test('names a set of notes from any root', () => {
    const found = nameNotes([9, 0, 2, 4, 7]).map((n) => `${n.root} ${n.scale.id}`);
    expect(found).toEqual(expect.arrayContaining(['9 minor-pentatonic', '0 major-pentatonic']));
    expect(nameNotes([0, 1, 2])).toEqual([]);
  });

  test('offers the simpler enharmonic root, with the reason', () => {
    const better = simplerRoot(note('G#'), scaleById('major')!)!;
    expect(noteName(better.root)).toBe('Ab');
    expect(better.reason).toContain('double accidental');
    expect(simplerRoot(note('Db'), scaleById('major')!)).toBeNull();
    expect(noteName(chooseRoot(1, scaleById('natural-minor')!).root)).toBe('C#');
    expect(noteName(chooseRoot(10, scaleById('minor-blues')!, 'sharps').root)).toBe('Bb');
  });
});

describe('formulas', () => {
  test('steps, degrees, notes and toggles give the same scale', () => {
    for (const text of [
      'W W H W W W H',
      '2 2 1 2 2 2 1',
      '1 2 3 4 5 6 7',
      'A B C# D E F# G#',
      'T T S T T T S',
    ])
      expect(parseFormula(text)).toMatchObject({ ok: true, value: { offsets: [0, 2, 4, 5, 7, 9, 11] } });
    expect(scaleFromToggles([3, 5, 7, 10])).toMatchObject({ ok: true, value: { offsets: [0, 3, 5, 7, 10] } });
  });

  test.each([
    ['WWHWWWH', 'W W H W W W H'],
    ['2212221', '2 2 1 2 2 2 1'],
    ['ttsttts', 'T T S T T T S'],
    ['WWH WWWH', 'W W H W W W H'],
    ['HW+HHWHW+HH', 'H W+H H W H W+H H'],
    ['12b345b6b7', '1 2 b3 4 5 b6 b7'],
    ['1♭34♭5♭7', '1 b3 4 b5 b7'],
    ['1234567', '1 2 3 4 5 6 7'],
    ['CDEbFGAbBb', 'C D Eb F G Ab Bb'],
    ['A–B–C–D–E', 'A B C D E'],
    ['1,2,♭3,5,6', '1 2 b3 5 6'],
    ['1#45', '1 #4 5'],
  ])('%s is read as %s', (together, spaced) => {
    const read = parseFormula(together);
    expect(read.ok).toBe(true);
    expect(read).toEqual(parseFormula(spaced));
  });

  test('a sum that misses the octave is said, and a step is blamed only where mending it gives a scale', () => {
    const short = parseFormula('W W H W W H H');
    // Rising steps that begin with a half step read as degrees by themselves, and as steps where they are said to be.
    expect(parseFormula('H W+H 8', 'steps')).toMatchObject({ ok: true, value: { offsets: [0, 1, 4] } });
    expect(stepsOf('W W H W W H H')).toEqual([2, 2, 1, 2, 2, 1, 1]);
    for (const other of ['1 2 b3 4 5', 'A B C', 'W W x', '']) expect(stepsOf(other)).toBeNull();
    expect(short).toMatchObject({ ok: false, error: { code: 'formula.octave' } });
    expect(!short.ok && short.error.message).toMatch(
      /add up to 11 half steps; an octave is 12: .*sixth step may be short by 1 \(then it is major\)/,
    );
    const hopeless = parseFormula('1 1 1 1 1 1');
    expect(!hopeless.ok && hopeless.error.message).toBe(
      'These steps add up to 6 half steps; an octave is 12.',
    );
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 5, maxLength: 8 }), (steps) => {
        const sum = steps.reduce((a, b) => a + b, 0);
        expect(offsetsFromSteps(steps).ok).toBe(sum === 12);
        for (const m of mends(steps))
          expect(m.scale.steps).toEqual(steps.map((s, i) => (i === m.step ? m.halfSteps : s)));
      }),
    );
  });

  test.each([
    ['', 'formula.empty'],
    ['W W Q', 'formula.token'],
    ['1 2 b3 3 b4', 'formula.twice'],
    ['b3 5 b7', 'formula.root'],
    ['bb2 3 5 7', 'formula.root'],
    ['1 3 5 #7', 'formula.twice'],
    ['1 b3 #2 5', 'formula.twice'],
    ['C Dbb E G', 'formula.twice'],
    ['A H', 'formula.token'],
    ['1 b8', 'formula.short'],
    ['12', 'formula.short'],
  ])('refuses %j with %s', (text, code) => {
    expect(parseFormula(text)).toMatchObject({ ok: false, error: { code } });
  });
});

describe('tunings', () => {
  test('finds sensible octaves where they are left out', () => {
    const table = [
      ['D A D G A D', 'D2 A2 D3 G3 A3 D4'],
      ['C G C G C E', 'C2 G2 C3 G3 C4 E4'],
      ['EADGCF', 'E2 A2 D3 G3 C4 F4'],
      ['B E A D F# B', 'B1 E2 A2 D3 F#3 B3'],
      ['E A D G', 'E1 A1 D2 G2'],
      ['B E A D G B E', 'B1 E2 A2 D3 G3 B3 E4'],
    ];
    for (const [typed, full] of table) expect(tuningText(tuning(typed!))).toBe(full);
  });

  test('letters are read near the instrument at hand, written together or in small letters too', () => {
    const six = tuning('E2 A2 D3 G3 B3 E4');
    const read = (text: string, at: readonly number[] = six): string | null => {
      const parsed = parseTuning(text, at);
      return parsed.ok
        ? [parsed.value.tuning, ...parsed.value.also].map((t) => tuningText(t)).join(' or ')
        : null;
    };
    expect(read('E A D G B')).toBe('E2 A2 D3 G3 B3 or E1 A1 D2 G2 B2');
    expect(read('E A D G B', tuning('D2 A2 D3 G3 B3 E4'))).toMatch(/^E2 A2 D3 G3 B3/);
    expect(read('A D G B E')).toBe('A2 D3 G3 B3 E4');
    expect(read('E A D G')).toBe('E2 A2 D3 G3 or E1 A1 D2 G2');
    expect(read('E A D G', tuning('E1 A1 D2 G2'))).toBe('E1 A1 D2 G2');
    expect(read('B E A D G')).toBe('B0 E1 A1 D2 G2');
    expect(read('B E A D G C')).toBe('B0 E1 A1 D2 G2 C3 or B1 E2 A2 D3 G3 C4');
    expect(read('B E A D G B E')).toBe('B1 E2 A2 D3 G3 B3 E4');
    expect(read('dadgad')).toBe('D2 A2 D3 G3 A3 D4');
    expect(read('DADGBE')).toBe('D2 A2 D3 G3 B3 E4');
    expect(read('eadgbe')).toBe('E2 A2 D3 G3 B3 E4');
    expect(read('Eb Ab Db Gb Bb eb')).toBe('D#2 G#2 C#3 F#3 A#3 D#4');
    expect(read('EbAbDbGbBbEb')).toBe('D#2 G#2 C#3 F#3 A#3 D#4');
    expect(read('ebabdbgbbbeb')).toBe('D#2 G#2 C#3 F#3 A#3 D#4');
    expect(read('d♯g♯c♯f♯a♯d♯')).toBe('D#2 G#2 C#3 F#3 A#3 D#4');
    expect(read('beadgbe')).toBe('B1 E2 A2 D3 G3 B3 E4');
    expect(read('e2a2d3g3b3e4')).toBe('E2 A2 D3 G3 B3 E4');
  });

  test('a tuning is found by its name or a nickname, and by the words for its strings', () => {
    const called = (text: string, strings = 6): string | null => {
      const read = readTuning(text, Array<number>(strings).fill(50));
      return read.ok ? tuningText(read.value.tuning) : null;
    };
    expect(called('drop d')).toBe('D2 A2 D3 G3 B3 E4');
    expect(called(' Drop-D tuning')).toBe('D2 A2 D3 G3 B3 E4');
    expect(called('drop D', 4)).toBe('D1 A1 D2 G2');
    expect(called('Eb standard')).toBe('D#2 G#2 C#3 F#3 A#3 D#4');
    expect(called('seven-string')).toBe('B1 E2 A2 D3 G3 B3 E4');
    expect(called('d a d g a d')).toBe('D2 A2 D3 G3 A3 D4');
    expect(readTuning('drop q', [40, 45, 50])).toMatchObject({ ok: false, error: { code: 'tuning.name' } });
    expect(readTuning('E A D H B E', [40, 45, 50])).toMatchObject({
      ok: false,
      error: { code: 'tuning.note' },
    });
    for (const t of TUNINGS)
      for (const name of [t.name, ...t.nicknames])
        expect([name, tuningCalled(name, t.tuning.length)?.id]).toEqual([name, t.id]);
    expect(tuningWords(tuning('D2 A2 D3 G3 B3 E4'))).toEqual(
      expect.arrayContaining(['drop D', 'six strings', 'six-string', '6-string']),
    );
    expect(tuningWords(tuning('C2 E2 G2'))).toEqual(['three-string', '3-string']);
  });

  test('no reading leaves the range of real strings, and every table tuning is read from its letters on its own instrument', () => {
    for (const t of TUNINGS) {
      const parsed = parseTuning(tuningLetters(t.tuning), t.tuning);
      expect([t.id, parsed.ok && parsed.value.tuning]).toEqual([t.id, t.tuning]);
    }
    const names = fc.constantFrom('C', 'D', 'E', 'F#', 'G', 'A', 'Bb');
    fc.assert(
      fc.property(
        fc.array(names, { minLength: 3, maxLength: 12 }),
        fc.constantFrom(...TUNINGS),
        (strings, { tuning: at }) => {
          const parsed = parseTuning(strings.join(' '), at);
          expect(parsed.ok).toBe(true);
          for (const m of parsed.ok ? parsed.value.tuning : []) {
            expect(m).toBeGreaterThanOrEqual(20 - 6);
            expect(m).toBeLessThanOrEqual(76 + 7);
          }
        },
      ),
    );
  });

  test('the table holds at least thirty tunings, each read back from its own text', () => {
    expect(TUNINGS.length).toBeGreaterThanOrEqual(30);
    for (const t of TUNINGS) expect(tuning(tuningText(t.tuning))).toEqual(t.tuning);
  });

  test('jogs against a fourth; re-entrant tunings are accepted; bad ones refused', () => {
    expect(crossings(tuning('E2 A2 D3 G3 B3 E4')).map((c) => c.jog)).toEqual([0, 0, 0, 1, 0]);
    expect(tuning('G4 C4 E4 A4')).toEqual([67, 60, 64, 69]);
    for (const [text, code] of [
      ['E A', 'tuning.count'],
      ['E A H G', 'tuning.note'],
      ['C-1 E A', 'tuning.range'],
    ])
      expect(parseTuning(text!)).toMatchObject({ ok: false, error: { code } });
  });
});
