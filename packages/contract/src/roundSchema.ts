import { TEMPO } from '@crow-ladder/core/run';
import { MOST_DEGREES } from '@crow-ladder/core/kinds';
import { array, boolean, number, object } from 'yup';
import { CHART_LIMITS } from './limits.ts';
import { idSchema, nameOf, rootSchema, scaleSchema, type SchemaOf, stamp, text, whole } from './fields.ts';
import { type KeptRound, type PlayedOn, ROUND_LIMITS, type RoundQuery } from './practice.ts';
import { daySchema } from './recall/schema.ts';

const words = {
  drill: nameOf('The drill', 'Say which drill was played.', ROUND_LIMITS.drill),
  shape: nameOf('The shape', 'Say what it was played on.', ROUND_LIMITS.shape),
  perBeat: number()
    .strict()
    .nullable()
    .oneOf([1, 2, 3, 4, 6, null], 'Notes a beat are 1, 2, 3, 4 or 6.')
    .defined('Notes a beat are missing.'),
};
export const roundQuerySchema: SchemaOf<RoundQuery> = object(words).noUnknown();

const playedOnSchema: SchemaOf<PlayedOn> = object({
  chart: idSchema,
  chartName: text('The name of the chart', CHART_LIMITS.name).defined('The name of the chart is missing.'),
  root: rootSchema,
  scale: scaleSchema('The scale of a round', 'The scale of a round is not known.'),
  start: whole('The degree that a position begins on', 0, MOST_DEGREES - 1),
  back: text('The way back', ROUND_LIMITS.back).defined('The way back is missing.'),
}).noUnknown();
/** A note on a round. */
const note = text('The note', ROUND_LIMITS.note).defined('The note is missing.');
export const roundNoteSchema = object({ note }).noUnknown();
export const keptRoundSchema: SchemaOf<KeptRound> = object({
  id: idSchema,
  at: stamp,
  day: daySchema,
  ...words,
  name: nameOf('The name', 'Say what was played.', ROUND_LIMITS.name),
  tempo: whole('The tempo', TEMPO.least, TEMPO.most).nullable().defined('The tempo is missing.'),
  clean: boolean().strict().nullable().defined('Say whether it was clean.'),
  ms: whole('The length of a round in ms', 0, ROUND_LIMITS.ms),
  on: playedOnSchema.nullable().defined('Say what it was played on.'),
  note,
}).noUnknown();
/** Rounds of a log that was kept elsewhere. */
export const roundsSchema = object({
  rounds: array(keptRoundSchema.required())
    .max(ROUND_LIMITS.atATime, `At most ${ROUND_LIMITS.atATime} rounds are taken in at a time.`)
    .required('The rounds are missing.'),
}).noUnknown();
