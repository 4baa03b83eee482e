import { existsSync, readdirSync, renameSync } from 'node:fs';
import { basename, dirname } from 'node:path';
import {
  type Backup,
  type Chart,
  CHART_BYTES,
  FIRST_STATE,
  LIBRARY_LIMITS,
  type Restore,
} from '@crow-ladder/contract';
import fc from 'fast-check';
import { type Served, served } from '../../test/served.ts';
import { openDatabase, passingLibrary } from '../database.ts';
import { backupsOf } from './backups.ts';
import { intake } from './intake.ts';

let it: Served;
beforeAll(async () => {
  it = await served();
});
afterAll(() => it.close());
const backupNow = async (): Promise<Backup> => (await it.call<Backup>('GET', '/backup')).body;
const aside = (): readonly string[] =>
  readdirSync(dirname(it.path)).filter((n) => n.startsWith(`${basename(it.path)}.restore-`));
const chart = (await_: Partial<Chart> & { id: string }): Chart => ({
  name: 'Fog signal',
  tags: [],
  notes: '',
  state: FIRST_STATE,
  revision: 1,
  createdAt: '2026-06-01T20:00:00Z',
  updatedAt: '2026-06-01T20:00:00Z',
  ...await_,
});

/** Takes a file in, cut into pieces of some sizes, and gives what came of it with the rows that were made. */
async function taken(file: string, sizes: readonly number[]) {
  const db = await passingLibrary(':memory:');
  const bytes = Buffer.from(file);
  const taking = intake(db);
  for (let at = 0, i = 0; at < bytes.length; i++) {
    const size = sizes[i % sizes.length]!;
    await taking.take(bytes.subarray(at, at + size));
    at += size;
  }
  const end = await taking.end();
  const rows = {
    charts: await db('charts').orderBy('id'),
    index: await db('chart_index').select('chart_id', 'words').orderBy('chart_id'),
  };
  await db.destroy();
  return { end, rows };
}

test('however a backup is cut into pieces, the same comes of it', async () => {
  const file = JSON.stringify({ ...(await backupNow()), known: ['dorian 6:0 2 3/5:0 2 3'] });
  const whole = await taken(file, [file.length * 4]);
  expect(whole.end).toMatchObject({ ok: true });
  expect(whole.rows.charts.length).toBeGreaterThan(5);
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.integer({ min: 1, max: 3000 }), { minLength: 1, maxLength: 8 }),
      async (sizes) => {
        expect(await taken(file, sizes)).toEqual(whole);
      },
    ),
    { numRuns: 12 },
  );
  // Fields in another order, blanks and an end of line do no harm.
  const { charts, ...rest } = JSON.parse(file) as Backup;
  expect(await taken(` ${JSON.stringify({ charts, ...rest }, null, 2)}\n`, [997])).toEqual(whole);
});

test('what is wrong with a backup is said with the chart’s number, its name and the full path', async () => {
  const backup = await backupNow();
  const file = (part: object) => JSON.stringify({ ...backup, ...part });
  const high = chart({
    id: 'high',
    name: 'Crow’s nest',
    state: { ...FIRST_STATE, at: { string: 6, fret: 99 } },
  });
  const large = chart({
    id: 'large',
    notes: 'x'.repeat(19_000),
    state: { ...FIRST_STATE, chords: Array.from({ length: 100 }, () => ({ name: 'x'.repeat(4000) })) },
  });
  const of = async (part: object) => (await taken(file(part), [40_000])).end;
  expect(await of({ charts: [backup.charts[0], high] })).toMatchObject({
    error: {
      code: 'backup-invalid',
      field: 'charts[1].state.at.fret',
      message: expect.stringMatching(/^Chart 2, “Crow’s nest”: /),
    },
  });
  expect(await of({ charts: [high, high] })).toMatchObject({ error: { field: 'charts[0].state.at.fret' } });
  const twice = [chart({ id: 'a' }), chart({ id: 'b' }), chart({ id: 'a' })];
  expect(await of({ charts: twice })).toMatchObject({
    error: { field: 'charts', message: 'Two charts in this backup have the id a.' },
  });
  expect(await of({ charts: [large] })).toMatchObject({
    error: { field: 'charts[0]', message: expect.stringContaining(`${CHART_BYTES / 1000} kB`) },
  });
  expect(await of({ charts: [chart({ id: 'x', notes: 'x'.repeat(CHART_BYTES * 3) })] })).toMatchObject({
    error: { message: expect.stringMatching(/^A piece of this backup is larger than/) },
  });
  expect(await of({ secret: 1 })).toMatchObject({ error: { code: 'backup-invalid' } });
  expect(await of({ charts: { a: 1 } })).toMatchObject({ error: { field: 'charts' } });
  const [one] = backup.instruments;
  expect(await of({ instruments: [one, one] })).toMatchObject({ error: { field: 'instruments' } });
  const many = Array.from({ length: LIBRARY_LIMITS.instruments + 1 }, (_, i) => ({ ...one, id: `i${i}` }));
  expect(await of({ instruments: many })).toMatchObject({ error: { field: 'instruments' } });
  for (const none of ['', '[]', '5', 'null', '{}', '{"charts":[', `${file({})}x`, file({}).slice(0, -1)])
    expect([none.slice(0, 9), (await taken(none, [5000])).end.ok]).toEqual([none.slice(0, 9), false]);
});

