import { mod } from '../arithmetic.ts';
import { type Neck, pitchAt } from '../neck.ts';
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

/** What of a position says where added notes lie. */
type Shaped = Pick<Position, 'spots' | 'groups' | 'highFret'>;
/** Frets that four fingers cover, one a fret. */
const FINGERS = 4;

/**
 * The frets between which a hand lies that plays a pitch of a position: those of the strings of the notes below and above it, and of its own the frets
 * that four fingers cover from the lowest of them.
 *
 * @example handAround(box, 51) // [5,8]
 */
export function handAround(
  { spots, groups, highFret }: Shaped,
  midi: number,
): readonly [low: number, high: number] {
  const near = (among: readonly PlacedSpot[]): PlacedSpot | undefined =>
    among.reduce<PlacedSpot | undefined>(
      (a, b) => (a && Math.abs(a.midi - midi) <= Math.abs(b.midi - midi) ? a : b),
      undefined,
    );
  const beside = [near(spots.filter((s) => s.midi <= midi)), near(spots.filter((s) => s.midi > midi))];
  const frets = groups.flatMap((g) => (beside.some((s) => s?.string === g.string) ? g.frets : []));
  const low = Math.min(...frets);
  return [low, Math.max(...frets, Math.min(low + FINGERS - 1, highFret))];
}

/**
 * Where the notes that are added to a scale lie in a position: each pitch between its lowest and its highest note once, on a string between two
 * notes of the position there, else where the hand reaches it that plays the notes beside it, nearest to the notes of its string; one that was moved
 * lies on the other string where the hand reaches it there. Notes that the scale has are none. Rising.
 *
 * @example addedSpots(neck, A, box, [{ above: 6, passing: true }]).map((s) => [s.string, s.fret]) // [[5,6],[3,8]]
 */
export function addedSpots(
  neck: Neck,
  key: Key,
  position: Shaped,
  added: readonly AddedNote[],
): readonly AddedSpot[] {
  const notes = added.filter(({ above }) => degreeIndex(key, pitchClass(key.root) + above) < 0);
  const midis = position.spots.map((s) => s.midi);
  const [low, high] = [Math.min(...midis), Math.max(...midis)];
  return Array.from({ length: Math.max(0, high - low - 1) }, (_, i) => low + 1 + i).flatMap(
    (midi): AddedSpot[] => {
      const note = notes.find((n) => classOfAdded(key, n) === mod(midi, 12));
      const [home, ...others] = note ? placesOf(neck, position, midi) : [];
      if (!note || !home) return [];
      const to = note.moved?.find(([from]) => from === home.string)?.[1];
      const there = others.find((p) => p.string === to);
      const spot = { midi, degree: -1, added: addedKind(note) };
      return [there ? { ...there, from: home.string, ...spot } : { ...home, ...spot }];
    },
  );
}

/** Places of a pitch under the hand of a position, those first that lie between the notes of their string, then those nearest to them. */
function placesOf(neck: Neck, position: Shaped, midi: number): readonly Place[] {
  const [low, high] = handAround(position, midi);
  return position.groups
    .map(({ string, frets }) => {
      const fret = midi - neck.open[string - 1]!;
      return { string, fret, outside: Math.max(frets[0]! - fret, fret - frets.at(-1)!, 0) };
    })
    .filter(({ fret, outside }) => outside === 0 || (fret >= low && fret <= high))
    .sort((a, b) => a.outside - b.outside)
    .map(({ string, fret }) => ({ string, fret }));
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
 * The other places of the same pitch under the hand of a position, in rising order of strings.
 *
 * @example placesUnder(neck, box, { string: 3, fret: 8 }) // []
 */
export function placesUnder(neck: Neck, position: Shaped, place: Place): readonly Place[] {
  const at = ({ string }: Place): number => neck.rising.indexOf(string);
  return placesOf(neck, position, pitchAt(neck, place.string, place.fret))
    .filter(({ string }) => string !== place.string)
    .sort((a, b) => at(a) - at(b));
}

/**
 * The string on which one key has a note played instead: the next one up on which its pitch lies under the hand, and from the last one back to the
 * first; null where there is no other.
 *
 * @example nextString(neck, box, { string: 3, fret: 8 }) // null
 */
export function nextString(neck: Neck, position: Shaped, place: Place): number | null {
  const at = (string: number): number => neck.rising.indexOf(string);
  const others = placesUnder(neck, position, place).map(({ string }) => string);
  return others.find((string) => at(string) > at(place.string)) ?? others[0] ?? null;
}
