import { type Neck } from '../neck.ts';
import { mod, ok, refuse, roman } from '../result.ts';
import { degreeTable, type Key } from '../scale.ts';
import { defineLayout, type PlacedSpot, type Placement } from './layout.ts';

const HAND = 3;

interface Options {
  /** Which finger takes a note that one finger per fret misses: the index one fret back, or the little one forward. */
  readonly school: 'index' | 'little';
  /** Lists all fingerable frets, not only those worth learning. */
  readonly every: boolean;
}

/**
 * Every scale note from the lowest string up with the index finger at fret `p`. A note between two strings'
 * windows goes to the index finger one fret back or the little finger one fret forward; where both are needed, to
 * each its own. Null where a note cannot be reached. `floor` is the lowest fret that exists.
 */
function place(
  neck: Neck,
  key: Key,
  p: number,
  school: Options['school'],
  floor: number,
  ceiling: number,
): Placement | null {
  const spots: PlacedSpot[] = [];
  const degrees = degreeTable(key);
  const isScale = (midi: number): boolean => degrees[midi % 12]! >= 0;
  let last = -Infinity;
  let stretches = 0;
  const put = (string: number, midi: number, stretch: boolean): boolean => {
    const fret = midi - neck.open[string - 1]!;
    if (fret < floor || fret > ceiling) return false;
    const degree = degrees[midi % 12]!;
    spots.push(stretch ? { string, fret, midi, degree, stretch } : { string, fret, midi, degree });
    if (stretch) stretches++;
    last = midi;
    return true;
  };
  for (let i = 0; i < neck.rising.length; i++) {
    const string = neck.rising[i]!;
    const low = neck.open[string - 1]! + p;
    const below = neck.rising[i - 1];
    if (below !== undefined) {
      const reached = neck.open[below - 1]! + p + HAND;
      for (let midi = reached + 1; midi < low; midi++) {
        if (!isScale(midi) || midi <= last) continue;
        const forward = midi === reached + 1;
        const back = midi === low - 1;
        const order =
          school === 'index' ? [back && string, forward && below] : [forward && below, back && string];
        const taken = order.some((s) => s !== false && put(s, midi, p > 0 || s === string));
        if (!taken) return null;
      }
    }
    for (let midi = low; midi <= low + HAND; midi++)
      if (isScale(midi) && midi > last && !put(string, midi, false)) return null;
  }
  return { spots, indexFret: p, stretches };
}

/**
 * Frets 1 to 12 (12 stands for the open position too) whose number of stretches is a local minimum; of equals side
 * by side the lowest fret counts.
 */
export function fretsWorthLearning(stretches: readonly (number | null)[]): ReadonlySet<number> {
  const at = (i: number): number => stretches[mod(i, 12)] ?? Infinity;
  const out = new Set<number>();
  for (let i = 0; i < 12; i++) {
    if (at(i) === Infinity || at(i - 1) === at(i)) continue;
    let end = i;
    while (at(end + 1) === at(i) && end < i + 12) end++;
    if (at(i - 1) > at(i) && at(end + 1) > at(i)) out.add(i + 1);
  }
  // All twelve equal, as for the chromatic scale: each is as good as the others.
  if (!out.size) for (let i = 0; i < 12; i++) if (at(i) !== Infinity) out.add(i + 1);
  return out;
}

/** In position: all notes under one finger per fret, at every index fret or at those worth learning. */
export const inPosition = defineLayout<Options>({
  kind: 'inPosition',
  name: 'in position',
  rule: 'Every note of the scale under one finger per fret.',
  complete: true,
  options: {
    school: {
      type: 'choice',
      label: 'A note out of reach goes to',
      values: [
        { id: 'index', name: 'the index finger, one fret back' },
        { id: 'little', name: 'the little finger, one fret forward' },
      ],
    },
    every: {
      type: 'switch',
      words: ['best', 'every'],
      label: 'Every fret, not only the positions worth learning',
    },
  },
  place: (neck, key, { school, every }) => {
    // Counted where neither end of the neck interferes, then folded to frets 1 to 12.
    const free = Array.from({ length: 12 }, (_, i) => place(neck, key, i + 1, school, -Infinity, Infinity));
    const worth = fretsWorthLearning(free.map((f) => f?.stretches ?? null));
    const onNeck = (f: Placement): boolean => f.spots.every((s) => s.fret >= 0 && s.fret <= neck.frets);
    const out: Placement[] = [];
    for (let p = 0; p + HAND <= neck.frets; p++) {
      const worthLearning = worth.has(mod(p - 1, 12) + 1);
      if (!every && !worthLearning) continue;
      const known = free[p - 1];
      const placement = known && onNeck(known) ? known : place(neck, key, p, school, 0, neck.frets);
      if (placement) out.push(Object.assign(placement, { worthLearning }));
    }
    return out.length
      ? ok(out)
      : refuse(
          'layout.neck',
          'Two neighbouring strings lie too far apart for one hand position: notes of the scale between them stay out of reach.',
        );
  },
  usual: () => ({ school: 'index', every: false }),
  said: ({ every }) => (every ? 'in any position' : 'in position'),
  title: ({ indexFret = 0 }, { every }) => (every ? `position ${roman(indexFret)}` : null),
});
