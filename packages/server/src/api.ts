import { BODY_LIMIT, type Checked, type Settings } from '@crow-ladder/contract';
import {
  instrumentSchema,
  readBackup,
  readChange,
  readDraft,
  settingsChangeSchema,
  shapeSchema,
  validate,
} from '@crow-ladder/contract/schemas';
import { type Instrument, list } from '@crow-ladder/core';
import { type Context, Hono } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { methodNotAllowed } from 'hono/method-not-allowed';
import { type Library } from './library.ts';
import { answered, Refused } from './refused.ts';

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

/** The key under which a change is made once, if it came with one. */
function keyOf(c: Context): string | undefined {
  const key = c.req.header('idempotency-key');
  if (key === undefined || /^[\w-]{8,64}$/.test(key)) return key;
  throw new Refused(422, {
    code: 'bad-key',
    message: 'An idempotency key is 8 to 64 letters, digits, hyphens or underscores.',
  });
}

async function json(c: Context): Promise<unknown> {
  if (!/^application\/json\b/i.test(c.req.header('content-type') ?? ''))
    throw new Refused(415, {
      code: 'not-json',
      message: 'What is sent has to be JSON, and to say so: content-type application/json.',
    });
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
  api.use(
    methodNotAllowed({
      app: api,
      onMethodNotAllowed: (c, methods) => {
        c.header('Allow', methods.join(', '));
        return answered(
          new Refused(405, {
            code: 'no-such-method',
            message: `This address takes ${list(methods, 'or')} alone.`,
          }),
          c,
        );
      },
    }),
  );
  api.use('/restore', limit(BODY_LIMIT.backup));
  for (const path of ['/charts/*', '/instruments/*', '/settings', '/known'])
    api.use(path, limit(BODY_LIMIT.chart));

  api.get('/health', (c) => c.json({ ok: true }));
  api.get('/charts', async (c) => c.json(await library.charts()));
  api.post('/charts', async (c) =>
    c.json(await library.createChart(await body(c, readDraft), keyOf(c)), 201),
  );
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
    const changed = await library.changeChart(id(c), change, keyOf(c));
    if (changed) return c.json(changed);
    throw new Refused(
      409,
      { code: 'conflict', message: 'This chart was changed elsewhere since it was opened here.' },
      await chart(id(c)),
    );
  });
  api.get('/instruments', async (c) => c.json(await library.instruments()));
  api.post('/instruments', async (c) =>
    c.json(await library.putInstrument(await body(c, readInstrument), undefined, keyOf(c)), 201),
  );
  api.put('/instruments/:id', async (c) =>
    c.json(found(await library.putInstrument(await body(c, readInstrument), id(c), keyOf(c)), 'instrument')),
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
  api.all('*', (c) =>
    answered(new Refused(404, { code: 'no-such-address', message: 'There is nothing at this address.' }), c),
  );
  api.onError(answered);
  return api;
}
