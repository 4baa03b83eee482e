import { type Note, pitchClass } from '../note.ts';
import { modeOn, scalesWithOffsets } from '../naming.ts';
import { ownScale, scaleFromToggles, spellOffsets } from '../ownScale.ts';
import { placeId } from '../place.ts';
import { mod } from '../arithmetic.ts';
import { ok } from '../result.ts';
import { chooseRoot } from '../root.ts';
import { type Key, rotate, type Scale, spellScale } from '../scale.ts';
import {
  defineMove,
  lostIn,
  type MovedSpot,
  type Moving,
  type Outcome,
  rootAfter,
  spotAt,
  spotOnNeck,
} from './move.ts';

/** The scale that starts on a degree of another one, by its name or spelled where it has none. */
const modeFrom = (scale: Scale, degree: number): Scale =>
  degree === 0 ? scale : (modeOn(scale, degree) ?? ownScale(spellOffsets(rotate(scale.offsets, degree))));

/**
 * Same notes, another root: the mode on every degree, in order from the root.
 *
 * @example relativeKeys(A).map((k) => noteName(k.root)) // ["A","C","D","E","G"]
 */
export function relativeKeys(key: Key): readonly Key[] {
  const notes = spellScale(key);
  return key.scale.degrees.map((_, degree) => {
    const scale = modeFrom(key.scale, degree);
    const named = notes[degree]!;
    // A root that needs double signs is written the easier way.
    const root: Note = Math.abs(named.alteration) > 1 ? chooseRoot(pitchClass(named), scale).root : named;
    return { root, scale };
  });
}

/**
 * Same root, other notes: every mode of the scale's family on it, from the brightest to the darkest.
 *
 * @example parallelKeys({ root: A.root, scale: scaleById('major') }).map((k) => k.scale.id) // ["lydian","major","mixolydian","dorian","natural-minor","phrygian","locrian"]
 */
export function parallelKeys(key: Key): readonly Key[] {
  const scales = key.scale.degrees.map((_, degree) => modeFrom(key.scale, degree));
  const once = scales.filter((s, i) => scales.findIndex((o) => o.id === s.id) === i);
  return once.sort((a, b) => brightness(b) - brightness(a)).map((scale) => ({ root: key.root, scale }));
}

/** Fifths from the root to the degrees of the major scale. */
const FIFTHS = [0, 2, 4, -1, 1, 3, 5] as const;
/**
 * How bright a scale is: the fifths from its root to each of its notes, upward ones less downward ones, as the usual order of the modes
 * from Lydian to Locrian goes (common practice, no source). Half steps would put the minor pentatonic above the major one.
 *
 * @example brightness(scaleById('lydian')) // 21
 */
export const brightness = ({ degrees }: Pick<Scale, 'degrees'>): number =>
  degrees.reduce((sum, { number, alteration }) => sum + FIFTHS[number - 1]! + 7 * alteration, 0);

/**
 * Another root over the same notes: every spot stays and gets another degree.
 *
 * @example toRelative(moving, relativeKeys(A)[1]).root // {"string":6,"fret":8}
 */
export function toRelative({ instrument, neck, root, layout, front }: Moving, key: Key): Outcome {
  const spots = front.held.map((from): MovedSpot => ({ from, to: spotAt(neck, key, from) }));
  return {
    instrument,
    key,
    root: rootAfter(neck, key, spots, root),
    layout,
    spots,
    says: [{ is: 'frets', by: 0, wrapped: false }],
  };
}

/**
 * Another mode on the same root: every degree goes to the same number of the new mode, on its string.
 *
 * @example toParallel(moving, { root: A.root, scale: scaleById('major-pentatonic') }).spots.length // 12
 */
export function toParallel(
  { instrument, neck, key: before, root, layout, front }: Moving,
  key: Key,
): Outcome {
  const by = before.scale.offsets.map((o, d) => {
    const to = key.scale.offsets[d];
    return to === undefined ? null : to - o;
  });
  const spots = front.held.map((from): MovedSpot => {
    const step = by[from.degree];
    return {
      from,
      to:
        step === null || step === undefined
          ? null
          : spotOnNeck(neck, key, { ...from, fret: from.fret + step }),
    };
  });
  const changed = by.flatMap((step, degree) => (step ? [{ degree, by: step }] : []));
  return {
    instrument,
    key,
    root,
    layout,
    spots: unique(spots),
    says: [{ is: 'degrees', changed }, ...lostIn(spots)],
  };
}

/** Two notes that come to lie on one place are one note there. */
function unique(spots: readonly MovedSpot[]): readonly MovedSpot[] {
  const taken = new Set<number>();
  return spots.map((s) => {
    if (!s.to || !taken.has(placeId(s.to))) {
      if (s.to) taken.add(placeId(s.to));
      return s;
    }
    return { from: s.from, to: null };
  });
}

/** Half steps above a root at which pitches lie, rising, each once. */
const offsetsOver = (root: Note, pitches: Iterable<number>): readonly number[] =>
  [...new Set([...pitches].map((p) => mod(p - pitchClass(root), 12)))].sort((a, b) => a - b);

/**
 * The name of a set of pitches over a root: a key of the catalogue, or null where they make none of it.
 *
 * @example keyOf(note('A'), [45, 48, 50, 52, 55])?.scale.id // "minor-pentatonic"
 */
export function keyOf(root: Note, pitches: Iterable<number>): Key | null {
  const scale = scalesWithOffsets(offsetsOver(root, pitches))[0];
  return scale ? { root, scale } : null;
}

/**
 * A scale of its own from a root and pitches, spelled degree by degree; null where there are fewer than three notes.
 *
 * @example ownKeyOf(note('A'), [45, 49, 52])?.scale.id // "own:1,3,5"
 */
export function ownKeyOf(root: Note, pitches: Iterable<number>): Key | null {
  const made = scaleFromToggles(offsetsOver(root, pitches));
  return made.ok ? { root, scale: made.value } : null;
}

/** Which modes a list holds: those over the same notes, or those on the same root. */
export const MODE_LISTS = [
  { id: 'n', name: 'Same notes, another root', keys: relativeKeys },
  { id: 'r', name: 'Same root, other notes, from bright to dark', keys: parallelKeys },
] as const;

/** Another mode: over the same notes, or on the same root; `to` is a list and the place in it. */
export const modeMove = defineMove<{ readonly to: string }>({
  kind: 'mode',
  name: 'Mode',
  to: 'another mode',
  asks: 'Choose a mode: the position stays where it is, and its notes get other degrees, or move by a half step.',
  options: { to: { type: 'word', label: 'The mode', picks: 'mode' } },
  usual: () => ({ to: '' }),
  move: (moving, { to }) => {
    const list = MODE_LISTS.find(({ id }) => to.startsWith(id));
    const key = list?.keys(moving.key)[Number(to.slice(1))];
    if (!list || !key) return null;
    return ok(list.id === 'n' ? toRelative(moving, key) : toParallel(moving, key));
  },
});
