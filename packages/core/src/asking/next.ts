import { sharedSpots } from '../ladder/index.ts';
import { type Position, positionOf, refOf } from '../position.ts';
import { type HandOptions } from '../run/grips.ts';
import { keySaid } from '../said.ts';
import { plural } from '../words.ts';
import { type Card, cardId, groundOf } from './card.ts';
import { cardsOf, type LessonId, type NewCard } from './registry.ts';

/** A card that is learned, and for how many days it holds; 0 before its first answer. */
export interface Learned {
  readonly card: Card;
  readonly holds: number;
}
/** What to learn next, with the reason; without cards it is to wait. */
export interface NextLesson {
  readonly says: string;
  readonly why: string;
  readonly cards: readonly NewCard[];
}

/** A position is known once it holds for so many days: only then comes the next one, as all at once become a jumble (common practice, no source). */
export const HOLDS_DAYS = 7;

/** Cards that ask of the same ladder. */
const ladderOf = ({ root, scale, layout, instrument }: Card): string =>
  JSON.stringify([root, scale, layout, instrument.tuning, instrument.frets, instrument.capo]);

/**
 * What to learn after what is learned, in the ladder of the last card: the position at hand until it holds, the one above it (after the
 * highest the one below the lowest), and once all of them hold the same in another key. Null where nothing is learned, or its position is not on its neck any more.
 *
 * @example nextLesson([], hand) // null
 */
export function nextLesson(learned: readonly Learned[], hand: HandOptions): NextLesson | null {
  const last = learned.at(-1)?.card;
  if (!last) return null;
  const here = learned.filter(({ card }) => ladderOf(card) === ladderOf(last));
  const ground = groundOf(last, hand);
  if (!ground.ok) return null;
  const { positions, key, names } = ground.value;
  /** For how many days a position holds, by the card that places it; null where it is not learned. */
  const holds = new Map<Position, number>();
  for (const { card, holds: days } of here) {
    const position = card.kind === 'place' ? positionOf(positions, card.ref) : null;
    if (position) holds.set(position, days);
  }
  const [name, named] = [keySaid(key), (p: Position): string => names[p.index]!];
  const at = (position: Position, lessons: readonly LessonId[]): readonly NewCard[] => {
    const has = new Set(here.map(({ card }) => cardId(card)));
    const { root, scale, layout, instrument } = last;
    const base = { root, scale, layout, instrument, ref: refOf(positions, position) };
    return cardsOf(base, lessons, hand).filter(({ id }) => !has.has(id));
  };
  const known = positions.filter((p) => holds.has(p));
  if (!known.length) {
    const { position } = ground.value;
    return {
      says: `${name}, ${named(position)}: the position`,
      why: 'What you know of it so far gets its place.',
      cards: at(position, ['roots', 'position', 'seams']),
    };
  }
  const weak = known.find((p) => holds.get(p)! < HOLDS_DAYS);
  if (weak)
    return {
      says: `${name}, ${named(weak)}: once more`,
      why: holds.get(weak)
        ? `It holds for ${plural(Math.round(holds.get(weak)!), 'day')} so far. Once it holds for ${HOLDS_DAYS}, the next one comes.`
        : 'It is not answered yet. One position at a time: the next one comes once this one holds.',
      cards: [],
    };
  const [lowest, highest] = [known[0]!, known.at(-1)!];
  const next =
    positions.find((p) => p.index > highest.index && !holds.has(p)) ??
    positions.findLast((p) => p.index < lowest.index) ??
    positions.find((p) => !holds.has(p));
  if (next) {
    const beside = next.index > highest.index ? highest : next.index < lowest.index ? lowest : null;
    const shared = beside ? sharedSpots(next, beside).length : 0;
    return {
      says: `${name}, ${named(next)}: the position and its seam`,
      why: beside
        ? `${named(beside)} holds for ${plural(Math.round(holds.get(beside)!), 'day')}. This one lies next ${next.index > beside.index ? 'above' : 'below'} it${shared ? ` and shares ${plural(shared, 'spot')} with it` : ''}.`
        : 'It is the one that is missing between those that you know.',
      cards: at(next, ['position', 'seams']),
    };
  }
  const cards = at(positionOf(positions, last.ref) ?? highest, ['keys']);
  return {
    says: `${name}: the same shape in other keys`,
    why: `All ${plural(positions.length, 'position')} of it hold.`,
    cards,
  };
}
