import { type Neck } from '../neck.ts';
import { mod } from '../arithmetic.ts';
import { ok, refuse } from '../result.ts';
import { positionAt } from '../words.ts';
import { degreeTable, type Key } from '../scale.ts';
import { defineLayout } from './layout.ts';
import { type PlacedSpot, type Placement } from '../placement.ts';

const HAND = 3;

interface Options {
  /** Which finger takes a note that one finger per fret misses: the index one fret back, or the little one forward. */
  readonly school: 'index' | 'little';
  /** Lists all fingerable frets, not only those worth learning. */
  readonly every: boolean;
}

/** Takes a note on a string, or says that it cannot; `again`: its pitch lies on a lower string already. */
type Put = (string: number, midi: number, how: 'plain' | 'stretch' | 'again') => boolean;
const anywhere: Put = () => true;

/**
 * Every scale note from the lowest string up with the index finger at fret `p`. A note between two strings'
 * windows goes to the index finger one fret back or the little finger one fret forward; where both are needed, to
 * each its own. Gives the number of stretches, null where a note cannot be reached.
 */
function frame(
  neck: Neck,
  degrees: readonly number[],
  p: number,
  school: Options['school'],
  put: Put,
): number | null {
  const { open, rising } = neck;
  let last = -1;
  let stretches = 0;
  for (let i = 0; i < rising.length; i++) {
    const string = rising[i]!;
    const low = open[string - 1]! + p;
    if (i > 0) {
      const below = rising[i - 1]!;
      const reached = open[below - 1]! + p + HAND;
      for (let midi = Math.max(reached, last) + 1; midi < low; midi++) {
        if (degrees[midi % 12]! < 0) continue;
        const back = midi === low - 1 ? string : 0;
        const forward = midi === reached + 1 ? below : 0;
        const first = school === 'index' ? back : forward;
        const second = school === 'index' ? forward : back;
        // From the nut an open string is no stretch for the string above.
        let taken = 0;
        if (first > 0 && put(first, midi, p > 0 || first === string ? 'stretch' : 'plain')) taken = first;
        else if (second > 0 && put(second, midi, p > 0 || second === string ? 'stretch' : 'plain'))
          taken = second;
        if (taken === 0) return null;
        if (p > 0 || taken === string) stretches++;
        last = midi;
      }
    }
    const known = last;
    for (let midi = low; midi <= low + HAND; midi++) {
      if (degrees[midi % 12]! < 0) continue;
      if (!put(string, midi, midi <= known ? 'again' : 'plain')) return null;
      last = Math.max(last, midi);
    }
  }
  return stretches;
}

/** The frame at a fret with its spots, all of them on the neck; null where one is not. */
function place(neck: Neck, key: Key, p: number, school: Options['school']): Placement | null {
  const degrees = degreeTable(key);
  const spots: PlacedSpot[] = [];
  const twins: PlacedSpot[] = [];
  const stretches = frame(neck, degrees, p, school, (string, midi, how) => {
    const fret = midi - neck.open[string - 1]!;
    if (fret < 0 || fret > neck.frets) return false;
    const degree = degrees[midi % 12]!;
    const spot = { string, fret, midi, degree };
    if (how === 'again') twins.push(spot);
    else spots.push(how === 'stretch' ? { ...spot, stretch: true } : spot);
    return true;
  });
  return stretches === null ? null : { spots, twins, indexFret: p, stretches };
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
    const degrees = degreeTable(key);
    const stretches = Array.from({ length: 12 }, (_, i) => frame(neck, degrees, i + 1, school, anywhere));
    const worth = fretsWorthLearning(stretches);
    const out: Placement[] = [];
    for (let p = 0; p + HAND <= neck.frets; p++) {
      const worthLearning = worth.has(mod(p - 1, 12) + 1);
      if (!every && !worthLearning) continue;
      const placement = place(neck, key, p, school);
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
  title: ({ indexFret = 0 }, { every }) => (every ? positionAt(indexFret) : null),
});
