import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  BACKUP_VERSION,
  type Backup,
  type Chart,
  cutText,
  DOCUMENT_VERSION,
  FIRST_STATE,
  type Practised,
  type PractisedThing,
} from '@crow-ladder/contract';
import {
  ALIASES,
  checkInstrument,
  mod,
  neckOf,
  note,
  pitchAt,
  pitchClass,
  positionThrough,
  resolveScale,
} from '@crow-ladder/core';
import { layOut } from '@crow-ladder/core/layouts';
import { type Served, served, TORN_ROW } from '../../test/served.ts';
import { libraryOn } from '../library.ts';
import { intake } from '../backup/intake.ts';
import { openDatabase, passingLibrary } from '../database.ts';
import { type ChartRow } from '../tables.ts';

let it: Served;
let there = true;
beforeEach(async () => {
  there = true;
  const gone = { error: { code: 'library-gone', message: 'It is gone.' }, isKept: false };
  it = await served({ files: () => Promise.resolve(there ? null : gone) });
});
afterEach(() => it.close());
const call: Served['call'] = (...asked) => it.call(...asked);
const charts = (): Promise<readonly Chart[]> => it.charts();
const patch = (to: object, from = {}) => call('PATCH', '/settings', { from, to });
const restore = (file: unknown) => it.restore(file);

const draft = { name: 'Night crossing', tags: ['ballad'], notes: '', state: FIRST_STATE };
/** What version 1 of the application wrote, by running it. */
const frozen = <T>(name: string): T =>
  JSON.parse(readFileSync(join(__dirname, '../../../contract/test/frozen', name), 'utf8')) as T;

test('the demo has enough charts, keys and tunings, and every root sounds where it is said to lie', async () => {
  const all = await charts();
  expect(all.length).toBeGreaterThanOrEqual(6);
  expect(new Set(all.map((c) => c.state.instrument.tuning.join())).size).toBeGreaterThanOrEqual(3);
  expect(all.some((c) => c.state.instrument.tuning.length === 7)).toBe(true);
  for (const root of ['F#', 'Bb', 'Eb', 'C#']) expect(all.map((c) => c.state.key.root)).toContain(root);
  for (const { name, state } of all) {
    const { key, at } = state;
    expect(checkInstrument(state.instrument).ok).toBe(true);
    const neck = neckOf(state.instrument);
    expect([name, mod(pitchAt(neck, at.string, at.fret), 12)]).toEqual([name, pitchClass(note(key.root))]);
    const scale = resolveScale(key.scale);
    const positions = scale.ok && layOut(neck, { root: note(key.root), scale: scale.value }, state.layout);
    expect([
      name,
      positions && positions.ok && positionThrough(positions.value, at.string, at.fret) !== null,
    ]).toEqual([name, true]);
  }
});

test('the demo is loaded once and never again over what the player left', async () => {
  for (const c of await charts()) await it.remove('chart', c);
  await (await openDatabase(it.path)).db.destroy();
  expect(await charts()).toEqual([]);
});

