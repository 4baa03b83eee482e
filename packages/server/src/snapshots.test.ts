import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { connect as connectTo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Chart, FIRST_STATE } from '@crow-ladder/contract';
import { endAll, running } from '../../../scripts/running.ts';
import { handWorld, type Served, served } from '../test/served.ts';
import { backupsOf } from './backup/backups.ts';
import { checkLibrary } from './check.ts';
import { connect } from './database.ts';

// A backup that goes out reads one state of the library from beginning to end. Left open, that state keeps the log beside the library
// from ever being taken into it.

const folder = mkdtempSync(join(tmpdir(), 'crow-ladder-'));
let it: Served;
beforeAll(async () => {
  it = await served();
  await it.db.raw('PRAGMA busy_timeout = 50');
});
afterAll(async () => {
  await it.close();
  await endAll();
  rmSync(folder, { recursive: true, force: true });
});

/** Whether anything still reads a state of before: then the log cannot be taken into the library whole. */
async function isHeld(): Promise<boolean> {
  await it
    .db('facts')
    .insert({ name: 'tide', value: String(Math.random()) })
    .onConflict('name')
    .merge();
  const [{ busy }] = (await it.db.raw('PRAGMA wal_checkpoint(TRUNCATE)')) as [{ busy: number }];
  return busy === 1;
}
const draft = (name: string) => ({ name, tags: [], notes: '', state: FIRST_STATE });

test('asked for its head alone, a backup says what it would be and reads nothing', async () => {
  for (let i = 0; i < 3; i++) {
    const res = await it.send('HEAD', '/api/backup');
    expect([res.status, res.headers.get('content-type')]).toEqual([200, 'application/json; charset=UTF-8']);
    expect(res.headers.get('content-disposition')).toMatch(/^attachment; filename="crow-ladder-.+\.json"$/);
    expect(await res.text()).toBe('');
  }
  expect(await isHeld()).toBe(false);
});

test('a backup that nobody reads on, or whose reader goes away, holds nothing; at most four go out at a time', async () => {
  // More than goes out in a few pieces.
  for (let i = 0; i < 40; i++)
    await it.send('POST', '/api/charts', { ...draft(`Log ${i}`), notes: 'Slack water. '.repeat(1500) });
  const world = handWorld();
  const backups = backupsOf(it.path, it.db, world);
  const leave = Array.from({ length: 4 }, () => new AbortController());
  const all = await Promise.all(leave.map(({ signal }) => backups.out(signal)));
  await expect(backups.out(new AbortController().signal)).rejects.toMatchObject({
    status: 503,
    answer: { code: 'busy' },
  });
  expect(await isHeld()).toBe(true);
  leave[0]!.abort();
  await all[1]!.cancel();
  const whole = await new Response(all[2]).text();
  expect(JSON.parse(whole)).toMatchObject({ format: 'crow-ladder-backup' });
  const slow = all[3]!.getReader();
  await slow.read();
  world.advance(60_000);
  expect(await isHeld()).toBe(true);
  world.advance(60_000);
  await expect(
    (async () => {
      for (;;) if ((await slow.read()).done) return;
    })(),
  ).rejects.toThrow();
  while (await isHeld());
  const gone = new AbortController();
  gone.abort();
  await expect(backups.out(gone.signal)).rejects.toMatchObject({ answer: { code: 'gone' } });
  expect(await isHeld()).toBe(false);
  await backups.close();
});

test('after heads, downloads that were cut and one that still runs, a stop leaves the library in one file, with all that was saved', async () => {
  const path = join(folder, 'library.sqlite');
  const { child, ready, ended } = running({ CROW_LADDER_DB: path });
  const base = new URL(await ready);
  const cut = (method: string, after: number): Promise<void> =>
    new Promise((done) => {
      const socket = connectTo(Number(base.port), base.hostname, () => {
        socket.write(`${method} /api/backup HTTP/1.1\r\nHost: ${base.host}\r\n\r\n`);
        setTimeout(() => (socket.destroy(), done()), after);
      });
    });
  for (const after of [0, 1, 5, 20]) await Promise.all([cut('GET', after), cut('HEAD', after)]);
  const stays = connectTo(Number(base.port), base.hostname);
  stays.on('error', () => undefined);
  stays.write(`GET /api/backup HTTP/1.1\r\nHost: ${base.host}\r\n\r\n`);
  const names: string[] = [];
  for (let i = 0; i < 20; i++) {
    const res = await fetch(`${base.href}api/charts`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(draft(`Buoy ${i}`)),
    });
    names.push(((await res.json()) as Chart).name);
  }
  child.kill('SIGTERM');
  expect((await ended).code).toBe(0);
  stays.destroy();
  expect(readdirSync(folder)).toEqual(['library.sqlite']);
  expect(await checkLibrary(path, () => undefined)).toBe(true);
  const db = connect(path);
  const kept = (await db('charts').select('name')) as { name: string }[];
  await db.destroy();
  expect(names.filter((n) => !kept.some((k) => k.name === n))).toEqual([]);
});
