import { type Chart } from '@crow-ladder/contract';
import { chooseScale, makeChart, open, part, saved, says, task } from './player.ts';
import { expect, test } from './test.ts';

test('every change can be undone and redone, and saves itself', async ({ page, request }) => {
  const id = await makeChart(request, 'Anchor watch');
  await open(page, `/charts/${id}`);
  await chooseScale(page, 'minor blues');
  await task(page, 'Notes').click();
  await page.getByRole('textbox', { name: 'Notes' }).fill('Bend the flat five <b>slowly</b>.');
  await page.getByRole('textbox', { name: 'Tags' }).fill('blues, deck');
  await page.getByLabel('Name of the chart').fill('Anchor watch II');
  await page.keyboard.press('Enter');
  await expect(saved(page)).toBeVisible();
  await page.reload();
  await expect(page.getByRole('textbox', { name: 'Notes' })).toHaveValue('Bend the flat five <b>slowly</b>.');
  await expect(page.getByLabel('Name of the chart')).toHaveValue('Anchor watch II');
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
  await page.keyboard.press('5');
  await page.getByRole('textbox', { name: 'Notes' }).fill('Muster at the stern.');
  await expect.poll(async () => (await kept()).notes).toBe('Muster at the stern.');
  await page.getByRole('textbox', { name: 'Tags' }).fill('deck, loud');
  await page.close({ runBeforeUnload: true });
  await expect.poll(async () => (await kept()).tags).toEqual(['deck', 'loud']);
  const again = await context.newPage();
  await open(again, `/charts/${id}`);
  await again.keyboard.press('+');
  await again.getByLabel('Name of the chart').fill('Boat drill II');
  await again.goto('/charts');
  await expect(again.getByRole('link', { name: 'Boat drill II' })).toBeVisible();
  await again.goBack();
  await says(again, 'B♭ minor pentatonic');
  // Undo reaches the notes too, and they show it.
  await open(again, `/charts/${id}/notes`);
  await again.getByRole('textbox', { name: 'Notes' }).fill('Muster at the bow.');
  await again.getByRole('button', { name: 'Undo' }).click();
  await expect(again.getByRole('textbox', { name: 'Notes' })).toHaveValue('Muster at the stern.');
});

test('a slow server is waited for: one tab is never in conflict with itself', async ({ page, request }) => {
  const id = await makeChart(request, 'Slow bell');
  await page.route(`**/api/charts/${id}`, async (route) => {
    await new Promise((done) => setTimeout(done, route.request().method() === 'PUT' ? 1500 : 0));
    await route.continue();
  });
  await open(page, `/charts/${id}`);
  await page.keyboard.press('+');
  await page.waitForTimeout(1000);
  await page.keyboard.press('+');
  await expect(saved(page)).toBeVisible();
  await says(page, 'B minor pentatonic');
  await expect(page.getByRole('dialog')).toBeHidden();
  expect(await (await request.get(`/api/charts/${id}`)).json()).toMatchObject({
    revision: 3,
    state: { key: { root: 'B' } },
  });
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

for (const asked of [false, true])
  test(`a chart changed elsewhere, left ${asked ? 'while the choice is open' : 'at once'}: its work is kept beside it`, async ({
    page,
    request,
  }) => {
    const called = `Night watch ${Number(asked)}`;
    const id = await makeChart(request, called);
    await page.goto('/charts');
    await page.getByRole('link', { name: called, exact: true }).click();
    await says(page, 'A minor pentatonic');
    const { revision, name, tags, state } = (await (await request.get(`/api/charts/${id}`)).json()) as Chart;
    await request.put(`/api/charts/${id}`, { data: { revision, name, tags, notes: 'Theirs.', state } });
    await page.keyboard.press('+');
    if (asked) await page.getByRole('dialog', { name: 'This chart was changed elsewhere' }).waitFor();
    await page.goBack();
    await expect(page.getByText(`What you changed is kept as “${called} (mine)”.`)).toBeVisible();
    await page.getByRole('link', { name: `${called} (mine)` }).click();
    await says(page, 'B♭ minor pentatonic');
    expect(await (await request.get(`/api/charts/${id}`)).json()).toMatchObject({
      notes: 'Theirs.',
      state: { key: { root: 'A' } },
    });
  });

test('two tabs never lose work silently', async ({ page, context, request }) => {
  const id = await makeChart(request, 'Crossing lights');
  const other = await context.newPage();
  const rootOf = async (): Promise<string> =>
    ((await (await request.get(`/api/charts/${id}`)).json()) as Chart).state.key.root;
  for (const [button, mine] of [
    ['Keep both', false],
    ['Take theirs', false],
    ['Keep mine', true],
  ] as const) {
    await open(page, `/charts/${id}`);
    await open(other, `/charts/${id}`);
    const before = await rootOf();
    await other.keyboard.press('-');
    await expect.poll(rootOf).not.toBe(before);
    await page.keyboard.press('+');
    const dialog = page.getByRole('dialog', { name: 'This chart was changed elsewhere' });
    await expect(dialog).toBeVisible();
    const kept = await rootOf();
    await dialog.getByRole('button', { name: button }).click();
    await expect(saved(page)).toBeVisible();
    await expect.poll(async () => (await rootOf()) === kept).toBe(!mine);
    if (button === 'Keep both')
      await expect(page.getByLabel('Name of the chart')).toHaveValue('Crossing lights (mine)');
  }
});
