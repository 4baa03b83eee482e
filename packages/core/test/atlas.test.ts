import fc from 'fast-check';
import {
  CATALOGUE, fretText, instrumentOf, layoutFor, layOut, layouts, type LayoutSpec, mod, neckOf, note, ROOTS, scaleById, spotsOf, TUNINGS, usualSpec,
} from '../src/index.ts'; // prettier-ignore
import { anyKey, anyNeck, count, key, neckWith, positions } from './helpers.ts';

/** What every result has to keep, whatever the scale, tuning and layout. */
function keepsPromises(neck: ReturnType<typeof neckWith>, k: ReturnType<typeof key>, spec: LayoutSpec): void {
  const result = layOut(neck, k, spec);
  if (!result.ok) {
    if (result.error.message.length < 20) throw new Error('unexplained');
    return;
  }
  const pcs = new Set(spotsOf(neck, k).map((s) => mod(s.midi, 12)));
  for (const p of result.value) {
    const where = (): string => `${k.scale.id} ${JSON.stringify(spec)} ${neck.open.join()} ${fretText(p)}`;
    for (const s of p.spots) {
      if (s.fret < 0 || s.fret > neck.frets || s.midi !== neck.open[s.string - 1]! + s.fret)
        throw new Error(`off the neck: ${where()}`);
      if (!s.altered && !pcs.has(mod(s.midi, 12))) throw new Error(`outside the scale: ${where()}`);
    }
    if (!layoutFor(spec).complete) continue;
    const pitches = p.spots.map((s) => s.midi).sort((a, b) => a - b);
    for (let i = 1; i < pitches.length; i++) {
      if (pitches[i] === pitches[i - 1]) throw new Error(`a pitch twice: ${where()}`);
      for (let m = pitches[i - 1]! + 1; m < pitches[i]!; m++)
        if (pcs.has(mod(m, 12))) throw new Error(`a pitch is missing: ${where()}`);
    }
  }
}

describe('what must fit', () => {
  const usual = (kind: string, scale: string, strings: number): LayoutSpec => {
    const layout = layouts().find((l) => l.kind === kind)!;
    return usualSpec(layout, { scale: scaleById(scale)!, string: 1, strings });
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
    [count(0), 'Notes on each string'], [count(7), 'Notes on each string'], [{ kind: 'count', counts: [] }, 'Notes on each string'],
    [{ kind: 'reach', reach: 1 }, 'Reach in frets'], [{ kind: 'reach', reach: 2.5 }, 'Reach in frets'],
    [{ kind: 'inPosition', school: 'thumb', every: false }, 'A note out of reach'], [{ kind: 'inPosition', school: 'index', every: 'yes' }, 'Every fret'],
    [{ kind: 'single', string: 9 }, 'no string 9'], [{ kind: 'pair', lower: 9 }, 'no string 9'],
    [{ kind: 'relay', notes: 10, perString: 3 }, 'a multiple'], [{ kind: 'relay', notes: 18, perString: 3 }, '3 to 5 of the 6 strings'],
    [{ kind: 'skip', perString: 3, from: 2, altered: [] }, 'Begin on'], [{ kind: 'skip', perString: 3, from: 1, altered: [{ degree: 1, by: 1 }, { degree: 1, by: -1 }] }, 'each degree once'],
    [{ kind: 'regions', boundary: 2 }, 'First fret of the high region'], [{ kind: 'spiral' }, 'no layout “spiral”'],
  ])('%j is refused in the player’s terms', (spec, told) => {
    const result = layOut(neckWith(), key('A', 'major'), spec);
    expect(result).toMatchObject({ ok: false, error: { code: 'layout.option', message: expect.stringContaining(told) } });
  }); // prettier-ignore
});

describe('the atlas', () => {
  // Everything at once takes minutes, so each run walks one root of twelve for every scale, tuning and layout, a
  // twelfth of the atlas, with the roots spread evenly; ATLAS=all in the environment walks the whole of it.
  test('all scales x roots x all tunings x all layouts keep their promises', () => {
    const all = process.env['ATLAS'] === 'all';
    let walked = 0;
    TUNINGS.forEach((t, i) => {
      const neck = neckOf(instrumentOf(t));
      CATALOGUE.forEach((scale, j) =>
        layouts().forEach((layout, l) =>
          ROOTS.forEach((names, r) => {
            if (!all && r !== (i + j + l) % 12) return;
            keepsPromises(
              neck,
              { root: note(names[0]!), scale },
              usualSpec(layout, { scale, string: (r % t.tuning.length) + 1, strings: t.tuning.length }),
            );
            walked++;
          }),
        ),
      );
    });
    expect(walked).toBe(TUNINGS.length * CATALOGUE.length * layouts().length * (all ? 12 : 1));
  }, 900_000);

  test('odd tunings and odd options keep them too', () => {
    const spec = fc.oneof(
      fc.array(fc.integer({ min: 1, max: 6 }), { minLength: 1, maxLength: 8 }).map((counts) => count(...counts)),
      fc.integer({ min: 2, max: 6 }).map((reach): LayoutSpec => ({ kind: 'reach', reach })),
      fc.record({ kind: fc.constant('inPosition' as const), school: fc.constantFrom('index' as const, 'little' as const), every: fc.boolean() }),
      fc.record({ kind: fc.constant('relay' as const), perString: fc.integer({ min: 1, max: 4 }), notes: fc.integer({ min: 2, max: 24 }) }),
      fc.integer({ min: 3, max: 15 }).map((boundary): LayoutSpec => ({ kind: 'regions', boundary })),
      fc.record({ kind: fc.constant('skip' as const), perString: fc.integer({ min: 2, max: 5 }), from: fc.constantFrom(0 as const, 1 as const), altered: fc.constant([{ degree: 1, by: -1 as const }]) }),
      fc.integer({ min: 1, max: 12 }).map((string): LayoutSpec => ({ kind: 'single', string })),
      fc.integer({ min: 1, max: 12 }).map((lower): LayoutSpec => ({ kind: 'pair', lower })),
    ); // prettier-ignore
    fc.assert(
      fc.property(anyNeck, anyKey, spec, (neck, k, s) => keepsPromises(neck, k, s)),
      { numRuns: 3000 },
    );
  });
});
