import fc from 'fast-check';
import {
  CATALOGUE,
  DEFAULT_INSTRUMENT,
  fretText,
  type Instrument,
  type Key,
  layOut,
  type LayoutSpec,
  neckOf,
  note,
  parseTuning,
  type Position,
  ROOTS,
  scaleById,
  TUNINGS,
} from './core.ts';

export const tuning = (text: string): readonly number[] => {
  const parsed = parseTuning(text);
  if (!parsed.ok) throw new Error(parsed.error.message);
  return parsed.value.tuning;
};

/** The hand of most tests. */
export const HAND = { school: 'onePerFret', spanMm: 110 } as const;
/** A six-string with 22 frets. */
export const six: Instrument = { ...DEFAULT_INSTRUMENT, frets: 22 };
export const neckWith = (text = 'E2 A2 D3 G3 B3 E4', frets = 24) =>
  neckOf({ ...DEFAULT_INSTRUMENT, tuning: tuning(text), frets });
export const count = (...counts: number[]): LayoutSpec => ({ kind: 'count', counts });
export const key = (root: string, scale: string): Key => ({ root: note(root), scale: scaleById(scale)! });

export function positions(k: Key, spec: LayoutSpec, neck = neckWith()): readonly Position[] {
  const result = layOut(neck, k, spec);
  if (!result.ok) throw new Error(result.error.message);
  return result.value;
}

/** Frets of every position as text. */
export const texts = (k: Key, spec: LayoutSpec, neck = neckWith()): readonly string[] =>
  positions(k, spec, neck).map(fretText);

export const anyScale = fc.constantFrom(...CATALOGUE);
export const anyRoot = fc.constantFrom(...ROOTS.map((names) => note(names.at(-1)!)));
export const anyKey: fc.Arbitrary<Key> = fc.record({ root: anyRoot, scale: anyScale });
export const tableNeck = fc
  .record({ t: fc.constantFrom(...TUNINGS), frets: fc.integer({ min: 12, max: 36 }) })
  .map(({ t, frets }) => neckOf({ ...DEFAULT_INSTRUMENT, tuning: t.tuning, frets }));
/** Three to twelve strings with any intervals, unisons and falling ones among them. */
export const oddNeck = fc
  .record({
    low: fc.integer({ min: 24, max: 45 }),
    steps: fc.array(fc.integer({ min: -7, max: 9 }), { minLength: 2, maxLength: 11 }),
    frets: fc.integer({ min: 12, max: 36 }),
  })
  .map(({ low, steps, frets }) => {
    const open = [low];
    for (const s of steps) open.push(Math.min(100, Math.max(12, open.at(-1)! + s)));
    return neckOf({ ...DEFAULT_INSTRUMENT, tuning: open, frets });
  });
export const anyNeck = fc.oneof(tableNeck, oddNeck);
