import { type Chart } from '@crow-ladder/contract';
import { type APIRequestContext, type BrowserContext, type Page, type Route } from '@playwright/test';
import { fromMenu, intercept, makeChart, open, openNotes, part, says, SIX_STRING } from './player.ts';
import { expect, test } from './test.ts';

const kept = async (request: APIRequestContext, id: string): Promise<Chart> =>
  (await (await request.get(`/api/charts/${id}`)).json()) as Chart;
const rootOf = async (request: APIRequestContext, id: string): Promise<string> =>
  (await kept(request, id)).state.key.root;
const draftOf = async (request: APIRequestContext, id: string) => {
  const { name, tags, notes, state } = await kept(request, id);
  return { name, tags, notes, state };
};
/** The requests by which a page changes a chart, from now on. Which hints were seen is a setting, and none of its business. */
function changesOf(page: Page): string[] {
  const all: string[] = [];
  page.on('request', (r) => {
    const { pathname } = new URL(r.url());
    if (r.method() !== 'GET' && pathname.startsWith('/api/charts')) all.push(`${r.method()} ${pathname}`);
  });
  return all;
}
/** A new tab that is never asked whether it may be left. */
async function newTab(context: BrowserContext): Promise<Page> {
  const tab = await context.newPage();
  tab.on('dialog', () => {
    throw new Error('A page asked before it was left.');
  });
  return tab;
}

test('a reload writes nothing, however old its address is', async ({ page, request }) => {
  const id = await makeChart(request, 'Old bearing');
  await open(page, `/charts/${id}/shape?front=1.8`);
  // Meanwhile somebody else looks at another position, and changes the chart.
  const { state, ...words } = await draftOf(request, id);
  const front = { start: 2, low: 10, nth: 0 };
  const theirs = { ...state, front, key: { ...state.key, root: 'C' }, at: { string: 6, fret: 8 } };
  const change = { ...words, state: theirs, revision: 1 };
  expect((await request.put(`/api/charts/${id}`, { data: change })).status()).toBe(200);
  const changes = changesOf(page);
  await page.reload();
  await says(page, 'C minor pentatonic');
  await part(page, 'Scale').focus();
  await page.keyboard.press('+');
  await expect.poll(() => rootOf(request, id)).toMatch(/^(C#|Db)$/);
  expect(changes).toEqual([`PUT /api/charts/${id}`]);
});

test('which position is looked at is kept without a change of the chart, and no two tabs are in conflict over it', async ({
  page,
  request,
  context,
}) => {
  const id = await makeChart(request, 'Two lookouts');
  const other = await context.newPage();
  await open(page, `/charts/${id}`);
  await open(other, `/charts/${id}`);
  const low = async () => (await kept(request, id)).state.front?.low;
  await page.keyboard.press('.');
  await expect.poll(low).toBe(7);
  await other.keyboard.press('.');
  await other.keyboard.press('.');
  await expect.poll(low).toBe(9);
  await page.keyboard.press('.');
  await page.keyboard.press('.');
  await expect.poll(low).toBe(12);
  expect((await kept(request, id)).revision).toBe(1);
  await expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect.poll(low).toBe(9);
});

test('a state in an address opens as a chart of its own, and never touches the saved one', async ({
  page,
  request,
}) => {
  const id = await makeChart(request, 'Fixed light');
  await request.put(`/api/charts/${id}`, {
    data: { ...(await draftOf(request, id)), notes: 'Two flashes.', revision: 1 },
  });
  const changes = changesOf(page);
  await open(page, `/charts/${id}/shape?root=C&at=6.8`);
  await says(page, 'C minor pentatonic, root on string 6 fret 8');
  await expect(page.getByText('It came in an address of a saved chart, which stays as it is.')).toBeVisible();
  await expect(page).toHaveURL(/\/new\/shape\?/);
  await page.reload();
  await says(page, 'C minor pentatonic');
  await page.keyboard.press('+');
  await expect(page).toHaveURL(/\/charts\/[\w-]+\/shape/);
  await page.reload();
  await says(page, 'C♯ minor pentatonic');
  await openNotes(page);
  await expect(page.getByRole('textbox', { name: 'Notes' })).toHaveValue('Two flashes.');
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'a saved chart' }).click();
  await says(page, 'A minor pentatonic');
  await expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible();
  expect(changes).toEqual([]);
  expect(await kept(request, id)).toMatchObject({ revision: 2, state: { key: { root: 'A' } } });
});

