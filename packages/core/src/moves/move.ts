import { type Instrument } from '../instrument.ts';
import { type KindOf, type Spec } from '../kinds/spec.ts';
import { type LayoutSpec } from '../layouts/layout.ts';
import { type Neck, onNeck, pitchAt } from '../neck.ts';
import { type Place, placeId, type Spot } from '../place.ts';
import { type Position } from '../position.ts';
import { type Result } from '../result.ts';
import { degreeIndex, type Key } from '../scale.ts';
import { type Crossing } from '../tuning.ts';

/** What is moved: a position in a key on an instrument. */
export interface Moving {
  readonly instrument: Instrument;
  readonly neck: Neck;
  readonly key: Key;
  /** Where the root was put. */
  readonly root: Place;
  readonly layout: LayoutSpec;
  readonly front: Position;
}

/** A note and where it goes; from null: it was not there before, to null: it is there no more. */
export interface MovedSpot {
  readonly from: Spot | null;
  readonly to: Spot | null;
}

/** What a move does, as data: words are made of it where it is read. */
export type Said =
  /** Everything goes so many frets; `wrapped`: an octave from what was asked, so that the shape stays on the neck. */
  | { readonly is: 'frets'; readonly by: number; readonly wrapped: boolean }
  | { readonly is: 'lost'; readonly spots: readonly Spot[] }
  /** What falls off, taken an octave away. */
  | { readonly is: 'octave'; readonly moved: readonly { readonly from: Spot; readonly to: Place }[] }
  /** Notes that lie on open strings now. */
  | { readonly is: 'open'; readonly strings: readonly number[] }
  /** A string moves by so many frets against the root's string, because of those neighbours that are not a fourth apart. */
  | { readonly is: 'jog'; readonly string: number; readonly by: number; readonly jogs: readonly Crossing[] }
  /** A note whose string there is not: it can be taken at another place, or at none within the hand. */
  | { readonly is: 'off'; readonly spot: Spot; readonly instead: Place | null }
  /** A string that was retuned by so many half steps, whose marks move by so many frets. */
  | { readonly is: 'retuned'; readonly string: number; readonly halfSteps: number; readonly marks: number }
  /** A string that the hand at a fret no longer covers, by so many frets and mm. */
  | {
      readonly is: 'beyond';
      readonly string: number;
      readonly hand: number;
      readonly frets: number;
      readonly mm: number;
    }
  /** A scale that the notes make now, and where its root is; `kept`: the chart goes on in it. Null where they make none of the catalogue. */
  | { readonly is: 'scale'; readonly key: Key | null; readonly root: Place; readonly kept: boolean }
  /** Degree by degree what another mode changes, in half steps. */
  | { readonly is: 'degrees'; readonly changed: readonly { readonly degree: number; readonly by: number }[] }
  /** Where the capo lies, and the key that the shape has counted from it. */
  | { readonly is: 'capo'; readonly at: number; readonly shape: Key };

/** What a move comes to. */
export interface Outcome {
  readonly instrument: Instrument;
  readonly key: Key;
  readonly root: Place;
  readonly layout: LayoutSpec;
  readonly spots: readonly MovedSpot[];
  readonly says: readonly Said[];
}

/** What a move is asked for with beside its own options. */
export interface Wishes {
  /** Which name a root gets where both are as easy to read. */
  readonly prefer: 'sharps' | 'flats';
  /** The instrument that a word of an `instrument` picker names; null where it names none. */
  readonly instrument: (word: string) => Instrument | null;
}

/** A way to move a position into another key, to other strings or another instrument, with everything that the rest of the application needs to know of it. */
export interface MoveOf<O> extends KindOf<O> {
  /** Where it leads, after “move it to”: "another key". */
  readonly to: string;
  /** What is said while nothing is asked for. */
  readonly asks: string;
  /** What it is set to at first, which asks for nothing yet. */
  readonly usual: (moving: Moving) => O;
  /** What it comes to; null where nothing is asked for. */
  readonly move: (moving: Moving, options: O, wishes: Wishes) => Result<Outcome> | null;
  /** What it comes to in words, a sentence each; as `sayings` where this is left out. */
  readonly says?: (outcome: Outcome, moving: Moving) => readonly string[];
  /** What one choice comes to in a word or two, where a form lists them all. */
  readonly brief?: (outcome: Result<Outcome>) => string;
}

