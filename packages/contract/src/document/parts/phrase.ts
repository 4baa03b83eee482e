import { LIMITS } from '@crow-ladder/core';
import { PHRASE_LIMITS, type PhraseNote } from '@crow-ladder/core/phrases';
import { array, mixed, object } from 'yup';
import { CHART_LIMITS } from '../../limits.ts';
import {
  nameOf,
  one,
  placeSchema,
  rootSchema,
  scaleSchema,
  type SchemaOf,
  whole,
  wrongAt,
} from '../../fields.ts';
import { type Fields } from '../fields.ts';
import { type KeptPhrase, PHRASE_KEPT, phraseFrom, type PhrasePart, phraseWord } from '../phrase.ts';
import { heldFields } from './held.ts';
import { type PartKind, typedSchema } from './part.ts';

const [least, most] = PHRASE_LIMITS.length;
const noteSchema: SchemaOf<PhraseNote> = object({
  at: placeSchema.clone().nullable().defined(),
  length: whole('The length of a note in ticks', least, most),
  joined: one(['slur', 'slide', 'tap'] as const).optional(),
  ...heldFields,
  accent: mixed<true>((is): is is true => is === true)
    .meta({ is: 'true' })
    .optional(),
  finger: whole('The finger of a note', 1, 4).optional(),
}).noUnknown();

const phraseSchema: SchemaOf<KeptPhrase> = object({
  type: one(['phrase'] as const),
  name: nameOf('The name', 'A phrase has no name.', PHRASE_KEPT.name),
  tags: array(nameOf('A tag', 'A tag is empty.', CHART_LIMITS.tag))
    .max(CHART_LIMITS.tags, `A phrase has at most ${CHART_LIMITS.tags} tags.`)
    .required('The tags of a phrase are missing.'),
  root: rootSchema,
  scale: scaleSchema('The scale of a phrase', 'The scale of a phrase is not known: pick one by name.'),
  open: array(whole('The pitch of an open string', 0, 127))
    .min(LIMITS.strings[0], 'A phrase has too few strings.')
    .max(LIMITS.strings[1], 'A phrase has too many strings.')
    .required('The strings of a phrase are missing.'),
  beats: whole('The beats of a bar', ...PHRASE_KEPT.beats),
  notes: array(noteSchema.required())
    .max(PHRASE_LIMITS.notes, `A phrase has at most ${PHRASE_LIMITS.notes} notes and rests.`)
    .required('The notes of a phrase are missing.'),
})
  .noUnknown()
  .test('strings', 'A note lies on no string of its phrase.', ({ open, notes }, context) => {
    if (!Array.isArray(open) || !Array.isArray(notes)) return true;
    const wrong = notes.findIndex((note) => (note as PhraseNote | null)?.at && note.at!.string > open.length);
    return (
      wrong < 0 || wrongAt(context, `notes[${wrong}].at.string`, `This phrase has ${open.length} strings.`)
    );
  });

/** A phrase kept with the chart. */
export const phrasePart = {
  name: 'phrase',
  schema: typedSchema<PhrasePart>({ phrase: phraseSchema }, 'What is kept of phrases is not known.'),
  upgrade: (was: Fields): unknown => was,
  word: { write: phraseWord, read: phraseFrom },
} satisfies PartKind<PhrasePart>;
