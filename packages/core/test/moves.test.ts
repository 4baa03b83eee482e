import fc from 'fast-check';
import { Note, Scale as TonalScale } from 'tonal';
import {
  capoFor,
  CATALOGUE,
  checkInstrument,
  DEFAULT_INSTRUMENT,
  degreeIndex,
  degreeNames,
  fourthsWindow,
  frontAfter,
  gained,
  halfStepsTo,
  type Instrument,
  jogRulesOf,
  judgeWindow,
  keepGrip,
  keepNotes,
  type Key,
  keysInOrder,
  layOut,
  LAYOUTS,
  type LayoutSpec,
  mod,
  type MovedSpot,
  type Moving,
  neckOf,
  note,
  noteName,
  onNeck,
  type Outcome,
  parallelKeys,
  pitchAt,
  pitchClass,
  type Place,
  placeId,
  positionOf,
  refOf,
  relativeKeys,
  rootSpots,
  spellScale,
  stringsMatched,
  toKey,
  toParallel,
  toRelative,
  toStrings,
  TUNINGS,
  usualOf,
} from './core.ts';
import { anyKey, anyScale, count, key, six, tuning } from './helpers.ts';

const strung = (text: string, more: Partial<Instrument> = {}): Instrument => ({
  ...six,
  ...more,
  tuning: tuning(text),
});

function moving(instrument: Instrument, k: Key, layout: LayoutSpec, low: number, root?: Place): Moving {
  const neck = neckOf(instrument);
  const laid = layOut(neck, k, layout);
  if (!laid.ok) throw new Error(laid.error.message);
  const front = laid.value.find((p) => p.lowFret >= low) ?? laid.value.at(-1)!;
  const at = root ?? front.held.find((s) => s.degree === 0) ?? rootSpots(neck, k)[0]!;
  return { instrument, neck, key: k, root: { string: at.string, fret: at.fret }, layout, front };
}
/** The outcome's position in front, moved on from there. */
function onward(it: Outcome): Moving {
  const laid = layOut(neckOf(it.instrument), it.key, it.layout);
  const front = laid.ok ? frontAfter(laid.value, it.spots) : null;
  if (!front) throw new Error('Nothing is in front.');
  const { instrument, key: k, root, layout } = it;
  return { instrument, neck: neckOf(instrument), key: k, root, layout, front };
}
const tos = (it: Outcome): readonly MovedSpot['to'][] => it.spots.map((s) => s.to);
/** "6: 5 8 / 5: 5 7": where the notes went, string by string from the lowest; a note that went nowhere is a dash. */
function text({ spots }: Outcome): string {
  const by = new Map<number, string[]>();
  for (const { from, to } of spots) {
    const string = to?.string ?? from!.string;
    by.set(string, [...(by.get(string) ?? []), to ? String(to.fret) : '-']);
  }
  return [...by]
    .sort(([a], [b]) => b - a)
    .map(([string, frets]) => `${string}: ${frets.join(' ')}`)
    .join(' / ');
}
const said = <K extends Outcome['says'][number]['is']>(it: Outcome, is: K) =>
  it.says.filter((s): s is Extract<Outcome['says'][number], { is: K }> => s.is === is);
const value = <T>(
  result: { ok: true; value: T } | { ok: false; error: { code: string; message: string } },
): T => {
  if (!result.ok) throw new Error(`${result.error.code}: ${result.error.message}`);
  return result.value;
};
const by = (halfSteps: number, octaves = false) => ({ by: halfSteps, prefer: 'flats', octaves }) as const;

const A = moving(six, key('A', 'minor-pentatonic'), count(2), 5);

