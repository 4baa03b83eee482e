import { type Backup, type Chart } from '@crow-ladder/contract';
import { bringBack, choose, makeChart, neck, open, panel, part, says, task, turnSheet } from './player.ts';
import { expect, test } from './test.ts';

const A_MAJOR = 'root=A&scale=major&at=6.5&layout=count.3';

test('back and forward move between tasks, and a task’s own parameters are in the address', async ({
  page,
}) => {
  await open(page, `/new/shape?${A_MAJOR}`);
  await choose(page, 'Direction', 'going down');
  await expect(page).toHaveURL(/down=1/);
  await task(page, 'Formula').click();
  await choose(page, 'Where it is laid out', 'on two strings');
  await choose(page, 'Start on', '4');
  await expect(page).toHaveURL(/\/new\/formula\?.*stage=pair&start=4$/);
  await page.keyboard.press('4');
  await expect(panel(page, 'Move')).toBeVisible();
  await page.goBack();
  await expect(part(page, 'Where it is laid out')).toContainText('on two strings');
  await page.goBack();
  await expect(part(page, 'Direction')).toContainText('going down');
  await page.goForward();
  await page.reload();
  await says(page, 'A major');
  await expect(part(page, 'Start on')).toContainText('4');
  await expect(page).toHaveTitle('New chart, Formula – Crow Ladder');
  // Addresses of before lead to their task, and one that names no task to the first.
  await open(page, `/new?${A_MAJOR}&view=notes`);
  await expect(page).toHaveURL(/\/new\/shape\?root=A/);
  await open(page, `/new/nowhere?${A_MAJOR}`);
  await expect(page).toHaveURL(/\/new\/shape\?root=A/);
});

test('the position brought forward is kept with the chart, moves with the key, and is undone', async ({
  page,
  request,
}) => {
  const id = await makeChart(request, 'Bow thruster');
  await open(page, `/charts/${id}`);
  const front = page
    .getByRole('group', { name: 'Ladder of positions' })
    .getByRole('button', { pressed: true });
  await page.keyboard.press('.');
  await expect(front).toHaveAccessibleName('position 2, frets 7 to 10');
  await page.keyboard.press('+');
  await expect(front).toHaveAccessibleName('position 2, frets 8 to 11');
  // The one before may be what is saved yet.
  await expect
    .poll(async () => ((await (await request.get(`/api/charts/${id}`)).json()) as Chart).state.front)
    .toEqual({ start: 1, low: 8, nth: 0 });
  await expect(page).toHaveURL(/front=1\.8/);
  await open(page, `/charts/${id}`);
  await expect(front).toHaveAccessibleName('position 2, frets 8 to 11');
  await page.getByRole('button', { name: /^position 4, frets/ }).click();
  await expect(front).toHaveAccessibleName(/^position 4,/);
  await page.keyboard.press('Control+z');
  await expect(front).toHaveAccessibleName('position 2, frets 8 to 11');
  await page.keyboard.press('h');
  await expect(front).toHaveAccessibleName('position 1, frets 6 to 9');
});

test('tablature is copied as plain text, slurred where it is asked for', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await open(page, '/new?root=A&scale=minor-pentatonic&at=6.5&layout=count.2');
  await choose(page, 'How the notes are struck', 'with hammer-ons and pull-offs');
  await panel(page, 'Shape').getByRole('button', { name: 'Copy' }).click();
  await expect(page.getByText('Copied as plain text.')).toBeVisible();
  const text = await page.evaluate(() => navigator.clipboard.readText());
  expect(text.split('\n')[5]).toBe('E|-5h8------------|--------|');
  await task(page, 'Formula').click();
  await expect(page.getByRole('region', { name: 'Tablature of the run, plain text' })).toContainText(
    'E|-5--8-',
  );
});

