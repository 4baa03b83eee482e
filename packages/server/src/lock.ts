import { closeSync, fstatSync, openSync, rmSync, statSync } from 'node:fs';
import Database from 'better-sqlite3';
import { type Knex } from 'knex';
import { StartRefused } from './environment.ts';
import { json } from './rows.ts';

const codeOf = (error: unknown): string => (error as { code?: string }).code ?? '';

const named = ({ dev, ino }: { dev: number; ino: number }): string => `${dev}/${ino}`;

/** Which file stands under a name; null where none does. */
export function fileAt(path: string): string | null {
  const is = statSync(path, { throwIfNoEntry: false });
  return is ? named(is) : null;
}

const lockOf = (path: string) => new Database(path, { timeout: 0 });

/** The files that this process holds: the system does not keep a process out of its own locks. */
const held = new Set<string>();

/**
 * Holds a lock and gives what lets it go; null where it is held already. The lock is that of an empty database: the system
 * frees it with the process, however that ends, and an empty file that is left behind is nobody's.
 *
 * @param open how the empty database is opened.
 */
export function holdLock(path: string, open = lockOf): (() => void) | null {
  for (;;) {
    const standing = fileAt(path);
    if (standing && held.has(standing)) return null;
    // Open as long as the lock is held, it keeps the number of its file from being given to another one. Closing it would
    // let go of every lock that this process has on that file.
    const file = openSync(path, 'a');
    const is = named(fstatSync(file));
    let lock: Database.Database | undefined;
    const close = () => {
      lock?.close();
      closeSync(file);
    };
    try {
      lock = open(path);
      // No file of a journal stands beside it.
      lock.pragma('journal_mode = MEMORY');
      lock.exec('BEGIN EXCLUSIVE');
    } catch (error) {
      const stands = fileAt(path) === is;
      close();
      if (codeOf(error) === 'SQLITE_BUSY') return null;
      // Taken away under this hand, SQLite may say so itself.
      if (!stands) continue;
      if (codeOf(error) === 'SQLITE_NOTADB')
        throw new StartRefused(
          `${path} should be empty and is not, so another program wrote it: delete that file, and start again.`,
        );
      throw error;
    }
    // One that let it go takes its file away; who holds a file that no longer stands there holds nothing.
    if (fileAt(path) === is) {
      held.add(is);
      return () => {
        rmSync(path, { force: true });
        held.delete(is);
        close();
      };
    }
    close();
  }
}

interface Holder {
  readonly pid: number;
  readonly at: string;
}
const HOLDER = 'served';

/** Tells others who has the library open, and under which address it is served. */
export const tellHolder = (on: Knex, holder: Holder) =>
  on('facts')
    .insert({ name: HOLDER, value: JSON.stringify(holder) })
    .onConflict('name')
    .merge();

/** Who was the last to say that the library is open; null where that cannot be read. */
function holderOf(path: string): Holder | null {
  try {
    const db = new Database(path, { readonly: true });
    try {
      const row = db.prepare('SELECT value FROM facts WHERE name = ?').get(HOLDER) as { value: string };
      return json(row.value) as Holder | null;
    } finally {
      db.close();
    }
  } catch {
    return null;
  }
}

/** Takes a library for this process alone and gives what lets it go; refused with who has it. */
export function lockLibrary(path: string): () => void {
  const unlock = holdLock(`${path}-lock`);
  if (unlock) return unlock;
  const by = holderOf(path);
  const who = by ? ` (process ${by.pid}, ${by.at})` : '';
  throw new StartRefused(
    `${path} is open in another Crow Ladder${who}: use that one, stop it, or set CROW_LADDER_SHARE=1 to share the library.`,
  );
}
