import fc from 'fast-check';
import {
  articulate,
  drill,
  type Drilling,
  type DrillSpec,
  DRILLS,
  fingers,
  type Key,
  layOut,
  type Neck,
  placeId,
  type Position,
  type Route,
  type Strike,
  strikeAs,
  usualOf,
  LAYOUTS,
} from './core.ts';
import { anyKey, count, HAND, key, neckWith, positions, tableNeck } from './helpers.ts';

function drilling(
  neck: Neck,
  k: Key,
  low: number,
  layout = count(k.scale.degrees.length < 7 ? 2 : 3),
): Drilling | null {
  const laid = layOut(neck, k, layout);
  if (!laid.ok || !laid.value.length) return null;
  const front = laid.value.find((p) => p.lowFret >= low) ?? laid.value.at(-1)!;
  return { neck, key: k, notes: front.spots, back: front.spots, layout, positions: laid.value, front };
}
/** Some of the notes alone. */
function cut(of: Drilling, from: number, to: number): Drilling {
  const notes = of.notes.slice(from, to);
  return { ...of, notes, back: notes };
}
/** A major from string 6 fret 5, three notes a string: 18 notes, roots at the 1st, 8th and 15th. */
const A = drilling(neckWith(), key('A', 'major'), 5)!;
/** Its first eight notes, an octave of the scale. */
const OCTAVE = cut(A, 0, 8);
/** From the second note to the sixth: the root is none of them. */
const part = (from: number, to: number): Drilling => cut(A, from - 1, to);

function notesOf(from: Drilling, spec: DrillSpec): Route {
  const found = drill(from, spec);
  if (!found.ok) throw new Error(found.error.message);
  return found.value.notes;
}
/** The notes of a drill by their number among those that it is made of, from 1. */
const line = (from: Drilling, spec: DrillSpec): string =>
  notesOf(from, spec)
    .map((n) => from.notes.findIndex((o) => placeId(o) === placeId(n)) + 1)
    .join(' ');
const message = (from: Drilling, spec: DrillSpec): string => {
  const found = drill(from, spec);
  return found.ok ? (found.value.remark?.message ?? '') : found.error.message;
};

