import fc from 'fast-check';
import {
  anchorNet,
  CATALOGUE,
  fromHand,
  fretDistance,
  holdersOf,
  indexRoots,
  jumpRules,
  layOut,
  onePlaceOnly,
  parseGrip,
  type Place,
  placeId,
  placesOf,
  type Position,
  regionsOf,
  rootSpots,
  seamByString,
  sharedSpots,
  spotsOf,
  usualOf,
  LAYOUTS,
} from './core.ts';
import { anyKey, anyNeck, count, key, neckWith, positions, tableNeck } from './helpers.ts';

const A = key('A', 'minor-pentatonic');
const boxes = positions(A, count(2));
const at = (low: number): Position => boxes.find((p) => p.lowFret === low)!;
const frets = (spots: readonly Place[]): readonly number[] => spots.map((s) => s.fret);

describe('seams', () => {
  // Handbook, section 5: what is the upper side of one position on a string is the lower side of the next.
  test('neighbouring boxes of A minor pentatonic interlock string by string', () => {
    const seam = seamByString(neckWith(), at(5), at(7));
    expect(seam.map((s) => s.string)).toEqual([6, 5, 4, 3, 2, 1]);
    expect(seam.map((s) => [frets(s.lower), frets(s.shared), frets(s.upper)])).toEqual([
      [[5], [8], [10]],
      [[5], [7], [10]],
      [[5], [7], [10]],
      [[5], [7], [9]],
      [[5], [8], [10]],
      [[5], [8], [10]],
    ]);
  });

  test('any two positions: complete, and the same from either side', () => {
    fc.assert(
      fc.property(tableNeck, anyKey, fc.nat(), fc.nat(), fc.nat(), (neck, k, which, i, j) => {
        const layout = LAYOUTS.all()[which % LAYOUTS.all().length]!;
        const strings = neck.open.length;
        const laid = layOut(neck, k, usualOf(layout, { scale: k.scale, string: strings, strings }));
        if (!laid.ok || !laid.value.length) return;
        const [a, b] = [laid.value[i % laid.value.length]!, laid.value[j % laid.value.length]!];
        const ids = (spots: readonly Place[]): readonly number[] =>
          [...new Set(spots.map(placeId))].sort((x, y) => x - y);
        const seam = seamByString(neck, a, b);
        expect(ids(seam.flatMap((s) => [...s.lower, ...s.shared]))).toEqual(ids(a.held));
        expect(ids(seam.flatMap((s) => [...s.upper, ...s.shared]))).toEqual(ids(b.held));
        expect(ids(seam.flatMap((s) => s.shared))).toEqual(ids(sharedSpots(b, a)));
        expect(seam.every((s) => s.lower.every((x) => !frets(s.upper).includes(x.fret)))).toBe(true);
      }),
    );
  });
});

describe('roots as anchors', () => {
  // Handbook, section 5: two strings up and two frets up from strings 6 and 5, three from 4 and 3; and backwards.
  test('octave jumps in standard tuning', () => {
    expect(jumpRules(neckWith())).toEqual([
      { from: [6, 5], strings: 2, frets: 2 },
      { from: [4, 3], strings: 2, frets: 3 },
      { from: [6], strings: 3, frets: -3 },
      { from: [5, 4], strings: 3, frets: -2 },
    ]);
    const { roots, jumps } = anchorNet(neckWith(), A);
    expect(roots.filter((r) => r.fret < 12).map((r) => `${r.string}/${r.fret}`)).toEqual(
      '6/5 5/0 4/7 3/2 2/10 1/5'.split(' '),
    );
    expect(jumps).toContainEqual({
      from: { string: 6, fret: 5 },
      to: { string: 4, fret: 7 },
      strings: 2,
      frets: 2,
    });
    expect(jumps).toContainEqual({
      from: { string: 4, fret: 7 },
      to: { string: 2, fret: 10 },
      strings: 2,
      frets: 3,
    });
    expect(jumps).toContainEqual({
      from: { string: 6, fret: 5 },
      to: { string: 3, fret: 2 },
      strings: 3,
      frets: -3,
    });
  });

  test('every root is on the net wherever another one lies an octave away within reach, and every jump is an octave', () => {
    fc.assert(
      fc.property(anyNeck, anyKey, (neck, k) => {
        const { roots, jumps } = anchorNet(neck, k);
        const midi = ({ string, fret }: Place): number => neck.open[string - 1]! + fret;
        expect(jumps.every((j) => midi(j.to) - midi(j.from) === 12)).toBe(true);
        const joined = new Set(jumps.flatMap((j) => [placeId(j.from), placeId(j.to)]));
        const lonely = roots.filter((r) => !joined.has(placeId(r)));
        // A neck has at least twelve frets: a root that is alone has none an octave away on its own string.
        expect(
          lonely.every((r) => !roots.some((o) => o.string === r.string && Math.abs(o.fret - r.fret) === 12)),
        ).toBe(true);
      }),
    );
  });

  // Handbook, section 5: the five boxes and the strings of their roots pair up one to one.
  test('the root on the index side picks the box', () => {
    expect([at(5), at(7), at(9), at(12), at(14)].map(indexRoots)).toEqual([[6, 1], [4], [2], [5], [3]]);
  });

  test('the positions that hold a root, and what lies beside it', () => {
    const held = holdersOf(boxes, { string: 4, fret: 7 });
    expect(held.map((h) => [h.position.lowFret, h.below?.fret ?? null, h.above?.fret ?? null])).toEqual([
      [5, 5, null],
      [7, null, 10],
    ]);
  });
});

