import { execFile, execFileSync } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { type AddressInfo, createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { type Chart, FIRST_STATE } from '@crow-ladder/contract';
import Database from 'better-sqlite3';
import { endAll, running } from '../../../scripts/running.ts';
import { handWorld, listed, TORN_ROW } from '../test/served.ts';
import { checkLibrary } from './check.ts';
import { openDatabase } from './database.ts';
import { holdLock, lockLibrary } from './lock.ts';

const folder = mkdtempSync(join(tmpdir(), 'crow-ladder-'));
afterAll(async () => {
  await endAll();
  rmSync(folder, { recursive: true, force: true });
});
const at = (name: string): string => join(folder, name);

test('what cannot be started says in a sentence what to change, without a stack, and ends with 1', async () => {
  writeFileSync(at('letter.txt'), 'Dear captain, '.repeat(200));
  const other = createServer();
  await new Promise<void>((ready) => other.listen(0, '127.0.0.1', ready));
  const { port } = other.address() as AddressInfo;
  const cases = [
    [
      { CROW_LADDER_PORT: String(port), CROW_LADDER_DB: at('taken.sqlite') },
      /^Port \d+ is taken: stop what uses it/m,
    ],
    [{ CROW_LADDER_PORT: 'seven' }, /^CROW_LADDER_PORT is “seven”/m],
    [
      { CROW_LADDER_DB: at('letter.txt') },
      /letter\.txt is not a library of Crow Ladder: it is no database\./,
    ],
  ] as const;
  const ends = await Promise.all(cases.map(([env]) => running(env).ended));
  ends.forEach(({ code, said }, i) => {
    expect([cases[i]![0], code]).toEqual([cases[i]![0], 1]);
    expect(said).toMatch(cases[i]![1]);
    expect(said).not.toMatch(/^\s+at /m);
  });
  other.close();
  // What was opened for it is closed.
  expect(readdirSync(folder).filter((n) => n.startsWith('taken'))).toEqual(['taken.sqlite']);
});

test('of two servers on one library the second says who has it; told to share, both write without a loss', async () => {
  const env = { CROW_LADDER_DB: at('shared.sqlite') };
  const first = running(env);
  const base = await first.ready;
  const { code, said } = await running(env).ended;
  expect(code).toBe(1);
  expect(said).toContain(`is open in another Crow Ladder (process ${first.child.pid}, ${base})`);
  const second = running({ ...env, CROW_LADDER_SHARE: '1' });
  const bases = [base, await second.ready];
  const patch = (to: string, body: object): Promise<number> =>
    fetch(`${to}/api/settings`, {
      method: 'PATCH',
      body: JSON.stringify(body),
      headers: { 'content-type': 'application/json' },
    }).then((r) => r.status);
  const all = await Promise.all(
    Array.from({ length: 120 }, (_, i) => patch(bases[i % 2]!, { from: {}, to: { spanMm: 60 + i } })),
  );
  expect(all.filter((s) => s !== 200)).toEqual([]);
  for (const { child } of [first, second]) child.kill('SIGTERM');
  expect((await first.ended).code).toBe(0);
});

test('first starts at once on one library load the demo once, and none of them fails, nor at a long address', async () => {
  const env = { CROW_LADDER_DB: at('first.sqlite'), CROW_LADDER_SHARE: '1' };
  const all = Array.from({ length: 3 }, () => running(env));
  const bases = await Promise.all(all.map((s) => s.ready));
  // A new chart with many climbs makes a long address, which is no error.
  expect((await fetch(`${bases[0]!}/api/health?run=${'x'.repeat(300_000)}`)).status).toBe(200);
  const names = (await listed(bases[0]!)).map((c) => c.name);
  expect(new Set(names).size).toBe(names.length);
  expect((await listed(bases[1]!)).map((c) => c.name)).toEqual(names);
  for (const { child } of all) child.kill('SIGTERM');
  const said = (await Promise.all(all.map((s) => s.ended))).map((e) => e.said).join('\n');
  expect(said.match(/Loaded the demo charts/g)).toHaveLength(1);
});

test('served beyond its own computer it prints a passcode, the same at every start, and asks for it', async () => {
  const env = { CROW_LADDER_DB: at('room.sqlite'), CROW_LADDER_HOST: '0.0.0.0' };
  const passcodes: (string | undefined)[] = [];
  for (let i = 0; i < 2; i++) {
    const { child, ready, ended } = running(env);
    expect((await fetch(`${await ready}/api/charts`)).status).toBe(401);
    child.kill('SIGTERM');
    passcodes.push(/^Passcode: (\S+)$/m.exec((await ended).said)?.[1]);
  }
  expect(passcodes[0]).toMatch(/^[a-z2-9]{4}-[a-z2-9]{4}$/);
  expect(passcodes[1]).toBe(passcodes[0]);
});

test('told to stop, it ends what is under way within five seconds and loses nothing that it accepted', async () => {
  const env = { CROW_LADDER_DB: at('stopped.sqlite') };
  const { child, ready, ended } = running(env);
  const base = await ready;
  const accepted: string[] = [];
  let tenth: () => void;
  const pours = new Promise<void>((done) => (tenth = done));
  const pouring = Promise.all(
    Array.from({ length: 4 }, async (_, lane) => {
      for (let i = 0; ; i++) {
        const name = `${lane}/${i}`;
        const res = await fetch(`${base}/api/charts`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ name, tags: [], notes: '', state: FIRST_STATE }),
        }).catch(() => null);
        if (!res?.ok) return;
        if (accepted.push(((await res.json()) as Chart).name) === 10) tenth();
      }
    }),
  );
  await pours;
  const asked = Date.now();
  child.kill('SIGTERM');
  const { code } = await ended;
  expect([code, Date.now() - asked < 5000]).toEqual([0, true]);
  await pouring;
  // Nothing is left beside the library's own file.
  expect(readdirSync(folder).filter((n) => n.startsWith('stopped.sqlite'))).toEqual(['stopped.sqlite']);
  const again = running(env);
  const kept = new Set((await listed(await again.ready)).map((c) => c.name));
  expect(accepted.filter((name) => !kept.has(name))).toEqual([]);
  again.child.kill('SIGTERM');
  await again.ended;
});

