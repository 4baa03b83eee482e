import { boolean, mixed, object, type Schema } from 'yup';
import { one, scaleSchema, type SchemaOf, whole, type Writable, wrongAt } from '../../fields.ts';
import { validate } from '../../validate.ts';
import { type Fields, isFieldsOf } from '../fields.ts';
import { type NoteAdded, type Overlay, overlayFrom, overlayWord, type ScaleLaid } from '../overlay.ts';
import { type PartKind } from './part.ts';

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

/** What is laid over a chart; what a later application lays over it is kept as it is. */
const overlaySchema = mixed<Writable<Overlay>>(isFieldsOf)
  .required()
  .test('overlay', 'What is laid over the chart is not known.', (overlay, context) => {
    const type: unknown = (overlay as Overlay | undefined)?.type;
    const schema = typeof type === 'string' ? SCHEMAS[type] : undefined;
    if (!schema) return true;
    const read = validate<Overlay>(schema as never, overlay);
    return read.ok || wrongAt(context, read.error.field, read.error.message);
  });

export const overlayPart = {
  name: 'overlay',
  schema: overlaySchema,
  upgrade: (was: Fields): unknown => was,
  word: { write: overlayWord, read: overlayFrom },
} satisfies PartKind<Overlay>;
