import { MOST_REVISION, type Restored } from '@crow-ladder/contract';
import { type Knex } from 'knex';
import { identifyAnew } from '../identity.ts';
import { transaction } from '../transaction.ts';
import { WORLD } from '../world.ts';

const CHART = 'id, name, tags, notes, state, revision, created_at, updated_at, indexed';
const INSTRUMENT = 'id, instrument, revision, updated_at';
/** How long each half step above the root sounds. */
const ABOVE = Array.from({ length: 12 }, (_, above) => `above_${above}`).join(', ');
const COPIED: Readonly<Record<string, string>> = {
  charts: CHART,
  chart_index: 'number, chart_id, reason, root, scale, sort_name, shown, words',
  chart_tags: 'tag, chart_id',
  chart_instruments: 'instrument_id, chart_id',
  chart_phrases: `chart_id, at, words, phrase, notes, line, ticks, ${ABOVE}`,
  instruments: INSTRUMENT,
  known_shapes: 'shape, since',
  cards: 'number, id, kind, card, name, made, rested, remembered, due, first',
  reviews: 'number, id, card_id, kind, at, day, grade, ms, strings, missed',
  practice:
    'id, at, day, drill, shape, name, per_beat, tempo, clean, ms, chart_id, chart_name, root, scale, start, back, note',
};

/**
 * Puts what was taken in, in the file `staged`, in place of the whole library, or changes nothing. A chart or an instrument that
 * comes back has a revision of its own, so that a tab that still shows what stood there before cannot save over it unseen. The
 * library remembers what it was replaced by.
 */
export async function replaceBy(db: Knex, staged: string, id: string, brings: Restored): Promise<void> {
  await db.raw('ATTACH DATABASE ? AS staged', [staged]);
  try {
    await transaction(db, async (trx) => {
      for (const table of ['charts', 'instruments'])
        await trx.raw(
          `UPDATE staged.${table} SET revision = max(revision, min(${MOST_REVISION}, 1 + coalesce(
             (SELECT was.revision FROM main.${table} was WHERE was.id = staged.${table}.id), 0)))`,
        );
      // The words are taken and given as a whole, not row by row.
      await trx('facts').insert({ name: 'replacing', value: id });
      // An answer of before would say of a chart what no longer holds.
      for (const table of ['answers', ...Object.keys(COPIED).reverse()])
        await trx.raw(`DELETE FROM main.${table}`);
      await trx.raw(`INSERT INTO chart_words (chart_words) VALUES ('delete-all')`);
      for (const [table, columns] of Object.entries(COPIED))
        await trx.raw(`INSERT INTO main.${table} (${columns}) SELECT ${columns} FROM staged.${table}`);
      await trx.raw(`INSERT INTO chart_words (chart_words) VALUES ('rebuild')`);
      await trx('facts').where({ name: 'replacing' }).delete();
      await trx.raw(
        `INSERT OR REPLACE INTO main.facts (name, value) SELECT name, value FROM staged.facts WHERE name = 'settings'`,
      );
      await trx('facts')
        .insert({ name: 'restored', value: JSON.stringify({ id, ...brings }) })
        .onConflict('name')
        .merge();
      await identifyAnew(trx, WORLD);
    });
  } finally {
    await db.raw('DETACH DATABASE staged');
  }
}
