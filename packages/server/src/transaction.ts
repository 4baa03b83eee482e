import { type Knex } from 'knex';

/** How often a transaction that another server came before is begun again. */
const AGAIN = 40;
/** A transaction; where another server on the same library wrote in between, it is begun again a moment later. */
export async function transaction<T>(db: Knex, work: (trx: Knex.Transaction) => Promise<T>): Promise<T> {
  for (let tries = 0; ; tries++)
    try {
      return await db.transaction(work);
    } catch (error) {
      if (tries >= AGAIN || !/^SQLITE_BUSY/.test((error as { code?: string }).code ?? '')) throw error;
      await new Promise((later) => setTimeout(later, 5 + Math.random() * 10 * (tries + 1)));
    }
}
