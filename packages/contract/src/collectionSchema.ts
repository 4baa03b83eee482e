import { halfStepsTyped, PHRASE_CHORDS, PHRASE_LIMITS } from '@crow-ladder/core/phrases';
import { number, object, string } from 'yup';
import { type PhraseQuery } from './collection.ts';
import { text, wrongAt } from './fields.ts';
import { LIBRARY_LIMITS, MOST_PARTS } from './limits.ts';
import { FIND_LIMIT } from './querySchema.ts';

const MOST_PHRASES = LIBRARY_LIMITS.charts * MOST_PARTS;
const wholeUpTo = (what: string, most: number) =>
  number()
    .typeError(`${what} is a whole number.`)
    .integer(`${what} is a whole number.`)
    .min(0, `${what} is at least 0.`)
    .max(most, `${what} is at most ${most}.`)
    .required();

/** A page of the collection as it is asked for. */
export const phraseQuerySchema = object({
  find: text('What is looked for', FIND_LIMIT).defined(),
  degrees: text('The line of degrees', FIND_LIMIT)
    .defined()
    .test('degrees', 'These are no degrees.', (typed, context) => {
      const read = halfStepsTyped(typed ?? '');
      return read.ok || wrongAt(context, undefined, read.error.message);
    }),
  chord: string<PhraseQuery['chord']>()
    .oneOf(['', ...PHRASE_CHORDS.map(({ id }) => id)], 'This chord is not known: choose one from the list.')
    .defined(),
  most: wholeUpTo('The number of notes', PHRASE_LIMITS.notes),
  from: wholeUpTo('The first phrase of a page', MOST_PHRASES),
}).noUnknown();
export type PhrasePageQuery = PhraseQuery & { readonly from: number };
