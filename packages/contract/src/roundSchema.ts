import { TEMPO } from '@crow-ladder/core/run';
import { boolean, number, object } from 'yup';
import { idSchema, nameOf, type SchemaOf, stamp, whole } from './fields.ts';
import { type KeptRound, ROUND_LIMITS, type RoundQuery } from './practice.ts';

const words = {
  drill: nameOf('The drill', 'Say which drill was played.', ROUND_LIMITS.drill),
  shape: nameOf('The shape', 'Say what it was played on.', ROUND_LIMITS.shape),
  perBeat: number().oneOf([1, 2, 3, 4, 6], 'Notes a beat are 1, 2, 3, 4 or 6.').required(),
};
export const roundQuerySchema: SchemaOf<RoundQuery> = object(words).noUnknown();
const round = {
  id: idSchema,
  at: stamp,
  ...words,
  name: nameOf('The name', 'Say what was played.', ROUND_LIMITS.name),
  tempo: whole('The tempo', TEMPO.least, TEMPO.most),
  clean: boolean().strict().required('Say whether it was clean.'),
};
export const keptRoundSchema: SchemaOf<KeptRound> = object(round).noUnknown();
