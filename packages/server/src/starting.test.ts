import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Chart, FIRST_STATE } from '@crow-ladder/contract';
import { listed } from '../test/served.ts';
import { checkLibrary } from './check.ts';
import { openDatabase } from './database.ts';
import { environmentOf, startSentence } from './environment.ts';
import { lockLibrary } from './lock.ts';

const folder = mkdtempSync(join(tmpdir(), 'crow-ladder-'));
const running: ChildProcess[] = [];
afterAll(() => {
  for (const child of running) child.kill('SIGKILL');
  rmSync(folder, { recursive: true, force: true });
});

interface Ended {
  readonly code: number | null;
  readonly said: string;
}
/** A server with an environment, and what it said when it ended. */
function started(
  env: Record<string, string>,
  ...args: string[]
): { child: ChildProcess; ended: Promise<Ended> } {
  const child = spawn(process.execPath, ['--import', 'tsx', join(__dirname, 'main.ts'), ...args], {
    env: { ...process.env, CROW_LADDER_PORT: '4795', ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  running.push(child);
  let said = '';
  child.stdout.on('data', (text) => (said += String(text)));
  child.stderr.on('data', (text) => (said += String(text)));
  return { child, ended: new Promise((done) => child.once('exit', (code) => done({ code, said }))) };
}
const ready = async (base: string): Promise<void> => {
  for (let i = 0; i < 200; i++) {
    if (
      await fetch(`${base}/api/health`).then(
        (r) => r.ok,
        () => false,
      )
    )
      return;
    await new Promise((r) => setTimeout(r, 100));
  }
  throw new Error('The server did not start.');
};
const at = (name: string): string => join(folder, name);

test('what cannot be started says in a sentence what to change, without a stack, and ends with 1', async () => {
  writeFileSync(at('letter.txt'), 'Dear captain, '.repeat(200));
  const { db } = await openDatabase(at('newer.sqlite'));
  await db('knex_migrations').insert({ name: '999_of_next_year', batch: 9, migration_time: new Date() });
  await db.destroy();
  const cases: readonly (readonly [Record<string, string>, RegExp])[] = [
    [
      { CROW_LADDER_PORT: 'seven' },
      /^CROW_LADDER_PORT is “seven”: set it to a whole number from 1 to 65535\.$/m,
    ],
    [{ CROW_LADDER_PORT: '70000' }, /^CROW_LADDER_PORT is “70000”/m],
    [{ CROW_LADDER_DB: ' ' }, /^CROW_LADDER_DB is empty/m],
    [
      { CROW_LADDER_DB: at('letter.txt') },
      /letter\.txt is not a library of Crow Ladder: it is no database\./,
    ],
    [
      { CROW_LADDER_DB: join(at('letter.txt'), 'library.sqlite') },
      /cannot be opened|something else has its name/,
    ],
    [
      { CROW_LADDER_DB: at('newer.sqlite') },
      /newer\.sqlite was written by a newer Crow Ladder: update Crow Ladder first\./,
    ],
  ];
  const ends = await Promise.all(cases.map(([env]) => started(env).ended));
  ends.forEach(({ code, said }, i) => {
    expect([cases[i]![0], code]).toEqual([cases[i]![0], 1]);
    expect(said).toMatch(cases[i]![1]);
    expect(said).not.toMatch(/^\s+at /m);
  });
}, 60_000);

test('what the environment and the system mean is said for those that cannot be made here', () => {
  expect(environmentOf({})).toMatchObject({ host: '127.0.0.1', port: 4780, database: null, share: false });
  expect(() => environmentOf({ CROW_LADDER_HOST: 'a b' })).toThrow('CROW_LADDER_HOST is “a b”');
  const said = (code: string): string | null =>
    startSentence(Object.assign(new Error(), { code }), '/boat/library');
  expect(said('SQLITE_CORRUPT')).toMatch(/^\/boat\/library is damaged/);
  expect(said('SQLITE_READONLY')).toMatch(/cannot be written to/);
  expect(said('SQLITE_FULL')).toMatch(/disk .* is full/);
  expect(said('EACCES')).toMatch(/may not be opened/);
  expect(said('E_NOBODY_FORESAW')).toBeNull();
});

test('of two servers on one library the second says who has it; told to share, both write without a loss', async () => {
  const env = { CROW_LADDER_DB: at('shared.sqlite') };
  const first = started(env);
  await ready('http://127.0.0.1:4795');
  const { code, said } = await started({ ...env, CROW_LADDER_PORT: '4796' }).ended;
  expect(code).toBe(1);
  expect(said).toContain(
    `is open in another Crow Ladder (process ${first.child.pid}, http://127.0.0.1:4795)`,
  );
  started({ ...env, CROW_LADDER_PORT: '4796', CROW_LADDER_SHARE: '1' });
  await ready('http://127.0.0.1:4796');
  const patch = (port: number, body: object): Promise<number> =>
    fetch(`http://127.0.0.1:${port}/api/settings`, {
      method: 'PATCH',
      body: JSON.stringify(body),
      headers: { 'content-type': 'application/json' },
    }).then((r) => r.status);
  const all = await Promise.all(
    Array.from({ length: 120 }, (_, i) => patch(i % 2 ? 4795 : 4796, { from: {}, to: { spanMm: 60 + i } })),
  );
  expect(all.filter((s) => s !== 200)).toEqual([]);
  for (const child of running.splice(0)) child.kill('SIGTERM');
  expect((await first.ended).code).toBe(0);
}, 60_000);

test('first starts at once on one library load the demo once, and none of them fails', async () => {
  const env = { CROW_LADDER_DB: at('first.sqlite'), CROW_LADDER_SHARE: '1' };
  const ports = ['4795', '4796', '4806', '4807', '4808'];
  const all = ports.map((port) => started({ ...env, CROW_LADDER_PORT: port }));
  const bases = ports.map((port) => `http://127.0.0.1:${port}`);
  await Promise.all(bases.map(ready));
  const names = (await listed(bases[0]!)).map((c) => c.name);
  expect(new Set(names).size).toBe(names.length);
  expect((await listed(bases[1]!)).map((c) => c.name)).toEqual(names);
  for (const { child } of all) child.kill('SIGTERM');
  const said = (await Promise.all(all.map((s) => s.ended))).map((e) => e.said).join('\n');
  expect(said.match(/Loaded the demo charts/g)).toHaveLength(1);
}, 60_000);

test('served beyond its own computer it prints a passcode, the same at every start, and asks for it', async () => {
  const env = { CROW_LADDER_DB: at('room.sqlite'), CROW_LADDER_HOST: '0.0.0.0' };
  const passcodes: (string | undefined)[] = [];
  for (let i = 0; i < 2; i++) {
    const { child, ended } = started(env);
    await ready('http://127.0.0.1:4795');
    expect((await fetch('http://127.0.0.1:4795/api/charts')).status).toBe(401);
    child.kill('SIGTERM');
    passcodes.push(/^Passcode: (\S+)$/m.exec((await ended).said)?.[1]);
  }
  expect(passcodes[0]).toMatch(/^[a-z2-9]{4}-[a-z2-9]{4}$/);
  expect(passcodes[1]).toBe(passcodes[0]);
}, 60_000);

test('told to stop, it ends what is under way within five seconds and loses nothing that it accepted', async () => {
  const env = { CROW_LADDER_DB: at('stopped.sqlite') };
  const { child, ended } = started(env);
  const base = 'http://127.0.0.1:4795';
  await ready(base);
  const accepted: string[] = [];
  const pouring = Promise.all(
    Array.from({ length: 4 }, async (_, lane) => {
      for (let i = 0; i < 300; i++) {
        const name = `${lane}/${i}`;
        const res = await fetch(`${base}/api/charts`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ name, tags: [], notes: '', state: FIRST_STATE }),
        }).catch(() => null);
        if (!res?.ok) return;
        accepted.push(((await res.json()) as Chart).name);
      }
    }),
  );
  await new Promise((r) => setTimeout(r, 300));
  const asked = Date.now();
  child.kill('SIGTERM');
  const { code } = await ended;
  expect([code, Date.now() - asked < 5000]).toEqual([0, true]);
  await pouring;
  expect(accepted.length).toBeGreaterThan(5);
  // Nothing is left beside the library's own file.
  expect(readdirSync(folder).filter((n) => n.startsWith('stopped.sqlite'))).toEqual(['stopped.sqlite']);
  const again = started(env);
  await ready(base);
  const kept = new Set((await listed(base)).map((c) => c.name));
  expect(accepted.filter((name) => !kept.has(name))).toEqual([]);
  again.child.kill('SIGTERM');
  await again.ended;
}, 60_000);

