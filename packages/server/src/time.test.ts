import { mkdtempSync, rmSync, utimesSync, writeFileSync, existsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  type Backup,
  type Binned,
  type Chart,
  type KeptInstrument,
  FIRST_STATE,
  LIBRARY_LIMITS,
} from '@crow-ladder/contract';
import { handWorld, ROUND, type Served, served } from '../test/served.ts';
import { dropRemains } from './backup/backups.ts';
import { intake } from './backup/intake.ts';
import { clearDemoLog } from './demo.ts';
import { openDatabase, passingLibrary } from './database.ts';
import { doorOf } from './door.ts';
import { libraryOn } from './library.ts';

const [SECOND, MINUTE, HOUR, DAY] = [1000, 60_000, 3_600_000, 86_400_000];
const world = handWorld();
let it: Served;
beforeAll(async () => {
  it = await served({}, world);
});
afterAll(() => it.close());
/** Whatever is under way and waits for no time comes to its end. */
const settle = async (): Promise<void> => {
  for (let i = 0; i < 50; i++) await new Promise(setImmediate);
};
const draft = (name: string) => ({ name, tags: [], notes: '', state: FIRST_STATE });
const made = async (name: string, headers = {}): Promise<Chart> =>
  (await it.call<Chart>('POST', '/charts', draft(name), headers)).body;
const binned = async (): Promise<readonly string[]> =>
  (await it.call<Binned[]>('GET', '/bin')).body.map((b) => b.name);

test('what is made and changed says when', async () => {
  const at = new Date(world.now()).toISOString();
  const chart = await made('Dawn');
  expect(chart).toMatchObject({ createdAt: at, updatedAt: at });
  world.advance(HOUR);
  const { body } = await it.call<Chart>('PUT', `/charts/${chart.id}`, { ...draft('Dawn II'), revision: 1 });
  expect(body).toMatchObject({ createdAt: at, updatedAt: new Date(world.now()).toISOString() });
  await it.remove('chart', body);
  expect((await it.call<Binned[]>('GET', '/bin')).body[0]).toMatchObject({
    name: 'Dawn II',
    deletedAt: new Date(world.now()).toISOString(),
  });
});

test('the bin holds what was deleted for thirty days, by the clock of this start and of the one before', async () => {
  const start = () => it.library.begin();
  await it.db('charts').whereNotNull('deleted_at').delete();
  await start();
  const [chart, other] = [await made('Ebb'), await made('Flood')];
  await it.remove('chart', chart);
  world.advance(30 * DAY);
  await it.remove('chart', other);
  await start();
  expect((await binned()).slice(0, 2)).toEqual(['Flood', 'Ebb']);
  world.advance(1);
  // Due by this clock alone, it stays; it was not by that of the start before.
  expect(await start()).toEqual({ waiting: 1, since: new Date(world.now() - 1).toISOString() });
  expect((await binned()).slice(0, 2)).toEqual(['Flood', 'Ebb']);
  expect(await start()).toEqual({ waiting: 0, since: new Date(world.now()).toISOString() });
  expect(await binned()).toEqual(['Flood']);
  expect((await it.call('POST', `/charts/${chart.id}/restore`)).status).toBe(404);
  expect((await it.call('POST', `/charts/${other.id}/restore`)).status).toBe(200);
  await it.remove('chart', other);

  // A clock that jumps ahead for one start, and back, takes nothing away; nor does one that was never told before.
  world.advance(40 * DAY);
  expect(await start()).toMatchObject({ waiting: 1 });
  world.advance(-40 * DAY);
  expect(await start()).toMatchObject({ waiting: 0 });
  await it.db('facts').where({ name: 'started' }).delete();
  world.advance(40 * DAY);
  expect(await start()).toEqual({ waiting: 1, since: null });
  expect(await binned()).toEqual(['Flood']);
  world.advance(-40 * DAY);
});

test('a change that comes again under its key within a day is answered as it was; after that it is another one', async () => {
  const old = { 'idempotency-key': 'key-of-monday' };
  const first = await made('Spring tide', old);
  world.advance(12 * HOUR);
  const fresh = { 'idempotency-key': 'key-of-tuesday' };
  const second = await made('Neap tide', fresh);
  world.advance(12 * HOUR);
  expect((await made('Spring tide', old)).id).toBe(first.id);
  world.advance(1);
  // Another change has the keys of more than a day ago forgotten, and no fresher ones.
  await made('Slack water', { 'idempotency-key': 'key-of-wednesday' });
  expect((await made('Neap tide', fresh)).id).toBe(second.id);
  expect((await made('Spring tide', old)).id).not.toBe(first.id);
});

