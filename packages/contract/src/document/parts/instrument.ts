import { object, string } from 'yup';
import { frontSchema, instrumentSchema, placeSchema, type SchemaOf, sound } from '../../fields.ts';
import { type Fields, isFields } from '../fields.ts';
import { type OtherInstrument } from '../state.ts';
import { otherFrom, otherWord } from '../otherWord.ts';
import { layoutPart } from './layout.ts';
import { type PartKind } from './part.ts';

const otherFields: SchemaOf<OtherInstrument> = object({
  instrument: instrumentSchema.required(),
  instrumentId: string().nullable().defined(),
  at: placeSchema,
  layout: layoutPart.schema,
  front: frontSchema(),
}).noUnknown();
/** Another instrument; its root's fret is found again when it is shown, so that it need not sound the key's root. */
const otherSchema: SchemaOf<OtherInstrument> = otherFields.test(
  'string',
  'The root of another instrument lies off its neck.',
  (value) => !sound(otherFields, value) || value.at.string <= value.instrument.tuning.length,
);

/** What holds a layout, with the layout as it is called today. */
export const withLayout = (it: Fields): Fields =>
  isFields(it['layout']) ? { ...it, layout: layoutPart.upgrade(it['layout']) } : it;

export const instrumentPart = {
  name: 'instrument',
  schema: otherSchema,
  upgrade: withLayout,
  word: { write: otherWord, read: otherFrom },
} satisfies PartKind<OtherInstrument>;
