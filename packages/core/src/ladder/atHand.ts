import { type Neck, onNeck } from '../neck.ts';
import { type Place, placeId, type Spot } from '../place.ts';
import { type Position } from '../position.ts';
import { ok, refuse, type Result } from '../result.ts';
import { nearestRoot } from './anchors.ts';

/** Where a hand is: the frets and strings that it covers, or the very places that it presses. */
export interface Hand {
  /** Lowest and highest fret. */
  readonly frets: readonly [number, number];
  /** Lowest and highest string number. */
  readonly strings: readonly [number, number];
  /** The places of a chord that is held; null where the hand covers all places between its frets and strings. */
  readonly held: readonly Place[] | null;
}

/** A position seen from where the hand is. */
export interface AtHand {
  readonly position: Position;
  /** Its spots that lie under the hand. */
  readonly shared: readonly Spot[];
  /** Frets that the index finger moves to get there; negative towards the nut. */
  readonly move: number;
  /** Its root under the hand, else the one that lies nearest to the middle of it; null where it holds none. */
  readonly root: Spot | null;
}

const within = (n: number, [low, high]: readonly [number, number]): boolean => n >= low && n <= high;

/**
 * Whether a place lies under a hand: is pressed by its chord, or lies between its frets and strings.
 *
 * @example underHand({ frets: [5, 7], strings: [1, 5], held: null })({ string: 6, fret: 5 }) // false
 */
export function underHand({ frets, strings, held }: Hand): (place: Place) => boolean {
  const pressed = held && new Set(held.map(placeId));
  return (p) => (pressed ? pressed.has(placeId(p)) : within(p.string, strings) && within(p.fret, frets));
}

/**
 * The positions from where the hand is: those that overlap it first, by how little the hand moves, then by what they share.
 *
 * @example fromHand(boxes, { frets: [5, 7], strings: [1, 5], held: null })[0].position.lowFret // 5
 */
export function fromHand(positions: readonly Position[], hand: Hand): readonly AtHand[] {
  const { frets, strings } = hand;
  const under = underHand(hand);
  const covered = underHand({ ...hand, held: null });
  const middle = {
    string: Math.round((strings[0] + strings[1]) / 2),
    fret: Math.round((frets[0] + frets[1]) / 2),
  };
  return positions
    .map((position): AtHand => {
      const shared = [...new Map(position.held.filter(under).map((s) => [placeId(s), s])).values()];
      // The index finger goes to the lowest fret that the position has on the strings of the hand.
      const here = position.held.filter((s) => within(s.string, strings)).map((s) => s.fret);
      const low = here.length ? Math.min(...here) : position.lowFret;
      return {
        position,
        shared,
        move: low - frets[0],
        root: nearestRoot(position, middle, (p) => (under(p) ? 0 : covered(p) ? 1 : 2)),
      };
    })
    .sort(
      (a, b) =>
        Number(b.shared.length > 0) - Number(a.shared.length > 0) ||
        Math.abs(a.move) - Math.abs(b.move) ||
        b.shared.length - a.shared.length ||
        a.position.index - b.position.index,
    );
}

/**
 * A chord as players write it: a fret for each string from the lowest, x where a string is not played ("x 7 7 5 5 5",
 * "x32010"). Codes: `grip.count`, `grip.fret`, `grip.empty`.
 *
 * @example parseGrip('x32010', neck).value?.frets // [1,3]
 */
export function parseGrip(text: string, neck: Neck): Result<Hand> {
  const strings = neck.open.length;
  const trimmed = text.trim();
  const parts = /[\s.,/-]/.test(trimmed) ? trimmed.split(/[\s.,/-]+/).filter(Boolean) : [...trimmed];
  if (parts.length !== strings)
    return refuse(
      'grip.count',
      `A chord here has ${strings} frets, one a string from the lowest, with x for a string that is not played; this has ${parts.length}.`,
    );
  const held: Place[] = [];
  for (const [i, part] of parts.entries()) {
    if (/^x$/i.test(part)) continue;
    const place = { string: strings - i, fret: Number(part) };
    if (!/^\d+$/.test(part) || !onNeck(neck, place.string, place.fret))
      return refuse('grip.fret', `“${part}” is no fret of this neck: write 0 to ${neck.frets}, or x.`);
    held.push(place);
  }
  if (!held.length) return refuse('grip.empty', 'This chord has no note: write at least one fret.');
  // Open strings need no hand, so the hand is where the others are pressed.
  const pressed = held.filter((p) => p.fret > 0).map((p) => p.fret);
  const frets = pressed.length ? pressed : [0];
  const on = held.map((p) => p.string);
  return ok({
    frets: [Math.min(...frets), Math.max(...frets)],
    strings: [Math.min(...on), Math.max(...on)],
    held,
  });
}
