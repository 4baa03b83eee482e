import { number, object } from 'yup';
import './locale.ts';
import { one, text } from './fields.ts';
import { CHART_LIMITS, LIBRARY_LIMITS } from './limits.ts';
import { CHART_ORDERS, type ChartQuery } from './summary.ts';

/** Most characters of what is looked for. */
export const FIND_LIMIT = 200;

/** A page of charts as it is asked for. */
export const querySchema = object({
  find: text('What is looked for', FIND_LIMIT).defined(),
  tag: text('The tag', CHART_LIMITS.tag).defined(),
  order: one(CHART_ORDERS, `Charts are ordered by ${CHART_ORDERS.join(', ')}.`),
  from: number()
    .typeError('The first chart of a page is a whole number.')
    .integer('The first chart of a page is a whole number.')
    .min(0, 'The first chart of a page is at least 0.')
    .max(LIBRARY_LIMITS.charts, `The first chart of a page is at most ${LIBRARY_LIMITS.charts}.`)
    .required(),
}).noUnknown();
export type PageQuery = ChartQuery & { readonly from: number };
