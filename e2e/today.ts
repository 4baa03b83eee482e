import { dayAfter } from '@crow-ladder/contract';
import { median } from '@crow-ladder/core';
import Database from 'better-sqlite3';
import { type Browser, chromium, type Page } from '@playwright/test';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium as executablePath } from './playwright.config.ts';
import { application } from './serve.ts';

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

/** Notes when what is waited for stands, in ms from the beginning of the page or its last click, and the longest task until then. */
const watching = (text: string): string => `
  window.stood = null;
  window.longest = 0;
  window.since = 0;
  new PerformanceObserver((list) => {
    for (const it of list.getEntries()) if (it.startTime >= window.since && window.stood === null) window.longest = Math.max(window.longest, it.duration);
  }).observe({ type: 'longtask', buffered: true });
  const look = () => {
    if (window.stood === null && document.querySelector('main')?.textContent.includes(${JSON.stringify(text)}))
      requestAnimationFrame(() => setTimeout(() => (window.stood ??= performance.now() - window.since)));
  };
  new MutationObserver(look).observe(document, { childList: true, subtree: true, characterData: true });
`;

interface Stood {
  readonly ms: number;
  readonly longest: number;
}

async function opened(browser: Browser, base: string): Promise<ReadonlyMap<string, Stood>> {
  const all = new Map<string, Stood>();
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const read = async (what: string, page: Page): Promise<void> => {
    await page.waitForFunction(() => (window as unknown as { stood: number | null }).stood !== null, null, {
      polling: 200,
    });
    all.set(what, (await page.evaluate('({ ms: window.stood, longest: window.longest })')) as Stood);
  };
  for (const [what, path, text] of [
    ['settings, never there before', '/settings', 'Settings'],
    ['Today, there before', '/today', 'to recall'],
  ] as const) {
    const page = await context.newPage();
    await page.addInitScript(watching(text));
    await page.goto(base + path);
    await read(what, page);
    await page.close();
  }
  await context.close();
  const cold = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await cold.newPage();
  await page.addInitScript(watching('to recall'));
  await page.goto(`${base}/today`);
  await read('Today, never there before', page);
  await page.getByRole('link', { name: 'Charts' }).first().click();
  await page.getByRole('heading', { name: 'Charts' }).waitFor();
  await page.waitForTimeout(1000);
  await page.evaluate('window.since = performance.now(); window.longest = 0; window.stood = null;');
  await page.getByRole('link', { name: 'Today' }).first().click();
  await read('Today, by its link', page);
  await cold.close();
  return all;
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
    for (const [what, it] of await opened(browser, base)) taken.set(what, [...(taken.get(what) ?? []), it]);
  console.log(`Today with ${CARDS} cards and ${ROUNDS} rounds; medians of ${TIMES}`);
  for (const [what, of] of taken)
    console.log(
      `    ${what.padEnd(30)} ${median(of.map((it) => it.ms))
        .toFixed(0)
        .padStart(5)} ms, longest task ${median(of.map((it) => it.longest))
        .toFixed(0)
        .padStart(4)} ms`,
    );
} finally {
  await browser.close();
  await end();
  rmSync(folder, { recursive: true, force: true });
}
