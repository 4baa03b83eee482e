import fc from 'fast-check';
import { drawn } from '../../../scripts/thorough.ts';
import {
  asWritten,
  backwards,
  canBeWritten,
  costOfWay,
  degreeIndex,
  halfStepsTyped,
  halfStepTicks,
  halfStepWord,
  inFrets,
  notesOfRun,
  overChords,
  startsOver,
  inMode,
  lengthAs,
  lengthOf,
  lengthSaid,
  lineOf,
  nearestPlace,
  nextLength,
  noteMoved,
  onOtherString,
  type PhraseGround,
  type PhraseNote,
  placeOfNumber,
  placesOfPhrase,
  pitchAt,
  type PlanTask,
  raised,
  readLine,
  scaleById,
  sequenced,
  ticksOf,
  toldSaid,
  type Tune,
  tuneOf,
  turnedRound,
  VALUES,
  withNotes,
  withTappedTimes,
} from './core.ts';
import { anyKey, anyNeck, HAND, key, neckWith, oddNeck, tableNeck } from './helpers.ts';
import { everyWay } from './plainPlan.ts';

const A = key('A', 'minor-pentatonic');
const neck = neckWith();
const ground = (more: Partial<PhraseGround> = {}): PhraseGround => ({
  neck,
  key: A,
  hand: HAND,
  plain: 3,
  tempo: 90,
  ...more,
});
const at = (string: number, fret: number, more: Partial<PhraseNote> = {}): PhraseNote => ({
  at: { string, fret },
  length: 480,
  ...more,
});
/** Four notes in the box at fret 5: the second pulled off to, the last bent by a whole step. */
const LICK: readonly PhraseNote[] = [
  at(2, 8),
  at(2, 5, { joined: 'slur' }),
  at(3, 7),
  at(3, 7, { bend: { by: 2, how: 'once', released: false }, length: 960 }),
];
const lick = tuneOf(LICK, neck.open);
const pitches = (tune: Tune): readonly (number | null)[] => tune.map(({ midi }) => midi);

const length = fc.constantFrom(120, 160, 240, 320, 480, 640, 720, 960, 1440, 1920);
const tuneOn = (low: number, high: number): fc.Arbitrary<Tune> =>
  fc
    .array(
      fc.record({
        midi: fc.option(fc.integer({ min: low, max: high }), { freq: 6 }),
        length,
        joined: fc.constantFrom(undefined, 'slur' as const, 'slide' as const),
      }),
      { minLength: 1, maxLength: 12 },
    )
    .map((notes) =>
      notes.map(({ midi, length: ticks, joined }, i) => ({
        midi,
        string: null,
        length: ticks,
        ...(joined && i > 0 && { joined }),
      })),
    );