// Three to twelve strings with any intervals, scales, layouts and capos.
const anyMoving: fc.Arbitrary<Moving | null> = fc
  .record({
    tuning: fc.oneof(
      fc.constantFrom(...TUNINGS).map((t) => t.tuning),
      fc
        .record({
          low: fc.integer({ min: 28, max: 45 }),
          steps: fc.array(fc.integer({ min: -5, max: 7 }), { minLength: 2, maxLength: 11 }),
        })
        .map(({ low, steps }) =>
          steps.reduce<number[]>((so, s) => [...so, Math.min(90, so.at(-1)! + s)], [low]),
        ),
    ),
    k: anyKey,
    layout: fc.constantFrom(...LAYOUTS.all()),
    low: fc.nat(12),
    frets: fc.integer({ min: 19, max: 27 }),
    capo: fc.integer({ min: 0, max: 5 }),
  })
  .map(({ tuning: open, k, layout, low, frets, capo }) => {
    const instrument: Instrument = { ...DEFAULT_INSTRUMENT, tuning: open, frets, capo, wound: 0 };
    if (!checkInstrument(instrument).ok) return null;
    const spec = usualOf(layout, { scale: k.scale, string: 1, strings: open.length });
    return layOut(neckOf(instrument), k, spec).ok ? moving(instrument, k, spec, low) : null;
  });
/** Runs a law on random positions, and asks that enough of them were there. */
function law(
  least: number,
  of: (it: Moving, n: number) => boolean | void,
  n: fc.Arbitrary<number> = fc.constant(0),
): void {
  let held = 0;
  fc.assert(
    fc.property(anyMoving, n, (it, k) => {
      if (it && of(it, k) !== false) held++;
    }),
    { numRuns: 150 },
  );
  expect(held).toBeGreaterThan(least);
}

describe('another key', () => {
  test('everything goes as many frets as half steps; past the last fret all of it goes an octave back', () => {
    const up = toKey(A, by(3));
    expect(noteName(up.key.root)).toBe('C');
    expect(text(up)).toBe('6: 8 11 / 5: 8 10 / 4: 8 10 / 3: 8 10 / 2: 8 11 / 1: 8 11');
    expect(up.says).toEqual([{ is: 'frets', by: 3, wrapped: false }]);
    const high = moving(six, A.key, count(2), 17);
    const over = toKey(high, by(3));
    expect(said(over, 'frets')).toEqual([{ is: 'frets', by: -9, wrapped: true }]);
    expect(Math.max(...tos(over).map((s) => s!.fret))).toBe(high.front.highFret - 9);
    const down = toKey(A, by(-5));
    expect(text(down).startsWith('6: 0 3')).toBe(true);
    expect(said(down, 'open')).toEqual([{ is: 'open', strings: [6, 5, 4, 3, 2, 1] }]);
  });
  test('what fits in neither octave falls off by name, and comes back an octave away when that is asked for', () => {
    // One string, from fret 5 to 17 of 19: four up leaves the neck, eight down too.
    const long = moving({ ...six, frets: 19 }, key('A', 'natural-minor'), { kind: 'single', string: 6 }, 5);
    expect(long.front.highFret).toBe(17);
    const off = toKey(long, by(4));
    expect(said(off, 'lost')[0]!.spots.map((s) => s.fret)).toEqual([17]);
    expect(text(off)).toBe('6: 9 11 12 14 16 17 19 -');
    // Fret 21 would be fret 9, where the first note lies by now.
    expect(text(toKey(long, by(4, true)))).toBe('6: 9 11 12 14 16 17 19 -');
    const five = toKey(long, by(5, true));
    expect(text(five)).toBe('6: 10 12 13 15 17 18 8 -');
    expect(said(five, 'octave')[0]!.moved.map((m) => [m.from.fret, m.to.fret])).toEqual([[15, 8]]);
  });
  test('the root is sent to a string and a fret', () => {
    expect(halfStepsTo(A, { string: 6, fret: 8 })).toBe(3);
    expect(halfStepsTo(A, { string: 4, fret: 2 })).toBe(-5);
    expect(toKey(A, by(halfStepsTo(A, { string: 4, fret: 10 }))).root).toEqual({ string: 6, fret: 8 });
  });
  test('there and back is where it was, while nothing leaves the neck; twelve are the same shape an octave away', () => {
    law(
      10,
      (it, n) => {
        const there = toKey(it, by(n));
        if (said(there, 'lost').length || said(there, 'frets')[0]!.wrapped) return false;
        const spots = tos(there).map((t) => t!);
        const frets = spots.map((t) => t.fret);
        const front = {
          ...it.front,
          spots,
          held: spots,
          lowFret: Math.min(...frets),
          highFret: Math.max(...frets),
        };
        const back = toKey({ ...it, key: there.key, root: there.root, front }, by(-n));
        expect(tos(back).map((t) => placeId(t!))).toEqual(it.front.held.map(placeId));
        // These layouts list every place that holds all of a shape, so that the one moved to is in front.
        if (['count', 'reach', 'diagonal', 'single', 'pair'].includes(it.layout.kind))
          expect(new Set(onward(there).front.held.map(placeId))).toEqual(new Set(spots.map(placeId)));
        expect(pitchClass(back.key.root)).toBe(pitchClass(it.key.root));
        there.spots.forEach(({ from, to }) =>
          expect([to!.fret - from!.fret, to!.degree]).toEqual([n, from!.degree]),
        );
        return true;
      },
      fc.integer({ min: -11, max: 11 }),
    );
    law(60, (it) => {
      const octave = toKey(it, by(12));
      if (said(octave, 'lost').length) return false;
      expect(noteName(octave.key.root)).toBe(noteName(it.key.root));
      for (const { from, to } of octave.spots) expect(Math.abs(to!.fret - from!.fret) % 12).toBe(0);
      expect(tos(octave).every((s) => onNeck(it.neck, s!.string, s!.fret))).toBe(true);
      return true;
    });
  });
  test('twelve keys, each once, in half steps, fourths and fifths', () => {
    for (const order of ['halfSteps', 'fourths', 'fifths'] as const)
      expect([...keysInOrder(order)].sort((a, b) => a - b)).toEqual(Array.from({ length: 12 }, (_, i) => i));
    expect(keysInOrder('fourths').slice(0, 4)).toEqual([0, 5, 10, 3]);
  });
  // tonal 6.4.3, which core does not use: the notes of the moved key.
  test('the moved notes bear the names that a reference library gives them', () => {
    for (const halfSteps of keysInOrder('halfSteps'))
      for (const [id, name] of [
        ['major', 'major'],
        ['dorian', 'dorian'],
        ['natural-minor', 'aeolian'],
      ] as const) {
        const it = toKey(moving(six, key('C', id), count(3), 5), by(halfSteps));
        const theirs = TonalScale.get(`${noteName(it.key.root)} ${name}`).notes;
        expect(spellScale(it.key).map(noteName)).toEqual(theirs);
        for (const s of tos(it)) expect(Note.chroma(theirs[s!.degree]!)).toBe(mod(s!.midi, 12));
      }
  });
});

