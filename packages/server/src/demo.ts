import { type Demo } from '@crow-ladder/contract';
import { type Knex } from 'knex';
import { json, liveCharts, liveInstruments } from './rows.ts';

/** Charts and instruments of the demo that are there as they were loaded. */
async function demoRows(on: Knex) {
  const fact = await on('facts').where({ name: 'demo' }).first();
  const ids = (json(fact?.value ?? '') ?? {}) as { charts?: string[]; instruments?: string[] };
  const charts = liveCharts(on)
    .whereIn('id', ids.charts ?? [])
    .where({ revision: 1 });
  // An instrument that a chart of the player's own uses stays.
  const used = on('chart_instruments')
    .join('charts', 'charts.id', 'chart_id')
    .whereNull('deleted_at')
    .whereNot((demo) => void demo.whereIn('charts.id', ids.charts ?? []).where('charts.revision', 1))
    .select('instrument_id');
  const instruments = liveInstruments(on)
    .whereIn('id', ids.instruments ?? [])
    .whereNotIn('id', used);
  return { charts, instruments };
}

export async function demoLeft(on: Knex): Promise<Demo> {
  const { charts, instruments } = await demoRows(on);
  return { charts: (await charts).length, instruments: (await instruments).length };
}

/** Puts what is left of the demo into the bin, as deleted at a time. */
export async function clearDemo(on: Knex, at: string): Promise<Demo> {
  const { charts, instruments } = await demoRows(on);
  const deleted = { deleted_at: at };
  return { charts: await charts.update(deleted), instruments: await instruments.update(deleted) };
}
