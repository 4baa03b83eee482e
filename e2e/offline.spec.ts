import { intercept, neck, open, saveAs, saved, says } from './player.ts';
import { application } from './serve.ts';
import { expect, test } from './test.ts';

test.describe('by a clock in hand', () => {
  test.use({ altered: true });
  test('while the server is away edits go on, and all is saved when it is back, without a click', async ({
    page,
  }) => {
    const app = await application();
    await page.clock.install();
    try {
      await page.goto(`${app.base}/new?root=A&scale=minor-pentatonic&at=6.5&layout=count.2`);
      await saveAs(page, 'Fog signal');
      await expect(saved(page)).toBeVisible();
      await app.stop();
      const key = (): Promise<void> => page.keyboard.press('+');
      await page.getByRole('grid', { name: /^Neck/ }).getByRole('gridcell').first().focus();
      await key();
      await says(page, 'B♭ minor pentatonic');
      await expect(page.getByRole('status').filter({ hasText: /^Not saved$/ })).toBeVisible();
      await expect(page.getByText(/^The server cannot be reached\./)).toBeVisible();
      await key();
      await says(page, 'B minor pentatonic');
      await app.start();
      // It is asked for every few seconds.
      await page.clock.fastForward(5000);
      await expect(saved(page)).toBeVisible();
      await page.reload();
      await says(page, 'B minor pentatonic');
    } finally {
      await app.end();
    }
  });
});

test('after an update the page offers to load again, and nothing typed is lost', async ({ page }) => {
  await open(page, '/new?root=A&scale=minor-pentatonic&at=6.5&layout=count.2');
  await neck(page).getByRole('gridcell').first().focus();
  await page.keyboard.press('+');
  await says(page, 'B♭ minor pentatonic');
  const notice = page.getByText(
    'Crow Ladder was updated. Load it again to go on with the new one; what you typed is kept.',
  );
  await expect(notice).toBeHidden();
  const go = await intercept(page, '**/api/instruments', async (route) => {
    const response = await route.fetch();
    await route.fulfill({
      response,
      headers: { ...response.headers(), 'crow-ladder-version': 'the-next-one' },
    });
  });
  await page.getByRole('button', { name: /^Tuning: / }).click();
  await expect(notice).toBeVisible();
  go();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Load it again' }).click();
  await says(page, 'B♭ minor pentatonic');
  await expect(notice).toBeHidden();
});

test('a part of the page that is no longer there after an update is told as that', async ({
  browser,
  baseURL,
}) => {
  // Who has been here before has the part still.
  const page = await browser.newPage({ baseURL: baseURL! });
  await page.goto('/charts');
  const go = await intercept(page, '**/assets/BinPage-*.js', (route) =>
    route.fulfill({ status: 404, body: 'There is nothing at this address.' }),
  );
  await page.getByRole('link', { name: 'Bin', exact: true }).click();
  await expect(
    page.getByText('A part of it could not be loaded: Crow Ladder was updated, or is away.'),
  ).toBeVisible();
  go();
  await page.goto('/charts');
  await page.getByRole('link', { name: 'Bin', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Bin' })).toBeVisible();
  await page.close();
});