describe('drills as the handbook defines them, section 8, written out by hand', () => {
  test('the material is what these are written for', () => {
    expect(A.notes.map((n) => n.degree + 1).join(' ')).toBe('1 2 3 4 5 6 7 1 2 3 4 5 6 7 1 2 3 4');
  });
  test.each<[string, Drilling, DrillSpec, string]>([
    [
      'up and down, the top once',
      OCTAVE,
      { kind: 'up-and-down', topTwice: false },
      '1 2 3 4 5 6 7 8 7 6 5 4 3 2 1',
    ],
    [
      'up and down, the top twice',
      OCTAVE,
      { kind: 'up-and-down', topTwice: true },
      '1 2 3 4 5 6 7 8 8 7 6 5 4 3 2 1',
    ],
    ['root to root', A, { kind: 'root-to-root', topTwice: false }, '1 2 3 4 5 6 7 8 7 6 5 4 3 2 1'],
    [
      'root to root from a root in the middle',
      part(6, 10),
      { kind: 'root-to-root', topTwice: false },
      '3 4 5 4 3',
    ],
    [
      'whole range from the lowest root',
      part(6, 12),
      { kind: 'whole-range', from: 1 },
      '3 4 5 6 7 6 5 4 3 2 1 2 3',
    ],
    [
      'whole range from the second root',
      part(1, 9),
      { kind: 'whole-range', from: 2 },
      '8 9 8 7 6 5 4 3 2 1 2 3 4 5 6 7 8',
    ],
    ['out from the root', part(1, 4), { kind: 'out-from-root' }, '1 2 1 2 3 2 1 2 3 4 3 2 1'],
    ['root between', OCTAVE, { kind: 'root-between' }, '1 2 1 3 1 4 1 5 1 6 1 7 1 8'],
    [
      'groups of three',
      part(1, 5),
      { kind: 'groups', length: 3, topTwice: true },
      '1 2 3 2 3 4 3 4 5 5 4 3 4 3 2 3 2 1',
    ],
    [
      'groups of three, turned once',
      part(1, 5),
      { kind: 'groups', length: 3, topTwice: false },
      '1 2 3 2 3 4 3 4 5 4 3 2 3 2 1',
    ],
    [
      'groups of four',
      part(1, 5),
      { kind: 'groups', length: 4, topTwice: true },
      '1 2 3 4 2 3 4 5 5 4 3 2 4 3 2 1',
    ],
    ['broken thirds', part(1, 5), { kind: 'skips', skip: 2, topTwice: true }, '1 3 2 4 3 5 5 3 4 2 3 1'],
    ['broken fourths', part(1, 5), { kind: 'skips', skip: 3, topTwice: true }, '1 4 2 5 5 2 4 1'],
    [
      'two strings alone',
      A,
      { kind: 'part-of-strings', from: 5, to: 4, topTwice: false },
      '4 5 6 7 8 9 8 7 6 5 4',
    ],
  ])('%s', (_, from, spec, expected) => {
    expect(line(from, spec)).toBe(expected);
  });
  test('what cannot be played as its rule says is told', () => {
    expect(message(part(6, 10), { kind: 'root-to-root', topTwice: false })).toBe(
      'There is no octave of the root here, so it goes as far as the notes do.',
    );
    expect(message(part(2, 6), { kind: 'out-from-root' })).toBe(
      'There is no root among these notes: choose another position.',
    );
    expect(message(A, { kind: 'whole-range', from: 4 })).toBe(
      'There is no fourth root among these notes: choose one up to 3.',
    );
    expect(message(part(1, 2), { kind: 'groups', length: 3, topTwice: true })).toBe(
      'There are too few notes for this: it takes 3, and there are 2.',
    );
    expect(message(part(1, 3), { kind: 'part-of-strings', from: 1, to: 2, topTwice: true })).toBe(
      'There are no notes on strings 1 to 2 here: choose other strings.',
    );
    expect(message(part(1, 3), { kind: 'groups', length: 7, topTwice: true })).toMatch(/^Notes in a group: /);
  });
  test('there in one position, back in the next: the shift is made on the last string, and no note is struck twice in a row', () => {
    const there = notesOf(A, { kind: 'there-and-back', side: 'up' });
    const other = A.positions[A.front.index + 1]!;
    const top = A.notes.at(-1)!;
    expect(there.slice(0, A.notes.length)).toEqual(A.notes);
    expect(there.slice(A.notes.length).map((n) => n.midi)).toEqual(
      [...other.spots.filter((s) => s.midi > top.midi), ...[...other.spots].reverse().slice(1)].map(
        (n) => n.midi,
      ),
    );
    expect(message({ ...A, front: A.positions.at(-1)! }, { kind: 'there-and-back', side: 'up' })).toBe(
      'There is no position further up the neck.',
    );
  });
  test('there and back turns without a leap: down as one came until the other position goes on', () => {
    for (const kind of ['count', 'reach', 'diagonal', 'inPosition', 'pair'])
      for (const scale of ['minor-pentatonic', 'natural-minor'])
        for (const root of ['A', 'C', 'F#']) {
          const k = key(root, scale);
          const layout = usualOf(LAYOUTS.of(kind)!, { scale: k.scale, string: 6, strings: 6 });
          const laid = layOut(neckWith(undefined, 22), k, layout);
          for (const front of laid.ok ? laid.value : [])
            for (const side of ['up', 'down']) {
              const from = { ...A, key: k, layout, notes: front.spots, back: front.spots, front };
              const positions = laid.ok ? laid.value : [];
              const done = drill({ ...from, positions }, { kind: 'there-and-back', side });
              const steps = done.ok ? done.value.notes.map((n) => n.midi) : [];
              for (let i = 1; i < steps.length; i++) {
                const far = Math.abs(steps[i]! - steps[i - 1]!);
                expect([far > 0, far <= Math.max(...k.scale.steps)]).toEqual([true, true]);
              }
            }
        }
  });
  test('up in one scale, down in another', () => {
    const notes = notesOf(A, { kind: 'other-scale', scale: 'natural-minor' });
    const down = notes.slice(A.notes.length);
    const pcs = (all: Route): readonly number[] =>
      [...new Set(all.map((n) => (n.midi - 57 + 120) % 12))].sort((a, b) => a - b);
    // Handbook, section 2: major and natural minor in half steps above the root.
    expect(pcs(A.notes)).toEqual([0, 2, 4, 5, 7, 9, 11]);
    expect(pcs(down)).toEqual([0, 2, 3, 5, 7, 8, 10]);
  });
});

