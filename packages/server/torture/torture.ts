import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Backup, type Chart, type ChartPage, FIRST_STATE, type Restore } from '@crow-ladder/contract';
import { endAll, running } from '../../../scripts/running.ts';
import { checkLibrary } from '../src/check.ts';
import { connect } from '../src/database.ts';

// Kills the server in the middle of writes and of restores, again and again, and looks whether anything that it accepted is gone,
// or anything stands half-done. TORTURE is how often it is killed.
const KILLS = Number(process.env['TORTURE'] ?? 300);
const LANES = 4;
const folder = mkdtempSync(join(tmpdir(), 'crow-ladder-torture-'));
const path = join(folder, 'library.sqlite');

let base = '';
const pause = (ms: number): Promise<void> => new Promise((later) => setTimeout(later, ms));
async function start(): Promise<void> {
  base = `${await running({ CROW_LADDER_DB: path }).ready}/api`;
}

/** The answer to a request; null where none came. */
async function ask<T>(method: string, to: string, body?: unknown, headers = {}): Promise<T | null> {
  try {
    const res = await fetch(base + to, {
      method,
      headers: { 'content-type': 'application/json', ...headers },
      ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
    });
    const answer = (await res.json()) as T;
    if (!res.ok) throw new Error(`${method} ${to} was refused: ${JSON.stringify(answer)}`);
    return answer;
  } catch (error) {
    if ((error as Error).message.includes('was refused')) throw error;
    return null;
  }
}

/** Names and revisions of the charts that stand there. */
async function standing(): Promise<Map<string, { name: string; revision: number }>> {
  const all = new Map<string, { name: string; revision: number }>();
  for (let found = 1; all.size < found;) {
    const page = (await ask<ChartPage>('GET', `/charts?from=${all.size}`))!;
    for (const { id, name, revision } of page.charts) all.set(id, { name, revision });
    ({ found } = page);
    if (page.unreadable.length) wrong.push(`${page.unreadable.length} charts cannot be read`);
  }
  return all;
}

const wrong: string[] = [];
const counts = { written: 0, restored: 0, cutWrites: 0, cutRestores: 0, doneThoughCut: 0 };
/** What was accepted, by id. */
let accepted = new Map<string, { name: string; revision: number }>();
/** What was sent and not answered: it stands there or it does not. */
const open = new Map<string, { name: string; revision: number } | null>();
const openNames = new Set<string>();
let nth = 0;

/** Makes, changes and deletes charts until no answer comes. */
async function pour(): Promise<void> {
  const own: string[] = [];
  for (;;) {
    const name = `Chart ${++nth}`;
    const draft = { name, tags: ['deck'], notes: 'x'.repeat(nth % 500), state: FIRST_STATE };
    const id = own.length > 3 ? own[nth % own.length]! : null;
    if (id && nth % 5 === 0) {
      const { revision } = accepted.get(id)!;
      open.set(id, null);
      if (!(await ask('DELETE', `/charts/${id}`, undefined, { 'if-match': `"${revision}"` }))) return;
      accepted.delete(id);
      own.splice(own.indexOf(id), 1);
      open.delete(id);
    } else if (id) {
      const { revision } = accepted.get(id)!;
      open.set(id, { name, revision: revision + 1 });
      if (!(await ask('PUT', `/charts/${id}`, { ...draft, revision }))) return;
      accepted.set(id, { name, revision: revision + 1 });
      open.delete(id);
    } else {
      openNames.add(name);
      const made = await ask<Chart>('POST', '/charts', draft);
      if (!made) return;
      openNames.delete(name);
      accepted.set(made.id, { name, revision: 1 });
      own.push(made.id);
    }
    counts.written++;
  }
}

