import { crossings } from '../tuning.ts';
import { type Neck } from '../neck.ts';
import { ok, refuse, type Result } from '../result.ts';
import { degreeIndex, type Key } from '../scale.ts';
import { type Alteration, type PlacedSpot, type Placement, type Placements } from './spec.ts';
import { notesOn, rise, walk } from './walk.ts';

/** String skip: two neighbouring by-count positions united, on every other string, with notes altered at will. */
export function stringSkip(
  neck: Neck,
  key: Key,
  perString: number,
  from: 0 | 1,
  altered: readonly Alteration[],
): Placements {
  if (perString < 2 || perString > 5)
    return refuse('layout.option', 'A united group has 2 to 5 notes on a string.');
  const strings = neck.rising.filter((_, i) => i % 2 === from);
  if (strings.length < 2)
    return refuse('layout.neck', 'There are too few strings to leave every other one out.');
  const base = perString - 1;
  const placements = notesOn(neck, key, neck.rising[0]!).flatMap((start): Placement[] => {
    const spots: PlacedSpot[] = [];
    for (const string of strings) {
      const first = rise(key, start, neck.rising.indexOf(string) * base + 1).at(-1)!;
      const group = walk(neck, key, first, [string], () => perString);
      if (!group) return [];
      for (const spot of group) {
        const by = altered.find((a) => a.degree === spot.degree)?.by;
        const moved =
          by === undefined
            ? spot
            : { ...spot, fret: spot.fret + by, midi: spot.midi + by, altered: true as const };
        if (moved.fret < 0 || moved.fret > neck.frets) return [];
        spots.push(moved);
      }
    }
    return [{ spots: spots.sort((a, b) => a.midi - b.midi) }];
  });
  return placements.length
    ? ok(placements)
    : refuse('layout.neck', 'The united shape does not fit anywhere on this neck.');
}

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

/** Regions: each octave from root to root in the low region, in the high region, and in unison elsewhere. */
export function regions(neck: Neck, key: Key, boundary: number): Placements {
  if (boundary < 3 || boundary > 15) return refuse('layout.option', 'The boundary is fret 3 to 15.');
  const roots = [
    ...new Set(
      neck.rising
        .flatMap((s) => notesOn(neck, key, s))
        .filter((s) => s.degree === 0)
        .map((s) => s.midi),
    ),
  ];
  const out: Placement[] = [];
  for (const root of roots.sort((a, b) => a - b)) {
    const pitches = rise(key, { midi: root, degree: 0 }, key.scale.steps.length + 1).map((n) => n.midi);
    const found: Placement[] = [];
    const taken = new Set<number>();
    for (let width = 3; width <= WIDEST_WINDOW; width++)
      for (let low = 0; low + width <= neck.frets; low++) {
        const spots = inWindow(neck, key, pitches, low, low + width);
        if (!spots) continue;
        // Wider windows repeat what narrower ones gave; a place counts once at least half of its spots are new.
        const keys = spots.map((s) => s.string * 100 + s.fret);
        if (keys.filter((k) => taken.has(k)).length * 2 > keys.length) continue;
        keys.forEach((k) => taken.add(k));
        const frets = spots.map((s) => s.fret);
        const region =
          Math.max(...frets) < boundary ? 'low' : Math.min(...frets) >= boundary ? 'high' : 'across';
        found.push({ spots, region, main: region !== 'across' && !found.some((f) => f.region === region) });
      }
    out.push(...found);
  }
  return out.length
    ? ok(out)
    : refuse('layout.neck', 'No octave of the scale lies within one hand on this neck.');
}

const WINDOW = 4;

/**
 * Fourths pattern: a window of five frets on an endless pattern of fourths holds each pitch once; on the real
 * tuning every string is moved by the jogs between it and the lowest string, which keeps the pitches.
 */
export function fourthsPattern(neck: Neck, key: Key): Placements {
  const rising = neck.rising.map((s) => neck.open[s - 1]!);
  const jogs = [0];
  for (const { jog } of crossings(rising)) jogs.push(jogs.at(-1)! + jog);
  const out: Placement[] = [];
  let last = '';
  for (let start = -Math.min(...jogs); start + WINDOW + Math.max(...jogs) <= neck.frets; start++) {
    const spots = neck.rising.flatMap((string, i) =>
      Array.from({ length: WINDOW + 1 }, (_, c) => start + c + jogs[i]!)
        .map((fret) => ({ string, fret, midi: neck.open[string - 1]! + fret }))
        .map((s) => ({ ...s, degree: degreeIndex(key, s.midi) }))
        .filter((s) => s.degree >= 0),
    );
    const same = spots.map((s) => `${s.string}:${s.fret}`).join();
    if (spots.length && same !== last) out.push({ spots });
    last = same;
  }
  return out.length
    ? ok(out)
    : refuse(
        'layout.neck',
        'The jogs of this tuning move the window of fourths off the neck on some string.',
      );
}

/** Where the window lies as if all strings were fourths apart: a spot's fret less the jogs up to its string. */
export function fourthsColumn(neck: Neck, string: number, fret: number): Result<number> {
  const place = neck.rising.indexOf(string);
  if (place < 0) return refuse('layout.option', `This instrument has no string ${string}.`);
  const rising = neck.rising.slice(0, place + 1).map((s) => neck.open[s - 1]!);
  return ok(fret - crossings(rising).reduce((sum, c) => sum + c.jog, 0));
}
