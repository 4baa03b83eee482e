import fc from 'fast-check';
import { drawn } from '../../../scripts/thorough.ts';
import { layOut, type LayoutSpec, placements, scaleById, usualOf, LAYOUTS } from './core.ts';
import { anyKey, anyNeck, count, key, neckWith, positions } from './helpers.ts';
import { plainShapes } from './plain.ts';
import { keepsPromises } from './promises.ts';

describe('what must fit', () => {
  const usual = (kind: string, scale: string, strings: number): LayoutSpec => {
    const layout = LAYOUTS.all().find((l) => l.kind === kind)!;
    return usualOf(layout, { scale: scaleById(scale)!, string: 1, strings });
  };
  const NECKS = [
    'E2 A2 D3 G3 B3 E4',
    'D2 A2 D3 G3 A3 D4',
    'B1 E2 A2 D3 G3 B3 E4',
    'F#1 B1 E2 A2 D3 G3 B3 E4',
    'B0 E1 A1 D2 G2',
  ];
  test.each(['count', 'reach', 'inPosition', 'single', 'pair', 'relay', 'skip', 'regions', 'fourths'])(
    '%s fits the scales that players use on the tunings that they bring',
    (kind) => {
      for (const strings of NECKS)
        for (const scale of ['major', 'natural-minor', 'harmonic-minor', 'minor-pentatonic', 'minor-blues']) {
          const neck = neckWith(strings);
          const result = layOut(neck, key('F#', scale), usual(kind, scale, neck.open.length));
          expect([kind, scale, strings, result.ok]).toEqual([kind, scale, strings, true]);
        }
    },
  );
  test('the diagonal fits the two pentatonics on every one of them', () => {
    for (const strings of NECKS)
      for (const scale of ['major-pentatonic', 'minor-pentatonic'])
        expect(positions(key('Eb', scale), { kind: 'diagonal' }, neckWith(strings)).length).toBeGreaterThan(
          1,
        );
  });
  test.each<[LayoutSpec, string]>([
    [count(0), 'Notes on each string'],
    [count(7), 'Notes on each string'],
    [{ kind: 'count', counts: [] }, 'Notes on each string'],
    [{ kind: 'reach', reach: 1 }, 'Reach in frets'],
    [{ kind: 'reach', reach: 2.5 }, 'Reach in frets'],
    [{ kind: 'inPosition', school: 'thumb', every: false }, 'A note out of reach'],
    [{ kind: 'inPosition', school: 'index', every: 'yes' }, 'Every fret'],
    [{ kind: 'single', string: 9 }, 'no string 9'],
    [{ kind: 'pair', lower: 9 }, 'no string 9'],
    [{ kind: 'relay', notes: 10, perString: 3 }, 'a multiple'],
    [{ kind: 'relay', notes: 18, perString: 3 }, '3 to 5 of the 6 strings'],
    [{ kind: 'skip', perString: 3, from: 2, altered: [] }, 'Begin on'],
    [
      {
        kind: 'skip',
        perString: 3,
        from: 1,
        altered: [
          { degree: 1, by: 1 },
          { degree: 1, by: -1 },
        ],
      },
      'each degree once',
    ],
    [{ kind: 'regions', boundary: 2 }, 'First fret of the high region'],
    [{ kind: 'spiral' }, 'no layout “spiral”'],
  ])('%j is refused in the player’s terms', (spec, told) => {
    const result = layOut(neckWith(), key('A', 'major'), spec);
    expect(result).toMatchObject({
      ok: false,
      error: { code: 'layout.option', message: expect.stringContaining(told) },
    });
  });
});

/** Every layout with options of all kinds. */
const anySpec = fc.oneof(
  fc.array(fc.integer({ min: 1, max: 6 }), { minLength: 1, maxLength: 8 }).map((counts) => count(...counts)),
  fc.integer({ min: 2, max: 6 }).map((reach): LayoutSpec => ({ kind: 'reach', reach })),
  fc.record({
    kind: fc.constant('inPosition' as const),
    school: fc.constantFrom('index' as const, 'little' as const),
    every: fc.boolean(),
  }),
  fc.record({
    kind: fc.constant('relay' as const),
    perString: fc.integer({ min: 1, max: 4 }),
    notes: fc.integer({ min: 2, max: 24 }),
  }),
  fc.integer({ min: 3, max: 15 }).map((boundary): LayoutSpec => ({ kind: 'regions', boundary })),
  fc.record({
    kind: fc.constant('skip' as const),
    perString: fc.integer({ min: 2, max: 5 }),
    from: fc.constantFrom(0 as const, 1 as const),
    altered: fc.uniqueArray(fc.record({ degree: fc.nat(4), by: fc.constantFrom(-1 as const, 1 as const) }), {
      maxLength: 2,
      selector: (a) => a.degree,
    }),
  }),
  fc.integer({ min: 1, max: 12 }).map((string): LayoutSpec => ({ kind: 'single', string })),
  fc.constantFrom<LayoutSpec>({ kind: 'diagonal' }, { kind: 'fourths' }),
  fc.integer({ min: 1, max: 12 }).map((lower): LayoutSpec => ({ kind: 'pair', lower })),
);
const RUNS = fc.readConfigureGlobal().numRuns ?? drawn(3000);

test('odd tunings and odd options keep the promises too', () => {
  fc.assert(
    fc.property(anyNeck, anyKey, anySpec, (neck, k, spec) => keepsPromises(neck, k, spec)),
    { numRuns: RUNS },
  );
});

test('every layout finds, note by note, what working it out on paper finds', () => {
  const found = new Set<string>();
  const agrees = (neck: ReturnType<typeof neckWith>, k: ReturnType<typeof key>, spec: LayoutSpec): void => {
    const placed = placements(neck, k, spec);
    // What a rule refuses whatever the neck is not worked out.
    if (!placed.ok && placed.error.code !== 'layout.neck') return;
    const spots = placed.ok
      ? placed.value.map((p) => p.spots.map(({ string, fret, midi }) => ({ string, fret, midi })))
      : [];
    expect(spots).toEqual(plainShapes(neck, k, spec));
    if (placed.ok) found.add(spec.kind);
  };
  fc.assert(fc.property(anyNeck, anyKey, anySpec, agrees), { numRuns: Math.ceil(RUNS / 3) });
  for (const scale of ['major', 'minor-pentatonic', 'chromatic'])
    for (const tuning of ['E2 A2 D3 G3 B3 E4', 'G4 D3 G3 B3 D4', 'C2 G2 D3 A3 E4 B4'])
      for (const layout of LAYOUTS.all()) {
        const k = key('Eb', scale);
        const neck = neckWith(tuning, 22);
        agrees(neck, k, usualOf(layout, { scale: k.scale, string: 1, strings: neck.open.length }));
      }
  // Single notes up to the last fret; notes altered off either end, and past each other.
  for (let fret = 12; fret <= 24; fret++) {
    agrees(neckWith(undefined, fret), key('E', 'major'), count(1));
    for (const altered of [
      [{ degree: 0, by: -1 }],
      [{ degree: 3, by: 1 }],
      [
        { degree: 2, by: 1 },
        { degree: 3, by: -1 },
      ],
    ] as const)
      for (const from of [0, 1])
        agrees(neckWith(undefined, fret), key('E', 'major'), {
          kind: 'skip',
          perString: 2 + (fret % 3),
          from,
          altered,
        });
  }
  expect([...found].sort()).toEqual(
    LAYOUTS.all()
      .map((l) => l.kind)
      .sort(),
  );
});
