import fc from 'fast-check';
import {
  CATALOGUE,
  COST,
  fingers,
  type FingeringSchool,
  fingerings,
  type Fingering,
  fretText,
  type Grip,
  gripsOf,
  groupsOf,
  type HandOptions,
  layOut,
  moveTo,
  moveBetween,
  movesAt,
  note,
  passage,
  type Place,
  type Route,
  routeThrough,
  signatureOf,
  stretchOf,
} from './core.ts';
import { drawn } from '../../../scripts/thorough.ts';
import { key, neckWith, positions } from './helpers.ts';

const neck = neckWith();
const schools: readonly FingeringSchool[] = ['onePerFret', 'threeFingers', 'slides', 'oneTwoFour'];
const FOUR = { school: 'onePerFret' } as const;

/** Spots of frets written string by string from a string upward: "5 7 8/5 7 8". */
const route = (frets: string, from = 6): Route =>
  frets.split('/').flatMap((group, i) =>
    group
      .trim()
      .split(' ')
      .map((fret) => ({
        string: from - i,
        fret: Number(fret),
        midi: neck.open[from - i - 1]! + Number(fret),
        degree: 0,
      })),
  );

/** Fingers as the handbooks of the trade write them: `s` before a finger reached by a slide, `*` after a stretched one. */
function written({ steps }: Fingering): string {
  let out = '';
  steps.forEach((s, i) => {
    const before = steps[i - 1];
    const joint = !before ? '' : before.spot.string === s.spot.string ? ' ' : '/';
    out += `${joint}${moveTo(steps, i) === 'slide' ? 's' : ''}${s.finger}${stretchOf(s) ? '*' : ''}`;
  });
  return out;
}

/** What a path over the grips costs, added up note by note without any search. */
function costOf(notes: Route, path: readonly Grip[], hand: HandOptions): number {
  const groups = groupsOf(notes);
  let cost = 0;
  groups.forEach(({ from, to, twin }) => {
    // Players slide to the third note of a group going up, to its last coming down.
    const rises = to - from > 1 && notes[from + 1]!.fret > notes[from]!.fret;
    const slid = to - from < 3 ? -1 : rises ? from + 2 : to - 1;
    for (let i = from; i < to; i++) {
      cost += path[i]!.cost;
      const slides = (n: number): boolean =>
        n > 0 && moveBetween(notes[n - 1]!, path[n - 1]!, notes[n]!, path[n]!) === 'slide';
      if (slides(i) && slides(i - 1)) cost += COST.slideAgain;
      if (i > 0) cost += passage(notes[i - 1]!, path[i - 1]!, notes[i]!, path[i]!, i === slid, hand.school);
      const other = twin < 0 ? null : path[groups[twin]!.from + i - from]!;
      if (other && other.finger !== path[i]!.finger) cost += COST.unlike;
    }
  });
  return cost;
}

