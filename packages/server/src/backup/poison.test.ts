import { type Backup, type Chart, FIRST_STATE, type Unreadable } from '@crow-ladder/contract';
import { ROUND, type Served, served } from '../../test/served.ts';
import { checkLibrary } from '../check.ts';
import { openDatabase } from '../database.ts';

// Whatever comes in goes out and comes in again, and all of it can be saved and deleted.

let it: Served;
/** What every test begins with. */
let first: Backup;
beforeAll(async () => {
  it = await served();
  first = await out();
});
beforeEach(async () => {
  await it.restore(first);
});
afterAll(() => it.close());
const out = async (): Promise<Backup> => (await it.call<Backup>('GET', '/backup')).body;
const STAMP = '2026-06-01T20:00:00.000Z';
const deep = (n: number): string => '['.repeat(n) + ']'.repeat(n);
const row = {
  id: 'fog',
  name: 'Fog signal',
  tags: '["deck"]',
  notes: 'slowly',
  state: JSON.stringify(FIRST_STATE),
  revision: 3,
  created_at: STAMP,
  updated_at: STAMP,
};
const bare = ({ charts, unreadable, madeAt: _, ...rest }: Backup) => ({
  ...rest,
  unreadable: unreadable.map((row) => ({ ...row, revision: 0 })),
  charts: charts.map((c) => ({ ...c, revision: 0 })),
});

/** Takes what came in out and in again, then changes and deletes all of it. */
async function goesRound(): Promise<void> {
  const before = await out();
  expect(before.charts.length + before.unreadable.length).toBe((await it.page()).all);
  expect(await it.restore(before)).toMatchObject({ status: 200 });
  const second = await out();
  expect(bare(second)).toEqual(bare(before));
  const { charts, unreadable } = await it.page();
  for (const { id } of charts) {
    const { body } = await it.call<Chart>('GET', `/charts/${id}`);
    const { name, tags, notes, state, revision } = body;
    const change = { name: `${name}!`, tags, notes, state, revision };
    const changed = await it.call<Chart>('PUT', `/charts/${id}`, change);
    expect([name, changed.status]).toEqual([name, 200]);
    expect((await it.remove('chart', changed.body)).status).toBe(200);
  }
  for (const it_ of unreadable as readonly Unreadable[])
    expect([it_.name, (await it.remove('chart', it_)).status]).toEqual([it_.name, 200]);
  expect(await it.page()).toMatchObject({ all: 0, unreadable: [] });
}

test.each([
  ['no id', { id: '' }, 'chart'],
  ['an id that leads elsewhere', { id: '../a?b' }, 'chart'],
  ['a long id', { id: 'x'.repeat(100) }, 'chart'],
  ['a revision beyond counting', { revision: 1e300 }, 'chart'],
  ['the largest revision', { revision: Number.MAX_SAFE_INTEGER }, 'chart'],
  ['a revision below one', { revision: -4 }, 'chart'],
  ['no revision yet', { revision: 0 }, 'chart'],
  ['half a revision', { revision: 1.5 }, 'chart'],
  ['a revision of words', { revision: 'three' }, 'chart'],
  ['odd dates', { created_at: 'x', updated_at: '2026-13-40T20:00:00Z' }, 'chart'],
  ['no dates', { created_at: null, updated_at: '' }, 'chart'],
  ['a nest in its state', { state: deep(4000) }, 'row'],
  ['a nest in its tags', { tags: deep(4000) }, 'row'],
  ['a nest within its state', { state: `{"v":3,"x":${deep(4000)}}` }, 'row'],
  ['no name', { name: null }, 'row'],
  ['tags of another kind', { tags: '{"a":1}' }, 'row'],
  ['odd characters', { name: 'Fog\u0000 \ud800signal' }, 'chart'],
  ['all that is odd at once', { id: '', revision: 1e300, created_at: 'x', state: '{' }, 'row'],
])('a row with %s comes in, and goes out and in again', async (_, part, as) => {
  const backup = await out();
  const file = { ...backup, charts: backup.charts.slice(0, 1), unreadable: [{ ...row, ...part }] };
  expect(await it.restore(file)).toMatchObject({ status: 200, body: { charts: 2 } });
  expect((await it.page()).unreadable).toHaveLength(as === 'row' ? 1 : 0);
  await goesRound();
});

test('rows that are odd alike are told apart, and those with one id are refused', async () => {
  const backup = await out();
  const of = (...rows: object[]) => ({ ...backup, charts: [], unreadable: rows });
  expect(await it.restore(of({ ...row, id: '' }, { ...row, id: ' ' }))).toMatchObject({
    body: { charts: 2 },
  });
  expect((await it.page()).found).toBe(2);
  expect(await it.restore(of(row, row))).toMatchObject({
    status: 422,
    body: { error: { field: 'charts', message: 'Two charts in this backup have the id fog.' } },
  });
});

