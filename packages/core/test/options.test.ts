import {
  CATALOGUE,
  fourthsColumn,
  type LayoutSpec,
  layoutName,
  layOut,
  type Option,
  optionTrouble,
  placements,
  rankLayouts,
  repeatLaw,
  repeatStrings,
  scaleById,
  usualOf,
  LAYOUTS,
} from './core.ts';
import { fretsWorthLearning } from '../src/layouts/inPosition.ts';
import { count, key, neckWith, positions } from './helpers.ts';

const placed = (k: ReturnType<typeof key>, spec: LayoutSpec, neck = neckWith()) => {
  const result = placements(neck, k, spec);
  if (!result.ok) throw new Error(result.error.message);
  return result.value;
};
const why = (spec: LayoutSpec, neck = neckWith(), k = key('A', 'major')): string | null => {
  const result = placements(neck, k, spec);
  return result.ok ? null : `${result.error.code}: ${result.error.message}`;
};

describe('options', () => {
  const whole: Option = { type: 'whole', min: 2, max: 5, label: 'Berths' };
  const wholes: Option = { type: 'wholes', min: 1, max: 4, most: 3, label: 'Crews' };
  const altered: Option = { type: 'altered', label: 'Tides' };
  const one = (degree: number, by: number) => ({ degree, by });
  test.each<[Option, readonly unknown[], readonly unknown[]]>([
    [whole, [2, 3, 5], [1, 6, 2.5, '3', null, NaN]],
    [wholes, [[1], [4, 4, 4]], [[], [1, 1, 1, 1], [0], [5], [1, 'x'], [1, 9], 3, null]],
    [
      {
        type: 'choice',
        label: 'Side',
        values: [
          { id: 'quay', name: 'quay' },
          { id: 0, name: 'none' },
        ],
      },
      ['quay', 0],
      ['sea', 1, null],
    ],
    [{ type: 'switch', label: 'Lit', words: ['dark', 'lit'] }, [true, false], [1, 'lit', null]],
    [
      altered,
      [[], [one(0, 1)], [one(11, -1)], Array.from({ length: 12 }, (_, d) => one(d, 1))],
      [
        [one(12, 1)],
        [one(-1, 1)],
        [one(1, 2)],
        [one(1, 0)],
        [one(1, 1), one(1, -1)],
        [null],
        [one(1, 1), { by: 1 }],
        'x',
        Array.from({ length: 13 }, (_, d) => one(d % 12, 1)),
      ],
    ],
  ])('%j', (option, good, bad) => {
    for (const value of good) expect([value, optionTrouble(option, value)]).toEqual([value, null]);
    for (const value of bad)
      expect([value, optionTrouble(option, value)]).toEqual([
        value,
        expect.stringContaining(`${option.label}: `),
      ]);
  });

  test('a kind is registered once, and an unknown one is no layout', () => {
    expect(() => LAYOUTS.register(LAYOUTS.all()[0]!)).toThrow('There is a layout “count” already.');
    expect(LAYOUTS.of('spiral')).toBeUndefined();
    expect(() => LAYOUTS.for({ kind: 'spiral' })).toThrow('There is no layout “spiral”.');
  });

  test('options are kept within an instrument, and follow the root where they name its string', () => {
    const fit = (spec: LayoutSpec, strings: number) => LAYOUTS.for(spec).fit!(spec, strings);
    expect([fit({ kind: 'pair', lower: 6 }, 4), fit({ kind: 'pair', lower: 2 }, 4)]).toMatchObject([
      { lower: 4 },
      { lower: 2 },
    ]);
    expect([fit({ kind: 'single', string: 6 }, 4), fit({ kind: 'single', string: 2 }, 4)]).toMatchObject([
      { string: 4 },
      { string: 2 },
    ]);
    expect(LAYOUTS.for({ kind: 'single' }).atRoot!({ kind: 'single', string: 6 }, 3)).toMatchObject({
      string: 3,
    });
    expect(fit({ kind: 'relay', notes: 15, perString: 3 }, 5)).toMatchObject({ notes: 12, perString: 3 });
    expect(fit({ kind: 'relay', notes: 9, perString: 3 }, 5)).toMatchObject({ notes: 9 });
  });

  test('what is usual follows the size of the scale and the strings', () => {
    const usual = (kind: string, scale: string, strings = 6) =>
      usualOf(LAYOUTS.of(kind)!, { scale: scaleById(scale)!, string: 5, strings });
    expect(
      [
        'minor-pentatonic',
        'minor-blues',
        'major',
        CATALOGUE.find((s) => s.degrees.length === 8)!.id,
        'chromatic',
      ].map((s) => usual('count', s)['counts']),
    ).toEqual([[2], [2], [3], [3], [4]]);
    expect(['minor-pentatonic', 'minor-blues', 'major'].map((s) => usual('reach', s)['reach'])).toEqual([
      4, 3, 3,
    ]);
    expect([
      usual('relay', 'major', 6),
      usual('relay', 'major', 4),
      usual('relay', 'minor-pentatonic', 9),
    ]).toMatchObject([
      { notes: 12, perString: 3 },
      { notes: 9, perString: 3 },
      { notes: 8, perString: 2 },
    ]);
    expect(usual('inPosition', 'major')).toMatchObject({ school: 'index', every: false });
    expect([layoutName(count(1)), layoutName(count(2))]).toEqual([
      'one note per string',
      'two notes per string',
    ]);
  });
});

