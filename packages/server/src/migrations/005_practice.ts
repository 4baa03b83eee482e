import { type Knex } from 'knex';

/** The log of practice: a row a round, found again by what was played. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('practice', (t) => {
    t.string('id').primary();
    t.string('at').notNullable();
    t.string('drill').notNullable();
    t.string('shape').notNullable();
    t.string('name').notNullable();
    t.integer('per_beat').notNullable();
    t.integer('tempo').notNullable();
    t.boolean('clean').notNullable();
    t.index(['drill', 'shape', 'per_beat', 'at']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('practice');
}