test('a lock that nobody holds any more is taken over', () => {
  writeFileSync(at('left.sqlite.lock'), '999999999 http://127.0.0.1:1\n');
  const unlock = lockLibrary(at('left.sqlite'), 'http://127.0.0.1:2');
  // The folder of an all-new library is made.
  lockLibrary(at('new/deep/library.sqlite'), 'http://127.0.0.1:2')();
  unlock();
  expect(readdirSync(folder)).not.toContain('left.sqlite.lock');
});

test('a library is copied aside before it is brought up to date, and the last three copies are kept', async () => {
  const path = at('old.sqlite');
  await (await openDatabase(path)).db.destroy();
  const copies = (): readonly string[] =>
    readdirSync(folder).filter((n) => n.startsWith('old.sqlite.before-'));
  expect(copies()).toEqual([]);
  for (let i = 0; i < 5; i++) {
    const { db } = await openDatabase(path);
    await db('knex_migrations').where({ name: '003_answers' }).delete();
    await db.schema.dropTable('answers');
    await db.destroy();
    await new Promise((r) => setTimeout(r, 5));
  }
  await (await openDatabase(path)).db.destroy();
  expect(copies()).toHaveLength(3);
});

test('a library is looked through without being changed, and what is wrong is said', async () => {
  const path = at('checked.sqlite');
  const { db } = await openDatabase(path);
  const lines: string[] = [];
  expect(await checkLibrary(path, (l) => lines.push(l))).toBe(true);
  expect(lines.join()).toContain('nothing wrong');
  await db('charts').insert({
    id: 'torn',
    name: 'Torn',
    tags: '[',
    notes: '',
    state: '{',
    revision: 1,
    created_at: 'x',
    updated_at: 'x',
  });
  await db.destroy();
  expect(await checkLibrary(path, (l) => lines.push(l))).toBe(false);
  expect(lines.join()).toContain('Chart torn, “Torn”');
  expect(await checkLibrary(at('none.sqlite'), () => undefined)).toBe(false);
  writeFileSync(at('noise.sqlite'), 'noise'.repeat(1000));
  expect(await checkLibrary(at('noise.sqlite'), (l) => lines.push(l))).toBe(false);
  expect(lines.at(-1)).toContain('is not a library of Crow Ladder');
});
