import { chromium } from '@playwright/test';
import { mkdtempSync } from 'node:fs';
import { join } from 'node:path';
import { chromium as executablePath } from './playwright.config.ts';
import { application } from './serve.ts';
import { openDatabase } from '../packages/server/src/database.ts';
const path = join(mkdtempSync('/tmp/big-'), 'library.sqlite');
const { db } = await openDatabase(path);
const cards = await db('cards').select('*'); const rounds = await db('practice').select('*');
const start = Date.parse('2024-11-28T12:00:00Z');
await db.transaction(async (t) => {
  for (let i = 0; i < 10000 - cards.length; i += 50) {
    await t('cards').insert(Array.from({ length: Math.min(50, 10000 - cards.length - i) }, (_, n) => { const { number, ...c } = cards[(i + n) % cards.length] as any; return { ...c, id: `x${i + n}`, card: JSON.stringify({...JSON.parse(c.card), root: ['C','D','E','F','G','A','B'][n%7]}), due: n % 3 ? new Date(Date.now() + ((i+n) % 60 - 2) * 86400000).toISOString().slice(0, 10) : c.due, remembered: c.remembered ?? null }; }).map(c => c.remembered ? c : { ...c, due: null }));
  }
  for (let i = 0; i < 50000; i += 40) {
    await t('practice').insert(Array.from({ length: 40 }, (_, n) => { const at = new Date(start + (i + n) * 1260000).toISOString(); return { ...rounds[(i + n) % rounds.length]!, id: `y${i + n}`, at, day: at.slice(0, 10), shape: 'shape ' + ((i+n) % 400) }; }));
  }
});
await db.destroy();
const { base, end } = await application({ CROW_LADDER_DB: path });
for (const p of ['/api/recall?day=2026-11-28', '/api/recall/next', '/api/recall/ahead?day=2026-11-28', '/api/log', '/api/log/sum', '/api/log/sum?from=2026-11-01', '/api/log/parts', '/api/practice/things', '/api/log.csv','/api/backup']) for (let k=0;k<2;k++) {
  const t = performance.now(); const b = await (await fetch(base + p)).text(); console.log(p, Math.round(performance.now() - t), 'ms', b.length);
}
const browser = await chromium.launch({ ...(executablePath ? { executablePath } : {}), args: ['--no-sandbox'] });
for (const to of ['/settings', '/settings', '/today', '/today', '/log', '/log?time=all', '/recall']) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.addInitScript(`window.long = []; new PerformanceObserver((l) => l.getEntries().forEach((e) => window.long.push([Math.round(e.startTime), Math.round(e.duration)]))).observe({ type: 'longtask', buffered: true })`);
  const t = performance.now();
  await page.goto(base + to);
  const what = to === '/today' ? page.getByRole('heading', { name: 'This week' }) : to === '/settings' ? page.getByRole('heading', { name: 'Settings' }) : to === '/recall' ? page.getByText(/cards left of/) : page.getByRole('heading', { name: /\d November/ }).first();
  await what.waitFor({ timeout: 30000 });
  const shown = Math.round(performance.now() - t);
  await page.waitForTimeout(1500);
  console.log(to, shown, 'ms; long tasks', JSON.stringify(await page.evaluate('window.long')));
  await context.close();
}

const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
const page = await context.newPage();
await page.addInitScript(`window.long = []; new PerformanceObserver((l) => l.getEntries().forEach((e) => window.long.push([Math.round(e.startTime), Math.round(e.duration)]))).observe({ type: 'longtask', buffered: true })`);
await page.goto(base + '/settings'); await page.waitForTimeout(2000);
for (const [name, what] of [['Today', 'This week'], ['Log', /\d November/], ['Today', 'This week'], ['Log', /\d November/]] as const) {
  await page.evaluate('window.long.length = 0');
  const t = performance.now();
  await page.getByRole('link', { name, exact: true }).click();
  await page.getByRole('heading', { name: what }).first().waitFor();
  const shown = Math.round(performance.now() - t);
  await page.waitForTimeout(2500);
  console.log('to', name, shown, 'ms; long', JSON.stringify(await page.evaluate('window.long')));
}
await browser.close(); await end();
