import {
  type KeptRound,
  type Practised,
  type PractisedThing,
  type RoundQuery,
  SHOWN,
} from '@crow-ladder/contract';
import { type Knex } from 'knex';
import { eachOf } from './rows.ts';
import { type RoundRow } from './tables.ts';

export const toRound = ({ per_beat: perBeat, clean, ...row }: RoundRow): KeptRound => ({
  ...row,
  perBeat,
  clean: clean === 1,
});
export const roundRow = ({ perBeat, clean, ...round }: KeptRound): RoundRow => ({
  ...round,
  per_beat: perBeat,
  clean: clean ? 1 : 0,
});

/** Keeps a round. */
export async function addRound(round: KeptRound, on: Knex): Promise<void> {
  await on('practice').insert(roundRow(round));
}

/** What the log holds of one thing. */
export async function practised({ drill, shape, perBeat }: RoundQuery, on: Knex): Promise<Practised> {
  const all = () => on('practice').where({ drill, shape, per_beat: perBeat });
  const [{ best }] = (await all().where({ clean: 1 }).max({ best: 'tempo' })) as [{ best: number | null }];
  const rows = await all()
    .orderBy([
      { column: 'at', order: 'desc' },
      { column: 'rowid', order: 'desc' },
    ])
    .limit(SHOWN.rounds);
  return { best, rounds: rows.map(toRound) };
}

/** What was practised, the last first. */
export async function practisedThings(on: Knex): Promise<readonly PractisedThing[]> {
  const rows = (await on('practice')
    .select('drill', 'shape', { perBeat: 'per_beat' }, 'name')
    .max({ last: 'at' })
    .max({ best: on.raw('CASE WHEN clean THEN tempo END') })
    .count({ rounds: '*' })
    .groupBy('drill', 'shape', 'per_beat')
    .orderBy('last', 'desc')
    .limit(SHOWN.things)) as PractisedThing[];
  return rows;
}

/** The whole log in the order in which it was kept, some rounds at a time. */
export const eachRound = (on: Knex) => eachOf(on, 'practice', toRound);
