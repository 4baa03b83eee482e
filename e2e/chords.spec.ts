import { type Page } from '@playwright/test';
import { expect, test } from './test.ts';
import { choose, clean, labelAt, makeChart, neck, open, panel, part, set, setTempo, task } from './player.ts';

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
  const around = chords(page).getByRole('group', { name: 'Positions around it' });
  await around.getByRole('button').nth(1).click();
  await expect(around.getByRole('button').nth(1)).toHaveAttribute('aria-pressed', 'true');
  await page.reload();
  await expect(grips.getByRole('button').first()).toHaveText(/^2 2 4 4 4 2/);
  const own = page.getByLabel('A grip of your own');
  await own.fill('x 2 4 4 4');
  await expect(page.getByText(/^A chord here has 6 frets, one a string from the lowest/)).toBeVisible();
  await own.fill('x 2 4 4 3 x');
  await expect(chords(page).getByRole('status')).toHaveText(
    /^It is Bm\. Held: string 5 fret 2, index finger/,
  );
  expect(await labelAt(page, 2, 3)).toBe('♭3');
  await expect(page).toHaveURL(/held=x/);
  await page.reload();
  await expect(own).toHaveValue('x 2 4 4 3 x');
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

test('a twelve-bar with three modes: typed, each chord with its scale, and played for a chorus with the neck following', async ({
  page,
}) => {
  await open(page, '/new/chords?root=Eb&scale=minor-pentatonic&at=6.11&layout=count.2');
  await choose(page, 'What is done with them', 'Play over');
  await part(page, 'Progression').click();
  const typed = page.getByLabel('Chords, bars between upright lines');
  await typed.fill('Eb7 | Ab7 | Eb7 | % | Ab7 | % | Eb7 | % | Bb7 | Ab7x | Eb7 | Bb7');
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Play over it' }).click();
  await expect(page.getByText('Bar 10: “Ab7x” is not understood.')).toBeVisible();
  await typed.fill((await typed.inputValue()).replace('Ab7x', 'Ab7'));
  await page.getByRole('button', { name: 'Play over it' }).click();
  await expect(part(page, 'Progression')).toContainText('E♭7 | A♭7 | E♭7 | %');
  await chords(page)
    .getByRole('button', { name: /^three modes of the key’s root/ })
    .click();
  const order = chords(page).getByRole('group', { name: 'Chords in order' });
  await expect(order.getByRole('button')).toHaveCount(9);
  await expect(order.getByRole('button').nth(1)).toHaveText(/^A♭7bar 2 · E♭ Dorian, your choice$/);
  await expect(order.getByRole('button').nth(5)).toHaveText(/^B♭7bar 9 · E♭ natural minor, your choice$/);
  await order.getByRole('button').nth(5).click();
  await expect(chords(page).getByRole('status')).toContainText('it has 3 of 4 notes, not D; rubs:');
  await clean(page, 'a progression');
  // It goes with the key, and back.
  await page.keyboard.press('+');
  await expect(part(page, 'Progression')).toContainText('E7 | A7 | E7 | %');
  await page.keyboard.press('-');
  await chords(page).getByRole('button', { name: 'Practise a line' }).click();
  const practice = panel(page, 'Practice');
  await expect(part(page, 'Drill')).toContainText('straight through');
  await setTempo(page, 300);
  await practice.getByRole('button', { name: 'Play', exact: true }).click();
  const chord = practice.getByLabel('Chord', { exact: true });
  await expect(chord).toHaveText('E♭7then A♭7');
  await expect(chord).toHaveText('A♭7then E♭7');
  // The neck follows: the chord's root stands out under the hand.
  await expect.poll(() => labelAt(page, 5, 11)).toBe('1');
  await expect(chord).toHaveText('B♭7then A♭7');
  await expect(practice.getByText(/^Note 9\d of 96/)).toBeVisible();
  await expect(practice.getByText(/^Note \d of 96/)).toBeVisible();
});

test('a vamp: a bar of the chord that shows the mode, then bars to play in, so many as are set', async ({
  page,
}) => {
  await open(page, '/new/chords?root=A&scale=dorian&at=6.5&layout=count.3');
  await chords(page).getByRole('button', { name: 'Vamp on Am6' }).click();
  const practice = panel(page, 'Practice');
  await set(page, 'More', async (more) => {
    await more.getByLabel('Bars to play in').fill('2');
    await expect(more.getByLabel('Which chords').locator('option')).toHaveText(['Am6, of the scale itself']);
    await more.getByRole('switch', { name: 'count in' }).click();
  });
  await expect(part(page, 'More')).toContainText('a bar of chords, 2 bars to play in, no count-in');
  await setTempo(page, 240);
  await practice.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(practice.getByLabel('Chord', { exact: true })).toHaveText('Am6');
  await expect(practice.getByText(/^Note 2\d of /)).toBeVisible();
});

test('three beats a bar: a line through chords is counted so, played in its own order alone, and one bar or a line of bars again and again', async ({
  page,
}) => {
  await open(page, '/new/chords?root=A&scale=dorian&at=6.5&layout=count.3&do=changes');
  await part(page, 'Progression').click();
  await page.getByLabel('Chords, bars between upright lines').fill('i7 | % | IV7 | % | i7 | IV7');
  await page.getByRole('button', { name: 'Play over it' }).click();
  await set(page, 'Beats a bar', (word) => word.getByLabel('Quarter notes a bar').fill('3'));
  await chords(page).getByRole('button', { name: 'Practise a line' }).click();
  const practice = panel(page, 'Practice');
  // Six bars of six eighths.
  await expect(practice.getByText(/^Note 1 of 36: /)).toBeVisible();
  await set(page, 'Drill', async (list) => {
    await expect(list.getByRole('button', { name: /^for|straight through/ })).toHaveCount(1);
  });
  await set(page, 'More', async (more) => {
    await more
      .getByRole('group', { name: 'Notes that are played' })
      .getByLabel('Play')
      .selectOption('bars 1 to 4');
  });
  await expect(practice.getByText('Notes 1 to 24 are played.')).toBeVisible();
  await set(page, 'More', async (more) => {
    await more.getByRole('group', { name: 'Notes that are played' }).getByLabel('Play').selectOption('bar 1');
  });
  await expect(practice.getByText('Notes 1 to 6 are played.')).toBeVisible();
  // Of other things all drills can be played again.
  await choose(page, 'Practised on', 'Dorian position');
  await expect(part(page, 'Drill')).toContainText('up and down');
});
