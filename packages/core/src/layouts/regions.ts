import { type Neck } from '../neck.ts';
import { placeId } from '../place.ts';
import { ok, refuse } from '../result.ts';
import { degreeIndex, type Key } from '../scale.ts';
import { defineLayout } from './layout.ts';
import { type PlacedSpot, type Placement } from '../placement.ts';
import { notesOn, octaveFrom } from './walk.ts';

const NARROWEST_WINDOW = 3;
const WIDEST_WINDOW = 5;

/** Places the pitches of one octave inside frets low to high, each on the lowest string that has it there. */
function inWindow(
  neck: Neck,
  key: Key,
  pitches: readonly number[],
  low: number,
  high: number,
): PlacedSpot[] | null {
  const spots: PlacedSpot[] = [];
  for (const midi of pitches) {
    const string = neck.rising.find(
      (n) => midi - neck.open[n - 1]! >= low && midi - neck.open[n - 1]! <= high,
    );
    if (string === undefined) return null;
    spots.push({ string, fret: midi - neck.open[string - 1]!, midi, degree: degreeIndex(key, midi) });
  }
  return spots;
}

/**
 * The octave from a root's pitch within a region's frets, both ends included, in the narrowest window of frets that holds it,
 * of several the one nearest to the nut; null where no hand has it there.
 *
 * @example octaveIn(neck, A, 45, [0, 7])?.length // 6
 */
export function octaveIn(
  neck: Neck,
  key: Key,
  root: number,
  [from, to]: readonly [number, number],
): readonly PlacedSpot[] | null {
  const pitches = octaveFrom(key, { midi: root, degree: 0 }).map((n) => n.midi);
  for (let width = NARROWEST_WINDOW; width <= WIDEST_WINDOW; width++)
    for (let low = from; low <= to; low++) {
      const spots = inWindow(neck, key, pitches, low, Math.min(to, low + width));
      if (spots) return spots;
    }
  return null;
}

/** The places of the octave from one root, those of narrower windows first. */
function octavePlaces(neck: Neck, key: Key, root: number, boundary: number): readonly Placement[] {
  const pitches = octaveFrom(key, { midi: root, degree: 0 }).map((n) => n.midi);
  const found: Placement[] = [];
  const taken = new Set<number>();
  for (let width = NARROWEST_WINDOW; width <= WIDEST_WINDOW; width++)
    for (let low = 0; low + width <= neck.frets; low++) {
      const spots = inWindow(neck, key, pitches, low, low + width);
      if (!spots) continue;
      // Wider windows repeat what narrower ones gave; a place counts once at least half of its spots are new.
      const ids = spots.map(placeId);
      if (ids.filter((k) => taken.has(k)).length * 2 > ids.length) continue;
      ids.forEach((k) => taken.add(k));
      const frets = spots.map((s) => s.fret);
      const region =
        Math.max(...frets) < boundary ? 'low' : Math.min(...frets) >= boundary ? 'high' : 'across';
      found.push({ spots, region, main: region !== 'across' && !found.some((f) => f.region === region) });
    }
  return found;
}

/** Regions: each octave from root to root in the low region, in the high region, and in unison elsewhere. `boundary` is the first fret of the high region. */
export const regions = defineLayout<{ readonly boundary: number }>({
  kind: 'regions',
  name: 'regions',
  rule: 'The same octave low on the neck, high on it, and in unison elsewhere.',
  complete: true,
  options: { boundary: { type: 'whole', min: 3, max: 15, label: 'First fret of the high region' } },
  place: (neck, key, { boundary }) => {
    const roots = new Set(
      neck.rising.flatMap((s) => notesOn(neck, key, s).flatMap((n) => (n.degree === 0 ? [n.midi] : []))),
    );
    const out = [...roots].sort((a, b) => a - b).flatMap((root) => octavePlaces(neck, key, root, boundary));
    return out.length
      ? ok(out)
      : refuse('layout.neck', 'No octave of the scale lies within one hand on this neck.');
  },
  usual: () => ({ boundary: 7 }),
  said: ({ boundary }) => `in regions cut at fret ${boundary}`,
  title: ({ region, lowFret, highFret }) => `${region}, frets ${lowFret} to ${highFret}`,
});
