import { expect, type Page, test } from '@playwright/test';
import { clean, neck, open, panel, task } from './player.ts';

const A_DORIAN = '/new/practice?root=A&scale=dorian&at=6.5&layout=count.3';
const practice = (page: Page) => panel(page, 'Practice');
const play = (page: Page) => practice(page).getByRole('button', { name: /^(Play|Stop)$/ });
/** The number of the note that is looked at or heard. */
const note = async (page: Page): Promise<number> =>
  Number(
    /^Note (\d+) of/.exec(
      (await practice(page)
        .getByText(/^Note \d+ of/)
        .textContent()) ?? '',
    )?.[1],
  );
/** What was handed to the audio clock, as it was: every source with its time, in order. */
const RECORD = `
  window.started = [];
  const start = AudioBufferSourceNode.prototype.start;
  AudioBufferSourceNode.prototype.start = function (at, ...rest) {
    window.started.push({ at, seconds: this.buffer.duration, sounds: true });
    return start.call(this, at, ...rest);
  };
`;
interface Started {
  readonly at: number;
  readonly seconds: number;
}
/** Times of the notes that were handed over, from the first one on; clicks are short. */
const times = async (page: Page): Promise<readonly number[]> => {
  const all = (await page.evaluate('window.started')) as readonly Started[];
  return all.filter((s) => s.seconds > 1).map((s) => s.at);
};

test('a drill is chosen in the sentence and played: the lit note follows the times that were handed to the audio clock', async ({
  page,
}) => {
  await page.addInitScript(RECORD);
  await open(page, A_DORIAN);
  await practice(page).getByRole('combobox', { name: 'Drill' }).selectOption('groups');
  await practice(page).getByRole('combobox', { name: 'Notes a beat' }).selectOption('sixteenths');
  await practice(page).getByLabel('Tempo in quarter notes a minute').fill('60');
  await expect(practice(page)).toContainText('the first note of a group falls on a beat again after 12 notes, and on the first beat of a bar after 48'); // prettier-ignore
  await page.getByLabel('count in').uncheck();
  await neck(page).getByRole('gridcell').first().focus();
  await practice(page).getByRole('heading', { name: 'Tablature, with the fingers below' }).click();
  await page.keyboard.press('Space');
  await expect(play(page)).toHaveText('Stop');
  await expect.poll(() => note(page), { timeout: 20_000 }).toBeGreaterThan(6);
  const handed = await times(page);
  expect(handed.length).toBeGreaterThan(8);
  handed.slice(1).forEach((at, i) => expect(at - handed[i]!).toBeCloseTo(0.25, 6));
  // What is lit on the neck is what the sentence says of it.
  const said = await practice(page)
    .getByText(/^Note \d+ of/)
    .textContent();
  expect(said).toMatch(/string \d fret \d+/);
  await page.keyboard.press('Space');
  await expect(play(page)).toHaveText('Play');
  const at = await note(page);
  await page.waitForTimeout(700);
  expect(await note(page)).toBe(at);
  await expect(page).toHaveURL(/drill=groups\.3\.twice/);
  await page.reload();
  await expect(practice(page).getByRole('combobox', { name: 'Drill' })).toHaveValue('groups');
});

test('the tempo changes while it plays, and the next note comes when it would have come; another drill and leaving stop the sound', async ({
  page,
}) => {
  await page.addInitScript(RECORD);
  await open(page, `${A_DORIAN}&count=no&tempo=60`);
  await play(page).click();
  await expect.poll(() => note(page), { timeout: 20_000 }).toBeGreaterThan(1);
  await practice(page).getByLabel('Tempo in quarter notes a minute').fill('240');
  await expect(play(page)).toHaveText('Stop');
  const before = await note(page);
  // An eighth at 240 is an eighth of a second: soon far more notes were heard than at 60.
  await expect.poll(() => note(page), { timeout: 4000 }).toBeGreaterThan(before + 8);
  const handed = [...(await times(page))].sort((a, b) => a - b);
  expect(handed.at(-1)! - handed.at(-2)!).toBeCloseTo(0.125, 6);
  await practice(page).getByRole('combobox', { name: 'Drill' }).selectOption('jumps');
  await expect(play(page)).toHaveText('Play');
  await play(page).click();
  await expect.poll(() => note(page), { timeout: 20_000 }).toBeGreaterThan(1);
  await task(page, 'Shape').click();
  const many = (await times(page)).length;
  await page.waitForTimeout(1500);
  expect((await times(page)).length).toBe(many);
});

test('three notes are played again and again, muted too, and the ladder of tempos goes up by one key', async ({
  page,
}) => {
  await page.addInitScript(RECORD);
  await open(page, `${A_DORIAN}&count=no&tempo=120`);
  const notes = practice(page).getByRole('group', { name: 'Notes that are played' });
  const next = practice(page).getByRole('button', { name: 'Next note' });
  for (let i = 0; i < 3; i++) await next.click();
  await notes.getByRole('button', { name: 'Begin at this note' }).click();
  for (let i = 0; i < 2; i++) await next.click();
  await notes.getByRole('button', { name: 'End at this note' }).click();
  await expect(notes).toContainText('Notes 4 to 6 are played.');
  await expect(page).toHaveURL(/part=4\.6/);
  await practice(page).getByRole('slider', { name: 'Notes' }).fill('0');
  await practice(page).getByRole('checkbox', { name: 'go up in tempo' }).check();
  await expect(practice(page)).toContainText('2 clean rounds to go at 120.');
  await play(page).click();
  const seen = new Set<number>();
  await expect.poll(async () => seen.add(await note(page)).size, { timeout: 20_000, intervals: [60] }).toBe(3); // prettier-ignore
  await page.waitForTimeout(1500);
  for (let i = 0; i < 12; i++) seen.add(await note(page));
  expect([...seen].sort()).toEqual([4, 5, 6]);
  await page.keyboard.press('c');
  await expect(practice(page)).toContainText('1 clean round to go at 120.');
  await practice(page).getByRole('button', { name: 'Not yet' }).click();
  await expect(practice(page)).toContainText('2 clean rounds to go at 120.');
  for (let i = 0; i < 2; i++) await page.keyboard.press('c');
  await expect(practice(page)).toContainText('2 clean rounds to go at 125; clean so far at 120.');
  await expect(practice(page).getByLabel('Tempo in quarter notes a minute')).toHaveValue('125');
  await expect(play(page)).toHaveText('Stop');
  await notes.getByRole('button', { name: 'Play all notes' }).click();
  await expect(notes).toContainText('All notes are played.');
});

test('what cannot be played says why, on odd instruments too, and axe finds nothing', async ({ page }) => {
  await open(page, '/new/practice?root=Eb&scale=lydian&at=7.4&layout=reach.4&strings=B1.E2.A2.D3.G3.B3.E4');
  for (const drill of await practice(page).getByRole('combobox', { name: 'Drill' }).locator('option').evaluateAll((all) => all.map((o) => (o as HTMLOptionElement).value))) {
    await practice(page).getByRole('combobox', { name: 'Drill' }).selectOption(drill);
    await expect(practice(page).getByText(/^Note 1 of \d+|^There is no position/)).toBeVisible();
  }
  await practice(page).getByRole('combobox', { name: 'Drill' }).selectOption('part-of-strings');
  await practice(page).getByLabel('From string').fill('12');
  await practice(page).getByLabel('To string').fill('11');
  await expect(practice(page).getByText(/There are no notes on strings 11 to 12 here|A whole number from 1 to 7/).first()).toBeVisible();
  await clean(page, 'practice');
}); // prettier-ignore
