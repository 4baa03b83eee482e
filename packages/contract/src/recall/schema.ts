import { type Card, CARD_KINDS } from '@crow-ladder/core/asking';
import { LIMITS } from '@crow-ladder/core';
import { array, boolean, number, object, string } from 'yup';
import { layoutSchema } from '../document/parts/layout.ts';
import {
  frontSchema,
  idSchema,
  instrumentSchema,
  nameOf,
  one,
  rootSchema,
  scaleSchema,
  type SchemaOf,
  stamp,
  text,
  whole,
} from '../fields.ts';
import { type Grade, type KeptCard, RECALL_LIMITS, type Review } from './card.ts';

const DAY = /^\d{4}-\d\d-\d\d$/;
export const daySchema = string()
  .matches(DAY, 'A day cannot be read.')
  .required('A day is missing.')
  .test('day', 'A day cannot be read.', (day) => !Number.isNaN(Date.parse(`${day}T00:00:00Z`)));

const cardSchema: SchemaOf<Card> = object({
  kind: one(CARD_KINDS.all().map(({ kind }) => kind)),
  root: rootSchema,
  scale: scaleSchema('The scale of a card', 'The scale of a card is not known.'),
  layout: layoutSchema,
  instrument: instrumentSchema.required('The instrument of a card is missing.'),
  ref: frontSchema().nonNullable('The position of a card is missing.').required(),
  of: text('What a card asks', 20).defined('What a card asks is missing.'),
}).noUnknown();
/** A card. */
export const keptCardSchema: SchemaOf<KeptCard> = object({
  id: idSchema,
  card: cardSchema.required('What the card asks is missing.'),
  name: nameOf('The name of a card', 'Say what the card asks.', RECALL_LIMITS.word),
  made: stamp,
  rested: boolean().strict().required('Say whether the card rests.'),
}).noUnknown();

const stringsSchema = (what: string) =>
  array(whole('A string', 1, LIMITS.strings[1]))
    .max(LIMITS.strings[1], `${what} are too many.`)
    .required(`${what} are missing.`);
/** An answer. */
export const reviewSchema: SchemaOf<Review> = object({
  id: idSchema,
  cardId: idSchema,
  at: stamp,
  day: daySchema,
  grade: number<Grade>()
    .oneOf([1, 2, 3, 4] as const, 'A grade is 1, 2, 3 or 4.')
    .required('A grade is missing.'),
  ms: whole('The time of an answer in ms', 0, RECALL_LIMITS.ms),
  strings: stringsSchema('The strings of an answer'),
  missed: stringsSchema('The strings that were missed'),
}).noUnknown();

/** Cards that are learned at a time. */
export const cardsSchema = object({
  cards: array(keptCardSchema.required())
    .max(RECALL_LIMITS.atATime, `At most ${RECALL_LIMITS.atATime} cards are made at a time.`)
    .required('The cards are missing.'),
}).noUnknown();
/** A card that is left alone, or asked again. */
export const restSchema = object({
  rested: boolean().strict().required('Say whether the card rests.'),
}).noUnknown();
