import './locale.ts';
import { object, string } from 'yup';
import { type SchemaOf, text } from './fields.ts';
import { CHART_LIMITS } from './limits.ts';
import { type LogQuery } from './log.ts';
import { ROUND_LIMITS } from './practice.ts';
import { daySchema } from './recall/schema.ts';

const isDay = (day: string | undefined): boolean => !day || daySchema.isValidSync(day, { strict: true });
const dayOrAny = string().defined().test('day', 'A day is written as 2026-06-01.', isDay);

/** A part of the log as it is asked for. */
export const logQuerySchema: SchemaOf<LogQuery> = object({
  from: dayOrAny,
  to: dayOrAny,
  chart: text('The chart', 40).defined(),
  what: text('What was done', ROUND_LIMITS.drill).defined(),
  tag: text('The tag', CHART_LIMITS.tag).defined(),
}).noUnknown();