describe('relative and parallel modes', () => {
  const C = moving(six, key('C', 'major'), count(3), 7);
  test('the same notes from every root, the same root in every mode from bright to dark', () => {
    expect(relativeKeys(C.key).map((k) => `${noteName(k.root)} ${k.scale.name}`)).toEqual([
      'C major',
      'D Dorian',
      'E Phrygian',
      'F Lydian',
      'G Mixolydian',
      'A natural minor',
      'B Locrian',
    ]);
    // Handbook, section 10: from brightest to darkest.
    expect(parallelKeys(C.key).map((k) => k.scale.name)).toEqual([
      'Lydian',
      'major',
      'Mixolydian',
      'Dorian',
      'natural minor',
      'Phrygian',
      'Locrian',
    ]);
    // Those of five notes too: the major pentatonic is the brightest of its modes (common practice, no source).
    expect(parallelKeys(key('C', 'minor-pentatonic')).map((k) => k.scale.name)).toEqual([
      'major pentatonic',
      'blues major pentatonic',
      'suspended pentatonic',
      'minor pentatonic',
      'blues minor pentatonic',
    ]);
    const minor = toRelative(C, relativeKeys(C.key)[5]!);
    expect(tos(minor).map((s) => placeId(s!))).toEqual(C.front.held.map(placeId));
    expect(degreeIndex(minor.key, pitchAt(C.neck, minor.root.string, minor.root.fret))).toBe(0);
    const dark = toParallel(C, key('C', 'natural-minor'));
    expect(said(dark, 'degrees')[0]!.changed).toEqual([
      { degree: 2, by: -1 },
      { degree: 5, by: -1 },
      { degree: 6, by: -1 },
    ]);
    expect(dark.root).toEqual(C.root);
  });
  test('relative keeps the notes and parallel the root, in every scale of the catalogue', () => {
    fc.assert(
      fc.property(anyScale, fc.constantFrom('C', 'F#', 'Bb', 'Eb'), (scale, root) => {
        const k: Key = { root: note(root), scale };
        const set = (it: Key): string =>
          it.scale.offsets
            .map((o) => mod(o + pitchClass(it.root), 12))
            .sort((a, b) => a - b)
            .join();
        const all = relativeKeys(k);
        expect(all).toHaveLength(scale.degrees.length);
        for (const it of all) expect(set(it)).toBe(set(k));
        expect(new Set(all.map((it) => pitchClass(it.root))).size).toBe(all.length);
        for (const it of parallelKeys(k)) {
          expect(noteName(it.root)).toBe(root);
          expect(all.some((r) => r.scale.offsets.join() === it.scale.offsets.join())).toBe(true);
        }
      }),
    );
  });
  test('every spot of another mode is a note of it', () => {
    law(
      60,
      (it, n) => {
        const keys = parallelKeys(it.key);
        const after = toParallel(it, keys[n % keys.length]!);
        const back = toRelative(it, relativeKeys(it.key)[n % it.key.scale.degrees.length]!);
        for (const s of tos(after)) if (s) expect(degreeIndex(after.key, s.midi)).toBe(s.degree);
        for (const { from, to } of back.spots) expect(to!.midi).toBe(from!.midi);
      },
      fc.nat(11),
    );
  });
});

