import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { type ChartPage, DEFAULT_SETTINGS, FIRST_STATE } from '@crow-ladder/contract';
import { CATALOGUE } from '@crow-ladder/core';
import { endAll, running } from '../../../scripts/running.ts';

// A library of FULL charts goes in as a backup, out, in again and out again: both that come out are equal, chart by chart. Says how
// long each took, how much memory the server had at most, and how long others waited meanwhile.
const FULL = Number(process.env['FULL'] ?? 50_000);
const folder = mkdtempSync(join(tmpdir(), 'crow-ladder-full-'));
const file = (name: string): string => join(folder, name);

const server = running({ CROW_LADDER_DB: file('library.sqlite') });
const base = `${await server.ready}/api`;
const pause = (ms: number): Promise<void> => new Promise((later) => setTimeout(later, ms));
/** Most memory that the server had so far, in MB; Linux alone says it. */
const memory = (): number =>
  Math.round(
    Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${server.child.pid}/status`, 'utf8'))![1]) / 1024,
  );

let longest = 0;
let over = false;
const others = (async () => {
  for (; !over; await pause(50)) {
    const at = performance.now();
    await (await fetch(`${base}/charts`)).text();
    longest = Math.max(longest, performance.now() - at);
  }
})();
async function timed<T>(what: string, work: () => Promise<T>): Promise<T> {
  longest = 0;
  const at = performance.now();
  const done = await work();
  console.log(
    `${what}: ${((performance.now() - at) / 1000).toFixed(1)} s; a list asked for meanwhile took at most ${Math.round(longest)} ms; memory so far at most ${memory()} MB`,
  );
  return done;
}

function* charts(): Generator<string> {
  yield '{"format":"crow-ladder-backup","version":2,"madeAt":"2026-06-01T20:00:00.000Z","charts":[';
  for (let i = 0; i < FULL; i++) {
    const at = new Date(Date.UTC(2020, 0, 1) + i * 60_000).toISOString();
    const state = {
      ...FIRST_STATE,
      key: { root: 'F#', scale: CATALOGUE[i % CATALOGUE.length]!.id },
      layout: { kind: 'reach', reach: 4 },
    };
    const notes = 'Second verse: stay below fret 7 until the horn answers. '.repeat(i % 7).trim();
    yield `${i ? ',' : ''}${JSON.stringify({ id: `c${i}`, name: `Harbour ${i}`, tags: [`tag ${i % 50}`], notes, state, revision: 1, createdAt: at, updatedAt: at })}`;
  }
  yield `],"unreadable":[],"instruments":[],"settings":${JSON.stringify(DEFAULT_SETTINGS)},"known":[]}`;
}
async function bringIn(name: string, id: string): Promise<void> {
  const body = Readable.toWeb(createReadStream(file(name))) as ReadableStream<Uint8Array>;
  const headers = { 'content-type': 'application/json' };
  const read = () =>
    fetch(`${base}/restores/${id}`, { method: 'PUT', body, headers, duplex: 'half' } as RequestInit);
  const answer = await timed(
    `${name}, ${(statSync(file(name)).size / 1e6).toFixed(1)} MB, read and checked`,
    read,
  );
  if (!answer.ok) throw new Error(await answer.text());
  await timed('put in place', () => fetch(`${base}/restores/${id}/replace`, { method: 'POST' }));
}
/** Writes a backup to a file, and says what is in it but for when it was made and how often each chart was changed. */
async function bringOut(name: string): Promise<string> {
  await timed(`${name} written`, async () => {
    const answer = await fetch(`${base}/backup`);
    await pipeline(Readable.fromWeb(answer.body as never), createWriteStream(file(name)));
  });
  const text = readFileSync(file(name), 'utf8')
    .replace(/"madeAt":"[^"]*"/, '')
    .replaceAll(/"revision":\d+/g, '');
  return createHash('sha256').update(text).digest('hex');
}

await pipeline(Readable.from(charts()), createWriteStream(file('made.json')));
console.log(`The server alone: ${memory()} MB.`);
await bringIn('made.json', 'full-size-1');
const first = await bringOut('first.json');
await bringIn('first.json', 'full-size-2');
const second = await bringOut('second.json');
const all = ((await (await fetch(`${base}/charts`)).json()) as ChartPage).all;
over = true;
await others;
await endAll();
rmSync(folder, { recursive: true, force: true });
console.log(
  `${all} charts of ${FULL}; what came out the second time is ${first === second ? 'equal' : 'NOT equal'}.`,
);
process.exit(first === second && all === FULL ? 0 : 1);
