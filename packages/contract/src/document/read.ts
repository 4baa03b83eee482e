import { layoutOf, resolveScale } from '@crow-ladder/core';
import { type Checked } from '../checked.ts';
import { validate } from '../validate.ts';
import { stateSchema } from './schema.ts';
import { type ChartState, DOCUMENT_VERSION, NO_PARTS } from './state.ts';
import { type Fields, upgrade1 } from './upgrade1.ts';

/** One step for each version before today's, in order: the first brings version 1 to 2. */
const UPGRADES: readonly ((fields: Fields) => Fields)[] = [upgrade1];

export const isFields = (json: unknown): json is Fields =>
  typeof json === 'object' && json !== null && !Array.isArray(json);

/**
 * Reads a chart of any version: the one way in for rows, request bodies, addresses and backups. Codes: `invalid`, with the
 * field that is wrong, and `newer` for a chart that a later Crow Ladder wrote.
 */
export function readDocument(json: unknown): Checked<ChartState> {
  if (!isFields(json)) return { ok: false, error: { code: 'invalid', message: 'This is not a chart.' } };
  const version = json['v'] === undefined ? 1 : json['v'];
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    return {
      ok: false,
      error: { code: 'invalid', field: 'v', message: 'The version of the chart cannot be read.' },
    };
  if (version > DOCUMENT_VERSION)
    return {
      ok: false,
      error: {
        code: 'newer',
        field: 'v',
        message: `This chart has version ${version}; this Crow Ladder reads up to version ${DOCUMENT_VERSION}. Update Crow Ladder first.`,
      },
    };
  const newest = UPGRADES.slice(version - 1).reduce<Fields>((fields, step) => step(fields), json);
  const checked = validate<ChartState>(stateSchema, { ...NO_PARTS, ...newest });
  return checked.ok ? { ok: true, value: current(checked.value) } : checked;
}

/** A chart with the ids of today in place of those of before. */
function current(state: ChartState): ChartState {
  const scale = resolveScale(state.key.scale);
  const { kind } = layoutOf(state.layout.kind)!;
  const id = scale.ok ? scale.value.id : state.key.scale;
  if (id === state.key.scale && kind === state.layout.kind) return state;
  return { ...state, key: { ...state.key, scale: id }, layout: { ...state.layout, kind } };
}
