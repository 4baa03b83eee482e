import { type Chart } from '@crow-ladder/contract';
import { chartName, chooseScale, held, makeChart, open, openNotes, part, saved, says } from './player.ts';
import { expect, test } from './test.ts';

test('every change can be undone and redone, and saves itself', async ({ page, request }) => {
  const id = await makeChart(request, 'Anchor watch');
  await open(page, `/charts/${id}`);
  await chooseScale(page, 'minor blues');
  await openNotes(page);
  await page.getByRole('textbox', { name: 'Notes' }).fill('Bend the flat five <b>slowly</b>.');
  await page.getByRole('textbox', { name: 'Tags' }).fill('blues, deck');
  await page.keyboard.press('Escape');
  await chartName(page, 'Anchor watch').click();
  await page.getByLabel('Name of the chart').fill('Anchor watch II');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(saved(page)).toBeVisible();
  await page.reload();
  await expect(chartName(page, 'Anchor watch II')).toBeVisible();
  await openNotes(page);
  await expect(page.getByRole('textbox', { name: 'Notes' })).toHaveValue('Bend the flat five <b>slowly</b>.');
  await page.keyboard.press('Escape');
  await part(page, 'Scale').focus();
  await page.keyboard.press('+');
  await says(page, 'B♭ minor blues');
  await page.keyboard.press('Control+z');
  await says(page, 'A minor blues');
  await page.getByRole('button', { name: 'Redo' }).click();
  await says(page, 'B♭ minor blues');
  await expect(saved(page)).toBeVisible();
});

test('what was typed a moment ago survives closing the tab', async ({ page, context, request }) => {
  const id = await makeChart(request, 'Boat drill');
  const kept = async () =>
    (await (await request.get(`/api/charts/${id}`)).json()) as {
      notes: string;
      tags: string[];
      name: string;
    };
  await open(page, `/charts/${id}`);
  await openNotes(page);
  await page.getByRole('textbox', { name: 'Notes' }).fill('Muster at the stern.');
  await expect.poll(async () => (await kept()).notes).toBe('Muster at the stern.');
  await page.getByRole('textbox', { name: 'Tags' }).fill('deck, loud');
  await page.close({ runBeforeUnload: true });
  // Closing sends nothing: it goes out as soon as there is a page again, whichever.
  const again = await context.newPage();
  await again.goto('/settings');
  await expect.poll(async () => (await kept()).tags).toEqual(['deck', 'loud']);
  // Notes had an address of their own once.
  await open(again, `/charts/${id}/notes`);
  await expect(again).toHaveURL(/\/shape/);
  await openNotes(again);
  await again.getByRole('textbox', { name: 'Notes' }).fill('Muster at the bow.');
  await again.goto('/charts');
  await expect.poll(async () => (await kept()).notes).toBe('Muster at the bow.');
});

test('a chart deleted elsewhere can be kept as a new one', async ({ page, request }) => {
  const id = await makeChart(request, 'Last ferry');
  await open(page, `/charts/${id}`);
  await request.delete(`/api/charts/${id}`, { headers: { 'If-Match': '"1"' } });
  await page.keyboard.press('+');
  await page.getByRole('button', { name: 'Keep it as a new chart' }).click();
  await expect(page.getByText('Your version is kept as “Last ferry”.')).toBeVisible();
  await expect(page).not.toHaveURL(new RegExp(id));
  await expect(saved(page)).toBeVisible();
  await says(page, 'B♭ minor pentatonic');
});

test('two tabs never lose work silently', async ({ page, context, request }) => {
  const id = await makeChart(request, 'Crossing lights');
  const other = await context.newPage();
  const rootOf = async (): Promise<string> =>
    ((await (await request.get(`/api/charts/${id}`)).json()) as Chart).state.key.root;
  await open(page, `/charts/${id}`);
  await open(other, `/charts/${id}`);
  // A tab without changes of its own follows.
  await other.keyboard.press('+');
  await expect.poll(rootOf).toBe('Bb');
  await says(page, 'B♭ minor pentatonic');
  await other.keyboard.press('-');
  await says(page, 'A minor pentatonic');
  // Where both have some it is asked which stands.
  const go = await held(page, `**/api/charts/${id}`, 'PUT');
  const begun = page.waitForRequest((request) => request.method() === 'PUT');
  await page.keyboard.press('+');
  await begun;
  await other.keyboard.press('-');
  await expect.poll(rootOf).not.toBe('A');
  go();
  const dialog = page.getByRole('dialog', { name: 'This chart was changed elsewhere' });
  await dialog.getByRole('button', { name: 'Keep both' }).click();
  await expect(saved(page)).toBeVisible();
  expect(await rootOf()).toMatch(/^(G#|Ab)$/);
  await expect(chartName(page, 'Crossing lights (mine)')).toBeVisible();
  await says(page, 'B♭ minor pentatonic');
});