/** A move with its options, as an address keeps it. */
export type MoveSpec = Spec;
/** A move whose options are known by its own file alone. */
export type AnyMove = MoveOf<MoveSpec>;
/**
 * Takes a move's own options out of the sight of everybody else.
 *
 * @example defineMove(MOVES.of('key')).kind // "key"
 */
export const defineMove = <O>(move: MoveOf<O>): AnyMove => move as unknown as AnyMove;

/**
 * The notes that are there no more, as what is said of them; nothing where all are.
 *
 * @example lostIn([{ from: box.spots[0], to: null }]).length // 1
 */
export function lostIn(spots: readonly MovedSpot[]): readonly Said[] {
  const lost = spots.flatMap(({ from, to }) => (from && !to ? [from] : []));
  return lost.length ? [{ is: 'lost', spots: lost }] : [];
}

/**
 * A place as a spot of a key.
 *
 * @example spotAt(neck, A, { string: 6, fret: 5 }) // {"string":6,"fret":5,"midi":45,"degree":0}
 */
export const spotAt = (neck: Neck, key: Key, { string, fret }: Place): Spot => {
  const midi = pitchAt(neck, string, fret);
  return { string, fret, midi, degree: degreeIndex(key, midi) };
};

/**
 * A place as a spot of a key, null where it lies off the neck.
 *
 * @example spotOnNeck(neck, A, { string: 6, fret: 99 }) // null
 */
export const spotOnNeck = (neck: Neck, key: Key, place: Place): Spot | null =>
  onNeck(neck, place.string, place.fret) ? spotAt(neck, key, place) : null;

/**
 * The place of the root after a move: the root among the notes moved that came from where it was, or lies nearest to it.
 *
 * @example rootAfter(neck, A, [], { string: 6, fret: 5 }) // {"string":6,"fret":5}
 */
export function rootAfter(neck: Neck, key: Key, spots: readonly MovedSpot[], wished: Place): Place {
  const string = Math.min(wished.string, neck.open.length);
  if (onNeck(neck, string, wished.fret) && spotAt(neck, key, { string, fret: wished.fret }).degree === 0)
    return { string, fret: wished.fret };
  const roots: Place[] = rootsAmong(spots);
  for (let s = 1; s <= neck.open.length; s++)
    for (let fret = 0; fret <= neck.frets; fret++)
      if (!roots.length || s === string) {
        const spot = spotAt(neck, key, { string: s, fret });
        if (spot.degree === 0) roots.push(spot);
      }
  return nearestTo(roots, { string, fret: wished.fret })!;
}

/**
 * The roots among notes moved.
 *
 * @example rootsAmong(box.spots.map((to) => ({ from: null, to }))).length // 3
 */
export const rootsAmong = (spots: readonly MovedSpot[]): Place[] =>
  spots.flatMap(({ to }) => (to?.degree === 0 ? [to] : []));

/**
 * The place that lies nearest to another one; undefined of none.
 *
 * @example nearestTo([{ string: 6, fret: 5 }, { string: 4, fret: 7 }], { string: 5, fret: 7 }) // {"string":4,"fret":7}
 */
export function nearestTo(places: readonly Place[], { string, fret }: Place): Place | undefined {
  const far = (p: Place): number => Math.abs(p.fret - fret) + 3 * Math.abs(p.string - string);
  const [nearest] = [...places].sort((a, b) => far(a) - far(b));
  return nearest && { string: nearest.string, fret: nearest.fret };
}

/**
 * The position that holds most of the notes moved, with the fewest others; null where none holds any.
 *
 * @example frontAfter(boxes, box.spots.map((to) => ({ from: null, to })))?.lowFret // 5
 */
export function frontAfter(positions: readonly Position[], spots: readonly MovedSpot[]): Position | null {
  const ids = new Set(spots.flatMap(({ to }) => (to ? [placeId(to)] : [])));
  const shared = (p: Position): number => new Set(p.held.map(placeId).filter((id) => ids.has(id))).size;
  const [best] = positions
    .map((position) => ({ position, shared: shared(position) }))
    .sort((a, b) => b.shared - a.shared || a.position.spots.length - b.position.spots.length);
  return best && best.shared > 0 ? best.position : null;
}
