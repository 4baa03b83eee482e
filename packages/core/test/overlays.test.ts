import fc from 'fast-check';
import { Chord, Note, Pcset } from 'tonal';
import {
  blendOf,
  CATALOGUE,
  degreeHalfSteps,
  CHORD_KINDS,
  chordClasses,
  chordsHolding,
  type Key,
  mod,
  note,
  overlayOf,
  overlaySaid,
  pitchAt,
  pitchClass,
  positionChange,
  sameNotes,
  scaleOver,
  scaleById,
  scalesHolding,
  setFacts,
  sideOf,
  withDegreeMoved,
} from './core.ts';
import { anyKey, anyScale, count, key, neckWith, positions } from './helpers.ts';

const neck = neckWith('E2 A2 D3 G3 B3 E4', 22);
const classes = ({ root, scale }: Key): readonly number[] =>
  scale.offsets.map((o) => mod(pitchClass(root) + o, 12)).sort((a, b) => a - b);
const sorted = (of: readonly number[]): readonly number[] => [...of].sort((a, b) => a - b);

// Common practice, no source.
test.each([
  [
    'A',
    'minor-pentatonic',
    'A',
    'natural-minor',
    'Natural minor is minor pentatonic plus 2 and ♭6: B and F.',
  ],
  ['A', 'minor-pentatonic', 'A', 'minor-blues', 'Minor blues is minor pentatonic plus ♭5: E♭.'],
  ['F#', 'natural-minor', 'F#', 'dorian', 'Dorian is natural minor with 6 for ♭6: D♯ for D.'],
  [
    'Eb',
    'natural-minor',
    'Eb',
    'locrian',
    'Locrian is natural minor with ♭2 for 2 and ♭5 for 5: F♭ for F and B♭♭ for B♭.',
  ],
  [
    'A',
    'natural-minor',
    'A',
    'minor-pentatonic',
    'Minor pentatonic is natural minor without 2 and ♭6: B and F.',
  ],
  [
    'A',
    'minor-pentatonic',
    'A',
    'major-pentatonic',
    'Major pentatonic is minor pentatonic with 3 for ♭3, plus 2 and 6 and without 4 and ♭7: C♯ for C; B and F♯; D and G.',
  ],
  ['C', 'major', 'A', 'natural-minor', 'A natural minor has the very notes of C major.'],
  ['C', 'major', 'G', 'major', 'G major is C major with F♯ for F.'],
  ['C', 'major', 'C', 'major', 'Major is laid over itself.'],
  [
    'C',
    'major-pentatonic',
    'F#',
    'major-pentatonic',
    'F♯ major pentatonic has no note of C major pentatonic.',
  ],
])('%s %s under %s %s: %#', (root, scale, other, second, said) => {
  expect(overlaySaid(overlayOf(key(root, scale), key(other, second)))).toBe(said);
});

test('an overlay parts the notes of both, and its changes make the second of the first', () => {
  fc.assert(
    fc.property(anyKey, anyKey, (first, second) => {
      const it = overlayOf(first, second);
      const { both, first: a, second: b } = it.notes;
      expect(sorted([...both, ...a])).toEqual(classes(first));
      expect(sorted([...both, ...b])).toEqual(classes(second));
      const heights = it.changes.map(({ from, to }) =>
        mod(
          from === null
            ? pitchClass(second.root) + second.scale.offsets[to!]! - pitchClass(first.root)
            : first.scale.offsets[from]!,
          12,
        ),
      );
      expect(heights).toEqual(sorted(heights));
      const made = new Set(classes(first));
      for (const { from } of it.changes)
        if (from !== null) made.delete(mod(pitchClass(first.root) + first.scale.offsets[from]!, 12));
      for (const { to } of it.changes)
        if (to !== null) made.add(mod(pitchClass(second.root) + second.scale.offsets[to]!, 12));
      expect(sorted([...made])).toEqual(classes(second));
      for (let midi = 40; midi < 52; midi++) {
        const side = [both, a, b].findIndex((of) => of.includes(midi % 12));
        expect(sideOf(it, midi)).toBe([null, 'both', 'first', 'second'][side + 1]);
      }
      expect(overlayOf(first, first).changes).toEqual([]);
    }),
  );
});

