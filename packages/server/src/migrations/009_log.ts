import { type Knex } from 'knex';

/** Rounds tell when they count, how long they were, what they were played on, and what was noted; answers tell of strings. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('practice', (t) => t.dropIndex(['drill', 'shape', 'per_beat', 'at']));
  await db.schema.renameTable('practice', 'practice_before');
  await db.schema.createTable('practice', (t) => {
    t.string('id').primary();
    t.string('at').notNullable();
    t.string('day').notNullable();
    t.string('drill').notNullable();
    t.string('shape').notNullable();
    t.string('name').notNullable();
    t.integer('per_beat');
    t.integer('tempo');
    t.boolean('clean');
    t.integer('ms').notNullable();
    t.string('chart_id');
    t.string('chart_name');
    t.string('root');
    t.string('scale');
    t.integer('start');
    t.text('back');
    t.text('note').notNullable();
    t.index(['drill', 'shape', 'per_beat', 'at']);
    t.index(['day', 'at']);
    t.index(['chart_id', 'day']);
  });
  // A day begins at four in the morning; where the player was is not known.
  await db.raw(`
    INSERT INTO practice (id, at, day, drill, shape, name, per_beat, tempo, clean, ms, note)
    SELECT id, at, coalesce(strftime('%Y-%m-%d', at, '-4 hours'), substr(at, 1, 10)),
      drill, shape, name, per_beat, tempo, clean, 0, ''
    FROM practice_before ORDER BY rowid`);
  await db.schema.dropTable('practice_before');
  await db.schema.alterTable('reviews', (t) => {
    t.integer('strings').notNullable().defaultTo(0);
    t.integer('missed').notNullable().defaultTo(0);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('reviews', (t) => {
    t.dropColumn('strings');
    t.dropColumn('missed');
  });
  await db.schema.alterTable('practice', (t) => {
    t.dropIndex(['day', 'at']);
    t.dropIndex(['chart_id', 'day']);
    for (const column of ['day', 'ms', 'chart_id', 'chart_name', 'root', 'scale', 'start', 'back', 'note'])
      t.dropColumn(column);
  });
}
