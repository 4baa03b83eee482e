import './locale.ts';
import {
  checkInstrument,
  type Instrument,
  LIMITS,
  parseNote,
  type Place,
  resolveScale,
} from '@crow-ladder/core';
import { MOST_DEGREES } from '@crow-ladder/core/kinds';
import { array, number, object, type ObjectSchema, string, type TestContext } from 'yup';
import { type InstrumentChange } from './library.ts';
import { CHART_LIMITS, SCALE_ID } from './limits.ts';
import { isVisible } from './text.ts';

/** A type without its readonly, as a schema has it. */
export type Writable<T> = T extends readonly (infer E)[]
  ? Writable<E>[]
  : T extends object
    ? { -readonly [K in keyof T]: Writable<T[K]> }
    : T;
/** A schema that cannot drift from its type. */
export type SchemaOf<T> = ObjectSchema<Writable<T> & object>;

export const whole = (what: string, low: number, high: number) =>
  number()
    .strict()
    .typeError(`${what} is a whole number from ${low} to ${high}.`)
    .integer(`${what} is a whole number from ${low} to ${high}.`)
    .min(low, `${what} is at least ${low}.`)
    .max(high, `${what} is at most ${high}.`)
    .required(`${what} is missing.`);

/** A text of a person's, named in what is said of it. */
export const text = (what: string, max: number) =>
  string().strict().typeError(`${what} is text.`).max(max, `${what} is at most ${max} characters long.`);

/** A text that is more than blanks. */
export const nameOf = (what: string, asked: string, max: number) =>
  text(what, max)
    .required(asked)
    .test('blank', asked, (v) => v === undefined || isVisible(v));

export const one = <T extends string>(of: readonly T[], told?: string) =>
  string<T>()
    .oneOf([...of], told)
    .required();

const ID = /^[\w-]{1,40}$/;
/** Whether something can be found under an id: 1 to 40 letters, digits, hyphens or underscores. */
export const isId = (id: unknown): boolean => typeof id === 'string' && ID.test(id);
export const idSchema = string().matches(ID, 'An id cannot be read.').required('An id is missing.');
const ISO = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,3})?Z$/;
/** Whether this is a moment as the application writes it: an ISO 8601 date and time in UTC. */
export const isStamp = (at: unknown): boolean =>
  typeof at === 'string' && ISO.test(at) && !Number.isNaN(Date.parse(at));
export const stamp = string().required('A date is missing.').test('date', 'A date cannot be read.', isStamp);

const [leastFrets, mostFrets] = LIMITS.frets;
const [shortest, longest] = LIMITS.scaleLength;

/** The fields of an instrument, each by itself. */
const instrumentFields: SchemaOf<Instrument> = object({
  name: nameOf('The name', 'Give the instrument a name.', CHART_LIMITS.name),
  tuning: array(whole('A string’s pitch', LIMITS.midi[0], LIMITS.midi[1])).required('The tuning is missing.'),
  frets: whole('The number of frets', leastFrets, mostFrets),
  scaleLength: number()
    .typeError(`The scale length is ${shortest} to ${longest} mm.`)
    .min(shortest, `The scale length is at least ${shortest} mm.`)
    .max(longest, `The scale length is at most ${longest} mm.`)
    .required('The scale length is missing.'),
  capo: whole('The capo', 0, mostFrets - leastFrets),
  handed: one(['right', 'left'] as const, 'An instrument is right- or left-handed.'),
  wound: whole('The number of wound strings', 0, LIMITS.strings[1]),
}).noUnknown();

/** A field of a value that is wrong, where the value lies; the value itself where no field is named. */
export const wrongAt = (context: TestContext, field: string | undefined, message: string) =>
  context.createError({ path: [context.path, field].filter(Boolean).join('.'), message });

/** The id of a scale. */
export const scaleSchema = (what: string, unknown: string) =>
  text(what, SCALE_ID)
    .required(`${what} is missing.`)
    .test('scale', unknown, (id) => id === undefined || resolveScale(id).ok);

/** Whether a value is right by itself; tests of what has to go together leave what is not to its own field. */
export const sound = <T>(schema: SchemaOf<T>, value: unknown): boolean =>
  value !== undefined && schema.isValidSync(value, { strict: true });

export const instrumentSchema: SchemaOf<Instrument> = instrumentFields.test(
  'instrument',
  'This instrument cannot be.',
  (value, context) => {
    if (!sound(instrumentFields, value)) return true;
    const checked = checkInstrument(value as Instrument);
    return checked.ok || wrongAt(context, checked.error.code.split('.')[1], checked.error.message);
  },
);

/** A place on the neck. */
export const placeSchema: SchemaOf<Place> = object({
  string: whole('The string', 1, LIMITS.strings[1]),
  fret: whole('The fret', 0, LIMITS.frets[1]),
})
  .noUnknown()
  .required('Say where the root lies.');

/** The name of a root. */
export const rootSchema = text('The root', 4)
  .required('The root is missing.')
  .test(
    'note',
    'The root is a note A to G with # or b, such as F#.',
    (value) => value !== undefined && parseNote(value).ok,
  );

/** The position in front. */
export const frontSchema = () =>
  object({
    start: whole('The position’s first degree', 0, MOST_DEGREES - 1),
    low: whole('The position’s lowest fret', 0, LIMITS.frets[1]),
    nth: whole('The position’s number', 0, 99),
  })
    .noUnknown()
    .nullable()
    .defined();

/** A change of an instrument, with the revision that it was made from. */
export const instrumentChangeSchema: SchemaOf<InstrumentChange> = object({
  instrument: instrumentSchema.required('The instrument is missing.'),
  revision: whole('The revision', 1, Number.MAX_SAFE_INTEGER),
}).noUnknown();