describe('roots of chords', () => {
  // Major and minor chords of the major key: common practice, no source.
  const degrees = (chords: string, seed = 1): readonly number[] =>
    notesOf(A, { kind: 'roots', chords, times: 1, many: 32, seed }).map((n) => n.degree + 1);
  test('are those that were asked for, never one twice in a row, each as often as it was asked for', () => {
    expect([...new Set(degrees('major'))].sort()).toEqual([1, 4, 5]);
    expect([...new Set(degrees('minor'))].sort()).toEqual([2, 3, 6]);
    expect(degrees('all')).not.toContain(7);
    for (let seed = 1; seed < 30; seed++)
      degrees('all', seed).forEach((d, i, all) => expect(d).not.toBe(all[i - 1]));
    expect(degrees('all', 2)).not.toEqual(degrees('all', 3));
    const four = notesOf(A, { kind: 'roots', chords: 'all', times: 4, many: 3, seed: 1 });
    expect(four).toHaveLength(12);
    expect(new Set(four.slice(0, 4)).size).toBe(1);
    expect(message(cut(A, 0, 1), { kind: 'roots', chords: 'all', times: 1, many: 4, seed: 1 })).toBe(
      'There are not two such chords in this scale here: ask for others.',
    );
  });
});

describe('ways of striking', () => {
  const fingersOf = (route: Route) => fingers(A.neck, route, HAND);
  const arrives = (route: Route, how: Strike, group = 1): string => {
    const done = strikeAs(route, how, fingersOf, group);
    return done.ok ? done.value.steps.map((s) => s.arrive[0]).join('') : done.error.code;
  };
  const two = A.notes.slice(0, 6);
  const down = [...two].reverse();
  test('worked on two strings, up and down', () => {
    expect(arrives(two, 'picked')).toBe('pppppp');
    expect(arrives(two, 'slurred')).toBe('phhphh');
    // C major on string 2: the third of each group is slid to, unless every note is to be picked; the fingers are the same.
    const along = positions(key('C', 'major'), { kind: 'single', string: 2 }, neckWith(undefined, 22))[0]!
      .spots;
    expect(arrives(along, 'picked')).toContain('s');
    expect(arrives(along, 'every')).toBe('pppppppp');
    expect(arrives(two, 'hammered')).toBe('phhphh');
    expect(arrives(down, 'hammered')).toBe('strike.reach');
    // A pull-off and a pick begin alike: told by the step itself.
    const pulled = strikeAs(down, 'pulled', fingersOf);
    expect(pulled.ok && pulled.value.steps.map((s) => s.arrive)).toEqual([
      'pick',
      'pull',
      'pull',
      'pick',
      'pull',
      'pull',
    ]);
    expect(arrives(two, 'slid')).toBe('ppspps');
    expect(arrives(two, 'tapped')).toBe('phtpht');
  });
  test('slides lead to the last note of a group where that is on its string', () => {
    const line = notesOf(A, { kind: 'groups', length: 3, topTwice: true });
    const slid = strikeAs(line, 'slid', fingersOf, 3);
    if (!slid.ok) throw new Error(slid.error.message);
    slid.value.steps.forEach(({ spot, arrive }, i) => {
      const before = line[i - 1];
      const ends = i % 3 === 2 && before?.string === spot.string && before.fret > 0 && spot.fret > 0;
      if (ends) expect([i, arrive]).toEqual([i, 'slide']);
    });
  });
  test('and nowhere else: what the fingers would slide to themselves is picked', () => {
    // C major on string 2, fingered 1 3 s3 4 twice, in groups of four: it slides to the last of each, and not to the third.
    const k = key('C', 'major');
    const laid = layOut(A.neck, k, { kind: 'single', string: 2 });
    if (!laid.ok) throw new Error(laid.error.message);
    const line = laid.value.find((p) => p.spots[0]!.fret === 1)!.spots.slice(0, 8);
    const { steps } = fingersOf(line);
    expect(steps.map((s) => s.finger).join(' ')).toBe('1 3 3 4 1 3 3 4');
    const slid = strikeAs(line, 'slid', fingersOf, 4);
    if (!slid.ok) throw new Error(slid.error.message);
    const at = slid.value.steps.flatMap(({ arrive }, i) => (arrive === 'slide' ? [i] : []));
    expect(at).toEqual([3, 7]);
  });
  test('where nothing can be struck so, the reason is said', () => {
    const apart = [A.notes[0]!, A.notes[3]!, A.notes[6]!];
    for (const how of ['slurred', 'hammered', 'pulled', 'slid', 'tapped'] as const)
      expect(arrives(apart, how)).toBe('strike.string');
    expect(arrives(apart, 'picked')).toBe('ppp');
    const far = strikeAs([A.notes[0]!, { ...A.notes[0]!, fret: 17, midi: 57 }], 'slurred', fingersOf);
    expect(far.ok || far.error.message).toBe(
      'This cannot be struck so: for each of them the hand would have to travel. Strike it otherwise.',
    );
  });
});

const found = fc
  .record({ neck: tableNeck, key: anyKey, low: fc.integer({ min: 0, max: 12 }), at: fc.nat() })
  .map(({ neck, key: k, low, at }) => {
    const from = drilling(neck, k, low);
    const it = DRILLS.all()[at % DRILLS.all().length]!;
    return from && { from, it, spec: usualOf(it, from) };
  })
  .filter((it) => it !== null);
