import { type Chart } from '@crow-ladder/contract';
import { type APIRequestContext, type Page } from '@playwright/test';
import { makeChart, open, openPart, saved, says } from './player.ts';
import { expect, test } from './test.ts';

/** Slows the requests of a method to an address down, so that something can happen meanwhile. */
const slow = (page: Page, address: string, method: string, ms: number): Promise<unknown> =>
  page.route(address, async (route) => {
    if (route.request().method() === method) await new Promise((done) => setTimeout(done, ms));
    await route.continue().catch(() => undefined);
  });
const kept = async (request: APIRequestContext, id: string): Promise<Chart> =>
  (await (await request.get(`/api/charts/${id}`)).json()) as Chart;
/** Goes to a chart by way of the list, as a player does. */
async function byList(page: Page, name: string): Promise<void> {
  await page.getByRole('link', { name: 'Charts', exact: true }).click();
  await page.getByRole('link', { name, exact: true }).click();
}
/** A moment in which the save that was asked for has begun. */
const begun = (page: Page): Promise<void> => page.waitForTimeout(1000);

// What is known here is not known to the tests that follow.
test.afterEach(async ({ request }) => {
  for (const shape of (await (await request.get('/api/known')).json()) as string[])
    await request.delete('/api/known', { data: { shape } });
});

test('work on one chart survives a slow save, another chart, and coming back', async ({ page, request }) => {
  const [a, b] = [await makeChart(request, 'Race: port'), await makeChart(request, 'Race: starboard')];
  await slow(page, '**/api/charts/*', 'PUT', 2500);
  await open(page, `/charts/${a}`);
  await page.keyboard.press('+');
  await begun(page);
  await page.keyboard.press('+');
  await byList(page, 'Race: starboard');
  await says(page, 'A minor pentatonic');
  await page.keyboard.press('-');
  await byList(page, 'Race: port');
  await says(page, 'B minor pentatonic');
  await page.keyboard.press('+');
  await expect(saved(page)).toBeVisible();
  await says(page, 'C minor pentatonic');
  await expect.poll(async () => JSON.stringify((await kept(request, a)).state)).toContain('"C"');
  await expect.poll(async () => JSON.stringify((await kept(request, b)).state)).toMatch(/"(G#|Ab)"/);
  // The way back is still there, to the very beginning.
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  await says(page, 'A minor pentatonic');
});

test('an opening that answers late throws nothing away that was done meanwhile', async ({
  page,
  request,
}) => {
  const id = await makeChart(request, 'Race: late tide');
  await open(page, `/charts/${id}`);
  await says(page, 'A minor pentatonic');
  await page.getByRole('link', { name: 'Charts', exact: true }).click();
  const { revision, name, tags, state } = await kept(request, id);
  await request.put(`/api/charts/${id}`, { data: { revision, name, tags, notes: 'Theirs.', state } });
  await slow(page, `**/api/charts/${id}`, 'GET', 2000);
  await page.getByRole('link', { name, exact: true }).click();
  await says(page, 'A minor pentatonic');
  await page.keyboard.press('+');
  await says(page, 'B♭ minor pentatonic');
  await page.waitForTimeout(2500);
  // The two versions meet as a choice of the player's; neither is gone.
  await page.getByRole('dialog').getByRole('button', { name: 'Keep mine' }).click();
  await expect(saved(page)).toBeVisible();
  await says(page, 'B♭ minor pentatonic');
  expect(JSON.stringify((await kept(request, id)).state)).toContain('"Bb"');
});

test('a page that is left and entered again does not meet its own save as a conflict', async ({
  page,
  request,
}) => {
  const id = await makeChart(request, 'Race: own wake');
  await slow(page, `**/api/charts/${id}`, 'PUT', 2500);
  await open(page, `/charts/${id}`);
  await page.keyboard.press('+');
  await begun(page);
  await byList(page, 'Race: own wake');
  await says(page, 'B♭ minor pentatonic');
  await page.keyboard.press('+');
  await expect(saved(page)).toBeVisible();
  await expect(page.getByRole('dialog')).toBeHidden();
  await says(page, 'B minor pentatonic');
  expect(JSON.stringify((await kept(request, id)).state)).toContain('"B"');
});