test('refusals say what fits instead', () => {
  const four = neckWith('E1 A1 D2 G2');
  expect(why({ kind: 'relay', notes: 10, perString: 3 })).toContain('3, 6, 9 …');
  expect(why({ kind: 'relay', notes: 6, perString: 3 })).toContain('3 to 5 of the 6 strings: 9 to 15 notes');
  expect(why({ kind: 'relay', notes: 9, perString: 3 })).toBeNull();
  expect(why({ kind: 'relay', notes: 12, perString: 3 }, four)).toContain(
    '3 to 3 of the 4 strings: 9 to 9 notes',
  );
  expect(why({ kind: 'relay', notes: 9, perString: 3 }, neckWith('E2 A2 D3'))).toContain(
    'this instrument has 3 strings',
  );
  expect(why({ kind: 'skip', perString: 3, from: 1, altered: [] }, neckWith('E2 A2 D3'))).toContain(
    'layout.neck: There are too few strings',
  );
  expect(why({ kind: 'skip', perString: 3, from: 1, altered: [{ degree: 2, by: 1 }] })).toContain(
    'The 3 raised falls on the 4',
  );
  expect(why({ kind: 'skip', perString: 3, from: 1, altered: [{ degree: 3, by: -1 }] })).toContain(
    'The 4 lowered falls on the 3',
  );
  expect(fourthsColumn(neckWith(), 7, 3)).toMatchObject({ ok: false, error: { code: 'layout.option' } });
});

describe('in position', () => {
  const at = (k: ReturnType<typeof key>, p: number, school: 'index' | 'little') =>
    placed(k, { kind: 'inPosition', school, every: true }).find((q) => q.indexFret === p)!;
  const stretched = (k: ReturnType<typeof key>, p: number, school: 'index' | 'little') => {
    const { spots, stretches } = at(k, p, school);
    return [
      stretches,
      spots
        .filter((s) => s.stretch)
        .map((s) => `${s.string}:${s.fret}`)
        .join(' '),
    ];
  };

  test('a stretched note is the one outside one finger per fret; at the nut the hand lies at fret 1', () => {
    const a = key('A', 'major');
    expect(stretched(a, 6, 'index')).toEqual([2, '5:5 1:5']);
    expect(stretched(a, 6, 'little')).toEqual([2, '6:10 2:10']);
    expect(stretched(a, 4, 'index')).toEqual([0, '']);
    // In the open position fret 4 is under the little finger.
    const open = at(a, 0, 'index');
    expect(open.spots.some((s) => s.fret === 4)).toBe(true);
    expect(stretched(a, 0, 'index')).toEqual([0, '']);
    expect(stretched(a, 0, 'little')).toEqual([0, '']);
  });

  test('worth learning is a local minimum of stretches, the lowest fret of equals, all where all are equal', () => {
    const worth = (...stretches: readonly (number | null)[]) => [...fretsWorthLearning(stretches)];
    expect(worth(3, 1, 2, 3, 0, 3, 3, 3, 3, 3, 3, 3)).toEqual([2, 5]);
    expect(worth(3, 1, 1, 1, 2, 3, 3, 3, 3, 3, 3, 3)).toEqual([2]);
    expect(worth(1, 2, 3, 3, 3, 3, 3, 3, 3, 3, 3, 1)).toEqual([12]);
    expect(worth(1, 2, 3, 3, 3, 3, 3, 3, 3, 3, 3, 2)).toEqual([1]);
    expect(worth(2, 2, 1, 1, 2, 2, 1, 1, 1, 2, 2, 2)).toEqual([3, 7]);
    expect(worth(3, 2, 2, 1, 3, 3, 3, 3, 3, 3, 3, 3)).toEqual([4]);
    expect(worth(null, 4, null, null, null, null, null, null, null, null, null, null)).toEqual([2]);
    expect(worth(...Array<number>(12).fill(1))).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]);
    expect(worth(...Array<null>(12).fill(null))).toEqual([]);
    const best = placed(key('A', 'major'), { kind: 'inPosition', school: 'index', every: false });
    expect(best.map((p) => p.indexFret)).toEqual([2, 4, 6, 9, 11, 14, 16, 18, 21]);
    expect(best.every((p) => p.worthLearning)).toBe(true);
  });
});