const laws = (law: (from: Drilling, spec: DrillSpec, notes: Route) => void, kind?: string): void => {
  let many = 0;
  fc.assert(
    fc.property(found, ({ from, it, spec: usual }) => {
      const spec = kind ? usualOf(DRILLS.of(kind)!, from) : usual;
      const played = drill(from, spec);
      if (!played.ok || (kind === undefined && it === undefined)) return;
      many++;
      law(from, spec, played.value.notes);
    }),
    { numRuns: 120 },
  );
  expect(many).toBeGreaterThan(20);
};
const counts = (notes: Route): ReadonlyMap<number, number> => {
  const all = new Map<number, number>();
  for (const n of notes) all.set(placeId(n), (all.get(placeId(n)) ?? 0) + 1);
  return all;
};
const holds = (p: Position, n: Route[number]): boolean => p.spots.some((s) => placeId(s) === placeId(n));

describe('laws of drills on any position', () => {
  test('every note is one of the position, or of the one that it comes back in', () => {
    laws((from, spec, notes) => {
      if (spec.kind === 'other-scale') return;
      const others = [from.front, from.positions[from.front.index + 1], from.positions[from.front.index - 1]];
      for (const n of notes) expect([spec, others.some((p) => p && holds(p, n))]).toEqual([spec, true]);
    });
  });
  test('the whole range touches the lowest and the highest note once, and ends where it began', () => {
    laws((from, _, notes) => {
      const [first, last] = [from.notes[0]!, from.notes.at(-1)!];
      const many = counts(notes);
      expect(placeId(notes[0]!)).toBe(placeId(notes.at(-1)!));
      for (const end of [first, last])
        if (placeId(end) !== placeId(notes[0]!)) expect(many.get(placeId(end))).toBe(1);
    }, 'whole-range');
  });
  test('out from the root reaches the octave where there is one, and never strikes the root twice in a row', () => {
    laws((from, _, notes) => {
      const root = notes[0]!;
      const octave = from.notes.find((n, i) => n.midi === root.midi + 12 && i > from.notes.indexOf(root));
      expect(Math.max(...notes.map((n) => n.midi))).toBe(
        octave ? octave.midi : Math.max(...from.notes.slice(from.notes.indexOf(root)).map((n) => n.midi)),
      );
      notes.forEach((n, i) => expect(i > 0 && n === notes[i - 1]).toBe(false));
    }, 'out-from-root');
  });
  test('groups have their length, each begins a note further, and the way down mirrors the way up', () => {
    laws((from, spec, notes) => {
      const length = spec['length'] as number;
      expect(notes.length).toBe(2 * length * (from.notes.length - length + 1));
      expect([...notes].reverse()).toEqual(notes);
      for (let i = 0; i * length < notes.length / 2; i++)
        expect(notes.slice(i * length, (i + 1) * length)).toEqual(from.notes.slice(i, i + length));
    }, 'groups');
  });
  test('up and down is the same backwards; strings are those that were asked for', () => {
    laws((_, __, notes) => expect([...notes].reverse()).toEqual(notes), 'up-and-down');
    laws((_, spec, notes) => {
      const [low, high] = [spec['from'] as number, spec['to'] as number].sort((a, b) => a - b);
      for (const { string } of notes) expect(string >= low! && string <= high!).toBe(true);
    }, 'part-of-strings');
  });
  test('jumps keep to their strings, never strike a note twice in a row, and are the same for a seed', () => {
    laws((from, spec, notes) => {
      expect(notes).toHaveLength(spec['notes'] as number);
      expect(notesOf(from, spec)).toEqual(notes);
      notes.slice(1).forEach((n, i) => {
        expect(n.midi).not.toBe(notes[i]!.midi);
        expect(
          Math.abs(from.neck.rising.indexOf(n.string) - from.neck.rising.indexOf(notes[i]!.string)),
        ).toBeLessThanOrEqual(spec['strings'] as number);
      });
    }, 'jumps');
    const other = (seed: number): string => line(A, { kind: 'jumps', seed, notes: 32, strings: 5 });
    expect(new Set([1, 2, 3, 4, 5].map(other)).size).toBe(5);
  });
  test('no slur crosses strings, whatever is drilled', () => {
    laws((from, _, notes) => {
      const steps = articulate(fingers(from.neck, notes.slice(0, 40), HAND).steps, 'slurred');
      steps.forEach((s, i) => s.arrive === 'pick' || expect(s.spot.string).toBe(steps[i - 1]!.spot.string));
    });
  });
});