test('every task begins in sight at 1280x800, the row has room for ten, and at 420 it scrolls', async ({
  page,
}) => {
  const long =
    '/new?root=A&scale=major&at=9.8&layout=count.3&strings=C%231.F%231.B1.E2.A2.D3.G3.B3.E4&neck=24.700.0.5.right';
  for (const chart of [`/new?${A_MAJOR}`, long.replace('at=9.8', 'at=9.20')]) {
    await open(page, chart);
    for (const name of ['Shape', 'Formula', 'Ladder', 'Move', 'Compare', 'Chords', 'Practice', 'Phrases']) {
      await task(page, name).click();
      await expect(panel(page, name)).not.toContainText('Getting');
      const box = (await panel(page, name).boundingBox())!;
      expect([name, box.y < 800]).toEqual([name, true]);
      // The line on top, the sentence and the row of tasks leave the rest to the neck.
      const { y, height } = (await neck(page).boundingBox())!;
      expect([name, y <= 160, height >= 280, y, height]).toEqual([name, true, true, y, height]);
    }
  }
  const row = page.getByRole('navigation', { name: 'Tasks' });
  const overflow = (): Promise<boolean> => row.evaluate((nav) => nav.scrollWidth > nav.clientWidth);
  const add = (): Promise<void> =>
    row.evaluate((nav) => {
      for (const name of ['Print', 'Listen']) {
        const link = nav.lastElementChild!.cloneNode(true) as HTMLElement;
        link.textContent = name;
        nav.append(link);
      }
    });
  await add();
  expect(await row.getByRole('link').count()).toBe(10);
  expect(await overflow()).toBe(false);
  await page.setViewportSize({ width: 420, height: 900 });
  await turnSheet(page, 'Phrases');
  await add();
  expect(await overflow()).toBe(true);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(420);
});

test('words between the marks of a close-up lie clear of them', async ({ page }) => {
  await open(page, '/new?root=D&scale=minor-pentatonic&at=6.10&layout=diagonal');
  const close = panel(page, 'Shape').getByRole('img', { name: /close up/ });
  await expect(close.locator('.link-word')).not.toHaveCount(0);
  const overlaps = await close.evaluate((svg) => {
    const box = (e: Element) => e.getBoundingClientRect();
    const marks = [...svg.querySelectorAll('.mark path')].map(box);
    return [...svg.querySelectorAll('.link-word')]
      .map(box)
      .flatMap((w) =>
        marks.filter((m) => w.left < m.right && m.left < w.right && w.top < m.bottom && m.top < w.bottom),
      ).length;
  });
  expect(overlaps).toBe(0);
});

test('a chart that cannot be read is listed with its reason, downloaded and deleted', async ({
  page,
  request,
}) => {
  const backup = (await (await request.get('/api/backup')).json()) as Backup;
  const row = {
    id: 'torn-sail',
    name: 'Torn sail',
    tags: '[]',
    notes: '',
    state: '{"v":9}',
    revision: 1,
    created_at: '2026-06-01T20:00:00Z',
    updated_at: '2026-06-01T20:00:00Z',
  };
  await bringBack(request, { ...backup, unreadable: [row] });
  await page.goto('/charts');
  await expect(
    page.getByText(
      'This chart has version 9; this Crow Ladder reads up to version 3. Update Crow Ladder first.',
    ),
  ).toBeVisible();
  await page.getByLabel('Find charts').fill('slow bow door');
  await expect(page.getByRole('link', { name: 'Slow Bow Door' })).toBeVisible();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Download Torn sail as it is' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('torn-sail.json');
  await page.goto('/charts/torn-sail');
  await expect(page.getByRole('heading', { name: 'This chart cannot be opened' })).toBeVisible();
  await page.goto('/charts');
  await page.getByRole('button', { name: 'Delete Torn sail' }).click();
  await expect(page.getByText('Charts that cannot be read')).toBeHidden();
});

test('the widest hands and the most strings do not push a narrow page aside', async ({ page }) => {
  await page.setViewportSize({ width: 420, height: 900 });
  const fifths =
    'root=F%23&scale=dorian&at=1.2&layout=count.3&strings=C2.G2.D3.A3.E4.B4&neck=22.648.0.3.left';
  const twelve =
    'root=A&scale=dorian&at=5.0&layout=count.3&strings=G%230.C%231.F%231.B1.E2.A2.D3.G3.B3.E4.A4.D5&neck=36.800.0.6.right';
  for (const address of [`shape?${fifths}`, `shape?${twelve}`, `ladder?${twelve}&look=climbs`]) {
    await open(page, `/new/${address}`);
    await turnSheet(page, address.startsWith('ladder') ? 'Ladder' : 'Shape');
    await expect(page.getByRole('region', { name: /^Tablature/ }).first()).toBeVisible();
    expect([address, await page.evaluate(() => document.documentElement.scrollWidth)]).toEqual([
      address,
      420,
    ]);
  }
});
