import { array, mixed, object } from 'yup';
import { type ChartChange, type ChartDraft, type ChartLook } from './chart.ts';
import { isFields, isFieldsOf } from './document/fields.ts';
import { readDocument } from './document/read.ts';
import { type ChartState } from './document/state.ts';
import { frontSchema, nameOf, type SchemaOf, text, whole, type Writable } from './fields.ts';
import { CHART_BYTES, CHART_LIMITS } from './limits.ts';
import { type Checked } from './checked.ts';
import { validate } from './validate.ts';

/** A state that was read already. */
const readState = mixed<Writable<ChartState>>(isFieldsOf)
  .meta({ is: 'fields' })
  .required('The chart itself is missing.');

export const draftSchema: SchemaOf<ChartDraft> = object({
  name: nameOf('The name', 'Give the chart a name.', CHART_LIMITS.name),
  tags: array(nameOf('A tag', 'A tag is empty.', CHART_LIMITS.tag))
    .max(CHART_LIMITS.tags, `A chart has at most ${CHART_LIMITS.tags} tags.`)
    .required('The tags are missing.'),
  notes: text('The notes', CHART_LIMITS.notes).defined('The notes are missing.'),
  state: readState,
}).noUnknown();

const changeSchema: SchemaOf<ChartChange> = draftSchema.shape({
  revision: whole('The revision', 0, Number.MAX_SAFE_INTEGER),
});

export const lookSchema: SchemaOf<ChartLook> = object({ front: frontSchema() }).noUnknown();

/** How large a chart is: what a player wrote of it, whatever goes with it. */
const bytesOf = ({ name, tags, notes, state }: ChartDraft): number =>
  new TextEncoder().encode(JSON.stringify({ name, tags, notes, state })).length;
const TOO_LARGE: Checked<never> = {
  ok: false,
  error: {
    code: 'too-large',
    message: `This chart is larger than ${CHART_BYTES / 1000} kB, the most that can be kept: shorten its notes, or take kept climbs out.`,
  },
};

/** Reads what holds a chart's state, of any version, under `state`. */
export function readWithState<T>(schema: SchemaOf<T>, data: unknown): Checked<T> {
  if (!isFields(data) || data['state'] === undefined) return validate<T>(schema, data);
  const state = readDocument(data['state']);
  if (!state.ok) {
    const { field } = state.error;
    return { ok: false, error: { ...state.error, field: field ? `state.${field}` : 'state' } };
  }
  const read = validate<T>(schema, { ...data, state: state.value });
  return read.ok && bytesOf(read.value as ChartDraft) > CHART_BYTES ? TOO_LARGE : read;
}

export const readDraft = (data: unknown): Checked<ChartDraft> => readWithState<ChartDraft>(draftSchema, data);
export const readChange = (data: unknown): Checked<ChartChange> =>
  readWithState<ChartChange>(changeSchema, data);
