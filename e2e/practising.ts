import { median } from '@crow-ladder/core';
import { type Browser, chromium, type Locator, type Page } from '@playwright/test';
import { chromium as executablePath } from './playwright.config.ts';
import { quietly, takenAway } from './quiet.ts';
import { application } from './serve.ts';
import { traced } from './trace.ts';

// What the page works when a player opens Practice, plays and stops, and takes another drill or scale, on a processor that is slowed
// four times, from the browser's own trace; beside a bare page that draws as many glyphs of text.

const SLOWED = 4;
const ROUNDS = Number(process.env.BENCH_ROUNDS ?? 5);
/** By then everything that follows has been done, drawn too, in ms. */
const SETTLED_MS = 2000;

/** Work of the main thread, in ms: all of it, and the longest piece. */
interface Work {
  readonly all: number;
  readonly longest: number;
}

/** Does something, and gives what the page worked for it. */
async function worked(page: Page, act: () => Promise<void>): Promise<Work> {
  const events = await traced(page, async () => {
    await page.evaluate(() => console.timeStamp('begin'));
    await act();
    // Nothing is asked of the page meanwhile: that would be work as well.
    await page.waitForTimeout(SETTLED_MS);
    await page.evaluate(() => console.timeStamp('end'));
  });
  const stamps = events.filter((e) => e.name === 'TimeStamp').sort((a, b) => a.ts - b.ts);
  const [first, last] = [stamps[0]!, stamps.at(-1)!];
  const tasks = events
    .filter((e) => e.tid === first.tid && e.pid === first.pid && e.ph === 'X' && e.name === 'RunTask')
    .filter((e) => e.ts >= first.ts && e.ts < last.ts)
    .map((e) => (e.tdur ?? e.dur ?? 0) / 1000);
  return { all: tasks.reduce((sum, ms) => sum + ms, 0), longest: Math.max(0, ...tasks) };
}

/** Beside the work of the bare page too: a machine is not as fast at every moment. */
function told(what: string, of: readonly Work[], bare: readonly Work[]): void {
  const all = median(of.map((w) => w.all));
  const longest = median(of.map((w) => w.longest)).toFixed(0);
  const times = (all / median(bare.map((w) => w.all))).toFixed(1);
  console.log(
    `    ${what.padEnd(34)} ${all.toFixed(0).padStart(5)} ms, longest piece ${longest.padStart(4)} ms; ${times} times the bare page`,
  );
}

/** A press in the middle of what is named; finding it, and coming to it, is not counted. */
async function pressing(it: Locator): Promise<(page: Page) => Promise<void>> {
  const { x, y, width, height } = (await it.boundingBox())!;
  await it.page().mouse.move(x + width / 2, y + height / 2);
  await it.page().waitForTimeout(SETTLED_MS);
  return async (page) => {
    await page.mouse.down();
    await page.mouse.up();
  };
}

const CASES = [
  { name: '6 strings', query: 'root=A&scale=dorian&at=6.5&layout=count.3' },
  {
    name: '12 strings, 36 frets',
    query: `root=A&scale=dorian&at=12.5&layout=count.3&strings=${encodeURIComponent('G#0.C#1.F#1.B1.E2.A2.D3.G3.B3.E4.A4.D5')}&neck=36.800.0.6.right`,
  },
];

/** Text drawn in one go: what a browser needs for that at least. */
const PLAIN = '<svg width="1280" height="800"></svg>';
async function plain(page: Page, many: number): Promise<Work> {
  await page.setContent(PLAIN);
  return worked(page, async () => {
    await page.evaluate((n) => {
      const svg = document.querySelector('svg')!;
      for (let i = 0; i < n; i++) {
        const text = document.createElementNS('http://www.w3.org/2000/svg', 'text');
        text.setAttribute('x', String((i * 37) % 1240));
        text.setAttribute('y', String((i * 17) % 800));
        text.textContent = String(i % 24);
        svg.append(text);
      }
    }, many);
  });
}

/** What a page worked for each thing that was done on it, beside a bare page. */
interface Round {
  readonly works: readonly (readonly [what: string, work: Work])[];
  /** What part of the processors was taken away meanwhile. */
  readonly stolen: number;
}
const BARE = 'a bare page drawing 400 texts';
async function round(browser: Browser, base: string, query: string): Promise<Round> {
  const taken = takenAway();
  const slowed = async (page: Page): Promise<void> => {
    const cdp = await page.context().newCDPSession(page);
    await cdp.send('Emulation.setCPUThrottlingRate', { rate: SLOWED });
  };
  const viewport = { width: 1280, height: 800 };
  const bare = await browser.newPage({ viewport });
  await slowed(bare);
  const works: (readonly [string, Work])[] = [[BARE, await plain(bare, 400)]];
  // A processor that is slowed works beside what is measured then.
  await bare.close();
  const page = await browser.newPage({ viewport });
  await page.goto(`${base}/new?${query}`);
  await page.locator('svg.neck .mark').first().waitFor({ state: 'attached' });
  await page.waitForTimeout(SETTLED_MS);
  await slowed(page);
  const tasks = page.getByRole('navigation', { name: 'Tasks' });
  const open = tasks.getByRole('link', { name: 'Practice' });
  const press = async (what: string, it: Locator): Promise<void> => {
    const act = await pressing(it);
    works.push([what, await worked(page, () => act(page))]);
  };
  await press('opening it the first time', open);
  await tasks.getByRole('link', { name: 'Shape' }).click();
  await press('opening it again', open);
  const play = page.getByRole('button', { name: 'Play', exact: true });
  const stop = page.getByRole('button', { name: 'Stop', exact: true });
  // The first time all sounds are made, in a worker.
  await play.click();
  await page.waitForTimeout(3000);
  await stop.click();
  await page.waitForTimeout(SETTLED_MS);
  await press('play', play);
  await press('stop', stop);
  await page.getByRole('button', { name: /^Drill: / }).click();
  const another = page.getByRole('dialog', { name: 'Drill' }).getByRole('button', { name: 'root to root' });
  await another.waitFor();
  await page.waitForTimeout(SETTLED_MS);
  await press('another drill', another);
  await page.keyboard.press('Escape');
  await page.keyboard.press('s');
  await page.getByRole('combobox', { name: 'Scales' }).fill('major');
  await page.waitForTimeout(SETTLED_MS);
  works.push(['another scale', await worked(page, () => page.keyboard.press('Enter'))]);
  await page.close();
  return { works, stolen: taken() };
}

const { base, end } = await application();
const browser = await chromium.launch({ executablePath, args: ['--no-sandbox'] });
console.log(`Practice on a processor slowed ${SLOWED} times; work of the page, medians of ${ROUNDS}`);
try {
  for (const { name, query } of CASES.filter((it) => it.name.includes(process.env.BENCH_CASE ?? ''))) {
    const taken = new Map<string, Work[]>();
    for (let n = 0; n < ROUNDS; n++)
      for (const [what, work] of (await quietly(() => round(browser, base, query), 4)).works)
        taken.set(what, [...(taken.get(what) ?? []), work]);
    console.log(`  ${name}`);
    for (const [what, of] of taken) told(what, of, taken.get(BARE)!);
  }
} finally {
  await browser.close();
  await end();
}