test('what must change of a position: an altered note moves a fret on its string, one that comes in lies between its frets', () => {
  const [minor] = positions(key('A', 'natural-minor'), count(3), neck).filter((p) => p.lowFret === 5);
  const dorian = positionChange(neck, minor!, overlayOf(key('A', 'natural-minor'), key('A', 'dorian')));
  expect(dorian).toEqual({
    // Common practice, no source: 5 7 8, 5 7 8, 5 7 9, 5 7 9, 6 8 10, 7 8 10 holds F twice.
    moved: [
      { from: { string: 5, fret: 8 }, to: { string: 5, fret: 9 } },
      { from: { string: 2, fret: 6 }, to: { string: 2, fret: 7 } },
    ],
    come: [],
    gone: [],
  });
  fc.assert(
    fc.property(anyScale, anyScale, fc.nat(), (a, b, n) => {
      const [first, second] = [key('A', a.id), key('A', b.id)];
      const all = positions(first, count(3), neck);
      const position = all[n % all.length]!;
      const { moved, come, gone } = positionChange(neck, position, overlayOf(first, second));
      const on = ({ string, fret }: { string: number; fret: number }) =>
        mod(pitchAt(neck, string, fret) - 9, 12);
      for (const place of [...come, ...moved.map((m) => m.to)]) expect(b.offsets).toContain(on(place));
      for (const { from, to } of moved)
        expect([from.string, Math.abs(from.fret - to.fret)]).toEqual([to.string, 1]);
      const strings = new Set(position.held.map((s) => s.string));
      const added = overlayOf(first, second).changes.flatMap((c) =>
        c.from === null ? [b.offsets[c.to!]!] : [],
      );
      let inside = 0;
      for (const string of strings)
        for (let fret = position.lowFret; fret <= position.highFret; fret++)
          if (added.includes(on({ string, fret }))) inside++;
      expect(come).toHaveLength(inside);
      const kept = new Set([...gone, ...moved.map((m) => m.from)].map((p) => `${p.string}/${p.fret}`));
      for (const spot of position.held)
        expect(kept.has(`${spot.string}/${spot.fret}`)).toBe(!b.offsets.includes(on(spot)));
    }),
    { numRuns: 60 },
  );
});

test('what given notes are: every scale that holds them, rooted on each, as `tonal` finds it, the fewest other notes first', () => {
  // Pitch classes of A minor pentatonic: five names, each from a note of its own. Common practice, no source.
  const exact = scalesHolding([9, 0, 2, 4, 7], CATALOGUE).filter(({ more }) => !more.length);
  expect(exact.map(({ root, scale }) => [root, scale.id])).toEqual([
    [9, 'minor-pentatonic'],
    [0, 'major-pentatonic'],
    [2, 'suspended-pentatonic'],
    [4, 'blues-minor-pentatonic'],
    [7, 'blues-major-pentatonic'],
  ]);
  const NAMES = 'C Db D Eb E F Gb G Ab A Bb B'.split(' ');
  const named = (of: readonly number[]) => of.map((pc) => NAMES[pc]!);
  fc.assert(
    fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 11 }), { minLength: 3, maxLength: 7 }), (notes) => {
      const found = scalesHolding(notes, CATALOGUE);
      const theirs = notes.flatMap((root) =>
        CATALOGUE.filter(({ offsets }) => {
          const scale = named(offsets.map((o) => mod(root + o, 12)));
          return Pcset.isSubsetOf(scale)(named(notes)) || Pcset.isEqual(scale, named(notes));
        }).map(({ id }) => `${root} ${id}`),
      );
      expect(found.map(({ root, scale }) => `${root} ${scale.id}`).sort()).toEqual(theirs.sort());
      const sizes = found.map(({ more }) => more.length);
      expect(sizes).toEqual(sorted(sizes));
      for (const { scale, more } of found) expect(more).toHaveLength(scale.degrees.length - notes.length);
    }),
    { numRuns: 40 },
  );
});

test('a blend holds both, and rubs where a half step is in neither', () => {
  const { offsets, from, clashes } = blendOf(scaleById('minor-pentatonic')!, scaleById('major-pentatonic')!);
  // Common practice, no source: 1 2 b3 3 4 5 6 b7.
  expect(offsets).toEqual([0, 2, 3, 4, 5, 7, 9, 10]);
  expect(from).toEqual(['both', 'second', 'first', 'second', 'first', 'both', 'second', 'first']);
  expect(clashes).toEqual([
    [2, 3],
    [3, 4],
    [4, 5],
    [9, 10],
  ]);
  fc.assert(
    fc.property(anyScale, anyScale, (a, b) => {
      const blend = blendOf(a, b);
      expect(new Set(blend.offsets)).toEqual(new Set([...a.offsets, ...b.offsets]));
      for (const pair of blend.clashes)
        for (const { offsets: of } of [a, b]) expect(pair.every((o) => of.includes(o))).toBe(false);
      expect(blendOf(a, a).clashes).toEqual([]);
    }),
  );
});

