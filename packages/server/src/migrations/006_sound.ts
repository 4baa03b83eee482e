import { type Knex } from 'knex';
import { CHART_COLUMNS, soundRow } from '../rows.ts';

/** How many rows are looked at at a time. */
const AT_A_TIME = 1000;

/**
 * A key is bound to what was asked for under it; keys of before are forgotten, as they would be a day later. Charts get an id, a
 * revision and dates that can be used, where a backup of before brought others.
 */
export async function up(db: Knex): Promise<void> {
  await db('answers').delete();
  await db.schema.alterTable('answers', (t) => {
    t.string('asked').notNullable().defaultTo('');
  });
  for (let after = 0; ;) {
    const rows = await db('charts')
      .where('rowid', '>', after)
      .orderBy('rowid')
      .limit(AT_A_TIME)
      .select(...CHART_COLUMNS, db.raw('rowid AS number'));
    if (!rows.length) return;
    for (const { number, ...row } of rows as ((typeof rows)[number] & { number: number })[]) {
      after = number;
      const sound = soundRow(row);
      const { id, revision, created_at, updated_at } = sound;
      if (CHART_COLUMNS.every((column) => row[column] === sound[column])) continue;
      for (const table of ['chart_index', 'chart_tags', 'chart_instruments'] as const)
        await db(table).where({ chart_id: row.id }).delete();
      await db('charts')
        .whereRaw('rowid = ?', [number])
        .update({ id, revision, created_at, updated_at, indexed: 0 });
    }
  }
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('answers', (t) => t.dropColumn('asked'));
}
