import { type Knex } from 'knex';
import { type World } from './world.ts';

const FACT = 'library';

/** Which library this is: another word for another one, and another one again once a backup took its place. */
export async function identityOf(on: Knex): Promise<string | null> {
  return (await on('facts').where({ name: FACT }).first())?.value ?? null;
}

/** Gives the library another identity, so that work made for what stood in it before is not taken for work on it. */
export const identifyAnew = (on: Knex, { id }: Pick<World, 'id'>) =>
  on('facts').insert({ name: FACT, value: id() }).onConflict('name').merge();
