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
  /** One that is rested on is slid to from the half step below, and not hammered. */
  readonly slid?: boolean | undefined;
  /** Strings on which it would lie, and those on which its pitch is played instead where the hand reaches it there. */
  readonly moved?: readonly (readonly [from: number, to: number])[] | undefined;
}

/** Where a note of a position lies beside its scale. */
export interface AddedSpot extends PlacedSpot {
  readonly added: 'rest' | 'slid' | 'passing';
  /** The string on which it would lie, where it was moved. */
  readonly from?: number;
}

/**
 * How a note that is added is played.
 *
 * @example addedKind({ above: 4, passing: false }) // "rest"
 */
export const addedKind = ({ passing, slid }: AddedNote): AddedSpot['added'] =>
  passing ? 'passing' : slid ? 'slid' : 'rest';
/**
 * The pitch class of a note that is added to a key.
 *
 * @example classOfAdded(A, { above: 4, passing: false }) // 1
 */
export const classOfAdded = ({ root }: Key, { above }: AddedNote): PitchClass =>
  mod(pitchClass(root) + above, 12);

/**
 * Where the notes that are added to a scale lie in a position: each pitch between its lowest and its highest note once, on a string between two
 * notes of the position there, else where the hand reaches it between its frets; one that was moved lies on the other string where the hand reaches
 * it there. Notes that the scale has are none. Rising.
 *
 * @example addedSpots(neck, A, box, [{ above: 6, passing: true }]).map((s) => [s.string, s.fret]) // [[5,6],[3,8]]
 */
export function addedSpots(
  neck: Neck,
  key: Key,
  position: Pick<Position, 'spots' | 'groups' | 'lowFret' | 'highFret'>,
  added: readonly AddedNote[],
): readonly AddedSpot[] {
  const { spots, groups, lowFret, highFret } = position;
  const notes = added.filter(({ above }) => degreeIndex(key, pitchClass(key.root) + above) < 0);
  const midis = spots.map((s) => s.midi);
  const [low, high] = [Math.min(...midis), Math.max(...midis)];
  const found = new Map<number, AddedSpot>();
  const placed = ({ moved = [] }: AddedNote, place: Place): Pick<AddedSpot, 'string' | 'fret' | 'from'> => {
    const to = moved.find(([from]) => from === place.string)?.[1];
    const there = placesUnder(neck, position, place).find((p) => p.string === to);
    return there ? { string: there.string, fret: there.fret, from: place.string } : place;
  };
  const look = (string: number, from: number, to: number): void => {
    for (let fret = from; fret <= to; fret++) {
      const midi = pitchAt(neck, string, fret);
      const note = notes.find((n) => classOfAdded(key, n) === mod(midi, 12));
      if (note && midi > low && midi < high && !found.has(midi))
        found.set(midi, { ...placed(note, { string, fret }), midi, degree: -1, added: addedKind(note) });
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

/**
 * The string on which one key has a note played instead: the next one up on which its pitch lies under the hand, and from the last one back to the
 * first; null where there is no other.
 *
 * @example nextString(neck, box, { string: 3, fret: 8 }) // null
 */
export function nextString(
  neck: Neck,
  position: Pick<Position, 'lowFret' | 'highFret' | 'groups'>,
  place: Place,
): number | null {
  const at = (string: number): number => neck.rising.indexOf(string);
  const others = placesUnder(neck, position, place).map(({ string }) => string);
  return others.find((string) => at(string) > at(place.string)) ?? others[0] ?? null;
}
