import { NUMBERING_SCHOOLS, resolveScale } from '@crow-ladder/core';
import { FINGERING_SCHOOLS, TEMPO } from '@crow-ladder/core/run';
import { array, boolean, number, object, string } from 'yup';
import { nameOf, one, type SchemaOf, whole } from './fields.ts';
import { SCALE_ID, SCALE_NAME, SPAN_MM } from './limits.ts';
import { GOALS, ROUND_LIMITS } from './practice.ts';
import { daySchema } from './recall/schema.ts';
import { roundQuerySchema } from './roundSchema.ts';
import { LABELS, type Settings, THEMES } from './settings.ts';

const isOwnScale = (id: string | undefined): boolean =>
  id === undefined || (id.startsWith('own:') && resolveScale(id).ok);

export const settingsSchema: SchemaOf<Settings> = object({
  theme: one(THEMES),
  spelling: one(['sharps', 'flats'] as const),
  numbering: one(['usual', ...NUMBERING_SCHOOLS.map((s) => s.id)] as const),
  fingering: one(FINGERING_SCHOOLS.map((s) => s.id)),
  spanMm: number()
    .typeError(`The span is a number of mm, ${SPAN_MM[0]} to ${SPAN_MM[1]}.`)
    .min(SPAN_MM[0], `The span is at least ${SPAN_MM[0]} mm.`)
    .max(SPAN_MM[1], `The span is at most ${SPAN_MM[1]} mm.`)
    .required('The span is missing.'),
  labels: one(LABELS),
  stringOnTop: one(['high', 'low'] as const),
  handed: one(['instrument', 'right', 'left'] as const),
  frets: one(['true', 'even'] as const),
  colours: one(['plain', 'degree'] as const),
  letterKeys: boolean().required(),
  seen: array(string().max(20).required()).max(20).required(),
  windowRecord: number()
    .integer('The record is a whole number of seconds.')
    .min(0, 'The record is at least 0 seconds.')
    .max(86_400, 'The record is at most a day.')
    .nullable()
    .defined('The record is missing.'),
  weekMinutes: whole('Minutes a week', GOALS.minutes[0], GOALS.minutes[1])
    .nullable()
    .defined('The minutes a week are missing.'),
  tempoGoals: array(
    roundQuerySchema
      .shape({
        name: nameOf('The name of a goal', 'Say what the goal is for.', ROUND_LIMITS.name),
        tempo: whole('The tempo', TEMPO.least, TEMPO.most),
        by: daySchema,
      })
      .noUnknown(),
  )
    .max(GOALS.tempos, `At most ${GOALS.tempos} tempos can be goals.`)
    .required(),
  favourites: array(string().max(SCALE_ID).required())
    .max(60, 'At most 60 scales can be favourites.')
    .required(),
  ownScales: array(
    object({
      id: string()
        .max(SCALE_ID)
        .required()
        .test('own', 'A scale of your own is spelled by its degrees.', (v) => isOwnScale(v)),
      name: nameOf('The name of a scale', 'Give the scale a name.', SCALE_NAME),
    }).noUnknown(),
  )
    .max(200, 'At most 200 scales of your own can bear a name.')
    .required(),
}).noUnknown();

/** What some of the settings become, and what they were where the change was made. */
export const settingsPatchSchema = object({
  from: settingsSchema.partial().required('Say what the settings were.'),
  to: settingsSchema.partial().required('Say what the settings become.'),
}).noUnknown();
