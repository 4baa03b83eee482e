import { boolean, object, type Schema } from 'yup';
import { one, scaleSchema, type SchemaOf, whole } from '../../fields.ts';
import { type Fields } from '../fields.ts';
import { type NoteAdded, type Overlay, overlayFrom, overlayWord, type ScaleLaid } from '../overlay.ts';
import { type PartKind, typedSchema } from './part.ts';

const laidSchema: SchemaOf<ScaleLaid> = object({
  type: one(['scale'] as const),
  scale: scaleSchema('The scale laid over it', 'The scale laid over it is not known: pick one by name.'),
  above: whole('The root of the scale laid over it, in half steps above the chart’s,', 0, 11),
}).noUnknown();

const addedSchema: SchemaOf<NoteAdded> = object({
  type: one(['added'] as const),
  above: whole('The note that is added, in half steps above the root,', 1, 11),
  passing: boolean().strict().required('Say whether the note that is added is only touched.'),
}).noUnknown();
const SCHEMAS: Readonly<Record<string, Schema>> = { scale: laidSchema, added: addedSchema };

export const overlayPart = {
  name: 'overlay',
  schema: typedSchema<Overlay>(SCHEMAS, 'What is laid over the chart is not known.'),
  upgrade: (was: Fields): unknown => was,
  word: { write: overlayWord, read: overlayFrom },
} satisfies PartKind<Overlay>;
