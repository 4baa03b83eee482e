import { createServer } from 'node:http';
import { type AddressInfo } from 'node:net';
import { networkInterfaces } from 'node:os';
import { chromium as browsers, type Page } from '@playwright/test';
import { chromium } from './playwright.config.ts';
import { clean, neck, open, saveAs, saved, says } from './player.ts';
import { application } from './serve.ts';
import { expect, test } from './test.ts';

/** A page of somebody else's, on another port and so of another origin. */
async function strangersPage(): Promise<{ readonly base: string; readonly close: () => void }> {
  const server = createServer((_, res) => {
    res.setHeader('content-type', 'text/html');
    res.end('<!doctype html><title>Elsewhere</title><h1>Elsewhere</h1>');
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  const { port } = server.address() as AddressInfo;
  return { base: `http://127.0.0.1:${port}/`, close: () => void server.close() };
}
const DRAFT = '{"name":"Not mine","tags":[],"notes":"","state":{}}';
/** What a page can do to an address with each kind of request: what it could read of the answer, or why not. */
const attempts = (page: Page, base: string): Promise<readonly string[]> =>
  page.evaluate(
    async ([base, body]) => {
      const plans: readonly [string, RequestInit][] = [
        ['/api/charts', {}],
        ['/api/backup', { credentials: 'include' }],
        ['/api/backup', { credentials: 'include', mode: 'no-cors' }],
        ['/api/backup', { method: 'HEAD', credentials: 'include', mode: 'no-cors' }],
        [
          '/api/charts',
          { method: 'POST', body: body!, mode: 'no-cors', headers: { 'content-type': 'text/plain' } },
        ],
        ['/api/charts', { method: 'POST', body: body!, headers: { 'content-type': 'application/json' } }],
        ['/api/demo/clear', { method: 'POST', mode: 'no-cors' }],
        [
          '/api/settings',
          {
            method: 'PATCH',
            body: '{"from":{},"to":{"theme":"stage"}}',
            headers: { 'content-type': 'application/json' },
          },
        ],
      ];
      const said: string[] = [];
      for (const [to, init] of plans)
        said.push(
          await fetch(base! + to, init).then(
            async (r) => `${r.type} ${r.status} ${await r.text()}`,
            () => 'failed',
          ),
        );
      return said;
    },
    [base, DRAFT],
  );

/** Every answer of the library to a page of somebody else's that asks in each way, and without asking for leave. */
async function answersTo(page: Page, base: string): Promise<readonly number[]> {
  // The browser keeps most of them from the page, and from what looks at the page.
  const devtools = await page.context().newCDPSession(page);
  await devtools.send('Network.enable');
  const asked = new Set<string>();
  const answers: number[] = [];
  devtools.on('Network.requestWillBeSent', ({ requestId, request }) => {
    if (request.url.startsWith(`${base}/api/`)) asked.add(requestId);
  });
  devtools.on('Network.responseReceivedExtraInfo', ({ requestId, statusCode }) => {
    if (asked.has(requestId)) answers.push(statusCode);
  });
  for (const said of await attempts(page, base)) expect(said).toMatch(/^(failed|opaque 0 )$/);
  await page.evaluate(async (to) => {
    const loaded = ['img', 'script', 'iframe', 'video'].map((name) => {
      const it = document.createElement(name) as HTMLImageElement;
      const over = new Promise((done) => (it.onload = it.onerror = done));
      it.src = `${to}/api/backup`;
      document.body.append(it);
      return over;
    });
    await Promise.all(loaded);
    // One that is given up at once.
    const given = new AbortController();
    const asked = fetch(`${to}/api/backup`, { mode: 'no-cors', signal: given.signal }).catch(() => null);
    given.abort();
    await asked;
  }, base);
  await devtools.detach();
  return answers;
}

test('a page of another origin, and a name that somebody else points here, can neither read nor change anything', async ({
  page,
  request,
  baseURL,
}) => {
  const before = await (await request.get('/api/charts')).text();
  const settings = await (await request.get('/api/settings')).text();
  const stranger = await strangersPage();
  try {
    await page.goto(stranger.base);
    const answers = await answersTo(page, baseURL!);
    expect(answers.length).toBeGreaterThan(8);
    expect(new Set(answers)).toEqual(new Set([403]));
    // A form needs no script, and no leave to read.
    await page.evaluate((to) => {
      document.body.innerHTML += `<form method="post" action="${to}/api/demo/clear"></form>`;
      document.forms[0]!.submit();
    }, baseURL!);
    await expect(page.getByText('foreign-page')).toBeVisible();
    // Nor is the application held in a frame of somebody else's page.
    await page.goto(stranger.base);
    await page.evaluate((to) => {
      document.body.innerHTML += `<iframe src="${to}/charts"></iframe>`;
    }, baseURL!);
    await expect.poll(() => page.frames()[1]?.url()).toBe('chrome-error://chromewebdata/');
  } finally {
    stranger.close();
  }
  const port = new URL(baseURL!).port;
  const rebound = await browsers.launch({
    executablePath: chromium,
    args: ['--no-sandbox', '--host-resolver-rules=MAP rebound.example 127.0.0.1'],
  });
  try {
    const other = await rebound.newPage();
    const answer = await other.goto(`http://rebound.example:${port}/charts`);
    expect(answer!.status()).toBe(421);
    for (const said of await attempts(other, `http://rebound.example:${port}`))
      expect(said).toMatch(/^(basic 421 (.*wrong-host|$)|failed|opaque)/);
  } finally {
    await rebound.close();
  }
  expect(await (await request.get('/api/charts')).text()).toBe(before);
  expect(await (await request.get('/api/settings')).text()).toBe(settings);
});

test('beyond the computer a passcode lets a browser in; work goes on over a lock, until the player logs out', async ({
  page,
  context,
}) => {
  const outside = Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .find((a) => a.family === 'IPv4' && !a.internal);
  const app = await application({ CROW_LADDER_HOST: '0.0.0.0', CROW_LADDER_PASSCODE: 'sea shanty' });
  const base = `http://${outside?.address ?? '127.0.0.1'}:${new URL(app.base).port}`;
  const asked = page.getByRole('heading', { name: 'The passcode, please' });
  const give = async (passcode: string): Promise<void> => {
    await page.getByRole('textbox', { name: 'Passcode' }).fill(passcode);
    await page.getByRole('button', { name: 'Come in' }).click();
  };
  try {
    await page.goto(`${base}/charts`);
    await expect(asked).toBeVisible();
    await expect(page.getByText('Slow Bow Door')).toBeHidden();
    await clean(page, 'the lock');
    await give('sea');
    await expect(
      page.getByText('This is not the passcode. Whoever started Crow Ladder has it.').first(),
    ).toBeVisible();
    await give('sea shanty');
    await expect(page.getByRole('link', { name: 'Slow Bow Door' })).toBeVisible();
    await expect(asked).toBeHidden();
    await open(page, `${base}/new?root=A&scale=minor-pentatonic&at=6.5&layout=count.2`);
    await saveAs(page, 'Fog signal');
    await expect(saved(page)).toBeVisible();
    // The visit ends in the middle of the work: nothing of it is lost, and it is saved once the passcode was given.
    await context.clearCookies();
    await neck(page).getByRole('gridcell').first().focus();
    await page.keyboard.press('+');
    await says(page, 'B♭ minor pentatonic');
    await expect(asked).toBeVisible();
    await give('sea shanty');
    await expect(saved(page)).toBeVisible();
    await page.reload();
    await says(page, 'B♭ minor pentatonic');
    // Over a plain address browsers do not say where a reading comes from; they send the word of a visit for no page of another site.
    const stranger = await strangersPage();
    await page.goto(stranger.base);
    const answers = await answersTo(page, base);
    stranger.close();
    expect(answers.length).toBeGreaterThan(4);
    expect(answers.filter((status) => status !== 401 && status !== 403)).toEqual([]);
    await page.goto(`${base}/settings`);
    await page.getByRole('button', { name: 'Log out' }).click();
    await expect(asked).toBeVisible();
    expect((await page.request.get(`${base}/api/charts`)).status()).toBe(401);
  } finally {
    await app.end();
  }
});
