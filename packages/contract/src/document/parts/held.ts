import { BEND, type Held, isBend, VIBRATO } from '@crow-ladder/core/run';
import { boolean, number, object } from 'yup';
import { one, type SchemaOf, whole } from '../../fields.ts';

const bendSchema: SchemaOf<NonNullable<Held['bend']>> = object({
  by: number()
    .strict()
    .required('Say how far the string is bent.')
    .test('bend', `A bend is ${BEND.least} to ${BEND.most} half steps, in quarter tones.`, isBend),
  how: one(['once', 'slowly'] as const),
  released: boolean().strict().required('Say whether the bend is released.'),
}).noUnknown();

const vibratoSchema: SchemaOf<NonNullable<Held['vibrato']>> = object({
  cents: whole('The depth of the vibrato in cents', ...VIBRATO.cents),
  waves: whole('The waves of the vibrato a second', ...VIBRATO.waves),
}).noUnknown();

/** How a note of a run is held: bent, with vibrato, or both; what is not there is as usual. */
export const heldFields = {
  bend: bendSchema.default(undefined).optional(),
  vibrato: vibratoSchema.default(undefined).optional(),
};