test('a page asked for while the address still follows a change is the page that comes', async ({
  page,
  request,
}) => {
  const id = await makeChart(request, 'Race: slip');
  await slow(page, '**/assets/ChartsPage-*', 'GET', 1500);
  await open(page, `/charts/${id}`);
  await page.keyboard.press('+');
  await page.getByRole('link', { name: 'Charts', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Charts' })).toBeVisible();
  await page.goBack();
  await says(page, 'B♭ minor pentatonic');
});

test('a shape said to be known before everything was read takes no other away', async ({ page }) => {
  const chart = '/new?root=E&scale=minor-pentatonic&at=6.0&layout=count.2';
  const know = page.getByRole('button', { name: /know this shape/ });
  const first = page.getByRole('button', { name: 'position 1, frets 0 to 3, known', exact: true });
  await open(page, chart);
  await know.click();
  await expect(first).toBeVisible();
  for (const address of ['**/api/settings', '**/api/known']) await slow(page, address, 'GET', 3000);
  await open(page, `${chart}&front=1.2`);
  await page.keyboard.press('.');
  await page.keyboard.press('.');
  await know.click();
  await page.waitForTimeout(4000);
  await page.reload();
  await expect(first).toBeVisible();
  await expect(page.getByRole('button', { name: /, known$/ })).not.toHaveCount(1);
  await expect(know).toBeVisible();
});

test('three charts, edited while saves are slow, back and forth, reloaded, in two tabs: every edit is there', async ({
  page,
  context,
  request,
}) => {
  const names = ['Race: one', 'Race: two', 'Race: three'];
  const ids = await Promise.all(names.map((name) => makeChart(request, name)));
  await slow(page, '**/api/charts/*', 'PUT', 1500);
  await page.goto('/charts');
  for (const round of [0, 1]) {
    for (const [i, name] of names.entries()) {
      await byList(page, name);
      await says(page, `${['A', 'B♭', 'B'][round === 0 ? 0 : i === 0 ? 1 : 1]} minor pentatonic`);
      await page.keyboard.press('+');
    }
    await page.goBack();
  }
  const second = await context.newPage();
  await second.goto(`/charts/${ids[0]}`);
  for (const id of ids)
    await expect.poll(async () => JSON.stringify((await kept(request, id)).state)).toContain('"B"');
  await page.reload();
  for (const name of names) {
    await byList(page, name);
    await says(page, 'B minor pentatonic');
  }
  await second.reload();
  await says(second, 'B minor pentatonic');
});

test('an instrument changed in two places asks which version stands; a chart changed since it was seen is not deleted unseen', async ({
  page,
  request,
}) => {
  const spare = {
    name: 'spare lute',
    tuning: [40, 45, 50, 55, 59, 64],
    frets: 22,
    scaleLength: 648,
    capo: 0,
    handed: 'right',
    wound: 3,
  };
  const { id } = (await (await request.post('/api/instruments', { data: spare })).json()) as { id: string };
  const elsewhere = async (frets: number, revision: number): Promise<void> =>
    expect(
      (
        await request.put(`/api/instruments/${id}`, { data: { instrument: { ...spare, frets }, revision } })
      ).status(),
    ).toBe(200);
  const form = page.getByRole('form', { name: /^Edit spare lute/ });
  const choose = page.getByRole('dialog', { name: 'This instrument was changed elsewhere' });
  const named = async (): Promise<string> =>
    (
      (await (await request.get('/api/instruments')).json()) as {
        instrument: { name: string; frets: number };
      }[]
    )
      .flatMap(({ instrument: i }) => (i.name.startsWith('spare lute') ? `${i.name} ${i.frets}` : []))
      .sort()
      .join();
  const edit = async (frets: string): Promise<void> => {
    await page.goto(`/instruments/${id}`);
    await form.getByLabel('Frets').fill(frets);
  };
  await edit('24');
  await elsewhere(21, 1);
  await form.getByRole('button', { name: 'Save instrument' }).click();
  await choose.getByRole('button', { name: 'Keep both' }).click();
  await expect.poll(named).toBe('spare lute (mine) 24,spare lute 21');
  await edit('23');
  await elsewhere(20, 2);
  await form.getByRole('button', { name: 'Save instrument' }).click();
  await choose.getByRole('button', { name: 'Take theirs' }).click();
  await expect.poll(named).toBe('spare lute (mine) 24,spare lute 20');
  await edit('23');
  await elsewhere(19, 3);
  await form.getByRole('button', { name: 'Save instrument' }).click();
  await choose.getByRole('button', { name: 'Keep mine' }).click();
  await expect.poll(named).toBe('spare lute (mine) 24,spare lute 23');

  const chart = await makeChart(request, 'Keel watch');
  await page.goto('/charts?find=keel+watch');
  await expect(page.getByRole('link', { name: 'Keel watch' })).toBeVisible();
  const { revision, tags, notes, state } = await kept(request, chart);
  await request.put(`/api/charts/${chart}`, {
    data: { revision, name: 'Keel watch', tags, notes: `${notes}!`, state },
  });
  await page.getByRole('button', { name: 'Delete Keel watch' }).click();
  await expect(
    page.getByText('“Keel watch” was changed elsewhere meanwhile, so it was not deleted.'),
  ).toBeVisible();
  expect((await request.get(`/api/charts/${chart}`)).status()).toBe(200);
  await page.getByRole('button', { name: 'Delete it all the same' }).click();
  await expect(page.getByText('Deleted “Keel watch”.')).toBeVisible();
  expect((await request.get(`/api/charts/${chart}`)).status()).toBe(404);
});

test('settings changed in two places: lists get both changes, and what has one value alone gets the player’s, who is told', async ({
  page,
  request,
}) => {
  const settings = async (): Promise<{ favourites: string[]; spanMm: number }> =>
    (await (await request.get('/api/settings')).json()) as { favourites: string[]; spanMm: number };
  const { favourites, spanMm } = await settings();
  const elsewhere = (to: object): Promise<unknown> =>
    request.patch('/api/settings', { data: { from: {}, to } });
  await open(page, '/new?root=A&scale=minor-pentatonic&at=6.5&layout=count.2');
  await openPart(page, 'Scale');
  await elsewhere({ favourites: ['lydian', ...favourites] });
  await page.getByRole('button', { name: 'Make this scale a favourite' }).click();
  await expect
    .poll(async () => (await settings()).favourites)
    .toEqual(expect.arrayContaining(['lydian', 'minor-pentatonic']));
  // What is typed before the settings are read stays.
  let read!: () => void;
  const held = new Promise<void>((resolve) => (read = resolve));
  await page.route('**/api/settings', (route) => held.then(() => route.continue()));
  await elsewhere({ spanMm: 98, letterKeys: false });
  await page.goto('/settings');
  const span = page.getByLabel('Your comfortable span in mm');
  await span.fill('120');
  read();
  await expect(page.getByRole('checkbox', { name: /^A single letter/ })).not.toBeChecked();
  await expect(span).toHaveValue('120');
  await page.keyboard.press('Tab');
  await expect.poll(async () => (await settings()).spanMm).toBe(120);
  await elsewhere({ spanMm: 99 });
  await span.fill('121');
  await page.keyboard.press('Tab');
  await expect(page.getByText('This setting was changed elsewhere as well; yours stands now.')).toBeVisible();
  expect((await settings()).spanMm).toBe(121);
  await elsewhere({ favourites, spanMm, letterKeys: true });
});
