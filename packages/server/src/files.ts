import { type ApiError } from '@crow-ladder/contract';
import { type Knex } from 'knex';
import { fileAt } from './lock.ts';
import { LIBRARY_GONE } from './refused.ts';

/** Why nothing more can be kept. */
export interface Trouble {
  readonly error: ApiError;
  /** Whether all that was written so far stands in the library's own file. */
  readonly isKept: boolean;
}
/** Looks at the files of an open library, which may be moved or deleted under a running server; null while they are those that were opened. */
export type LookAtFiles = () => Promise<Trouble | null>;

/** What stands beside a library while it is open and belongs to it. */
export const BESIDE = ['-wal', '-shm'];

/**
 * Where the log beside the library was deleted, the connection that is open still has it: what is in it is brought into the
 * library's own file, and nothing more is taken, as the next connection would not know of it.
 */
export function filesOf(path: string, db: Knex): LookAtFiles {
  const beside = BESIDE.map((end) => path + end);
  const was = new Map([path, ...beside].map((file) => [file, fileAt(file)]));
  const isWhatItWas = (file: string): boolean => fileAt(file) === was.get(file);
  return async () => {
    if (!isWhatItWas(path)) return { error: { code: 'library-gone', message: LIBRARY_GONE }, isKept: false };
    const gone = beside.find((file) => !isWhatItWas(file));
    if (gone === undefined) return null;
    const [{ busy }] = (await db.raw('PRAGMA wal_checkpoint(TRUNCATE)')) as [{ busy: number }];
    const message = `${gone} was deleted while Crow Ladder runs, so nothing more can be saved: stop Crow Ladder and start it again. What was saved before stands in the library.`;
    return { error: { code: 'library-gone', message }, isKept: busy === 0 };
  };
}
