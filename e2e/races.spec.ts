import { type Chart } from '@crow-ladder/contract';
import { type APIRequestContext, type Page } from '@playwright/test';
import { held, intercept, makeChart, open, saved, says, SIX_STRING } from './player.ts';
import { expect, test } from './test.ts';

const kept = async (request: APIRequestContext, id: string): Promise<Chart> =>
  (await (await request.get(`/api/charts/${id}`)).json()) as Chart;
/** Goes to a chart by way of the list, as a player does. */
async function byList(page: Page, name: string): Promise<void> {
  await page.getByRole('link', { name: 'Charts', exact: true }).click();
  await page.getByRole('link', { name, exact: true }).click();
}
test('work on one chart survives a slow save, another chart, and coming back', async ({ page, request }) => {
  const [a, b] = [await makeChart(request, 'Race: port'), await makeChart(request, 'Race: starboard')];
  const go = await held(page, '**/api/charts/*', 'PUT');
  await open(page, `/charts/${a}`);
  const begun = page.waitForRequest((request) => request.method() === 'PUT');
  await page.keyboard.press('+');
  await begun;
  await page.keyboard.press('+');
  await byList(page, 'Race: starboard');
  await says(page, 'A minor pentatonic');
  await page.keyboard.press('-');
  await byList(page, 'Race: port');
  await says(page, 'B minor pentatonic');
  await page.keyboard.press('+');
  go();
  await expect(saved(page)).toBeVisible();
  await says(page, 'C minor pentatonic');
  await expect.poll(async () => JSON.stringify((await kept(request, a)).state)).toContain('"C"');
  await expect.poll(async () => JSON.stringify((await kept(request, b)).state)).toMatch(/"(G#|Ab)"/);
  // The way back is still there, to the very beginning.
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  await says(page, 'A minor pentatonic');
});

test('two new charts stay two where the answer to the first save is lost, and both are saved', async ({
  page,
  request,
}) => {
  const begin = (root: string) =>
    open(page, `/new?root=${root}&scale=minor-pentatonic&at=6.5&layout=count.2`);
  const save = async (name: string): Promise<void> => {
    await page.getByRole('button', { name: 'Save chart' }).click();
    await page.getByRole('dialog').getByLabel('Name').fill(name);
    await page.keyboard.press('Enter');
  };
  const named = async (name: string): Promise<readonly Chart[]> => {
    const { charts } = (await (await request.get(`/api/charts?find=${encodeURIComponent(name)}`)).json()) as {
      readonly charts: readonly Chart[];
    };
    return Promise.all(charts.map((c) => kept(request, c.id)));
  };
  await begin('A');
  // The server gets it and answers; the answer does not arrive.
  const arrive = await intercept(page, '**/api/charts{,/*}', async (route) => {
    if (route.request().method() === 'GET') return route.continue();
    await route.fetch();
    return route.abort();
  });
  await save('Astray alpha');
  await expect(page.getByText(/^The server cannot be reached\./).first()).toBeVisible();
  await page.keyboard.press('Escape');
  arrive();
  await page.getByRole('link', { name: 'Charts', exact: true }).click();
  await page.getByRole('button', { name: 'New chart' }).click();
  await says(page, 'F♯ Dorian');
  await page.keyboard.press('+');
  await save('Astray beta');
  await expect(page.getByText('Saved as “Astray beta”.')).toBeVisible();
  await expect
    .poll(async () => (await named('Astray')).map((c) => [c.name, c.state.key.root]).sort())
    .toEqual([
      ['Astray alpha', 'A'],
      ['Astray beta', 'G'],
    ]);
});

test('a page asked for while the address still follows a change is the page that comes', async ({
  page,
  request,
}) => {
  const id = await makeChart(request, 'Race: slip');
  const go = await held(page, '**/assets/ChartsPage-*', 'GET');
  await open(page, `/charts/${id}`);
  await page.keyboard.press('+');
  await page.getByRole('link', { name: 'Charts', exact: true }).click();
  await says(page, 'B♭ minor pentatonic');
  // The page that is left stays until the next one is there, and can be worked on.
  const rungs = page.getByRole('group', { name: 'Ladder of positions' });
  const second = rungs.getByRole('button', { name: /^position 2, frets/, pressed: true });
  await page.keyboard.press('.');
  await expect(second).toBeVisible();
  go();
  await expect(page.getByRole('heading', { name: 'Charts' })).toBeVisible();
  await page.goBack();
  await says(page, 'B♭ minor pentatonic');
  await expect(second).toBeVisible();
});

test('an instrument changed in two places asks which version stands', async ({ page, request }) => {
  const spare = { ...SIX_STRING, name: 'spare lute' };
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
});
