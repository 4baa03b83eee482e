import { rmSync } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
import { expose, type TransferHandler, transferHandlers } from 'comlink';
import nodeEndpoint from 'comlink/dist/umd/node-adapter.js';
import { type Knex } from 'knex';
import { connect, passingLibrary } from '../database.ts';
import { replaceBy } from './commit.ts';
import { intake, type Taken } from './intake.ts';
import { type Desk } from './desk.ts';
import { backupOf } from './out.ts';

// Backups are read and written here, with connections of its own, so that nobody else waits for them.

const { path } = workerData as { readonly path: string };
/** How much of a backup goes out in one piece, in characters. */
const PIECE = 131_072;

interface Entry {
  readonly db: Knex;
  readonly intake: ReturnType<typeof intake>;
  brings: Taken | null;
}
const entries = new Map<string, Entry>();
const fileOf = (id: string): string => `${path}.restore-${id}`;
interface Exit {
  readonly db: Knex;
  readonly on: Knex.Transaction;
  readonly pieces: AsyncGenerator<string>;
}
const exits = new Map<string, Exit>();
const encoder = new TextEncoder();

const drop = async (id: string): Promise<void> => {
  const entry = entries.get(id);
  entries.delete(id);
  await entry?.db.destroy();
  rmSync(fileOf(id), { force: true });
};
const stop = async (id: string): Promise<void> => {
  const exit = exits.get(id);
  exits.delete(id);
  await exit?.on.rollback();
  await exit?.db.destroy();
};

const desk: Desk = {
  begin: async (id) => {
    await drop(id);
    const db = await passingLibrary(fileOf(id));
    entries.set(id, { db, intake: intake(db), brings: null });
  },
  take: (id, bytes) => entries.get(id)!.intake.take(bytes),
  end: async (id) => {
    const entry = entries.get(id)!;
    const taken = await entry.intake.end();
    if (taken.ok) entry.brings = taken.value;
    return taken;
  },
  replace: async (id) => {
    const { db, brings } = entries.get(id)!;
    await db.destroy();
    const library = connect(path);
    try {
      await replaceBy(library, fileOf(id), id, { charts: brings!.charts, instruments: brings!.instruments });
    } finally {
      await library.destroy();
    }
    await drop(id);
  },
  drop,
  open: async (id) => {
    const db = connect(path, true);
    const on = await db.transaction().catch(async (error: unknown) => {
      await db.destroy();
      throw error;
    });
    exits.set(id, { db, on, pieces: backupOf(on) });
    // The state that it reads is that of its first reading.
    await on('facts')
      .count()
      .catch(async (error: unknown) => {
        await stop(id);
        throw error;
      });
  },
  next: async (id) => {
    const exit = exits.get(id);
    let text = '';
    while (exit && text.length < PIECE) {
      const piece = await exit.pieces.next();
      if (piece.done) break;
      text += piece.value;
    }
    if (!text) await stop(id);
    return text ? encoder.encode(text) : null;
  },
  stop,
};

// An error goes over with its code, by which it is known what it means.
type Thrown = { readonly value: { readonly code?: string } };
const thrown = transferHandlers.get('throw') as TransferHandler<Thrown, { value: object }>;
transferHandlers.set('throw', {
  ...thrown,
  serialize: (it: Thrown) => {
    const [sent, transferred] = thrown.serialize(it);
    return [{ ...sent, value: { ...sent.value, code: it.value.code } }, transferred];
  },
});
expose(desk, nodeEndpoint(parentPort!));
