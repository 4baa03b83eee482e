import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  type Backup,
  type Chart,
  FIRST_STATE,
  type KeptInstrument,
  type KeptRound,
  tidied,
} from '@crow-ladder/contract';
import fc from 'fast-check';
import { drawn } from '../../../scripts/thorough.ts';
import { type Served, served } from '../test/served.ts';

// Requests that nobody sends by mistake: whatever comes, the library answers in its own terms and keeps nothing that it could not
// give back.
let it: Served;
beforeAll(async () => {
  it = await served();
});
afterAll(() => it.close());

async function send(method: string, path: string, body?: string, headers: Record<string, string> = {}) {
  const res = await it.send(method, path, method === 'GET' ? undefined : body, headers);
  const text = await res.text();
  return { status: res.status, headers: res.headers, text, json: (): unknown => JSON.parse(text) };
}

/** Texts with halves of characters, characters that are not seen, signs of direction, combining marks, names of the language itself. */
const oddText = fc.oneof(
  fc.string({ unit: 'binary', maxLength: 30 }),
  fc.constantFrom(
    '\ud800',
    'a\udc00b',
    '\u0000',
    '\u200b\u200d',
    '\u202e!',
    'e\u0301',
    '',
    '   ',
    '__proto__',
    'constructor',
    '\ufeff',
    '🎸'.repeat(60),
    'x'.repeat(5000),
  ),
);
const odd: fc.Arbitrary<unknown> = fc.oneof(
  oddText,
  fc.constantFrom(null, true, {}, [], [[]], { length: -1 }, -1, 0.5, 1e308, 2 ** 53, '7', { toString: 1 }, [
    {},
    null,
  ]),
  fc.jsonValue({ maxDepth: 3 }),
);
const draft = { name: 'Fog bank', tags: ['deck'], notes: 'slowly', state: FIRST_STATE };
const valid: Readonly<Record<string, unknown>> = {
  'POST /api/charts': draft,
  'PUT /api/charts/ID': { ...draft, revision: 1 },
  'POST /api/instruments': FIRST_STATE.instrument,
  'PUT /api/instruments/ID': { instrument: FIRST_STATE.instrument, revision: 1 },
  'PATCH /api/settings': {
    from: {},
    to: { theme: 'stage', spanMm: 100, favourites: ['dorian'], ownScales: [], seen: [], windowRecord: 4 },
  },
  'POST /api/known': { shape: 'dorian 6:0 2 3/5:0 2 3' },
  'PUT /api/charts/ID/look': { front: { start: 0, low: 2, nth: 0 } },
  'PUT /api/practice/ID': {
    at: '2026-06-01T20:00:00.000Z',
    drill: 'groups.3.twice',
    shape: 'dorian 6:0 2 3',
    name: 'groups',
    perBeat: 2,
    tempo: 90,
    clean: true,
  },
  'DELETE /api/known': { shape: 'dorian 6:0 2 3/5:0 2 3' },
};

/** Every way into a value, by names. */
function paths(data: unknown, here: readonly string[] = []): (readonly string[])[] {
  if (typeof data !== 'object' || data === null) return [here];
  return [here, ...Object.entries(data).flatMap(([key, it]) => paths(it, [...here, key]))];
}
/** A value with something else at one of its ways. */
function altered(data: unknown, [key, ...rest]: readonly string[], by: unknown): unknown {
  if (key === undefined) return by;
  if (Array.isArray(data)) return data.map((it, i) => (String(i) === key ? altered(it, rest, by) : it));
  return { ...(data as object), [key]: altered((data as Record<string, unknown> | null)?.[key], rest, by) };
}

/** What is asked for in an address, and in headers. */
const asking = fc.record({
  to: fc.constantFrom(
    'GET /api/charts?',
    'GET /api/practice?',
    'DELETE /api/practice/',
    'DELETE /api/charts/ID',
    'DELETE /api/instruments/ID',
    'POST /api/visit',
    'PUT /api/restores/',
    'GET /api/restores/',
    'POST /api/restores/',
    'GET /api/charts/',
    'POST /api/charts/ID/',
  ),
  name: fc.constantFrom('find', 'tag', 'order', 'from', 'drill', 'perBeat', '__proto__', 'unheard'),
  text: oddText,
  by: odd,
});

const request = fc
  .record({
    to: fc.constantFrom(...Object.keys(valid)),
    changes: fc.array(fc.record({ at: fc.nat(), by: odd, more: fc.boolean() }), { maxLength: 2 }),
  })
  .map(({ to, changes }) => {
    let body: unknown = valid[to];
    for (const { at, by, more } of changes) {
      const ways = paths(body);
      const way = ways[at % ways.length]!;
      body = altered(body, more ? [...way, 'unheard'] : way, by);
    }
    return { to, body };
  });

