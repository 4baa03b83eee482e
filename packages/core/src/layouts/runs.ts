import { type Neck, type Spot } from '../neck.ts';
import { ok, plural, refuse } from '../result.ts';
import { type Key } from '../scale.ts';
import { type Placement, type Placements } from './spec.ts';
import { DIAGONAL_REACH, notesOn, reachGroups, rise, walk, walksAlong } from './walk.ts';

const none = (what: string): Placements =>
  refuse(
    'layout.neck',
    `${what} does not fit anywhere on this neck: it would leave the first or the last fret.`,
  );

/** Only complete placements count; where there are none the neck is the reason. */
const fitting = (placements: readonly Placement[], what: string): Placements =>
  placements.length ? ok(placements) : none(what);

/** By count: a fixed number of notes on each string. */
export function byCount(neck: Neck, key: Key, counts: readonly number[]): Placements {
  if (!counts.length || counts.some((c) => !Number.isInteger(c) || c < 1 || c > 6))
    return refuse('layout.option', 'Write 1 to 6 notes for each string.');
  const take = (_: number, place: number): number => counts[Math.min(place, counts.length - 1)]!;
  return fitting(walksAlong(neck, key, take), `${counts.join(' ')} notes per string`);
}

/** By reach: as many notes as fit the reach, begun only on degrees whose groups recur. */
export function byReach(neck: Neck, key: Key, reach: number): Placements {
  if (!Number.isInteger(reach) || reach < 2 || reach > 6)
    return refuse('layout.option', 'The reach is 2 to 6 frets.');
  const { takes, cycles } = reachGroups(key.scale.steps, reach);
  const starts = new Set(cycles.flat());
  return fitting(
    walksAlong(neck, key, (d) => takes[d]!, starts),
    `Reach ${reach}`,
  );
}

/** Diagonal: reach 4 where two strings in turn hold exactly one octave of two and three notes. */
export function diagonal(neck: Neck, key: Key): Placements {
  const { steps } = key.scale;
  const { takes, cycles } = reachGroups(steps, DIAGONAL_REACH);
  const cycle = cycles.find(
    (c) => c.length === 2 && steps.length === 5 && [2, 3].every((size) => c.some((d) => takes[d] === size)),
  );
  if (!cycle)
    return refuse(
      'layout.scale',
      'The diagonal needs a scale whose octave falls into two notes and three, each within 4 frets; this one does not.',
    );
  return fitting(
    walksAlong(neck, key, (d) => takes[d]!, new Set(cycle)),
    'The diagonal',
  );
}

const octaveFrom = (key: Key, from: Spot): { midi: number; degree: number }[] =>
  rise(key, from, key.scale.steps.length + 1);

/** Single string: one octave on one string from each of its scale notes. */
export function singleString(neck: Neck, key: Key, string: number): Placements {
  if (!neck.rising.includes(string))
    return refuse('layout.option', `This instrument has no string ${string}.`);
  const placements = notesOn(neck, key, string)
    .filter((s) => s.fret + 12 <= neck.frets)
    .map((from) => ({
      spots: octaveFrom(key, from).map((n) => ({ ...n, string, fret: n.midi - neck.open[string - 1]! })),
    }));
  return fitting(placements, 'An octave on one string');
}

/** String pair: an octave, half of it on each of two strings that are neighbours in pitch. */
export function stringPair(neck: Neck, key: Key, lower: number): Placements {
  const at = neck.rising.indexOf(lower);
  const upper = neck.rising[at + 1];
  if (at < 0 || upper === undefined)
    return refuse('layout.option', `String ${lower} has no higher neighbour to pair with.`);
  const total = key.scale.steps.length + 1;
  const half = Math.ceil(total / 2);
  const placements = notesOn(neck, key, lower).flatMap((from) => {
    const spots = walk(neck, key, from, [lower, upper], (_, place) => (place ? total - half : half));
    return spots ? [{ spots }] : [];
  });
  return fitting(placements, `An octave on strings ${lower} and ${upper}`);
}

/**
 * Relay: the first notes of one position, then from one string back the same number of the next position up,
 * until the top string. Each leg spans m = notes / perString strings.
 */
export function relay(neck: Neck, key: Key, notes: number, perString: number): Placements {
  const strings = neck.rising.length;
  if (perString < 1 || perString > 6 || notes % perString !== 0)
    return refuse(
      'layout.option',
      `The notes of a leg are a multiple of the notes per string: ${perString}, ${2 * perString}, ${3 * perString} …`,
    );
  const span = notes / perString;
  if (span < 3 || span >= strings)
    return refuse(
      'layout.option',
      `A leg spans 3 to ${strings - 1} of the ${plural(strings, 'string')}: ${3 * perString} to ${(strings - 1) * perString} notes.`,
    );
  const firsts: number[] = [0];
  while (firsts.at(-1)! + span < strings) firsts.push(Math.min(firsts.at(-1)! + span - 2, strings - span));
  const take = (): number => perString;
  const placements = notesOn(neck, key, neck.rising[0]!).flatMap((from) => {
    const legs = firsts.map((first, leg) => {
      // The position `leg` steps up starts on the lowest string with the scale note `leg` degrees higher; its notes
      // on the leg's strings follow `first` strings of perString notes.
      const start = rise(key, from, leg + first * perString + 1).at(-1)!;
      return walk(neck, key, start, neck.rising.slice(first, first + span), take)?.map((s) => ({
        ...s,
        leg,
      }));
    });
    return legs.every((l) => l !== undefined) ? [{ spots: legs.flat() }] : [];
  });
  return fitting(placements, `A relay of ${notes} notes`);
}