test('a region is where the whole octave lies; the first place found in it is the main one, and none across', () => {
  for (const boundary of [3, 5, 7, 12]) {
    const all = placed(key('A', 'major'), { kind: 'regions', boundary });
    const roots = all.map((p) => p.spots[0]!.midi);
    expect(roots).toEqual([...roots].sort((a, b) => a - b));
    const seen = new Set<string>();
    for (const { spots, region, main } of all) {
      const frets = spots.map((s) => s.fret);
      const where =
        Math.max(...frets) < boundary ? 'low' : Math.min(...frets) >= boundary ? 'high' : 'across';
      expect(region).toBe(where);
      const id = `${spots[0]!.midi} ${where}`;
      expect([id, main]).toEqual([id, where !== 'across' && !seen.has(id)]);
      seen.add(id);
    }
    expect(all.filter((p) => p.main).length).toBeGreaterThan(2);
  }
});

test('the diagonal fits the five-note scales that fall into two and three notes within four frets, and no other', () => {
  const long = neckWith(undefined, 36);
  const fits = CATALOGUE.filter(({ offsets }) => {
    const n = offsets.length;
    const at = (i: number): number => offsets[i % n]! + 12 * Math.floor(i / n);
    const within = (d: number): number => {
      let size = 1;
      while (at(d + size) - at(d) <= 4) size++;
      return size;
    };
    return n === 5 && offsets.some((_, d) => within(d) === 2 && within((d + 2) % n) === 3);
  }).map((s) => s.id);
  expect(fits).toEqual(
    expect.arrayContaining(['minor-pentatonic', 'major-pentatonic', 'minor-six-pentatonic']),
  );
  const found = CATALOGUE.filter((s) => why({ kind: 'diagonal' }, long, key('A', s.id)) === null).map(
    (s) => s.id,
  );
  expect(found).toEqual(fits);
  // A scale that has two diagonals begins on four of its degrees.
  expect(
    new Set(positions(key('A', 'minor-six-pentatonic'), { kind: 'diagonal' }, long).map((p) => p.start)).size,
  ).toBe(4);
  expect(repeatLaw(scaleById('minor-six-pentatonic')!, { kind: 'reach', reach: 4 })).toBeNull();
});

test('groups by count repeat after the strings that bring them back to their first degree', () => {
  const after = (scale: string, ...counts: number[]) => repeatStrings(scaleById(scale)!, count(...counts));
  expect([
    after('major', 3),
    after('minor-pentatonic', 2),
    after('minor-blues', 2),
    after('minor-blues', 3),
    after('major', 1),
  ]).toEqual([7, 5, 3, 2, 7]);
  expect(after('major', 3, 3, 2)).toBeNull();
});

test('layouts are ranked by strain beyond the player’s span and by how uneven their groups are', () => {
  const neck = neckWith();
  for (const scale of ['natural-minor', 'minor-pentatonic', 'chromatic'])
    for (const span of [60, 110, 160]) {
      const ranked = rankLayouts(neck, key('A', scale), span);
      for (const { layout, strain, why } of ranked) {
        const laid = layOut(
          neck,
          key('A', scale),
          usualOf(layout, { scale: scaleById(scale)!, string: 6, strings: 6 }),
        );
        const groups = laid.ok ? laid.value.flatMap((p) => p.groups) : [];
        const beyond = groups.map((g) => (g.reachMm > span && g.reach > 3 ? g.reach - 3 : 0));
        const mean = beyond.reduce((a, b) => a + b, 0) / groups.length;
        const sizes = groups.map((g) => g.frets.length).sort((a, b) => a - b);
        const [least, most] = [sizes[0]!, sizes.at(-1)!];
        expect([layout.kind, strain]).toEqual([
          layout.kind,
          laid.ok ? expect.closeTo(mean + 0.25 * (most - least), 9) : Infinity,
        ]);
        if (laid.ok)
          expect(why).toContain(
            most > least ? `groups of ${least} to ${most} notes` : `${least} notes on each`,
          );
      }
      expect(ranked.map((r) => r.strain)).toEqual([...ranked.map((r) => r.strain)].sort((a, b) => a - b));
    }
  const suit = rankLayouts(neck, key('A', 'natural-minor')).slice(0, 3);
  expect(suit.map((r) => r.layout.kind)).toContain('count');
});
