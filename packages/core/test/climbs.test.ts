import fc from 'fast-check';
import {
  climb,
  type Climbing,
  CLIMBS,
  type ClimbSpec,
  fingers,
  type Key,
  layOut,
  moveTo,
  type Neck,
  onNeck,
  type Place,
  placeId,
  pitchAt,
  rootSpots,
  type Route,
  routeThrough,
  articulate,
  signatureOf,
  spotsOf,
  TAP,
  tapped,
  usualOf,
} from './core.ts';
import { anyKey, count, HAND, key, neckWith, tableNeck } from './helpers.ts';

function climbing(neck: Neck, k: Key, low = 0, root: Place = rootSpots(neck, k)[0]!): Climbing | null {
  const layout = count(k.scale.degrees.length < 7 ? 2 : 3);
  const laid = layOut(neck, k, layout);
  if (!laid.ok || !laid.value.length) return null;
  const front = laid.value.find((p) => p.lowFret >= low) ?? laid.value.at(-1)!;
  return { neck, key: k, hand: HAND, positions: laid.value, front, root };
}
const A = climbing(neckWith(), key('A', 'minor-pentatonic'), 5)!;
const D = climbing(neckWith(), key('D', 'minor-pentatonic'), 5)!;

function route(from: Climbing, spec: ClimbSpec): Route {
  const found = climb(from, spec);
  if (!found.ok) throw new Error(found.error.message);
  return found.value;
}
/** "6: 5 8 / 5: 5 7": a string each time the line comes to it. */
function text(notes: Route): string {
  let said = '';
  notes.forEach((s, i) => {
    said += notes[i - 1]?.string === s.string ? ` ${s.fret}` : `${i ? ' / ' : ''}${s.string}: ${s.fret}`;
  });
  return said;
}

