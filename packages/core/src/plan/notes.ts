import { type Neck, pitchAt, spotsOf } from '../neck.ts';
import { type Place, type Spot } from '../place.ts';
import { type Direction, routeThrough } from '../run/route.ts';
import { type Key } from '../scale.ts';
import { type PlanNote } from './task.ts';

/**
 * The scale from a place up or down to another pitch, every note on all its places but for the first one, which is taken
 * where it was put; `to` is a MIDI number, and the last scale note before it ends the line. Empty where the place is no note
 * of the scale, or nothing lies between.
 */
export function notesBetween(
  neck: Neck,
  key: Key,
  from: Place,
  to: number,
  direction: Extract<Direction, 'up' | 'both'>,
): readonly PlanNote[] {
  const byPitch = new Map<number, Spot[]>();
  for (const s of spotsOf(neck, key)) byPitch.set(s.midi, [...(byPitch.get(s.midi) ?? []), s]);
  const first = pitchAt(neck, from.string, from.fret);
  const up = to >= first;
  const pitches = [...byPitch.keys()]
    .filter((m) => (up ? m >= first && m <= to : m <= first && m >= to))
    .sort((a, b) => (up ? a - b : b - a));
  if (pitches[0] !== first || pitches.length < 2) return [];
  const notes = pitches.map((midi, i): PlanNote => {
    const spots = byPitch.get(midi)!;
    const places = spots.map(({ string, fret }) => ({ string, fret }));
    return {
      midi,
      degree: spots[0]!.degree,
      places: i ? places : [{ string: from.string, fret: from.fret }],
    };
  });
  return routeThrough(notes, direction);
}
