import './locale.ts';
import {
  checkInstrument,
  DEFAULT_INSTRUMENT,
  type Instrument,
  type LayoutSpec,
  LIMITS,
  parseNote,
  pitchClass,
  resolveScale,
} from '@crow-ladder/core';
import { array, boolean, lazy, mixed, number, object, type Schema, string } from 'yup';

/** What a chart shows: everything that the sentence above the neck says. */
export interface ChartState {
  /** Plain note name: "F#". */
  readonly root: string;
  /** Id of a catalogue scale, or `own:` and degrees. */
  readonly scale: string;
  /** The root spot. */
  readonly string: number;
  readonly fret: number;
  readonly layout: LayoutSpec;
  /** Kept with the chart, so that it stays true when the player's instrument changes or goes. */
  readonly instrument: Instrument;
  /** The player's instrument that it was taken from, if any. */
  readonly instrumentId: string | null;
}

/** What a player types about a chart. */
export interface ChartDraft {
  readonly name: string;
  readonly tags: readonly string[];
  /** Plain text. */
  readonly notes: string;
  readonly state: ChartState;
}

/** A chart as kept. `revision` counts its changes, so that two tabs cannot overwrite each other unseen. */
export interface Chart extends ChartDraft {
  readonly id: string;
  readonly revision: number;
  readonly createdAt: string;
  readonly updatedAt: string;
}

export const CHART_LIMITS = { name: 80, tag: 30, tags: 12, notes: 20_000 } as const;

const whole = (what: string, low: number, high: number) =>
  number()
    .strict()
    .typeError(`${what} is a whole number from ${low} to ${high}.`)
    .integer(`${what} is a whole number from ${low} to ${high}.`)
    .min(low, `${what} is at least ${low}.`)
    .max(high, `${what} is at most ${high}.`)
    .required(`${what} is missing.`);

const kind = (name: string) => string().oneOf([name]).required();

const LAYOUT_SCHEMAS: Readonly<Record<LayoutSpec['kind'], Schema>> = {
  count: object({
    kind: kind('count'),
    counts: array(whole('The number of notes on a string', 1, 6))
      .min(1, 'Say how many notes stay on a string.')
      .max(LIMITS.strings[1])
      .required(),
  }).noUnknown(),
  reach: object({ kind: kind('reach'), reach: whole('The reach', 2, 6) }).noUnknown(),
  diagonal: object({ kind: kind('diagonal') }).noUnknown(),
  inPosition: object({
    kind: kind('inPosition'),
    school: string().oneOf(['index', 'little']).required(),
    every: boolean().strict().required(),
  }).noUnknown(),
  single: object({ kind: kind('single'), string: whole('The string', 1, LIMITS.strings[1]) }).noUnknown(),
  pair: object({ kind: kind('pair'), lower: whole('The lower string', 1, LIMITS.strings[1]) }).noUnknown(),
  relay: object({
    kind: kind('relay'),
    notes: whole('The notes of a leg', 1, 72),
    perString: whole('The notes per string', 1, 6),
  }).noUnknown(),
  skip: object({
    kind: kind('skip'),
    perString: whole('The notes on a string', 2, 5),
    from: number().oneOf([0, 1]).required(),
    altered: array(
      object({ degree: whole('The degree', 0, 11), by: number().oneOf([-1, 1]).required() }).noUnknown(),
    )
      .max(12)
      .required(),
  }).noUnknown(),
  regions: object({ kind: kind('regions'), boundary: whole('The boundary fret', 3, 15) }).noUnknown(),
  fourths: object({ kind: kind('fourths') }).noUnknown(),
};

export const layoutSchema = lazy((value: unknown) => {
  const named = (value as { kind?: unknown } | null)?.kind;
  const schema =
    typeof named === 'string' && Object.hasOwn(LAYOUT_SCHEMAS, named)
      ? LAYOUT_SCHEMAS[named as LayoutSpec['kind']]
      : undefined;
  return (schema ??
    mixed().test('layout', 'This layout is not known: pick one from the list.', () => false)) as Schema;
});

/** A text of a person's, named in what is said of it. */
export const text = (what: string, max: number) =>
  string().strict().typeError(`${what} is text.`).max(max, `${what} is at most ${max} characters long.`);