/** Whether no place of the hand is asked to reach further than by one stretched finger: four frets, or three with three fingers. */
function isReached(notes: Route, path: readonly Grip[], { school }: HandOptions): boolean {
  let frets: number[] = [];
  return path.every(({ finger, hand }, i) => {
    if (hand !== path[i - 1]?.hand) frets = [];
    if (finger > 0) frets.push(notes[i]!.fret);
    return (
      Math.max(...frets, 0) - Math.min(...frets, 99) <=
      (school === 'onePerFret' || school === 'oneTwoFour' ? 4 : 3)
    );
  });
}
interface Tried {
  readonly cost: number;
  readonly shifts: () => number;
  readonly fingers: string;
  readonly path: readonly Grip[];
}
/** Every way to take every note, tried one by one. */
function exhaustive(notes: Route, hand: HandOptions): readonly Tried[] {
  const grips = gripsOf(neck, notes, hand);
  let paths: Grip[][] = [[]];
  for (const options of grips)
    paths = paths.flatMap((p) => options.map((g) => [...p, g]).filter((way) => isReached(notes, way, hand)));
  return paths
    .map((path) => {
      const shifts = (): number => {
        const steps = path.map((g, i) => ({ ...g, spot: notes[i]! }));
        return steps.filter((_, i) => movesAt(steps, i)).length;
      };
      return { cost: costOf(notes, path, hand), shifts, fingers: path.map((g) => g.finger).join(''), path };
    })
    .sort((a, b) => a.cost - b.cost);
}
/** The best of them: of those that grip all groups of a kind alike, as one place of the hand could, if that costs one shift more at most. */
function bestOf(notes: Route, all: readonly Tried[], { school }: HandOptions): Tried {
  const kinds = new Map<string, number[][]>();
  for (const { from, to } of groupsOf(notes)) {
    const at = Array.from({ length: to - from }, (_, k) => from + k);
    const steps = at.slice(1).map((i) => notes[i]!.fret - notes[i - 1]!.fret);
    if (at.length > 2 && at.every((i) => notes[i]!.fret > 0))
      kinds.set(steps.join(), [...(kinds.get(steps.join()) ?? []), at]);
  }
  const groups = [...kinds.values()].filter((some) => some.length > 1);
  expect(groups.length).toBeLessThan(2);
  const [kind] = groups;
  const word = ({ fingers: f }: Tried, at: readonly number[]): string => at.map((i) => f[i]).join('');
  const isAlike = (way: Tried): boolean => !kind || new Set(kind.map((at) => word(way, at))).size === 1;
  const last = school === 'onePerFret' || school === 'oneTwoFour' ? 4 : 3;
  /** Whether one place of the hand could take them so, with one finger stretched at most. */
  const isStill = (way: Tried): boolean =>
    kind!.every((at) => {
      const [f, frets] = [at.map((i) => Number(way.fingers[i])), at.map((i) => notes[i]!.fret)];
      const bends = (hand: number): readonly number[] => frets.map((fret, i) => fret - hand - f[i]! + 1);
      const isOne = (all_: readonly number[]): boolean =>
        all_.every(
          (by, i) =>
            by === 0 || (school !== 'slides' && ((by === -1 && f[i] === 1) || (by === 1 && f[i] === last))),
        ) && all_.filter((by) => by !== 0).length <= 1;
      return (
        new Set(f).size === new Set(frets).size &&
        Array.from({ length: 40 }, (_, h) => bends(h - 5)).some(isOne)
      );
    });
  const [least] = all;
  if (isAlike(least!)) return least!;
  return all.find((way) => isAlike(way) && isStill(way) && way.shifts() <= least!.shifts() + 1) ?? least!;
}

const place = fc.record({ string: fc.integer({ min: 1, max: 6 }), fret: fc.integer({ min: 0, max: 17 }) });
const spot = (p: Place) => ({ ...p, midi: neck.open[p.string - 1]! + p.fret, degree: 0 });
const anyRoute = fc.array(place, { minLength: 1, maxLength: 5 }).map((places) => places.map(spot));
/** Groups of the same steps on neighbouring strings, where repeating counts. */
const alikeRoute = fc
  .record({
    steps: fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 1, maxLength: 2 }),
    starts: fc.array(fc.integer({ min: 0, max: 6 }), { minLength: 2, maxLength: 3 }),
    down: fc.boolean(),
  })
  .map(({ steps, starts, down }) => {
    const up = starts.flatMap((start, i) =>
      [0, ...steps].reduce<Place[]>(
        (so, s) => [...so, { string: 6 - i, fret: (so.at(-1)?.fret ?? start) + s }],
        [],
      ),
    );
    const notes = up.slice(0, 6).map(spot);
    return down ? notes.reverse() : notes;
  });
const differ = (a: string, b: string): number => [...a].filter((f, i) => f !== b[i]).length;

