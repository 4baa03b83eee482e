import { Hono } from 'hono';
import { type Library } from '../library.ts';
import { readableChart } from './charts.ts';
import { conflict, found, idOf, revisionOf } from './reading.ts';

/** What is deleted, what was, and the demo that may go as a whole. */
export function binOn(library: Library): Hono {
  const api = new Hono();
  const standing = {
    chart: (id: string) => readableChart(library, id),
    instrument: async (id: string) => found(await library.readInstrument(id), 'instrument'),
  } as const;
  for (const kind of ['chart', 'instrument'] as const) {
    api.delete(`/${kind}s/:id`, async (c) => {
      const removed = await library.remove(kind, idOf(c), revisionOf(c));
      if (!removed) throw conflict(kind, 'opened', await standing[kind](idOf(c)));
      return c.json({ ok: true });
    });
    api.post(`/${kind}s/:id/restore`, async (c) =>
      c.json({ ok: found(await library.bringBack(kind, idOf(c)), `deleted ${kind}`) }),
    );
    api.delete(`/bin/${kind}s/:id`, async (c) =>
      c.json({ ok: found(await library.discard(kind, idOf(c)), `deleted ${kind}`) }),
    );
  }
  api.get('/bin', async (c) => c.json(await library.bin()));
  api.get('/demo', async (c) => c.json(await library.demo()));
  api.post('/demo/clear', async (c) => c.json(await library.clearDemo()));
  return api;
}