test('a backup is read first and put in place at a word; called off, nothing is changed and nothing stays behind', async () => {
  const before = await backupNow();
  const small = { ...before, charts: before.charts.slice(0, 2) };
  const state = async (id: string) =>
    (await it.call<Restore & { error?: { code: string } }>('GET', `/restores/${id}`)).body;
  expect((await it.call<Restore>('PUT', '/restores/call-it-off', small)).body).toEqual({
    is: 'ready',
    charts: 2,
    instruments: before.instruments.length,
    madeAt: before.madeAt,
  });
  expect(await state('call-it-off')).toMatchObject({ is: 'ready' });
  expect(aside()).toHaveLength(1);
  expect((await it.charts()).length).toBe(before.charts.length);
  expect((await it.call('DELETE', '/restores/call-it-off')).status).toBe(200);
  expect(aside()).toEqual([]);
  expect(await state('call-it-off')).toMatchObject({ error: { code: 'no-restore' } });
  expect((await it.call('POST', '/restores/call-it-off/replace')).status).toBe(404);
  expect((await it.charts()).length).toBe(before.charts.length);

  await it.call('PUT', '/restores/put-in-place', small);
  const done = { is: 'done', charts: 2, instruments: before.instruments.length };
  const replacing = it.call('POST', '/restores/put-in-place/replace');
  await new Promise(setImmediate);
  // Asked while it is put in place, it answers once it is known.
  expect(await state('put-in-place')).toEqual(done);
  expect((await replacing).body).toEqual(done);
  expect((await it.charts()).length).toBe(2);
  // Asked again after the answer was lost, and after the server was started anew, it is known as done.
  expect((await it.call('POST', '/restores/put-in-place/replace')).body).toEqual(done);
  const again = backupsOf(it.path, it.db);
  expect(await again.stateOf('put-in-place')).toEqual(done);
  await again.close();
  expect(aside()).toEqual([]);
  expect((await it.call('PUT', '/restores/no', small)).status).toBe(422);
  await it.restore(before);
});

test('a sender that goes away in the middle, or calls it off, leaves nothing; what it sent so far can be asked for', async () => {
  const file = Buffer.from(JSON.stringify(await backupNow()));
  const backups = backupsOf(it.path, it.db);
  const begun = async (id: string): Promise<void> => {
    while (((await backups.stateOf(id)) as { bytes: number }).bytes < 5000)
      await new Promise((r) => setTimeout(r, 10));
  };
  for (const [id, end, code] of [
    [
      'gone-away-1',
      (to: Sending) => to.error(Object.assign(new Error('aborted'), { code: 'ECONNRESET' })),
      'no-restore',
    ],
    ['called-off-1', (to: Sending) => (to.enqueue(file.subarray(5000)), to.close()), 'no-restore'],
    ['whole-file-1', (to: Sending) => (to.enqueue(file.subarray(5000)), to.close()), null],
  ] as const) {
    // The beginning of the file comes, and the rest once it is told how it goes on.
    let send: Sending | null = null;
    const body = new ReadableStream<Uint8Array>({
      start: (to) => void (send = to).enqueue(file.subarray(0, 5000)),
    });
    const taking = backups.take(id, body).then(
      () => null,
      (e: { answer?: { code: string } }) => e.answer?.code,
    );
    await begun(id);
    expect(aside()).toHaveLength(1);
    if (id === 'called-off-1') await backups.drop(id);
    end(send!);
    expect([id, await taking]).toEqual([id, code]);
    expect([id, aside().length]).toEqual([id, code ? 0 : 1]);
    if (code) await expect(backups.stateOf(id)).rejects.toMatchObject({ status: 404 });
    else await backups.drop(id);
  }
  await backups.close();
});
type Sending = ReadableStreamDefaultController<Uint8Array>;