describe('what is changed of a phrase', () => {
  test('turned round, backwards, up and down, and there and back: each gives the phrase again', () => {
    fc.assert(
      fc.property(tuneOn(40, 80), anyKey, fc.integer({ min: -12, max: 12 }), (tune, k, by) => {
        expect(backwards(backwards(tune))).toEqual(tune);
        expect(raised(raised(tune, by), -by)).toEqual(tune);
        const inScale = tune.filter(({ midi }) => midi === null || degreeIndex(k, midi) >= 0);
        expect(turnedRound(turnedRound(inScale, k).tune, k).tune).toEqual(inScale);
        expect(sequenced(sequenced(inScale, k, by).tune, k, -by).tune).toEqual(inScale);
        for (const other of [turnedRound(tune, k).tune, backwards(tune), sequenced(tune, k, by).tune])
          expect(ticksOf(other)).toBe(ticksOf(tune));
      }),
      { numRuns: drawn(1000) },
    );
  });

  test('by scale steps every degree goes as many degrees further, and turned round as many the other way', () => {
    const up = sequenced(lick, A, 1).tune;
    // G E D D, a step of the scale up: A G E E.
    expect(pitches(up)).toEqual([69, 67, 64, 64]);
    // From G: down two to D, that is up two: G A C C.
    expect(pitches(turnedRound(lick, A).tune)).toEqual([67, 69, 72, 72]);
  });

  test('a slur read backwards joins the same two notes', () => {
    expect(backwards(lick).map(({ joined }) => joined ?? 'pick')).toEqual(['pick', 'pick', 'pick', 'slur']);
  });

  test('into another mode: each number goes to its own, what is lacking stays and is named, and chromatically all stay', () => {
    const minor = key('A', 'natural-minor');
    const major = scaleById('major')!;
    // A C E G B, by number A C# E G# B.
    const tune = readLine("1 b3 5 b7 2'", minor, 45, 480);
    if (!tune.ok) throw new Error(tune.error.message);
    expect(inMode(tune.value, minor, major, 'number')).toMatchObject({
      tune: [45, 49, 52, 56, 71].map((midi) => ({ midi })),
      told: [],
    });
    // Of two with that number the one altered likewise: b5 to b5 beside 5, whichever stands first.
    const locrian = key('A', 'locrian');
    expect(
      pitches(
        inMode([{ midi: 51, string: null, length: 480 }], locrian, scaleById('minor-blues')!, 'number').tune,
      ),
    ).toEqual([51]);
    expect(
      pitches(
        inMode([{ midi: 52, string: null, length: 480 }], minor, scaleById('minor-blues')!, 'number').tune,
      ),
    ).toEqual([52]);
    const five = inMode(tune.value, minor, scaleById('minor-pentatonic')!, 'number');
    expect(pitches(five.tune)).toEqual(pitches(tune.value));
    expect(five.told).toEqual([{ kind: 'lacks', note: 4, degree: '2' }]);
    const kept = inMode(tune.value, minor, major, 'chromatic');
    expect(kept.tune).toBe(tune.value);
    expect(kept.told.map(({ note }) => note)).toEqual([1, 3]);
  });
});

