import { mod } from '../arithmetic.ts';
import { type Neck, pitchAt, unisons } from '../neck.ts';
import { pitchClass, type PitchClass } from '../note.ts';
import { type PlacedSpot } from '../placement.ts';
import { type Place } from '../place.ts';
import { type Position } from '../position.ts';
import { degreeIndex, type Key } from '../scale.ts';

/** A note that is played beside a scale. */
export interface AddedNote {
  /** How far it lies above the root, in half steps, 1 to 11. */
  readonly above: number;
  /** Touched on the way, and not rested on. */
  readonly passing: boolean;
}

/** Where a note of a position lies beside its scale. */
export interface AddedSpot extends PlacedSpot {
  readonly added: 'rest' | 'passing';
}

const classOf = ({ root }: Key, { above }: AddedNote): PitchClass => mod(pitchClass(root) + above, 12);

/**
 * Where the notes that are added to a scale lie in a position: each pitch between its lowest and its highest note once, on a string between two
 * notes of the position there, else where the hand reaches it between its frets. Notes that the scale has are none. Rising.
 *
 * @example addedSpots(neck, A, box, [{ above: 6, passing: true }]).map((s) => [s.string, s.fret]) // [[5,6],[3,8]]
 */
export function addedSpots(
  neck: Neck,
  key: Key,
  { spots, groups, lowFret, highFret }: Pick<Position, 'spots' | 'groups' | 'lowFret' | 'highFret'>,
  added: readonly AddedNote[],
): readonly AddedSpot[] {
  const notes = added.filter(({ above }) => degreeIndex(key, pitchClass(key.root) + above) < 0);
  const midis = spots.map((s) => s.midi);
  const [low, high] = [Math.min(...midis), Math.max(...midis)];
  const found = new Map<number, AddedSpot>();
  const look = (string: number, from: number, to: number): void => {
    for (let fret = from; fret <= to; fret++) {
      const midi = pitchAt(neck, string, fret);
      const note = notes.find((n) => classOf(key, n) === mod(midi, 12));
      if (note && midi > low && midi < high && !found.has(midi))
        found.set(midi, { string, fret, midi, degree: -1, added: note.passing ? 'passing' : 'rest' });
    }
  };
  for (const { string, frets } of groups) look(string, frets[0]!, frets.at(-1)!);
  for (const { string } of groups) look(string, lowFret, highFret);
  return [...found.values()].sort((a, b) => a.midi - b.midi);
}

/**
 * The notes of a position in the order of play with those that are added, each before the first one that lies above it.
 *
 * @example spotsWith(box.spots, addedSpots(neck, A, box, [{ above: 6, passing: true }])).length // 14
 */
export function spotsWith(
  spots: readonly PlacedSpot[],
  added: readonly AddedSpot[],
): readonly (PlacedSpot | AddedSpot)[] {
  const line: (PlacedSpot | AddedSpot)[] = [...spots];
  for (const spot of added) {
    const at = line.findIndex(({ midi }) => midi > spot.midi);
    line.splice(at < 0 ? line.length : at, 0, spot);
  }
  return line;
}

/**
 * The other places of the same pitch under the hand of a position.
 *
 * @example placesUnder(neck, box, { string: 3, fret: 8 }) // []
 */
export function placesUnder(
  neck: Neck,
  { lowFret, highFret, groups }: Pick<Position, 'lowFret' | 'highFret' | 'groups'>,
  place: Place,
): readonly Place[] {
  return unisons(neck, place.string, place.fret).filter(
    ({ string, fret }) =>
      fret >= lowFret && fret <= highFret && groups.some((group) => group.string === string),
  );
}
