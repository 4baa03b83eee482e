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
export function backupsOf(path: string, db: Knex, world: World = WORLD) {
  const desk = deskFor(path);
  const under = new Map<string, Restore>();
  let replacing: Promise<unknown> = Promise.resolve();

  const forget = async (id: string): Promise<void> => {
    under.delete(id);
    await desk.drop(id);
  };
  /** How a restore stands; the library itself knows the last one that was done. */
  const stateOf = async (id: string): Promise<Restore> => {
    const here = under.get(id);
    if (here) return here;
    // One that is being put in place has stood here until a moment ago.
    await replacing;
    const row = (await db('facts').where({ name: 'restored' }).first()) as { value: string } | undefined;
    const last = json(row?.value ?? '') as (Restored & { readonly id: string }) | null;
    if (last?.id !== id) throw gone();
    return { is: 'done', charts: last.charts, instruments: last.instruments };
  };

  return {
    /** The whole library, as it stands when it is asked for. */
    out: async (): Promise<ReadableStream<Uint8Array>> => {
      const id = world.id();
      await desk.open(id);
      return new ReadableStream<Uint8Array>(
        {
          pull: async (to) => {
            const piece = await desk.next(id);
            if (piece) to.enqueue(piece);
            else to.close();
          },
          cancel: () => desk.stop(id),
        },
        { highWaterMark: 1 },
      );
    },
    /** Takes a backup in and checks all of it; nothing of the library is changed yet. */
    take: async (id: string, body: ReadableStream<Uint8Array> | null): Promise<Restore> => {
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
    /** Puts a backup that was taken in in place of the library. Asked again after its answer was lost, it says that it is done. */
    replace: async (id: string): Promise<Restore> => {
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
    /** Calls off what was not put in place yet. */
    drop: async (id: string): Promise<void> => {
      if (!under.has(id)) throw gone();
      await forget(id);
    },
    /** Resolves once nothing replaces the library: changes wait for that. */
    settled: (): Promise<unknown> => replacing,
    close: () => desk.close(),
  };
}
export type Backups = ReturnType<typeof backupsOf>;
