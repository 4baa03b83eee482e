import {
  type DueCard,
  type KeptCard,
  type Recall,
  RECALL_LIMITS,
  type Remembered,
  type Review,
} from '@crow-ladder/contract';
import { rememberedAfter, USUAL_OF, usualTime } from '@crow-ladder/contract/schedule';
import { LIMITS } from '@crow-ladder/core';
import { CARD_KINDS, type NextLesson, nextLesson } from '@crow-ladder/core/asking';
import { type HandOptions } from '@crow-ladder/core/run';
import { type Knex } from 'knex';
import { eachOf } from './rows.ts';
import { type CardRow, type ReviewRow } from './tables.ts';

const COLUMNS = ['id', 'kind', 'card', 'name', 'made', 'rested', 'remembered', 'due', 'first'] as const;

export const toCard = ({ id, card, name, made, rested }: CardRow): KeptCard => ({
  id,
  card: JSON.parse(card) as KeptCard['card'],
  name,
  made,
  rested: rested === 1,
});
const toDue = (row: CardRow): DueCard => ({
  ...toCard(row),
  remembered: row.remembered === null ? null : (JSON.parse(row.remembered) as Remembered),
});
export const cardRow = ({ id, card, name, made, rested }: KeptCard): CardRow => ({
  id,
  kind: card.kind,
  card: JSON.stringify(card),
  name,
  made,
  rested: rested ? 1 : 0,
  remembered: null,
  due: null,
  first: null,
});
/** Strings as the bits of a number, and back. */
const bitsOf = (strings: readonly number[]): number => strings.reduce((bits, s) => bits | (1 << s), 0);
const stringsIn = (bits: number): readonly number[] =>
  Array.from({ length: LIMITS.strings[1] }, (_, i) => i + 1).filter((s) => bits & (1 << s));
export const toReview = ({ id, card_id, at, day, grade, ms, strings, missed }: ReviewRow): Review => ({
  id,
  cardId: card_id,
  at,
  day,
  grade: grade as Review['grade'],
  ms,
  strings: stringsIn(strings),
  missed: stringsIn(missed),
});
export const reviewRow = ({ cardId, strings, missed, ...review }: Review, kind: string): ReviewRow => ({
  ...review,
  card_id: cardId,
  kind,
  strings: bitsOf(strings),
  missed: bitsOf(missed),
});

const countOf = async (of: Knex.QueryBuilder): Promise<number> =>
  ((await of.count({ n: '*' })) as { n: number }[])[0]!.n;

/** Keeps cards that are not there yet. */
export async function addCards(cards: readonly KeptCard[], on: Knex): Promise<void> {
  for (const card of cards) await on('cards').insert(cardRow(card)).onConflict('id').ignore();
}

/** Brings a card up to what its answers say. */
export async function remember(cardId: string, on: Knex): Promise<void> {
  const rows = await on('reviews').where({ card_id: cardId }).orderBy('number').select('day', 'grade');
  const is = rememberedAfter(rows as Pick<Review, 'day' | 'grade'>[]);
  await on('cards')
    .where({ id: cardId })
    .update({
      remembered: is && JSON.stringify(is),
      due: is?.due ?? null,
      first: rows[0]?.day ?? null,
    });
}

/** Keeps an answer; one that comes again is there already. False where its card is gone. */
export async function addReview(review: Review, on: Knex): Promise<boolean> {
  const card = await on('cards').where({ id: review.cardId }).first('kind');
  if (!card) return false;
  await on('reviews').insert(reviewRow(review, card.kind)).onConflict('id').ignore();
  await remember(review.cardId, on);
  return true;
}
/** Takes an answer back. False where it is not there. */
export async function removeReview(id: string, on: Knex): Promise<boolean> {
  const row = await on('reviews').where({ id }).first('card_id');
  if (!row) return false;
  await on('reviews').where({ id }).delete();
  await remember(row.card_id, on);
  return true;
}

/** What there is to recall on a day. */
export async function recallOn(day: string, on: Knex): Promise<Omit<Recall, 'own'>> {
  const awake = () => on('cards').where({ rested: 0 });
  const dueNow = () => awake().where('due', '<=', day);
  const isNew = () => awake().whereNull('due');
  const due = await countOf(dueNow());
  const unseen = await countOf(isNew());
  const begun = await countOf(on('cards').where({ first: day }));
  const room = due > RECALL_LIMITS.crowded ? 0 : Math.max(0, RECALL_LIMITS.fresh - begun);
  const fresh = Math.min(room, unseen);
  const rows = (await dueNow()
    .orderBy(['due', 'number'])
    .limit(RECALL_LIMITS.given)
    .select(...COLUMNS)) as CardRow[];
  const news = (await isNew()
    .orderBy('number')
    .limit(Math.min(fresh, RECALL_LIMITS.given))
    .select(...COLUMNS)) as CardRow[];
  const usual: Record<string, number> = {};
  for (const { kind } of CARD_KINDS.all()) {
    const times = await on('reviews')
      .where({ kind })
      .where('grade', '>=', 3)
      .orderBy('number', 'desc')
      .limit(USUAL_OF)
      .select('ms');
    const is = usualTime(times.map(({ ms }) => ms));
    if (is !== null) usual[kind] = is;
  }
  const later = await awake().where('due', '>', day).min({ next: 'due' }).first();
  return {
    day,
    due,
    fresh,
    waiting: unseen - fresh,
    all: await countOf(on('cards')),
    rested: await countOf(on('cards').where({ rested: 1 })),
    resting: await on('cards')
      .where({ rested: 1 })
      .orderBy('number')
      .limit(RECALL_LIMITS.given)
      .select('id', 'name'),
    cards: [...rows, ...news].map(toDue),
    usual,
    next: (later as { next: string | null } | undefined)?.next ?? null,
  };
}

/** What is to be learned next, by the ladder that the last card is of. */
export async function nextToLearn(hand: HandOptions, on: Knex): Promise<NextLesson | null> {
  const last = await on('cards').orderBy('number', 'desc').first('card');
  if (!last) return null;
  const rows = await on('cards')
    .whereRaw(
      `json_extract(card, '$.root', '$.scale', '$.layout') = json_extract(?, '$.root', '$.scale', '$.layout')`,
      [last.card],
    )
    .orderBy('number')
    .select('card', 'remembered');
  return nextLesson(
    rows.map(({ card, remembered }) => ({
      card: JSON.parse(card) as KeptCard['card'],
      holds: remembered === null ? 0 : (JSON.parse(remembered) as Remembered).stability,
    })),
    hand,
  );
}

/** All cards, and all answers to them, in the order in which they were kept, some at a time. */
export const eachCard = (on: Knex) => eachOf(on, 'cards', toCard);
export const eachReview = (on: Knex) => eachOf(on, 'reviews', toReview);