describe('the cheapest path', () => {
  test('costs what exhaustive search finds', () => {
    fc.assert(
      fc.property(
        fc.oneof(anyRoute, alikeRoute),
        fc.constantFrom(...schools),
        fc.integer({ min: 60, max: 140 }),
        (notes, school, spanMm) => {
          const hand = { school, spanMm };
          expect(fingers(neck, notes, hand).cost).toBeCloseTo(
            bestOf(notes, exhaustive(notes, hand), hand).cost,
            9,
          );
        },
      ),
      { numRuns: drawn(400) },
    );
  });

  test('alternatives really differ, and each is the cheapest that does', () => {
    fc.assert(
      fc.property(fc.oneof(anyRoute, alikeRoute), fc.constantFrom(...schools), (notes, school) => {
        const all = exhaustive(notes, { school });
        const found = fingerings(neck, notes, { school }, 3);
        const said = found.map((f) => f.steps.map((n) => n.finger).join(''));
        found.forEach((f, i) => {
          const allowed = all.filter((e) => said.slice(0, i).every((s) => differ(s, e.fingers) >= 2));
          expect(f.cost).toBeCloseTo((i ? allowed[0]! : bestOf(notes, all, { school })).cost, 9);
        });
        if (found.length < 3)
          expect(all.some((e) => said.every((s) => differ(s, e.fingers) >= 2))).toBe(false);
      }),
      { numRuns: drawn(200) },
    );
  });

  test('its cost is the sum of its own steps, on runs too long to search', () => {
    for (const [frets, from] of [
      ['5 7 9/5 7 9/6 7 9/6 7 9/7 9 10/7 9 10', 6],
      ['8 10/8 10 12/10 12/10 12 14/13 15/13 15 17', 6],
      ['1 3 5 6 8 10 12 13', 2],
      // More notes to remember at once than there is room for in one pass.
      ['5 7 9/5 7 9/5 7 9/5 7 9/5 7 9/5 7 9', 6],
      ['3 5 6/3 5 6/3 5 7/3 5 7/3 5 6/3 5 6', 6],
    ] as const) {
      const notes = route(frets, from);
      const found = fingers(neck, notes, FOUR);
      const grips = gripsOf(neck, notes, FOUR);
      const path = found.steps.map((s, i) =>
        grips[i]!.find((g) => g.finger === s.finger && g.hand === s.hand)!,
      );
      expect(costOf(notes, path, FOUR)).toBeCloseTo(found.cost, 9);
    }
  });

  test('no more alternatives are given than asked for, nor than there are; nothing to play needs no finger', () => {
    const count = (frets: string, asked: number): number =>
      fingerings(neck, route(frets), FOUR, asked).length;
    expect([count('5 7 9/5 7 9', 1), count('5 7 9/5 7 9', 3), count('7', 3)]).toEqual([1, 3, 1]);
    expect(fingers(neck, [], FOUR)).toEqual({ steps: [], cost: 0, shifts: 0, stretches: 0 });
  });

  test('fingers press the frets that the hand can reach, and none is wasted on an open string', () => {
    fc.assert(
      fc.property(anyRoute, fc.constantFrom(...schools), (notes, school) => {
        for (const s of fingers(neck, notes, { school }).steps) {
          if (s.spot.fret === 0) expect(s.finger).toBe(0);
          else expect([-1, 0, 1]).toContain(stretchOf(s));
          expect(s.finger).toBeLessThanOrEqual(school === 'onePerFret' || school === 'oneTwoFour' ? 4 : 3);
          expect(s.hand).toBeGreaterThanOrEqual(1);
        }
      }),
    );
  });
});

