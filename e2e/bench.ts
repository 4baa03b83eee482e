import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { chromium, type Page } from '@playwright/test';
import { chromium as executablePath } from './playwright.config.ts';
import { choose } from './player.ts';
import { application, root } from './serve.ts';
import { traced } from './trace.ts';

// How long the page's scripts run for one change of the chart, read from the browser's own trace, beside a bare page that
// replaces as many SVG circles; then what a first visit loads. Where other work takes the processor from the page, the time
// by the clock grows and the time on the processor does not.

const CHANGES = Number(process.env.BENCH_CHANGES ?? 200);
/** By then everything that follows a change has been done: the last is the address, 120 ms after the rest of the page. */
const SETTLED_MS = 260;
/** Kinds of work that are script; the outermost of nested ones counts. */
const SCRIPT = new Set([
  'EventDispatch',
  'FunctionCall',
  'EvaluateScript',
  'RunMicrotasks',
  'FireAnimationFrame',
  'TimerFire',
]);

/** Script time in ms: by the clock, and on the processor. */
interface Script {
  readonly clock: number;
  readonly processor: number;
}
/** Of one change: up to the first drawing that shows it on the neck, and with all that follows later. */
interface Taken {
  readonly neck: Script;
  readonly all: Script;
}

const settle = (page: Page): Promise<void> => page.waitForTimeout(SETTLED_MS);

/** Runs changes one by one under trace. `prepare` comes before the clock starts. */
async function changed(
  page: Page,
  change: (i: number) => Promise<void>,
  prepare?: (i: number) => Promise<void>,
): Promise<Taken[]> {
  await page.evaluate(() => {
    // Runs as soon as the marks have been changed in the document.
    new MutationObserver(() => console.timeStamp('neck')).observe(
      document.querySelector('svg[role="grid"], svg[role="application"], #s')!,
      {
        subtree: true,
        childList: true,
        characterData: true,
        attributeFilter: ['transform', 'class', 'd'],
      },
    );
  });
  const events = await traced(page, async () => {
    for (let i = 0; i < CHANGES; i++) {
      if (prepare) {
        await prepare(i);
        await settle(page);
      }
      await page.evaluate(() => console.timeStamp('change'));
      await change(i);
      await settle(page);
      await page.evaluate(() => console.timeStamp('settled'));
    }
  });
  const stamps = events.filter((e) => e.name === 'TimeStamp').sort((a, b) => a.ts - b.ts);
  const named = (name: string, from: number): number =>
    stamps.find((e) => e.ts > from && e.args?.data?.message === name)?.ts ?? Infinity;
  const drawings = events.filter((e) => e.name === 'Paint').sort((a, b) => a.ts - b.ts);
  const main = stamps[0]?.tid;
  const work = events
    .filter((e) => e.tid === main && e.ph === 'X' && SCRIPT.has(e.name))
    .sort((a, b) => a.ts - b.ts);
  const script = (from: number, to: number): Script => {
    let end = 0;
    let clock = 0;
    let processor = 0;
    for (const { ts, dur = 0, tdur = dur } of work) {
      if (ts < from || ts >= to || ts < end) continue;
      end = ts + dur;
      const within = dur && Math.min(1, (to - ts) / dur);
      clock += dur * within;
      processor += tdur * within;
    }
    return { clock: clock / 1000, processor: processor / 1000 };
  };
  return stamps
    .filter((e) => e.args?.data?.message === 'change')
    .map(({ ts }) => {
      const settled = named('settled', ts);
      const marked = named('neck', ts);
      const shown = drawings.find((e) => e.ts > marked)?.ts ?? settled;
      return { neck: script(ts, Math.min(shown, settled)), all: script(ts, settled) };
    });
}

/** Median and 95th percentile, in a table's columns. */
function spread(
  taken: readonly Taken[],
  part: keyof Taken,
  kind: keyof Script,
  of: (ms: number) => number = (ms) => ms,
): string {
  const sorted = taken.map((t) => t[part][kind]).sort((a, b) => a - b);
  return [0.5, 0.95]
    .map((share) =>
      of(sorted[Math.floor(share * (sorted.length - 1))]!)
        .toFixed(2)
        .padStart(6),
    )
    .join(' ');
}

