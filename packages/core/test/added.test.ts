import fc from 'fast-check';
import {
  addedSource,
  addedSpots,
  addedAlong,
  articulate,
  climb,
  CLIMBS,
  degree,
  type Key,
  layOut,
  mod,
  nextString,
  note,
  ownScale,
  passingBetween,
  pitchAt,
  pitchClass,
  placesUnder,
  spotsWith,
  usualOf,
  wayThrough,
} from './core.ts';
import { anyKey, anyNeck, count, HAND, key, neckWith, positions } from './helpers.ts';

const neck = neckWith('E2 A2 D3 G3 B3 E4', 22);

// Common practice, no source.
test('in the diagonal A minor pentatonic the major third and the flat fifth lie between its notes', () => {
  const k = key('A', 'minor-pentatonic');
  const diagonal = positions(k, { kind: 'diagonal' }, neck).find((p) =>
    p.groups.some((g) => g.string === 5 && g.frets.join(' ') === '3 5 7'),
  )!;
  const at = (above: number): readonly string[] =>
    addedSpots(neck, k, diagonal, [{ above, passing: false }]).map((s) => `${s.string}/${s.fret}`);
  expect(at(4)).toEqual(expect.arrayContaining(['5/4', '3/6', '1/9']));
  expect(at(6)).toEqual(expect.arrayContaining(['5/6', '3/8', '1/11']));
});

test('added notes lie between the notes of a position, each pitch once, and are not those of the scale', () => {
  fc.assert(
    fc.property(
      anyKey,
      fc.uniqueArray(fc.integer({ min: 1, max: 11 })),
      fc.boolean(),
      (k, heights, passing) => {
        const added = heights.map((above) => ({ above, passing }));
        for (const position of positions(k, count(3), neck).slice(0, 3)) {
          const spots = addedSpots(neck, k, position, added);
          const midis = position.spots.map((s) => s.midi);
          const line = spotsWith(position.spots, spots);
          expect(line.filter((s) => !s.added)).toEqual(position.spots);
          expect(new Set(spots.map((s) => s.midi)).size).toBe(spots.length);
          for (const { string, fret, midi, degree } of spots) {
            expect(pitchAt(neck, string, fret)).toBe(midi);
            expect([degree, k.scale.offsets.includes(mod(midi - pitchClass(k.root), 12))]).toEqual([
              -1,
              false,
            ]);
            expect(midi > Math.min(...midis) && midi < Math.max(...midis)).toBe(true);
            expect(heights).toContain(mod(midi - pitchClass(k.root), 12));
            expect(fret >= position.lowFret && fret <= position.highFret).toBe(true);
            // Where it lies between two notes of a string it is played there.
            const among = position.groups.filter((g) => {
              const at = midi - neck.open[g.string - 1]!;
              return at > g.frets[0]! && at < g.frets.at(-1)!;
            });
            if (among.length) expect(among.map((g) => g.string)).toContain(string);
            for (const p of placesUnder(neck, position, { string, fret }))
              expect(pitchAt(neck, p.string, p.fret)).toBe(midi);
          }
        }
      },
    ),
  );
});

test('an added note is hammered from the half step below it both ways, and passing notes fall between the beats', () => {
  const k = key('A', 'minor-pentatonic');
  const box = positions(k, count(2), neck).find((p) => p.lowFret === 5)!;
  const { up, down } = addedSource(neck, k, box, HAND, [{ above: 4, passing: false }]);
  for (const { steps } of [up, down()]) {
    const line = articulate(steps);
    const at = line.findIndex((s) => s.spot.added);
    expect([line[at - 1]!.spot.fret, line[at]!.spot.fret, line[at]!.arrive]).toEqual([5, 6, 'hammer']);
    expect(line.filter((s) => s.arrive === 'hammer')).toHaveLength(1);
  }
  // F sharp lies a whole step above the note before it on string 2: it is picked, and stays where it is coming down.
  const sixth = addedSource(neck, k, box, HAND, [{ above: 9, passing: false }]).down().steps;
  const on2 = articulate(sixth).filter((s) => s.spot.string === 2);
  expect(on2.map((s) => [s.spot.fret, s.arrive])).toEqual([
    [8, 'pick'],
    [7, 'pick'],
    [5, 'pick'],
  ]);
  const passing = addedSource(neck, k, box, HAND, [{ above: 6, passing: true }]);
  const route = wayThrough(passing, 'both');
  for (const perBeat of [1, 2, 3, 4]) {
    const line = passingBetween(route, perBeat);
    line.forEach((note, i) => expect(note.added === 'passing' && i % perBeat === 0).toBe(false));
    expect(line.filter((n) => !n.added)).toEqual(route.filter((n) => !n.added));
  }
  expect(passingBetween(route, 2).some((n) => n.added)).toBe(true);
});