describe('where a phrase is taken', () => {
  test('the box at fret 5 as it is written: pulled off, bent by the ring finger, nothing lost', () => {
    const way = asWritten(ground(), lick)!;
    expect(way.run.map(({ spot, finger, arrive }) => [spot.string, spot.fret, finger, arrive])).toEqual([
      [2, 8, 4, 'pick'],
      [2, 5, 1, 'pull'],
      [3, 7, 3, 'pick'],
      [3, 7, 3, 'pick'],
    ]);
    expect(way.run[3]).toMatchObject({ bend: { by: 2 }, start: 1440, length: 960 });
    expect(way.told).toEqual([]);
  });

  test('a lick in one box stays in it: two strings at one fret are taken by one finger that rolls', () => {
    const box = [at(3, 8), at(2, 6), at(1, 6), at(2, 9), at(2, 6), at(3, 8), at(3, 6), at(4, 8)];
    const way = asWritten(ground(), tuneOf(box, neck.open))!;
    expect(way.run.map(({ finger }) => finger)).toEqual([3, 1, 1, 4, 1, 3, 1, 3]);
    expect(way.shifts).toBe(0);
  });

  test('every place sounds the same pitches at the same times, bends keep their target, and what is lost is named', () => {
    fc.assert(
      fc.property(anyNeck, tuneOn(30, 90), fc.nat(2), (on, tune, k) => {
        const bent = tune.map((note, i) =>
          note.midi !== null && i % 3 === k
            ? { ...note, bend: { by: 2, how: 'once', released: false } as const }
            : note,
        );
        for (const way of placesOfPhrase(ground({ neck: on }), bent, {}, 4)) {
          const lost = (kind: string): readonly number[] =>
            way.told.flatMap((t) => (t.kind === kind ? [t.note] : []));
          const gone = lost('off');
          expect(way.ticks).toBe(ticksOf(bent));
          let start = 0;
          let step = 0;
          bent.forEach((note, i) => {
            if (note.midi !== null && !gone.includes(i)) {
              const { spot, arrive, bend, ...time } = way.run[step++]!;
              expect(pitchAt(on, spot.string, spot.fret)).toBe(note.midi);
              expect(time).toMatchObject({ start, length: note.length });
              if (note.bend) expect(bend === undefined).toBe(lost('straight').includes(i));
              if (note.joined) expect(arrive === 'pick').toBe(lost('picked').includes(i));
            } else if (note.midi !== null)
              expect(on.open.every((o) => note.midi! < o || note.midi! > o + on.frets)).toBe(true);
            start += note.length;
          });
          expect(step).toBe(way.run.length);
        }
      }),
      { numRuns: drawn(600) },
    );
  });

  test('the ranking equals trying every place with every grip: the easiest from each string, in order', () => {
    let many = 0;
    fc.assert(
      fc.property(
        fc.oneof(tableNeck, oddNeck),
        fc.array(fc.integer({ min: -4, max: 4 }), { minLength: 1, maxLength: 2 }),
        fc.nat(14),
        fc.nat(11),
        fc.array(fc.constantFrom(undefined, 'slur' as const, 'slide' as const, 'tap' as const), {
          minLength: 3,
          maxLength: 3,
        }),
        fc.array(fc.constantFrom(0, 1, 2), { minLength: 3, maxLength: 3 }),
        (on, moves, fret, string, joins, bends) => {
          const line = [on.open[string % on.open.length]! + fret];
          for (const by of moves) line.push(line.at(-1)! + by);
          const tune = line.map((midi, i) => ({
            midi,
            string: null,
            length: 480,
            ...(i > 0 && joins[i] && { joined: joins[i] }),
            ...(bends[i] &&
              joins[i] !== 'tap' && { bend: { by: bends[i], how: 'once', released: false } as const }),
          }));
          const here = ground({ neck: on, hand: { school: 'threeFingers', spanMm: 110 } });
          // Three strings at most, so that all can be tried.
          const strings = on.open.flatMap((_, i) => (i % 2 === string % 2 && i < 6 ? [i + 1] : []));
          const found = placesOfPhrase(here, tune, { strings }, 12);
          if (found.some(({ told }) => told.some(({ kind }) => kind === 'off'))) return;
          const task: PlanTask = {
            neck: on,
            hand: here.hand,
            limits: {},
            speed: 3,
            plain: here.plain,
            stays: true,
            notes: tune.map(({ midi, joined, bend }) => {
              const all = strings
                .map((s) => ({ string: s, fret: midi - on.open[s - 1]! }))
                .filter((p) => p.fret >= 0 && p.fret <= on.frets);
              const pressed = all.filter((p) => p.fret > 0);
              const places = (bend ?? joined === 'tap') && pressed.length ? pressed : all;
              const canTap = joined !== 'tap' || pressed.length > 0;
              return {
                midi,
                degree: degreeIndex(A, midi),
                places,
                asks: {
                  ...(joined && canTap && { joined }),
                  ...(bend && pressed.length && { bent: bend.by }),
                },
              };
            }),
          };
          const best = new Map<number, number>();
          for (const way of everyWay(task)) {
            const from = way[0]!.spot.string;
            if (!best.has(from)) best.set(from, costOfWay(task, way));
          }
          many += Number(best.size > 1);
          const costs = [...best.values()].sort((a, b) => a - b);
          expect(found).toHaveLength(costs.length);
          found.forEach(({ cost }, i) => expect(cost).toBeCloseTo(costs[i]!, 9));
        },
      ),
      { numRuns: drawn(600) },
    );
    expect(many).toBeGreaterThan(drawn(60));
  });

  test('within some frets or on some strings, and nowhere where it has no room', () => {
    const high = placesOfPhrase(ground(), lick, { frets: [9, 14] }, 3);
    expect(high.length).toBeGreaterThan(0);
    expect(high[0]!.run.every(({ spot }) => spot.fret >= 9 && spot.fret <= 14)).toBe(true);
    expect(
      placesOfPhrase(ground(), lick, { strings: [3] }, 3)[0]!.run.every(({ spot }) => spot.string === 3),
    ).toBe(true);
    expect(placesOfPhrase(ground(), lick, { frets: [1, 3] }, 3)).toEqual([]);
  });

  test('a note below the lowest string is a rest and is named; so is a bend that only an open string could have', () => {
    const low = placesOfPhrase(ground(), raised(lick, -25), {}, 1)[0]!;
    expect(low.notes).toEqual([0]);
    expect(toldSaid(low.told)).toEqual([
      'Notes 2, 3 and 4 lie below the lowest string: rests stand for them.',
    ]);
    const open = tuneOf([at(6, 0, { bend: { by: 1, how: 'once', released: false } })], neck.open);
    const [way] = placesOfPhrase(ground(), open, {}, 1);
    expect(way!.run[0]!.bend).toBeUndefined();
    expect(way!.told).toEqual([{ kind: 'straight', note: 0 }]);
  });
});

