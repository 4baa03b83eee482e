import { type Page } from '@playwright/test';
import { expect, test } from './test.ts';
import { choose, clean, labelAt, makeChart, neck, open, panel, task } from './player.ts';

const chords = (page: Page) => panel(page, 'Chords');

test('triads of all degrees inside one position, read, then played in Practice with the same fingers', async ({
  page,
  request,
}) => {
  const id = await makeChart(request, 'Chords: handrail', {
    key: { root: 'C', scale: 'major' },
    at: { string: 5, fret: 3 },
    layout: { kind: 'inPosition', school: 'index', every: false },
    front: { start: 2, low: 1, nth: 0 },
  });
  await open(page, `/charts/${id}`);
  await task(page, 'Chords').click();
  const list = chords(page).getByRole('group', { name: 'Chords of the scale' });
  await expect(list.getByRole('button')).toHaveText([
    /^CI · C E G · major$/,
    /^Dmii · D F A · Dorian$/,
    /^Emiii · E G B · Phrygian$/,
    /^FIV · F A C · Lydian$/,
    /^GV · G B D · Mixolydian$/,
    /^Amvi · A C E · natural minor$/,
    /^Bdimvii° · B D F · Locrian$/,
  ]);
  await choose(page, 'What is done with them', 'Play all of');
  const first = await chords(page)
    .getByText(/^Note 1 of 21: /)
    .textContent();
  await chords(page).getByRole('button', { name: 'Practise it' }).click();
  const practice = panel(page, 'Practice');
  await expect(practice.getByRole('button', { name: /^Practised on/ })).toHaveText(
    /the triads of all degrees in turn, inside one octave/,
  );
  await expect(
    practice.getByRole('status').filter({ hasText: first!.replace('of 21', 'of 41').slice(0, -1) }),
  ).toBeVisible();
  await practice.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(practice.getByText(/^Note ([5-9]|\d\d) of 41/)).toBeVisible();
  await page.goBack();
  await expect(chords(page).getByText(/^Note 1 of 21: /)).toBeVisible();
});

test('a chord is held: the easiest grips of each part of the neck, on as many strings as are asked for, by keys', async ({
  page,
}) => {
  await open(page, '/new/chords?root=F%23&scale=dorian&at=6.2&layout=count.3&do=hold');
  await chords(page).getByRole('button', { name: 'B', exact: true }).focus();
  await page.keyboard.press('Enter');
  await choose(page, 'On how many strings', 'on six strings');
  await choose(page, 'Lowest note', 'in the second inversion');
  const grips = chords(page).getByRole('group', { name: 'Grips' });
  await expect(grips.getByRole('button').first()).toHaveText(/^2 2 4 4 4 2/);
  await expect(chords(page).getByRole('status')).toHaveText(
    /^Held: string 6 fret 2, index finger, string 5 fret 2, index finger,/,
  );
  await expect(
    neck(page)
      .getByRole('gridcell', { name: /^String 3, fret 4: B, .*ring finger|the root of the chord/ })
      .first(),
  ).toBeVisible();
  expect(await labelAt(page, 3, 4)).toBe('1');
  expect(await labelAt(page, 2, 4)).toBe('3');
  await page.reload();
  await expect(grips.getByRole('button').first()).toHaveText(/^2 2 4 4 4 2/);
  await choose(page, 'How many notes', 'sevenths');
  await expect(chords(page).getByRole('button', { name: 'B7', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await clean(page, 'Chords');
});

test('where every other note is no third that is said, and what it makes is named by its sound', async ({
  page,
}) => {
  await open(page, '/new/chords?root=A&scale=minor-pentatonic&at=6.5&layout=count.2');
  await expect(chords(page)).toContainText('In a scale of five notes every other one is no third');
  await expect(chords(page).getByRole('button', { name: 'C E A', exact: true })).toHaveText(/Am over C/);
});
