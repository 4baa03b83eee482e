import { copyFileSync, mkdtempSync, renameSync, rmSync, unlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Chart, FIRST_STATE } from '@crow-ladder/contract';
import { endAll, running } from '../../../scripts/running.ts';
import { listed, type Served, served } from '../test/served.ts';
import { checkLibrary } from './check.ts';
import { filesOf } from './files.ts';

const folder = mkdtempSync(join(tmpdir(), 'crow-ladder-'));
afterAll(async () => {
  await endAll();
  rmSync(folder, { recursive: true, force: true });
});
const draft = (name: string) => ({ name, tags: [], notes: '', state: FIRST_STATE });

test('where the log beside a running library is deleted nothing that was accepted is lost, and no more is taken', async () => {
  const path = join(folder, 'deleted.sqlite');
  const env = { CROW_LADDER_DB: path };
  const { child, ready, ended } = running(env);
  const base = await ready;
  const post = async (name: string) => {
    const res = await fetch(`${base}/api/charts`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(draft(name)),
    });
    return { status: res.status, body: (await res.json()) as Chart & { error?: { message: string } } };
  };
  const accepted: string[] = [];
  let told = '';
  // They pour in as the log is deleted.
  await Promise.all(
    Array.from({ length: 4 }, async (_, lane) => {
      for (let i = 0; i < 12; i++) {
        const name = `${lane}/${i}`;
        if (lane === 0 && i === 6) unlinkSync(`${path}-wal`);
        const { status, body } = await post(name);
        if (status === 201) accepted.push(name);
        else told = body.error!.message;
      }
    }),
  );
  expect(accepted.length).toBeGreaterThan(20);
  expect(told).toMatch(
    /was deleted while Crow Ladder runs, so nothing more can be saved: stop Crow Ladder and start it again/,
  );
  expect((await fetch(`${base}/api/backup`)).status).toBe(503);
  expect((await fetch(`${base}/api/charts`)).status).toBe(200);
  // All of it stands in the library's own file before anything is stopped.
  const copy = join(folder, 'copy.sqlite');
  copyFileSync(path, copy);
  expect(await checkLibrary(copy, () => undefined)).toBe(true);
  child.kill('SIGKILL');
  await ended;
  const again = running(env);
  const kept = (await listed(await again.ready)).map((c) => c.name);
  expect(accepted.filter((name) => !kept.includes(name))).toEqual([]);
  again.child.kill('SIGTERM');
  expect((await again.ended).code).toBe(0);
});

describe('looked at from within', () => {
  let it: Served;
  beforeEach(async () => {
    it = await served();
  });
  afterEach(() => it.close());

  test('all is well until the library is moved, or another stands in its place; then nothing is kept any more', async () => {
    const files = filesOf(it.path, it.db);
    expect(await files()).toBeNull();
    renameSync(it.path, `${it.path}.away`);
    const gone = { error: { code: 'library-gone' }, isKept: false };
    expect(await files()).toMatchObject(gone);
    copyFileSync(`${it.path}.away`, it.path);
    expect(await files()).toMatchObject(gone);
    renameSync(`${it.path}.away`, it.path);
    expect(await files()).toBeNull();
    unlinkSync(`${it.path}-shm`);
    expect(await files()).toMatchObject({ error: { code: 'library-gone' }, isKept: true });
  });

  test('while something still reads a state of before, what the log held is not said to be kept', async () => {
    const files = filesOf(it.path, it.db);
    await it.db.raw('PRAGMA busy_timeout = 20');
    const out = await it.send('GET', '/api/backup');
    const reader = out.body!.getReader();
    await it.send('POST', '/api/charts', draft('Late'));
    unlinkSync(`${it.path}-wal`);
    expect(await files()).toMatchObject({ isKept: false });
    while (!(await reader.read()).done);
    expect(await files()).toMatchObject({ isKept: true });
  });
});
