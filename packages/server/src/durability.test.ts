import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Chart, FIRST_STATE } from '@crow-ladder/contract';
import { endAll, running } from '../../../scripts/running.ts';
import { listed } from '../test/served.ts';

const folder = mkdtempSync(join(tmpdir(), 'crow-ladder-'));
const start = () => running({ CROW_LADDER_DB: join(folder, 'library.sqlite') });
afterAll(async () => {
  await endAll();
  rmSync(folder, { recursive: true, force: true });
});

test('killing the server at any moment loses no chart that was reported as saved', async () => {
  const saved: string[] = [];
  // It is killed in the middle of saves that pour in, after so many of them.
  for (const many of [3, 10, 25]) {
    const { child, ready, ended } = start();
    const base = await ready;
    let count = 0;
    const pouring = Array.from({ length: 4 }, async (_, lane) => {
      for (let i = 0; ; i++) {
        const name = `${many}/${lane}/${i}`;
        const body = JSON.stringify({ name, tags: [], notes: '', state: FIRST_STATE });
        const res = await fetch(`${base}/api/charts`, {
          method: 'POST',
          body,
          headers: { 'content-type': 'application/json' },
        }).catch(() => null);
        if (!res?.ok) return;
        const chart = (await res.json().catch(() => null)) as Chart | null;
        if (chart) saved.push(chart.name);
        if (++count === many) child.kill('SIGKILL');
      }
    });
    await Promise.all(pouring);
    await ended;
  }
  const kept = new Set((await listed(await start().ready)).map((c) => c.name));
  expect(saved.length).toBeGreaterThan(20);
  expect(saved.filter((name) => !kept.has(name))).toEqual([]);
});
