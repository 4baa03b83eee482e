import { dayAfter } from '@crow-ladder/contract';
import { median } from '@crow-ladder/core';
import Database from 'better-sqlite3';
import { type Browser, chromium, type Page } from '@playwright/test';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium as executablePath } from './playwright.config.ts';
import { quietly, takenAway } from './quiet.ts';
import { application } from './serve.ts';
import { traced, type TraceEvent } from './trace.ts';

// How soon Today stands, with so many cards and rounds, and the longest task of the page meanwhile: by its address in a browser that was
// never there, by its address again, and by its link from another page; beside the settings, which ask the server for next to nothing.
const CARDS = 10_000;
const ROUNDS = 50_000;
const TIMES = Number(process.env['BENCH_ROUNDS'] ?? 7);

type Row = Record<string, unknown>;

/** Makes the demo's cards and rounds so many, each with another id, name and day of the last two years. */
function fill(path: string): void {
  const db = new Database(path);
  const more = (table: 'cards' | 'practice', wanted: number, change: (row: Row, n: number) => Row): void => {
    const rows = db.prepare(`SELECT * FROM ${table}`).all() as Row[];
    for (const row of rows) delete row['number'];
    const columns = Object.keys(rows[0]!);
    const put = db.prepare(
      `INSERT INTO ${table} (${columns.join(', ')}) VALUES (${columns.map((c) => `@${c}`).join(', ')})`,
    );
    db.transaction(() => {
      for (let n = rows.length; n < wanted; n++)
        put.run({ ...change(rows[n % rows.length]!, n), id: `more-${n}` });
    })();
  };
  const today = new Date().toISOString().slice(0, 10);
  more('cards', CARDS, (row, n) => ({
    ...row,
    name: `${String(row['name'])}, ${n}`,
    due: row['due'] && dayAfter(today, 50 - (n % 60)),
  }));
  more('practice', ROUNDS, (row, n) => {
    const day = dayAfter(today, -(n % 730));
    return { ...row, day, at: `${day}T19:${String(n % 60).padStart(2, '0')}:00.000Z` };
  });
  db.close();
}

/** Notes when what is waited for stands, in ms from the beginning of the page or its last click, and marks it in the browser's trace. */
const watching = (text: string): string => `
  window.stood = null;
  window.since = 0;
  const look = () => {
    if (window.stood === null && document.querySelector('main')?.textContent.includes(${JSON.stringify(text)}))
      requestAnimationFrame(() => setTimeout(() => {
        if (window.stood !== null) return;
        window.stood = performance.now() - window.since;
        console.timeStamp('stood');
      }));
  };
  new MutationObserver(look).observe(document, { childList: true, subtree: true, characterData: true });
`;

interface Stood {
  readonly ms: number;
  /** The longest task of the page until then, in ms: by the clock, and on the processor. */
  readonly longest: number;
  readonly processor: number;
}

/** Does something after which what is waited for stands. */
async function stands(page: Page, act: () => Promise<unknown>): Promise<Stood> {
  const events = await traced(page, async () => {
    await act();
    await page.waitForFunction(() => (window as unknown as { stood: number | null }).stood !== null, null, {
      polling: 200,
    });
  });
  const ms = (await page.evaluate('window.stood')) as number;
  const stood = events.filter((e) => e.name === 'TimeStamp' && e.args?.data?.message === 'stood').at(-1)!;
  const tasks = events.filter(
    ({ name, pid, tid, ts }) =>
      name === 'RunTask' &&
      pid === stood.pid &&
      tid === stood.tid &&
      ts < stood.ts &&
      ts >= stood.ts - 1000 * ms,
  );
  const longest = (of: (e: TraceEvent) => number): number => Math.max(...tasks.map(of)) / 1000;
  return {
    ms,
    longest: longest(({ dur = 0 }) => dur),
    processor: longest(({ dur = 0, tdur = dur }) => tdur),
  };
}

interface Opened {
  readonly all: ReadonlyMap<string, Stood>;
  /** What part of the processors was taken away meanwhile. */
  readonly stolen: number;
}

async function opened(browser: Browser, base: string): Promise<Opened> {
  const taken = takenAway();
  const all = new Map<string, Stood>();
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  for (const [what, path, text] of [
    ['settings, never there before', '/settings', 'Settings'],
    ['Today, there before', '/today', 'to recall'],
  ] as const) {
    const page = await context.newPage();
    await page.addInitScript(watching(text));
    all.set(what, await stands(page, () => page.goto(base + path)));
    await page.close();
  }
  await context.close();
  const cold = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await cold.newPage();
  await page.addInitScript(watching('to recall'));
  all.set('Today, never there before', await stands(page, () => page.goto(`${base}/today`)));
  await page.getByRole('link', { name: 'Charts' }).first().click();
  await page.getByRole('heading', { name: 'Charts' }).waitFor();
  await page.waitForTimeout(1000);
  const link = page.getByRole('link', { name: 'Today' }).first();
  all.set(
    'Today, by its link',
    await stands(page, async () => {
      await page.evaluate('window.stood = null; window.since = performance.now();');
      await link.click();
    }),
  );
  await cold.close();
  return { all, stolen: taken() };
}

const folder = mkdtempSync(join(tmpdir(), 'crow-ladder-today-'));
const path = join(folder, 'library.sqlite');
const { base, start, stop, end } = await application({ CROW_LADDER_DB: path });
await stop();
fill(path);
await start();
const browser = await chromium.launch({ executablePath, args: ['--no-sandbox'] });
try {
  const taken = new Map<string, Stood[]>();
  for (let n = 0; n < TIMES; n++)
    for (const [what, it] of (await quietly(() => opened(browser, base))).all)
      taken.set(what, [...(taken.get(what) ?? []), it]);
  console.log(`Today with ${CARDS} cards and ${ROUNDS} rounds; medians of ${TIMES}`);
  for (const [what, of] of taken) {
    const [ms, longest, processor] = (['ms', 'longest', 'processor'] as const).map((part) =>
      median(of.map((it) => it[part]))
        .toFixed(0)
        .padStart(5),
    );
    const most = Math.max(...of.map((it) => it.processor)).toFixed(0);
    console.log(
      `    ${what.padEnd(30)} ${ms} ms, longest task ${longest} ms by the clock, ${processor} on the processor (at most ${most})`,
    );
  }
} finally {
  await browser.close();
  await end();
  rmSync(folder, { recursive: true, force: true });
}
