import { type Demo } from '@crow-ladder/contract';
import { type Knex } from 'knex';
import { remember } from './recall.ts';
import { json, liveCharts, liveInstruments } from './rows.ts';

/** What the ids of the demo's rounds and answers begin with. */
export const DEMO = 'demo-';

interface DemoFact {
  readonly charts?: readonly string[];
  readonly instruments?: readonly string[];
  readonly cards?: readonly string[];
}
async function demoFact(on: Knex): Promise<DemoFact> {
  const fact = await on('facts').where({ name: 'demo' }).first();
  return (json(fact?.value ?? '') ?? {}) as DemoFact;
}
/** Whether anything was practised, learned or recalled that is not the demo's. */
export async function isPlayed(on: Knex): Promise<boolean> {
  const { cards = [] } = await demoFact(on);
  const own = [
    on('practice').whereNot('id', 'like', `${DEMO}%`),
    on('reviews').whereNot('id', 'like', `${DEMO}%`),
    on('cards').whereNotIn('id', cards),
  ];
  for (const of of own) if (await (of as Knex.QueryBuilder).first('id')) return true;
  return false;
}
/** Takes the demo's rounds and answers out of the log for good, and its cards but for those that the player answered. */
export async function clearDemoLog(on: Knex): Promise<void> {
  const { cards = [] } = await demoFact(on);
  await on('practice').where('id', 'like', `${DEMO}%`).delete();
  await on('reviews').where('id', 'like', `${DEMO}%`).delete();
  const answered = on('reviews').select('card_id');
  await on('cards').whereIn('id', cards).whereNotIn('id', answered).delete();
  for (const id of cards) await remember(id, on);
}

/** Charts and instruments of the demo that are there as they were loaded. */
async function demoRows(on: Knex) {
  const ids = await demoFact(on);
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

/** Puts what is left of the demo's charts and instruments into the bin, as deleted at a time, and takes its log away. */
export async function clearDemo(on: Knex, at: string): Promise<Demo> {
  const { charts, instruments } = await demoRows(on);
  const deleted = { deleted_at: at };
  await clearDemoLog(on);
  return { charts: await charts.update(deleted), instruments: await instruments.update(deleted) };
}