test('no request of an odd shape is the server’s fault, and what is accepted is given back equal', async () => {
  const { id: chart } = (await send('POST', '/api/charts', JSON.stringify(draft))).json() as Chart;
  const { id: instrument } = (
    await send('POST', '/api/instruments', JSON.stringify(FIRST_STATE.instrument))
  ).json() as KeptInstrument;
  let taken = 0;
  let refused = 0;
  await fc.assert(
    fc.asyncProperty(request, async ({ to, body }) => {
      const [method, address] = to.split(' ') as [string, string];
      const path = address.replace('ID', address.includes('charts') ? chart : instrument);
      const res = await send(method, path, JSON.stringify(body) ?? 'null');
      expect([res.status < 500, res.status]).toEqual([true, res.status]);
      if (res.status >= 400) {
        refused++;
        expect(res.json()).toMatchObject({
          error: { code: expect.stringMatching(/^[a-z-]+$/), message: expect.stringMatching(/\.$/) },
        });
        return;
      }
      taken++;
      if (to !== 'POST /api/charts') return;
      const { id } = res.json() as Chart;
      const back = (await send('GET', `/api/charts/${id}`)).json() as Chart;
      expect(back).toEqual(res.json());
      expect({ name: back.name, tags: back.tags, notes: back.notes }).toEqual(
        (({ name, tags, notes }) => ({ name, tags, notes }))(tidied(body) as typeof draft),
      );
    }),
    { numRuns: drawn(2000) },
  );
  expect(Math.min(taken, refused)).toBeGreaterThan(drawn(100));
  const backup = (await send('GET', '/api/backup')).json() as Backup;
  expect(backup.unreadable).toEqual([]);
  expect((await it.restore(backup)).status).toBe(200);
  const again = (await send('GET', '/api/backup')).json() as Backup;
  const bare = ({ charts, instruments, settings, known }: Backup) => ({
    charts: charts.map((c) => ({ ...c, revision: 0 })),
    instruments,
    settings,
    known,
  });
  expect(bare(again)).toEqual(bare(backup));
});

test('odd addresses, headers and passcodes are refused in the same terms, and change nothing', async () => {
  const { id } = (await send('POST', '/api/charts', JSON.stringify(draft))).json() as Chart;
  const count = async (): Promise<number> => (await it.page()).all;
  const before = await count();
  let refused = 0;
  await fc.assert(
    fc.asyncProperty(asking, async ({ to, name, text, by }) => {
      const [method, address] = to.split(' ') as [string, string];
      const said = encodeURIComponent(Buffer.from(text).toString());
      const path = address.endsWith('?')
        ? `${address}${name}=${said}`
        : address.includes('ID')
          ? address.replace('ID', id) + (address.endsWith('/') ? said : '')
          : address + said;
      const tag = text.replace(/[^ -~]/g, '');
      const res = await send(method, path, method === 'GET' ? undefined : JSON.stringify({ passcode: by }), {
        'if-match': tag,
      });
      expect([path, res.status < 500, res.status]).toEqual([path, true, res.status]);
      if (res.status < 400 || method === 'GET') return;
      refused++;
      expect(res.json()).toMatchObject({
        error: { code: expect.stringMatching(/^[a-z-]+$/), message: expect.stringMatching(/\.$/) },
      });
    }),
    { numRuns: drawn(2000) },
  );
  expect(refused).toBeGreaterThan(drawn(100));
  expect(await count()).toBe(before);
});

