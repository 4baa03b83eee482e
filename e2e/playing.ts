import { chromium, type Page } from '@playwright/test';
import { chromium as executablePath } from './playwright.config.ts';
import { application } from './serve.ts';
import { traced } from './trace.ts';

// What the page works while it plays sixteenths at 200 with neck, staff and tablature in sight, in each sixtieth of a second, from the
// browser's own trace; and how far what was handed to the audio clock is off over some minutes (PLAYING_MINUTES) of sixteenths at 300.

const SECONDS = 20;
const ALLOWED_MS = 32;
const MINUTES = Number(process.env.PLAYING_MINUTES ?? 0);

/** A frame, in µs. */
const FRAME = 1_000_000 / 60;
/** Work of the page's main thread in each frame's time, in ms on the processor. */
async function frames(page: Page, seconds: number): Promise<readonly number[]> {
  const events = await traced(page, async () => {
    await page.evaluate(() => console.timeStamp('begin'));
    await page.waitForTimeout(seconds * 1000);
  });
  const { tid, pid, ts: from } = events.find((e) => e.name === 'TimeStamp')!;
  const work = new Array<number>(seconds * 60).fill(0);
  let end = 0;
  for (const task of events
    .filter((e) => e.tid === tid && e.pid === pid && e.ph === 'X' && e.name === 'RunTask')
    .sort((a, b) => a.ts - b.ts)) {
    const { ts, dur = 0, tdur = dur } = task;
    if (ts < end) continue;
    end = ts + dur;
    const at = Math.floor((ts - from) / FRAME);
    if (at >= 0 && at < work.length) work[at]! += tdur / 1000;
  }
  return work;
}

const RECORD = `
  window.handed = [];
  const start = AudioBufferSourceNode.prototype.start;
  AudioBufferSourceNode.prototype.start = function (at, ...rest) {
    if (this.buffer.duration > 1) window.handed.push([at, this.context.currentTime]);
    return start.call(this, at, ...rest);
  };
`;

/** A bare page that moves a mark as often, and has as many sounds handed to its audio clock. */
const PLAIN = `<svg width="1280" height="800"><circle id="s" r="12"/></svg><script>
  onclick = () => {
    const ctx = new AudioContext();
    const buffer = ctx.createBuffer(1, ctx.sampleRate, ctx.sampleRate);
    let n = 0;
    setInterval(() => {
      const source = new AudioBufferSourceNode(ctx, { buffer });
      source.connect(ctx.destination);
      source.start(ctx.currentTime + 1);
      document.querySelector('#s').setAttribute('transform', 'translate(' + ((++n * 37) % 1240) + ' 300)');
    }, 75);
    const look = () => requestAnimationFrame(look);
    look();
  };
</script>`;
const told = (what: string, frames: readonly number[]): void => {
  const work = [...frames].sort((a, b) => a - b);
  const at = (share: number): string => work[Math.floor(share * (work.length - 1))]!.toFixed(1).padStart(6);
  const over = work.filter((ms) => ms > ALLOWED_MS).length;
  console.log(
    `${what.padEnd(34)} ${String(work.length).padStart(5)} frames; work in each in ms: median ${at(0.5)}, 95 of 100 ${at(0.95)}, 99 of 100 ${at(0.99)}, at most ${at(1)}; over ${ALLOWED_MS} ms: ${over}`,
  );
};

const { base: url, end } = await application();
const browser = await chromium.launch({ executablePath, args: ['--no-sandbox'] });
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript(RECORD);
  const of = (tempo: number): string =>
    `${url}/new/practice?root=A&scale=dorian&at=6.5&layout=count.3&drill=groups.3.twice&beat=4&touch=slurred&count=no&tempo=${tempo}`;
  await page.setContent(PLAIN);
  await page.mouse.click(600, 600);
  await page.waitForTimeout(2000);
  told('a bare page', await frames(page, SECONDS));
  for (const width of [1280, 420]) {
    await page.setViewportSize({ width, height: width === 420 ? 900 : 800 });
    await page.goto(of(200));
    await page.locator('.lamp.lit').waitFor();
    await page.getByRole('button', { name: 'Play', exact: true }).click();
    await page.waitForTimeout(3000);
    told(`playing sixteenths at 200, ${width} px`, await frames(page, SECONDS));
  }
  if (MINUTES) {
    await page.goto(of(300));
    await page.getByRole('button', { name: 'Play', exact: true }).click();
    await page.waitForTimeout(MINUTES * 60_000 + 3000);
    const handed = (await page.evaluate('window.handed')) as readonly (readonly [number, number])[];
    const [[first]] = handed as readonly [readonly [number, number]];
    const off = handed.map(([at], i) => Math.abs(at - (first + (i * 60) / 300 / 4)) * 1000);
    const late = handed.filter(([at, now]) => at < now).length;
    console.log(
      `${MINUTES} minutes of sixteenths at 300: ${handed.length} notes, ${Math.max(...off).toFixed(3)} ms off at most, ${late} handed over too late`,
    );
  }
} finally {
  await browser.close();
  await end();
}
