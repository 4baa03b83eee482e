import { type Knex } from 'knex';

/** How often a transaction that another server came before is begun again. */
const AGAIN = 40;
/**
 * A transaction; where another server on the same library wrote in between, it is begun again a moment later. Fails with what the
 * work itself failed with: a full disk has SQLite take all back at once, and then there is nothing left to roll back.
 */
export async function transaction<T>(db: Knex, work: (trx: Knex.Transaction) => Promise<T>): Promise<T> {
  for (let tries = 0; ; tries++) {
    let own: unknown = null;
    try {
      return await db.transaction((trx) =>
        work(trx).catch((error: unknown) => {
          own = error;
          throw error;
        }),
      );
    } catch (error) {
      const why = own ?? error;
      if (tries >= AGAIN || !/^SQLITE_BUSY/.test((why as { code?: string }).code ?? '')) throw why;
      await new Promise((later) => setTimeout(later, 5 + Math.random() * 10 * (tries + 1)));
    }
  }
}