test('altered backups are refused with their place, or taken in, and equal after going out and in again', async () => {
  const backup = (await send('GET', '/api/backup')).json() as Backup;
  const { name, notes, createdAt, updatedAt, state } = backup.charts[0]!;
  const row = { name, notes, id: 'torn', revision: 1, created_at: createdAt, updated_at: updatedAt };
  const small = {
    ...backup,
    charts: backup.charts.slice(0, 2),
    unreadable: [
      { ...row, tags: '[]', state: JSON.stringify(state) },
      { ...row, id: 'torn-2', tags: '[', state: '{' },
    ],
    practice: [{ ...(valid['PUT /api/practice/ID'] as KeptRound), id: 'round-1' }],
    instruments: backup.instruments.slice(0, 2),
    known: ['dorian 6:0 2 3/5:0 2 3'],
  };
  const whole = async (): Promise<unknown> => {
    const { charts, unreadable, ...rest } = (await send('GET', '/api/backup')).json() as Backup;
    const bare = <T>(all: readonly T[]) => all.map((it) => ({ ...it, revision: 0 }));
    return { ...rest, madeAt: '', charts: bare(charts), unreadable: bare(unreadable) };
  };
  let refused = 0;
  let taken = 0;
  await fc.assert(
    fc.asyncProperty(fc.nat(), odd, fc.constantFrom('other', 'more', 'twice', 'cut'), async (at, by, how) => {
      const ways = paths(small);
      const way = ways[at % ways.length]!;
      const text =
        how === 'cut'
          ? JSON.stringify(small).slice(0, at % 9000)
          : how === 'twice'
            ? JSON.stringify(small).replace(/^\{/, `{"charts":[],"known":[],`)
            : JSON.stringify(altered(small, how === 'more' ? [...way, 'unheard'] : way, by));
      const res = await it.restore(text ?? 'null');
      expect([res.status < 500, res.status]).toEqual([true, res.status]);
      if (res.status >= 400) {
        refused++;
        expect(res.body.error.message).toMatch(/\.$/);
      } else taken++;
      const before = await whole();
      expect((await it.restore((await send('GET', '/api/backup')).json())).status).toBe(200);
      expect(await whole()).toEqual(before);
    }),
    { numRuns: drawn(300) },
  );
  expect(Math.min(refused, taken)).toBeGreaterThan(drawn(30));
});

test('an address of the page is read and nothing else; of its files no odd part is given', async () => {
  const webRoot = mkdtempSync(join(tmpdir(), 'crow-ladder-'));
  const page = '<!doctype html><title>Crow Ladder</title>';
  writeFileSync(join(webRoot, 'index.html'), page);
  const here = await served({ webRoot });
  for (const path of ['/', '/charts/keel', '/index.html'])
    for (const method of ['POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS']) {
      const res = await here.send(method, path, method === 'OPTIONS' ? undefined : '{}');
      expect([path, method, res.status, res.headers.get('allow')]).toEqual([path, method, 405, 'GET, HEAD']);
      expect(await res.json()).toMatchObject({ error: { code: 'no-such-method' } });
    }
  for (const range of ['bytes=9-2', 'bytes=999999-', 'bytes=x-y', 'bytes', 'bytes=-', '\t', 'bytes=1-2;'])
    for (const path of ['/', '/index.html', '/charts/keel']) {
      const res = await here.send('GET', path, undefined, { range });
      expect([range, path, res.status, res.headers.get('content-range')]).toEqual([
        range,
        path,
        416,
        `bytes */${page.length}`,
      ]);
    }
  for (const range of ['lines=1-2', 'bytes=0-4', 'bytes=-5', 'bytes=0-0', 'bytes=2-'])
    expect([range, await (await here.send('GET', '/', undefined, { range })).text()]).toEqual([range, page]);
  expect((await here.send('GET', '/api/charts', undefined, { range: 'bytes=9-2' })).status).toBe(200);
  await here.close();
  rmSync(webRoot, { recursive: true, force: true });
});

test('methods, types, hosts and origins that are not meant are refused, each by its own status', async () => {
  const wrongMethod = await send('PUT', '/api/charts', '{}');
  expect([wrongMethod.status, wrongMethod.headers.get('allow')]).toEqual([405, 'GET, HEAD, POST']);
  for (const [path, form] of [
    ['/api/charts', 'name=x'],
    ['/api/visit', 'passcode=sea+shanty'],
    ['/api/visit', '{"passcode":"sea shanty"}'],
  ] as const)
    for (const type of ['text/plain', 'application/x-www-form-urlencoded'])
      expect((await send('POST', path, form, { 'content-type': type })).status).toBe(415);
  for (const headers of [
    { origin: 'null' },
    { origin: 'http://elsewhere.example' },
    { origin: '::' },
    { 'sec-fetch-site': 'cross-site' },
    { 'sec-fetch-site': 'same-site' },
  ] as Record<string, string>[])
    expect((await send('POST', '/api/charts', JSON.stringify(draft), headers)).status).toBe(403);
  for (const path of ['/', '/api/charts', '/assets/none.js', '/charts'])
    for (const method of ['GET', 'POST'])
      expect((await send(method, path, '{}', { host: 'rebound.example:4780' })).status).toBe(421);
  const own = await send('POST', '/api/charts', JSON.stringify(draft), {
    host: 'localhost:4780',
    origin: 'http://localhost:4780',
    'sec-fetch-site': 'same-origin',
  });
  expect(own.status).toBe(201);
  expect((await send('GET', '/assets/none-12345678.js')).status).toBe(404);
  expect((await send('GET', '/mark.txt')).status).toBe(404);
  for (const path of ['/api/charts', '/assets/none.js', '/api/nowhere']) {
    const { headers } = await send('GET', path);
    expect(headers.get('x-content-type-options')).toBe('nosniff');
    expect(headers.get('content-security-policy')).toContain("frame-ancestors 'none'");
    expect(headers.get('content-security-policy')).not.toContain("script-src 'unsafe-inline'");
  }
});
