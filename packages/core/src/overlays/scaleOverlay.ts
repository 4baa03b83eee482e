import { mod } from '../arithmetic.ts';
import { type Degree, degreeName } from '../degree.ts';
import { type Neck, onNeck, pitchAt } from '../neck.ts';
import { type Note, noteName, type PitchClass, pitchClass, pretty } from '../note.ts';
import { type Place, placeId } from '../place.ts';
import { type Position } from '../position.ts';
import { keySaid, scaleSaid } from '../said.ts';
import { classesOf, degreeIndex, type Key, type Scale, spellScale } from '../scale.ts';
import { capital, list } from '../words.ts';

/** To which of two scales a note belongs. */
export type Side = 'both' | 'first' | 'second';

/** A degree of the first scale and what the second has in its place; null where one has none. */
export interface DegreeChange {
  readonly from: number | null;
  readonly to: number | null;
}

/** Two scales laid over one another. Indexes are those of degrees in each scale. */
export interface ScaleOverlay {
  readonly first: Key;
  readonly second: Key;
  /** Pitch classes by where they belong, rising from the first root. */
  readonly notes: Readonly<Record<Side, readonly PitchClass[]>>;
  /** What must change of the first to get the second, from the lowest degree up; empty where they have the same notes. */
  readonly changes: readonly DegreeChange[];
}

/** How far one pitch class lies above another by the shorter way, −5 to 6. */
const between = (from: PitchClass, to: PitchClass): number => {
  const up = mod(to - from, 12);
  return up > 6 ? up - 12 : up;
};

/**
 * Lays a second scale over a first one, from the same root or another. What differs by a half step under one letter is the same
 * degree, altered ("6 for ♭6"); what has no such partner was added, or left out.
 *
 * @example overlayOf(A, { root: A.root, scale: scaleById('natural-minor') }).changes // [{"from":null,"to":1},{"from":null,"to":5}]
 */
export function overlayOf(first: Key, second: Key): ScaleOverlay {
  const [a, b] = [classesOf(first), classesOf(second)];
  const from = pitchClass(first.root);
  const rising = (of: readonly PitchClass[]): readonly PitchClass[] =>
    [...of].sort((x, y) => mod(x - from, 12) - mod(y - from, 12));
  const gone = a.flatMap((pc, i) => (b.includes(pc) ? [] : [i]));
  const come = b.flatMap((pc, i) => (a.includes(pc) ? [] : [i]));
  const [notesA, notesB] = [spellScale(first), spellScale(second)];
  const added = new Set(come);
  const changes: DegreeChange[] = gone.map((i) => {
    const isAltered = (j: number): boolean =>
      Math.abs(between(a[i]!, b[j]!)) === 1 && notesA[i]!.letter === notesB[j]!.letter;
    const to = [...added].find(isAltered) ?? null;
    if (to !== null) added.delete(to);
    return { from: i, to };
  });
  for (const to of added) changes.push({ from: null, to });
  const height = ({ from: i, to: j }: DegreeChange): number => mod((i === null ? b[j!]! : a[i]!) - from, 12);
  return {
    first,
    second,
    notes: {
      both: rising(a.filter((pc) => b.includes(pc))),
      first: rising(gone.map((i) => a[i]!)),
      second: rising(come.map((j) => b[j]!)),
    },
    changes: changes.sort((x, y) => height(x) - height(y)),
  };
}

/**
 * Where a pitch belongs; null where it is in neither scale.
 *
 * @example sideOf(overlayOf(A, { root: A.root, scale: scaleById('natural-minor') }), 47) // "second"
 */
export function sideOf({ first, second }: Pick<ScaleOverlay, 'first' | 'second'>, midi: number): Side | null {
  const [a, b] = [degreeIndex(first, midi) >= 0, degreeIndex(second, midi) >= 0];
  return a && b ? 'both' : a ? 'first' : b ? 'second' : null;
}

const degreeSaid = (degree: Degree): string => pretty(degreeName(degree));
const noteSaid = (note: Note): string => pretty(noteName(note));

const isSameRoot = ({ first, second }: Pick<ScaleOverlay, 'first' | 'second'>): boolean =>
  pitchClass(first.root) === pitchClass(second.root);

/**
 * What changes from the first scale to the second, in degrees and notes: "with 6 for ♭6: F♯ for F". Over another root notes are told
 * alone, as degrees count from two roots. Empty where nothing changes.
 *
 * @example changesSaid(overlayOf(A, { root: A.root, scale: scaleById('natural-minor') })) // "plus 2 and ♭6: B and F"
 */
export function changesSaid(overlay: ScaleOverlay): string {
  const { first, second, changes } = overlay;
  const [a, b] = [spellScale(first), spellScale(second)].map((of) => of.map(noteSaid));
  const [da, db] = [first, second].map(({ scale }) => scale.degrees.map(degreeSaid));
  const swapped = changes.filter(({ from, to }) => from !== null && to !== null);
  const come = changes.filter(({ from }) => from === null);
  const left = changes.filter(({ to }) => to === null);
  const told = (was: readonly string[], is: readonly string[], words: readonly [string, string, string]) => [
    ...(swapped.length
      ? [words[0] + list(swapped.map(({ from, to }) => `${is[to!]} for ${was[from!]}`))]
      : []),
    ...(come.length ? [words[1] + list(come.map(({ to }) => is[to!]!))] : []),
    ...(left.length ? [words[2] + list(left.map(({ from }) => was[from!]!))] : []),
  ];
  const words = ['with ', 'plus ', 'without '] as const;
  if (!isSameRoot(overlay)) return list(told(a!, b!, words));
  const inNotes = told(a!, b!, ['', '', '']);
  return changes.length ? `${list(told(da!, db!, words))}: ${inNotes.join('; ')}` : '';
}

