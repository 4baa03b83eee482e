import { type Backup } from '@crow-ladder/contract';
import { type APIRequestContext, type Locator, type Page } from '@playwright/test';
import { cardsOf } from '@crow-ladder/core/asking';
import { clean, fromMenu, held, makeChart, SIX_STRING, spot } from './player.ts';
import { expect, test } from './test.ts';

const BOX = { key: { root: 'A', scale: 'minor-pentatonic' }, at: { string: 6, fret: 5 } };
const dialog = (page: Page): Locator => page.getByRole('dialog', { name: 'Learn this' });
const card = (page: Page): Locator => page.getByRole('region', { name: 'Card' });
const verdict = (page: Page): Locator => card(page).getByRole('status');

// Cards are each test's own; where something is learned, the first page is another one for all that comes after.
test.beforeEach(({ request }) => noCards(request));
test.afterEach(({ request }) => noCards(request));
async function noCards(request: APIRequestContext): Promise<void> {
  const { cards } = (await (await request.get('/api/backup')).json()) as Backup;
  for (const { id } of cards) await request.delete(`/api/cards/${id}`);
}

/** A day of the test, at noon: it is moved by hand. */
const noon = (day: number): Date => new Date(2026, 5, day, 12);

test('a position is learned from a chart, asked by keys alone with a mistake, and due again on the day that was said', async ({
  page,
  request,
}) => {
  const id = await makeChart(request, 'Recall: box', BOX);
  await page.clock.setFixedTime(noon(1));
  await page.goto(`/charts/${id}`);
  await fromMenu(page, 'Learn this');
  await clean(page, 'what is to be learned');
  for (const name of ['the position', 'its seam with the next one'])
    await dialog(page).getByRole('switch', { name }).click();
  await expect(dialog(page).getByRole('status')).toContainText('1 card');
  await dialog(page).getByRole('button', { name: 'Learn it' }).click();
  await page.getByRole('link', { name: 'Today' }).click();
  await expect(page.getByText('1 to recall, 1 minute.')).toBeVisible();
  await clean(page, 'today');
  await page.getByRole('link', { name: 'Begin' }).click();
  await expect(card(page)).toContainText(
    'A minor pentatonic: tick every A from the open strings up to fret 12.',
  );
  await clean(page, 'a question');
  // The neck takes the keyboard; Enter ticks, J judges.
  const at = spot(page, 6, 5);
  await at.focus();
  await page.keyboard.press('Enter');
  await expect(card(page).getByRole('button', { name: 'Judge 1 spot' })).toBeVisible();
  await page.keyboard.press('j');
  await expect(verdict(page)).toHaveText('Not yet: 6 are missing. Correct it once.');
  await page.keyboard.press('j');
  await expect(verdict(page)).toContainText('Every A up to fret 12.');
  await expect(spot(page, 5, 12)).toHaveAttribute('aria-label', /missing/);
  await clean(page, 'a verdict');
  await expect(card(page).getByRole('button', { name: /^again/ })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('j');
  await expect(page.getByText('1 card answered, 0 of them known.')).toBeVisible();
  // Taken back, it is asked once more.
  await page.keyboard.press('u');
  await expect(card(page)).toBeVisible();
  const answers: readonly (readonly [number, number])[] = [
    [6, 5],
    [5, 0],
    [5, 12],
    [4, 7],
    [3, 2],
    [2, 10],
    [1, 5],
  ];
  for (const [string, fret] of answers) await spot(page, string, fret).click({ force: true });
  await page.keyboard.press('j');
  await expect(verdict(page)).toHaveText('Right, 7 spots.');
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(page.getByText('1 card answered, 1 of them known.')).toBeVisible();
  await page.clock.setFixedTime(noon(2));
  await page.goto('/');
  await expect(page).toHaveURL(/\/today$/);
  await expect(page.getByText('Nothing to recall today.')).toBeVisible();
  await page.clock.setFixedTime(noon(4));
  await page.reload();
  await expect(page.getByText('1 to recall, 1 minute.')).toBeVisible();
});

test('a round is left in the middle and goes on elsewhere; answers wait where the server is away', async ({
  page,
  request,
  context,
}) => {
  await learned(request);
  await page.goto('/recall');
  await expect(card(page)).toContainText('tick all of its spots');
  const left = page.getByText(/cards? left of/);
  const many = Number(/^\d+/.exec((await left.textContent())!)![0]);
  await page.keyboard.press('j');
  await page.keyboard.press('j');
  await expect(page.getByRole('button', { name: 'Go on' })).toBeFocused();
  // The server goes away: what is answered waits.
  await context.setOffline(true);
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(left).toHaveText(new RegExp(`^${many - 1} card`));
  // Until it is sent it is no part of the next round either.
  const go = await held(page, '**/api/reviews/*', 'PUT');
  await context.setOffline(false);
  await page.goto('/today');
  await page.goto('/recall');
  await expect(left).toHaveText(`${many - 1} cards left of ${many - 1}`);
  go();
  const other = await context.newPage();
  await other.goto('/recall');
  await expect(other.getByText(/cards? left of/)).toHaveText(new RegExp(`^${many - 1} card`));
  // A card that rests is asked no more; one that is taken away is gone.
  await page.getByRole('button', { name: 'Let it rest' }).click();
  await page.getByRole('button', { name: 'Take it away' }).click();
  await page.getByRole('button', { name: 'Take it away for good, with its answers' }).click();
  await expect(async () => {
    const { rested } = (await (await request.get('/api/recall?day=2026-12-31')).json()) as { rested: number };
    expect(rested).toBe(1);
  }).toPass();
  await page.getByRole('link', { name: 'Leave it here' }).click();
  await page.getByText('Cards that rest').click();
  await page.getByRole('button', { name: /^Ask Card \d again$/ }).click();
  await expect(page.getByText('Cards that rest')).toBeHidden();
});

/** Three cards of a box. */
async function learned(request: APIRequestContext): Promise<void> {
  const cards = cardsOf(
    {
      root: 'A',
      scale: 'minor-pentatonic',
      layout: { kind: 'count', counts: [2] },
      instrument: SIX_STRING,
      ref: { start: 0, low: 5, nth: 0 },
    },
    ['position'],
    { school: 'onePerFret', spanMm: 110 },
  ).slice(0, 3);
  const made = cards.map(({ card: it }, i) => ({
    id: `leaving-${i}`,
    card: it,
    name: `Card ${i}`,
    made: '2026-06-01T12:00:00Z',
    rested: false,
  }));
  const kept = await request.put('/api/cards', { data: { cards: made } });
  expect(kept.ok()).toBe(true);
}

test('a card that was answered in one tab is not asked in the other; a round begins while the server is away', async ({
  page,
  request,
  context,
}) => {
  await learned(request);
  const many = async (): Promise<number> =>
    ((await (await request.get('/api/backup')).json()) as Backup).reviews.length;
  await page.goto('/today');
  await expect(page.getByText(/^3 to recall/)).toBeVisible();
  const other = await context.newPage();
  await other.goto('/recall');
  await expect(other.getByText('3 cards left of 3')).toBeVisible();
  await context.setOffline(true);
  await page.getByRole('link', { name: 'Begin' }).click();
  await expect(card(page)).toContainText('tick all of its spots');
  const judge = page.getByRole('button', { name: /^Judge/ });
  await judge.click();
  await judge.click();
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(page.getByText('2 cards left of 3')).toBeVisible();
  expect(await many()).toBe(0);
  await context.setOffline(false);
  await expect.poll(many, { timeout: 20_000 }).toBe(1);
  const one = other.getByText('2 cards left of 3 (1 answered elsewhere)');
  await expect(one).toBeVisible();
  // Nor is it while what is due is read anew.
  const go = await held(other, '**/api/recall?*', 'GET');
  const begun = other.waitForRequest(/\/api\/recall\?/);
  await other.evaluate(() => window.dispatchEvent(new Event('focus')));
  await begun;
  await expect(card(other)).toContainText('on which strings are its roots?');
  await expect(one).toBeVisible();
  go();
  // Typed, an answer is given by its first letter or figure; where two begin alike, Enter answers.
  await expect(card(other)).toContainText('on which strings are its roots?');
  await other.keyboard.press('6');
  await expect(card(other).getByRole('button', { name: 'strings 6 and 3 and 1' })).toBeFocused();
  await other.keyboard.press('4');
  await expect(verdict(other)).toHaveText('It is not strings 4 and 2. Correct it once.');
  await other.keyboard.press('6');
  await other.keyboard.press('Enter');
  await expect(verdict(other)).toHaveText('Right, strings 6 and 4 and 1.');
  await other.close();
  // Left here, it goes on on another day: what was not answered, and what was not known.
  await page.getByRole('link', { name: 'Leave it here' }).click();
  await expect(page.getByText(/^2 to recall/)).toBeVisible();
  await page.clock.setFixedTime(Date.now() + 86_400_000);
  await page.goto('/today');
  await expect(page.getByText(/^3 to recall/)).toBeVisible();
});

test('spots are answered by the guitar, as it is heard', async ({ page, request }) => {
  const id = await makeChart(request, 'Recall: heard', BOX);
  await page.goto(`/charts/${id}`);
  await fromMenu(page, 'Learn this');
  for (const name of ['the position', 'its seam with the next one'])
    await dialog(page).getByRole('switch', { name }).click();
  await dialog(page).getByRole('button', { name: 'Learn it' }).click();
  await page.getByRole('link', { name: 'Today' }).click();
  await page.getByRole('link', { name: 'Begin' }).click();
  await expect(card(page)).toContainText('tick every A');
  await page.getByRole('button', { name: 'Hear me' }).click();
  await page
    .getByRole('dialog', { name: 'Hear me' })
    .getByLabel('What the page listens to')
    .selectOption({ label: 'a stand-in, to try it' });
  await page.keyboard.press('Escape');
  // Every root is played, ticked where it lies, and judged with the last one.
  await expect(verdict(page)).toContainText('Right, 7 spots.', { timeout: 30_000 });
  await clean(page, 'an answer by the guitar');
  await page.keyboard.press('j');
  await expect(page.getByText('1 card answered, 1 of them known.')).toBeVisible();
});