test('a whole step is bent on a plain string where there is one; a finger of the player’s own is kept, or named', () => {
  const bend = { by: 2, how: 'once', released: false } as const;
  // E at string 3 fret 9 or string 4 fret 14: the wound one costs more than the plain one would alone.
  const [first, second] = [true, false].map((held) =>
    placesOfPhrase(ground(), tuneOf([at(3, 9, held ? { bend } : {})], neck.open), { strings: [3, 4] }, 2),
  );
  const costs = (ways: typeof first): number => ways![1]!.cost - ways![0]!.cost;
  expect(first![0]!.run[0]!.spot.string).toBe(3);
  expect(costs(first)).toBeGreaterThan(costs(second) + 2);
  const own = (finger: number, fret: number) =>
    asWritten(ground(), tuneOf([at(6, fret, { finger })], neck.open))!;
  expect(own(2, 7).run[0]!.finger).toBe(2);
  expect(own(2, 7).told).toEqual([]);
  expect(own(4, 1).told).toEqual([{ kind: 'finger', note: 0 }]);
  const beyond = tuneOf([at(6, 20)], neck.open).map((note) => ({ ...note, midi: 89 }));
  expect(placesOfPhrase(ground(), beyond, { frets: [20, 40] }, 3)).toMatchObject([
    { run: [], ticks: 480, told: [{ kind: 'off', note: 0, low: false }] },
  ]);
});

describe('what is done by keys', () => {
  test('a step of the scale, a half step, an octave: at the nearest place', () => {
    const up = (by: 'step' | 'half' | 'octave', way: 1 | -1) =>
      noteMoved({ neck, key: A }, at(6, 5), by, way)?.at ?? null;
    expect(up('step', 1)).toEqual({ string: 6, fret: 8 });
    expect(up('half', -1)).toEqual({ string: 6, fret: 4 });
    expect(up('octave', 1)).toEqual({ string: 4, fret: 7 });
    expect(up('octave', -1)).toBeNull();
  });

  test('from outside the scale a step goes to the next note of it; on an open string nothing stays bent', () => {
    const moved = (fret: number, way: 1 | -1) => noteMoved({ neck, key: A }, at(6, fret), 'step', way)!.at;
    expect(moved(6, -1)).toEqual({ string: 6, fret: 5 });
    expect(moved(6, 1)).toEqual({ string: 6, fret: 8 });
    const bend = { by: 1, how: 'once', released: false } as const;
    const bent = at(6, 3, { bend, vibrato: { cents: 40, waves: 5 } });
    expect(noteMoved({ neck, key: A }, bent, 'step', -1)).toEqual(at(6, 0));
    expect(noteMoved({ neck, key: A }, bent, 'half', 1)).toMatchObject({ bend });
  });

  test('up and down by a step gives the pitch again, and another string its pitch', () => {
    fc.assert(
      fc.property(anyNeck, anyKey, fc.nat(11), fc.nat(12), (on, k, s, fret) => {
        const note = at((s % on.open.length) + 1, fret);
        const pitch = (it: PhraseNote): number => pitchAt(on, it.at!.string, it.at!.fret);
        const other = onOtherString(on, note);
        if (other) {
          expect(pitch(other)).toBe(pitch(note));
          expect(other.at).not.toEqual(note.at);
        }
        if (degreeIndex(k, pitch(note)) < 0) return;
        const up = noteMoved({ neck: on, key: k }, note, 'step', 1);
        const back = up && noteMoved({ neck: on, key: k }, up, 'step', -1);
        if (back) expect(pitch(back)).toBe(pitch(note));
      }),
      { numRuns: drawn(500) },
    );
  });

  test('a number is put at its nearest note, and refused where the scale has none', () => {
    expect(placeOfNumber({ neck, key: A }, 3, { string: 6, fret: 5 })).toMatchObject({
      value: { string: 6, fret: 8 },
    });
    expect(placeOfNumber({ neck, key: A }, 2, { string: 6, fret: 5 })).toMatchObject({
      error: { code: 'phrase.number' },
    });
    expect(nearestPlace(neck, 20, { string: 6, fret: 5 })).toBeNull();
  });

  test('501 notes are refused', () => {
    const many = Array.from({ length: 500 }, () => at(6, 5));
    expect(withNotes(many, 3, [at(6, 5)])).toMatchObject({ error: { code: 'phrase.many' } });
    expect(withNotes(many.slice(1), 3, [at(6, 5)]).ok).toBe(true);
  });
});