test('what was refused under a key is no answer to keep: it may be made later', async () => {
  const { instrument } = FIRST_STATE;
  const { id } = (await it.call<KeptInstrument>('POST', '/instruments', instrument)).body;
  const put = (revision: number, headers = {}) =>
    it.call('PUT', `/instruments/${id}`, { instrument, revision }, headers);
  const key = { 'idempotency-key': 'key-of-the-swell' };
  expect((await put(2, key)).status).toBe(409);
  expect((await put(1)).status).toBe(200);
  expect((await put(2, key)).status).toBe(200);
});

describe('at the door', () => {
  // Guesses are counted by a library that asks for the time of day itself.
  beforeAll(() => jest.spyOn(Date, 'now').mockImplementation(world.now));
  afterAll(() => jest.restoreAllMocks());
  const passcode = 'sea shanty';
  const open = () => served({ door: doorOf(it.db, passcode, 4780, world) });
  const come = async (to: Served, typed: string, from?: string) => {
    const { status, headers } = await to.call('POST', '/visit', { passcode: typed }, {}, from);
    return { status, cookie: headers.get('set-cookie')?.split(';')[0] ?? '' };
  };

  test('a visit lasts sixty days', async () => {
    const locked = await open();
    const { cookie } = await come(locked, passcode);
    const status = async (): Promise<number> =>
      (await locked.call('GET', '/charts', undefined, { cookie })).status;
    world.advance(60 * DAY - 1);
    expect(await status()).toBe(200);
    world.advance(1);
    expect(await status()).toBe(401);
    await locked.close();
  });

  test('five wrong passcodes a minute are answered; the right one is let in when the minute is over', async () => {
    const locked = await open();
    for (let i = 0; i < 5; i++) expect((await come(locked, 'wrong one')).status).toBe(403);
    expect((await come(locked, passcode)).status).toBe(429);
    world.advance(59 * SECOND);
    expect((await come(locked, passcode)).status).toBe(429);
    world.advance(SECOND + 1);
    expect((await come(locked, passcode)).status).toBe(200);
    await locked.close();
  });

  test('after sixty wrong ones of many devices in ten minutes, a device that was in before comes in at once, and others slowly', async () => {
    const locked = await open();
    const device = (n: number): string => `192.168.1.${n}`;
    const { cookie } = await come(locked, passcode, device(98));
    await locked.call('DELETE', '/visit', undefined, { cookie });
    expect((await locked.call('GET', '/charts', undefined, { cookie })).status).toBe(401);
    for (let n = 0; n < 12; n++)
      for (let i = 0; i < 5; i++) expect((await come(locked, 'wrong one', device(n))).status).toBe(403);
    const again = () => locked.call('POST', '/visit', { passcode }, { cookie }, device(98));
    expect((await again()).status).toBe(200);
    // One that nobody knows is answered in its turn, a guess every two seconds, and has one of them in ten minutes.
    const turns = ['wrong one', 'wrong one', passcode].map((typed, i) =>
      come(locked, typed, device(100 + i)),
    );
    const answered: number[] = [];
    turns.forEach((turn) => void turn.then(({ status }) => answered.push(status)));
    const pass = async (ms: number): Promise<readonly number[]> => {
      await settle();
      world.advance(ms);
      await settle();
      return [...answered];
    };
    expect(await pass(0)).toEqual([]);
    expect(await pass(2 * SECOND)).toEqual([403]);
    expect(await pass(SECOND)).toEqual([403]);
    expect(await pass(SECOND)).toEqual([403, 403]);
    expect(await pass(2 * SECOND)).toEqual([403, 403, 200]);
    expect((await come(locked, passcode, device(100))).status).toBe(429);
    // No more wait than can be answered in twenty seconds.
    const crowd = Array.from({ length: 11 }, (_, i) => come(locked, 'wrong one', device(120 + i)));
    const statuses: number[] = [];
    crowd.forEach((turn) => void turn.then(({ status }) => statuses.push(status)));
    await settle();
    expect(statuses).toEqual([429]);
    for (let i = 0; i < 10; i++) {
      world.advance(2 * SECOND);
      await settle();
    }
    expect(statuses).toHaveLength(11);
    world.advance(10 * MINUTE);
    expect((await come(locked, passcode, device(99))).status).toBe(200);
    await locked.close();
  });
});

test('a backup that was taken in waits an hour for the word to put it in place', async () => {
  const backup = (await it.call('GET', '/backup')).body;
  await it.call('PUT', '/restores/waits-an-hour', backup);
  const state = async (): Promise<number> => (await it.call('GET', '/restores/waits-an-hour')).status;
  world.advance(HOUR - 1);
  expect(await state()).toBe(200);
  world.advance(1);
  expect(await state()).toBe(404);
});

