import {
  BODY_LIMIT,
  type ChartLook,
  type ChartOrder,
  type Checked,
  type InstrumentChange,
  type KeptRound,
  type RoundQuery,
  type SettingsPatch,
} from '@crow-ladder/contract';
import {
  idSchema,
  lookSchema,
  instrumentChangeSchema,
  instrumentSchema,
  type PageQuery,
  querySchema,
  readChange,
  readDraft,
  roundQuerySchema,
  keptRoundSchema,
  settingsPatchSchema,
  shapeSchema,
  validate,
} from '@crow-ladder/contract/schemas';
import { type Instrument, list } from '@crow-ladder/core';
import { type Context, Hono } from 'hono';
import { etag } from 'hono/etag';
import { methodNotAllowed } from 'hono/method-not-allowed';
import { type Backups } from './backup/backups.ts';
import { type Library } from './library.ts';
import { answered, limited, OTHER_LIBRARY, Refused } from './refused.ts';

/** The body of a request, read; what is wrong with it is told by its field. */
async function body<T>(c: Context, read: (data: unknown) => Checked<T>): Promise<T> {
  const checked = read(await json(c));
  if (!checked.ok) throw new Refused(422, checked.error);
  return checked.value;
}

const readInstrument = (data: unknown): Checked<Instrument> => validate<Instrument>(instrumentSchema, data);
const readInstrumentChange = (data: unknown): Checked<InstrumentChange> =>
  validate<InstrumentChange>(instrumentChangeSchema, data);
const readPatch = (data: unknown): Checked<SettingsPatch> =>
  validate<SettingsPatch>(settingsPatchSchema, data);

const readRound = (data: unknown): Checked<KeptRound> => validate<KeptRound>(keptRoundSchema, data);
const readLook = (data: unknown): Checked<ChartLook> => validate<ChartLook>(lookSchema, data);

/** The page of charts that an address asks for. */
function pageOf(c: Context): PageQuery {
  const { find = '', tag = '', order = 'changed', from = '0' } = c.req.query();
  const query = { find, tag, order: order as ChartOrder, from: /^\d+$/.test(from) ? Number(from) : from };
  const page = validate<PageQuery>(querySchema, query);
  if (!page.ok) throw new Refused(422, page.error);
  return page.value;
}

/** The key under which a change is made once, if it came with one. */
function keyOf(c: Context): string | undefined {
  const key = c.req.header('idempotency-key');
  if (key === undefined || /^[\w-]{8,64}$/.test(key)) return key;
  throw new Refused(422, {
    code: 'bad-key',
    message: 'An idempotency key is 8 to 64 letters, digits, hyphens or underscores.',
  });
}

/** The library that something was made on, where it says so. */
const libraryMeant = (c: Context): string | undefined => c.req.header('crow-ladder-library');

/** The revision that a deletion was decided on. */
function revisionOf(c: Context): number {
  const revision = /^"(\d{1,15})"$/.exec(c.req.header('if-match') ?? '')?.[1];
  if (revision !== undefined) return Number(revision);
  throw new Refused(428, {
    code: 'no-revision',
    message: 'Say which revision is to be deleted, as in If-Match: "3".',
  });
}

/** The id of a backup that is brought back, given by who brings it. */
function restoreId(c: Context): string {
  const id = c.req.param('id') ?? '';
  if (/^[\w-]{8,40}$/.test(id)) return id;
  throw new Refused(422, {
    code: 'bad-id',
    message: 'The id of a restore is 8 to 40 letters, digits, hyphens or underscores.',
  });
}

function isJson(c: Context): void {
  if (!/^application\/json\b/i.test(c.req.header('content-type') ?? ''))
    throw new Refused(415, {
      code: 'not-json',
      message: 'What is sent has to be JSON, and to say so: content-type application/json.',
    });
}