const SCALES = ['dorian', 'minor blues', 'major', 'harmonic minor'];
const LAYOUTS = [/^single string/, /^in position/, /^notes per string/, /^string skip/];
const CASES = [
  {
    name: '6 strings, 24 frets',
    strings: 'E2.A2.D3.G3.B3.E4',
    neck: '24.648.0.3.right',
    at: '6.5',
    tunings: ['D2 A2 D3 G3 B3 E4', 'E2 A2 D3 G3 C4 F4', 'D2 G2 D3 G3 B3 D4', 'E2 A2 D3 G3 B3 E4'],
  },
  {
    name: '12 strings, 36 frets',
    strings: 'G#0.C#1.F#1.B1.E2.A2.D3.G3.B3.E4.A4.D5',
    neck: '36.800.0.6.right',
    at: '12.5',
    tunings: [
      'F#0 C#1 F#1 B1 E2 A2 D3 G3 B3 E4 A4 D5',
      'G#0 C#1 F#1 B1 E2 A2 D3 G3 C4 F4 A#4 D#5',
      'G0 C1 F1 A#1 D#2 G#2 C#3 F#3 A#3 D#4 G#4 C#5',
      'G#0 C#1 F#1 B1 E2 A2 D3 G3 B3 E4 A4 D5',
    ],
  },
];

const ROUNDS = 15;
/** Median ms by the clock from asking for all twelve keys to their drawing. */
async function allKeys(page: Page): Promise<number> {
  const taken: number[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    await choose(page, 'What to move', 'Key');
    await settle(page);
    await page.getByRole('button', { name: /^What to move/ }).click();
    const button = await page.getByRole('button', { name: 'All keys' }).elementHandle();
    taken.push(
      await button!.evaluate(
        (b) =>
          new Promise<number>((done) => {
            const start = performance.now();
            (b as HTMLElement).click();
            new MutationObserver((_, observer) => {
              if (document.querySelectorAll('[aria-label="The twelve keys"] li').length < 12) return;
              observer.disconnect();
              // Once the frame in which the marks were made has been drawn.
              requestAnimationFrame(() => setTimeout(() => done(performance.now() - start)));
            }).observe(document.body, { subtree: true, childList: true });
          }),
      ),
    );
  }
  return taken.sort((a, b) => a - b)[ROUNDS >> 1]!;
}

/** The search for a tuning among those of any number of strings: ms until it is answered, and long tasks of the page meanwhile. */
async function searched(page: Page): Promise<{ readonly ms: number; readonly long: number }> {
  await page.evaluate(() => {
    const seen = window as unknown as { long: number };
    seen.long = 0;
    new PerformanceObserver((list) => (seen.long += list.getEntries().length)).observe({ type: 'longtask' });
  });
  const start = performance.now();
  await choose(page, 'What to move', 'Find a tuning');
  await page.getByRole('switch', { name: 'Any number of strings' }).click();
  await page.getByText(/^\d+ tunings tried\.$/).waitFor();
  const ms = performance.now() - start;
  return { ms, long: await page.evaluate(() => (window as unknown as { long: number }).long) };
}