describe('worked climbs in standard tuning', () => {
  test('a shift on a seam goes on in the next position from the note that both hold', () => {
    expect(text(route(A, { kind: 'shift', string: 3 }))).toBe(
      '6: 5 8 / 5: 5 7 / 4: 5 7 / 3: 5 7 9 / 2: 8 10 / 1: 8 10',
    );
  });
  test('a shift is made on the finger that was chosen, or says which finger cannot', () => {
    const on = (finger: number): ReturnType<typeof fingers>['steps'] =>
      fingers(neckWith(), route(A, { kind: 'shift', string: 3, finger }), HAND).steps;
    // The shared note is string 3 fret 7: the ring finger holds it in the lower position, the index finger moves to it.
    expect([on(3)[7], on(1)[7]]).toMatchObject([
      { finger: 3, hand: 5, spot: { string: 3, fret: 7 } },
      { finger: 1, hand: 7, spot: { string: 3, fret: 7 } },
    ]);
    const low = climbing(neckWith(), key('E', 'minor-pentatonic'), 0)!;
    const no = climb(low, { kind: 'shift', string: 3, finger: 4 });
    expect(no.ok ? '' : no.error.message).toBe(
      'Your little finger cannot take fret 2 of string 3: choose another finger or string.',
    );
    expect(climb(A, { kind: 'shift', string: 3 }).ok).toBe(true);
  });
  test('a slide climb slides where it goes over, on any neck, and on the little finger by two frets at most', () => {
    let slides = 0;
    fc.assert(
      fc.property(tableNeck, anyKey, fc.nat(12), fc.integer({ min: 1, max: 7 }), (neck, k, low, string) => {
        const from = climbing(neck, k, low);
        const found = from && climb(from, { kind: 'slide', string });
        if (!found?.ok) return;
        const { steps } = fingers(neck, found.value, HAND);
        const to = from!.front.spots.findLastIndex((s) => s.string === string) + 1;
        const [a, b] = [steps[to - 1]!, steps[to]!];
        expect([a.spot.string, b.spot.string, moveTo(steps, to)]).toEqual([string, string, 'slide']);
        expect(b.finger !== 4 || b.spot.fret - a.spot.fret <= 2).toBe(true);
        slides++;
      }),
      { numRuns: 150 },
    );
    expect(slides).toBeGreaterThan(30);
  });
  test('a diagonal has the ring finger on every root that has a lead-in, wherever the line ends', () => {
    let roots = 0;
    fc.assert(
      fc.property(tableNeck, fc.constantFrom('A', 'C#', 'Eb', 'F#'), fc.nat(11), (neck, root, nth) => {
        const k = key(root, 'minor-pentatonic');
        const at = rootSpots(neck, k)[nth];
        const from = at && climbing(neck, k, 0, at);
        const found = from && climb(from, { kind: 'diagonal' });
        if (!found?.ok) return;
        for (const { spot, finger } of fingers(neck, found.value, HAND).steps.slice(1)) {
          if (spot.degree !== 0 || spot.fret < 3) continue;
          expect([spot.fret, finger]).toEqual([spot.fret, 3]);
          roots++;
        }
      }),
      { numRuns: 150 },
    );
    expect(roots).toBeGreaterThan(100);
  });
  test('a slide goes from the last note of a string to the next note on it', () => {
    expect(text(route(A, { kind: 'slide', string: 5 }))).toBe(
      '6: 5 8 / 5: 5 7 10 / 4: 7 10 / 3: 7 9 / 2: 8 10 / 1: 8 10',
    );
  });
  // Handbook, section 5: D minor pentatonic on strings 4 and 3.
  test('two strings through three positions, then down the rest of the last one', () => {
    const from = climbing(neckWith(), D.key, 5)!;
    expect(text(route(from, { kind: 'two', string: 4, through: 3 }))).toBe(
      '4: 5 7 / 3: 5 7 / 4: 7 10 / 3: 7 10 / 4: 10 12 / 3: 10 12 10 / 4: 12 10 / 5: 12 10 / 6: 13 10',
    );
  });
  test('one string from its lowest root to its highest', () => {
    expect(text(route(A, { kind: 'one', string: 6 }))).toBe('6: 5 8 10 12 15 17');
  });
  // Handbook, sections 3 and 9: the diagonals of D minor and of G minor pentatonic.
  test('the diagonal from a root on any string, down to the lowest string, ending on a root', () => {
    const from = (k: string, root: Place): Climbing => ({
      ...climbing(neckWith(), key(k, 'minor-pentatonic'))!,
      root,
    });
    const d = route(from('D', { string: 6, fret: 10 }), { kind: 'diagonal' });
    expect(text(d)).toBe('6: 8 10 / 5: 8 10 12 / 4: 10 12 / 3: 10 12 14 / 2: 13 15');
    expect(text(route(from('G', { string: 4, fret: 5 }), { kind: 'diagonal' }))).toBe(
      '6: 1 3 / 5: 1 3 5 / 4: 3 5 / 3: 3 5 7 / 2: 6 8',
    );
    expect(text(route(from('D', { string: 2, fret: 15 }), { kind: 'diagonal' }))).toBe(text(d));
    const up = fingers(neckWith(), d, HAND).steps;
    const down = fingers(neckWith(), [...d].reverse(), HAND).steps;
    expect(signatureOf(up)).toContain('1 3 s3');
    expect(signatureOf(down)).toContain('3 1 s1');
  });
  test('a scale with two diagonals has both', () => {
    const k = key('A', 'minor-six-pentatonic');
    const from = { ...climbing(neckWith(), k)!, root: { string: 6, fret: 5 } };
    const starts = (['front', 'other'] as const).map((_, i) => ({
      ...from,
      front: { ...from.front, start: i },
    }));
    const said = starts.map((f) => text(route(f, { kind: 'diagonal' })));
    expect(new Set(said).size).toBe(2);
  });
  test('the highest note of a string is tapped where it lies above others there; the hand stays', () => {
    const from = climbing(neckWith(), key('B', 'minor-pentatonic'), 2)!;
    const skip = routeThrough(route(from, { kind: 'skip', perString: 3, from: 1, altered: [] }), 'both');
    const run = articulate(fingers(neckWith(), tapped(skip), HAND).steps, 'slurred');
    expect(run.map((s) => `${s.spot.fret}${s.arrive[0]}`).join(' ')).toBe(
      '2p 5h 7t 2p 4h 7t 2p 5h 7t 5p 2p 7t 4p 2p 7t 5p 2p',
    );
    expect(run.filter((s) => s.finger === TAP).every((s) => s.arrive === 'tap')).toBe(true);
    expect(signatureOf(run).split(' / ').slice(0, 2)).toEqual(['1 4 t', '1 3 t']);
    // One note a string is never tapped.
    expect(tapped(skip.filter((s) => s.fret === 2)).some((s) => s.by === TAP)).toBe(false);
  });
  // Handbook, section 3: G major, legs of twelve notes.
  test('a relay goes in pairs of legs and comes down mirrored', () => {
    const from = climbing(neckWith(), key('G', 'major'), 3)!;
    const one = route(from, { kind: 'relay', notes: 12, perString: 3, all: false });
    expect(text(one)).toBe(
      '6: 3 5 7 / 5: 3 5 7 / 4: 4 5 7 / 3: 4 5 7 / 4: 5 7 9 / 3: 5 7 9 / 2: 7 8 10 / 1: 7 8 10',
    );
    const all = route(from, { kind: 'relay', notes: 12, perString: 3, all: true });
    expect(all.length).toBe(7 * 24);
    expect(text(routeThrough(one, 'down')).startsWith('1: 10 8 7 / 2: 10 8 7')).toBe(true);
  });
  test('a zigzag goes up in one position and down in the next', () => {
    expect(text(route(A, { kind: 'zigzag', through: 2 }))).toBe(
      '6: 5 8 / 5: 5 7 / 4: 5 7 / 3: 5 7 / 2: 5 8 / 1: 5 8 10 8 / 2: 10 8 / 3: 9 7 / 4: 10 7 / 5: 10 7 / 6: 10 8',
    );
  });
  test('what there is no room for is refused in the player’s terms', () => {
    const code = (from: Climbing, spec: ClimbSpec): string => {
      const it = climb(from, spec);
      return it.ok ? '' : it.error.code;
    };
    const last = { ...A, front: A.positions.at(-1)! };
    expect(code(last, { kind: 'shift', string: 3 })).toBe('climb.room');
    expect(code(last, { kind: 'slide', string: 3 })).toBe('climb.room');
    expect(code(last, { kind: 'zigzag', through: 2 })).toBe('climb.room');
    expect(code(A, { kind: 'two', string: 1, through: 2 })).toBe('climb.option');
    expect(code(A, { kind: 'zigzag', through: 99 })).toBe('climb.option');
    expect(code(climbing(neckWith(), key('A', 'major'))!, { kind: 'diagonal' })).toBe('layout.scale');
  });
});

