import { type Backup, type KeptRound, type LogPage } from '@crow-ladder/contract';
import { type APIRequestContext, type Locator, type Page } from '@playwright/test';
import { clean, makeChart, noRounds, open, panel, part, task } from './player.ts';
import { expect, test } from './test.ts';

const log = (page: Page, name: string): Locator => page.getByRole('region', { name });
const practice = (page: Page): Locator => panel(page, 'Practice');
const play = (page: Page): Locator => practice(page).getByRole('button', { name: /^(Play|Stop)$/ });
/** The rounds of a chart, as the server has them. */
const roundsOf = async (request: APIRequestContext, chart: string): Promise<readonly KeptRound[]> => {
  const page = (await (await request.get(`/api/log?chart=${chart}`)).json()) as LogPage;
  return page.days.flatMap(({ rounds }) => rounds);
};
// The first page is another one once anything was practised.
test.afterEach(({ request }) => noRounds(request));

test('what was practised yesterday is found in two acts, and stands there as it was; weeks are seen as calendar, line and tables', async ({
  page,
}) => {
  await page.goto('/charts');
  await page.getByRole('link', { name: 'Log' }).click();
  const yesterday = page.getByRole('region', { name: /^Yesterday/ });
  const back = yesterday.getByRole('link', { name: 'Groups of three on Dorian position, in eighths' });
  await expect(back).toBeVisible();
  await clean(page, 'the log');
  const calendar = page.getByRole('table', { name: 'Minutes a day, a week in a row' });
  await expect(calendar.getByRole('row')).not.toHaveCount(1);
  await expect(calendar.getByRole('cell', { name: /^\d+ \w+ \d+: (\d+ min|under)/ })).toHaveCount(14);
  const tempo = log(page, 'Tempo over time');
  await tempo.getByLabel('Of').selectOption({ label: 'groups of three on Dorian position, in eighths' });
  await expect(tempo.getByRole('img', { name: /^Tempo: From 6\d on .* to 10\d on / })).toBeVisible();
  await tempo.getByText('As a table').click();
  await expect(tempo.getByRole('row')).toHaveCount(15);
  const remembered = log(page, 'Remembered');
  await expect(remembered.getByRole('img', { name: /^What comes to recall: Of \d+ cards/ })).toBeVisible();
  await remembered.getByText('As a table').click();
  await expect(remembered.getByRole('row')).toHaveCount(31);
  await expect(log(page, 'Weak spots').getByRole('table', { name: 'Keys' })).toContainText(
    'B harmonic minor',
  );
  await expect(log(page, 'Weak spots').getByRole('table', { name: /^Strings/ })).toContainText('string 2');
  await back.click();
  await expect(
    page.getByRole('textbox', { name: 'Name' }).or(page.getByText('Slow Bow Door')).first(),
  ).toBeVisible();
  await expect(page).toHaveURL(/\/charts\/[\w-]+\/practice\?/);
  await expect(part(page, 'Tempo')).toContainText('103');
  await expect(practice(page)).toContainText('groups of three');
});

test('the log is narrowed by what stands in its sentence, in the address too; it goes out and comes in as a table', async ({
  page,
}, info) => {
  await page.goto('/log');
  const narrow = async (name: string, to: string): Promise<void> => {
    await page.getByRole('button', { name: new RegExp(`^${name}: `) }).click();
    await page.getByRole('group', { name }).getByRole('button', { name: to }).click();
  };
  const sums = page.getByRole('status').filter({ hasText: / on \d+ days?: / });
  await narrow('Chart', 'Thrusters at Dawn');
  await expect(sums).toHaveText(/: 20 rounds, \d+ of them clean\.$/);
  await narrow('Time', 'the last year');
  await page.reload();
  await expect(page).toHaveURL(/chart=.*time=year/);
  await expect(sums).toHaveText(/: 20 rounds/);
  const [saving] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save as a table (CSV)' }).click(),
  ]);
  expect(saving.suggestedFilename()).toBe('crow-ladder-log.csv');
  const file = info.outputPath('elsewhere.csv');
  const { writeFileSync } = await import('node:fs');
  writeFileSync(
    file,
    'Date,Exercise,Minutes,BPM\n2026-05-30,Spider on the car deck,12,90\n30.5.2026,Spider,5,90\n',
  );
  await page.goto('/log?time=all');
  await page.getByLabel('Take a log in').setInputFiles(file);
  const dialog = page.getByRole('dialog', { name: 'Take a log in' });
  await expect(dialog.getByRole('status')).toHaveText('1 round, from 30 May 2026 to 30 May 2026.');
  await expect(dialog).toContainText('Line 3: “30.5.2026” is no day: write it as 2026-06-01.');
  await clean(page, 'a log that comes in');
  await dialog.getByRole('button', { name: 'Take it in' }).click();
  await page.getByRole('button', { name: 'Earlier days' }).click();
  await page.getByRole('button', { name: 'Earlier days' }).click();
  await expect(page.getByRole('region', { name: 'Saturday 30 May' })).toContainText('Spider on the car deck');
  await page
    .getByLabel('Take a log in')
    .setInputFiles({ name: 'x.csv', mimeType: 'text/csv', buffer: Buffer.from('a,b\n1,2') });
  await expect(page.getByRole('alert')).toContainText('has to name at least “day” and “what”');
});

