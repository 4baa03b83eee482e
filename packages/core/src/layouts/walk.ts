import { type Neck, type Spot } from '../neck.ts';
import { degreeIndex, type Key } from '../scale.ts';
import { type Placement } from './spec.ts';

/** How many notes stay on a string, from the degree it starts on and its place among the strings used. */
export type Take = (degree: number, place: number) => number;

/** Scale notes of one string with their degrees, from fret 0 up. */
export function notesOn(neck: Neck, key: Key, string: number): readonly Spot[] {
  const out: Spot[] = [];
  for (let fret = 0; fret <= neck.frets; fret++) {
    const midi = neck.open[string - 1]! + fret;
    const degree = degreeIndex(key, midi);
    if (degree >= 0) out.push({ string, fret, midi, degree });
  }
  return out;
}

/** The next `count` scale notes from a spot's pitch, as pairs of pitch and degree. */
export function rise(
  key: Key,
  from: { midi: number; degree: number },
  count: number,
): { midi: number; degree: number }[] {
  const { steps } = key.scale;
  const out: { midi: number; degree: number }[] = [];
  let { midi, degree } = from;
  for (let i = 0; i < count; i++) {
    out.push({ midi, degree });
    midi += steps[degree]!;
    degree = (degree + 1) % steps.length;
  }
  return out;
}

/** Walks up the scale over `strings` from one pitch; null as soon as a note falls off the neck. */
export function walk(
  neck: Neck,
  key: Key,
  from: { midi: number; degree: number },
  strings: readonly number[],
  take: Take,
): readonly Spot[] | null {
  const spots: Spot[] = [];
  let next = from;
  for (const [place, string] of strings.entries()) {
    const notes = rise(key, next, take(next.degree, place) + 1);
    next = notes.pop()!;
    for (const { midi, degree } of notes) {
      const fret = midi - neck.open[string - 1]!;
      if (fret < 0 || fret > neck.frets) return null;
      spots.push({ string, fret, midi, degree });
    }
  }
  return spots;
}

/** All walks over all strings whose first note is a scale note on the lowest string. */
export function walksAlong(
  neck: Neck,
  key: Key,
  take: Take,
  starts?: ReadonlySet<number>,
): readonly Placement[] {
  return notesOn(neck, key, neck.rising[0]!).flatMap((from) => {
    if (starts && !starts.has(from.degree)) return [];
    const spots = walk(neck, key, from, neck.rising, take);
    return spots ? [{ spots }] : [];
  });
}

/** Number of scale notes from a degree that lie within `reach` frets of it. At least one. */
function withinReach(steps: readonly number[], degree: number, reach: number): number {
  let count = 1;
  let span = steps[degree]!;
  while (span <= reach) {
    span += steps[(degree + count) % steps.length]!;
    count++;
  }
  return count;
}

/**
 * The degrees on which groups start again and again when each string takes what its start degree allows.
 * Following degree → next start degree always ends in cycles; only degrees on a cycle start a group that recurs.
 */
function recurrentStarts(steps: readonly number[], takes: readonly number[]): readonly (readonly number[])[] {
  const n = steps.length;
  const next = (d: number): number => (d + takes[d]!) % n;
  const cycles: number[][] = [];
  for (let d = 0; d < n; d++) {
    let at = d;
    for (let i = 0; i < n; i++) at = next(at);
    if (cycles.some((c) => c.includes(at))) continue;
    const cycle = [at];
    for (let b = next(at); b !== at; b = next(b)) cycle.push(b);
    cycles.push(cycle);
  }
  return cycles;
}

/** How a scale falls into groups within a reach: the notes that each start degree takes, and the cycles of starts that recur. */
export interface ReachGroups {
  readonly takes: readonly number[];
  readonly cycles: readonly (readonly number[])[];
}

export function reachGroups(steps: readonly number[], reach: number): ReachGroups {
  const takes = steps.map((_, d) => withinReach(steps, d, reach));
  return { takes, cycles: recurrentStarts(steps, takes) };
}

/** The reach of the diagonal, in frets. */
export const DIAGONAL_REACH = 4;
