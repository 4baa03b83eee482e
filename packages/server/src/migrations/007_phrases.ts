import { type Knex } from 'knex';

/** The phrases of all charts, made with their index: found by words, by how far their notes lie above the root, and by how long each sounds. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('chart_phrases', (t) => {
    t.string('chart_id').notNullable().references('charts.id').onDelete('CASCADE');
    t.integer('at').notNullable();
    t.text('words').notNullable();
    t.text('phrase').notNullable();
    t.integer('notes').notNullable();
    t.text('line').notNullable();
    t.integer('ticks').notNullable();
    for (let above = 0; above < 12; above++) t.integer(`above_${above}`).notNullable();
    t.primary(['chart_id', 'at']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('chart_phrases');
}
