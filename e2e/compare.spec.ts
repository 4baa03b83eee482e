import { type Page } from '@playwright/test';
import { expect, test } from './test.ts';
import { choose, labelAt, makeChart, neck, open, panel, says, spot, task } from './player.ts';

const compare = (page: Page) => panel(page, 'Compare');

test('natural minor against its pentatonic, in the position and over the neck; it is kept with the chart', async ({
  page,
  request,
}) => {
  const id = await makeChart(request, 'Compare: bow wave');
  await open(page, `/charts/${id}`);
  await task(page, 'Compare').click();
  await choose(page, 'Scale laid over it', 'natural minor');
  await expect(compare(page)).toContainText('Natural minor is minor pentatonic plus 2 and ♭6: B and F.');
  await expect(
    neck(page)
      .getByRole('gridcell', { name: /B, in natural minor alone$/ })
      .first(),
  ).toBeVisible();
  const here = await neck(page)
    .getByRole('gridcell', { name: /in natural minor alone$/ })
    .count();
  await choose(page, 'Where', 'over the whole neck');
  await expect
    .poll(() =>
      neck(page)
        .getByRole('gridcell', { name: /in natural minor alone$/ })
        .count(),
    )
    .toBeGreaterThan(2 * here);
  await page.reload();
  await expect(compare(page)).toContainText('Natural minor is minor pentatonic plus 2 and ♭6');
  await compare(page).getByRole('button', { name: 'Make it the scale' }).click();
  await says(page, 'A natural minor');
  await page.keyboard.press('Control+z');
  await says(page, 'A minor pentatonic');
  await expect(compare(page)).toContainText('plus 2 and ♭6');
});

test('seven modes from one root are stepped through by keys, each with the note that changes', async ({
  page,
}) => {
  await open(page, '/new/compare?root=C%23&scale=major&at=5.4&layout=count.3&look=parallel');
  const modes = compare(page).getByRole('group', { name: 'Modes from its root' });
  await expect(modes.getByRole('button')).toHaveText([
    /^Lydian/,
    /^majorwith 4 for ♯4/,
    /^Mixolydianwith ♭7 for 7/,
    /^Dorianwith ♭3 for 3/,
    /^natural minorwith ♭6 for 6/,
    /^Phrygianwith ♭2 for 2/,
    /^Locrianwith ♭5 for 5/,
  ]);
  await modes.getByRole('button', { name: 'Lydian', exact: true }).focus();
  await page.keyboard.press('Enter');
  await expect(compare(page)).toContainText('Lydian is major with ♯4 for 4');
  for (const said of ['Mixolydian', 'Dorian', 'Natural minor', 'Phrygian', 'Locrian']) {
    await page.keyboard.press('ArrowDown');
    if (said === 'Mixolydian') await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await expect(compare(page)).toContainText(`${said} is major with`);
  }
  await expect(compare(page)).toContainText('♭2 for 2, ♭3 for 3, ♭5 for 5, ♭6 for 6 and ♭7 for 7');
  await choose(page, 'Compare with', 'Modes of its notes');
  await compare(page).getByRole('button', { name: 'D♯ Dorian' }).click();
  await expect(compare(page)).toContainText('D♯ Dorian has the very notes of C♯ major.');
});

test('five spots of the neck are named, and become the scale at a press', async ({ page }) => {
  await open(page, '/new/compare?root=F%23&scale=dorian&at=6.2&layout=count.3');
  await choose(page, 'Compare with', 'Notes on the neck');
  await expect(compare(page)).toContainText('Tick 3 notes or more on the neck');
  for (const [string, fret] of [
    [5, 3],
    [4, 2],
    [4, 5],
    [3, 2],
    [2, 3],
  ] as const)
    await spot(page, string, fret).click({ force: true });
  await expect(compare(page).getByRole('status')).toHaveText('C, E, G, A and D:');
  await expect.poll(() => labelAt(page, 2, 3)).toBe('D');
  const names = compare(page).getByRole('group', { name: 'Scales that hold them' });
  await expect(names.getByRole('button').first()).toHaveText(/^C major pentatonicthese notes and no others/);
  await expect(compare(page)).toContainText('Chords that hold them: C6(9); ');
  await compare(page).getByText('These notes as a set').click();
  await expect(compare(page)).toContainText('Forte number 5-35, prime form 0 2 4 7 9');
  await says(page, 'F♯ Dorian');
  await names.getByRole('button', { name: 'A minor pentatonic' }).click();
  await says(page, 'A minor pentatonic');
});