describe('lengths', () => {
  test('longer and shorter, dotted and in triplets', () => {
    expect([nextLength(480, 1), nextLength(480, -1), nextLength(120, -1), nextLength(3840, 1)]).toEqual([
      960,
      240,
      null,
      null,
    ]);
    expect([lengthAs(480, 'dotted'), lengthAs(720, 'dotted'), lengthAs(480, 'triplet')]).toEqual([
      720, 480, 320,
    ]);
    expect([lengthAs(120, 'dotted'), lengthAs(120, 'triplet')]).toEqual([null, null]);
    expect(lengthSaid(320)).toBe('eighth of a triplet');
    expect(lengthSaid(1200)).toBe('quarter tied to a sixteenth');
    for (const { ticks, id } of VALUES) expect(lengthOf(ticks)).toEqual({ value: id, as: 'plain' });
  });

  test('halves and thirds of a beat cannot be written in one beat, which is named', () => {
    expect(
      canBeWritten(
        [480, 320, 160].map((ticks) => ({ length: ticks })),
        4,
      ).ok,
    ).toBe(true);
    const five = [...Array.from({ length: 5 }, () => 960), 240, 320].map((ticks) => ({ length: ticks }));
    expect(canBeWritten(five, 4)).toMatchObject({
      error: { code: 'phrase.beat', message: expect.stringContaining('Bar 2, beat 2') },
    });
  });
});

describe('a line of degrees', () => {
  test('is read with octaves, rests and lengths, each degree nearest to the one before', () => {
    const read = readLine("1 ♭3:8t 4 b5 | r:4. 1, 5'", A, 45, 480);
    expect(read.ok && read.value.map(({ midi, length: ticks }) => [midi, ticks])).toEqual([
      [45, 480],
      [48, 320],
      [50, 320],
      [51, 320],
      [null, 1440],
      [45, 1440],
      [52, 1440],
    ]);
  });

  test('says which word is not understood', () => {
    expect(readLine('1 q5 3', A, 45, 480)).toMatchObject({
      error: { code: 'line.word', message: expect.stringContaining('Word 2, “q5”') },
    });
    expect(readLine('1 3:32t', A, 45, 480)).toMatchObject({ error: { code: 'line.word' } });
    expect(readLine('  ', A, 45, 480)).toMatchObject({ error: { code: 'line.none' } });
  });

  test('what is written is read back', () => {
    fc.assert(
      fc.property(tuneOn(40, 80), anyKey, (tune, k) => {
        const line = lineOf(tune, k);
        const first = tune.find(({ midi }) => midi !== null)?.midi ?? 60;
        const read = readLine(line!, k, first, 1);
        expect(read.ok && read.value.map(({ midi, length: ticks }) => [midi, ticks])).toEqual(
          tune.map(({ midi, length: ticks }) => [midi, ticks]),
        );
      }),
      { numRuns: drawn(1000) },
    );
  });
});

describe('over chords', () => {
  /** C for a bar, then F7, going round. */
  const chords = [
    { at: 0, ticks: 3840, classes: [0, 4, 7] },
    { at: 3840, ticks: 3840, classes: [5, 9, 0, 3] },
  ];
  const line = (...midi: readonly number[]): Tune =>
    midi.map((m) => ({ midi: m, string: null, length: 960 }));

  test('each note is one of its chord, rubs, or neither, by the chord that it begins on; a bent one by what it is bent to', () => {
    // C F D E, then over F7: E flat, E, G sharp.
    const notes = overChords(line(60, 65, 62, 64, 63, 64, 68), chords, 0);
    expect(notes.map(({ is }) => is)).toEqual(['tone', 'rub', 'other', 'tone', 'tone', 'rub', 'other']);
    expect(notes.map(({ chord }) => chord)).toEqual([0, 0, 0, 0, 1, 1, 1]);
    expect(notes[1]!.against).toBe(4);
    const bent = [{ ...line(62)[0]!, bend: { by: 2, how: 'once', released: false } as const }];
    expect(overChords(bent, chords, 0)[0]).toMatchObject({ pc: 4, is: 'tone' });
  });

  test('it begins anew after the last chord, and could begin where most of it is theirs', () => {
    expect(overChords(line(60, 60), chords, 7 * 960).map(({ chord }) => chord)).toEqual([1, 0]);
    const starts = startsOver(line(65, 69), chords);
    expect(starts).toHaveLength(8);
    // F and A are of the second chord, on any of its beats but the last.
    expect(starts.slice(0, 3).map(({ at }) => at / 960)).toEqual([4, 5, 6]);
    expect(starts[0]).toMatchObject({ tones: 2, rubs: 0, fits: 1 });
    expect(startsOver([{ midi: null, string: null, length: 960 }], chords)).toEqual([]);
  });
});

