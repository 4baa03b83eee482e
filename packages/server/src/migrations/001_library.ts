import { type Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('charts', (t) => {
    t.string('id').primary();
    t.string('name').notNullable();
    t.text('tags').notNullable();
    t.text('notes').notNullable();
    t.text('state').notNullable();
    t.integer('revision').notNullable();
    t.string('created_at').notNullable();
    t.string('updated_at').notNullable();
    t.string('deleted_at');
  });
  await db.schema.createTable('instruments', (t) => {
    t.string('id').primary();
    t.text('instrument').notNullable();
    t.string('updated_at').notNullable();
    t.string('deleted_at');
  });
  // One row per fact about the library itself: the settings, and that the demo was loaded.
  await db.schema.createTable('facts', (t) => {
    t.string('name').primary();
    t.text('value').notNullable();
  });
}

export async function down(db: Knex): Promise<void> {
  for (const table of ['facts', 'instruments', 'charts']) await db.schema.dropTable(table);
}
