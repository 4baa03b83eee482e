import { type Neck } from '../neck.ts';
import { lazily } from '../lazily.ts';
import { type Fingering, fingers } from '../run/fingers.ts';
import { type HandOptions } from '../run/grips.ts';
import { type Direction } from '../run/route.ts';
import { presses, type Fingered, type Route, type RouteNote } from '../run/run.ts';

/**
 * What can be shown, practised, written, kept, printed and moved: notes with the fingers of each way through them. A finger
 * belongs to a visit, not to a place: where a line comes to a place again it may be taken by another one, and coming down is
 * fingered for itself, from where going up ends.
 */
export interface Source {
  /** The way up, in the order of play. */
  readonly up: Fingering;
  /** The way down, in the order of play; fingered when it is first asked for. */
  readonly down: () => Fingering;
}

const askedAs = ({ spot, finger, hand }: Fingered): RouteNote =>
  presses(finger) ? { ...spot, by: finger, hand } : spot;
/**
 * Notes that ask for the fingers which a fingering gives them, and for its places of the hand.
 *
 * @example asked(steps)[0].by // 1
 */
export const asked = (steps: readonly Fingered[]): Route => steps.map(askedAs);

/** Notes that are added and rested on, which have a way in. */
const hasWayIn = ({ added }: RouteNote): boolean => added === 'rest' || added === 'slid';
/**
 * A way down in which an added note keeps its way in: it is come to from the half step below on its string, which is struck first ("10, then 8 9, then on
 * down"; common practice, no source).
 */
function wayIn(down: Route): Route {
  const line = [...down];
  for (let i = 0; i + 1 < line.length; i++) {
    const [note, below] = [line[i]!, line[i + 1]!];
    if (!hasWayIn(note) || below.string !== note.string || note.fret - below.fret !== 1) continue;
    [line[i], line[i + 1]] = [below, note];
    i++;
  }
  return line;
}

/** The fingers of a line, in which notes that are slid to have the finger of the note below them. */
function fingersWithSlides(neck: Neck, line: Route, hand: HandOptions): Fingering {
  const found = fingers(neck, line, hand);
  const to = line.flatMap((note, i) => {
    const below = line[i - 1];
    return note.added === 'slid' && below?.string === note.string && note.fret - below.fret === 1 ? [i] : [];
  });
  if (!to.length) return found;
  const sliding = line.map(({ hand: at, ...note }, i) => {
    const slides = to.find((t) => t === i || t === i + 1);
    const by = slides === undefined ? undefined : found.steps[slides - 1]!.finger;
    // The hand goes along with the finger.
    return by ? { ...note, by } : { ...note, ...(at !== undefined && { hand: at }) };
  });
  return fingers(neck, sliding, hand);
}

/**
 * The notes of a way up in the order of coming down, the first one taken as the way up leaves it; notes that are added keep their way in.
 *
 * @example downFrom({ steps }).length // 12
 */
export function downFrom({ steps }: Pick<Fingering, 'steps'>): Route {
  const [top, ...rest] = [...steps].reverse();
  return top ? wayIn([askedAs(top), ...rest.map(({ spot }) => spot)]) : [];
}

/**
 * A source whose way up is fingered already.
 *
 * @example sourceFrom(neck, { steps, cost: 0, shifts: 0, stretches: 0 }, hand).down().steps.length // 12
 */
export const sourceFrom = (neck: Neck, up: Fingering, hand: HandOptions): Source => ({
  up,
  down: lazily(() => fingersWithSlides(neck, downFrom(up), hand)),
});

/**
 * A source of notes in the order of their way up.
 *
 * @example sourceOf(neck, box.spots, hand).down().steps[0].finger // 4
 */
export const sourceOf = (neck: Neck, notes: Route, hand: HandOptions): Source =>
  sourceFrom(neck, fingersWithSlides(neck, notes, hand), hand);

/**
 * The notes of a way through a source, asking for its fingers; the one on which it turns is struck once unless asked for twice.
 *
 * @example wayThrough(positionSource(neck, box, hand), 'both').length // 23
 */
export function wayThrough({ up, down }: Source, direction: Direction, topTwice = false): Route {
  if (direction === 'up') return asked(up.steps);
  if (direction === 'down') return asked(down().steps);
  return asked([...up.steps, ...down().steps.slice(topTwice ? 0 : 1)]);
}

/**
 * The notes of a source as a drill takes them: in the order of the way up, as they are taken going up and coming down.
 *
 * @example drillable(positionSource(neck, box, hand)).notes.length // 12
 */
export const drillable = ({ up, down }: Source): { readonly notes: Route; readonly back: Route } => ({
  notes: asked(up.steps),
  back: [...asked(down().steps)].reverse(),
});
