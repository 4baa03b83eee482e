import { parseDegree } from '@crow-ladder/core';
import { PROGRESSION_LIMITS, type ProgressionChord, type ScaleAbove } from '@crow-ladder/core/chords';
import { array, mixed, object, string } from 'yup';
import { one, scaleSchema, type SchemaOf, whole, type Writable, wrongAt } from '../../fields.ts';
import { validate } from '../../validate.ts';
import { type Fields, isFieldsOf } from '../fields.ts';
import { type ChordPart, chordPartFrom, chordPartWord, type Progression } from '../progression.ts';
import { type PartKind, typedSchema } from './part.ts';

const MOST_SIGNS = 24;
const MOST_TONES = 12;
const chordSchema: SchemaOf<ProgressionChord> = object({
  above: whole('The root of a chord, in half steps above the chart’s,', 0, 11),
  suffix: string().max(MOST_SIGNS, 'A chord is written with too many signs.').defined(),
  degrees: array(
    string()
      .required()
      .test('degree', 'A note of a chord is not known.', (d) => d === undefined || parseDegree(d).ok),
  )
    .min(1, 'A chord has no note.')
    .max(MOST_TONES, 'A chord has too many notes.')
    .required(),
  bass: whole('The bass note of a chord, in half steps above its root,', 1, 11).nullable().defined(),
}).noUnknown();
const scaleAboveSchema: SchemaOf<ScaleAbove> = object({
  scale: scaleSchema('The scale over a chord', 'The scale over a chord is not known: pick one by name.'),
  above: whole('The root of the scale over a chord, in half steps above the chart’s,', 0, 11),
}).noUnknown();
const scalesSchema = mixed<Writable<Progression['scales']>>(isFieldsOf)
  .meta({ each: scaleAboveSchema })
  .required('The scales over the chords are missing.')
  .test('scales', 'A scale over a chord is not known.', (scales, context) => {
    for (const scale of Object.values(scales ?? {})) {
      const read = validate<ScaleAbove>(scaleAboveSchema, scale);
      if (!read.ok) return wrongAt(context, read.error.field, read.error.message);
    }
    return Object.keys(scales ?? {}).length <= PROGRESSION_LIMITS.bars;
  });
const progressionSchema: SchemaOf<Progression> = object({
  type: one(['progression'] as const),
  beats: whole('The beats of a bar', ...PROGRESSION_LIMITS.beats),
  bars: array(
    array(chordSchema.required()).min(1, 'A bar has no chord.').max(PROGRESSION_LIMITS.chords).required(),
  )
    .min(1, 'A progression has no bar.')
    .max(PROGRESSION_LIMITS.bars, `A progression has at most ${PROGRESSION_LIMITS.bars} bars.`)
    .required(),
  scales: scalesSchema,
}).noUnknown();

export const chordPart = {
  name: 'chords',
  schema: typedSchema<ChordPart>({ progression: progressionSchema }, 'What is kept of chords is not known.'),
  upgrade: (was: Fields): unknown => was,
  word: { write: chordPartWord, read: chordPartFrom },
} satisfies PartKind<ChordPart>;
