import { BACKUP_VERSION, type Backup, type Chart, FIRST_STATE } from '@crow-ladder/contract';
import {
  checkInstrument,
  layOut,
  mod,
  neckOf,
  note,
  pitchAt,
  pitchClass,
  positionThrough,
  resolveScale,
} from '@crow-ladder/core';
import { type Knex } from 'knex';
import { apiOn } from './api.ts';
import { openDatabase } from './database.ts';
import { libraryOn } from './library.ts';

let db: Knex;
let api: ReturnType<typeof apiOn>;
beforeEach(async () => {
  ({ db } = await openDatabase(':memory:'));
  api = apiOn(libraryOn(db));
});
afterEach(() => db.destroy());

const draft = { name: 'Night crossing', tags: ['ballad'], notes: '', state: FIRST_STATE };
async function call<T = { error: { code: string; field?: string; message: string } }>(
  method: string,
  path: string,
  body?: unknown,
  headers = {},
) {
  const res = await api.request(path, {
    method,
    headers: { 'content-type': 'application/json', ...headers },
    ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
  });
  return { status: res.status, body: (await res.json()) as T };
}

test('the demo has enough charts, keys and tunings, and every root sounds where it is said to lie', async () => {
  const { body: charts } = await call<Chart[]>('GET', '/charts');
  expect(charts.length).toBeGreaterThanOrEqual(6);
  expect(new Set(charts.map((c) => c.state.instrument.tuning.join())).size).toBeGreaterThanOrEqual(3);
  expect(charts.some((c) => c.state.instrument.tuning.length === 7)).toBe(true);
  for (const root of ['F#', 'Bb', 'Eb', 'C#']) expect(charts.map((c) => c.state.root)).toContain(root);
  for (const { name, state } of charts) {
    expect(checkInstrument(state.instrument).ok).toBe(true);
    const neck = neckOf(state.instrument);
    expect([name, mod(pitchAt(neck, state.string, state.fret), 12)]).toEqual([
      name,
      pitchClass(note(state.root)),
    ]);
    const scale = resolveScale(state.scale);
    const positions = scale.ok && layOut(neck, { root: note(state.root), scale: scale.value }, state.layout);
    expect([
      name,
      positions && positions.ok && positionThrough(positions.value, state.string, state.fret) !== null,
    ]).toEqual([name, true]);
  }
});

test('the demo is loaded once and never again over what the player left', async () => {
  const { body: charts } = await call<Chart[]>('GET', '/charts');
  for (const c of charts) await call('DELETE', `/charts/${c.id}`);
  const { seedDemo } = await import('./seeds/demo.ts');
  expect(await seedDemo(db)).toBe(false);
  expect((await call<Chart[]>('GET', '/charts')).body).toEqual([]);
});

test('a chart is made, changed, deleted and brought back', async () => {
  const made = await call<Chart>('POST', '/charts', draft);
  expect([made.status, made.body.revision]).toEqual([201, 1]);
  const { id } = made.body;
  const changed = await call<Chart>('PUT', `/charts/${id}`, { ...draft, name: 'Day crossing', revision: 1 });
  expect(changed.body).toMatchObject({ name: 'Day crossing', revision: 2 });
  expect((await call('DELETE', `/charts/${id}`)).status).toBe(200);
  expect(await call('GET', `/charts/${id}`)).toMatchObject({
    status: 404,
    body: { error: { code: 'not-found' } },
  });
  expect((await call('POST', `/charts/${id}/restore`)).status).toBe(200);
  expect((await call<Chart>('GET', `/charts/${id}`)).body.name).toBe('Day crossing');
});

test('a change made from an old revision is refused and shows what stands there now', async () => {
  const { body: chart } = await call<Chart>('POST', '/charts', draft);
  await call('PUT', `/charts/${chart.id}`, { ...draft, name: 'First', revision: 1 });
  const late = await call<{ error: { code: string }; current: Chart }>('PUT', `/charts/${chart.id}`, {
    ...draft,
    name: 'Second',
    revision: 1,
  });
  expect(late).toMatchObject({
    status: 409,
    body: { error: { code: 'conflict' }, current: { name: 'First', revision: 2 } },
  });
});

test.each([
  ['a nameless chart', { ...draft, name: ' ' }, 422, 'invalid', 'name'],
  [
    'an unknown scale',
    { ...draft, state: { ...FIRST_STATE, scale: 'purple' } },
    422,
    'invalid',
    'state.scale',
  ],
  ['an unknown root', { ...draft, state: { ...FIRST_STATE, root: 'H' } }, 422, 'invalid', 'state.root'],
  ['a fret off the neck', { ...draft, state: { ...FIRST_STATE, fret: 23 } }, 422, 'invalid', 'state.fret'],
  ['a missing string', { ...draft, state: { ...FIRST_STATE, string: 7 } }, 422, 'invalid', 'state.string'],
  [
    'an unknown layout',
    { ...draft, state: { ...FIRST_STATE, layout: { kind: 'spiral' } } },
    422,
    'invalid',
    'state.layout',
  ],
  [
    'an impossible capo',
    { ...draft, state: { ...FIRST_STATE, instrument: { ...FIRST_STATE.instrument, capo: 11 } } },
    422,
    'invalid',
    'state.instrument.capo',
  ],
  ['an unknown field', { ...draft, colour: 'red' }, 422, 'invalid', undefined],
  ['text that is not JSON', '{"name":', 400, 'bad-json', undefined],
  ['too much text', { ...draft, notes: 'x'.repeat(120_000) }, 413, 'too-large', undefined],
])('refuses %s', async (_, body, status, code, field) => {
  const before = (await call<Chart[]>('GET', '/charts')).body.length;
  const res = await call('POST', '/charts', body);
  expect([res.status, res.body.error.code, res.body.error.field]).toEqual([status, code, field]);
  expect(res.body.error.message).toMatch(/\.$/);
  expect((await call<Chart[]>('GET', '/charts')).body.length).toBe(before);
});

