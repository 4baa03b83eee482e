import { FIRST_STATE, type Backup, type Chart, DEFAULT_SETTINGS } from '@crow-ladder/contract';
import { served, type Served } from '../test/served.ts';

let it: Served;
beforeEach(async () => {
  it = await served();
});
afterEach(() => it.close());

const DRAFT = { name: 'Keel', tags: [], notes: '', state: FIRST_STATE };
const LIBRARY = 'crow-ladder-library';
const identity = async (): Promise<string> => (await it.call('GET', '/settings')).headers.get(LIBRARY)!;
const front = { start: 1, low: 4, nth: 0 };

test('a library says which it is with every answer, and is another one once a backup took its place', async () => {
  const first = await identity();
  expect(first).toMatch(/^[\w-]{8,}$/);
  expect((await it.call('PUT', '/charts/keel', { ...DRAFT, revision: 0 })).headers.get(LIBRARY)).toBe(first);
  const { body } = await it.call<Backup>('GET', '/backup');
  expect(await identity()).toBe(first);
  await it.restore({ ...body, charts: [null] });
  expect(await identity()).toBe(first);
  await it.restore(body);
  expect(await identity()).not.toBe(first);
});

test('what was made on another library changes nothing', async () => {
  const headers = { [LIBRARY]: await identity() };
  const { body } = await it.call<Backup>('GET', '/backup');
  const changes = (nth: string): readonly [string, string, unknown][] => [
    ['PUT', `/charts/keel-${nth}`, { ...DRAFT, revision: 0 }],
    ['PATCH', '/settings', { from: { theme: 'system' }, to: { theme: 'stage' } }],
    ['POST', '/known', { shape: 'dorian 6:0 2 3/5:0 2 3' }],
  ];
  await it.restore(body);
  for (const [method, path, asked] of changes('a'))
    expect(await it.call(method, path, asked, headers)).toMatchObject({
      status: 409,
      body: { error: { code: 'other-library' } },
    });
  const { settings, known, charts } = (await it.call<Backup>('GET', '/backup')).body;
  expect([settings.theme, known, charts.length]).toEqual([
    DEFAULT_SETTINGS.theme,
    body.known,
    body.charts.length,
  ]);
  const now = { [LIBRARY]: await identity() };
  for (const [method, path, asked] of changes('b'))
    expect((await it.call(method, path, asked, now)).status).toBe(200);
});

test('a change that waited while another library took the place of its own changes nothing', async () => {
  const of = await identity();
  const { body } = await it.call<Backup>('GET', '/backup');
  await it.restore(body);
  await expect(it.library.changeChart('keel', { ...DRAFT, revision: 0 }, of)).rejects.toMatchObject({
    answer: { code: 'other-library' },
  });
  expect(await it.library.readChart('keel')).toBeNull();
});

test('how a chart is looked at is kept without a revision, and meets no change', async () => {
  const put = (revision: number, part = {}) =>
    it.call<Chart>('PUT', '/charts/keel', { ...DRAFT, ...part, revision });
  const read = async () => (await it.call<Chart>('GET', '/charts/keel')).body;
  await put(0);
  const before = await read();
  expect((await it.call('PUT', '/charts/keel/look', { front })).status).toBe(200);
  expect(await read()).toEqual({ ...before, state: { ...before.state, front } });
  // The change before it, which comes again after its answer was lost, and the next one are no conflict.
  expect(await put(0)).toMatchObject({ status: 200, body: { revision: 1 } });
  expect(await put(1, { notes: 'slow' })).toMatchObject({ status: 200, body: { revision: 2 } });
  expect((await it.call('PUT', '/charts/keel/look', { front: null })).status).toBe(200);
  expect((await read()).state.front).toBeNull();
  expect(await it.call('PUT', '/charts/keel/look', { front: { ...front, low: -1 } })).toMatchObject({
    status: 422,
    body: { error: { code: 'invalid', field: 'front.low' } },
  });
  expect((await it.call('PUT', '/charts/nobody/look', { front })).status).toBe(404);
});
