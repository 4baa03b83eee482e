import {
  type ApiError,
  type Backup,
  BACKUP_VERSION,
  backupSchema,
  BODY_LIMIT,
  type ChartChange,
  type ChartDraft,
  changeSchema,
  DEFAULT_SETTINGS,
  draftSchema,
  instrumentSchema,
  type Settings,
  settingsChangeSchema,
  validate,
} from '@crow-ladder/contract';
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

async function body<T>(c: Context, schema: Parameters<typeof validate>[0]): Promise<T> {
  const checked = validate<T>(schema, await json(c));
  if (!checked.ok) throw new Refused(422, checked.error);
  return checked.value;
}

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
  for (const path of ['/charts/*', '/instruments/*', '/settings']) api.use(path, limit(BODY_LIMIT.chart));

  api.get('/health', (c) => c.json({ ok: true }));
  api.get('/charts', async (c) => c.json(await library.charts()));
  api.post('/charts', async (c) =>
    c.json(await library.createChart(await body<ChartDraft>(c, draftSchema)), 201),
  );
  api.get('/charts/:id', async (c) => c.json(found(await library.readChart(id(c)), 'chart')));
  api.put('/charts/:id', async (c) => {
    const change = await body<ChartChange>(c, changeSchema);
    const changed = await library.changeChart(id(c), change);
    if (changed) return c.json(changed);
    const current = found(await library.readChart(id(c)), 'chart');
    throw new Refused(
      409,
      { code: 'conflict', message: 'This chart was changed elsewhere since it was opened here.' },
      current,
    );
  });
  api.get('/instruments', async (c) => c.json(await library.instruments()));
  api.post('/instruments', async (c) =>
    c.json(await library.putInstrument(await body<Instrument>(c, instrumentSchema)), 201),
  );
  api.put('/instruments/:id', async (c) =>
    c.json(
      found(await library.putInstrument(await body<Instrument>(c, instrumentSchema), id(c)), 'instrument'),
    ),
  );
  for (const [table, what] of [
    ['charts', 'chart'],
    ['instruments', 'instrument'],
  ] as const) {
    api.delete(`/${table}/:id`, async (c) =>
      c.json({ ok: found(await library.mark(table, id(c), true), what) }),
    );
    api.post(`/${table}/:id/restore`, async (c) =>
      c.json({ ok: found(await library.mark(table, id(c), false), `deleted ${what}`) }),
    );
  }
  api.get('/settings', async (c) => c.json(await library.settings()));
  api.patch('/settings', async (c) =>
    c.json(await library.changeSettings(await body<Partial<Settings>>(c, settingsChangeSchema))),
  );
  api.get('/backup', async (c) => c.json(await library.backup()));
  api.post('/restore', async (c) => {
    const data = await json(c);
    const version = (data as { version?: unknown } | null)?.version;
    if (typeof version === 'number' && version !== BACKUP_VERSION)
      throw new Refused(422, {
        code: 'backup-version',
        field: 'version',
        message:
          `This backup has version ${version}; this Crow Ladder reads version ${BACKUP_VERSION}. ${version > BACKUP_VERSION ? 'Update Crow Ladder first.' : ''}`.trim(),
      });
    // A backup made before a setting existed leaves it at its default.
    const { settings } = (data ?? {}) as { settings?: object };
    const whole =
      settings && typeof settings === 'object'
        ? { ...(data as object), settings: { ...DEFAULT_SETTINGS, ...settings } }
        : data;
    const checked = validate<Backup>(backupSchema, whole);
    if (!checked.ok) throw new Refused(422, { ...checked.error, code: 'backup-invalid' });
    const twice = checked.value.charts.map((x) => x.id).find((x, i, all) => all.indexOf(x) !== i);
    if (twice)
      throw new Refused(422, {
        code: 'backup-invalid',
        field: 'charts',
        message: `Two charts in this backup have the id ${twice}.`,
      });
    await library.restore(checked.value);
    return c.json({ charts: checked.value.charts.length, instruments: checked.value.instruments.length });
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
