import { execFileSync } from 'node:child_process';
import {
  copyFileSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  rmSync,
  unlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Binned, type Chart, FIRST_STATE } from '@crow-ladder/contract';
import { endAll, type Running, running } from '../../../scripts/running.ts';
import { listed } from '../test/served.ts';
import { checkLibrary } from '../src/check.ts';
import { connect } from '../src/database.ts';
import * as lists from '../src/migrations/004_lists.ts';
import * as practice from '../src/migrations/005_practice.ts';
import * as sound from '../src/migrations/006_sound.ts';
import * as phrases from '../src/migrations/007_phrases.ts';
import * as recall from '../src/migrations/008_recall.ts';
import * as log from '../src/migrations/009_log.ts';

// What befalls a library beside kills: a full disk, locks that others left, an update that is killed, a log that is deleted, a clock
// that jumps. Nothing that was accepted may be lost; what is said has to say what to do, and doing it has to work.
const folder = mkdtempSync(join(tmpdir(), 'crow-ladder-holes-'));
const wrong: string[] = [];
const must = (is: boolean, what: string): void => {
  if (!is) wrong.push(what);
};
const pause = (ms: number): Promise<void> => new Promise((later) => setTimeout(later, ms));
const start = (path: string, env: Record<string, string> = {}, ...args: string[]): Running =>
  running({ CROW_LADDER_DB: path, ...env }, ...args);