test('a degree moved by a half step gives the scale that a plain search finds, or none where its note is taken', () => {
  for (const scale of CATALOGUE)
    scale.offsets.forEach((offset, i) => {
      for (const by of [1, -1] as const) {
        const moved = withDegreeMoved(scale, i, by);
        const to = mod(offset + by, 12);
        if (i === 0 || scale.offsets.includes(to)) {
          expect(moved).toBeNull();
          continue;
        }
        // A note that would need three signs is not written.
        if (!moved) {
          expect(Math.abs(scale.degrees[i]!.alteration + by)).toBe(3);
          continue;
        }
        const wanted = sorted(scale.offsets.map((o, k) => (k === i ? to : o)));
        expect(moved.offsets).toEqual(wanted);
        const named = CATALOGUE.filter((s) => String(s.offsets) === String(wanted));
        expect(moved.id.startsWith('own:')).toBe(named.length === 0);
        if (named.length) expect(named).toContain(moved);
        const same = sameNotes({ root: note('C'), scale: moved });
        const plain = wanted.slice(1).flatMap((from) => {
          const turned = String(sorted(wanted.map((o) => mod(o - from, 12))));
          return CATALOGUE.filter((s) => String(s.offsets) === turned).map((s) => `${from} ${s.id}`);
        });
        expect(same.map((k) => `${pitchClass(k.root)} ${k.scale.id}`)).toEqual(plain);
      }
    });
});

// Common practice, no source: the sixth of B minor pentatonic's fourth lowered, Locrian out of natural minor.
test('altered notes are named: Dorian out of natural minor, Locrian by two notes', () => {
  const minor = scaleById('natural-minor')!;
  expect(withDegreeMoved(minor, 5, 1)!.id).toBe('dorian');
  expect(withDegreeMoved(withDegreeMoved(minor, 1, -1)!, 4, -1)!.id).toBe('locrian');
});

test('chords that hold notes are named as a reference library names them', () => {
  const chroma = (of: readonly string[]): readonly number[] => sorted(of.map((n) => Note.chroma(n)!));
  for (const notes of [
    [9, 0, 4, 7],
    [11, 2, 5, 9],
    [0, 4, 7],
    [0, 3, 6, 9],
    [2, 7, 9],
  ]) {
    const found = chordsHolding(notes).filter(({ more }) => !more.length);
    const theirs = Chord.detect(
      notes.map((n) => Note.fromMidi(60 + n)),
      { assumePerfectFifth: false },
    );
    expect(found.length).toBeGreaterThan(0);
    for (const { chord } of found) expect(sorted(chordClasses(chord))).toEqual(sorted(notes));
    // Theirs without a bass of another chord ("C6/A") are among ours.
    const plain = theirs.filter((name) => !name.includes('/'));
    for (const name of plain) {
      const same = found.filter(
        ({ chord }) => String(chordClasses(chord)[0]) === String(Note.chroma(Chord.get(name).tonic!)),
      );
      expect([name, same.length]).toEqual([name, 1]);
      expect(chroma(Chord.get(name).notes)).toEqual(sorted(notes));
    }
  }
  fc.assert(
    fc.property(fc.uniqueArray(fc.nat(11), { minLength: 2, maxLength: 5 }), (notes) => {
      for (const { chord, more } of chordsHolding(notes)) {
        const classes = chordClasses(chord);
        expect(classes).toEqual(expect.arrayContaining(notes));
        expect(more.length).toBe(classes.length - notes.length);
      }
    }),
  );
});

