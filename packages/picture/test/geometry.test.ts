import { fretDistance } from '@crow-ladder/core';
import fc from 'fast-check';
import { layOutNeck, type NeckLook, type NeckSize } from '../src/index.ts';

const plain: NeckLook = { vertical: false, even: false, lowOnTop: false, leftHanded: false, zoom: null };
const usual: NeckSize = { strings: 6, frets: 24, capo: 0 };
const anyNeck = fc
  .record({
    strings: fc.integer({ min: 3, max: 12 }),
    frets: fc.integer({ min: 12, max: 36 }),
    capo: fc.integer({ min: 0, max: 5 }),
  })
  .map((neck): NeckSize => ({ ...neck, capo: Math.min(neck.capo, neck.frets - 12) }));
const anyLook: fc.Arbitrary<NeckLook> = fc.record({
  vertical: fc.boolean(),
  even: fc.boolean(),
  lowOnTop: fc.boolean(),
  leftHanded: fc.boolean(),
  zoom: fc.constantFrom(null, [3, 12] as const, [0, 5] as const),
  roomy: fc.boolean(),
});

test('the spot under a mark is the spot of the mark, however the neck is drawn', () => {
  fc.assert(
    fc.property(anyNeck, anyLook, (neck, look) => {
      const g = layOutNeck(neck, look);
      for (let string = 1; string <= neck.strings; string++)
        for (let fret = g.from; fret <= g.to; fret++) {
          const { x, y } = g.at(string, fret);
          expect(g.spotAt(x, y)).toEqual({ string, fret });
          expect(x).toBeGreaterThan(0);
          expect(x).toBeLessThan(g.width);
          expect(y).toBeGreaterThan(0);
          expect(y).toBeLessThan(g.height);
        }
    }),
  );
});

test('marks of neighbouring frets and strings do not lie on each other', () => {
  fc.assert(
    fc.property(anyNeck, anyLook, (neck, look) => {
      const g = layOutNeck(neck, look);
      for (let fret = g.from + 1; fret < g.to; fret++)
        expect(Math.abs(g.centre(fret + 1) - g.centre(fret))).toBeGreaterThanOrEqual(
          look.vertical ? 2 * g.mark.tall : 2 * g.mark.half,
        );
      expect(Math.abs(g.across(1) - g.across(2))).toBeGreaterThanOrEqual(
        look.vertical ? 2 * g.mark.half : 2 * g.mark.tall,
      );
    }),
  );
});

test('true spacing follows the fret rule, from the capo on', () => {
  for (const capo of [0, 3]) {
    const g = layOutNeck({ ...usual, capo }, plain);
    const share = (a: number, b: number): number => (g.wire(b) - g.wire(a)) / (g.wire(12) - g.wire(0));
    const real = (a: number, b: number): number => {
      const at = (f: number): number => fretDistance(648, f + capo);
      return (at(b) - at(a)) / (at(12) - at(0));
    };
    expect(share(0, 5)).toBeCloseTo(real(0, 5), 9);
    expect(share(5, 7)).toBeCloseTo(real(5, 7), 9);
  }
});

test('the hand turns the lying neck round, and the string on top is the one asked for', () => {
  const right = layOutNeck(usual, plain);
  const left = layOutNeck(usual, { ...plain, leftHanded: true });
  expect(right.centre(5)).toBeLessThan(right.centre(9));
  expect(left.centre(5)).toBeGreaterThan(left.centre(9));
  expect(right.across(1)).toBeLessThan(right.across(6));
  const turned = layOutNeck(usual, { ...plain, lowOnTop: true });
  expect(turned.across(1)).toBeGreaterThan(turned.across(6));
  const upright = layOutNeck(usual, { ...plain, vertical: true });
  expect(upright.at(6, 3).x).toBeLessThan(upright.at(1, 3).x);
  expect(upright.at(6, 3).y).toBeLessThan(upright.at(6, 4).y);
});