const { base, end } = await application();
const browser = await chromium.launch({ executablePath, args: ['--no-sandbox'] });
for (const { name, strings, neck, at: spot, tunings } of CASES) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(
    `${base}/new?root=A&scale=major&at=${spot}&layout=count.3&strings=${encodeURIComponent(strings)}&neck=${neck}`,
  );
  await page.locator('svg.neck .mark').first().waitFor({ state: 'attached' });
  const marks = await page.locator('svg.neck').first().locator('.mark').count();
  const results = new Map<string, Taken[]>();
  results.set('root', await changed(page, () => page.keyboard.press('+')));
  await page.keyboard.press('y');
  const layouts = await Promise.all(
    LAYOUTS.map((l) => page.getByRole('dialog').getByRole('button', { name: l }).elementHandle()),
  );
  results.set(
    'layout',
    await changed(page, (i) => layouts[i % layouts.length]!.evaluate((b) => (b as HTMLElement).click())),
  );
  await page.keyboard.press('Escape');
  results.set(
    'scale',
    await changed(
      page,
      () => page.keyboard.press('Enter'),
      async (i) => {
        await page.keyboard.press('s');
        await page.getByRole('combobox', { name: 'Scales' }).fill(SCALES[i % SCALES.length]!);
      },
    ),
  );
  await page.keyboard.press('i');
  const field = page.getByRole('dialog').getByRole('textbox', { name: 'Strings, lowest first' });
  results.set(
    'tuning',
    await changed(
      page,
      () => page.keyboard.press('Enter'),
      (i) => field.fill(tunings[i % tunings.length]!),
    ),
  );
  await page.keyboard.press('Escape');
  await page.getByRole('navigation', { name: 'Tasks' }).getByRole('link', { name: 'Move' }).click();
  await page.getByRole('button', { name: /^Steps/ }).click();
  const up = await page.getByRole('button', { name: 'Half step up' }).elementHandle();
  results.set('move', await changed(page, () => up!.evaluate((b) => (b as HTMLElement).click())));
  await page.keyboard.press('Escape');
  const keys = await allKeys(page);
  const search = await searched(page);
  await page.close();
  const bare = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await bare.setContent('<svg id="s" viewBox="0 0 1240 400" width="1240" height="400"></svg>');
  await bare.evaluate((n) => {
    const svg = document.getElementById('s')!;
    let round = 0;
    document.addEventListener('keydown', () => {
      round++;
      svg.replaceChildren(
        ...Array.from({ length: n }, (_, k) => {
          const circle = document.createElementNS('http://www.w3.org/2000/svg', 'circle');
          circle.setAttribute('cx', String((k * 37 + round * 11) % 1240));
          circle.setAttribute('cy', String((k * 17) % 400));
          circle.setAttribute('r', '10');
          return circle;
        }),
      );
    });
  }, marks);
  const plain = await changed(bare, () => bare.keyboard.press('+'));
  await bare.close();
  console.log(
    `${name}: ${marks} marks, ${CHANGES} changes of each kind; script in ms, median and 95th percentile`,
  );
  console.log(`  all twelve keys shown after ${keys.toFixed(0)} ms by the clock`);
  console.log(
    `  tunings of any number of strings searched in ${search.ms.toFixed(0)} ms; tasks of the page over 50 ms meanwhile: ${search.long}`,
  );
  for (const kind of ['clock', 'processor'] as const) {
    console.log(`  by the ${kind}: a bare page replacing as many circles ${spread(plain, 'neck', kind)}`);
    console.log(`    ${'allowed'.padEnd(8)} neck ${spread(plain, 'neck', kind, (ms) => 2 * ms + 4)}`);
    for (const [what, taken] of results)
      console.log(
        `    ${what.padEnd(8)} neck ${spread(taken, 'neck', kind)}   with all that explains it ${spread(taken, 'all', kind)}`,
      );
  }
}
await browser.close();
await end();

const assets = join(root, 'packages/web/dist/assets');
const html = readFileSync(join(root, 'packages/web/dist/index.html'), 'utf8');
const size = (name: string): string => {
  const data = readFileSync(join(assets, name));
  return `${name.replace(/-[\w-]{8}\./, '.').padEnd(56)} ${(data.length / 1000).toFixed(1).padStart(7)} kB, gzip ${(gzipSync(data).length / 1000).toFixed(1)} kB, brotli ${(brotliCompressSync(data).length / 1000).toFixed(1)} kB`;
};
console.log('first load:');
for (const name of readdirSync(assets))
  if (html.includes(name) || name.endsWith('.woff2')) console.log(`  ${size(name)}`);
console.log('loaded when its page is opened:');
for (const name of readdirSync(assets))
  if (!html.includes(name) && !name.endsWith('.woff2')) console.log(`  ${size(name)}`);