test('a lock is held by one, is free once its holder is killed, and stays empty; no file that lies there keeps the owner out', async () => {
  const path = at('held.sqlite');
  // What earlier versions and other programs left: nothing, a process that is no more, one that lives and is another program.
  for (const left of ['', '0 ', '999999999 http://127.0.0.1:1\n', `${process.ppid} http://127.0.0.1:1\n`]) {
    writeFileSync(`${path}.lock`, left);
    lockLibrary(path)();
  }
  writeFileSync(`${path}-lock`, '');
  const { child, ready, ended } = running({ CROW_LADDER_DB: path });
  await ready;
  expect(() => lockLibrary(path)).toThrow(
    `open in another Crow Ladder (process ${child.pid}, ${await ready})`,
  );
  expect(statSync(`${path}-lock`).size).toBe(0);
  child.kill('SIGKILL');
  await ended;
  const unlock = lockLibrary(path);
  unlock();
  expect(existsSync(`${path}-lock`)).toBe(false);
  // One that another program wrote is told of with what to do, and doing it works.
  writeFileSync(`${path}-lock`, 'noise'.repeat(300));
  expect(() => lockLibrary(path)).toThrow(
    `${path}-lock should be empty and is not, so another program wrote it: delete`,
  );
  rmSync(`${path}-lock`);
  lockLibrary(path)();
});

test('of many that want a lock at once, and let it go again and again, one has it at a time', async () => {
  const path = at('turns-lock');
  const script = `
    import { appendFileSync, existsSync, rmSync, writeFileSync } from 'node:fs';
    import { holdLock } from ${JSON.stringify(resolve('packages/server/src/lock.ts'))};
    for (let had = 0; had < 300;) {
      const done = holdLock(${JSON.stringify(path)});
      if (!done) continue;
      had++;
      try {
        writeFileSync(${JSON.stringify(at('turn'))}, '', { flag: 'wx' });
        for (let i = 0; i < 5; i++) existsSync(${JSON.stringify(path)});
        rmSync(${JSON.stringify(at('turn'))});
      } catch { console.log('two at once'); }
      done();
    }`;
  const all = await Promise.all(
    Array.from(
      { length: 3 },
      () =>
        new Promise<string>((ended) =>
          execFile(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', script], (error, out) =>
            ended(error ? error.message : out),
          ),
        ),
    ),
  );
  expect(all).toEqual(['', '', '']);
});

