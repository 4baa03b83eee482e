import { LIMITS } from '@crow-ladder/core';
import { MOST_DEGREES } from '@crow-ladder/core/kinds';
import { type PlanEnd } from '@crow-ladder/core/plan';
import { STRIKES } from '@crow-ladder/core/run';
import { array, boolean, mixed, object, type Schema } from 'yup';
import {
  nameOf,
  one,
  placeSchema,
  rootSchema,
  type SchemaOf,
  whole,
  type Writable,
  wrongAt,
} from '../../fields.ts';
import { validate } from '../../validate.ts';
import { type Fields, isFields, isFieldsOf } from '../fields.ts';
import { endFrom, endWord, PLAN_BOUNDS, planFrom, type PlanAsked, WAYS } from '../plan.ts';
import { type KeptClimb, type KeptPlan, type KeptRun, RUN_NAME, type UnreadRun } from '../run.ts';
import { runFrom, runWord } from '../runWord.ts';
import { isClimb } from '../climbWord.ts';
import { type PartKind } from './part.ts';

const named = {
  name: nameOf('The name', 'A kept climb has no name.', RUN_NAME),
  at: placeSchema,
  root: rootSchema,
};
const climbSchema: SchemaOf<KeptClimb> = object({
  ...named,
  type: one(['climb'] as const),
  climb: mixed<Writable<KeptClimb['climb']>>(isFieldsOf)
    .meta({ is: 'climb' })
    .required('A kept climb is missing.')
    .test('climb', 'This climb is not known: choose it anew.', isClimb),
  direction: one(['up', 'down', 'both'] as const),
  topTwice: boolean().strict().required('Say whether the top note is played twice.'),
  touch: one(STRIKES.map((strike) => strike.id)),
  start: whole('The position’s first degree', 0, MOST_DEGREES - 1),
  low: whole('The position’s lowest fret', 0, LIMITS.frets[1]),
}).noUnknown();

const endSchema = mixed<Writable<PlanEnd>>(isFieldsOf)
  .meta({ is: 'end' })
  .required('An end of the plan is missing.')
  .test('end', 'This end of the plan is not known.', (end) => {
    try {
      return end !== undefined && endFrom(endWord(end as PlanEnd)) !== null;
    } catch {
      return false;
    }
  });
const planSchema: SchemaOf<PlanAsked> = object({
  from: endSchema,
  to: endSchema,
  back: boolean().strict().required('Say whether it comes back.'),
  reach: whole('The reach', ...PLAN_BOUNDS.reach),
  mm: whole('The span of the hand', ...PLAN_BOUNDS.mm),
  closed: mixed<true>((is): is is true => is === true)
    .meta({ is: 'true' })
    .optional(),
  strings: mixed<[number, number]>(
    (pair): pair is [number, number] => Array.isArray(pair) && pair.length === 2,
  )
    .meta({ is: 'strings' })
    .nullable()
    .defined()
    .test(
      'strings',
      'The strings of a plan are two numbers.',
      (pair) =>
        pair === null ||
        pair === undefined ||
        pair.every((s) => Number.isInteger(s) && s >= 1 && s <= LIMITS.strings[1]),
    ),
  least: whole('The fewest notes on a string', ...PLAN_BOUNDS.least),
  most: whole('The most notes on a string', ...PLAN_BOUNDS.most),
  ways: array(one(WAYS.map((way) => way.id))).required('The ways to shift are missing.'),
  shifts: whole('The number of shifts', ...PLAN_BOUNDS.shifts),
  tempo: whole('The tempo', ...PLAN_BOUNDS.tempo),
}).noUnknown();
const keptPlanSchema: SchemaOf<KeptPlan> = object({
  ...named,
  type: one(['plan'] as const),
  plan: planSchema.required('The plan is missing.'),
  pick: whole('The way that was picked', 0, 999),
}).noUnknown();
const unreadSchema: SchemaOf<UnreadRun> = object({
  type: one(['unread'] as const),
  was: mixed<Writable<UnreadRun['was']>>(isFieldsOf).meta({ is: 'fields' }).required(),
}).noUnknown();
const TYPES: Readonly<Record<string, Schema>> = {
  climb: climbSchema,
  plan: keptPlanSchema,
  unread: unreadSchema,
};

type Run = KeptRun | UnreadRun;
const read = (run: unknown) => {
  const schema = isFields(run) && typeof run['type'] === 'string' ? TYPES[run['type']] : undefined;
  return schema ? validate<Run>(schema as never, run) : null;
};
const runSchema = mixed<Writable<Run>>(isFieldsOf)
  .meta({ types: TYPES })
  .required('A kept climb is missing.')
  .test('run', 'This kept climb is of no kind that is known.', (run, context) => {
    const now = read(run);
    if (!now) return run === undefined;
    if (now.ok) return true;
    return wrongAt(context, now.error.field, now.error.message);
  });

/** A climb kept with a chart. Before version 3 a plan was the word of an address, and what stood there was not checked. */
export const runPart = {
  name: 'run',
  schema: runSchema,
  upgrade: (was: Fields, chart: Fields): unknown => {
    const at = (was['at'] ?? chart['at']) as KeptRun['at'] | undefined;
    const { root } = (isFields(chart['key']) ? chart['key'] : {}) as { readonly root?: string };
    const { slurred, low = 0, ...rest } = was;
    const shared = { at, root, ...rest };
    // Kept before the root was, it is counted from the chart's.
    const from = was['at'] === undefined ? Number(at?.fret) : 0;
    const now =
      was['type'] === 'plan'
        ? { pick: 0, ...shared, plan: typeof was['plan'] === 'string' ? planFrom(was['plan']) : null }
        : {
            direction: 'up',
            topTwice: false,
            touch: slurred ? 'slurred' : 'picked',
            ...shared,
            low: Number(low) + from,
          };
    return read(now)?.ok ? now : { type: 'unread', was };
  },
  word: { write: runWord, read: runFrom },
} satisfies PartKind<Run>;