test('four backups wait for the word to be put in place, and a fifth for one of them to go', async () => {
  const small = { ...(await backupNow()), charts: [] };
  const ids = [1, 2, 3, 4].map((n) => `waiting-${n}`);
  for (const id of ids) expect((await it.call('PUT', `/restores/${id}`, small)).status).toBe(200);
  expect(await it.call('PUT', '/restores/waiting-5', small)).toMatchObject({
    status: 503,
    body: { error: { code: 'busy' } },
  });
  await it.call('DELETE', `/restores/${ids[0]}`);
  expect((await it.call('PUT', '/restores/waiting-5', small)).status).toBe(200);
  for (const id of [...ids.slice(1), 'waiting-5']) await it.call('DELETE', `/restores/${id}`);
});

test('a large library comes out and goes in again equal, while other requests are answered', async () => {
  const notes = 'Second verse: stay below fret 7 until the horn answers. '.repeat(4).trim();
  const charts = Array.from({ length: 1500 }, (_, i) =>
    chart({ id: `c${i}`, name: `Harbour ${i}`, tags: [`t${i % 9}`], notes }),
  );
  const head = await backupNow();
  const restoring = it.restore({ ...head, charts });
  let answered = 0;
  let over = false;
  const asking = (async () => {
    while (!over) {
      if ((await it.send('GET', '/api/charts')).status === 200) answered++;
      await new Promise((r) => setTimeout(r, 20));
    }
  })();
  expect(await restoring).toMatchObject({ status: 200, body: { is: 'done', charts: 1500 } });
  over = true;
  await asking;
  expect(answered).toBeGreaterThan(5);
  const out = await backupNow();
  expect(out.charts).toHaveLength(1500);
  expect(out.charts.find((c) => c.id === 'c77')).toEqual(charts[77]);
  expect((await it.restore(out)).status).toBe(200);
  const bare = ({ charts: all, instruments, settings, known }: Backup) => ({
    charts: all.map((c) => ({ ...c, revision: 0 })),
    instruments,
    settings,
    known,
  });
  expect(bare(await backupNow())).toEqual(bare(out));
  expect((await it.page('?find=harbour+77')).found).toBe(charts.filter((c) => c.name.includes('77')).length);
  // A library that was replaced is whole: SQLite finds nothing wrong with it, nor with the index of its words.
  await it.db.raw(`INSERT INTO chart_words (chart_words) VALUES ('integrity-check')`);
  expect(await it.db.raw('PRAGMA integrity_check')).toEqual([{ integrity_check: 'ok' }]);
  expect(await it.db.raw('PRAGMA foreign_key_check')).toEqual([]);
});

test('a library that an older Crow Ladder kept is indexed when it is opened', async () => {
  await it.db.raw('DELETE FROM chart_index');
  await it.db('charts').update({ indexed: 99 });
  const { db } = await openDatabase(it.path);
  await db.destroy();
  expect((await it.page()).found).toBeGreaterThan(1000);
});

test('where the file of the library was moved away, no empty one is made in its place to be saved as a backup', async () => {
  renameSync(it.path, `${it.path}.away`);
  for (const beside of ['-wal', '-shm'])
    if (existsSync(it.path + beside)) renameSync(it.path + beside, `${it.path}.away${beside}`);
  expect(await it.call('GET', '/backup')).toMatchObject({
    status: 503,
    body: { error: { code: 'library-gone' } },
  });
  expect(existsSync(it.path)).toBe(false);
});
