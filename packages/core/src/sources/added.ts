import { type AddedNote, addedSpots, spotsWith } from '../overlays/added.ts';
import { lazily } from '../lazily.ts';
import { type Neck } from '../neck.ts';
import { type Position } from '../position.ts';
import { fingers } from '../run/fingers.ts';
import { type HandOptions } from '../run/grips.ts';
import { type Route } from '../run/run.ts';
import { type Key } from '../scale.ts';
import { inPlace } from './position.ts';
import { downFrom, type Source, sourceOf } from './source.ts';

/**
 * A way down in which an added note keeps its way in: it is come to from the half step below on its string, which is struck first ("10, then 8 9, then on
 * down"; common practice, no source).
 */
function wayIn(down: Route): Route {
  const line = [...down];
  for (let i = 0; i + 1 < line.length; i++) {
    const [note, below] = [line[i]!, line[i + 1]!];
    if (note.added !== 'rest' || below.string !== note.string || note.fret - below.fret !== 1) continue;
    [line[i], line[i + 1]] = [below, note];
    i++;
  }
  return line;
}

/**
 * A position with the notes that are added to its scale, from its lowest note to its highest.
 *
 * @example addedSource(neck, A, box, hand, [{ above: 6, passing: true }]).up.steps.length // 14
 */
export function addedSource(
  neck: Neck,
  key: Key,
  position: Position,
  hand: HandOptions,
  added: readonly AddedNote[],
): Source {
  const notes = spotsWith(position.spots, addedSpots(neck, key, position, added));
  const { up } = sourceOf(neck, inPlace(position, notes), hand);
  return { up, down: lazily(() => fingers(neck, wayIn(downFrom(up)), hand)) };
}