describe('worked fingerings', () => {
  // Common practice, no source. Frets and fingers string by string from the lowest.
  test.each<[string, string, string, number, FingeringSchool, 'up' | 'down']>([
    [
      'natural minor by reach',
      '5 7 8/5 7 8/5 7/4 5 7/5 6 8/5 7 8',
      '1 3 4/1 3 4/2 4/1 2 4/1 2 4/1 3 4',
      6,
      'onePerFret',
      'up',
    ],
    ['minor pentatonic', '5 8/5 7/5 7/5 7/5 8/5 8', '1 4/1 3/1 3/1 3/1 4/1 4', 6, 'onePerFret', 'up'],
    [
      'minor pentatonic, three fingers',
      '5 8/5 7/5 7/5 7/5 8/5 8',
      '1 3*/1 3/1 3/1 3/1 3*/1 3*',
      6,
      'threeFingers',
      'up',
    ],
    ['the box above it', '8 10/7 10/7 10/7 9/8 10/8 10', '2 4/1 4/1 4/1 3/2 4/2 4', 6, 'onePerFret', 'up'],
    [
      'major in position',
      '4 5 7/4 5 7/4 6 7/4 6 7/5 7/4 5 7',
      '1 2 4/1 2 4/1 3 4/1 3 4/2 4/1 2 4',
      6,
      'onePerFret',
      'up',
    ],
    [
      'major, three a string',
      '5 7 9/5 7 9/6 7 9/6 7 9/7 9 10/7 9 10',
      '1 3 4*/1 3 4*/1 2 4/1 2 4/1 3 4/1 3 4',
      6,
      'onePerFret',
      'up',
    ],
    ['natural minor on one string', '2 4 5 7 9 10 12 14', '1 3 4 1 3 4 1 3', 3, 'onePerFret', 'up'],
    ['major on one string', '1 3 5 6 8 10 12 13', '1 3 s3 4 1 3 s3 4', 2, 'onePerFret', 'up'],
    ['major on two strings', '1 3 5 6/3 5 7 8', '1 3 s3 4/1 3 s3 4', 2, 'onePerFret', 'up'],
    [
      'the diagonal',
      '8 10/8 10 12/10 12/10 12 14/13 15/13 15 17',
      '1 3/1 3 s3/1 3/1 3 s3/1 3/1 3 s3',
      6,
      'onePerFret',
      'up',
    ],
    [
      'the diagonal for sliders',
      '8 10/8 10 12/10 12/10 12 14/13 15/13 15 17',
      '1 3/1 3 s3/1 3/1 3 s3/1 3/1 3 s3',
      6,
      'slides',
      'up',
    ],
    [
      'the diagonal coming down',
      '8 10/8 10 12/10 12/10 12 14/13 15/13 15 17',
      '3 1 s1/3 1/3 1 s1/3 1/3 1 s1/3 1',
      6,
      'onePerFret',
      'down',
    ],
    ['major on one string, coming down', '1 3 5 6 8 10 12 13', '4 3 1 s1 4 3 1 s1', 2, 'onePerFret', 'down'],
    ['major on two strings, coming down', '1 3 5 6/3 5 7 8', '4 3 1 s1/4 3 1 s1', 2, 'onePerFret', 'down'],
    [
      'natural minor, three a string',
      '5 7 8/5 7 8/5 7 9/5 7 9/6 8 10/7 8 10',
      '1 3 4/1 3 4/1 3 4*/1 3 4*/1 3 4*/1 2 4',
      6,
      'onePerFret',
      'up',
    ],
    ['the diagonal from string 4', '3 5/3 5 7/6 8/6 8 10', '1 3/1 3 s3/1 3/1 3 s3', 4, 'onePerFret', 'up'],
    ['a whole and a whole step', '5 7 9', '1 3 4*', 5, 'onePerFret', 'up'],
    ['a half and a whole step', '5 6 8', '1 2 4', 5, 'onePerFret', 'up'],
    ['a whole and a half step', '5 7 8', '1 3 4', 5, 'onePerFret', 'up'],
  ])('%s: %s is %s', (_, frets, expected, from, school, way) => {
    expect(written(fingers(neck, routeThrough(route(frets, from), way), { school }))).toBe(expected);
  });

  test('natural minor by reach moves the hand back once and forward once, each at a string change', () => {
    const found = fingers(neck, route('5 7 8/5 7 8/5 7/4 5 7/5 6 8/5 7 8'), FOUR);
    expect(found.steps.map((s) => s.hand).join('')).toBe('55555544444555555');
    expect([found.shifts, found.stretches]).toEqual([2, 0]);
    for (const i of found.steps.keys())
      if (movesAt(found.steps, i))
        expect(found.steps[i]!.spot.string).not.toBe(found.steps[i - 1]!.spot.string);
  });

  test('the other school takes the first two groups of three with the index back', () => {
    const ways = fingerings(neck, route('5 7 9/5 7 9/6 7 9/6 7 9/7 9 10/7 9 10'), FOUR, 3).map(written);
    expect(ways).toContain('1* 2 4/1* 2 4/1 2 4/1 2 4/1 3 4/1 3 4');
  });

  test('on one string no mode of the major scale needs a slide but on the third note of a group of four', () => {
    for (const mode of CATALOGUE.filter((s) => s.family === 'major modes')) {
      const octave = [0, ...mode.steps].reduce<number[]>((so, s) => [...so, (so.at(-1) ?? 2) + s], []);
      const { steps } = fingers(neck, route(octave.join(' '), 3), FOUR);
      const slides = steps.flatMap((_, i) => (moveTo(steps, i) === 'slide' ? [i % 4] : []));
      expect([mode.id, slides.every((i) => i === 2)]).toEqual([mode.id, true]);
      if (mode.id === 'dorian') expect(slides).toEqual([]);
    }
  });

  test('what repeats costs at most one shift more than the fewest', () => {
    /** Fewest shifts over all ways, counted by its own search. */
    const fewest = (notes: Route): number => {
      const grips = gripsOf(neck, notes, FOUR);
      let least = grips[0]!.map(() => 0);
      for (let i = 1; i < notes.length; i++)
        least = grips[i]!.map((b) =>
          Math.min(
            ...grips[i - 1]!.map((a, k) => {
              const steps = [
                { ...a, spot: notes[i - 1]! },
                { ...b, spot: notes[i]! },
              ];
              return least[k]! + Number(moveTo(steps, 1) !== 'stay');
            }),
          ),
        );
      return Math.min(...least);
    };
    for (const scale of CATALOGUE.filter((s) => s.degrees.length === 7)) {
      const octave = [0, ...scale.steps].reduce<number[]>((so, s) => [...so, (so.at(-1) ?? 3) + s], []);
      for (const frets of [
        octave.join(' '),
        `${octave.slice(0, 4).join(' ')}/${octave
          .slice(4)
          .map((f) => f - 5)
          .join(' ')}`,
      ]) {
        const notes = route(frets, 5);
        if (notes.some((s) => s.fret < 1)) continue;
        const found = fingers(neck, notes, FOUR);
        const stretchless = found.stretches === 0;
        if (stretchless)
          expect([scale.id, frets, found.shifts <= fewest(notes) + 1]).toEqual([scale.id, frets, true]);
      }
    }
  });

  test('in three a string of every mode of the major scale, groups with the same steps have the same grip', () => {
    let many = 0;
    for (const scale of CATALOGUE.filter((s) => s.family === 'major modes'))
      for (const root of ['C', 'E', 'F#', 'Bb'])
        for (const { spots } of positions({ root: note(root), scale }, { kind: 'count', counts: [3] })) {
          if (spots.some(({ fret }) => fret === 0)) continue;
          many++;
          const { steps } = fingers(neck, spots, FOUR);
          const grips = new Map<string, Set<string>>();
          for (let i = 0; i + 2 < steps.length; i += 3) {
            const [a, b, c] = steps.slice(i, i + 3) as [
              (typeof steps)[0],
              (typeof steps)[0],
              (typeof steps)[0],
            ];
            const kind = `${b.spot.fret - a.spot.fret} ${c.spot.fret - b.spot.fret}`;
            const grip = `${a.finger} ${b.finger} ${c.finger}`;
            grips.set(kind, (grips.get(kind) ?? new Set()).add(grip));
          }
          expect([root, scale.id, ...grips].filter((it) => Array.isArray(it) && it[1].size > 1)).toEqual([]);
        }
    expect(many).toBeGreaterThan(200);
  });

  test('one place of the hand takes no index stretched back and no little finger stretched forward both', () => {
    const notes = route('1 5/2 6');
    const { steps } = fingers(neck, notes, FOUR);
    for (const hand of new Set(steps.map((s) => s.hand))) {
      const frets = steps.filter((s) => s.hand === hand).map((s) => s.spot.fret);
      expect(Math.max(...frets) - Math.min(...frets)).toBeLessThanOrEqual(4);
    }
    // What was asked for is taken as it was asked for.
    const asked = notes.map((note, i) => ({ ...note, by: i % 2 ? 4 : 1, hand: 2 }));
    expect(fingers(neck, asked, FOUR).steps.map((s) => `${s.finger} ${s.hand}`)).toEqual([
      '1 2',
      '4 2',
      '1 2',
      '4 2',
    ]);
  });

  test('sliders slide where others stretch', () => {
    const line = route('5 7 9/5 7 9');
    const slides = (school: FingeringSchool): number => {
      const { steps } = fingers(neck, line, { school });
      return steps.filter((_, i) => moveTo(steps, i) === 'slide').length;
    };
    expect(slides('slides')).toBeGreaterThan(slides('onePerFret'));
  });

  test('a hand that spans less does not stretch, and a stretch is dearer low on the neck', () => {
    expect(fingers(neck, route('5 7 9'), { ...FOUR, spanMm: 160 }).stretches).toBe(1);
    expect(fingers(neck, route('5 7 9'), { ...FOUR, spanMm: 60 }).stretches).toBe(0);
    const [low, high] = ['2 4 6', '12 14 16'].map((f) => fingers(neck, route(f), { ...FOUR, spanMm: 160 }));
    expect(low!.cost).toBeGreaterThan(high!.cost);
  });
});