test('a chart with a revision beyond counting comes in with one that can be counted on, over one that was odd too', async () => {
  const backup = await out();
  const [one, two] = backup.charts as [Chart, Chart];
  const charts = [
    { ...one, revision: 1e300 },
    { ...two, revision: Number.MAX_SAFE_INTEGER },
  ];
  expect((await it.restore({ ...backup, charts })).status).toBe(200);
  expect((await it.restore({ ...backup, charts })).status).toBe(200);
  await it.db('charts').where({ id: one.id }).update({ revision: 1e300 });
  expect((await it.restore({ ...backup, charts: [one, two] })).status).toBe(200);
  await goesRound();
});

test('a nest of thousands is refused with its place, in a request and in a backup', async () => {
  const nest = JSON.parse(deep(4000)) as unknown;
  const draft = { name: 'Nest', tags: [], notes: '', state: { ...FIRST_STATE, chords: [nest] } };
  for (const body of [draft, { ...draft, tags: nest }, nest])
    expect(await it.call('POST', '/charts', body)).toMatchObject({
      status: 422,
      body: { error: { message: 'This is nested too deep to be anything of Crow Ladder.' } },
    });
  for (const [method, path] of [
    ['POST', '/instruments'],
    ['PATCH', '/settings'],
    ['POST', '/known'],
    ['PUT', '/practice/fog'],
    ['PUT', '/charts/fog/look'],
  ] as const)
    for (const body of [nest, { shape: nest, to: nest, from: nest, front: nest, at: nest }])
      expect([path, (await it.call(method, path, body)).status]).toEqual([path, 422]);
  const backup = await out();
  for (const [part, field] of [
    [{ charts: [{ ...backup.charts[0]!, state: draft.state }] }, 'charts[0]'],
    [{ charts: [{ ...backup.charts[0]!, tags: nest }] }, 'charts[0]'],
    [{ unreadable: [{ ...row, state: nest }] }, 'unreadable[0]'],
    [{ practice: [nest] }, 'practice[0]'],
    [{ known: nest }, undefined],
    [{ settings: { ...backup.settings, ownScales: nest } }, undefined],
  ] as const) {
    const res = await it.restore({ ...backup, ...part });
    expect([Object.keys(part), res.status]).toEqual([Object.keys(part), 422]);
    if (field) expect(res.body).toMatchObject({ error: { field: expect.stringContaining(field) } });
  }
  expect(bare(await out())).toEqual(bare(backup));
});

test('a backup of an earlier version has no list of a later one', async () => {
  const { format, madeAt, charts, instruments, settings } = await out();
  const backup = { format, madeAt, charts, instruments, settings };
  const round = { ...ROUND, id: 'round-1' };
  for (const [version, field, part] of [
    [1, 'practice', { practice: [round] }],
    [1, 'unreadable', { unreadable: [row] }],
    [1, 'known', { known: [] }],
    [2, 'practice', { practice: [round], unreadable: [], known: [] }],
    [3, 'cards', { practice: [], unreadable: [], known: [], cards: [] }],
    [3, 'reviews', { practice: [], unreadable: [], known: [], reviews: [] }],
  ] as const) {
    for (const file of [
      { ...backup, version, ...part },
      { ...part, ...backup, version },
    ])
      expect(await it.restore(file)).toMatchObject({
        status: 422,
        body: {
          error: { code: 'backup-invalid', field, message: expect.stringContaining(`version ${version}`) },
        },
      });
  }
});

test('what an odd row of before left in a library is found by a look through it, and put right by the next start', async () => {
  await it.db('charts').delete();
  const insert = (part: object) => it.db('charts').insert({ ...row, ...part });
  await insert({ id: '' });
  await insert({ id: 'a/b', created_at: 'x' });
  await insert({ id: 'far', revision: 1e300, updated_at: '' });
  await insert({ id: 'less', created_at: 'x' });
  await insert({ id: 'well', name: 'As it was' });
  await it.page();
  const lines: string[] = [];
  expect(await checkLibrary(it.path, (line) => lines.push(line))).toBe(false);
  for (const what of ['id', 'date', 'revision'])
    expect(
      lines.filter((l) => l.includes(`Its ${what} cannot be used: save a backup and bring it back`)),
    ).not.toEqual([]);
  const backup = await out();
  expect(backup.unreadable).toHaveLength(4);
  // A library that an older Crow Ladder kept is put right as it is brought up to date.
  await it.db('knex_migrations').where({ name: '006_sound' }).delete();
  await it.db.schema.alterTable('answers', (t) => t.dropColumn('asked'));
  await (await openDatabase(it.path)).db.destroy();
  expect(await checkLibrary(it.path, () => undefined)).toBe(true);
  const right = await out();
  expect(right.charts).toHaveLength(5);
  expect((await it.call<Chart>('GET', '/charts/well')).body).toMatchObject({
    name: 'As it was',
    revision: 3,
  });
  // The backup brought back does the same.
  expect((await it.restore(backup)).status).toBe(200);
  expect(bare(await out()).charts).toEqual(bare(right).charts);
  await goesRound();
});