test('a chart is made, changed, deleted and brought back', async () => {
  const made = await call<Chart>('POST', '/charts', draft);
  expect([made.status, made.body.revision]).toEqual([201, 1]);
  const { id } = made.body;
  const changed = await call<Chart>('PUT', `/charts/${id}`, { ...draft, name: 'Day crossing', revision: 1 });
  expect(changed.body).toMatchObject({ name: 'Day crossing', revision: 2 });
  expect((await it.remove('chart', changed.body)).status).toBe(200);
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

const with_ = (change: object) => ({ ...draft, state: { ...FIRST_STATE, ...change } });
test.each([
  ['a nameless chart', { ...draft, name: ' ' }, 422, 'invalid', 'name'],
  ['an unknown scale', with_({ key: { root: 'F#', scale: 'purple' } }), 422, 'invalid', 'state.key.scale'],
  ['an unknown root', with_({ key: { root: 'H', scale: 'dorian' } }), 422, 'invalid', 'state.key.root'],
  ['a fret off the neck', with_({ at: { string: 6, fret: 23 } }), 422, 'invalid', 'state.at.fret'],
  [
    'a root that does not sound there',
    with_({ at: { string: 6, fret: 3 } }),
    422,
    'invalid',
    'state.at.fret',
  ],
  ['a missing string', with_({ at: { string: 7, fret: 2 } }), 422, 'invalid', 'state.at.string'],
  ['an unknown layout', with_({ layout: { kind: 'spiral' } }), 422, 'invalid', 'state.layout'],
  [
    'an option out of bounds',
    with_({ layout: { kind: 'reach', reach: 9 } }),
    422,
    'invalid',
    'state.layout.reach',
  ],
  [
    'an unknown option',
    with_({ layout: { kind: 'diagonal', reach: 3 } }),
    422,
    'invalid',
    'state.layout.reach',
  ],
  [
    'a position that cannot be',
    with_({ front: { start: 0, low: -1, nth: 0 } }),
    422,
    'invalid',
    'state.front.low',
  ],
  [
    'an impossible capo',
    with_({ instrument: { ...FIRST_STATE.instrument, capo: 11 } }),
    422,
    'invalid',
    'state.instrument.capo',
  ],
  ['a chart of a later Crow Ladder', with_({ v: 4 }), 422, 'newer', 'state.v'],
  ['a chart with nothing in it', { ...draft, state: {} }, 422, 'invalid', 'state.instrumentId'],
  ['a chart that is none', { ...draft, state: 'F#' }, 422, 'invalid', 'state'],
  ['an unknown field', { ...draft, colour: 'red' }, 422, 'invalid', undefined],
  ['text that is not JSON', '{"name":', 400, 'bad-json', undefined],
  ['too much text', { ...draft, notes: 'x'.repeat(320_000) }, 413, 'too-large', undefined],
])('refuses %s', async (_, body, status, code, field) => {
  const before = (await charts()).length;
  const res = await call('POST', '/charts', body);
  expect([res.status, res.body.error.code, res.body.error.field]).toEqual([status, code, field]);
  expect(res.body.error.message).toMatch(/\.$/);
  expect(await charts()).toHaveLength(before);
});

test('unknown ids and addresses, and pages of other sites, are refused', async () => {
  for (const [method, path, body] of [
    ['GET', '/charts/none'],
    ['PUT', '/charts/none', { ...draft, revision: 1 }],
    ['GET', '/nowhere'],
  ] as const)
    expect((await call(method, path, body)).status).toBe(404);
  expect(
    await call('POST', '/charts', draft, { origin: 'http://elsewhere.example', host: '127.0.0.1' }),
  ).toMatchObject({ status: 403, body: { error: { code: 'foreign-page' } } });
});

test('a change that comes again under its key is made once, and answered as it was', async () => {
  const key = (k: string) => ({ 'idempotency-key': k });
  const before = (await charts()).length;
  const [first, again] = [
    await call<Chart>('POST', '/charts', draft, key('bow-thruster-1')),
    await call<Chart>('POST', '/charts', draft, key('bow-thruster-1')),
  ];
  expect(again).toEqual(first);
  expect(await charts()).toHaveLength(before + 1);
  expect((await call('POST', '/charts', draft, key('no key'))).body.error.code).toBe('bad-key');
  // A day later the key is forgotten.
  await it.db('answers').update({ at: '2020-01-01T00:00:00.000Z' });
  await call('POST', '/charts', draft, key('bow-thruster-4'));
  expect(await it.db('answers').select('key')).toEqual([{ key: 'bow-thruster-4' }]);
});

test('a key is one change’s: with another body, chart or way it is refused, and nothing is changed', async () => {
  const headers = { 'idempotency-key': 'bow-thruster-9' };
  await call('POST', '/charts', draft, headers);
  const { instrument } = FIRST_STATE;
  const made = [
    (await call<{ id: string }>('POST', '/instruments', instrument)).body.id,
    (await call<{ id: string }>('POST', '/instruments', instrument)).body.id,
  ] as const;
  const before = (await charts()).length;
  for (const [method, path, asked] of [
    ['POST', '/charts', { ...draft, name: 'Day crossing' }],
    ['POST', '/instruments', instrument],
    ['PUT', `/instruments/${made[0]}`, { instrument, revision: 1 }],
  ] as const)
    expect(await call(method, path, asked, headers)).toMatchObject({
      status: 422,
      body: { error: { code: 'key-used', message: expect.stringMatching(/\.$/) } },
    });
  expect(await charts()).toHaveLength(before);
  // The same change of another instrument is another change.
  const other = { 'idempotency-key': 'bow-thruster-10' };
  const put = (id: string) => call('PUT', `/instruments/${id}`, { instrument, revision: 1 }, other);
  expect([(await put(made[0])).status, (await put(made[0])).status, (await put(made[1])).status]).toEqual([
    200, 200, 422,
  ]);
});

test('a chart is made under the id that it came with; the same change that comes again is made once, however much later', async () => {
  const put = (id: string, revision: number, change: object = {}) =>
    call<Chart>('PUT', `/charts/${id}`, { ...draft, ...change, revision });
  const told = ({ status, body }: Awaited<ReturnType<typeof put>>) => [status, body.revision];
  const before = (await charts()).length;
  expect(told(await put('bow-thruster', 0))).toEqual([200, 1]);
  expect(told(await put('bow-thruster', 0))).toEqual([200, 1]);
  expect(await charts()).toHaveLength(before + 1);
  const again = { name: 'Night crossing, again' };
  expect(told(await put('bow-thruster', 1, again))).toEqual([200, 2]);
  const made = await put('bow-thruster', 1, again);
  expect(told(made)).toEqual([200, 2]);
  expect((await call('GET', '/charts/bow-thruster')).body).toEqual(made.body);
  // Another change from there, and one of before that comes late, are conflicts with what stands.
  for (const late of [
    put('bow-thruster', 1, { name: 'Keel' }),
    put('bow-thruster', 0),
    put('bow-thruster', 7),
  ])
    expect(await late).toMatchObject({
      status: 409,
      body: { current: { revision: 2, name: again.name } },
    });
  // What was deleted is not made anew.
  await it.remove('chart', made.body);
  for (const revision of [0, 1, 2]) expect((await put('bow-thruster', revision)).status).toBe(404);
  expect((await put('bow.thruster', 0)).body).toMatchObject({ error: { code: 'bad-id', field: 'id' } });
  expect((await put('stern-thruster', 3)).status).toBe(404);
});

test('while the file of the library is gone nothing is accepted, and it is said; reading goes on', async () => {
  there = false;
  expect(await call('POST', '/charts', draft)).toMatchObject({
    status: 503,
    body: { error: { code: 'library-gone' } },
  });
  expect((await call('GET', '/charts')).status).toBe(200);
});

test('what the disk cannot do for now is said as that, and nothing of a player’s is logged', async () => {
  const log = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  const failing = (code: string) => {
    const createChart = (): Promise<never> =>
      Promise.reject(Object.assign(new Error('insert … my secret tune'), { code }));
    it.instead({ createChart });
    return call('POST', '/charts', draft);
  };
  expect(await failing('SQLITE_FULL')).toMatchObject({ status: 507, body: { error: { code: 'disk-full' } } });
  expect(await failing('SQLITE_BUSY')).toMatchObject({ status: 503, body: { error: { code: 'busy' } } });
  expect(await failing('SQLITE_IOERR_WRITE')).toMatchObject({
    status: 503,
    body: { error: { code: 'not-writable' } },
  });
  expect(await failing('OTHER')).toMatchObject({ status: 500, body: { error: { code: 'server' } } });
  expect(log.mock.calls.join()).toContain('POST /api/charts failed OTHER');
  expect(log.mock.calls.join()).not.toContain('secret');
  log.mockRestore();
});

test('texts are kept tidy, and never cut in half', async () => {
  const made = await call<Chart>('POST', '/charts', {
    ...draft,
    name: '  Cafe\u0301 below \u{1f6a2} ',
    tags: ['  deck  '],
    notes: 'one\r\ntwo',
  });
  expect(made.body).toMatchObject({ name: 'Café below \u{1f6a2}', tags: ['deck'], notes: 'one\ntwo' });
  for (const name of ['half \ud83d', 'bell\u0007', '\u200b\u200d'])
    expect(await call('POST', '/charts', { ...draft, name })).toMatchObject({
      status: 422,
      body: { error: { field: 'name' } },
    });
  expect(cutText('deck \u{1f6a2}\u{1f6a2}', 8)).toBe('deck \u{1f6a2}');
  expect(cutText('e\u0301\u0302x', 2)).toBe('');
});

test('instruments and settings are kept', async () => {
  const { body: made } = await call<{ id: string }>('POST', '/instruments', {
    ...FIRST_STATE.instrument,
    name: 'spare',
  });
  const to = (frets: number, revision: number) =>
    call('PUT', `/instruments/${made.id}`, {
      instrument: { ...FIRST_STATE.instrument, name: 'spare', frets },
      revision,
    });
  expect((await to(24, 1)).body).toMatchObject({ instrument: { frets: 24 }, revision: 2 });
  // Another tab that saw it as it was before is told what stands there now.
  expect(await to(21, 1)).toMatchObject({
    status: 409,
    body: { error: { code: 'conflict' }, current: { instrument: { frets: 24 }, revision: 2 } },
  });
  // Two tabs change different settings; neither takes the other's change back.
  expect((await patch({ theme: 'stage' })).status).toBe(200);
  const fog = [{ id: 'own:1,b2,5', name: 'Fog signal' }];
  await patch({ ownScales: fog });
  expect((await call('GET', '/settings')).body).toMatchObject({
    theme: 'stage',
    ownScales: fog,
    spanMm: 110,
  });
  // A change that was made from what no longer stands there is told so, and changes nothing.
  const late = await patch({ spanMm: 130, theme: 'paper' }, { spanMm: 110, theme: 'system' });
  expect(late).toMatchObject({
    status: 409,
    body: { error: { code: 'conflict' }, current: { theme: 'stage', spanMm: 110 } },
  });
  expect((await patch({ spanMm: 130 }, { spanMm: 110 })).status).toBe(200);
  await patch({ spanMm: 110 });
  expect((await call('POST', '/instruments', {})).status).toBe(422);
  for (const [part, field] of [
    [{ spanMm: 20 }, 'to.spanMm'],
    [{ ownScales: [{ id: 'own:1,b2,5', name: ' ' }] }, 'to.ownScales[0].name'],
    [{ ownScales: [{ id: 'dorian', name: 'mine' }] }, 'to.ownScales[0].id'],
  ] as const)
    expect(await patch(part)).toMatchObject({ status: 422, body: { error: { field } } });
  expect((await call('GET', '/settings')).body).toMatchObject({ ownScales: fog });
});

test('the log of practice keeps rounds by what was played, finds the fastest clean one, and goes into a backup and back', async () => {
  const round = {
    drill: 'groups.3.twice',
    shape: 'dorian 6:0 2 3',
    name: 'groups, Dorian position',
    perBeat: 2,
    tempo: 90,
    clean: true,
  };
  const asked = `/practice?${new URLSearchParams({ drill: round.drill, shape: round.shape, perBeat: '2' })}`;
  expect((await call('GET', asked)).body).toEqual({ best: null, rounds: [] });
  const on = { chart: 'c-1', chartName: 'Bow', root: 'F#', scale: 'dorian', start: 4, back: 'root=F%23' };
  const played = [
    { ...round, on, ms: 61_234, note: 'late' },
    { ...round, tempo: 95 },
    { ...round, tempo: 140, clean: false },
    { ...round, perBeat: 4, tempo: 60 },
    { ...round, shape: 'dorian 5:0 2 3', tempo: 200 },
  ];
  const at = (nth: number): string => `2026-06-01T20:0${nth}:00.000Z`;
  // A round that comes twice, as after a lost answer, is kept once.
  for (const [i, it] of [...played.entries(), [4, played[4]!] as const])
    expect(await call('PUT', `/practice/round-${i}`, { ...it, at: at(i) })).toMatchObject({ status: 200 });
  const { body: kept } = await call<Practised>('GET', asked);
  expect([kept.best, kept.rounds.map((r) => [r.tempo, r.clean])]).toEqual([
    95,
    [
      [140, false],
      [95, true],
      [90, true],
    ],
  ]);
  const { body: things } = await call<PractisedThing[]>('GET', '/practice/things');
  expect(things.map((t) => [t.shape, t.perBeat, t.best, t.rounds])).toEqual(
    expect.arrayContaining([
      [round.shape, 2, 95, 3],
      [round.shape, 4, 60, 1],
      ['dorian 5:0 2 3', 2, 200, 1],
    ]),
  );
  const { body: backup } = await call<Backup>('GET', '/backup');
  expect(backup.practice.map((r) => r.tempo)).toEqual(played.map((r) => r.tempo));
  expect((await call('DELETE', `/practice/${kept.rounds[1]!.id}`)).status).toBe(200);
  expect((await call<Practised>('GET', asked)).body.best).toBe(90);
  expect((await call('DELETE', `/practice/${kept.rounds[1]!.id}`)).status).toBe(404);
  expect((await restore(backup)).status).toBe(200);
  expect((await call<Backup>('GET', '/backup')).body.practice).toEqual(backup.practice);
  expect(
    (await restore({ ...backup, practice: [...backup.practice, backup.practice[0]] })).body,
  ).toMatchObject({ error: { code: 'backup-invalid', field: 'practice' } });
  for (const [part, field] of [
    [{ tempo: 400 }, 'tempo'],
    [{ perBeat: 5 }, 'perBeat'],
    [{ shape: '' }, 'shape'],
  ] as const)
    expect((await call('PUT', '/practice/round-9', { ...round, at: at(9), ...part })).body).toMatchObject({
      error: { code: 'invalid', field },
    });
  expect((await call('GET', '/practice?drill=x')).status).toBe(422);
});

test('a backup restores the whole library, and a bad one changes nothing', async () => {
  const { body: backup } = await call<Backup>('GET', '/backup');
  for (const c of backup.charts.slice(0, 3)) await call('DELETE', `/charts/${c.id}`);
  const bad: readonly [unknown, string][] = [
    [JSON.stringify(backup).slice(0, -40), 'bad-json'],
    [{ ...backup, version: BACKUP_VERSION + 1 }, 'backup-version'],
    [{ ...backup, settings: null }, 'backup-invalid'],
    [{ ...backup, charts: [null] }, 'backup-invalid'],
    [[], 'backup-invalid'],
    [{ ...backup, charts: [...backup.charts.slice(1), { ...backup.charts[0], name: '' }] }, 'backup-invalid'],
    [{ ...backup, charts: [...backup.charts, backup.charts[0]] }, 'backup-invalid'],
    [{ hello: 1 }, 'backup-invalid'],
  ];
  const left = await charts();
  for (const [file, code] of bad) {
    expect((await restore(file)).body.error.code).toBe(code);
    expect(await charts()).toEqual(left);
  }
  expect((await restore(backup)).status).toBe(200);
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
  // Even where what comes back was changed as often: the two have nothing else in common.
  await restore({ ...backup, charts: backup.charts.map((c) => ({ ...c, revision: shown })) });
  expect((await save('typed on top of it', shown)).status).toBe(409);
  expect((await call<Chart>('GET', `/charts/${id}`)).body.notes).toBe(notes);
});

test('what version 1 wrote, rows and backup, is read as it was meant', async () => {
  const old = frozen<{
    charts: { name: string; state: { root: string; fret: number; layout: object } }[];
    settings: { known: string[] };
  }>('v1-backup.json');
  expect((await restore(old)).status).toBe(200);
  const restored = await charts();
  expect(restored).toHaveLength(old.charts.length);
  for (const was of old.charts) {
    const now = restored.find((c) => c.name === was.name)!;
    expect(now.state).toMatchObject({
      v: DOCUMENT_VERSION,
      key: { root: was.state.root },
      at: { fret: was.state.fret },
      front: null,
      layout: was.state.layout,
    });
  }
  expect((await call('GET', '/known')).body).toEqual(expect.arrayContaining(old.settings.known));
  expect((await call('GET', '/settings')).body).toMatchObject({ theme: 'stage', handed: 'instrument' });
  // A scale of the player's own that was spelled otherwise is the same scale, with its name.
  expect(restored.find((c) => c.name.includes('own scale'))!.state.key.scale).toBe('own:1,b3,4,b5,b7');
  expect((await call('GET', '/settings')).body).toMatchObject({
    favourites: ['dorian', 'own:1,b3,4,b5,b7'],
    ownScales: [{ id: 'own:1,b3,4,b5,b7', name: 'Fog signal' }],
  });

  const rows = frozen<{ charts: ChartRow[] }>('v1-rows.json');
  await it.db('charts').delete();
  for (const row of rows.charts) await it.db('charts').insert(row);
  expect((await it.page()).unreadable).toEqual([]);
  for (const { name, state } of await charts())
    expect(state).toEqual(restored.find((c) => c.name === name)!.state);
});

test('a library of version 1 is brought up when it is opened: known shapes become rows', async () => {
  const knex = (await import('knex')).default({
    client: 'better-sqlite3',
    connection: ':memory:',
    useNullAsDefault: true,
    pool: { min: 1, max: 1 },
  });
  const [first, second] = [
    await import('../migrations/001_library.ts'),
    await import('../migrations/002_known_shapes.ts'),
  ];
  await first.up(knex);
  for (const fact of frozen<{ facts: object[] }>('v1-rows.json').facts) await knex('facts').insert(fact);
  await second.up(knex);
  const library = libraryOn(knex);
  expect(await library.known()).toHaveLength(2);
  expect(await library.settings()).toMatchObject({ theme: 'stage', handed: 'instrument' });
  await knex.destroy();
});

test('a row that cannot be read is listed with its reason, downloaded and deleted, and harms no other', async () => {
  const { body: chart } = await call<Chart>('POST', '/charts', draft);
  const others = (await charts()).length - 1;
  await it.db('charts').where({ id: chart.id }).update({ state: '{"v":2,"key":{"root":"H"}}' });
  const list = await it.page();
  expect(list.charts).toHaveLength(others);
  expect(list.unreadable).toEqual([
    { id: chart.id, name: 'Night crossing', revision: 1, reason: expect.stringMatching(/\.$/) },
  ]);
  expect(await call('GET', `/charts/${chart.id}`)).toMatchObject({
    status: 422,
    body: { error: { code: 'unreadable' } },
  });
  expect((await call('GET', `/charts/${chart.id}/raw`)).body).toMatchObject({
    state: '{"v":2,"key":{"root":"H"}}',
  });
  // A backup carries it as it stands, and brings it back so.
  const { body: backup } = await call<Backup>('GET', '/backup');
  expect(backup.charts).toHaveLength(others);
  expect((await restore(backup)).status).toBe(200);
  expect((await call('GET', `/charts/${chart.id}/raw`)).body).toMatchObject({
    state: '{"v":2,"key":{"root":"H"}}',
  });
  const [row] = (await it.page()).unreadable;
  expect((await it.remove('chart', row!)).status).toBe(200);
  expect((await it.page()).unreadable).toEqual([]);
  await it.db('charts').insert(TORN_ROW);
  expect((await it.page()).unreadable).toHaveLength(1);
});

test('a scale renamed in the table with an alias stops no chart and refuses no backup', async () => {
  const { body: backup } = await call<Backup>('GET', '/backup');
  const renamed = Buffer.from(JSON.stringify(backup).replaceAll('"dorian"', '"moonlit"'));
  const take = async () => {
    const passing = await passingLibrary(':memory:');
    const taking = intake(passing);
    await taking.take(renamed);
    const taken = await taking.end();
    await passing.destroy();
    return taken;
  };
  expect(await take()).toMatchObject({ ok: false, error: { code: 'backup-invalid' } });
  ALIASES.scale.set('moonlit', 'dorian');
  try {
    expect(await take()).toMatchObject({ ok: true, value: { charts: backup.charts.length } });
    await it.db('charts').update('state', it.db.raw(`replace(state, '"dorian"', '"moonlit"')`));
    expect((await it.page()).unreadable).toEqual([]);
    expect((await charts()).filter((c) => c.state.key.scale === 'dorian').length).toBeGreaterThan(0);
  } finally {
    ALIASES.scale.clear();
  }
});

test('parts that this application does not show are kept as they are', async () => {
  const phrases = [{ name: 'Turn of the tide', steps: [{ string: 6, fret: 2 }] }];
  const { body: made } = await call<Chart>('POST', '/charts', with_({ phrases }));
  expect((await call<Chart>('GET', `/charts/${made.id}`)).body.state).toMatchObject({ phrases, runs: [] });
});

test('known shapes are added and removed one by one, whatever the settings', async () => {
  const shape = 'dorian 6:0 2 3/5:0 2 3';
  for (let i = 0; i < 2; i++) expect((await call('POST', '/known', { shape })).status).toBe(200);
  await call('POST', '/known', { shape: 'major 6:0 2' });
  await patch({ theme: 'stage' });
  expect((await call('GET', '/known')).body).toEqual(expect.arrayContaining([shape, 'major 6:0 2']));
  await call('DELETE', '/known', { shape });
  expect((await call('GET', '/known')).body).toEqual(['major 6:0 2']);
  for (const bad of [{}, { shape: 7 }, { shape: 'no' }, null])
    expect(await call('POST', '/known', bad)).toMatchObject({
      status: 422,
      body: { error: { field: 'shape' } },
    });
});

test('a backup made before a setting existed leaves it at its default', async () => {
  const { body: backup } = await call<Backup>('GET', '/backup');
  const older = { ...backup.settings, ownScales: undefined };
  await patch({ ownScales: [{ id: 'own:1,b2,5', name: 'Fog signal' }] });
  expect((await restore({ ...backup, settings: older })).status).toBe(200);
  expect((await call('GET', '/settings')).body).toMatchObject({ ownScales: [] });
});
