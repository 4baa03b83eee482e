import { type ApiError, BODY_LIMIT, type Checked, type Settings } from '@crow-ladder/contract';
import {
  instrumentSchema,
  readBackup,
  readChange,
  readDraft,
  settingsChangeSchema,
  shapeSchema,
  validate,
} from '@crow-ladder/contract/schemas';
import { type Instrument } from '@crow-ladder/core';
import { type Context, Hono } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { type ContentfulStatusCode } from 'hono/utils/http-status';
import { type Library } from './library.ts';

/** An answer other than the one asked for; turned into JSON in one place. */
class Refused extends Error {
  constructor(
    readonly status: ContentfulStatusCode,
    readonly answer: ApiError,
    readonly current?: unknown,
  ) {
    super(answer.message);
  }
}

const limit = (maxSize: number) =>
  bodyLimit({
    maxSize,
    onError: () => {
      throw new Refused(413, {
        code: 'too-large',
        message: `This is larger than ${Math.round(maxSize / 1000)} kB, the most that can be kept in one piece.`,
      });
    },
  });

/** The body of a request, read; what is wrong with it is told by its field. */
async function body<T>(c: Context, read: (data: unknown) => Checked<T>): Promise<T> {
  const checked = read(await json(c));
  if (!checked.ok) throw new Refused(422, checked.error);
  return checked.value;
}

const readInstrument = (data: unknown): Checked<Instrument> => validate<Instrument>(instrumentSchema, data);
const readSettings = (data: unknown): Checked<Partial<Settings>> =>
  validate<Partial<Settings>>(settingsChangeSchema, data);

async function json(c: Context): Promise<unknown> {
  try {
    return await c.req.json();
  } catch (error) {
    if (error instanceof Refused) throw error;
    throw new Refused(400, {
      code: 'bad-json',
      message: 'This could not be read: the file or message is cut short or is not JSON.',
    });
  }
}

function found<T>(value: T | null | false, what: string): T {
  if (value === null || value === false)
    throw new Refused(404, {
      code: 'not-found',
      message: `There is no such ${what}; it may have been deleted.`,
    });
  return value;
}

/** The API under /api. Errors are `{ error: { code, message, field? } }`. */
export function apiOn(library: Library): Hono {
  const api = new Hono();
  const id = (c: Context): string => c.req.param('id') ?? '';
  // Only pages that this server serves may change the library: another site's page in the same browser may not.
  api.use(async (c, next) => {
    const origin = c.req.header('origin');
    if (c.req.method !== 'GET' && origin && new URL(origin).host !== c.req.header('host'))
      throw new Refused(403, {
        code: 'foreign-page',
        message: 'Only Crow Ladder itself can change the library.',
      });
    await next();
  });
  api.use('/restore', limit(BODY_LIMIT.backup));
  for (const path of ['/charts/*', '/instruments/*', '/settings', '/known'])
    api.use(path, limit(BODY_LIMIT.chart));

  api.get('/health', (c) => c.json({ ok: true }));
  api.get('/charts', async (c) => c.json(await library.charts()));
  api.post('/charts', async (c) => c.json(await library.createChart(await body(c, readDraft)), 201));
  const chart = async (id: string) => {
    const read = found(await library.readChart(id), 'chart');
    if (read.ok) return read.value;
    throw new Refused(422, {
      code: 'unreadable',
      message: `This chart cannot be read: ${read.error.message}`,
    });
  };
  api.get('/charts/:id', async (c) => c.json(await chart(id(c))));
  api.get('/charts/:id/raw', async (c) => c.json(found(await library.rawChart(id(c)), 'chart')));
  api.put('/charts/:id', async (c) => {
    const change = await body(c, readChange);
    const changed = await library.changeChart(id(c), change);
    if (changed) return c.json(changed);
    throw new Refused(
      409,
      { code: 'conflict', message: 'This chart was changed elsewhere since it was opened here.' },
      await chart(id(c)),
    );
  });
  api.get('/instruments', async (c) => c.json(await library.instruments()));
  api.post('/instruments', async (c) =>
    c.json(await library.putInstrument(await body(c, readInstrument)), 201),
  );
  api.put('/instruments/:id', async (c) =>
    c.json(found(await library.putInstrument(await body(c, readInstrument), id(c)), 'instrument')),
  );
  api.get('/known', async (c) => c.json(await library.known()));
  for (const [method, change] of [
    ['POST', library.addKnown],
    ['DELETE', library.removeKnown],
  ] as const)
    api.on(method, '/known', async (c) => {
      const asked = (await json(c)) as { shape?: unknown } | null;
      const shape = validate<string>(shapeSchema, asked?.shape);
      if (!shape.ok) throw new Refused(422, { ...shape.error, field: 'shape' });
      await change(shape.value);
      return c.json({ ok: true });
    });
  for (const [table, what] of [
    ['charts', 'chart'],
    ['instruments', 'instrument'],
  ] as const) {
    api.delete(`/${table}/:id`, async (c) =>
      c.json({ ok: found(await library.mark(what, id(c), true), what) }),
    );
    api.post(`/${table}/:id/restore`, async (c) =>
      c.json({ ok: found(await library.mark(what, id(c), false), `deleted ${what}`) }),
    );
    api.delete(`/bin/${table}/:id`, async (c) =>
      c.json({ ok: found(await library.discard(what, id(c)), `deleted ${what}`) }),
    );
  }
  api.get('/demo', async (c) => c.json(await library.demo()));
  api.post('/demo/clear', async (c) => c.json(await library.clearDemo()));
  api.get('/bin', async (c) => c.json(await library.bin()));
  api.get('/settings', async (c) => c.json(await library.settings()));
  api.patch('/settings', async (c) => c.json(await library.changeSettings(await body(c, readSettings))));
  api.get('/backup', async (c) => c.json(await library.backup()));
  api.post('/restore', async (c) => {
    const backup = await body(c, readBackup);
    await library.restore(backup);
    return c.json({ charts: backup.charts.length, instruments: backup.instruments.length });
  });
  api.all('*', () => {
    throw new Refused(404, { code: 'no-such-address', message: 'There is nothing at this address.' });
  });
  api.onError((error, c) => {
    if (error instanceof Refused)
      return c.json(
        { error: error.answer, ...(error.current ? { current: error.current } : {}) },
        error.status,
      );
    console.error(error);
    return c.json(
      { error: { code: 'server', message: 'Something went wrong on the server; nothing was changed.' } },
      500,
    );
  });
  return api;
}
