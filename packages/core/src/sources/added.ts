import { mod } from '../arithmetic.ts';
import { type AddedNote, addedKind, addedSpots, classOfAdded, spotsWith } from '../overlays/added.ts';
import { type Neck } from '../neck.ts';
import { type Position } from '../position.ts';
import { type HandOptions } from '../run/grips.ts';
import { type Route, type RouteNote } from '../run/run.ts';
import { degreeIndex, type Key } from '../scale.ts';
import { inPlace } from './position.ts';
import { type Source, sourceOf } from './source.ts';

/**
 * A position with the notes that are added to its scale, from its lowest note to its highest.
 *
 * @example addedSource(neck, A, box, hand, [{ above: 6, passing: true }]).up.steps.length // 14
 */
export const addedSource = (
  neck: Neck,
  key: Key,
  position: Position,
  hand: HandOptions,
  added: readonly AddedNote[],
): Source =>
  sourceOf(neck, inPlace(position, spotsWith(position.spots, addedSpots(neck, key, position, added))), hand);

/** How many frets outside two notes one between them may lie: the hand stretches to it. */
const OUTSIDE = 1;
/** Where a pitch between two notes that follow each other is played: on the string of one of them, between their frets or a fret outside. */
function between(a: RouteNote, b: RouteNote, midi: number): Pick<RouteNote, 'string' | 'fret'> | null {
  const [low, high] = [Math.min(a.fret, b.fret), Math.max(a.fret, b.fret)];
  const outside = (fret: number): number => Math.max(low - fret, fret - high, 0);
  const places = [a, b]
    .map(({ string, fret, midi: there }) => ({ string, fret: fret + midi - there }))
    .filter(({ fret }) => fret >= 0 && outside(fret) <= OUTSIDE)
    .sort((p, q) => outside(p.fret) - outside(q.fret));
  return places[0] ?? null;
}

/**
 * A line with the notes that are added to its scale: between each two that follow each other as steps of the scale, on the string of one of them.
 *
 * @example addedAlong(A, box.spots, [{ above: 6, passing: true }]).length // 14
 */
export function addedAlong(key: Key, line: Route, added: readonly AddedNote[]): Route {
  const notes = added.filter((note) => degreeIndex(key, classOfAdded(key, note)) < 0);
  if (!notes.length) return line;
  return line.flatMap((b, i): Route => {
    const a = line[i - 1];
    if (!a) return [b];
    const pitches = Array.from(
      { length: Math.max(0, Math.abs(b.midi - a.midi) - 1) },
      (_, k) => a.midi + (k + 1) * Math.sign(b.midi - a.midi),
    );
    // What leaps goes past them.
    if (pitches.some((midi) => degreeIndex(key, midi) >= 0)) return [b];
    return [
      ...pitches.flatMap((midi): Route => {
        const note = notes.find((it) => classOfAdded(key, it) === mod(midi, 12));
        const place = note && between(a, b, midi);
        return place ? [{ ...place, midi, degree: -1, added: addedKind(note) }] : [];
      }),
      b,
    ];
  });
}
