import { type Page } from '@playwright/test';
import { clean, open, panel } from './player.ts';
import { expect, test } from './test.ts';

const DRILL = '/new/practice?root=A&scale=minor-pentatonic&at=6.5&layout=count.2&tempo=160&loop=no';
const practice = (page: Page) => panel(page, 'Practice');

/** Chooses what the page listens to, with faults of the stand-in. */
async function hears(page: Page, what: string, faults: Readonly<Record<string, number>> = {}): Promise<void> {
  await practice(page).getByRole('button', { name: /^Hear/ }).click();
  const chosen = page.getByRole('dialog', { name: 'Hear me' });
  await chosen.getByLabel('What the page listens to').selectOption({ label: what });
  for (const [name, value] of Object.entries(faults)) await chosen.getByLabel(name).fill(String(value));
}
const play = (page: Page) => practice(page).getByRole('button', { name: 'Play', exact: true });

test('the stand-in plays a drill with two wrong notes, and just those are found', async ({ page }) => {
  await open(page, DRILL);
  await hears(page, 'a stand-in, to try it', { 'Wrong notes a round': 2 });
  await clean(page, 'what the page listens to');
  await page.keyboard.press('Escape');
  await play(page).click();
  await expect(practice(page).getByText('Listening', { exact: true })).toBeVisible();
  const said = practice(page)
    .getByRole('status')
    .filter({ hasText: /notes right/ });
  await expect(said).toContainText('21 of 23 notes right: 2 wrong notes.', { timeout: 30_000 });
  expect((await said.textContent())!.match(/instead/g)).toHaveLength(2);
  // Signs under the music, and names on the neck, say the same.
  await expect(practice(page).locator('[data-heard="wrong"]')).toHaveCount(2);
  await expect(practice(page).getByText('In the log: not yet clean at 160.')).toBeVisible();
  await clean(page, 'a round that was heard');
});

test('the ladder of tempos goes up by what was heard', async ({ page }) => {
  await open(page, `${DRILL.replace('&loop=no', '')}&climb=170.5.1`);
  await hears(page, 'a stand-in, to try it');
  await page.keyboard.press('Escape');
  await play(page).click();
  await expect(practice(page).getByText('In the log: clean at 160.')).toBeVisible({ timeout: 30_000 });
  await expect(practice(page).getByText('In the log: clean at 165.')).toBeVisible({ timeout: 30_000 });
  await practice(page).getByRole('button', { name: 'Stop' }).click();
});

test('a microphone that is refused, or goes, is said with what to do', async ({ page, context }) => {
  await open(page, DRILL);
  await hears(page, 'my guitar, by a microphone');
  const chosen = page.getByRole('dialog', { name: 'Hear me' });
  await expect(chosen.getByRole('alert')).toContainText(
    /does not let this page use the microphone|No microphone was found/,
  );
  await page.keyboard.press('Escape');
  // Practice goes on as it does without being heard.
  await play(page).click();
  await expect(practice(page).getByRole('button', { name: 'Stop' })).toBeVisible();
  await expect(practice(page).getByText('Listening', { exact: true })).toBeHidden();
  await context.clearPermissions();
});