test('every round is in the log: judged or not, with a note, leading back to the chart as it was then', async ({
  page,
  request,
}) => {
  const id = await makeChart(request, 'Log: deck box');
  await open(page, `/charts/${id}/practice?count=no&tempo=240&part=1.4`);
  await play(page).click();
  await expect(practice(page).getByRole('button', { name: 'That was clean' })).not.toHaveAttribute(
    'aria-disabled',
    'true',
    { timeout: 10_000 },
  );
  await play(page).click();
  // Nothing was said of it: it is in the log all the same, and what is said later is said of the same.
  await expect.poll(async () => (await roundsOf(request, id)).map((r) => r.clean)).toEqual([null]);
  const [round] = await roundsOf(request, id);
  expect(round!.ms).toBeGreaterThan(400);
  await practice(page).getByRole('button', { name: 'That was clean' }).click();
  await expect.poll(async () => (await roundsOf(request, id)).map((r) => r.clean)).toEqual([true]);
  expect((await roundsOf(request, id))[0]!.on).toMatchObject({
    root: 'A',
    scale: 'minor-pentatonic',
    start: 0,
  });
  await page.getByRole('link', { name: 'Log' }).click();
  const day = page.getByRole('region', { name: /^Today/ });
  await day.getByText('1 round: 240 clean').click();
  await day.getByRole('button', { name: /^Note on / }).click();
  await day.getByRole('textbox', { name: 'Note' }).fill('With the drummer');
  await page.keyboard.press('Enter');
  await expect(day.getByText('With the drummer')).toBeVisible();
  await page.reload();
  await expect(day.getByText('With the drummer')).toBeVisible();
  // The chart goes on to another key: the way back leads to what was played, beside it.
  const chart = (await (await request.get(`/api/charts/${id}`)).json()) as {
    revision: number;
    name: string;
    state: object;
  };
  const change = { name: chart.name, tags: [], notes: '', revision: chart.revision };
  const moved = { ...chart.state, key: { root: 'C', scale: 'minor-pentatonic' }, at: { string: 6, fret: 8 } };
  const put = await request.put(`/api/charts/${id}`, { data: { ...change, state: moved } });
  expect(put.ok()).toBe(true);
  await page.goto('/log');
  await day
    .getByRole('link', { name: /^Up and down/ })
    .first()
    .click();
  await expect(page).toHaveURL(/\/new\/practice\?.*root=A/);
  await expect(part(page, 'Tempo')).toContainText('240');
  // Of a chart that is gone it opens as a new one.
  await request.delete(`/api/charts/${id}`, { headers: { 'If-Match': `"${chart.revision + 1}"` } });
  await page.goto('/log');
  await day
    .getByRole('link', { name: /^Up and down/ })
    .first()
    .click();
  await page.getByRole('link', { name: 'Open it as a new chart' }).click();
  await expect(page).toHaveURL(/\/new\/practice\?/);
  await expect(task(page, 'Practice')).toBeVisible();
  await expect(part(page, 'Tempo')).toContainText('240');
  await page.goto('/log');
  await day.getByText('1 round: 240 clean').click();
  await day.getByRole('button', { name: /^Take out / }).click();
  await expect(day).toBeHidden();
  await page.getByRole('button', { name: 'Put it back' }).click();
  await expect(day.getByText('With the drummer')).toBeVisible();
});

test('goals are told as what they ask for; Today has the week, where practice stopped and what is next to learn', async ({
  page,
  request,
}) => {
  await page.goto('/log');
  await page.getByRole('switch', { name: 'a goal for the week' }).click();
  await page.getByLabel('Minutes a week').fill('600');
  const tempo = log(page, 'Tempo over time');
  await tempo.getByLabel('A tempo to reach').fill('120');
  await tempo.getByRole('button', { name: 'Make it a goal' }).click();
  await expect(tempo.getByRole('status').filter({ hasText: /more a week from 103/ })).toBeVisible();
  await page.getByRole('link', { name: 'Today' }).click();
  await expect(log(page, 'This week')).toContainText(/of 10 h: .* to go/);
  await expect(log(page, 'This week')).toContainText(/120 by .* more a week from 103/);
  await clean(page, 'today with goals');
  await expect(log(page, 'Next to learn')).toContainText('minor pentatonic, position');
  const before = ((await (await request.get('/api/recall?day=2026-06-01')).json()) as { all: number }).all;
  const learn = log(page, 'Next to learn').getByRole('button', { name: /^Learn it: / });
  const many = Number(/\d+/.exec((await learn.textContent())!)![0]);
  await learn.click();
  await expect
    .poll(
      async () => ((await (await request.get('/api/recall?day=2026-06-01')).json()) as { all: number }).all,
    )
    .toBe(before + many);
  await expect(log(page, 'Next to learn')).toContainText('One position at a time');
  await log(page, 'Practice').getByRole('link', { name: 'Go on' }).click();
  await expect(part(page, 'Tempo')).toContainText('103');
  await page.goto('/log');
  await tempo.getByRole('button', { name: 'Let the goal go' }).click();
  await page.getByRole('switch', { name: 'a goal for the week' }).click();
  const { cards } = (await (await request.get('/api/backup')).json()) as Backup;
  for (const { id } of cards.slice(before)) await request.delete(`/api/cards/${id}`);
});