describe('another string set', () => {
  test('the jogs alone change the frets, and are named', () => {
    const up = value(toStrings(A, { string: 5, keepKey: false, prefer: 'flats' }));
    expect(noteName(up.key.root)).toBe('D');
    expect(text(up)).toBe('5: 5 8 / 4: 5 7 / 3: 5 7 / 2: 6 8 / 1: 5 8 - -');
    expect(said(up, 'jog')).toEqual([
      { is: 'jog', string: 2, by: 1, jogs: [{ from: 3, to: 2, interval: 4, jog: 1 }] },
    ]);
    // The notes of the first string have none; the lower of them lies within the hand.
    expect(said(up, 'off').map((o) => [o.spot.fret, o.instead])).toEqual([
      [5, null],
      [8, null],
    ]);
    const same = value(toStrings(A, { string: 5, keepKey: true, prefer: 'flats' }));
    expect([noteName(same.key.root), same.root]).toEqual(['A', { string: 5, fret: 0 }]);
    expect(toStrings(A, { string: 6, keepKey: false, prefer: 'flats' }).ok).toBe(false);
  });
  test('with the key kept it goes to the octave where it is whole, if there is one', () => {
    let moved = 0;
    for (const [scale, layout] of [
      ['minor-pentatonic', count(2)],
      ['natural-minor', count(3)],
      ['major', { kind: 'reach', reach: 3 }],
    ] as const)
      for (const root of ['A', 'C', 'Eb', 'F#'])
        for (let low = 0; low <= 12; low++) {
          const it = moving(six, key(root, scale), layout, low);
          for (let string = 1; string <= 6; string++) {
            const to = toStrings(it, { string, keepKey: true, prefer: 'flats' });
            if (!to.ok) continue;
            moved++;
            const lost = (by: number): number =>
              tos(to.value).filter((s, i) => {
                const at = s?.string ?? it.front.held[i]!.string + string - it.root.string;
                const from = it.front.held[i]!;
                if (at < 1 || at > 6) return true;
                const up = pitchAt(it.neck, to.value.root.string, to.value.root.fret + by);
                const midi = from.midi + up - pitchAt(it.neck, it.root.string, it.root.fret);
                return !onNeck(it.neck, at, midi - it.neck.open[at - 1]!);
              }).length;
            for (const by of [-24, -12, 12, 24])
              if (onNeck(it.neck, string, to.value.root.fret + by))
                expect(lost(by)).toBeGreaterThanOrEqual(lost(0));
          }
        }
    expect(moved).toBeGreaterThan(700);
  });
  test('every note keeps its distance from the root', () => {
    law(
      60,
      (it, n) => {
        const string = (n % it.neck.open.length) + 1;
        if (string === it.root.string) return false;
        for (const keepKey of [true, false]) {
          const after = value(toStrings(it, { string, keepKey, prefer: 'flats' }));
          const [was, now] = [
            pitchAt(it.neck, it.root.string, it.root.fret),
            pitchAt(it.neck, after.root.string, after.root.fret),
          ];
          for (const { from, to } of after.spots) if (to) expect(to.midi - now).toBe(from!.midi - was);
          for (const o of said(after, 'off'))
            if (o.instead)
              expect(pitchAt(it.neck, o.instead.string, o.instead.fret) - now).toBe(o.spot.midi - was);
          expect(after.spots.filter((s) => !s.to)).toHaveLength(said(after, 'off').length);
          if (keepKey) expect(after.key).toBe(it.key);
        }
        return true;
      },
      fc.nat(11),
    );
  });
});

