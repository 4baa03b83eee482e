import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Chart, FIRST_STATE } from '@crow-ladder/contract';
import { listed } from '../test/served.ts';

const folder = mkdtempSync(join(tmpdir(), 'crow-ladder-'));
const base = 'http://127.0.0.1:4792';
let server: ChildProcess;

async function start(): Promise<void> {
  server = spawn(process.execPath, ['--import', 'tsx', join(__dirname, 'main.ts')], {
    env: { ...process.env, CROW_LADDER_DB: join(folder, 'library.sqlite'), CROW_LADDER_PORT: '4792' },
    stdio: 'ignore',
  });
  for (let i = 0; i < 200; i++) {
    const up = await fetch(`${base}/api/health`).then(
      (r) => r.ok,
      () => false,
    );
    if (up) return;
    await new Promise((r) => setTimeout(r, 100));
  }
  throw new Error('The server did not start.');
}
const kill = (): Promise<void> =>
  new Promise((done) => {
    server.once('exit', () => done());
    server.kill('SIGKILL');
  });
afterAll(async () => {
  await kill();
  rmSync(folder, { recursive: true, force: true });
});

test('killing the server at any moment loses no chart that was reported as saved', async () => {
  const saved: string[] = [];
  for (let round = 0; round < 3; round++) {
    await start();
    // Saves pour in while the server is killed in the middle of them.
    const pouring = Array.from({ length: 4 }, async (_, lane) => {
      for (let i = 0; i < 200; i++) {
        const name = `${round}/${lane}/${i}`;
        const body = JSON.stringify({ name, tags: [], notes: '', state: FIRST_STATE });
        const res = await fetch(`${base}/api/charts`, {
          method: 'POST',
          body,
          headers: { 'content-type': 'application/json' },
        }).catch(() => null);
        if (!res?.ok) return;
        const chart = (await res.json().catch(() => null)) as Chart | null;
        if (chart) saved.push(chart.name);
      }
    });
    await new Promise((r) => setTimeout(r, 150 + 200 * round));
    await kill();
    await Promise.all(pouring);
  }
  await start();
  const kept = new Set((await listed(base)).map((c) => c.name));
  expect(saved.length).toBeGreaterThan(20);
  expect(saved.filter((name) => !kept.has(name))).toEqual([]);
}, 60_000);