describe('how a phrase is found', () => {
  test('by how far its notes lie above the root, in any key and octave', () => {
    const word = halfStepWord(lick, A.root);
    expect(word).toBe('khff');
    expect(halfStepWord(raised(lick, 5), key('D', 'minor-pentatonic').root)).toBe(word);
    expect(halfStepsTyped('b7 5 ♯3')).toEqual({ ok: true, value: 'khf' });
    expect(halfStepsTyped('b7 z')).toMatchObject({ error: { code: 'degree.unknown' } });
    expect(halfStepTicks(lick, A.root)).toEqual([0, 0, 0, 0, 0, 1440, 0, 480, 0, 0, 480, 0]);
  });
});

test('a run becomes a phrase that is played as the run is: places, times, fingers and strikes', () => {
  const neckHere = neckWith();
  const way = asWritten(ground(), lick)!;
  const [late] = [way.run.map((step) => ({ ...step, start: step.start + 1920 }))];
  const notes = notesOfRun([...late, { ...late[0]!, start: 1920 + 3840, length: 480, arrive: 'pick' }]);
  // Its first note is its beginning; what it leaves free are rests.
  expect(notes.map(({ length: ticks, at: place }) => [place?.fret ?? 'rest', ticks])).toEqual([
    [8, 480],
    [5, 480],
    [7, 480],
    [7, 960],
    ['rest', 1440],
    [8, 480],
  ]);
  const again = asWritten(ground(), tuneOf(notes, neckHere.open))!;
  expect(again.run.slice(0, 4)).toEqual(way.run);
  expect(again.told).toEqual([]);
});

test('in a position: as high as it is where it lies there, else in another octave, else with what lies outside named', () => {
  const inBox = inFrets(ground(), lick, [5, 8])!;
  expect(inBox.told).toEqual([]);
  const high = inFrets(ground(), raised(lick, -12), [17, 20])!;
  expect(high.told).toContainEqual({ kind: 'octave', note: 0, up: true });
  expect(high.run.every(({ spot }) => spot.fret >= 17 && spot.fret <= 20)).toBe(true);
  const narrow = inFrets(ground(), lick, [7, 7])!;
  const outside = narrow.told.filter(({ kind }) => kind === 'beyond').map(({ note }) => note);
  expect(outside).toEqual(narrow.run.flatMap(({ spot }, i) => (spot.fret === 7 ? [] : [narrow.notes[i]!])));
  expect(outside.length).toBeGreaterThan(0);
});

test('times are tapped in: on the nearest part of the beat, rests before and where it is long, what was not tapped as it was', () => {
  const five = [
    at(6, 5),
    at(6, 8),
    { at: null, length: 480 },
    at(5, 5),
    at(5, 7),
    at(4, 5, { length: 1920 }),
  ];
  const lengths = (taps: readonly number[], grid: number) =>
    withTappedTimes(five, taps, 500, grid, 4).map(({ at: place, length: ticks }) => (place ? ticks : -ticks));
  // Beats of half a second: a beat late, then an eighth and a half, each some ms off.
  expect(lengths([515, 740, 1010, 1260], 240)).toEqual([-960, 480, 480, 480, 480, 1920]);
  expect(lengths([0, 160, 330, 505], 320)).toEqual([320, 320, 320, 960, 1920]);
  // Two taps on one part come one after the other; a note lasts four whole notes at most.
  expect(lengths([0, 5, 12_000], 240)).toEqual([240, 15_360, -7440, 960, 480, 1920]);
  expect(withTappedTimes(five, [], 500, 240, 4)).toBe(five);
});