describe('the fourths pattern, step by step', () => {
  // Handbook, section 6: standard tuning.
  test('which strings are moved by how much, for a root on every string', () => {
    expect(jogRulesOf(neckOf(six))).toEqual([
      { roots: [6, 5, 4, 3], moves: [{ strings: [2, 1], by: 1 }] },
      { roots: [2, 1], moves: [{ strings: [6, 5, 4, 3], by: -1 }] },
    ]);
    expect(jogRulesOf(neckOf(strung('E2 A2 D3 G3 C4 F4')))).toEqual([
      { roots: [6, 5, 4, 3, 2, 1], moves: [] },
    ]);
  });
  test('anchor, window and jogs give the layout, for every root spot of every tuning', () => {
    let windows = 0;
    const tuned = new Set<string>();
    for (const [i, t] of TUNINGS.entries()) {
      const neck = neckOf({ ...six, tuning: t.tuning, frets: 24 });
      // Each of the two keys on every other tuning.
      const k = i % 2 ? key('F#', 'dorian') : key('Bb', 'minor-pentatonic');
      const laid = layOut(neck, k, { kind: 'fourths' });
      for (const root of rootSpots(neck, k))
        for (let before = 0; before < 5; before++) {
          const window = fourthsWindow(neck, k, root, before);
          if (!window.ok) continue;
          windows++;
          tuned.add(t.id);
          const spots = window.value.strings.flatMap((s) => s.spots);
          for (const s of spots) expect(s.degree).toBeGreaterThanOrEqual(0);
          const ids = spots
            .map(placeId)
            .sort((a, b) => a - b)
            .join();
          expect(
            laid.ok &&
              laid.value.some(
                (p) =>
                  p.spots
                    .map(placeId)
                    .sort((a, b) => a - b)
                    .join() === ids,
              ),
          ).toBe(true);
        }
    }
    expect(tuned.size).toBeGreaterThanOrEqual(30);
    expect(windows).toBeGreaterThan(1000);
  });
  test('a placed window is judged string by string, and a forgotten jog is named', () => {
    const neck = neckOf(six);
    const window = value(fourthsWindow(neck, key('A', 'minor-pentatonic'), { string: 6, fret: 5 }, 0));
    const right = window.strings.flatMap((s) => s.spots);
    expect(judgeWindow(window, right)).toEqual([]);
    const forgotten = window.strings.flatMap(
      ({ string, pattern, spots }) =>
        (string > 2 ? spots : pattern.map((fret) => ({ string, fret }))) as readonly Place[],
    );
    expect(judgeWindow(window, forgotten).map((f) => [f.string, f.forgotten.map((c) => c.from)])).toEqual([
      [2, [3]],
      [1, [3]],
    ]);
    const low = value(fourthsWindow(neck, key('D', 'minor-pentatonic'), { string: 2, fret: 3 + 12 }, 1));
    const wrong = low.strings.flatMap(
      ({ string, pattern, spots }) =>
        (string === 6 ? pattern.map((fret) => ({ string, fret })) : spots) as readonly Place[],
    );
    expect(judgeWindow(low, wrong).map((f) => [f.string, f.forgotten.length])).toEqual([[6, 1]]);
    expect(judgeWindow(window, right.slice(1))).toEqual([
      { string: 6, forgotten: [], missing: [5], extra: [] },
    ]);
    expect(fourthsWindow(neck, A.key, { string: 6, fret: 6 }, 0).ok).toBe(false);
    expect(fourthsWindow(neck, A.key, { string: 6, fret: 5 }, 6).ok).toBe(false);
  });
});

