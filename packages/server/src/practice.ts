import {
  type KeptRound,
  type PlayedOn,
  type Practised,
  type PractisedThing,
  type RoundQuery,
  SHOWN,
} from '@crow-ladder/contract';
import { type Knex } from 'knex';
import { eachOf } from './rows.ts';
import { type RoundRow } from './tables.ts';

type OnColumns = Pick<RoundRow, 'chart_id' | 'chart_name' | 'root' | 'scale' | 'start' | 'back'>;
const playedOn = (row: OnColumns): PlayedOn | null =>
  row.chart_id === null
    ? null
    : {
        chart: row.chart_id,
        chartName: row.chart_name!,
        root: row.root!,
        scale: row.scale!,
        start: row.start!,
        back: row.back!,
      };
export const toRound = (row: RoundRow): KeptRound => ({
  id: row.id,
  at: row.at,
  day: row.day,
  drill: row.drill,
  shape: row.shape,
  name: row.name,
  perBeat: row.per_beat,
  tempo: row.tempo,
  clean: row.clean === null ? null : row.clean === 1,
  ms: row.ms,
  on: playedOn(row),
  note: row.note,
});
export const roundRow = ({ perBeat, clean, on, ...round }: KeptRound): RoundRow => ({
  ...round,
  per_beat: perBeat,
  clean: clean === null ? null : clean ? 1 : 0,
  chart_id: on?.chart ?? null,
  chart_name: on?.chartName ?? null,
  root: on?.root ?? null,
  scale: on?.scale ?? null,
  start: on?.start ?? null,
  back: on?.back ?? null,
});

/** Keeps a round; one that is there gets what is said of it now. */
export async function addRound(round: KeptRound, on: Knex): Promise<void> {
  const { note, ...row } = roundRow(round);
  await on('practice')
    .insert({ ...row, note })
    .onConflict('id')
    .merge(row);
}

/** Rounds of one thing. */
export const roundsOf = ({ drill, shape, perBeat }: RoundQuery, on: Knex) =>
  on('practice').where({ drill, shape }).whereRaw('per_beat IS ?', [perBeat]);

/** The last first. */
export const LATEST = [
  { column: 'at', order: 'desc' },
  { column: 'rowid', order: 'desc' },
];
/** The fastest tempo of a thing that was clean. */
async function bestOf(asked: RoundQuery, on: Knex): Promise<number | null> {
  const [{ best }] = (await roundsOf(asked, on).where({ clean: 1 }).max({ best: 'tempo' })) as [
    { best: number | null },
  ];
  return best;
}

/** What the log holds of one thing. */
export async function practised(asked: RoundQuery, on: Knex): Promise<Practised> {
  const rows = await roundsOf(asked, on).orderBy(LATEST).limit(SHOWN.rounds);
  return { best: await bestOf(asked, on), rounds: rows.map(toRound) };
}

/** What was practised last; null before anything was. */
export async function practisedLast(on: Knex): Promise<PractisedThing | null> {
  const row = await on('practice').orderBy(LATEST).first();
  if (!row) return null;
  const { drill, shape, perBeat, name, at: last, on: where } = toRound(row);
  const asked = { drill, shape, perBeat };
  const [{ rounds }] = (await roundsOf(asked, on).count({ rounds: '*' })) as [{ rounds: number }];
  return { ...asked, name, last, rounds, best: await bestOf(asked, on), on: where };
}

/** What was practised, the last first. */
export async function practisedThings(on: Knex): Promise<readonly PractisedThing[]> {
  // With one maximum SQLite takes the other columns from the row that has it (its documentation, "bare columns in an aggregate query").
  const rows = (await on('practice')
    .select('drill', 'shape', 'per_beat', 'name')
    .select('chart_id', 'chart_name', 'root', 'scale', 'start', 'back')
    .max({ last: 'at' })
    .count({ rounds: '*' })
    .groupBy('drill', 'shape', 'per_beat')
    .orderBy('last', 'desc')
    .limit(SHOWN.things)) as (OnColumns &
    Pick<RoundRow, 'drill' | 'shape' | 'per_beat' | 'name'> & { last: string; rounds: number })[];
  const things: PractisedThing[] = [];
  for (const { drill, shape, per_beat: perBeat, name, last, rounds, ...columns } of rows) {
    const asked = { drill, shape, perBeat };
    things.push({ ...asked, name, last, rounds, best: await bestOf(asked, on), on: playedOn(columns) });
  }
  return things;
}

/** The whole log in the order in which it was kept, some rounds at a time. */
export const eachRound = (on: Knex) => eachOf(on, 'practice', toRound);
