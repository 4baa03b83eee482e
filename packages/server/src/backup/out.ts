import { BACKUP_VERSION, type Chart, type RawRow } from '@crow-ladder/contract';
import { BACKUP_FORMAT } from '@crow-ladder/contract/schemas';
import { type Knex } from 'knex';
import { knownShapes, readSettings } from '../library.ts';
import { eachRound } from '../practice.ts';
import { eachCard, eachReview } from '../recall.ts';
import { eachRow, liveInstruments, toChart, toInstrument } from '../rows.ts';
import { iso } from '../world.ts';

/** A list as JSON, a few entries at a time. */
async function* listed(name: string, entries: AsyncIterable<readonly unknown[]>): AsyncGenerator<string> {
  let between = '';
  yield `,\n"${name}":[`;
  for await (const some of entries) {
    if (some.length) yield between + some.map((it) => JSON.stringify(it)).join(',\n');
    if (some.length) between = ',\n';
  }
  yield ']';
}

/** The whole library as the JSON of a backup, piece by piece. `on` reads one state of it from beginning to end. */
export async function* backupOf(on: Knex): AsyncGenerator<string> {
  const head = { format: BACKUP_FORMAT, version: BACKUP_VERSION, madeAt: iso(Date.now()) };
  yield JSON.stringify(head).slice(0, -1);
  const unreadable: RawRow[] = [];
  async function* charts(): AsyncGenerator<readonly Chart[]> {
    for await (const rows of eachRow(on)) {
      const read = rows.map((row) => ({ row, chart: toChart(row) }));
      unreadable.push(...read.flatMap(({ row, chart }) => (chart.ok ? [] : [{ ...row }])));
      yield read.flatMap(({ chart }) => (chart.ok ? [chart.value] : []));
    }
  }
  yield* listed('charts', charts());
  const rows = await liveInstruments(on).orderBy('updated_at', 'desc');
  const instruments = rows
    .map(toInstrument)
    .map(({ id, instrument, updatedAt }) => ({ id, instrument, updatedAt }));
  yield* listed('practice', eachRound(on));
  yield* listed('cards', eachCard(on));
  yield* listed('reviews', eachReview(on));
  const rest = { unreadable, instruments, settings: await readSettings(on), known: await knownShapes(on) };
  yield `,\n${JSON.stringify(rest).slice(1)}`;
}
