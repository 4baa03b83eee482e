import {
  frontOf,
  holding,
  NUMBERING_SCHOOLS,
  ownScale,
  type PlacedSpot,
  type Placement,
  positionNames,
  positionOf,
  positionsOf,
  positionThrough,
  refOf,
  shapeOf,
  spanOn,
  spellOffsets,
} from './core.ts';
import { key, neckWith, positions } from './helpers.ts';

const neck = neckWith();
/** A placement in the order of play: "6:5 6:8 5:5"; degree 0 where a note is marked with an r. */
const placed = (text: string, more: Partial<Placement> = {}): Placement => ({
  spots: text.split(' ').map((word): PlacedSpot => {
    const [, string, fret, root] = /^(\d+):(\d+)(r?)$/.exec(word)!;
    const degree = root ? 0 : Number(fret) + 1;
    return {
      string: Number(string),
      fret: Number(fret),
      midi: neck.open[Number(string) - 1]! + Number(fret),
      degree,
    };
  }),
  ...more,
});
const lie = (...texts: readonly (string | Placement)[]) =>
  positionsOf(
    neck,
    texts.map((t) => (typeof t === 'string' ? placed(t) : t)),
  );

test('a position knows its frets, and its groups from the lowest string up, whatever the order of play', () => {
  const [p] = lie('5:7 6:9 6:5 5:4 6:7 1:6');
  expect([p!.lowFret, p!.highFret, p!.start, p!.reach]).toEqual([4, 9, 8, 4]);
  expect(
    p!.groups.map(({ string, frets, degrees, reach, steps }) => ({ string, frets, degrees, reach, steps })),
  ).toEqual([
    { string: 6, frets: [5, 7, 9], degrees: [6, 8, 10], reach: 4, steps: 'W W' },
    { string: 5, frets: [4, 7], degrees: [5, 8], reach: 3, steps: 'W+H' },
    { string: 1, frets: [6], degrees: [7], reach: 0, steps: '' },
  ]);
  expect(p!.groups[0]!.reachMm).toBeCloseTo(spanOn(neck, 5, 9), 9);
  expect(shapeOf(p!)).toBe('6:1 3 5/5:0 3/1:2');
});

test('the legs of a relay are groups of their own, and a note is counted among those of its leg', () => {
  const spots = [
    ...placed('6:3 5:5').spots.map((s) => ({ ...s, leg: 0 })),
    ...placed('5:5 5:7 4:5').spots.map((s) => ({ ...s, leg: 1 })),
  ];
  const [p] = lie({ spots });
  expect(p!.groups.map((g) => [g.leg, g.string, g.frets.join(' ')])).toEqual([
    [0, 6, '3'],
    [0, 5, '5'],
    [1, 5, '5 7'],
    [1, 4, '5'],
  ]);
  const other = lie({
    spots: [
      ...placed('5:3').spots.map((s) => ({ ...s, leg: 0 })),
      ...placed('5:5').spots.map((s) => ({ ...s, leg: 1 })),
    ],
  });
  expect(holding(other, 5, 5).map((h) => [h.order, h.onString])).toEqual([[2, 1]]);
});

test('positions lie in neck order: by the lowest fret, then the highest, then the first note', () => {
  const all = lie('6:5 6:9', '5:5 5:7', '6:7 6:5', '4:2 4:9', '6:5 6:7');
  expect(all.map((p) => p.spots.map((s) => `${s.string}:${s.fret}`).join(' '))).toEqual([
    '4:2 4:9',
    '6:5 6:7',
    '6:7 6:5',
    '5:5 5:7',
    '6:5 6:9',
  ]);
  expect(all.map((p) => p.index)).toEqual([0, 1, 2, 3, 4]);
});

test('a name tells positions apart by their first degree, their lowest fret and their number', () => {
  const all = lie('6:5 6:7', '6:5 6:8', '6:7r 6:5', '5:6 5:8');
  const refs = all.map((p) => refOf(all, p));
  expect(refs).toEqual([
    { start: 6, low: 5, nth: 0 },
    { start: 0, low: 5, nth: 0 },
    { start: 6, low: 5, nth: 1 },
    { start: 7, low: 6, nth: 0 },
  ]);
  expect(refs.map((ref) => positionOf(all, ref)?.index)).toEqual([0, 1, 2, 3]);
  expect(positionOf(all, { start: 0, low: 5, nth: 1 })).toBeNull();
});

