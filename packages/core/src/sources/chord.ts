import { type Neck } from '../neck.ts';
import { type PitchClass } from '../note.ts';
import { type Position } from '../position.ts';
import { ok, type Result } from '../result.ts';
import { type HandOptions } from '../run/grips.ts';
import { arpeggioIn, chordsInTurn, type Range } from '../chords/inside.ts';
import { inPlace } from './position.ts';
import { type Source, sourceOf } from './source.ts';

/**
 * A chord inside a position, from its bass note up; `classes` has its pitch classes, the bass note's first. Code `chord.room`.
 *
 * @example arpeggioSource(neck, box, hand, [9, 0, 4], 'all').value?.up.steps.length // 8
 */
export function arpeggioSource(
  neck: Neck,
  position: Position,
  hand: HandOptions,
  classes: readonly PitchClass[],
  range: Range,
): Result<Source> {
  const line = arpeggioIn(position, classes, range);
  return line.ok ? ok(sourceOf(neck, inPlace(position, line.value), hand)) : line;
}

/**
 * The chords of all degrees in turn inside a position; `chords` has the pitch classes of each, its root first. Code `chord.room`.
 *
 * @example chordsSource(neck, box, hand, [[9, 0, 4]], 'all').value?.up.steps.length // 6
 */
export function chordsSource(
  neck: Neck,
  position: Position,
  hand: HandOptions,
  chords: readonly (readonly PitchClass[])[],
  range: Range,
): Result<Source> {
  const lines = chordsInTurn(position, chords, range);
  return lines.ok ? ok(sourceOf(neck, inPlace(position, lines.value.flat()), hand)) : lines;
}
