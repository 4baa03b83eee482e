import { layoutOf, resolveScale } from '@crow-ladder/core';
import { type Checked } from '../checked.ts';
import { validate } from '../validate.ts';
import { stateSchema } from './schema.ts';
import { type ChartState, NO_PARTS } from './state.ts';
import { type Fields, upgrade1 } from './upgrade1.ts';

/** One step for each version before today's, in order: the first brings version 1 to 2. */
const UPGRADES: readonly ((fields: Fields) => Fields)[] = [upgrade1];

export const isFields = (json: unknown): json is Fields =>
  typeof json === 'object' && json !== null && !Array.isArray(json);

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
  const checked = validate<ChartState>(stateSchema, { ...NO_PARTS, ...now.fields });
  return checked.ok ? { ok: true, value: current(checked.value) } : checked;
}

/** A chart with the ids of today in place of those of before. */
function current({ key, layout, others, ...rest }: ChartState): ChartState {
  const named = <T extends { readonly kind: string }>(it: T): T => ({ ...it, kind: layoutOf(it.kind)!.kind });
  const scale = resolveScale(key.scale);
  return {
    ...rest,
    key: { ...key, scale: scale.ok ? scale.value.id : key.scale },
    layout: named(layout),
    others: others.map((o) => ({ ...o, layout: named(o.layout) })),
  };
}