/** Looks whether all that was accepted stands there, and nothing that was never sent. */
async function compare(): Promise<void> {
  const is = await standing();
  for (const [id, was] of accepted) {
    const now = is.get(id);
    const may = open.get(id);
    const same = now?.name === was.name && now.revision === was.revision;
    const asSent = open.has(id) && now?.name === may?.name && now?.revision === may?.revision;
    if (!same && !asSent) wrong.push(`${id} was ${JSON.stringify(was)}, is ${JSON.stringify(now)}`);
  }
  for (const [id, { name }] of is)
    if (!accepted.has(id) && !openNames.has(name)) wrong.push(`${id}, “${name}”, was never accepted`);
  counts.cutWrites += open.size + openNames.size;
  open.clear();
  openNames.clear();
  accepted = is;
}

/** The last restore that was begun: what it would leave, and whether it was said to be done. */
/** Told as a restore is about to be put in place. */
let replacing: () => void = () => undefined;
let restoring: { id: string; leaves: readonly string[]; told: boolean } | null = null;
async function bring(): Promise<void> {
  for (;;) {
    const backup = await ask<Backup>('GET', '/backup');
    if (!backup) return;
    const charts = Array.from({ length: 200 }, (_, i) => ({
      ...backup.charts[i % backup.charts.length]!,
      id: `r${++nth}`,
      name: `Restored ${nth}`,
    }));
    const id = `restore-${nth}`;
    restoring = { id, leaves: charts.map((c) => c.id), told: false };
    if (!(await ask('PUT', `/restores/${id}`, { ...backup, charts }))) return;
    replacing();
    if (!(await ask<Restore>('POST', `/restores/${id}/replace`))) return;
    restoring.told = true;
    counts.restored++;
    accepted = new Map(charts.map((c) => [c.id, { name: c.name, revision: 1 }]));
  }
}
/** A restore that was cut off was done whole or not at all, and the server knows which. */
async function compareRestored(): Promise<void> {
  const is = await standing();
  const { id, leaves, told } = restoring!;
  const done = (await ask<Restore>('GET', `/restores/${id}`).catch(() => null))?.is === 'done';
  const expected = done ? leaves : [...accepted.keys()];
  if (told && !done) wrong.push(`${id} was said to be done and is not`);
  if (!told) counts.cutRestores++;
  if (!told && done) counts.doneThoughCut++;
  if ([...is.keys()].sort().join() !== [...expected].sort().join())
    wrong.push(
      `${id} (${done ? 'done' : 'not done'}) left ${is.size} charts, not the ${expected.length} expected`,
    );
  restoring = null;
  accepted = is;
}

const began = Date.now();
await start();
accepted = await standing();
for (let kills = 1; kills <= KILLS; kills++) {
  const restores = kills % 3 === 0;
  // Of the restores every other one is cut off as it is put in place.
  const begun = new Promise<void>((told) => (replacing = told));
  const work = restores ? [bring()] : Array.from({ length: LANES }, pour);
  if (restores && kills % 2) await begun.then(() => pause(Math.random() * 60));
  else await pause((restores ? 150 : 40) + Math.random() * (restores ? 1200 : 500));
  await endAll();
  await Promise.all(work);
  await start();
  if (restores && restoring) await compareRestored();
  else await compare();
  if (kills % 25 === 0)
    console.log(
      `${kills} kills, ${counts.written} writes and ${counts.restored} restores accepted, ${wrong.length} wrong`,
    );
  if (wrong.length > 10) break;
}
await endAll();
const whole = await checkLibrary(path);
const db = connect(path);
await db.raw(`INSERT INTO chart_words (chart_words) VALUES ('integrity-check')`);
await db.destroy();
rmSync(folder, { recursive: true, force: true });
for (const line of wrong) console.log(line);
console.log(
  `${KILLS} kills in ${Math.round((Date.now() - began) / 1000)} s: ${counts.written} writes accepted (${counts.cutWrites} cut off), ${counts.restored} restores accepted (${counts.cutRestores} cut off, of which ${counts.doneThoughCut} were done). ${wrong.length} things lost or half-done. Integrity: ${whole ? 'clean' : 'NOT clean'}.`,
);
process.exit(wrong.length || !whole ? 1 : 0);
