import { degreeNames } from '../scale.ts';
import { neckOf } from '../neck.ts';
import { noteName, pretty } from '../note.ts';
import { type Spot } from '../place.ts';
import { capital, list, plural } from '../words.ts';
import { rootSpots } from '../ladder/anchors.ts';
import { keySaid, spotSaid } from '../said.ts';
import { type Crossing, intervalName } from '../tuning.ts';
import { type MovedSpot, type Moving, type Outcome, type Said } from './move.ts';

const places = (spots: readonly Spot[]): string => list(spots.map(spotSaid));
/**
 * So many frets along the neck.
 *
 * @example fretsMoved(-2) // "2 frets down"
 */
export const fretsMoved = (by: number): string => `${plural(Math.abs(by), 'fret')} ${by > 0 ? 'up' : 'down'}`;
const crossing = ({ from, to, interval }: Crossing): string =>
  `strings ${from} and ${to} are a ${intervalName(interval)} apart`;

/**
 * What a string is moved by, and why.
 *
 * @example jogSaid(2, 1, []) // "String 2 moves 1 fret up."
 */
export const jogSaid = (string: number, by: number, jogs: readonly Crossing[]): string =>
  `String ${string} moves ${fretsMoved(by)}${jogs.length ? `, because ${list(jogs.map(crossing))}` : ''}.`;

/** What a move does, in a sentence each. */
function said(it: Said, outcome: Outcome, before: Moving): string | null {
  switch (it.is) {
    case 'frets':
      if (it.by === 0) return null;
      return it.wrapped
        ? `All of it goes ${fretsMoved(it.by)}, an octave from where it would leave the neck.`
        : `Everything goes ${fretsMoved(it.by)}.`;
    case 'lost':
      return `${places(it.spots)} ${it.spots.length === 1 ? 'falls' : 'fall'} off: there is no place for ${it.spots.length === 1 ? 'it' : 'them'}.`;
    case 'octave':
      return it.moved
        .map(({ from, to }) => `${spotSaid(from)} leaves the neck and comes back at fret ${to.fret}`)
        .join('; ')
        .concat('.');
    case 'open':
      return `Open ${it.strings.length === 1 ? 'string' : 'strings'} now: ${list([...new Set(it.strings)])}.`;
    case 'jog':
      return jogSaid(it.string, it.by, it.jogs);
    case 'off':
      // Those without another place are said together.
      return (
        it.instead &&
        `The note of ${spotSaid(it.spot)} has no string there: take it on ${spotSaid(it.instead)}.`
      );
    case 'retuned':
      return `String ${it.string} is tuned ${plural(Math.abs(it.halfSteps), 'half step')} ${it.halfSteps > 0 ? 'up' : 'down'}${it.marks ? `, so its marks move ${fretsMoved(it.marks)}` : ''}.`;
    case 'beyond':
      return `The hand at fret ${it.hand} no longer covers string ${it.string}: ${plural(it.frets, 'fret')} too far, ${Math.round(it.mm)} mm.`;
    case 'scale':
      return it.key
        ? `${it.kept ? 'The notes make' : 'Seen from where the root was, they make'} ${keySaid(it.key)}, its root on ${spotSaid(it.root)}.`
        : `The notes make no scale of the catalogue over ${pretty(noteName(outcome.key.root))}.`;
    case 'degrees': {
      const names =
        before.key.scale.degrees.length === outcome.key.scale.degrees.length
          ? degreeNames(outcome.key.scale)
          : [];
      const was = degreeNames(before.key.scale);
      return it.changed.length
        ? `Changed: ${list(it.changed.map(({ degree }) => `${pretty(was[degree]!)} to ${pretty(names[degree] ?? '')}`))}.`
        : 'It is the same mode.';
    }
    case 'capo':
      return it.at === 0
        ? `Without a capo the grip sounds ${keySaid(outcome.key)}.`
        : `With the capo at fret ${it.at} the grip stays: counted from the capo it is a shape of ${keySaid(it.shape)}, and it sounds ${keySaid(outcome.key)}.`;
  }
}

/**
 * What a move does, a sentence each; the notes that have no place left come last, together.
 *
 * @example sayings(toKey(moving, { by: 3, prefer: 'flats', octaves: false }), moving) // ["Everything goes 3 frets up."]
 */
export function sayings(outcome: Outcome, before: Moving): readonly string[] {
  const texts = outcome.says.flatMap((it) => said(it, outcome, before) ?? []);
  const gone = outcome.says.flatMap((it) => (it.is === 'off' && !it.instead ? [it.spot] : []));
  if (gone.length)
    texts.push(
      `No string and no place under the hand is left for ${plural(gone.length, 'note')}: ${places(gone)}.`,
    );
  return texts.map(capital);
}

/**
 * Where the roots of what was moved lie now.
 *
 * @example rootsSaid([]) // "It holds no root."
 */
export const rootsSaid = (spots: readonly MovedSpot[]): string => {
  const roots = spots.flatMap(({ to }) => (to?.degree === 0 ? [spotSaid(to)] : []));
  return roots.length ? `Its root lies on ${list([...new Set(roots)])}.` : 'It holds no root.';
};

/**
 * Where the roots of a key lie on each string, from the lowest: "string 6: 8 and 20".
 *
 * @example rootsByString(toKey(moving, { by: 3, prefer: 'flats', octaves: false }))[0] // "string 6: 8 and 20"
 */
export const rootsByString = ({ instrument, key }: Outcome): readonly string[] => {
  const neck = neckOf(instrument);
  const roots = rootSpots(neck, key);
  return neck.rising.map((string) => {
    const frets = roots.filter((r) => r.string === string).map((r) => (r.fret === 0 ? 'open' : r.fret));
    return `string ${string}: ${list(frets)}`;
  });
};
