import { type Knex } from 'knex';

/** What is to be remembered: cards in the order in which they are learned, each with how it is remembered by now, and every answer. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('cards', (t) => {
    t.increments('number');
    t.string('id').notNullable().unique();
    t.string('kind').notNullable();
    t.text('card').notNullable();
    t.string('name').notNullable();
    t.string('made').notNullable();
    t.boolean('rested').notNullable();
    t.text('remembered');
    t.string('due');
    t.string('first');
    t.index(['rested', 'due', 'number']);
    t.index('first');
  });
  await db.schema.createTable('reviews', (t) => {
    t.increments('number');
    t.string('id').notNullable().unique();
    t.string('card_id').notNullable().references('cards.id').onDelete('CASCADE');
    t.string('kind').notNullable();
    t.string('at').notNullable();
    t.string('day').notNullable();
    t.integer('grade').notNullable();
    t.integer('ms').notNullable();
    t.index(['card_id', 'number']);
    t.index(['kind', 'number']);
    t.index('day');
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('reviews');
  await db.schema.dropTable('cards');
}