test('what a server left of a backup goes at the start; where another one shares the library, after a day', () => {
  const folder = mkdtempSync(join(tmpdir(), 'crow-ladder-'));
  const path = join(folder, 'library.sqlite');
  const left = `${path}.restore-left`;
  const write = (age: number): void => {
    writeFileSync(left, '');
    utimesSync(left, new Date(world.now() - age), new Date(world.now() - age));
  };
  write(DAY - 1);
  dropRemains(path, true, world);
  expect(existsSync(left)).toBe(true);
  dropRemains(path, false, world);
  expect(existsSync(left)).toBe(false);
  write(DAY);
  dropRemains(path, true, world);
  expect(existsSync(left)).toBe(false);
  rmSync(folder, { recursive: true, force: true });
});

test('clearing the demo leaves what the player changed', async () => {
  const own = await served();
  const [first] = await own.charts();
  const change = { name: 'Mine now', tags: [], notes: '', state: first!.state, revision: 1 };
  await own.call('PUT', `/charts/${first!.id}`, change);
  await own.call('POST', '/demo/clear');
  expect((await own.charts()).map((c) => c.name)).toEqual(['Mine now']);
  // Its instrument stays with it; the others are in the bin.
  const left = (await own.call<{ id: string }[]>('GET', '/instruments')).body;
  expect(left.map((i) => i.id)).toEqual([first!.state.instrumentId]);
  await own.close();
});

describe('a full library', () => {
  const limits = { ...LIBRARY_LIMITS, charts: 2, instruments: 2, known: 2, practice: 2 };

  test('takes as much as it holds, the bin counted, and no more', async () => {
    const { db } = await openDatabase(':memory:');
    await db('charts').delete();
    await db('instruments').delete();
    await clearDemoLog(db);
    const library = libraryOn(db, undefined, world, limits);
    const full = { answer: { code: 'library-full' } };
    const chart = await library.createChart(draft('Port'));
    await library.createChart(draft('Starboard'));
    await library.remove('chart', chart.id, 1);
    await expect(library.createChart(draft('Bow'))).rejects.toMatchObject(full);
    // What is in the bin comes back all the same, and makes room where it is discarded.
    expect(await library.bringBack('chart', chart.id)).toBe(true);
    await library.remove('chart', chart.id, 1);
    await library.discard('chart', chart.id);
    await library.createChart(draft('Bow'));
    for (let i = 0; i < 2; i++) {
      await library.createInstrument(FIRST_STATE.instrument);
      await library.addRound({ ...ROUND, id: `round ${i}` });
      await library.addKnown(`shape ${i}`);
    }
    await expect(library.createInstrument(FIRST_STATE.instrument)).rejects.toMatchObject(full);
    await expect(library.addRound({ ...ROUND, id: 'another' })).rejects.toMatchObject(full);
    // One that comes again needs no room.
    await library.addRound({ ...ROUND, id: 'round 1' });
    await expect(library.addKnown('shape 2')).rejects.toMatchObject(full);
    await library.addKnown('shape 1');
    await db.destroy();
  });

  test('comes back from its backup, and one of more is refused by what there is too much of', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'crow-ladder-'));
    const backup = (await it.call<Backup>('GET', '/backup')).body;
    const many = <T extends object>(it: T, n: number): readonly T[] =>
      Array.from({ length: n }, (_, i) => ({ ...it, id: `id-${i}` }));
    const of = (more: Partial<Record<keyof typeof limits, number>> = {}): object => {
      const n = { ...limits, ...more };
      return {
        ...backup,
        charts: many(backup.charts[0]!, n.charts),
        instruments: many(backup.instruments[0]!, n.instruments),
        known: Array.from({ length: n.known }, (_, i) => `dorian 5:0 ${i + 1}`),
        practice: many({ ...ROUND, at: new Date(world.now()).toISOString() }, n.practice),
      };
    };
    const take = async (file: object) => {
      const db = await passingLibrary(join(folder, 'passing.sqlite'));
      const taking = intake(db, limits);
      const { error } = await taking.take(Buffer.from(JSON.stringify(file)));
      const end = await taking.end();
      await db.destroy();
      rmSync(join(folder, 'passing.sqlite'), { force: true });
      return error ?? (end.ok ? end.value : end.error);
    };
    expect(await take(of())).toMatchObject({ charts: 2, instruments: 2 });
    for (const [list, word] of [
      ['charts', '2 charts'],
      ['instruments', '2 instruments'],
      ['known', '2 known shapes'],
      ['practice', '2 rounds of practice'],
    ] as const)
      expect([list, await take(of({ [list]: 3 }))]).toMatchObject([
        list,
        { field: list, message: `A library holds at most ${word}.` },
      ]);
    rmSync(folder, { recursive: true, force: true });
  });
});