describe('laws of climbs', () => {
  const from = fc
    .record({ neck: tableNeck, k: anyKey, low: fc.nat(12), root: fc.nat() })
    .map(({ neck, k, low, root }) => {
      const roots = rootSpots(neck, k);
      return climbing(neck, k, low, roots[root % roots.length]);
    });

  for (const { kind, complete } of CLIMBS.all())
    test(`${kind}: scale notes on the neck, ${complete ? 'each pitch once and rising' : 'in any order'}`, () => {
      fc.assert(
        fc.property(from, (it) => {
          fc.pre(it !== null);
          const spec = usualOf(CLIMBS.of(kind)!, it);
          const up = climb(it, spec);
          // A climb that is refused (nearly) everywhere fails: fast-check gives up looking for one that is laid.
          fc.pre(up.ok);
          const ids = new Set(spotsOf(it.neck, it.key).map(placeId));
          for (const s of up.value) {
            expect(onNeck(it.neck, s.string, s.fret)).toBe(true);
            expect(pitchAt(it.neck, s.string, s.fret)).toBe(s.midi);
            expect(ids.has(placeId(s))).toBe(true);
          }
          if (complete) {
            const pitches = up.value.map((s) => s.midi);
            const between = [...new Set(spotsOf(it.neck, it.key).map((s) => s.midi))]
              .filter((m) => m >= pitches[0]! && m <= pitches.at(-1)!)
              .sort((a, b) => a - b);
            expect(pitches).toEqual(between);
          }
        }),
        { numRuns: 30 },
      );
    });

  test('a relay’s next leg begins one string below the last string played, or takes the top strings', () => {
    fc.assert(
      fc.property(from, (it) => {
        fc.pre(it !== null);
        const { notes, perString, ...spec } = usualOf(CLIMBS.of('relay')!, it) as ClimbSpec & {
          notes: number;
          perString: number;
        };
        const up = climb(it, { ...spec, notes, perString, all: false } as ClimbSpec);
        fc.pre(up.ok && up.value.length > notes);
        const at = (i: number): number => it.neck.rising.indexOf(up.value[i]!.string);
        for (let i = notes; i < up.value.length; i += notes) {
          expect(at(i)).toBe(Math.min(at(i - 1) - 1, it.neck.rising.length - notes / perString));
        }
      }),
      { numRuns: 60 },
    );
  });
});