describe('from where the hand is', () => {
  const hand = { frets: [5, 7], strings: [1, 5], held: null } as const;
  test('positions under the hand come first, by how little it moves', () => {
    const found = fromHand(boxes, hand);
    expect(found[0]!.position.lowFret).toBe(5);
    expect(found[0]!.move).toBe(0);
    expect(found[0]!.shared.map((s) => `${s.string}/${s.fret}`)).toEqual(
      '5/5 5/7 4/5 4/7 3/5 3/7 2/5 1/5'.split(' '),
    );
    expect(found[0]!.root).toMatchObject({ string: 4, fret: 7 });
    expect(found[1]!.shared.length).toBeGreaterThan(0);
    const none = found.findIndex((f) => f.shared.length === 0);
    expect(found.slice(none).every((f) => f.shared.length === 0)).toBe(true);
  });

  test('a chord is read as players write it, and its notes are looked for', () => {
    const read = parseGrip('x 7 7 5 5 5', neckWith());
    if (!read.ok) throw new Error(read.error.message);
    expect(read.value).toMatchObject({ frets: [5, 7], strings: [1, 5] });
    expect(fromHand(boxes, read.value)[0]!.shared.map((s) => s.string)).toEqual([5, 4, 3, 2, 1]);
    expect(parseGrip('x32010', neckWith())).toMatchObject({ value: { frets: [1, 3], strings: [1, 5] } });
    const refused = (text: string): string => {
      const it = parseGrip(text, neckWith());
      return it.ok ? '' : it.error.code;
    };
    expect(['5 7 7', '5 7 7 6 5 99', 'x x x x x x', '5 7 7 6 5 q'].map(refused)).toEqual([
      'grip.count',
      'grip.fret',
      'grip.empty',
      'grip.fret',
    ]);
  });

  test('nothing is lost in the ranking, on any neck', () => {
    const twoFrets = fc.tuple(fc.nat(12), fc.nat(4));
    fc.assert(
      fc.property(tableNeck, fc.constantFrom(...CATALOGUE), twoFrets, (neck, scale, [low, more]) => {
        const k = { root: A.root, scale };
        const laid = layOut(neck, k, count(scale.degrees.length < 7 ? 2 : 3));
        if (!laid.ok) return;
        const found = fromHand(laid.value, {
          frets: [low, low + more],
          strings: [1, neck.open.length],
          held: null,
        });
        expect(found.map((f) => f.position.index).sort((a, b) => a - b)).toEqual(
          laid.value.map((p) => p.index),
        );
      }),
    );
  });
});

describe('regions', () => {
  test('a neck cut at frets', () => {
    expect(regionsOf(neckWith(), [7])).toEqual([
      [0, 6],
      [7, 24],
    ]);
    expect(regionsOf(neckWith(), [12, 5])).toEqual([
      [0, 4],
      [5, 11],
      [12, 24],
    ]);
  });

  // Handbook, section 5: the lowest and the highest pitches have one place only; most others have two to six.
  test('places of a pitch with what sounds there', () => {
    const places = placesOf(neckWith(), { string: 1, fret: 0 }, 3, [7]);
    expect(places.map((p) => [p.string, p.fret, p.wound, p.region])).toEqual([
      [1, 0, false, 0],
      [2, 5, false, 0],
      [3, 9, false, 1],
      [4, 14, true, 1],
      [5, 19, true, 1],
      [6, 24, true, 1],
    ]);
    // The whole string sounds open, half of it at fret 12.
    expect(places[0]!.soundingMm).toBe(648);
    expect(placesOf(neckWith(), { string: 6, fret: 12 }, 3, [7]).at(-1)!.soundingMm).toBeCloseTo(324, 9);
    expect(648 - fretDistance(648, 5)).toBeCloseTo(places[1]!.soundingMm, 9);
    const single = onePlaceOnly(neckWith(), A).map((s) => `${s.string}/${s.fret}`);
    expect(single).toEqual(['6/0', '6/3', '1/20', '1/22', '1/24']);
  });

  test('every place of a pitch sounds it, and every spot has a region', () => {
    fc.assert(
      fc.property(
        anyNeck,
        anyKey,
        fc.array(fc.integer({ min: 1, max: 36 }), { maxLength: 3 }),
        (neck, k, cuts) => {
          for (const root of rootSpots(neck, k))
            for (const p of placesOf(neck, root, 0, cuts)) {
              expect(neck.open[p.string - 1]! + p.fret).toBe(root.midi);
              expect(p.region).toBeGreaterThanOrEqual(0);
            }
          const bands = regionsOf(neck, cuts);
          expect(
            spotsOf(neck, k).every((s) => bands.filter(([a, b]) => s.fret >= a && s.fret <= b).length === 1),
          ).toBe(true);
        },
      ),
      { numRuns: 30 },
    );
  });
});