describe('another tuning or instrument', () => {
  const dropD = strung('D2 A2 D3 G3 B3 E4');
  // Handbook, section 6: the first box of A minor in drop D.
  test('the same notes: the marks of string 6 move two frets up, and only that string lies outside the hand at V', () => {
    const it = keepNotes(A, dropD);
    expect(text(it)).toBe('6: 7 10 / 5: 5 7 / 4: 5 7 / 3: 5 7 / 2: 5 8 / 1: 5 8');
    expect(said(it, 'retuned')).toEqual([{ is: 'retuned', string: 6, halfSteps: -2, marks: 2 }]);
    const beyond = said(it, 'beyond');
    expect(beyond.map(({ string, hand, frets }) => [string, hand, frets])).toEqual([[6, 5, 2]]);
    // L(1 − 2^(−n/12)): frets 8 to 10 of 648 mm.
    expect(beyond[0]!.mm).toBeCloseTo(648 * (2 ** (-8 / 12) - 2 ** (-10 / 12)), 6);
    expect(it.root).toEqual({ string: 6, fret: 7 });
  });
  test('the same grip: the frets stay, and the scale that they make is named, or that it makes none', () => {
    // Half a step down all round: the same scale a half step lower.
    const down = keepGrip(A, { ...six, tuning: six.tuning.map((m) => m - 1) }, 'flats');
    expect([noteName(down.key.root), down.key.scale.id]).toEqual(['G#', 'minor-pentatonic']);
    const made = keepGrip(A, dropD, 'flats');
    expect(said(made, 'scale')[0]!.key).toBeNull();
    // String 6 sounds a whole step lower: G and B♭, of which G is in the scale already.
    expect([...new Set(gained(made).map((s) => mod(s.midi, 12)))]).toEqual([10]);
    // Handbook, section 6: A minor's first box at 5 in D A D G A D, from the root's name and from its place.
    const two = keepGrip(A, strung('D2 A2 D3 G3 A3 D4'), 'flats');
    expect(
      said(two, 'scale').map(({ key: k, root, kept }) => [
        noteName(k!.root),
        k!.scale.id,
        `${root.string}/${root.fret}`,
        kept,
      ]),
    ).toEqual([
      ['A', 'phrygian', '4/7', true],
      ['G', 'dorian', '6/5', false],
    ]);
    expect([noteName(two.key.root), two.root]).toEqual(['A', { string: 4, fret: 7 }]);
    const stays = keepGrip(
      moving(six, key('E', 'major'), count(3), 7, { string: 5, fret: 7 }),
      strung('E2 A2 D3 G3 C4 F4'),
      'flats',
    );
    expect(stays.spots.every(({ from, to }) => to!.fret === from!.fret && to!.string === from!.string)).toBe(
      true,
    );
  });
  test('strings are matched by their place and pitch: a low or a high one more, a bass, one less', () => {
    const to = (text: string): readonly (number | null)[] =>
      stringsMatched(neckOf(six), neckOf(strung(text)));
    expect(to('B1 E2 A2 D3 G3 B3 E4')).toEqual([1, 2, 3, 4, 5, 6]);
    expect(to('E2 A2 D3 G3 B3 E4 A4')).toEqual([2, 3, 4, 5, 6, 7]);
    expect(to('E1 A1 D2 G2')).toEqual([null, null, 1, 2, 3, 4]);
    const bass = keepNotes(A, strung('E1 A1 D2 G2'));
    expect(bass.spots.filter((s) => !s.to).map((s) => s.from!.string)).toEqual([2, 2, 1, 1]);
    const seven = keepNotes(A, strung('B1 E2 A2 D3 G3 B3 E4'));
    expect(text(seven)).toBe(text(toKey(A, by(0))));
    expect(seven.says).toEqual([]);
  });
  const anyInstrument = fc
    .constantFrom(...TUNINGS)
    .map((t): Instrument => ({ ...six, tuning: t.tuning, wound: 0 }));
  test('every pitch is kept or listed as lost; every fret is kept or listed as lost', () => {
    let lost = 0;
    let kept = 0;
    fc.assert(
      fc.property(anyMoving, anyInstrument, (it, instrument) => {
        if (!it) return;
        const notes = keepNotes(it, instrument);
        const grip = keepGrip(it, instrument, 'sharps');
        for (const { from, to } of notes.spots) if (to) expect(to.midi).toBe(from!.midi);
        for (const { from, to } of grip.spots) if (to) expect(to.fret).toBe(from!.fret);
        for (const outcome of [notes, grip]) {
          const neck = neckOf(outcome.instrument);
          const gone = outcome.spots.filter((s) => !s.to);
          expect(said(outcome, 'lost').flatMap((s) => s.spots)).toEqual(gone.map((s) => s.from));
          for (const s of tos(outcome))
            if (s)
              expect([onNeck(neck, s.string, s.fret), pitchAt(neck, s.string, s.fret)]).toEqual([
                true,
                s.midi,
              ]);
          expect(degreeIndex(outcome.key, pitchAt(neck, outcome.root.string, outcome.root.fret))).toBe(0);
          lost += gone.length;
          kept += outcome.spots.length - gone.length;
        }
        const named = said(grip, 'scale')[0]!.key;
        const pcs = new Set(tos(grip).flatMap((s) => (s ? [mod(s.midi, 12)] : [])));
        if (named)
          expect(new Set(named.scale.offsets.map((o) => mod(o + pitchClass(named.root), 12)))).toEqual(pcs);
      }),
      { numRuns: 150 },
    );
    expect(Math.min(lost, kept)).toBeGreaterThan(100);
  });
  // tonal 6.4.3: names of scales by their notes, for those that it has.
  test('the scales that kept grips make have the notes of a reference library’s scales of that name', () => {
    const named = new Map<string, Key>();
    for (const t of TUNINGS.filter((x) => x.tuning.length === 6))
      for (const id of ['minor-pentatonic', 'major', 'dorian', 'natural-minor'])
        for (let low = 0; low < 12; low++) {
          const it = keepGrip(
            moving(six, key('A', id), count(id === 'minor-pentatonic' ? 2 : 3), low),
            { ...six, tuning: t.tuning },
            'flats',
          );
          const made = said(it, 'scale')[0]!.key;
          if (made) named.set(`${noteName(made.root)} ${made.scale.name}`, made);
        }
    let compared = 0;
    for (const { root, scale } of named.values()) {
      const theirs = [scale.name, ...scale.aliases]
        .map((n) => TonalScale.get(`${noteName(root)} ${n.toLowerCase()}`))
        .find((s) => !s.empty);
      if (!theirs) continue;
      compared++;
      expect(spellScale({ root, scale }).map((n) => pitchClass(n))).toEqual(
        theirs.notes.map((n) => Note.chroma(n)),
      );
    }
    expect(compared).toBeGreaterThan(10);
  });
});

