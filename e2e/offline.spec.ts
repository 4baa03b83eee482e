import { intercept, makeChart, neck, open, saveAs, saved, says } from './player.ts';
import { application } from './serve.ts';
import { expect, test } from './test.ts';

test('while the server is away edits go on, and all is saved when it is back, without a click', async ({
  page,
}) => {
  const app = await application();
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
    await expect(saved(page)).toBeVisible({ timeout: 30_000 });
    await page.reload();
    await says(page, 'B minor pentatonic');
  } finally {
    await app.end();
  }
});

test('a save whose answer was lost is neither made twice nor in conflict with itself', async ({ page }) => {
  const app = await application();
  try {
    await page.goto(`${app.base}/new?root=A&scale=minor-pentatonic&at=6.5&layout=count.2`);
    // The server makes the change, and its answer does not come through.
    let lose = true;
    await page.route(/\/api\/charts(\/|$)/, async (route) => {
      if (!lose || route.request().method() === 'GET') return route.continue();
      lose = false;
      await route.fetch();
      await route.abort();
    });
    await page.getByRole('button', { name: 'Save chart' }).click();
    await page.getByRole('dialog').getByLabel('Name').fill('Fog signal');
    await page.getByRole('dialog').getByRole('button', { name: 'Save', exact: true }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Try again' }).click();
    await expect(saved(page)).toBeVisible();
    const named = async (): Promise<readonly { revision: number }[]> => {
      const list = (await (await page.request.get(`${app.base}/api/charts`)).json()) as {
        charts: { name: string; revision: number }[];
      };
      return list.charts.filter((c) => c.name === 'Fog signal');
    };
    expect(await named()).toMatchObject([{ revision: 1 }]);
    lose = true;
    await page.getByRole('grid', { name: /^Neck/ }).getByRole('gridcell').first().focus();
    await page.keyboard.press('+');
    await expect(page.getByRole('status').filter({ hasText: /^Not saved$/ })).toBeVisible();
    await expect(saved(page)).toBeVisible({ timeout: 30_000 });
    await expect(page.getByRole('dialog')).toBeHidden();
    expect(await named()).toMatchObject([{ revision: 2 }]);
  } finally {
    await app.end();
  }
});

test('a copy and an instrument whose answers were lost are made once, however often they are asked for', async ({
  page,
  request,
}) => {
  await makeChart(request, 'Foghorn');
  // The first answer is lost; the route stays, as a request that is on its way while it goes would hang.
  const lose = async (address: string): Promise<void> => {
    let lost = false;
    await page.route(address, async (route) => {
      if (lost || route.request().method() !== 'POST') return route.continue();
      lost = true;
      await route.fetch();
      await route.abort();
    });
  };
  await page.goto('/charts?find=foghorn');
  await page.getByRole('link', { name: 'Foghorn' }).waitFor();
  await lose('**/api/charts');
  const copy = page.getByRole('button', { name: 'Copy Foghorn', exact: true });
  await copy.click();
  await expect(page.getByText(/^The server cannot be reached\./)).toBeVisible();
  await copy.click();
  await expect(page.getByText('Made “Foghorn (copy)”.')).toBeVisible();
  const found = async (): Promise<number> =>
    ((await (await request.get('/api/charts?find=foghorn')).json()) as { found: number }).found;
  expect(await found()).toBe(2);
  // A copy that is asked for anew is another one.
  await copy.click();
  await expect.poll(found).toBe(3);

  await page.goto('/instruments/new');
  await page.getByLabel('Name').fill('crate of fog');
  await lose('**/api/instruments');
  const save = page.getByRole('button', { name: 'Save instrument' });
  await save.click();
  await expect(page.getByText(/^The server cannot be reached\./)).toBeVisible();
  await save.click();
  await expect(page).toHaveURL(/\/instruments$/);
  await expect(page.getByRole('link', { name: 'crate of fog' })).toHaveCount(1);
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

test('a part of the page that is no longer there after an update is told as that', async ({ page }) => {
  await page.goto('/charts');
  const go = await intercept(page, '**/assets/BinPage-*.js', (route) =>
    route.fulfill({ status: 404, body: 'There is nothing at this address.' }),
  );
  await page.getByRole('link', { name: 'Bin' }).click();
  await expect(
    page.getByText('A part of it could not be loaded: Crow Ladder was updated, or is away.'),
  ).toBeVisible();
  go();
  await page.goto('/charts');
  await page.getByRole('link', { name: 'Bin' }).click();
  await expect(page.getByRole('heading', { name: 'Bin' })).toBeVisible();
});
