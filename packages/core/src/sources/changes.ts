import { type LineSlot, lineThrough } from '../chords/throughChanges.ts';
import { type Neck, pitchAt } from '../neck.ts';
import { type PlacedSpot } from '../placement.ts';
import { type Position } from '../position.ts';
import { ok, type Result } from '../result.ts';
import { type HandOptions } from '../run/grips.ts';
import { degreeIndex, type Key } from '../scale.ts';
import { inPlace } from './position.ts';
import { type Source, sourceOf } from './source.ts';

/**
 * All places that the hand reaches in a position: those that it holds, and between its frets one more of each pitch that it does not.
 *
 * @example underPosition(neck, A, box).length // 24
 */
export function underPosition(neck: Neck, key: Key, position: Position): readonly PlacedSpot[] {
  const byPitch = new Map(position.held.map((spot) => [spot.midi, spot]));
  const strings = neck.rising.filter((string) => position.groups.some((g) => g.string === string));
  for (const string of strings)
    for (let fret = position.lowFret; fret <= position.highFret; fret++) {
      const midi = pitchAt(neck, string, fret);
      if (!byPitch.has(midi)) byPitch.set(midi, { string, fret, midi, degree: degreeIndex(key, midi) });
    }
  return [...byPitch.values()].sort((a, b) => a.midi - b.midi);
}

/**
 * A line through chords under a position. Code `line.room`.
 *
 * @example changesSource(neck, A, box, hand, [{ notes: 4, firsts: [0], tones: [9, 0, 4], scale: [9, 0, 2, 4, 7] }]).value?.up.steps.length // 4
 */
export function changesSource(
  neck: Neck,
  key: Key,
  position: Position,
  hand: HandOptions,
  slots: readonly LineSlot[],
): Result<Source> {
  const line = lineThrough(underPosition(neck, key, position), slots);
  return line.ok ? ok(sourceOf(neck, inPlace(position, line.value), hand)) : line;
}