test('of the positions through a spot, the main one that begins its string there comes first, then the lowest', () => {
  const through = (...of: readonly (string | Placement)[]) =>
    positionThrough(lie(...of), 6, 7)?.index ?? null;
  expect(through('6:5 6:8')).toBeNull();
  expect(through('6:5 6:7', '6:7 6:9')).toBe(1);
  expect(through('6:7 5:6', '6:7 5:9')).toBe(0);
  expect(through(placed('6:7 5:6', { main: false }), '6:7 5:9')).toBe(1);
  expect(through(placed('6:7 5:6', { main: false }), '6:6 6:7 5:7')).toBe(1);
  expect(through(placed('6:7 5:6', { main: true }), '6:7 5:9')).toBe(0);
});

test('where no position holds the spot, the one with the nearest root comes forward, of equals the nearest string', () => {
  const front = (string: number, fret: number, ...of: readonly string[]) => {
    const found = frontOf(lie(...of), null, { string, fret })!;
    return [found.position.index, found.by];
  };
  // Roots two frets and one fret away; the lowest of several counts.
  expect(front(6, 7, '5:2r 5:5r 5:12r', '5:8r 5:20r')).toEqual([1, 'nearest']);
  expect(front(6, 7, '5:6r', '5:9r')).toEqual([0, 'nearest']);
  expect(front(6, 7, '3:6r 3:9', '5:8r')).toEqual([1, 'nearest']);
  expect(front(1, 7, '3:6r 3:9', '5:8r')).toEqual([0, 'nearest']);
  expect(front(6, 7, '6:9r', '1:8r')).toEqual([0, 'nearest']);
  // A root far away is nearer than none; among those without, the one that lies nearest.
  expect(front(6, 1, '5:2 5:3', '5:20r')).toEqual([1, 'nearest']);
  expect(front(6, 9, '5:2 5:3', '5:8 5:10', '5:15')).toEqual([1, 'nearest']);
  expect(front(6, 14, '5:2 5:3', '5:8 5:10', '5:15')).toEqual([2, 'nearest']);
});

test('positions of one name are told apart by octaves, by frets, and by their order', () => {
  const names = (...of: readonly string[]) =>
    positionNames(lie(...of), key('A', 'major'), 'degree', { kind: 'count', counts: [1] });
  expect(names('6:1r', '6:13r', '6:25r', '6:4r', '5:4r', '4:4r')).toEqual([
    'position from the root',
    'position from the root, fret 4',
    'position from the root, fret 4, the second',
    'position from the root, fret 4, the third',
    'position from the root, an octave up',
    'position from the root, two octaves up',
  ]);
  const chromatic = { kind: 'regions', boundary: 7 };
  const ps = positions(key('C', 'chromatic'), chromatic);
  const said = positionNames(ps, key('C', 'chromatic'), 'mode', chromatic);
  expect(new Set(said).size).toBe(said.length);
});

test('a mode without a name is numbered, and position 1 is the one whose first string holds the root', () => {
  const own = { root: key('A', 'major').root, scale: ownScale(spellOffsets([0, 1, 2, 5])) };
  const two = { kind: 'count', counts: [2] };
  const shapes = positions(own, two);
  expect(positionNames(shapes, own, 'mode', two)[shapes.findIndex((p) => p.start === 2)]).toMatch(
    /^position from the 2/,
  );
  expect(positionNames(shapes, own, 'minorRoot', two)[shapes.findIndex((p) => p.start === 0)]).toMatch(
    /^position 1/,
  );
  const reach = { kind: 'reach', reach: 3 };
  for (const scale of ['major', 'dorian', 'phrygian', 'lydian', 'mixolydian', 'natural-minor', 'locrian']) {
    const k = key('A', scale);
    const ps = positions(k, reach);
    for (const [school, relative] of [
      ['minorRoot', 'natural-minor'],
      ['majorRoot', 'major'],
    ] as const) {
      const names = positionNames(ps, k, school, reach).map((n) => n.split(',')[0]!);
      const ones = ps.filter((_, i) => names[i] === 'position 1');
      const root = k.scale.offsets.findIndex((_, d) => modeName(k.scale.offsets, d) === relative);
      expect([
        scale,
        school,
        ones.length > 0 && ones.every((p) => p.groups[0]!.degrees.includes(root)),
      ]).toEqual([scale, school, true]);
    }
  }
  expect(NUMBERING_SCHOOLS.map((s) => positionNames([], key('A', 'major'), s.id, reach))).toEqual(
    NUMBERING_SCHOOLS.map(() => []),
  );
});

/** Whether the mode on a degree is the major or the natural minor scale, by its half steps. */
function modeName(offsets: readonly number[], degree: number): string | null {
  const steps = offsets.map((o) => (o - offsets[degree]! + 12) % 12).sort((a, b) => a - b);
  return { '0,2,4,5,7,9,11': 'major', '0,2,3,5,7,8,10': 'natural-minor' }[steps.join()] ?? null;
}
