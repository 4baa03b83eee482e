import { type Card } from '@crow-ladder/core/asking';

/** A card as it is kept. Its id tells what it asks, so that the same one cannot be made twice. */
export interface KeptCard {
  readonly id: string;
  readonly card: Card;
  /** What it asks, in short: "C♯ Dorian, Phrygian position: place the position". */
  readonly name: string;
  readonly made: string;
  /** Whether it is left alone for now. */
  readonly rested: boolean;
}

/** How an answer was: not known, known after a correction, known, known at once. */
export const GRADES = [
  { id: 1, name: 'again' },
  { id: 2, name: 'hard' },
  { id: 3, name: 'good' },
  { id: 4, name: 'easy' },
] as const;
export type Grade = (typeof GRADES)[number]['id'];

/** An answer to a card. */
export interface Review {
  readonly id: string;
  readonly cardId: string;
  readonly at: string;
  /** The day that it counts for where the player is, "2026-06-01": a day begins at four in the morning. */
  readonly day: string;
  readonly grade: Grade;
  /** How long it took, in ms. */
  readonly ms: number;
  /** The strings that were asked about, by number, and those on which something was missing or too much at first. */
  readonly strings: readonly number[];
  readonly missed: readonly number[];
}
/** An answer as it is kept today: one of before strings were written down tells of none. */
export const reviewNow = (json: unknown): unknown =>
  typeof json === 'object' && json !== null ? { strings: [], missed: [], ...json } : json;

/** How well a card is remembered. */
export interface Remembered {
  /** Days after which it is still remembered by nine of ten. */
  readonly stability: number;
  /** From 1 to 10. */
  readonly difficulty: number;
  readonly reviews: number;
  /** How often it was forgotten. */
  readonly lapses: number;
  /** The day of the last answer, and the one on which it is to be asked again. */
  readonly last: string;
  readonly due: string;
}

/** A card that is to be asked, with how it is remembered; null where it is new. */
export interface DueCard extends KeptCard {
  readonly remembered: Remembered | null;
}

/** What there is to recall on a day. */
export interface Recall {
  readonly day: string;
  /** How many are due, and how many new ones come today. */
  readonly due: number;
  readonly fresh: number;
  /** New ones that wait for another day. */
  readonly waiting: number;
  /** All cards that are kept, rested ones too. */
  readonly all: number;
  readonly rested: number;
  /** Those that rest, the first of them. */
  readonly resting: readonly Pick<KeptCard, 'id' | 'name'>[];
  /** Those to be asked first, the ones that are due before the new ones. */
  readonly cards: readonly DueCard[];
  /** The usual time of an answer, in ms, by kind of card. */
  readonly usual: Readonly<Record<string, number>>;
  /** Whether the player has practised, learned or recalled anything that did not come with the application. */
  readonly own: boolean;
  /** The day on which the next one is due, where none is today. */
  readonly next: string | null;
}

/** What is remembered, and what comes. */
export interface RecallAhead {
  /** Cards that were answered and do not rest, and how many of them would be known on the day. */
  readonly cards: number;
  readonly known: number;
  /** How many of them hold for three weeks or longer. */
  readonly firm: number;
  /** How many come due on each of the days from the day on; what is due already comes on the first. */
  readonly due: readonly number[];
}
/** Days for which it is told what comes due, and after how many a card is firm. */
export const AHEAD = { days: 30, firm: 21 } as const;

/** New cards a day, and none while more than so many are due. Cards that are given at a time. */
export const RECALL_LIMITS = {
  fresh: 8,
  crowded: 30,
  given: 40,
  atATime: 200,
  word: 200,
  ms: 3_600_000,
} as const;