// Forte, The Structure of Atonal Music, 1973, appendix 1; values from memory.
test.each([
  ['major', '7-35', '254361', 12],
  ['melodic-minor', '7-34', '254442', 12],
  ['harmonic-minor', '7-32', '335442', 12],
  ['harmonic-major', '7-32', '335442', 12],
  ['double-harmonic', '7-22', '424542', 12],
  ['minor-pentatonic', '5-35', '032140', 12],
  ['minor-blues', '6-Z47', '233241', 12],
  ['whole-tone', '6-35', '060603', 2],
  ['diminished-half-whole', '8-28', '448444', 3],
  ['augmented', '6-20', '303630', 4],
  ['tritone', '6-30', '224223', 6],
  ['prometheus', '6-34', '142422', 12],
  ['bebop-dominant', '8-23', '465472', 12],
  ['bebop-major', '8-26', '456562', 12],
])('%s is %s', (id, forte, vector, transpositions) => {
  const facts = setFacts(scaleById(id)!.offsets);
  expect([facts.forte, facts.vector.join(''), facts.transpositions]).toEqual([forte, vector, transpositions]);
});

test('set classes are as many as in the table, and a later rule for prime forms differs for six of them', () => {
  /** The later rule: packed towards its beginning, looked at from its end (Rahn, Basic Atonal Theory, 1980; from memory). */
  const later = (set: readonly number[]): string => {
    const turns = (of: readonly number[]) => of.map((from) => sorted(of.map((n) => mod(n - from, 12))));
    const all = [...turns(set), ...turns(sorted(set.map((n) => mod(-n, 12))))];
    const fromEnd = (form: readonly number[]): string =>
      [...form]
        .reverse()
        .map((n) => n.toString(16))
        .join('');
    return String(all.reduce((best, form) => (fromEnd(form) < fromEnd(best) ? form : best)));
  };
  const classes = new Map<string, string>();
  const differ = new Set<string>();
  for (let bits = 0; bits < 4096; bits++) {
    const set = Array.from({ length: 12 }, (_, n) => n).filter((n) => bits & (1 << n));
    if (set.length < 3 || set.length > 9) continue;
    const { forte, prime } = setFacts(set);
    expect(classes.get(forte!) ?? String(prime)).toBe(String(prime));
    classes.set(forte!, String(prime));
    if (later(set) !== String(prime)) differ.add(forte!);
  }
  const many = (n: number): number => [...classes.keys()].filter((name) => name.startsWith(`${n}-`)).length;
  expect([3, 4, 5, 6, 7, 8, 9].map(many)).toEqual([12, 29, 38, 50, 38, 29, 12]);
  expect([...differ].toSorted()).toEqual(['5-20', '6-31', '6-Z29', '7-Z18', '7-20', '8-26'].toSorted());
});

test('what every catalogue scale holds, and its facts as a set, are what `tonal` makes of it', () => {
  const NAMES = 'C Db D Eb E F Gb G Ab A Bb B'.split(' ');
  const chromaOf = (of: readonly number[]): string => Pcset.chroma(of.map((pc) => NAMES[mod(pc, 12)]!));
  /** A set moved up, as the library writes it: twelve signs from C on. */
  const moved = (chroma: string, by: number): string => chroma.slice(12 - by) + chroma.slice(0, 12 - by);
  const kinds = CHORD_KINDS.map(({ suffix, degrees }) => {
    const classes = degrees.map((d) => mod(degreeHalfSteps(d), 12));
    return { suffix, classes, chroma: chromaOf(classes) };
  });
  let held = 0;
  for (const scale of CATALOGUE) {
    const chroma = chromaOf(scale.offsets);
    for (let root = 0; root < 12; root++)
      for (const { suffix, classes, chroma: chord } of kinds) {
        const tones = classes.map((pc) => mod(root + pc, 12));
        const is = scaleOver(tones, { root: note('C'), scale }, 0).missing.length === 0;
        if (is) held++;
        const there = moved(chord, root);
        const holds = Pcset.isSubsetOf(chroma)(there) || Pcset.isEqual(chroma, there);
        if (is !== holds) throw new Error(`${scale.id}, ${root}, ${suffix}`);
      }
    const { vector, transpositions } = setFacts(scale.offsets);
    const turns = Array.from({ length: 12 }, (_, by) => moved(chroma, by));
    expect(transpositions).toBe(new Set(turns.map((it) => Pcset.get(it).setNum)).size);
    /** How many notes a set shares with itself moved: twice the tritones, once each other interval. */
    const shared = (by: number): number =>
      [...chroma].filter((sign, at) => sign === '1' && turns[by]![at] === '1').length;
    expect([...vector]).toEqual([1, 2, 3, 4, 5, 6].map((by) => shared(by) / (by === 6 ? 2 : 1)));
  }
  expect(held).toBeGreaterThan(2000);
});
