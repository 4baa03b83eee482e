import { readdirSync, rmSync, statSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { type ApiError, type Restore, type Restored } from '@crow-ladder/contract';
import { type Knex } from 'knex';
import { Refused } from '../refused.ts';
import { json } from '../rows.ts';
import { type World, WORLD } from '../world.ts';
import { deskFor } from './desk.ts';

/** How many backups are brought back at a time. */
const AT_A_TIME = 4;
/** How many go out at a time, and how long one waits for its reader to take more of it, in ms. */
const OUT = { most: 4, waits: 60_000 };
/** How long a backup that was taken in waits for the word to put it in place, in ms. */
const WAITS_MS = 3_600_000;

const refused = (error: ApiError): Refused => new Refused(error.code === 'bad-json' ? 400 : 422, error);
const gone = (): Refused =>
  new Refused(404, {
    code: 'no-restore',
    message: 'This backup is not being brought back any more; nothing was changed. Choose the file again.',
  });

/** Takes away what a server that ended in the middle of it had taken in; with others on the library, what is older than a day. */
export function dropRemains(path: string, share: boolean, { now }: Pick<World, 'now'> = WORLD): void {
  const before = now() - (share ? 24 * WAITS_MS : 0);
  for (const name of readdirSync(dirname(path)))
    if (name.startsWith(`${basename(path)}.restore-`)) {
      const file = join(dirname(path), name);
      if (statSync(file).mtimeMs <= before) rmSync(file, { force: true });
    }
}

/** Backups of the library in a file, out and in. */
export interface Backups {
  /** The whole library, as it stands when it is asked for, until it was read, or nobody reads it any more, or `reader` has gone. */
  readonly out: (reader: AbortSignal) => Promise<ReadableStream<Uint8Array>>;
  /** Takes a backup in and checks all of it; nothing of the library is changed yet. */
  readonly take: (id: string, body: ReadableStream<Uint8Array> | null) => Promise<Restore>;
  /** How a restore stands; the library itself knows the last one that was done. */
  readonly stateOf: (id: string) => Promise<Restore>;
  /** Puts a backup that was taken in in place of the library. Asked again after its answer was lost, it says that it is done. */
  readonly replace: (id: string) => Promise<Restore>;
  /** Calls off what was not put in place yet. */
  readonly drop: (id: string) => Promise<void>;
  /** Resolves once nothing replaces the library: changes wait for that. */
  readonly settled: () => Promise<unknown>;
  /** Ends what goes out and what comes in. */
  readonly close: () => Promise<unknown>;
}

export function backupsOf(path: string, db: Knex, world: World = WORLD): Backups {
  const desk = deskFor(path);
  const goingOut = new Set<string>();
  const under = new Map<string, Restore>();
  let replacing: Promise<unknown> = Promise.resolve();

  const forget = async (id: string): Promise<void> => {
    under.delete(id);
    await desk.drop(id);
  };
  const stateOf = async (id: string): Promise<Restore> => {
    const here = under.get(id);
    if (here) return here;
    // One that is being put in place has stood here until a moment ago.
    await replacing;
    const row = await db('facts').where({ name: 'restored' }).first();
    const last = json(row?.value ?? '') as (Restored & { readonly id: string }) | null;
    if (last?.id !== id) throw gone();
    return { is: 'done', charts: last.charts, instruments: last.instruments };
  };

  return {
    out: async (reader) => {
      if (goingOut.size >= OUT.most)
        throw new Refused(503, {
          code: 'busy',
          message: `${OUT.most} backups are being saved already: wait until one of them is there.`,
        });
      const id = world.id();
      // A worker that has ended holds nothing any more.
      const end = async (): Promise<void> => {
        if (goingOut.delete(id)) await desk.stop(id).catch(() => undefined);
      };
      goingOut.add(id);
      try {
        await desk.open(id);
      } catch (error) {
        goingOut.delete(id);
        throw error;
      }
      reader.addEventListener('abort', () => void end(), { once: true });
      if (reader.aborted) {
        await end();
        throw new Refused(503, { code: 'gone', message: 'Nobody waits for this backup any more.' });
      }
      let taken = 0;
      return new ReadableStream<Uint8Array>(
        {
          start: (to) => {
            const wait = (): void => {
              const before = taken;
              world.later(OUT.waits, () => {
                if (!goingOut.has(id)) return;
                if (taken > before) return wait();
                to.error(new Error('Nobody took more of this backup.'));
                void end();
              });
            };
            wait();
          },
          pull: async (to) => {
            taken++;
            try {
              const piece = await desk.next(id);
              if (piece) return to.enqueue(piece);
              await end();
              to.close();
            } catch (error) {
              await end();
              throw error;
            }
          },
          cancel: end,
        },
        { highWaterMark: 1 },
      );
    },
    take: async (id, body) => {
      if (under.has(id))
        throw new Refused(409, { code: 'conflict', message: 'This backup is being read already.' });
      if (under.size >= AT_A_TIME)
        throw new Refused(503, {
          code: 'busy',
          message: `${AT_A_TIME} backups are being brought back already: finish or cancel one of them first.`,
        });
      let bytes = 0;
      under.set(id, { is: 'reading', bytes, charts: 0 });
      try {
        await desk.begin(id);
        for await (const piece of body ?? []) {
          // What was called off meanwhile is not gone on with.
          if (!under.has(id)) throw gone();
          const { charts, error } = await desk.take(id, piece);
          if (error) throw refused(error);
          bytes += piece.length;
          if (under.has(id)) under.set(id, { is: 'reading', bytes, charts });
        }
        const taken = await desk.end(id);
        if (!taken.ok) throw refused(taken.error);
        if (!under.has(id)) throw gone();
        const ready: Restore = { is: 'ready', ...taken.value };
        under.set(id, ready);
        world.later(WAITS_MS, () => under.has(id) && void forget(id));
        return ready;
      } catch (error) {
        // Called off, or its sender has gone away.
        const calledOff = !under.has(id) || (error as { code?: string }).code === 'ECONNRESET';
        await forget(id);
        throw calledOff ? gone() : error;
      }
    },
    stateOf,
    replace: async (id) => {
      const now = await stateOf(id);
      if (now.is === 'reading')
        throw new Refused(409, { code: 'conflict', message: 'This backup is still being read.' });
      if (now.is === 'done') return now;
      under.delete(id);
      const work = desk.replace(id);
      replacing = work.catch(() => undefined);
      try {
        await work;
      } catch (error) {
        await desk.drop(id);
        throw error;
      }
      return stateOf(id);
    },
    drop: async (id) => {
      if (!under.has(id)) throw gone();
      await forget(id);
    },
    settled: () => replacing,
    close: () => desk.close(),
  };
}
