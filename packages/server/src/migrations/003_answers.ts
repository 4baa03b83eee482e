import { type Knex } from 'knex';

/** Answers to changes by the key that they came with: asked again after an answer was lost, the same one is given. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('answers', (table) => {
    table.string('key').primary();
    table.text('answer').notNullable();
    table.string('at').notNullable().index();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('answers');
}
