import { chromium } from '@playwright/test';
import { chromium as executablePath } from '/work/main/e2e/playwright.config.ts';
import { application } from '/work/main/e2e/serve.ts';
const { base, end } = await application();
const browser = await chromium.launch({ executablePath, args: ['--no-sandbox'] });
const twelve = process.argv[2] === '12';
const query = twelve ? `root=A&scale=dorian&at=12.5&layout=count.3&strings=${encodeURIComponent('G#0.C#1.F#1.B1.E2.A2.D3.G3.B3.E4.A4.D5')}&neck=36.800.0.6.right` : 'root=A&scale=dorian&at=6.5&layout=count.3';
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const cdp = await page.context().newCDPSession(page);
await page.goto(`${base}/new?${query}`);
await page.locator('svg.neck .mark').first().waitFor({ state: 'attached' });
await page.waitForTimeout(1500);
await cdp.send('Emulation.setCPUThrottlingRate', { rate: 4 });
await cdp.send('Profiler.enable');
await cdp.send('Profiler.setSamplingInterval', { interval: 400 });
async function prof(name: string, act: () => Promise<void>) {
  await cdp.send('Profiler.start');
  await act();
  await page.waitForTimeout(Number(process.argv[4] ?? 1200));
  const { profile } = await cdp.send('Profiler.stop');
  const by = new Map<number, any>(profile.nodes.map((n) => [n.id, n]));
  const parent = new Map<number, number>();
  for (const n of profile.nodes) for (const c of n.children ?? []) parent.set(c, n.id);
  const self = new Map<string, number>(); const incl = new Map<string, number>();
  let total = 0;
  profile.samples!.forEach((id, i) => {
    const ms = profile.timeDeltas![i]! / 1000;
    const n = by.get(id)!;
    const nm = (n: any) => `${n.callFrame.functionName || '(anon)'}@${n.callFrame.url.split('/').pop().replace(/-[\w-]{8}\.js/, '')}:${n.callFrame.lineNumber}`;
    if (['(idle)', '(program)'].includes(n.callFrame.functionName)) return;
    total += ms;
    self.set(nm(n), (self.get(nm(n)) ?? 0) + ms);
    const seen = new Set<string>();
    for (let at: number | undefined = id; at; at = parent.get(at)) { const k = nm(by.get(at)); if (!seen.has(k)) { seen.add(k); incl.set(k, (incl.get(k) ?? 0) + ms); } }
  });
  console.log(`== ${name}: ${total.toFixed(0)} ms`);
  const top = (m: Map<string, number>, k: number) => [...m].sort((a, b) => b[1] - a[1]).slice(0, k).map(([n, v]) => `  ${v.toFixed(1).padStart(7)} ${n}`).join('\n');
  console.log(' inclusive\n' + top(incl, 60)); console.log(' self\n' + top(self, 25));
}
const drillb = async () => page.getByRole('dialog', { name: 'Drill' }).getByRole('button', { name: 'root to root' });
const pb = (await page.getByRole('navigation', { name: 'Tasks' }).getByRole('link', { name: 'Practice' }).boundingBox())!;
const which = process.argv[3] ?? 'open';
const open = async () => { await page.mouse.click(pb.x + 10, pb.y + 10); await page.waitForTimeout(2000); };
if (which === 'open') await prof('open', open);
else {
  await open(); await page.waitForTimeout(1000);
  const play = page.getByRole('button', { name: 'Play', exact: true }); const stop = page.getByRole('button', { name: 'Stop', exact: true });
  if (which === 'play') { await play.click(); await page.waitForTimeout(3000); await stop.click(); await page.waitForTimeout(700); await prof('play', () => play.click()); }
  if (which === 'drill') { await page.getByRole('button', { name: /^Drill: / }).click(); await page.waitForTimeout(2000); } if (which === 'drill') await prof('drill', async () => void (await (await drillb()).click()));
  if (which === 'scale') { await page.keyboard.press('s'); await page.getByRole('combobox', { name: 'Scales' }).fill('major'); await page.waitForTimeout(900); await prof('scale', () => page.keyboard.press('Enter')); }
}
await browser.close(); await end();
