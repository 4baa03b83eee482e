import { type Neck } from '../neck.ts';
import { type Spot } from '../place.ts';
import { ok, refuse } from '../result.ts';
import { degreeTable, type Key } from '../scale.ts';
import { type Placements, type Repeats } from './layout.ts';
import { type Placement } from '../placement.ts';

/** How many notes stay on a string, from the degree it starts on and its place among the strings used. */
export type Take = (degree: number, place: number) => number;

/** A note of the scale before it has a place. */
export interface Pitched {
  readonly midi: number;
  readonly degree: number;
}

/** Scale notes of one string with their degrees, from fret 0 up. */
export function notesOn(neck: Neck, key: Key, string: number): readonly Spot[] {
  const { steps } = key.scale;
  const degrees = degreeTable(key);
  const open = neck.open[string - 1]!;
  const out: Spot[] = [];
  let fret = 0;
  while (degrees[(open + fret) % 12]! < 0) fret++;
  for (let degree = degrees[(open + fret) % 12]!; fret <= neck.frets;) {
    out.push({ string, fret, midi: open + fret, degree });
    fret += steps[degree]!;
    degree = degree + 1 < steps.length ? degree + 1 : 0;
  }
  return out;
}

/** The note `count` scale steps above another. */
export function above({ scale: { offsets } }: Key, { midi, degree }: Pitched, count: number): Pitched {
  const at = degree + count;
  const octaves = Math.floor(at / offsets.length);
  const to = at - octaves * offsets.length;
  return { midi: midi + 12 * octaves + offsets[to]! - offsets[degree]!, degree: to };
}

/** One octave up from a note, both ends included. */
export const octaveFrom = (key: Key, from: Pitched): readonly Pitched[] =>
  Array.from({ length: key.scale.steps.length + 1 }, (_, i) => above(key, from, i));

/** Walks up the scale over `strings` from one note; null as soon as a note falls off the neck. */
export function walk(
  neck: Neck,
  key: Key,
  from: Pitched,
  strings: readonly number[],
  take: Take,
): Spot[] | null {
  const { steps } = key.scale;
  const spots: Spot[] = [];
  let { midi, degree } = from;
  for (let place = 0; place < strings.length; place++) {
    const string = strings[place]!;
    const open = neck.open[string - 1]!;
    for (let left = take(degree, place); left > 0; left--) {
      const fret = midi - open;
      if (fret < 0 || fret > neck.frets) return null;
      spots.push({ string, fret, midi, degree });
      midi += steps[degree]!;
      degree = degree + 1 < steps.length ? degree + 1 : 0;
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

/** The law of repetition of groups within a reach; null where more than one cycle recurs. */
export function repeatsWithin(steps: readonly number[], reach: number): Repeats | null {
  const { takes, cycles } = reachGroups(steps, reach);
  return cycles.length === 1 ? { starts: cycles[0]!, takes } : null;
}

/** Only complete placements count; where there are none the neck is the reason. */
export const fitting = (placements: readonly Placement[], what: string): Placements =>
  placements.length
    ? ok(placements)
    : refuse(
        'layout.neck',
        `${what} does not fit anywhere on this neck: it would leave the first or the last fret.`,
      );