describe('the capo', () => {
  test('a capo is a raised tuning, and a grip keeps its frets under it', () => {
    const up = value(capoFor(A, note('C'), 5));
    expect([up.instrument.capo, text(up)]).toEqual([
      3,
      '6: 5 8 / 5: 5 7 / 4: 5 7 / 3: 5 7 / 2: 5 8 / 1: 5 8',
    ]);
    expect(noteName(said(up, 'capo')[0]!.shape.root)).toBe('A');
    expect(capoFor(A, note('G'), 5)).toMatchObject({ ok: false, error: { code: 'move.capo' } });
    law(
      60,
      (it, n) => {
        if (n > it.instrument.frets - 12) return false;
        const raised = {
          ...it.instrument,
          capo: 0,
          frets: it.instrument.frets - n,
          tuning: it.instrument.tuning.map((m) => m + n),
        };
        const capo = { ...it.instrument, capo: n };
        const laid = [neckOf(raised), neckOf(capo)].map((neck) => layOut(neck, it.key, it.layout));
        expect(laid[0]!.ok).toBe(laid[1]!.ok);
        if (!laid[0]!.ok || !laid[1]!.ok) return false;
        expect(laid[0]!.value.map((p) => p.spots)).toEqual(laid[1]!.value.map((p) => p.spots));
        return true;
      },
      fc.integer({ min: 0, max: 7 }),
    );
  });
});

test('a position moved by a key is named in the ladder of the new key', () => {
  const it = onward(toKey(A, by(4)));
  const laid = layOut(it.neck, it.key, it.layout);
  expect(laid.ok && positionOf(laid.value, refOf(laid.value, it.front))?.lowFret).toBe(9);
  expect(degreeNames(it.key.scale)).toEqual(degreeNames(A.key.scale));
  expect(CATALOGUE).toContain(it.key.scale);
});