test('all that a new chart holds is there after a reload, with the way back, and goes into a new one from it', async ({
  page,
}) => {
  await open(page, '/new?root=A&scale=minor-pentatonic&at=6.5&layout=count.2');
  await openNotes(page);
  const notes = page.getByRole('textbox', { name: 'Notes' });
  const tags = page.getByRole('textbox', { name: 'Tags' });
  await notes.fill('Low tide at four.');
  await tags.fill('deck, slow');
  await page.keyboard.press('Escape');
  await page.keyboard.press('+');
  await says(page, 'B♭ minor pentatonic');
  await page.reload();
  await says(page, 'B♭ minor pentatonic');
  await openNotes(page);
  await expect(notes).toHaveValue('Low tide at four.');
  await expect(tags).toHaveValue('deck, slow');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await says(page, 'A minor pentatonic');
  await page.keyboard.press('Control+z');
  await openNotes(page);
  await expect(tags).toHaveValue('');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Redo' }).click();
  await page.getByRole('button', { name: 'Redo' }).click();
  await says(page, 'B♭ minor pentatonic');
  await page.getByRole('button', { name: 'Save chart' }).click();
  await page.getByRole('dialog').getByLabel('Name').fill('Tidal basin');
  await page.keyboard.press('Enter');
  await page.getByText('Saved as “Tidal basin”.').waitFor();
  await fromMenu(page, 'New from this');
  await expect(page.getByRole('button', { name: 'Save chart' })).toBeVisible();
  await page.reload();
  await openNotes(page);
  await expect(notes).toHaveValue('Low tide at four.');
  await expect(tags).toHaveValue('deck, slow');
});