test('unknown ids and addresses, and pages of other sites, are refused', async () => {
  for (const [method, path, body] of [
    ['GET', '/charts/none'],
    ['DELETE', '/instruments/none'],
    ['PUT', '/charts/none', { ...draft, revision: 1 }],
    ['GET', '/nowhere'],
  ] as const)
    expect((await call(method, path, body)).status).toBe(404);
  expect(
    await call('POST', '/charts', draft, { origin: 'http://elsewhere.example', host: '127.0.0.1' }),
  ).toMatchObject({ status: 403, body: { error: { code: 'foreign-page' } } });
});

test('instruments and settings are kept', async () => {
  const { body: made } = await call<{ id: string }>('POST', '/instruments', {
    ...FIRST_STATE.instrument,
    name: 'spare',
  });
  const put = await call('PUT', `/instruments/${made.id}`, {
    ...FIRST_STATE.instrument,
    name: 'spare',
    frets: 24,
  });
  expect(put.body).toMatchObject({ instrument: { frets: 24 } });
  // Two tabs change different settings; neither takes the other's change back.
  expect((await call('PATCH', '/settings', { theme: 'stage' })).status).toBe(200);
  const fog = [{ id: 'own:1,b2,5', name: 'Fog signal' }];
  await call('PATCH', '/settings', { ownScales: fog });
  expect((await call('GET', '/settings')).body).toMatchObject({
    theme: 'stage',
    ownScales: fog,
    spanMm: 110,
  });
  for (const [part, field] of [
    [{ spanMm: 20 }, 'spanMm'],
    [{ ownScales: [{ id: 'own:1,b2,5', name: ' ' }] }, 'ownScales[0].name'],
    [{ ownScales: [{ id: 'dorian', name: 'mine' }] }, 'ownScales[0].id'],
  ] as const)
    expect(await call('PATCH', '/settings', part)).toMatchObject({ status: 422, body: { error: { field } } });
  expect((await call('GET', '/settings')).body).toMatchObject({ ownScales: fog });
});

test('a backup restores the whole library, and a bad one changes nothing', async () => {
  const { body: backup } = await call<Backup>('GET', '/backup');
  for (const c of backup.charts.slice(0, 3)) await call('DELETE', `/charts/${c.id}`);
  const bad: readonly [unknown, string][] = [
    [JSON.stringify(backup).slice(0, -40), 'bad-json'],
    [{ ...backup, version: BACKUP_VERSION + 1 }, 'backup-version'],
    [{ ...backup, charts: [...backup.charts.slice(1), { ...backup.charts[0], name: '' }] }, 'backup-invalid'],
    [{ ...backup, charts: [...backup.charts, backup.charts[0]] }, 'backup-invalid'],
    [{ hello: 1 }, 'backup-invalid'],
  ];
  const left = (await call<Chart[]>('GET', '/charts')).body;
  for (const [file, code] of bad) {
    expect((await call('POST', '/restore', file)).body.error.code).toBe(code);
    expect((await call<Chart[]>('GET', '/charts')).body).toEqual(left);
  }
  expect((await call('POST', '/restore', backup)).status).toBe(200);
  const { body: back } = await call<Backup>('GET', '/backup');
  expect(back).toMatchObject({
    charts: backup.charts.map((c) => ({ ...c, revision: c.revision + 1 })),
    instruments: backup.instruments,
    settings: backup.settings,
  });
});

test('what a restore replaced cannot be saved over it by a tab that still shows it', async () => {
  const { body: backup } = await call<Backup>('GET', '/backup');
  const { id, revision, name, tags, notes, state } = backup.charts[0]!;
  const save = (text: string, from: number) =>
    call<Chart>('PUT', `/charts/${id}`, { name, tags, notes: text, state, revision: from });
  const shown = (await save('typed before the restore', revision)).body.revision;
  await call('POST', '/restore', backup);
  expect((await save('typed on top of it', shown)).status).toBe(409);
  expect((await call<Chart>('GET', `/charts/${id}`)).body.notes).toBe(notes);
});

test('a backup made before a setting existed leaves it at its default', async () => {
  const { body: backup } = await call<Backup>('GET', '/backup');
  const older = { ...backup.settings, ownScales: undefined };
  await call('PATCH', '/settings', { ownScales: [{ id: 'own:1,b2,5', name: 'Fog signal' }] });
  expect((await call('POST', '/restore', { ...backup, settings: older })).status).toBe(200);
  expect((await call('GET', '/settings')).body).toMatchObject({ ownScales: [] });
});