test('a lock on a file that was taken away is none, though another one has its number by now', () => {
  const path = at('again-lock');
  writeFileSync(path, '');
  let opened = 0;
  const done = holdLock(path, (name) => {
    if (opened++) return new Database(name, { timeout: 0 });
    // The file that was looked at goes, and its number is free; the one that is opened goes, too.
    rmSync(name);
    writeFileSync(at('again'), '');
    const second = new Database(name, { timeout: 0 });
    rmSync(name, { force: true });
    renameSync(at('again'), name);
    return second;
  });
  const other = new Database(path, { timeout: 0 });
  expect(() => other.exec('BEGIN EXCLUSIVE')).toThrow('locked');
  other.close();
  expect(holdLock(path)).toBeNull();
  expect(opened).toBe(2);
  // Asking in vain lets go of nothing: another process does not have it either.
  const script = `
    import { holdLock } from ${JSON.stringify(resolve('packages/server/src/lock.ts'))};
    console.log(holdLock(${JSON.stringify(path)}) ? 'held twice' : 'held');`;
  const asked = ['--import', 'tsx', '--input-type=module', '-e', script];
  expect(execFileSync(process.execPath, asked, { encoding: 'utf8' }).trim()).toBe('held');
  done!();
  holdLock(path)!();
});

test('what seems to have been lost is not taken for an all-new library, and what to do is said and works', async () => {
  const refused = async (path: string, anew = false): Promise<string> =>
    openDatabase(path, undefined, anew).then(
      async ({ db }) => (await db.destroy(), 'opened'),
      (error: Error) => error.message,
    );
  const missing = at('away/library.sqlite');
  expect(await refused(missing)).toMatch(/^The folder .+away is missing: make it, or connect the disk/);
  mkdirSync(at('away'));
  expect(await refused(missing)).toBe('opened');
  const empty = at('empty.sqlite');
  writeFileSync(empty, '');
  expect(await refused(empty)).toMatch(/empty\.sqlite is empty, .+ npm start -- --new\.$/);
  expect(statSync(empty).size).toBe(0);
  expect(await refused(empty, true)).toBe('opened');
  expect(await refused(empty)).toBe('opened');
  // A log without its library holds charts that are of no other one.
  rmSync(empty);
  writeFileSync(`${empty}-wal`, 'frames');
  for (const anew of [false, true]) {
    expect(await refused(empty, anew)).toMatch(
      /empty\.sqlite-wal is there without the library that it belongs to/,
    );
    writeFileSync(empty, '');
  }
  renameSync(`${empty}-wal`, at('elsewhere'));
  expect(await refused(empty, true)).toBe('opened');
});

test('a first start that is killed as it makes the library leaves a whole one or none', async () => {
  const env = { CROW_LADDER_DB: at('killed.sqlite') };
  const { child, ended } = running(env);
  await new Promise<void>((heard) => child.stdout.once('data', () => heard()));
  child.kill('SIGKILL');
  await ended;
  const again = running(env);
  expect((await listed(await again.ready)).length).toBeGreaterThan(5);
  again.child.kill('SIGTERM');
  await again.ended;
  expect(readdirSync(folder).filter((n) => n.startsWith('killed'))).toEqual(['killed.sqlite']);
});

test('a library is copied aside before it is brought up to date, and the last three copies are kept', async () => {
  const path = at('old.sqlite');
  await (await openDatabase(path)).db.destroy();
  const copies = (): readonly string[] =>
    readdirSync(folder).filter((n) => n.startsWith('old.sqlite.before-'));
  expect(copies()).toEqual([]);
  const world = handWorld();
  for (let i = 0; i < 5; i++) {
    const { db } = await openDatabase(path, world);
    world.advance(1000);
    await db('knex_migrations').where({ name: '003_answers' }).delete();
    await db.schema.dropTable('answers');
    await db.destroy();
  }
  await (await openDatabase(path, world)).db.destroy();
  const minutes = [2, 3, 4].map((s) => `old.sqlite.before-2026-06-01T20-00-0${s + 1}-000Z`);
  expect(copies()).toEqual(minutes);
});

test('a library is looked through without being changed, and what is wrong is said', async () => {
  const path = at('checked.sqlite');
  const { db } = await openDatabase(path);
  const lines: string[] = [];
  expect(await checkLibrary(path, (l) => lines.push(l))).toBe(true);
  expect(lines.join()).toContain('nothing wrong');
  await db('charts').insert(TORN_ROW);
  await db.destroy();
  expect(await checkLibrary(path, (l) => lines.push(l))).toBe(false);
  expect(lines.join()).toContain('Chart torn, “Torn”');
  expect(await checkLibrary(at('none.sqlite'), () => undefined)).toBe(false);
  writeFileSync(at('noise.sqlite'), 'noise'.repeat(1000));
  expect(await checkLibrary(at('noise.sqlite'), (l) => lines.push(l))).toBe(false);
  expect(lines.at(-1)).toContain('is not a library of Crow Ladder');
});
