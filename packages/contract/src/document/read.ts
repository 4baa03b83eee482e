import { resolveScale } from '@crow-ladder/core';
import { type Checked } from '../checked.ts';
import { validate } from '../validate.ts';
import { type Fields, isFields } from './fields.ts';
import { instrumentPart, withLayout } from './parts/instrument.ts';
import { stateSchema } from './schema.ts';
import { type ChartState, NO_PARTS } from './state.ts';
import { upgrade1 } from './upgrade1.ts';
import { upgrade2 } from './upgrade2.ts';

/** One step for each version before today's, in order: the first brings version 1 to 2. */
const UPGRADES: readonly ((fields: Fields) => Fields)[] = [upgrade1, upgrade2];

/** Fields of today's version; or why they cannot be: `what` with no version that can be read, or of a later one. */
export function broughtUp(
  fields: Fields,
  version: unknown,
  upgrades: readonly ((fields: Fields) => Fields)[],
  what: string,
): { readonly fields: Fields } | { readonly refused: 'unreadable' | 'newer'; readonly message: string } {
  const newest = upgrades.length + 1;
  if (!Number.isInteger(version) || (version as number) < 1)
    return { refused: 'unreadable', message: `The version of this ${what} cannot be read.` };
  if ((version as number) > newest)
    return {
      refused: 'newer',
      message: `This ${what} has version ${String(version)}; this Crow Ladder reads up to version ${newest}. Update Crow Ladder first.`,
    };
  return {
    fields: upgrades.slice((version as number) - 1).reduce<Fields>((so, step) => step(so), fields),
  };
}

/**
 * Reads a chart of any version: the one way in for rows, request bodies, addresses and backups. Codes: `invalid`, with the
 * field that is wrong, and `newer` for a chart that a later Crow Ladder wrote.
 */
export function readDocument(json: unknown): Checked<ChartState> {
  if (!isFields(json)) return { ok: false, error: { code: 'invalid', message: 'This is not a chart.' } };
  const now = broughtUp(json, json['v'] === undefined ? 1 : json['v'], UPGRADES, 'chart');
  if ('refused' in now) {
    const code = now.refused === 'newer' ? 'newer' : 'invalid';
    return { ok: false, error: { code, field: 'v', message: now.message } };
  }
  const checked = validate<ChartState>(stateSchema, withParts({ ...NO_PARTS, ...now.fields }));
  return checked.ok ? { ok: true, value: withScale(checked.value) } : checked;
}

/** A chart with its parts as they are written today. */
function withParts(chart: Fields): Fields {
  const { others } = chart;
  const today = (it: unknown): unknown => (isFields(it) ? instrumentPart.upgrade(it) : it);
  return { ...withLayout(chart), others: Array.isArray(others) ? others.map(today) : others };
}

/** A chart whose scale has the id of today. */
function withScale({ key, ...rest }: ChartState): ChartState {
  const scale = resolveScale(key.scale);
  return { ...rest, key: { ...key, scale: scale.ok ? scale.value.id : key.scale } };
}