export const instrumentSchema = object({
  name: text('The name', CHART_LIMITS.name)
    .trim('The name begins or ends with a space.')
    .required('Give the instrument a name.'),
  tuning: array(whole('A string’s pitch', LIMITS.midi[0], LIMITS.midi[1])).required('The tuning is missing.'),
  frets: whole('The number of frets', LIMITS.frets[0], LIMITS.frets[1]),
  scaleLength: number()
    .typeError(`The scale length is ${LIMITS.scaleLength[0]} to ${LIMITS.scaleLength[1]} mm.`)
    .min(LIMITS.scaleLength[0], `The scale length is at least ${LIMITS.scaleLength[0]} mm.`)
    .max(LIMITS.scaleLength[1], `The scale length is at most ${LIMITS.scaleLength[1]} mm.`)
    .required('The scale length is missing.'),
  capo: whole('The capo', 0, LIMITS.frets[1] - LIMITS.frets[0]),
  handed: string().oneOf(['right', 'left'], 'An instrument is right- or left-handed.').required(),
  wound: whole('The number of wound strings', 0, LIMITS.strings[1]),
})
  .noUnknown()
  .test('instrument', 'This instrument cannot be.', (value, context) => {
    const checked = checkInstrument(value as Instrument);
    return (
      checked.ok ||
      context.createError({
        path: `${context.path ? `${context.path}.` : ''}${checked.error.code.split('.')[1]}`,
        message: checked.error.message,
      })
    );
  });

const noteTest = (value: string | undefined): boolean => value !== undefined && parseNote(value).ok;

export const stateSchema = object({
  root: text('The root', 4)
    .required('The root is missing.')
    .test('note', 'The root is a note A to G with # or b, such as F#.', noteTest),
  scale: text('The scale', 120)
    .required('The scale is missing.')
    .test(
      'scale',
      'This scale is not known: pick one by name, or type its formula.',
      (v) => v === undefined || resolveScale(v).ok,
    ),
  string: whole('The string', 1, LIMITS.strings[1]),
  fret: whole('The fret', 0, LIMITS.frets[1]),
  layout: layoutSchema,
  instrument: instrumentSchema.required(),
  instrumentId: string().nullable().defined(),
})
  .noUnknown()
  .test('spot', 'The root lies off the neck.', (value, context) => {
    const { tuning, frets, capo } = value.instrument;
    // What is wrong by itself is told by its own field.
    const sound =
      Number.isInteger(value.string) && Number.isInteger(value.fret) && checkInstrument(value.instrument).ok;
    if (!sound) return true;
    if (value.string > tuning.length)
      return context.createError({
        path: 'state.string',
        message: `This instrument has ${tuning.length} strings.`,
      });
    if (value.fret > frets - capo)
      return context.createError({ path: 'state.fret', message: `The last fret is ${frets - capo}.` });
    const root = parseNote(value.root);
    const sounds = (tuning[tuning.length - value.string]! + capo + value.fret) % 12;
    return (
      !root.ok ||
      pitchClass(root.value) === sounds ||
      context.createError({
        path: 'state.fret',
        message: `String ${value.string} fret ${value.fret} does not sound ${value.root}.`,
      })
    );
  });

export const draftSchema = object({
  name: text('The name', CHART_LIMITS.name)
    .required('Give the chart a name.')
    .test('blank', 'Give the chart a name.', (v) => v === undefined || v.trim() !== ''),
  tags: array(text('A tag', CHART_LIMITS.tag).required('A tag is empty.'))
    .max(CHART_LIMITS.tags, `A chart has at most ${CHART_LIMITS.tags} tags.`)
    .required(),
  notes: text('The notes', CHART_LIMITS.notes).defined('The notes are missing.'),
  state: stateSchema.required('The chart itself is missing.'),
}).noUnknown();

/** A change to a chart: the draft, and the revision that it was made from. */
export const changeSchema = draftSchema.shape({
  revision: whole('The revision', 1, Number.MAX_SAFE_INTEGER),
});

export interface ChartChange extends ChartDraft {
  readonly revision: number;
}

/** What the first visit shows when nothing else is asked for. */
export const FIRST_STATE: ChartState = {
  root: 'F#',
  scale: 'dorian',
  string: 6,
  fret: 2,
  layout: { kind: 'count', counts: [3] },
  instrument: { ...DEFAULT_INSTRUMENT, name: 'standard' },
  instrumentId: null,
};
