import { chromium } from '@playwright/test';
import { chromium as executablePath } from './playwright.config.ts';
import { application } from './serve.ts';
// usage: tsx e2e/zz-shot.ts WIDTHxHEIGHT out path [js-actions file]
const [size, out, path, act] = process.argv.slice(2);
const [width, height] = size!.split('x').map(Number);
const { base, end } = await application();
const browser = await chromium.launch({
  executablePath,
  args: ['--no-sandbox', '--autoplay-policy=no-user-gesture-required'],
});
try {
  const page = await browser.newPage({
    viewport: { width: width!, height: height! },
    colorScheme: process.env.DARK ? 'dark' : 'light', forcedColors: process.env.FORCED ? 'active' : 'none',
  });
  page.on('pageerror', (e) => console.log('ERROR', e.message));
  page.on('console', (m) => m.type() === 'error' && console.log('CONSOLE', m.text()));
  await page.goto(base + path);
  await page.waitForTimeout(1500);
  const hint = page.getByRole('button', { name: 'Close the hints' });
  if ((await hint.count()) && !process.env.HINTS)
    await hint.click({ timeout: 3000 }).catch((e) => console.log('hint', e.message.slice(0, 100)));
  if (act)
    await (new Function('page', `return (async () => { ${act} })()`) as (p: unknown) => Promise<void>)(page);
  await page.waitForTimeout(500);
  await page.screenshot({ path: out! });
  const seen = await page.evaluate(`(() => {
    const it = [...document.querySelectorAll('button, input, select, textarea, summary, [role=slider]')].filter((e) => {
      const r = e.getBoundingClientRect(); const s = getComputedStyle(e);
      return r.width > 1 && r.height > 1 && r.top < innerHeight && r.bottom > 0 && s.visibility !== 'hidden' && !e.closest('[role=grid], [aria-label="Ladder of positions"], nav, .sr-only');
    }).map((e) => (e.getAttribute('aria-label') ?? e.textContent ?? '').trim().slice(0, 40));
    const y = (sel) => document.querySelector(sel)?.getBoundingClientRect();
    const n = y('[role=grid]'); const s = y('.task-sentence');
    return { n: it.length, it, neck: n && [n.y, n.height], sentence: s?.y, wide: document.documentElement.scrollWidth };
  })()`);
  console.log(JSON.stringify(seen));
} finally {
  await browser.close();
  await end();
}
