import { type Page } from '@playwright/test';
import { intercept } from './player.ts';
import { application } from './serve.ts';
import { expect, test } from './test.ts';

/** The settings page of an application of its own, with a backup of it that has one chart less than there is. */
async function withBackup(
  work: (page: Page, bring: () => Promise<void>, charts: () => Promise<number>) => Promise<void>,
  page: Page,
): Promise<void> {
  const app = await application();
  try {
    const backup = (await (await page.request.get(`${app.base}/api/backup`)).json()) as { charts: object[] };
    const text = JSON.stringify({ ...backup, charts: backup.charts.slice(1) });
    await page.goto(`${app.base}/settings`);
    const bring = (): Promise<void> =>
      page
        .getByLabel('Bring a backup back')
        .setInputFiles({ name: 'library.json', mimeType: 'application/json', buffer: Buffer.from(text) });
    const charts = async (): Promise<number> =>
      ((await (await page.request.get(`${app.base}/api/charts`)).json()) as { all: number }).all;
    await work(page, bring, charts);
  } finally {
    await app.end();
  }
}

test('while a backup is read it can be called off; where the answer to replacing is lost, what stands there is asked for', async ({
  page,
}) => {
  await withBackup(async (page, bring, charts) => {
    const before = await charts();
    // The file is on its way for ever.
    const go = await intercept(page, '**/api/restores/*', (route) =>
      route.request().method() === 'PUT' ? undefined : route.continue(),
    );
    await bring();
    const reading = page.getByRole('dialog', { name: 'Reading the backup' });
    await expect(reading.getByRole('progressbar')).toBeVisible();
    await reading.getByRole('button', { name: 'Cancel' }).click();
    await expect(reading).toBeHidden();
    await expect(page.getByRole('alert')).toBeHidden();
    go();

    // The word to replace never reaches the server; then it reaches it, and the answer is lost; then all goes well.
    let sent = 0;
    await page.route('**/replace', async (route) => {
      sent++;
      if (sent === 2) await route.fetch();
      return sent < 3 ? route.abort() : route.continue();
    });
    await bring();
    const asking = page.getByRole('dialog', { name: 'Replace the whole library?' });
    await expect(asking).toContainText(`holds ${before - 1} charts and `);
    await asking.getByRole('button', { name: 'Replace everything' }).click();
    await expect(page.getByText('The server was away for a moment. Nothing was changed yet.')).toBeAttached();
    expect(await charts()).toBe(before);
    await asking.getByRole('button', { name: 'Replace everything' }).click();
    await expect(page.getByText(`The library is back: ${before - 1} charts and `)).toBeVisible();
    expect([sent, await charts()]).toEqual([3, before - 1]);
    await page.getByRole('link', { name: 'Charts' }).click();
    await expect(page.getByRole('listitem').first()).toBeVisible();
  }, page);
});

test('a library of hundreds of charts is scrolled, searched and walked by keyboard with few rows on the page', async ({
  page,
}) => {
  const app = await application();
  try {
    const backup = (await (await page.request.get(`${app.base}/api/backup`)).json()) as {
      charts: Record<string, unknown>[];
    };
    const charts = Array.from({ length: 300 }, (_, i) => ({
      ...backup.charts[i % backup.charts.length],
      id: `long-${i}`,
      name: i === 3 ? 'Unbroken'.repeat(9) : `Harbour ${String(i).padStart(4, '0')}`,
      updatedAt: new Date(Date.UTC(2026, 5, 1) - i * 60_000).toISOString(),
    }));
    const to = `${app.base}/api/restores/many-charts`;
    expect((await page.request.put(to, { data: { ...backup, charts } })).status()).toBe(200);
    expect((await page.request.post(`${to}/replace`)).status()).toBe(200);
    await page.goto(`${app.base}/charts`);
    await expect(page.getByRole('link', { name: 'Harbour 0000' })).toBeVisible();
    const rows = (): Promise<number> => page.locator('main li').count();
    expect(await rows()).toBeLessThan(40);
    await page.evaluate(() => window.scrollTo(0, document.body.scrollHeight));
    await expect(page.getByRole('link', { name: 'Harbour 0299' })).toBeInViewport();
    expect(await rows()).toBeLessThan(40);
    await page.evaluate(() => window.scrollTo(0, 0));
    const link = (n: string) => page.getByRole('link', { name: `Harbour ${n}` });
    await link('0000').focus();
    // Four stops a row: the focus goes down the list, and the list follows it.
    for (let i = 0; i < 4 * 12; i++) await page.keyboard.press('Tab');
    await expect(link('0012')).toBeFocused();
    await expect(link('0012')).toBeInViewport();
    // What has the focus stays, however far it is scrolled away.
    await page.evaluate(() => window.scrollTo(0, document.body.scrollHeight));
    await expect(link('0299')).toBeInViewport();
    await expect(link('0012')).toBeFocused();
    await page.getByLabel('Find charts').fill('harbour 012');
    await expect(link('0120')).toBeVisible();
    await expect(page).toHaveURL(/find=harbour(\+|%20)012/);
    await expect(link('0000')).toBeHidden();
    // Nothing is wider than the page, whatever a chart is called.
    await page.setViewportSize({ width: 420, height: 900 });
    await page.getByLabel('Find charts').fill('unbroken');
    await expect(page.getByRole('link', { name: /^Unbroken/ })).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(420);
  } finally {
    await app.end();
  }
});
