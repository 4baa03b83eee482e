import { LIMITS, MOST_DEGREES, parseNote, pitchClass, type Place, resolveScale } from '@crow-ladder/core';
import { array, mixed, number, object, string } from 'yup';
import { instrumentSchema, type SchemaOf, sound, text, whole, type Writable } from '../fields.ts';
import { layoutSchema } from '../layout.ts';
import { MOST_OTHERS, MOST_PARTS, SCALE_ID } from '../limits.ts';
import { type ChartState, DOCUMENT_VERSION, type OtherInstrument, type Part } from './state.ts';

const noteTest = (value: string | undefined): boolean => value !== undefined && parseNote(value).ok;
const parts = (what: string) =>
  array(
    mixed<Writable<Part>>(
      (v): v is Writable<Part> => typeof v === 'object' && v !== null && !Array.isArray(v),
    ).required(),
  )
    .max(MOST_PARTS, `A chart has at most ${MOST_PARTS} ${what}.`)
    .required();

const placeSchema: SchemaOf<Place> = object({
  string: whole('The string', 1, LIMITS.strings[1]),
  fret: whole('The fret', 0, LIMITS.frets[1]),
})
  .noUnknown()
  .required('Say where the root lies.');

const frontSchema = () =>
  object({
    start: whole('The position’s first degree', 0, MOST_DEGREES - 1),
    low: whole('The position’s lowest fret', 0, LIMITS.frets[1]),
    nth: whole('The position’s number', 0, 99),
  })
    .noUnknown()
    .nullable()
    .defined();

const otherFields: SchemaOf<OtherInstrument> = object({
  instrument: instrumentSchema.required(),
  instrumentId: string().nullable().defined(),
  at: placeSchema,
  layout: layoutSchema,
  front: frontSchema(),
}).noUnknown();
/** Another instrument; its root's fret is found again when it is shown, so that it need not sound the key's root. */
const otherSchema: SchemaOf<OtherInstrument> = otherFields.test(
  'string',
  'The root of another instrument lies off its neck.',
  (value) => !sound(otherFields, value) || value.at.string <= value.instrument.tuning.length,
);

export const stateSchema: SchemaOf<ChartState> = object({
  v: number<typeof DOCUMENT_VERSION>().oneOf([DOCUMENT_VERSION]).required(),
  key: object({
    root: text('The root', 4)
      .required('The root is missing.')
      .test('note', 'The root is a note A to G with # or b, such as F#.', noteTest),
    scale: text('The scale', SCALE_ID)
      .required('The scale is missing.')
      .test(
        'scale',
        'This scale is not known: pick one by name, or type its formula.',
        (v) => v === undefined || resolveScale(v).ok,
      ),
  })
    .noUnknown()
    .required(),
  at: placeSchema,
  layout: layoutSchema,
  front: frontSchema(),
  instrument: instrumentSchema.required(),
  instrumentId: string().nullable().defined(),
  others: array(otherSchema)
    .max(MOST_OTHERS, `A chart has at most ${MOST_OTHERS} other instruments.`)
    .required(),
  overlays: parts('overlays'),
  chords: parts('chords'),
  phrases: parts('phrases'),
  runs: parts('runs'),
})
  .noUnknown()
  .test('spot', 'The root lies off the neck.', (value, context) => {
    // What is wrong by itself is told by its own field; this is about what does not go together.
    if (!sound(instrumentSchema, value.instrument) || !sound(placeSchema, value.at)) return true;
    const { tuning, frets, capo } = value.instrument;
    const { string, fret } = value.at;
    const fail = (field: string, message: string) =>
      context.createError({ path: `${context.path ? `${context.path}.` : ''}at.${field}`, message });
    if (string > tuning.length) return fail('string', `This instrument has ${tuning.length} strings.`);
    if (fret > frets - capo) return fail('fret', `The last fret is ${frets - capo}.`);
    const named: unknown = value.key?.root;
    const root = typeof named === 'string' ? parseNote(named) : null;
    const sounds = (tuning[tuning.length - string]! + capo + fret) % 12;
    return (
      !root?.ok ||
      pitchClass(root.value) === sounds ||
      fail('fret', `String ${string} fret ${fret} does not sound ${value.key.root}.`)
    );
  });
