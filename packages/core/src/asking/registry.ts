import { positionOf, refOf } from '../position.ts';
import { type HandOptions } from '../run/grips.ts';
import { keySaid } from '../said.ts';
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
import { sameShape } from './sameShape.ts';
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
  sameShape,
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
type Base = Omit<Card, 'kind' | 'of'>;
/** A card that is not kept yet, with its id and its name. */
export interface NewCard {
  readonly id: string;
  readonly card: Card;
  /** What it asks, in short: "C♯ Dorian, Phrygian position: place the position". */
  readonly name: string;
}
/** Cards of one position of a base, of some kinds. */
const cardsAt = (base: Base, kinds: readonly CardKind[], hand: HandOptions): readonly NewCard[] => {
  const ground = groundOf({ ...base, of: '' }, hand);
  if (!ground.ok) return [];
  const { key, names, position } = ground.value;
  return kinds.flatMap(({ kind, name, asks, ask }) =>
    asks(ground.value)
      .filter((of) => ask({ ...ground.value, of }) !== null)
      .map((of): NewCard => {
        const card = { kind, ...base, of };
        return { id: cardId(card), card, name: `${keySaid(key)}, ${names[position.index]!}: ${name}` };
      }),
  );
};

/**
 * The cards of what is to be learned of a position, in the order in which people learn: its roots, the position, its seam with the next one, that one, … then the same in another key.
 *
 * @example cardsOf(base, ['roots'], hand).map((c) => c.card.kind) // ["roots"]
 */
export function cardsOf(base: Base, lessons: readonly LessonId[], hand: HandOptions): readonly NewCard[] {
  const has = (id: LessonId): boolean => lessons.includes(id);
  const near = (['roots', 'position', 'seams', 'degrees', 'chords', 'modes', 'strings'] as const).filter(has);
  const here = near.flatMap((id) => cardsAt(base, KINDS[id], hand));
  const ladder = has('ladder')
    ? rungs(base).flatMap((it) => cardsAt(it, [place, nextBegins, seam], hand))
    : [];
  const keys = has('keys') ? cardsAt(base, [sameShape], hand) : [];
  return [...new Map([...here, ...ladder, ...keys].map((it) => [it.id, it])).values()];
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
