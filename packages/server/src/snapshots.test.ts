import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { connect as connectTo, type Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Chart, FIRST_STATE } from '@crow-ladder/contract';
import { endAll, running } from '../../../scripts/running.ts';
import { handWorld, type Served, served } from '../test/served.ts';
import { backupsOf } from './backup/backups.ts';
import { deskFor } from './backup/desk.ts';
import { checkLibrary } from './check.ts';
import { connect, openDatabase } from './database.ts';

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
  // Each way of leaving it lets go of it at once.
  const leave = new AbortController();
  for (const [signal, end] of [
    [leave.signal, () => leave.abort()],
    [new AbortController().signal, (out: ReadableStream) => out.cancel()],
    [new AbortController().signal, (out: ReadableStream) => new Response(out).text()],
  ] as const) {
    const out = await backups.out(signal);
    expect(await isHeld()).toBe(true);
    await end(out);
    while (await isHeld());
  }
  const all = await Promise.all(Array.from({ length: 4 }, () => backups.out(new AbortController().signal)));
  await expect(backups.out(new AbortController().signal)).rejects.toMatchObject({
    status: 503,
    answer: { code: 'busy' },
  });
  for (const out of all.slice(1)) await out.cancel();
  const slow = all[0]!.getReader();
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

test('what is asked of a worker that ends fails, and the next one is asked of another', async () => {
  const desk = deskFor(it.path);
  const opening = desk.open('first');
  await desk.close();
  await expect(opening).rejects.toThrow('The worker has ended.');
  await desk.open('second');
  expect(String(Buffer.from((await desk.next('second'))!))).toContain('"format":"crow-ladder-backup"');
  await desk.stop('second');
  await desk.close();
});

test('after heads, downloads that were cut and one that still runs, a stop leaves the library in one file, with all that was saved', async () => {
  const path = join(folder, 'library.sqlite');
  // More than connections hold by themselves.
  const made = await openDatabase(path);
  const row = (await made.db('charts').first())!;
  for (let i = 0; i < 16; i++)
    await made
      .db('charts')
      .insert(
        Array.from({ length: 50 }, (_, k) => ({ ...row, id: `log-${i}-${k}`, notes: 'x'.repeat(19_500) })),
      );
  await made.db.destroy();
  const { child, ready, ended } = running({ CROW_LADDER_DB: path });
  const base = new URL(await ready);
  const cut = (method: string, after: number): Promise<void> =>
    new Promise((done) => {
      const socket = connectTo(Number(base.port), base.hostname, () => {
        socket.write(`${method} /api/backup HTTP/1.1\r\nHost: ${base.host}\r\n\r\n`);
        setTimeout(() => (socket.destroy(), done()), after);
      });
    });
  const names: string[] = [];
  const save = async (name: string): Promise<void> => {
    const res = await fetch(`${base.href}api/charts`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(draft(name)),
    });
    names.push(((await res.json()) as Chart).name);
  };
  for (const after of [0, 1, 5, 20]) await Promise.all([cut('GET', after), cut('HEAD', after)]);
  /** One that begins to be read, and is read no further. */
  const begun = (): Promise<Socket> =>
    new Promise((done) => {
      const socket = connectTo(Number(base.port), base.hostname);
      socket.on('error', () => undefined);
      socket.once('data', (answer) => {
        socket.pause();
        if (String(answer).startsWith('HTTP/1.1 200')) return done(socket);
        // Those that were cut are ended a moment later.
        socket.destroy();
        done(begun());
      });
      socket.write(`GET /api/backup HTTP/1.1\r\nHost: ${base.host}\r\n\r\n`);
    });
  const stays = await begun();
  for (let i = 0; i < 20; i++) await save(`Buoy ${i}`);
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
