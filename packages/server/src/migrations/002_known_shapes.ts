import { type Knex } from 'knex';

interface Kept {
  readonly known?: readonly string[];
  readonly handed?: string;
}

/** Known shapes become rows; the hand, once the player's alone, is that of the instrument unless it was changed. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('known_shapes', (t) => {
    t.string('shape').primary();
    t.string('since').notNullable();
  });
  const row = (await db('facts').where({ name: 'settings' }).first()) as { value: string } | undefined;
  if (!row) return;
  const { known = [], ...settings } = JSON.parse(row.value) as Kept;
  const since = new Date().toISOString();
  for (const shape of new Set(known)) await db('known_shapes').insert({ shape, since });
  const handed = settings.handed === 'left' ? 'left' : 'instrument';
  await db('facts')
    .where({ name: 'settings' })
    .update({ value: JSON.stringify({ ...settings, handed }) });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('known_shapes');
}
