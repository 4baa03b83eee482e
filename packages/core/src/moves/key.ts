import { noteName, pitchClass } from '../note.ts';
import { onNeck } from '../neck.ts';
import { type Place, placeId, type Spot } from '../place.ts';
import { mod } from '../arithmetic.ts';
import { ok } from '../result.ts';
import { chooseRoot } from '../root.ts';
import { type Key } from '../scale.ts';
import {
  defineMove,
  lostIn,
  type MovedSpot,
  type Moving,
  type Outcome,
  rootAfter,
  type Said,
  spotAt,
} from './move.ts';

/** How a key is moved. */
export interface KeyMove {
  /** Half steps, negative down. */
  readonly by: number;
  /** Which name a root gets where both are as easy to read. */
  readonly prefer: 'sharps' | 'flats';
  /** Single notes that fall off the neck are taken an octave away. */
  readonly octaves: boolean;
}

/** The octave in which a shape is moved so that all of it stays on the neck: as asked, else 12 frets away; null where neither holds it. */
function whole({ neck }: Moving, spots: readonly Place[], by: number): number | null {
  const fits = (k: number): boolean => spots.every((s) => onNeck(neck, s.string, s.fret + k));
  const near = by > 0 ? [by, by - 12, by - 24] : [by, by + 12, by + 24];
  return near.find(fits) ?? null;
}

/**
 * Everything so many frets along the neck. A shape that does not fit moves an octave further, whole; where it fits in neither
 * place, what falls off is named, and taken an octave away on request.
 *
 * @example noteName(toKey(moving, { by: 3, prefer: 'flats', octaves: false }).key.root) // "C"
 */
export function toKey(moving: Moving, { by, prefer, octaves }: KeyMove): Outcome {
  const { instrument, neck, key, layout, front } = moving;
  const { root } = chooseRoot(mod(pitchClass(key.root) + by, 12), key.scale, prefer);
  const name = noteName(root);
  const after: Key = mod(by, 12) === 0 || name === noteName(key.root) ? key : { root, scale: key.scale };
  const wrapped = whole(moving, front.held, by);
  const k = wrapped ?? by;
  const at = (s: Spot, more: number): Spot => ({
    ...spotAt(neck, after, { string: s.string, fret: s.fret + k + more }),
    degree: s.degree,
  });
  const stays = (s: Spot, more = 0): boolean => onNeck(neck, s.string, s.fret + k + more);
  const taken = new Set(front.held.filter((s) => stays(s)).map((s) => placeId(at(s, 0))));
  const away = (s: Spot): Spot | null => {
    const more = [-12, 12].find((m) => stays(s, m));
    const to = more === undefined ? null : at(s, more);
    return to && !taken.has(placeId(to)) ? to : null;
  };
  const spots = front.held.map((from): MovedSpot => ({
    from,
    to: stays(from) ? at(from, 0) : octaves ? away(from) : null,
  }));
  const carried = spots.flatMap(({ from, to }) =>
    from && to && to.fret - from.fret !== k ? [{ from, to }] : [],
  );
  const open = spots.flatMap(({ to }) => (to?.fret === 0 ? [to.string] : []));
  const says: Said[] = [
    { is: 'frets', by: k, wrapped: k !== by },
    ...lostIn(spots),
    ...(carried.length ? [{ is: 'octave', moved: carried } as const] : []),
    ...(open.length ? [{ is: 'open', strings: open } as const] : []),
  ];
  const wished = { string: moving.root.string, fret: moving.root.fret + k };
  return { instrument, key: after, root: rootAfter(neck, after, spots, wished), layout, spots, says };
}

/**
 * Half steps from a key's root to a place, such that a root of the position in front comes to lie there where one can.
 *
 * @example halfStepsTo(moving, { string: 6, fret: 8 }) // 3
 */
export function halfStepsTo({ neck, key, front }: Moving, to: Place): number {
  const pc = mod(neck.open[to.string - 1]! + to.fret - pitchClass(key.root), 12);
  const near = [pc, pc - 12];
  const held = near.find((by) =>
    front.held.some((s) => s.degree === 0 && s.string === to.string && s.fret + by === to.fret),
  );
  return held ?? (pc > 6 ? pc - 12 : pc);
}

/** The twelve keys in an order: half steps up from the present one, by fourths or by fifths. */
export type KeyOrder = 'halfSteps' | 'fourths' | 'fifths';
const STEP: Readonly<Record<KeyOrder, number>> = { halfSteps: 1, fourths: 5, fifths: 7 };

/**
 * Half steps from the present key to each of the twelve in an order, 0 to 11.
 *
 * @example keysInOrder('fifths').slice(0, 4) // [0,7,2,9]
 */
export const keysInOrder = (order: KeyOrder): readonly number[] =>
  Array.from({ length: 12 }, (_, i) => mod(i * STEP[order], 12));

/** Another key: everything so many half steps up or down. */
export const keyMove = defineMove<{ readonly by: number; readonly octaves: boolean }>({
  kind: 'key',
  name: 'Key',
  to: 'another key',
  asks: 'Choose another key, or go to it by steps: the neck shows before and after.',
  options: {
    by: { type: 'whole', min: -12, max: 12, label: 'Half steps, negative down', picks: 'key' },
    octaves: {
      type: 'switch',
      words: ['whole', 'octaves'],
      label: 'Take single notes that fall off an octave away',
    },
  },
  usual: () => ({ by: 0, octaves: false }),
  move: (moving, { by, octaves }, { prefer }) => (by ? ok(toKey(moving, { by, octaves, prefer })) : null),
});
