import { closeSync, mkdirSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs';
import { dirname } from 'node:path';
import { StartRefused } from './environment.ts';

const isAlive = (pid: number): boolean => {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
};

/** Who has the library open: the process and the address that it serves it under; null where that cannot be read. */
function holderOf(lock: string): { readonly pid: number; readonly at: string } | null {
  try {
    const [pid, at = ''] = readFileSync(lock, 'utf8').split(' ');
    return Number.isInteger(Number(pid)) ? { pid: Number(pid), at: at.trim() } : null;
  } catch {
    return null;
  }
}

/**
 * Takes a library for this process alone and gives what lets it go. A lock that was left behind by a process that is no more is
 * taken over; one of a process that runs is refused with who has it.
 */
export function lockLibrary(path: string, at: string): () => void {
  mkdirSync(dirname(path), { recursive: true });
  const lock = `${path}.lock`;
  for (let tries = 0; ; tries++)
    try {
      const file = openSync(lock, 'wx');
      writeSync(file, `${process.pid} ${at}\n`);
      closeSync(file);
      return () => {
        if (holderOf(lock)?.pid === process.pid) rmSync(lock, { force: true });
      };
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
      const holder = holderOf(lock);
      if (tries > 2 || (holder && holder.pid !== process.pid && isAlive(holder.pid)))
        throw new StartRefused(
          `${path} is open in another Crow Ladder (process ${holder?.pid ?? 'unknown'}, ${holder?.at ?? ''}): use that one, stop it, or set CROW_LADDER_SHARE=1 to share the library.`,
        );
      rmSync(lock, { force: true });
    }
}
