import { noteName, pitchClass, note } from '../note.ts';
import { chooseRoot } from '../root.ts';
import { mod } from '../arithmetic.ts';
import { resolveScale } from '../ownScale.ts';
import { type Position, positionOf, refOf } from '../position.ts';
import { type HandOptions } from '../run/grips.ts';
import { type Card, cardId, groundOf, laidFor } from './card.ts';
import { chordNotes } from './chordNotes.ts';
import { degreeHere } from './degreeHere.ts';
import { degreeNear } from './degreeNear.ts';
import { groups } from './groups.ts';
import { jogs } from './jogs.ts';
import { modeTurns } from './modeTurns.ts';
import { nextBegins } from './nextBegins.ts';
import { noteHere } from './noteHere.ts';
import { noteOn } from './noteOn.ts';
import { place } from './place.ts';
import { type CardKind } from './question.ts';
import { rootFinger } from './rootFinger.ts';
import { roots } from './roots.ts';
import { rootString } from './rootString.ts';
import { seam } from './seam.ts';

const ALL: readonly CardKind[] = [
  roots,
  place,
  rootString,
  rootFinger,
  groups,
  jogs,
  seam,
  nextBegins,
  degreeNear,
  degreeHere,
  noteHere,
  noteOn,
  chordNotes,
  modeTurns,
];
/** Every kind of card, in the order in which people learn. */
export const CARD_KINDS = {
  all: (): readonly CardKind[] => ALL,
  of: (kind: string): CardKind | undefined => ALL.find((it) => it.kind === kind),
};

/** What of a chart can be learned, in the order in which it is offered. */
export const LESSONS = [
  { id: 'roots', name: 'its roots' },
  { id: 'position', name: 'the position' },
  { id: 'seams', name: 'its seam with the next one' },
  { id: 'degrees', name: 'its degrees and notes' },
  { id: 'chords', name: 'the chords in it' },
  { id: 'modes', name: 'the modes beside it' },
  { id: 'strings', name: 'the notes of the key on each string' },
  { id: 'ladder', name: 'the ladder in order' },
  { id: 'keys', name: 'the same shape in other keys' },
] as const;
export type LessonId = (typeof LESSONS)[number]['id'];

/** The kinds of each lesson about one position. */
const KINDS: Readonly<Record<Exclude<LessonId, 'ladder' | 'keys'>, readonly CardKind[]>> = {
  roots: [roots],
  position: [place, rootString, rootFinger, groups, jogs],
  seams: [seam, nextBegins],
  degrees: [degreeNear, degreeHere, noteHere],
  chords: [chordNotes],
  modes: [modeTurns],
  strings: [noteOn],
};
/** Other keys, the nearest first: around the circle of fifths. */
const FIFTHS = [7, 5, 2, 10, 9, 3, 4, 8, 11, 1, 6];

type Base = Omit<Card, 'kind' | 'of'>;
/** Cards of one position of a base, of some kinds. */
const cardsAt = (base: Base, kinds: readonly CardKind[], hand: HandOptions): readonly Card[] => {
  const ground = groundOf({ ...base, of: '' }, hand);
  if (!ground.ok) return [];
  return kinds.flatMap(({ kind, asks, ask }) =>
    asks(ground.value)
      .filter((of) => ask({ ...ground.value, of }) !== null)
      .map((of): Card => ({ kind, ...base, of })),
  );
};

/**
 * The cards of what is to be learned of a position, in the order in which people learn: its roots, the position, its seam with the next one, that one, … then the same in another key.
 *
 * @example cardsOf(base, ['roots'], hand).map((c) => c.kind) // ["roots"]
 */
export function cardsOf(base: Base, lessons: readonly LessonId[], hand: HandOptions): readonly Card[] {
  const has = (id: LessonId): boolean => lessons.includes(id);
  const near = (['roots', 'position', 'seams', 'degrees', 'chords', 'modes', 'strings'] as const).filter(has);
  const here = near.flatMap((id) => cardsAt(base, KINDS[id], hand));
  const ladder = has('ladder')
    ? rungs(base).flatMap((it) => cardsAt(it, [place, nextBegins, seam], hand))
    : [];
  const keys = has('keys')
    ? FIFTHS.flatMap((by) => {
        const there = inKey(base, by);
        return there ? cardsAt(there, [place], hand) : [];
      })
    : [];
  return [...new Map([...here, ...ladder, ...keys].map((it) => [cardId(it), it])).values()];
}

/** Every position of the base's layout from the one at hand up, then those below it. */
function rungs(base: Base): readonly Base[] {
  const laid = laidFor(base);
  if (!laid.ok) return [];
  const { positions } = laid.value;
  const at = positionOf(positions, base.ref)?.index ?? 0;
  const ordered = [...positions.slice(at), ...positions.slice(0, at)];
  return ordered.map((p) => ({ ...base, ref: refOf(positions, p) }));
}
/** The base with its key some half steps higher, its position the one of the same first degree that lies nearest. */
function inKey(base: Base, by: number): Base | null {
  const scale = resolveScale(base.scale);
  if (!scale.ok) return null;
  const root = noteName(chooseRoot(mod(pitchClass(note(base.root)) + by, 12), scale.value).root);
  const laid = laidFor({ ...base, root });
  if (!laid.ok) return null;
  const { positions } = laid.value;
  const far = (p: Position): number => Math.abs(p.lowFret - base.ref.low);
  const [nearest] = positions.filter((p) => p.start === base.ref.start).sort((a, b) => far(a) - far(b));
  return nearest ? { ...base, root, ref: refOf(positions, nearest) } : null;
}