/**
 * What the second scale is, told by the first: "Dorian is natural minor with 6 for ♭6: F♯ for F."
 *
 * @example overlaySaid(overlayOf(A, { root: A.root, scale: scaleById('natural-minor') })) // "Natural minor is minor pentatonic plus 2 and ♭6: B and F."
 */
export function overlaySaid(overlay: ScaleOverlay): string {
  const { first, second, notes, changes } = overlay;
  const name = isSameRoot(overlay) ? ({ scale }: Key): string => scaleSaid(scale) : keySaid;
  const [of, is] = [name(first), capital(name(second))];
  if (of === name(second)) return `${is} is laid over itself.`;
  if (!changes.length) return `${is} has the very notes of ${of}.`;
  if (!notes.both.length) return `${is} has no note of ${of}.`;
  return `${is} is ${of} ${changesSaid(overlay)}.`;
}

/**
 * Scales of a list over the root of a key from which it differs least: fewest notes to change first, then as the list has them.
 *
 * @example neighbours(A, [scaleById('major'), scaleById('minor-blues')])[0].second.scale.id // "minor-blues"
 */
export const neighbours = (key: Key, among: readonly Scale[]): readonly ScaleOverlay[] =>
  among
    .map((scale) => overlayOf(key, { root: key.root, scale }))
    .filter(({ changes }) => changes.length > 0)
    .sort((x, y) => x.changes.length - y.changes.length);

/** What changes of a position as the second scale takes the place of the first. */
export interface PositionChange {
  /** A spot whose note moves along its string, and where to. */
  readonly moved: readonly { readonly from: Place; readonly to: Place }[];
  /** Places of notes that come in, between the frets of the position. */
  readonly come: readonly Place[];
  /** Spots whose notes go. */
  readonly gone: readonly Place[];
}

/**
 * How little must change of a position in the first scale to play the second there: notes that are altered move along their string,
 * even off the position's frets; notes that come in are shown where they lie between its frets on its strings.
 *
 * @example positionChange(neck, box, overlayOf(A, { root: A.root, scale: scaleById('minor-blues') })).come // [{"string":5,"fret":6},{"string":3,"fret":8}]
 */
export function positionChange(
  neck: Neck,
  position: Pick<Position, 'held' | 'lowFret' | 'highFret'>,
  { first, second, changes }: ScaleOverlay,
): PositionChange {
  const [a, b] = [classesOf(first), classesOf(second)];
  const once = new Map(position.held.map((spot) => [placeId(spot), spot]));
  const held = [...once.values()].map((spot) => ({ spot, degree: degreeIndex(first, spot.midi) }));
  const on = (degree: number) => held.filter((h) => h.degree === degree).map(({ spot }) => spot);
  const place = ({ string, fret }: Place): Place => ({ string, fret });
  const strings = neck.rising.filter((string) => held.some(({ spot }) => spot.string === string));
  const moved: { from: Place; to: Place }[] = [];
  const gone: Place[] = [];
  const come: Place[] = [];
  for (const { from, to } of changes) {
    if (from !== null && to !== null)
      for (const spot of on(from)) {
        const fret = spot.fret + between(a[from]!, b[to]!);
        if (onNeck(neck, spot.string, fret))
          moved.push({ from: place(spot), to: { string: spot.string, fret } });
        else gone.push(place(spot));
      }
    else if (from !== null) gone.push(...on(from).map(place));
    else
      for (const string of strings)
        for (let fret = position.lowFret; fret <= position.highFret; fret++)
          if (mod(pitchAt(neck, string, fret), 12) === b[to!]) come.push({ string, fret });
  }
  return { moved, come, gone };
}

/** Two scales in use at once. */
export interface Blend {
  /** Half steps of all notes above the root, rising. */
  readonly offsets: readonly number[];
  /** By note of the blend: which scale it comes from. */
  readonly from: readonly Side[];
  /** Notes a half step apart of which neither scale has both: what rubs. Half steps above the root. */
  readonly clashes: readonly (readonly [number, number])[];
}

/**
 * The union of two scales over one root, with what rubs in it.
 *
 * @example blendOf(A.scale, scaleById('major-pentatonic')).offsets // [0,2,3,4,5,7,9,10]
 */
export function blendOf({ offsets: a }: Scale, { offsets: b }: Scale): Blend {
  const offsets = [...new Set([...a, ...b])].sort((x, y) => x - y);
  const from = offsets.map((o): Side => (a.includes(o) ? (b.includes(o) ? 'both' : 'first') : 'second'));
  const clashes = offsets.flatMap((o, i) => {
    const next = offsets[(i + 1) % offsets.length]!;
    const together = [a, b].some((of) => of.includes(o) && of.includes(next));
    return mod(next - o, 12) === 1 && !together ? [[o, next] as const] : [];
  });
  return { offsets, from, clashes };
}