test('two notes of natural minor are lowered by keys on the neck, and what comes of it is named Locrian and kept', async ({
  page,
}) => {
  await open(page, '/new/compare?root=F%23&scale=natural-minor&at=6.2&layout=count.3');
  await choose(page, 'Compare with', 'Itself, with notes altered');
  // Before that is drawn, a click on the neck is one for the root.
  await expect(compare(page)).toContainText('Choose a spot on the neck');
  await spot(page, 5, 4).click({ force: true });
  await page.keyboard.press('d');
  await expect(compare(page)).toContainText('Locrian natural 2 is natural minor with ♭5 for 5: C for C♯.');
  // The chosen spot went with its note: the root is raised by no key, and the note beside it cannot be lowered.
  await page.keyboard.press('d');
  await expect(
    page.getByText('It cannot be lowered: it is the root, or the note below is in the scale.'),
  ).toBeAttached();
  await compare(page).getByRole('button', { name: 'Lower 2, G♯' }).click();
  await expect(compare(page)).toContainText(
    'Locrian is natural minor with ♭2 for 2 and ♭5 for 5: G for G♯ and C for C♯.',
  );
  await expect(compare(page)).toContainText('The same notes are G major');
  await expect.poll(() => labelAt(page, 5, 3)).toBe('♭5');
  await expect(spot(page, 5, 3)).toHaveAccessibleName(/in Locrian alone$/);
  await expect(spot(page, 5, 4)).toHaveAccessibleName(/in natural minor alone$/);
  await compare(page).getByRole('button', { name: 'Make it the scale' }).click();
  await says(page, 'F♯ Locrian');
});

test('a passing flat fifth and an added third are kept, seen in another position and drilled', async ({
  page,
  request,
}) => {
  const id = await makeChart(request, 'Compare: fender');
  await open(page, `/charts/${id}/compare`);
  await choose(page, 'Compare with', 'Itself, with notes added');
  const beside = compare(page).getByRole('list', { name: 'Notes beside the scale' });
  await beside.getByLabel('♭5, E♭').selectOption('passing');
  await beside.getByLabel('3, C♯').selectOption('added, slid to');
  const where = compare(page).getByRole('list', { name: 'Where they lie' });
  await expect(where.getByRole('listitem')).toHaveText([
    /^♭5, E♭: string 5 fret 6/,
    /^3, C♯: string 3 fret 6/,
    /^♭5, E♭: string 3 fret 8/,
  ]);
  await expect(spot(page, 5, 6)).toHaveAccessibleName('String 5, fret 6: E♭, ♭5, a passing note');
  await page.reload();
  await expect(where.getByRole('listitem')).toHaveCount(3);
  // No other string has it under the hand.
  await spot(page, 5, 6).click({ force: true });
  await page.keyboard.press('w');
  await expect(page.getByText('Its pitch lies under the hand on no other string.')).toBeAttached();
  await page.keyboard.press('.');
  await expect(where.getByRole('listitem').first()).toHaveText(
    /^3, C♯: string 5 fret 4|^♭5, E♭: string 6 fret 11|^3, C♯: string 6 fret 9/,
  );
  await page.keyboard.press(',');
  await compare(page).getByRole('button', { name: 'Practise it' }).click();
  const practice = panel(page, 'Practice');
  await expect(practice.getByText(/^Note 1 of 27: /)).toBeVisible();
  await practice.getByText('Read it note by note').click();
  await expect(practice.getByRole('listitem').filter({ hasText: 'string 3 fret 6' }).first()).toContainText(
    'slide to fret',
  );
  await task(page, 'Shape').click();
  await expect.poll(() => labelAt(page, 5, 6)).toBe('♭5');
});

test('an added note is played on another string by one key, and back', async ({ page, request }) => {
  const id = await makeChart(request, 'Compare: hawser', {
    layout: { kind: 'count', counts: [3] },
    key: { root: 'A', scale: 'major-pentatonic' },
    at: { string: 6, fret: 5 },
    overlays: [{ type: 'added', above: 3, passing: true }],
  });
  await open(page, `/charts/${id}/compare?look=added`);
  const where = compare(page).getByRole('list', { name: 'Where they lie' });
  const moved = where.getByRole('listitem').filter({ hasText: 'Play it on string' }).first();
  const from = (await moved.textContent())!;
  const [, string, fret, to] = /string (\d) fret (\d+)Play it on string (\d)/.exec(from)!.map(Number);
  await spot(page, string!, fret!).click({ force: true });
  await page.keyboard.press('w');
  await expect(where).toContainText(`string ${to}`);
  await expect(where).toContainText(`instead of string ${string}`);
  await expect(page).toHaveURL(new RegExp(`spot=${to}\\.`));
  await page.reload();
  await expect(where).toContainText(`instead of string ${string}`);
  // The choice went with the note: the same key takes it on, and home in the end.
  await page.keyboard.press('w');
  await expect(where).not.toContainText('instead of');
  await expect(moved).toHaveText(from);
});