// Common practice, no source.
test('an added note that is slid to has the finger of the half step below it, going up and coming down', () => {
  const k = key('A', 'minor-pentatonic');
  const box = positions(k, count(2), neck).find((p) => p.lowFret === 5)!;
  const placed = positions(k, { kind: 'inPosition', school: 'index', every: false }).find(
    (p) => p.indexFret === 5,
  )!;
  const ways = [box, placed].flatMap((position) => {
    const { up, down } = addedSource(neck, k, position, HAND, [{ above: 4, passing: false, slid: true }]);
    return [up, down()];
  });
  for (const { steps } of ways) {
    // However the others are struck.
    for (const slid of [undefined, new Set<number>()]) {
      const line = articulate(steps, 'picked', slid);
      const at = line.findIndex((s) => s.spot.added);
      expect([line[at - 1]!.spot.fret, line[at]!.spot.fret, line[at]!.arrive]).toEqual([5, 6, 'slide']);
      expect(line[at]!.finger).toBe(line[at - 1]!.finger);
      // The hand goes along.
      expect(line[at]!.hand).toBe(line[at - 1]!.hand + 1);
      expect(line.filter((s) => s.arrive === 'slide')).toHaveLength(1);
    }
  }
});

test('an added note is moved through all strings on which its pitch lies under the hand, and home again', () => {
  let moves = 0;
  fc.assert(
    fc.property(anyKey, anyNeck, fc.integer({ min: 1, max: 11 }), (k, on, above) => {
      const laid = layOut(on, k, count(3));
      for (const position of laid.ok ? laid.value.slice(0, 4) : []) {
        const plain = addedSpots(on, k, position, [{ above, passing: true }]);
        for (const spot of plain) {
          let now = spot;
          const seen = new Set<number>();
          while (!seen.has(now.string)) {
            seen.add(now.string);
            const to = nextString(on, position, now);
            if (to === null) break;
            moves++;
            const moved = to === spot.string ? [] : [[spot.string, to] as const];
            const all = addedSpots(on, k, position, [{ above, passing: true, moved }]);
            const there = all.find((s) => s.midi === spot.midi)!;
            expect([there.string, pitchAt(on, there.string, there.fret)]).toEqual([to, spot.midi]);
            expect(there.from).toBe(to === spot.string ? undefined : spot.string);
            // The others stay where they are, but for those of its string.
            for (const other of plain) if (other.string !== spot.string) expect(all).toContainEqual(other);
            now = there;
          }
          expect(seen.size).toBe(placesUnder(on, position, spot).length + 1);
        }
      }
    }),
  );
  expect(moves).toBeGreaterThan(50);
});

test('climbs have added notes between the steps of the scale, on the string of one of the two, and are else as they were', () => {
  let more = 0;
  fc.assert(
    fc.property(anyKey, fc.integer({ min: 1, max: 11 }), (k, above) => {
      const laid = layOut(neck, k, count(3));
      const all = laid.ok ? laid.value : [];
      const [front] = all;
      if (!front) return;
      const from = { neck, key: k, hand: HAND, positions: all, front, root: front.spots[0]! };
      for (const kind of CLIMBS.all()) {
        const line = climb(from, usualOf(kind, from));
        if (!line.ok) continue;
        const long = addedAlong(k, line.value, [{ above, passing: false }]);
        expect(long.filter((n) => !n.added)).toEqual(line.value);
        if (k.scale.offsets.includes(above)) expect(long).toEqual(line.value);
        long.forEach((note, i) => {
          if (!note.added) return;
          more++;
          const [a, b] = [long[i - 1]!, long[i + 1]!];
          expect((note.midi - a.midi) * (b.midi - note.midi)).toBeGreaterThan(0);
          expect(mod(note.midi - pitchClass(k.root), 12)).toBe(above);
          expect([a.string, b.string]).toContain(note.string);
          expect(pitchAt(neck, note.string, note.fret)).toBe(note.midi);
        });
      }
    }),
    { numRuns: 30 },
  );
  expect(more).toBeGreaterThan(20);
  // What leaps goes past them, and what lies out of reach of both notes is left out.
  const line = (...places: readonly (readonly [string: number, fret: number])[]) =>
    places.map(([string, fret]) => {
      const midi = pitchAt(neck, string, fret);
      return { string, fret, midi, degree: 0 };
    });
  const leap = line([6, 5], [5, 7]);
  expect(addedAlong(key('A', 'minor-pentatonic'), leap, [{ above: 4, passing: false }])).toEqual(leap);
  const fifths: Key = { root: note('A'), scale: ownScale(['1', '5'].map(degree)) };
  const far = line([5, 7], [4, 7]);
  expect(addedAlong(fifths, far, [{ above: 9, passing: false }])).toEqual(far);
  expect(addedAlong(fifths, far, [{ above: 8, passing: false }])).toHaveLength(3);
});
