import { stringOption } from '../kinds/option.ts';
import { onNeck, nearestFret, type Neck, pitchAt, unisons } from '../neck.ts';
import { pitchClass } from '../note.ts';
import { type Place, type Spot } from '../place.ts';
import { mod } from '../arithmetic.ts';
import { ok, refuse, type Result } from '../result.ts';
import { chooseRoot } from '../root.ts';
import { type Key } from '../scale.ts';
import { type Crossing } from '../tuning.ts';
import { defineMove, type MovedSpot, type Moving, type Outcome, type Said, spotAt } from './move.ts';

/** How a shape is put on other strings. */
export interface StringMove {
  /** The string of the root afterwards. */
  readonly string: number;
  /** The key stays and the shape moves along the neck; else the root stays at its fret and the key moves. */
  readonly keepKey: boolean;
  readonly prefer: 'sharps' | 'flats';
}

/**
 * Neighbouring strings of a neck in rising order of pitch, with the jog between them, from one place in that order to another.
 *
 * @example jogsBetween(neck, 3, 4).map((c) => c.jog) // [1]
 */
export function jogsBetween({ rising, open }: Neck, from: number, to: number): readonly Crossing[] {
  const [a, b] = from < to ? [from, to] : [to, from];
  return Array.from({ length: b - a }, (_, i): Crossing => {
    const [low, high] = [rising[a + i]!, rising[a + i + 1]!];
    const interval = open[high - 1]! - open[low - 1]!;
    return { from: low, to: high, interval, jog: 5 - interval };
  });
}
/**
 * Frets that a string is moved by against another one: the sum of the jogs on the way up, with the sign turned on the way down.
 *
 * @example jogSum(neck, 0, 5) // 1
 */
export const jogSum = (neck: Neck, from: number, to: number): number =>
  (from < to ? 1 : -1) * jogsBetween(neck, from, to).reduce((sum, c) => sum + c.jog, 0) || 0;

/**
 * The same shape from a root on another string: it keeps its frets except where it crosses another jog. A note whose string
 * there is not falls off; where its pitch lies within the hand on another string, that is named. Code `move.string` where no
 * root of the position is known or its string is the same.
 *
 * @example toStrings(moving, { string: 5, keepKey: true, prefer: 'flats' }).value?.root // {"string":5,"fret":0}
 */
export function toStrings(moving: Moving, { string, keepKey, prefer }: StringMove): Result<Outcome> {
  const { instrument, neck, key, root, layout, front } = moving;
  const [was, now] = [neck.rising.indexOf(root.string), neck.rising.indexOf(string)];
  if (now < 0 || now === was)
    return refuse('move.string', `The root is on string ${root.string} already: choose another string.`);
  /** Half steps that the shape goes with its root at a fret of the other string, and where a note of it comes to lie; null off the neck. */
  const up = (fret: number): number => pitchAt(neck, string, fret) - pitchAt(neck, root.string, root.fret);
  const placeOf = ({ string: from, midi }: Spot, by: number): Place | null => {
    const on = neck.rising[neck.rising.indexOf(from) + now - was];
    const to = on === undefined ? null : { string: on, fret: midi + by - neck.open[on - 1]! };
    return to && onNeck(neck, to.string, to.fret) ? to : null;
  };
  const nearest = nearestFret(neck, string, pitchClass(key.root), root.fret);
  /** With the key kept the shape goes to the octave in which most of it stays, of equals to the nearest. */
  const whole = (): number => {
    const lowest = nearest % 12;
    const octaves = Array.from(
      { length: Math.floor((neck.frets - lowest) / 12) + 1 },
      (_, i) => lowest + 12 * i,
    );
    const gone = (fret: number): number => front.held.filter((s) => !placeOf(s, up(fret))).length;
    const far = (fret: number): number => Math.abs(fret - nearest);
    return octaves.sort((a, b) => gone(a) - gone(b) || far(a) - far(b))[0]!;
  };
  const fret = keepKey ? whole() : root.fret;
  const moved = pitchAt(neck, string, fret);
  const after: Key = keepKey
    ? key
    : { root: chooseRoot(mod(moved, 12), key.scale, prefer).root, scale: key.scale };
  const by = up(fret);
  const off: Said[] = [];
  const shifts = new Map<number, number>();
  const spots = front.held.map((from): MovedSpot => {
    const to = placeOf(from, by);
    if (to) {
      shifts.set(to.string, to.fret - from.fret - (fret - root.fret));
      return { from, to: { ...spotAt(neck, after, to), degree: from.degree } };
    }
    off.push({ is: 'off', spot: from, instead: inHand(moving, from, from.midi + by, fret - root.fret) });
    return { from, to: null };
  });
  const says: Said[] = [
    { is: 'frets', by: fret - root.fret, wrapped: keepKey && fret !== nearest },
    ...[...shifts]
      .filter(([, frets]) => frets !== 0)
      .map(([on, frets]): Said => ({
        is: 'jog',
        string: on,
        by: frets,
        jogs: because(neck, now, neck.rising.indexOf(on), was),
      })),
    ...off,
  ];
  return ok({ instrument, key: after, root: { string, fret }, layout, spots, says });
}

/** Where a pitch lies within a hand that moved, on whichever string; null where it does not. */
function inHand({ neck, front }: Moving, spot: Spot, midi: number, by: number): Place | null {
  const [low, high] = [front.lowFret + by, front.highFret + by];
  const places = [
    ...unisons(neck, spot.string, midi - neck.open[spot.string - 1]!),
    { string: spot.string, fret: midi - neck.open[spot.string - 1]! },
  ].filter((p) => onNeck(neck, p.string, p.fret));
  return places.find((p) => p.fret >= low && p.fret <= high) ?? null;
}

/** The crossings in which two sets of strings differ, on the way from the root's string to another one. */
function because(neck: Neck, root: number, to: number, before: number): readonly Crossing[] {
  const here = jogsBetween(neck, root, to);
  const there = jogsBetween(neck, before, before + to - root);
  return here.filter((c, i) => c.interval !== there[i]?.interval);
}

/** The same shape from a root on another string. */
export const stringMove = defineMove<{ readonly string: number; readonly keepKey: boolean }>({
  kind: 'strings',
  name: 'Other strings',
  to: 'other strings',
  asks: 'Choose the string that the root goes to: the frets stay, but for the jogs that are crossed.',
  options: {
    string: { ...stringOption('The root’s string'), picks: 'string' },
    keepKey: {
      type: 'switch',
      words: ['move', 'keep'],
      label: 'Keep the key: the shape goes along the neck until its root is the same note',
    },
  },
  usual: ({ root }) => ({ string: root.string, keepKey: false }),
  move: (moving, { string, keepKey }, { prefer }) =>
    string === moving.root.string || string > moving.neck.open.length
      ? null
      : toStrings(moving, { string, keepKey, prefer }),
});