const stop = async ({ child, ended }: Running): Promise<void> => {
  child.kill('SIGTERM');
  const { code, said } = await ended;
  must(code === 0, `A stop ended with ${code}: ${said}`);
};
async function ask<T>(base: string, method: string, to: string, body?: unknown, headers = {}) {
  const res = await fetch(`${base}/api${to}`, {
    method,
    headers: { 'content-type': 'application/json', ...headers },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  return {
    status: res.status,
    body: (await res.json()) as T & { error?: { code: string; message: string } },
  };
}
const post = (base: string, name: string, bytes = 0) =>
  ask<Chart>(base, 'POST', '/charts', { name, tags: [], notes: 'x'.repeat(bytes), state: FIRST_STATE });
/** What a start says that ends by itself. */
async function refused(path: string, as: RegExp, what: string): Promise<void> {
  const { code, said } = await start(path).ended;
  must(
    code === 1 && as.test(said) && !/^\s+at /m.test(said),
    `${what}: it ended with ${code} and said “${said.trim()}”`,
  );
}
async function has(path: string, names: readonly string[], what: string): Promise<Running> {
  const server = start(path);
  const kept = new Set((await listed(await server.ready)).map((c) => c.name));
  const lost = names.filter((name) => !kept.has(name));
  must(lost.length === 0, `${what}: lost ${lost.join(', ')}`);
  return server;
}
let accepted = 0;

async function fullDisk(): Promise<string> {
  const disk = join(folder, 'disk');
  mkdirSync(disk);
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=4m', 'tmpfs', disk], { stdio: 'ignore' });
  } catch {
    return 'not tried, as no small disk may be made here';
  }
  try {
    const path = join(disk, 'library.sqlite');
    const filler = join(disk, 'filler');
    const fill = (): void => {
      try {
        writeFileSync(filler, Buffer.alloc(5_000_000));
      } catch {
        // As much of it as there is room for stands there now.
      }
    };
    fill();
    await refused(path, /The disk of .+ is full: make room first\./, 'A first start on a full disk');
    must(
      !readdirSync(disk).some((n) => n !== 'filler' && !/-lock$/.test(n)),
      `It left ${readdirSync(disk).join(', ')}`,
    );
    rmSync(filler);
    const server = start(path);
    const base = await server.ready;
    const names: string[] = [];
    for (let i = 0, full = false; !full; i++) {
      const { status, body } = await post(base, `Full ${i}`, 19_000);
      if (status === 201) names.push(body.name);
      else {
        must(
          status === 507 && /make room/.test(body.error!.message),
          `A full disk was answered with ${status}`,
        );
        full = true;
      }
    }
    for (let i = 0; i < 20; i++) {
      const { status, body } = await post(base, `Small ${i}`);
      if (status === 201) names.push(body.name);
    }
    for (const to of ['/charts', '/tags', '/instruments', '/settings', '/bin', '/backup'])
      must((await fetch(`${base}/api${to}`)).status === 200, `${to} cannot be read on a full disk`);
    fill();
    await stop(server);
    const again = start(path);
    const came = await again.ready.then(
      () => true,
      () => false,
    );
    if (came) await stop(again);
    else
      must(
        /The disk of .+ is full: make room first\./.test((await again.ended).said),
        'A start on a full disk says nothing of it',
      );
    // There is room once the disk is a larger one.
    execFileSync('mount', ['-o', 'remount,size=12m', disk]);
    await stop(await has(path, names, 'A full disk'));
    must(await checkLibrary(path, () => undefined), 'A library is not whole after a full disk');
    accepted += names.length;
    return `${names.length} charts accepted`;
  } finally {
    execFileSync('umount', ['-l', disk]);
  }
}

async function locks(): Promise<string> {
  const path = join(folder, 'locked.sqlite');
  const other = `${process.pid} http://127.0.0.1:4780\n`;
  for (const [end, text] of [
    ['.lock', ''],
    ['.lock', '0'],
    ['.lock', other],
    ['.opening.lock', other],
    ['-lock', ''],
    ['-opening', ''],
  ] as const) {
    writeFileSync(path + end, text);
    await stop(await has(path, [], `A ${end} that holds “${text}”`));
  }
  for (const end of ['-lock', '-opening']) {
    writeFileSync(path + end, other.repeat(50));
    await refused(
      path,
      /should be empty and is not, .+: delete that file, and start again\./,
      `A ${end} of another program`,
    );
    rmSync(path + end);
    await stop(await has(path, [], `After a ${end} of another program`));
  }
  for (let i = 0; i < 5; i++) {
    const server = start(path);
    await server.ready;
    await refused(
      path,
      new RegExp(`process ${server.child.pid}, .+: use that one, stop it`),
      'A second start',
    );
    server.child.kill('SIGKILL');
    await server.ended;
  }
  await stop(await has(path, [], 'After kills'));
  return '8 left by others, 5 freed by a kill';
}

/** What a library of three migrations is brought up to date by. */
const SINCE_THEN = [lists, practice, sound, phrases, recall, log];
async function killedUpdates(): Promise<string> {
  const old = join(folder, 'old.sqlite');
  const server = start(old);
  const base = await server.ready;
  const names: string[] = [];
  for (let i = 0; i < 300; i++) names.push((await post(base, `Old ${i}`, 5000)).body.name);
  await stop(server);
  const db = connect(old);
  await db('knex_migrations').where('name', '>', '003_z').delete();
  for (const { down } of SINCE_THEN.toReversed()) await down(db);
  await db.destroy();
  let cut = 0;
  for (let i = 0; i < 12; i++) {
    const path = join(folder, `update-${i}.sqlite`);
    copyFileSync(old, path);
    const killed = start(path);
    await new Promise<void>((heard) => killed.child.stdout.once('data', () => heard()));
    await pause(Math.random() * 250);
    killed.child.kill('SIGKILL');
    if (!/is ready/.test((await killed.ended).said)) cut++;
    await stop(await has(path, names, 'A killed update'));
    must(await checkLibrary(path, () => undefined), 'A library is not whole after a killed update');
  }
  accepted += names.length;
  return `12 killed, ${cut} of them before it was ready`;
}

async function deletedLogs(): Promise<string> {
  let kept = 0;
  for (const [i, ends] of [
    ['-wal'],
    ['-shm'],
    ['-wal', '-shm'],
    ['-wal'],
    ['-wal', '-shm'],
    ['-wal'],
  ].entries()) {
    const path = join(folder, `log-${i}.sqlite`);
    const server = start(path);
    const base = await server.ready;
    const names: string[] = [];
    const told = new Set<string>();
    const gone = pause(Math.random() * 300).then(() => {
      for (const end of ends) unlinkSync(path + end);
    });
    await Promise.all(
      Array.from({ length: 4 }, async (_, lane) => {
        for (let nth = 0; nth < 60; nth++) {
          const { status, body } = await post(base, `${lane}/${nth}`, 200);
          if (status === 201) names.push(body.name);
          else told.add(body.error!.message);
        }
      }),
    );
    await gone;
    const after = await post(base, 'After');
    must(after.status === 503, `After ${ends.join()} was deleted a chart is answered with ${after.status}`);
    must(
      /stop Crow Ladder and start it again/.test(after.body.error?.message ?? ''),
      'It is not said what to do about a log',
    );
    // What it says to do: one half of them by a stop, the other by a kill.
    if (i % 2) await stop(server);
    else {
      server.child.kill('SIGKILL');
      await server.ended;
    }
    await stop(await has(path, names, `Deleted ${ends.join()}`));
    must(await checkLibrary(path, () => undefined), 'A library is not whole after its log was deleted');
    kept += names.length;
  }
  accepted += kept;
  return `6 deleted, ${kept} charts accepted`;
}

async function clocks(): Promise<string> {
  const path = join(folder, 'clock.sqlite');
  /** A start whose clock is so many days ahead. */
  const at = (days: number) =>
    start(path, {
      NODE_OPTIONS: `--import "data:text/javascript,const now=Date.now;Date.now=()=>now()+${days * 86_400_000}"`,
    });
  const binned = async (base: string) => (await ask<Binned[]>(base, 'GET', '/bin')).body.length;
  const first = at(0);
  const base = await first.ready;
  const made: Chart[] = [];
  for (let i = 0; i < 5; i++) made.push((await post(base, `Binned ${i}`)).body);
  for (const { id } of made) await ask(base, 'DELETE', `/charts/${id}`, undefined, { 'if-match': '"1"' });
  await stop(first);
  for (const days of [40, 0, 4000, 0, -400, 0, 29]) {
    const server = at(days);
    const now = await binned(await server.ready);
    must(now === 5, `A clock ${days} days ahead left ${now} of 5 things in the bin`);
    server.child.kill('SIGTERM');
    const { said } = await server.ended;
    if (days >= 40)
      must(/they stay until the next start/.test(said), 'It is not said that things stay in the bin');
  }
  for (const [days, left] of [
    [31, 5],
    [31.5, 0],
  ] as const) {
    const server = at(days);
    const now = await binned(await server.ready);
    must(now === left, `After ${days} days ${now} things are in the bin, not ${left}`);
    await stop(server);
  }
  return '7 jumps, none of which emptied the bin';
}

const began = Date.now();
for (const [name, hole] of Object.entries({ fullDisk, locks, killedUpdates, deletedLogs, clocks }))
  console.log(
    `${name}: ${await hole().catch((error: unknown) => (wrong.push(`${name}: ${String(error)}`), 'failed'))}.`,
  );
await endAll();
rmSync(folder, { recursive: true, force: true });
for (const line of wrong) console.log(`Wrong: ${line}.`);
console.log(
  `${Math.round((Date.now() - began) / 1000)} s: ${accepted} charts accepted, ${wrong.length} things wrong.`,
);
process.exit(wrong.length ? 1 : 0);