test('signatures are read from the fingering: the same fingers wherever they are shown', () => {
  const of = (root: string, scale: string, spec: Parameters<typeof positions>[1], frets: string) =>
    positions(key(root, scale), spec).find((p) => fretText(p) === frets)!;
  const said = (p: ReturnType<typeof of>) => signatureOf(fingers(neck, p.spots, FOUR).steps);
  expect(
    said(of('A', 'major', { kind: 'count', counts: [3] }, '5 7 9/5 7 9/6 7 9/6 7 9/7 9 10/7 9 10')),
  ).toBe('1 3 stretch 4 / 1 3 stretch 4 / 1 2 4 / 1 2 4 / 1 3 4 / 1 3 4');
  expect(said(of('C', 'major', { kind: 'single', string: 2 }, '1 3 5 6 8 10 12 13'))).toBe(
    '1 3 s3 4 | 1 3 s3 4',
  );
  expect(said(of('A', 'natural-minor', { kind: 'single', string: 3 }, '2 4 5 7 9 10 12 14'))).toBe(
    '1 3 4 | 1 3 4 | 1 3',
  );
  const back = fingers(neck, route('5 7 9/6 7 9/6 7 9'), { school: 'onePerFret' });
  expect(signatureOf(back.steps)).toMatch(/stretch/);
});

test('every position of every layout that fits can be fingered, one finger a note', () => {
  const a = note('A');
  for (const scale of CATALOGUE.filter((_, i) => i % 6 === 0)) {
    const result = layOut(neck, { root: a, scale }, { kind: 'count', counts: [3] });
    if (!result.ok) throw new Error(result.error.message);
    for (const p of result.value) expect(fingers(neck, p.spots, FOUR).steps).toHaveLength(p.spots.length);
  }
});