test('new charts without a name all stand among the charts, and one that is thrown away can be taken back', async ({
  page,
}) => {
  for (const fret of [1, 2, 3, 4, 5, 6, 7]) {
    await open(page, `/new?root=F&scale=major&at=6.${fret}&layout=count.3`);
    await page.keyboard.press('+');
    await expect(page).toHaveURL(/\/charts\//);
  }
  await page.goto('/charts');
  const list = page.getByRole('region', { name: 'Drafts' });
  await expect(list.getByRole('listitem')).toHaveCount(7);
  const first = list.getByRole('listitem').first();
  await expect(first).toContainText('F♯ major, string 6');
  await first.getByRole('button', { name: /^Discard the draft of / }).click();
  await first.getByRole('button', { name: /^Take back the draft of / }).click();
  await list.getByRole('listitem').nth(1).getByRole('button').click();
  await page.reload();
  await expect(list.getByRole('listitem')).toHaveCount(6);
  await list.getByRole('link').first().click();
  await says(page, 'F♯ major');
});

/** What the server does with a change of a chart. */
const SERVERS: Readonly<Record<string, (route: Route) => Promise<void>>> = {
  there: (route) => route.continue(),
  // It is answered long after the page is gone.
  slow: async (route) => {
    await new Promise((later) => setTimeout(later, 2000));
    await route.continue().catch(() => undefined);
  },
  away: (route) => route.abort(),
};
const CLOSINGS = [0, 20, 50, 200].flatMap((ms) =>
  [1, 60, 290].flatMap((kB) => Object.keys(SERVERS).map((server) => ({ ms, kB, server }))),
);
/** Those that are tried each time; the others in the thorough run. */
const USUAL = ['0 290 away', '0 1 there', '20 60 slow', '200 290 there'];

for (const { ms, kB, server } of CLOSINGS) {
  const word = `${ms} ${kB} ${server}`;
  if (!process.env['THOROUGH'] && !USUAL.includes(word)) continue;
  test(`a chart of ${kB} kB that is closed ${ms} ms after a change, the server ${server}, loses nothing and asks nothing`, async ({
    context,
    request,
  }) => {
    const phrases = Array.from({ length: kB > 1 ? 100 : 0 }, () => ({ text: 'x'.repeat(10 * kB - 25) }));
    const id = await makeChart(request, `Casting off ${word}`, { phrases });
    const tab = await newTab(context);
    await open(tab, `/charts/${id}`);
    const go = await intercept(tab, `**/api/charts/${id}`, (route) =>
      route.request().method() === 'PUT' ? SERVERS[server]!(route) : route.continue(),
    );
    await tab.evaluate(
      (rest) =>
        new Promise((done) => {
          document.body.dispatchEvent(new KeyboardEvent('keydown', { key: '+', bubbles: true }));
          if (rest === 0) done(null);
          else setTimeout(done, rest);
        }),
      ms,
    );
    await tab.close({ runBeforeUnload: true });
    if (!tab.isClosed()) await tab.waitForEvent('close');
    go();
    const again = await newTab(context);
    await open(again, `/charts/${id}`);
    await says(again, 'B♭ minor pentatonic');
    await expect.poll(() => rootOf(request, id), { timeout: 30_000 }).toBe('Bb');
    await expect(again.getByRole('dialog')).toHaveCount(0);
    expect((await kept(request, id)).revision).toBe(2);
  });
}

test('what is typed while the browser’s database is behind survives leaving at once', async ({
  page,
  context,
  request,
}) => {
  const id = await makeChart(request, 'Slack water');
  await open(page, `/charts/${id}`);
  await openNotes(page);
  // Another tab of this browser has the database to itself until it is closed.
  const holder = await newTab(context);
  await holder.goto('/settings');
  await holder.evaluate(
    () =>
      new Promise<void>((holds) => {
        const opening = indexedDB.open('crow-ladder');
        opening.onsuccess = () => {
          const all = opening.result.transaction(['works', 'steps', 'outbox'], 'readwrite');
          const hold = (): void => {
            all.objectStore('works').count().onsuccess = hold;
            holds();
          };
          hold();
        };
      }),
  );
  await page.getByRole('textbox', { name: 'Notes' }).fill('Wait for the tide.');
  await page.goto('/charts');
  await holder.close();
  await expect.poll(async () => (await kept(request, id)).notes).toBe('Wait for the tide.');
});

test('after a lost answer the newest work is what the next visit sends', async ({ context, request }) => {
  const id = await makeChart(request, 'Lost lanyard');
  const tab = await newTab(context);
  await open(tab, `/charts/${id}`);
  await intercept(tab, `**/api/charts/${id}`, async (route) => {
    if (route.request().method() === 'PUT') await route.fetch();
    await route.abort();
  });
  await tab.keyboard.press('+');
  await expect(tab.getByText(/^The server cannot be reached\./).first()).toBeVisible();
  expect(await rootOf(request, id)).toBe('Bb');
  await tab.keyboard.press('+');
  await tab.close({ runBeforeUnload: true });
  const again = await newTab(context);
  await open(again, `/charts/${id}`);
  await says(again, 'B minor pentatonic');
  await expect.poll(() => rootOf(request, id)).toBe('B');
  await expect(again.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible();
});

test('a setting that was being typed is kept as the page is closed', async ({ context, request }) => {
  const spanMm = async (): Promise<number> =>
    ((await (await request.get('/api/settings')).json()) as { spanMm: number }).spanMm;
  const before = await spanMm();
  const set = async (mm: number): Promise<void> => {
    const tab = await newTab(context);
    await tab.goto('/settings');
    const field = tab.getByLabel('Your comfortable span in mm');
    await expect(field).toHaveValue(String(await spanMm()));
    await field.fill(String(mm));
    await tab.close({ runBeforeUnload: true });
    const again = await newTab(context);
    await again.goto('/charts');
    await expect.poll(spanMm).toBe(mm);
    await again.close();
  };
  await set(before + 4);
  await set(before);
});

test('what was made on a library that a backup has replaced is offered, and not sent', async ({
  page,
  request,
}) => {
  const id = await makeChart(request, 'Ebb and flow', { instrument: SIX_STRING });
  await open(page, `/charts/${id}`);
  const go = await intercept(page, `**/api/charts/${id}`, (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );
  await page.keyboard.press('+');
  await expect(page.getByText(/^The server cannot be reached\./).first()).toBeVisible();
  const backup: unknown = await (await request.get('/api/backup')).json();
  const to = '/api/restores/ebb-and-flow';
  expect((await request.put(to, { data: backup })).status()).toBe(200);
  expect((await request.post(`${to}/replace`)).status()).toBe(200);
  go();
  await page.reload();
  await says(page, 'A minor pentatonic');
  await page.getByRole('button', { name: '1 not sent yet' }).click();
  const list = page.getByRole('dialog', { name: 'Not sent yet' });
  await expect(list.getByRole('listitem')).toContainText(['Ebb and flow']);
  await list.getByRole('button', { name: 'Keep it as a new chart' }).click();
  await expect(list).toContainText('Everything is sent.');
  const named = async (): Promise<readonly string[]> => {
    const { charts } = (await (await request.get('/api/charts?find=Ebb')).json()) as {
      readonly charts: readonly { readonly about: { readonly key: { readonly root: string } } }[];
    };
    return charts.map((c) => c.about.key.root).sort();
  };
  await expect.poll(named).toEqual(['A', 'Bb']);
});
