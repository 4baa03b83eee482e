import { type Neck } from '../neck.ts';
import { mod, ok, refuse } from '../result.ts';
import { degreeIndex, type Key } from '../scale.ts';
import { type PlacedSpot, type Placement, type Placements, type StretchSchool } from './spec.ts';

const HAND = 3;

/**
 * Every scale note from the lowest string up with the index finger at fret `p`. A note between two strings'
 * windows goes to the index finger one fret back or the little finger one fret forward; where both are needed, to
 * each its own. Null where a note cannot be reached. `floor` is the lowest fret that exists.
 */
function place(
  neck: Neck,
  key: Key,
  p: number,
  school: StretchSchool,
  floor: number,
  ceiling: number,
): Placement | null {
  const spots: PlacedSpot[] = [];
  const isScale = (midi: number): boolean => degreeIndex(key, midi) >= 0;
  let last = -Infinity;
  const put = (string: number, midi: number, stretch: boolean): boolean => {
    const fret = midi - neck.open[string - 1]!;
    if (fret < floor || fret > ceiling) return false;
    spots.push({
      string,
      fret,
      midi,
      degree: degreeIndex(key, midi),
      ...(stretch ? { stretch: true as const } : {}),
    });
    last = midi;
    return true;
  };
  for (const [i, string] of neck.rising.entries()) {
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
  return { spots, indexFret: p, stretches: spots.filter((s) => s.stretch).length };
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
export function inPosition(neck: Neck, key: Key, school: StretchSchool, every: boolean): Placements {
  // Counted where neither end of the neck interferes, then folded to frets 1 to 12.
  const stretches = Array.from(
    { length: 12 },
    (_, i) => place(neck, key, i + 1, school, -Infinity, Infinity)?.stretches ?? null,
  );
  const worth = fretsWorthLearning(stretches);
  const out: Placement[] = [];
  for (let p = 0; p + HAND <= neck.frets; p++) {
    const worthLearning = worth.has(mod(p - 1, 12) + 1);
    if (!every && !worthLearning) continue;
    const placement = place(neck, key, p, school, 0, neck.frets);
    if (placement) out.push({ ...placement, worthLearning });
  }
  return out.length
    ? ok(out)
    : refuse(
        'layout.neck',
        'Two neighbouring strings lie too far apart for one hand position: notes of the scale between them stay out of reach.',
      );
}
