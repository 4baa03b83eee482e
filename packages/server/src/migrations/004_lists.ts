import { type Knex } from 'knex';

/** Where the library is replaced as a whole, its words are as well. */
const ONE_BY_ONE = `WHEN NOT EXISTS (SELECT 1 FROM facts WHERE name = 'replacing')`;

/**
 * Lists are answered from an index of the charts, made from their documents: `indexed` says by which version of it, and a change
 * of a chart takes that away. Words are found in three letters or more of them (FTS5's trigrams). Instruments count their changes
 * as charts do, and a visit is a browser that gave the passcode.
 */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('charts', (t) => {
    t.integer('indexed').notNullable().defaultTo(0);
  });
  await db.schema.alterTable('instruments', (t) => {
    t.integer('revision').notNullable().defaultTo(1);
  });
  for (const statement of [
    `CREATE INDEX charts_changed ON charts (updated_at DESC, id) WHERE deleted_at IS NULL`,
    `CREATE INDEX charts_made ON charts (created_at DESC, id) WHERE deleted_at IS NULL`,
    `CREATE INDEX charts_deleted ON charts (deleted_at) WHERE deleted_at IS NOT NULL`,
    `CREATE INDEX charts_stale ON charts (id) WHERE indexed = 0`,
    `CREATE TRIGGER charts_are_stale AFTER UPDATE OF name, tags, notes, state ON charts
       BEGIN UPDATE charts SET indexed = 0 WHERE id = new.id; END`,
    `CREATE TABLE chart_index (
       number INTEGER PRIMARY KEY,
       chart_id TEXT NOT NULL UNIQUE REFERENCES charts (id) ON DELETE CASCADE,
       reason TEXT, root TEXT NOT NULL, scale TEXT NOT NULL, sort_name TEXT NOT NULL,
       shown TEXT NOT NULL, words TEXT NOT NULL)`,
    `CREATE INDEX chart_index_by_name ON chart_index (sort_name, chart_id)`,
    `CREATE INDEX chart_index_by_key ON chart_index (root, sort_name, chart_id)`,
    `CREATE INDEX chart_index_by_scale ON chart_index (scale)`,
    `CREATE INDEX chart_index_unreadable ON chart_index (chart_id) WHERE reason IS NOT NULL`,
    `CREATE TABLE chart_tags (
       tag TEXT NOT NULL, chart_id TEXT NOT NULL REFERENCES charts (id) ON DELETE CASCADE,
       PRIMARY KEY (tag, chart_id)) WITHOUT ROWID`,
    `CREATE INDEX chart_tags_by_chart ON chart_tags (chart_id)`,
    `CREATE TABLE chart_instruments (
       instrument_id TEXT NOT NULL, chart_id TEXT NOT NULL REFERENCES charts (id) ON DELETE CASCADE,
       PRIMARY KEY (instrument_id, chart_id)) WITHOUT ROWID`,
    `CREATE INDEX chart_instruments_by_chart ON chart_instruments (chart_id)`,
    `CREATE VIRTUAL TABLE chart_words USING fts5 (words, tokenize = 'trigram', content = 'chart_index', content_rowid = 'number')`,
    `CREATE TRIGGER chart_words_made AFTER INSERT ON chart_index ${ONE_BY_ONE}
       BEGIN INSERT INTO chart_words (rowid, words) VALUES (new.number, new.words); END`,
    `CREATE TRIGGER chart_words_gone AFTER DELETE ON chart_index ${ONE_BY_ONE}
       BEGIN INSERT INTO chart_words (chart_words, rowid, words) VALUES ('delete', old.number, old.words); END`,
    `CREATE TRIGGER chart_words_changed AFTER UPDATE ON chart_index BEGIN
       INSERT INTO chart_words (chart_words, rowid, words) VALUES ('delete', old.number, old.words);
       INSERT INTO chart_words (rowid, words) VALUES (new.number, new.words); END`,
  ])
    await db.raw(statement);
  await db.schema.createTable('visits', (t) => {
    t.string('token').primary();
    t.string('until').notNullable();
  });
}

export async function down(db: Knex): Promise<void> {
  for (const table of ['visits', 'chart_words', 'chart_instruments', 'chart_tags', 'chart_index'])
    await db.schema.dropTable(table);
  await db.raw('DROP TRIGGER charts_are_stale');
  for (const index of ['changed', 'made', 'deleted', 'stale']) await db.raw(`DROP INDEX charts_${index}`);
  await db.schema.alterTable('charts', (t) => t.dropColumn('indexed'));
  await db.schema.alterTable('instruments', (t) => t.dropColumn('revision'));
}