async function json(c: Context): Promise<unknown> {
  isJson(c);
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
export function apiOn(library: Library, backups: Backups): Hono {
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
  for (const path of ['/charts/*', '/instruments/*', '/settings', '/known', '/practice/*']) {
    api.use(path, limited(BODY_LIMIT));
    // A browser asks for what it has already with its tag, and is told in a few bytes that it is the same.
    api.use(path, etag());
    // What says of which library it is changes no other. Its body is read first, so that nothing is waited for after that.
    api.use(path, async (c: Context, next) => {
      const meant = libraryMeant(c);
      if (meant !== undefined && c.req.method !== 'GET') {
        await c.req.text();
        if (meant !== (await library.identity())) throw OTHER_LIBRARY;
      }
      return next();
    });
  }

  api.get('/health', (c) => c.json({ ok: true }));
  api.get('/charts', async (c) => {
    const { from, ...query } = pageOf(c);
    return c.json(await library.charts(query, from));
  });
  api.get('/tags', async (c) => c.json(await library.tags()));
  api.post('/charts', async (c) =>
    c.json(await library.createChart(await body(c, readDraft), keyOf(c)), 201),
  );
  const readable = async (id: string) => {
    const read = found(await library.readChart(id), 'chart');
    if (read.ok) return read.value;
    throw new Refused(422, {
      code: 'unreadable',
      message: `This chart cannot be read: ${read.error.message}`,
    });
  };
  const KINDS = {
    chart: readable,
    instrument: async (id: string) => found(await library.readInstrument(id), 'instrument'),
  } as const;
  type Kind = keyof typeof KINDS;
  const conflict = async (kind: Kind, id: string): Promise<Refused> =>
    new Refused(
      409,
      { code: 'conflict', message: `This ${kind} was changed elsewhere since it was opened here.` },
      await KINDS[kind](id),
    );

  api.get('/charts/:id', async (c) => c.json(await readable(id(c))));
  api.get('/charts/:id/raw', async (c) => c.json(found(await library.rawChart(id(c)), 'chart')));
  /** The id of something that who makes it gives. */
  const idGiven = (c: Context): string => {
    const to = validate<string>(idSchema, id(c));
    if (to.ok) return to.value;
    throw new Refused(422, { ...to.error, code: 'bad-id', field: 'id' });
  };
  api.put('/charts/:id', async (c) => {
    const to = idGiven(c);
    const changed = await library.changeChart(to, await body(c, readChange), libraryMeant(c));
    if (!changed) throw await conflict('chart', to);
    return c.json(changed);
  });
  api.put('/charts/:id/look', async (c) =>
    c.json({ ok: found(await library.lookAt(id(c), await body(c, readLook)), 'chart') }),
  );
  api.get('/instruments', async (c) => c.json(await library.instruments()));
  api.post('/instruments', async (c) =>
    c.json(await library.createInstrument(await body(c, readInstrument), keyOf(c)), 201),
  );
  api.put('/instruments/:id', async (c) => {
    const { instrument, revision } = await body(c, readInstrumentChange);
    const changed = await library.changeInstrument(id(c), instrument, revision, keyOf(c));
    if (!changed) throw await conflict('instrument', id(c));
    return c.json(changed);
  });
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
  for (const kind of ['chart', 'instrument'] as const) {
    api.delete(`/${kind}s/:id`, async (c) => {
      const removed = await library.remove(kind, id(c), revisionOf(c));
      if (!removed) throw await conflict(kind, id(c));
      return c.json({ ok: true });
    });
    api.post(`/${kind}s/:id/restore`, async (c) =>
      c.json({ ok: found(await library.bringBack(kind, id(c)), `deleted ${kind}`) }),
    );
    api.delete(`/bin/${kind}s/:id`, async (c) =>
      c.json({ ok: found(await library.discard(kind, id(c)), `deleted ${kind}`) }),
    );
  }
  api.get('/practice', async (c) => {
    const { drill, shape, perBeat } = c.req.query();
    const asked = validate<RoundQuery>(roundQuerySchema, { drill, shape, perBeat: Number(perBeat) });
    if (!asked.ok) throw new Refused(422, asked.error);
    return c.json(await library.practised(asked.value));
  });
  api.get('/practice/things', async (c) => c.json(await library.practisedThings()));
  api.put('/practice/:id', async (c) => {
    const to = idGiven(c);
    await library.addRound(await body(c, (data) => readRound({ ...(data as object), id: to })));
    return c.json({ ok: true });
  });
  api.delete('/practice/:id', async (c) =>
    c.json({ ok: found(await library.removeRound(id(c)), 'round of practice') }),
  );
  api.get('/demo', async (c) => c.json(await library.demo()));
  api.post('/demo/clear', async (c) => c.json(await library.clearDemo()));
  api.get('/bin', async (c) => c.json(await library.bin()));
  api.get('/settings', async (c) => c.json(await library.settings()));
  api.patch('/settings', async (c) => {
    const changed = await library.changeSettings(await body(c, readPatch));
    if (changed) return c.json(changed);
    throw new Refused(
      409,
      { code: 'conflict', message: 'This setting was changed elsewhere since it was read here.' },
      await library.settings(),
    );
  });
  api.get('/backup', async (c) => {
    c.header('Content-Type', 'application/json; charset=UTF-8');
    c.header(
      'Content-Disposition',
      `attachment; filename="crow-ladder-${new Date().toISOString().slice(0, 10)}.json"`,
    );
    // Its head alone is answered without reading anything.
    if (c.req.method === 'HEAD') return c.body(null);
    return c.body(await backups.out(c.req.raw.signal));
  });
  api.put('/restores/:id', async (c) => {
    const to = restoreId(c);
    isJson(c);
    return c.json(await backups.take(to, c.req.raw.body));
  });
  api.get('/restores/:id', async (c) => c.json(await backups.stateOf(restoreId(c))));
  api.post('/restores/:id/replace', async (c) => c.json(await backups.replace(restoreId(c))));
  api.delete('/restores/:id', async (c) => {
    await backups.drop(restoreId(c));
    return c.json({ ok: true });
  });
  api.all('*', (c) =>
    answered(new Refused(404, { code: 'no-such-address', message: 'There is nothing at this address.' }), c),
  );
  api.onError(answered);
  return api;
}
