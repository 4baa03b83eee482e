import { LIMITS } from '@crow-ladder/core';
import { array, boolean, mixed, object, type Schema } from 'yup';
import { one, scaleSchema, type SchemaOf, whole } from '../../fields.ts';
import { type Fields } from '../fields.ts';
import { type NoteAdded, type Overlay, overlayFrom, overlayWord, type ScaleLaid } from '../overlay.ts';
import { type PartKind, typedSchema } from './part.ts';

const laidSchema: SchemaOf<ScaleLaid> = object({
  type: one(['scale'] as const),
  scale: scaleSchema('The scale laid over it', 'The scale laid over it is not known: pick one by name.'),
  above: whole('The root of the scale laid over it, in half steps above the chart’s,', 0, 11),
}).noUnknown();

/** Two strings. */
const isPair = (it: unknown): it is number[] =>
  Array.isArray(it) &&
  it.length === 2 &&
  it.every((n) => Number.isInteger(n) && n >= 1 && n <= LIMITS.strings[1]);
const addedSchema: SchemaOf<NoteAdded> = object({
  type: one(['added'] as const),
  above: whole('The note that is added, in half steps above the root,', 1, 11),
  passing: boolean().strict().required('Say whether the note that is added is only touched.'),
  slid: boolean().strict(),
  moved: array(
    mixed<number[]>(isPair)
      .meta({ is: 'strings' })
      .required('Say on which string the added note would lie, and on which it is played.'),
  ).max(LIMITS.strings[1], 'An added note is moved from each string once at most.'),
}).noUnknown();

const SCHEMAS: Readonly<Record<string, Schema>> = { scale: laidSchema, added: addedSchema };

export const overlayPart = {
  name: 'overlay',
  schema: typedSchema<Overlay>(SCHEMAS, 'What is laid over the chart is not known.'),
  upgrade: (was: Fields): unknown => was,
  word: { write: overlayWord, read: overlayFrom },
} satisfies PartKind<Overlay>;
