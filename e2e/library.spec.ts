import { readFileSync } from 'node:fs';
import { type Locator } from '@playwright/test';
import { makeChart, neck, open } from './player.ts';
import { expect, test } from './test.ts';

test('charts are found, sorted, tagged, renamed and copied', async ({ page, request }) => {
  await makeChart(request, 'Zulu buoy');
  await page.goto('/charts');
  const names = page.getByRole('main').getByRole('list').getByRole('link');
  await page.getByLabel('Order').selectOption('by name');
  await expect(async () => {
    const sorted = await names.allTextContents();
    expect(sorted).toEqual([...sorted].sort((a, b) => a.localeCompare(b)));
  }).toPass();
  await page.getByRole('button', { name: 'heavy', exact: true }).click();
  await expect(names).toHaveText(['Thrusters at Dawn', 'Vehicle Deck Four']);
  await page.reload();
  await expect(names).toHaveText(['Thrusters at Dawn', 'Vehicle Deck Four']);
  await page.getByRole('button', { name: 'heavy', exact: true }).click();
  await page.getByRole('searchbox').fill('nothing like it');
  await page.getByRole('button', { name: 'Show all charts' }).click();
  await page.getByRole('button', { name: 'Rename Zulu buoy' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill('  ');
  await expect(dialog.getByText('Give the chart a name.')).toBeVisible();
  await dialog.getByLabel('Name').fill('Yankee buoy');
  await page.keyboard.press('Enter');
  await expect(names.filter({ hasText: 'Yankee buoy' })).toBeVisible();
  await page.getByRole('button', { name: 'Copy Yankee buoy' }).click();
  await expect(names.filter({ hasText: 'Yankee buoy (copy)' })).toBeVisible();
});

test('an instrument is made from the table, mended, edited, used and deleted safely', async ({ page }) => {
  await page.goto('/instruments/new');
  const form = page.getByRole('form', { name: 'New instrument' });
  await form.getByLabel('Start from').selectOption('eight and nine strings: eight-string standard');
  await expect(form.getByLabel('Strings, lowest first')).toHaveValue('F#1 B1 E2 A2 D3 G3 B3 E4');
  await form.getByLabel('Name').fill('wheelhouse eight');
  await form.getByLabel('Frets').fill('40');
  await form.getByLabel('Strings, lowest first').fill('F# B E A D G B H');
  await form.getByRole('button', { name: 'Save instrument' }).click();
  const told = (text: RegExp): Locator => form.getByRole('paragraph').filter({ hasText: text });
  await expect(told(/“H” is not a string/)).toBeVisible();
  await form.getByLabel('Strings, lowest first').fill('F# B E A D G B E');
  await expect(told(/^A neck has 12 to 36 frets\.$/)).toBeVisible();
  await form.getByLabel('Frets').fill('27');
  await form.getByLabel('Hand').selectOption('left-handed');
  await expect(form.getByRole('img', { name: 'The neck of this instrument' })).toBeVisible();
  await form.getByRole('button', { name: 'Save instrument' }).click();
  await expect(page.getByText('F♯1 B1 E2 A2 D3 G3 B3 E4, 27 frets, 711 mm, left-handed')).toBeVisible();
  await page.getByRole('link', { name: 'wheelhouse eight' }).click();
  await page.getByRole('form').getByLabel('Capo').fill('2');
  await page.getByRole('button', { name: 'Save instrument' }).click();
  await open(page, '/new?root=A&scale=minor-pentatonic&at=6.5&layout=count.2');
  await page.getByRole('button', { name: /^Tuning: / }).click();
  await page.getByRole('button', { name: 'wheelhouse eight' }).click();
  await page.keyboard.press('Escape');
  await expect(neck(page)).toHaveAttribute('aria-label', 'Neck, 8 strings, 25 frets from the capo at 2');
  await page.goto('/instruments');
  await page.getByRole('button', { name: 'Delete saloon six-string', exact: true }).click();
  await expect(page.getByText(/charts that use it keep the instrument as it was/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: 'saloon six-string', exact: true })).toBeVisible();
});

test('settings are kept, and change what the neck says', async ({ page }) => {
  await page.goto('/settings');
  await page.getByLabel('Names of positions').selectOption('by the fret under the index finger');
  await page.getByLabel('Theme').selectOption('dark stage');
  const span = page.getByLabel('Your comfortable span in mm');
  await span.fill('20');
  await expect(page.getByText('The span is at least 50 mm.')).toBeVisible();
  await span.fill('90');
  await page.getByRole('heading', { name: 'Settings' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'stage');
  await open(page, '/new?root=A&scale=minor-pentatonic&at=6.5&layout=count.2');
  await expect(page.getByRole('button', { name: /^position V, frets/ })).toBeVisible();
  await expect(page.getByText('your span is 90 mm')).toBeVisible();
  await page.goto('/settings');
  await page.getByLabel('Names of positions').selectOption('as is usual for the scale');
  await page.getByLabel('Theme').selectOption('as the system says');
  await span.fill('110');
  await page.getByRole('heading', { name: 'Settings' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'paper');
});

test('a backup comes back whole; truncated and later ones are refused and change nothing', async ({
  page,
  request,
}) => {
  await page.goto('/settings');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save a backup' }).click(),
  ]);
  const text = readFileSync(await download.path(), 'utf8');
  const id = await makeChart(request, 'After the backup');
  const bring = async (content: string): Promise<void> =>
    page
      .getByLabel('Bring a backup back')
      .setInputFiles({ name: 'library.json', mimeType: 'application/json', buffer: Buffer.from(content) });
  await bring(text.slice(0, -200));
  await expect(page.getByRole('alert')).toContainText(
    'library.json is not brought back. This file is cut short or is not JSON. Nothing was changed.',
  );
  await bring(text.replace(/"version":\d+/, '"version":99'));
  await expect(page.getByRole('alert')).toContainText(
    /This backup has version 99; this Crow Ladder reads up to version \d+\. Update Crow Ladder first\. Nothing was changed\./,
  );
  expect((await request.get(`/api/charts/${id}`)).status()).toBe(200);
  await bring(text);
  await page.getByRole('button', { name: 'Replace everything' }).click();
  await expect(page.getByText(/The library is back: \d+ charts/)).toBeVisible();
  expect((await request.get(`/api/charts/${id}`)).status()).toBe(404);
});
