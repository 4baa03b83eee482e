import { type Page } from '@playwright/test';
import { expect, test } from './test.ts';
import { open, panel, says } from './player.ts';

// Every job by keys alone, with what a screen reader is told of it.

const PENTATONIC = '/new?root=A&scale=minor-pentatonic&at=6.5&layout=count.2';
const status = (page: Page) => page.getByRole('status', { name: 'What changed' });
/** Goes on with the tab key to what is named so. */
async function tabTo(page: Page, name: RegExp): Promise<void> {
  const focused = page.locator(':focus');
  for (let i = 0; i < 25; i++) {
    await page.keyboard.press('Tab');
    if (name.test((await focused.getAttribute('aria-label')) ?? (await focused.innerText()))) return;
  }
  throw new Error(`The tab key does not come to ${name} within 25 stops.`);
}
async function press(page: Page, ...keys: readonly string[]): Promise<void> {
  for (const key of keys) await page.keyboard.press(key);
}
/** The dialog that opened has the keyboard. */
const has = (page: Page, name: string) =>
  expect(page.getByRole('dialog', { name }).locator(':focus')).toHaveCount(1);

test('position, root and key', async ({ page }) => {
  await open(page, PENTATONIC);
  await press(page, '.');
  await expect(status(page)).toHaveText('position 2, frets 7 to 10.');
  await press(page, 'n', 'ArrowDown', 'ArrowRight');
  await expect(page.locator(':focus')).toHaveAccessibleName(/^String \d, fret \d+: /);
  await press(page, 'Enter');
  await expect(status(page)).toHaveText(/root on string \d fret \d+/);
  await press(page, 'Control+z', 'r');
  await has(page, 'Root');
  await press(page, 'e', 'e', 'Enter');
  await expect(status(page)).toHaveText(/^E minor pentatonic; root on open string 6/);
  await press(page, 'Control+z');
  await says(page, 'A minor pentatonic');
});

test('a plan of three octaves', async ({ page }) => {
  await open(page, PENTATONIC);
  await press(page, '3');
  await expect(panel(page, 'Ladder')).toBeVisible();
  await tabTo(page, /^Look at/);
  await press(page, 'Enter');
  await has(page, 'Look at');
  await press(page, 'p', 'Enter');
  await tabTo(page, /^To:/);
  await press(page, 'Enter');
  await has(page, 'To');
  await press(page, 't');
  await expect(page.locator(':focus')).toHaveAccessibleName(/octaves up/);
  await press(page, 'Enter');
  await expect(panel(page, 'Ladder').getByText(/\d ways? found/)).toBeVisible();
});

test('groups of three at 80, played, judged and stopped', async ({ page }) => {
  await open(page, PENTATONIC);
  await press(page, '7');
  await expect(panel(page, 'Practice').locator('.vf-tabnote').first()).toBeVisible();
  await tabTo(page, /^Drill/);
  await press(page, 'Enter');
  await has(page, 'Drill');
  // On a slow computer the tab key comes before what else is asked.
  const cdp = await page.context().newCDPSession(page);
  await cdp.send('Emulation.setCPUThrottlingRate', { rate: 8 });
  await press(page, 'g', 'Enter', 'Tab');
  await expect(page.locator(':focus')).toHaveAccessibleName('Notes in a group');
  await cdp.send('Emulation.setCPUThrottlingRate', { rate: 1 });
  await page.keyboard.type('three');
  await press(page, 'Escape');
  await tabTo(page, /^Tempo/);
  await press(page, 'Enter');
  await has(page, 'Tempo');
  await page.keyboard.type('80');
  await press(page, 'Enter');
  await expect(panel(page, 'Practice').locator('.task-sentence')).toHaveText(/groups of three.* at .*80/s);
  await press(page, 'Space');
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  await press(page, 'Space');
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
});

test('saved, and found again', async ({ page }) => {
  await open(page, PENTATONIC);
  await press(page, 'Control+s');
  await expect(page.getByRole('textbox', { name: 'Name' })).toBeFocused();
  await page.keyboard.type('Keys: lantern reel');
  await press(page, 'Enter');
  await expect(page.getByText('Saved as “Keys: lantern reel”.')).toBeVisible();
  await press(page, 'g');
  await expect(page.getByRole('heading', { name: 'Charts' })).toBeVisible();
  await tabTo(page, /^Find/);
  await page.keyboard.type('lantern reel');
  await press(page, 'Enter');
  await says(page, 'A minor pentatonic');
});

test('a step of its history is gone to', async ({ page }) => {
  await open(page, PENTATONIC);
  await press(page, '+', '+', 'Home');
  await says(page, 'B minor pentatonic');
  await page.getByRole('button', { name: /^Chart: / }).focus();
  await press(page, 'Enter');
  await expect(page.getByRole('button', { name: 'History' })).toBeVisible();
  await tabTo(page, /^History/);
  await press(page, 'Enter');
  await expect(page.getByRole('button', { name: 'B minor pentatonic', pressed: true })).toBeFocused();
  await press(page, 'ArrowDown', 'Enter');
  await says(page, 'B♭ minor pentatonic');
});
