import { type Locator, type Page } from '@playwright/test';
import { expect, test } from './test.ts';
import {
  bringBack,
  choose,
  chooseTuning,
  clean,
  labelAt,
  makeChart,
  neck,
  open,
  panel,
  part,
  saved,
  set,
  spot,
  task,
} from './player.ts';

const phrases = (page: Page): Locator => panel(page, 'Phrases');
const editor = (page: Page): Locator => phrases(page).getByRole('application');
const said = (page: Page, text: RegExp | string): Promise<void> =>
  expect(phrases(page).getByRole('status').filter({ hasText: text })).toBeVisible();

/** A chart in A minor pentatonic with its phrases opened. */
async function opened(
  page: Page,
  request: Parameters<typeof makeChart>[0],
  name: string,
  change: object = {},
) {
  const id = await makeChart(request, name, change);
  await open(page, `/charts/${id}/phrases`);
  await expect(phrases(page)).toBeVisible();
  return id;
}
/** A phrase begun on the neck. */
async function begun(page: Page, name: string): Promise<void> {
  await phrases(page).getByRole('button', { name: 'New phrase' }).press('Enter');
  const form = page.getByRole('dialog', { name: 'New phrase' });
  await form.getByLabel('Name of the phrase').fill(name);
  await page.keyboard.press('Enter');
  await expect(editor(page)).toHaveAccessibleName(`Write ${name}`);
}
async function typed(page: Page, from: string, field: string, text: string, name: string): Promise<void> {
  await phrases(page).getByRole('button', { name: 'New phrase' }).click();
  const form = page.getByRole('dialog', { name: 'New phrase' });
  await form.getByLabel('Name of the phrase').fill(name);
  await form.getByLabel('Begin with').selectOption(from);
  await form.getByRole('textbox', { name: field }).fill(text);
  await form.getByRole('button', { name: 'Take it' }).click();
  await expect(editor(page)).toHaveAccessibleName(`Write ${name}`);
}

test('a lick is made by keys alone, with a slur, a bend and a triplet, heard, and undone to nothing', async ({
  page,
  request,
}) => {
  await opened(page, request, 'Phrases: by keys');
  await expect(phrases(page)).toContainText('This chart has no phrase yet.');
  await begun(page, 'Bilge pump');
  await editor(page).focus();
  // The root, a step up from it slurred, three of a triplet by their numbers, the last one bent and with a finger of one's own.
  for (const key of ['Enter', 'Enter', 'ArrowUp', 'u', 't', '4', '5', 'b', 'f', 'f'])
    await page.keyboard.press(key);
  await said(page, /^Note 4 of 4: .*bent by a whole step/);
  await said(page, /eighth of a triplet\. Bar 1, beat 2/);
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  await said(page, /^Note 2 of 4: string 6 fret 8, eighth of a triplet.*♭3.*hammered on/);
  await page.keyboard.press('j');
  await said(page, /^Note 2 of 4: string 6 fret 8, quarter of a triplet/);
  await expect(page.locator('.vf-tabnote').first()).toBeVisible();
  // What cannot be done says why, and changes nothing.
  await page.keyboard.press('e');
  await expect(phrases(page).getByRole('alert')).toHaveText('Only a bend is released: bend the note first.');
  await page.keyboard.press('Home');
  await page.keyboard.press('Space');
  await expect(phrases(page).getByRole('button', { name: 'Stop' })).toBeVisible();
  await said(page, /^Note 4 of 4/);
  await expect(phrases(page).getByRole('button', { name: 'Play', exact: true })).toBeVisible();
  await clean(page, 'the editor of a phrase');
  for (let i = 0; i < 20 && (await phrases(page).getByText('no phrase yet').count()) === 0; i++)
    await page.keyboard.press('Control+z');
  await expect(phrases(page)).toContainText('This chart has no phrase yet.');
});

test('spots of the neck are written; a stretch is marked, copied and repeated; names and tags are kept', async ({
  page,
  request,
}) => {
  const id = await opened(page, request, 'Phrases: on the neck');
  await begun(page, 'Ramp');
  for (const [n, [string, fret]] of (
    [
      [3, 7],
      [2, 5],
      [2, 8],
    ] as const
  ).entries()) {
    await spot(page, string, fret).click({ force: true });
    await said(page, new RegExp(`^Note ${n + 1} of ${n + 1}: string ${string} fret ${fret}`));
  }
  await editor(page).focus();
  for (const key of ['Shift+ArrowLeft', 'c', 'ArrowRight', 'p', '-']) await page.keyboard.press(key);
  await said(page, /^Note 5 of 5: string 2 fret 8, sixteenth/);
  await set(page, 'Phrase', async (body) => {
    await body.getByLabel('Name').fill('Stern ramp');
    await page.keyboard.press('Tab');
    await expect(part(page, 'Phrase')).toHaveText(/Stern ramp/);
    const tags = body.getByLabel('Tags');
    await expect(tags).toBeFocused();
    await page.keyboard.type(`end, ${'x'.repeat(31)}`);
    await expect(body).toContainText('is longer than 30 characters.');
    await tags.fill('low tide, end');
    await body.getByLabel('Name').focus();
  });
  await expect(part(page, 'Phrase')).toHaveText(/Stern ramp/);
  await expect(saved(page)).toBeVisible();
  await page.reload();
  await set(page, 'Phrase', (body) => expect(body.getByLabel('Tags')).toHaveValue('low tide, end'));
  const { state } = (await (await request.get(`/api/charts/${id}`)).json()) as {
    state: { phrases: { name: string; notes: { length: number }[] }[] };
  };
  expect(state.phrases).toMatchObject([
    {
      name: 'Stern ramp',
      tags: ['low tide', 'end'],
      notes: [480, 480, 480, 480, 240].map((length) => ({ length })),
    },
  ]);
});

test('typed tablature is read or refused with line and column, and shown before it is taken', async ({
  page,
  request,
}) => {
  await opened(page, request, 'Phrases: typed');
  await phrases(page).getByRole('button', { name: 'New phrase' }).click();
  await page.getByRole('button', { name: 'Open a file, or paste tablature' }).click();
  const form = page.getByRole('dialog', { name: 'Open a file' });
  const field = form.getByLabel('Or paste text');
  const rest = '\nB|-----\nG|-----\nD|-----\nA|-----\nE|-----';
  await field.fill(`e|-57--${rest}`);
  await expect(form.getByRole('alert')).toContainText('Line 1, column 4: fret 57 is beyond any neck.');
  await expect(form.getByRole('button', { name: 'Take it' })).toBeHidden();
  await field.fill(`e|-5h8b10r8~${rest}`);
  await expect(form).toContainText('2 notes will be taken, in bars of 4/4: 1 ♭3.');
  await form.getByRole('button', { name: 'Take it' }).click();
  await expect(editor(page)).toHaveAccessibleName('Write Phrase');
  await editor(page).focus();
  for (const key of ['ArrowRight', 'ArrowRight']) await page.keyboard.press(key);
  await said(page, /^Note 2 of 2: string 1 fret 8.*bent by a whole step and released, held with vibrato/);
});

test('a lick goes above fret 7, to C♯, into major, into every box and to D A D G A D, and each step is undone', async ({
  page,
  request,
}) => {
  await opened(page, request, 'Phrases: moved');
  await typed(page, 'line', 'Degrees', '1 ♭3 4 ♭3 1:4', 'Gangplank');
  await said(page, /^Note 5 of 5: string 6 fret 5, quarter/);
  await choose(page, 'Where', /^in another place/);
  await set(page, 'Only within', async (body) => {
    await body.getByText('only some frets').click();
    await body.getByRole('group', { name: 'frets' }).getByLabel('From').fill('7');
  });
  const places = phrases(page).getByRole('list', { name: 'Places' }).getByRole('button');
  await expect(places).toHaveCount(0);
  await choose(page, 'Octave', 'an octave up');
  const there = places.filter({
    hasText: /^From string 4 fret 7: no shift, .* under the hand, frets 7 to 10/,
  });
  await there.click();
  await expect(there).toHaveAttribute('aria-pressed', 'true');
  await phrases(page).getByRole('button', { name: 'Keep it so' }).click();
  await expect(editor(page)).toBeVisible();
  await expect(phrases(page)).toContainText('at string 4 fret 7, Where: as it was made');
  expect(await labelAt(page, 4, 7)).toBe('1');

  await choose(page, 'Where', /^in another key/);
  await choose(page, 'Key', 'C♯');
  await expect(places.first()).toHaveText(/^From string 4 fret 11: /);
  await phrases(page).getByRole('button', { name: 'Keep it so, the chart in C♯ minor pentatonic' }).click();
  await expect(part(page, 'Root')).toHaveText(/C♯/);
  await said(page, /^Before the first of 5 notes/);
  await expect(phrases(page)).toContainText('at string 4 fret 11');

  await choose(page, 'Where', /^in another mode/);
  await choose(page, 'Mode', 'major');
  await expect(places.first()).toHaveText(/^From string \d fret \d+: /);
  await phrases(page).getByRole('button', { name: 'Keep it so, the chart in C♯ major' }).click();
  await expect(part(page, 'Scale')).toHaveText(/major/);
  await expect(editor(page)).toBeVisible();
  await phrases(page).getByText('Read it note by note').click();
  await expect(phrases(page).getByRole('listitem')).toHaveText([/C♯/, /E♯/, /F♯/, /E♯/, /C♯/]);
  await page.keyboard.press('Control+z');
  await expect(part(page, 'Scale')).toHaveText(/minor pentatonic/);

  await choose(page, 'Where', /^in every position/);
  await expect(places.first()).toHaveText(/^Position \d: from string/);
  expect(await places.count()).toBeGreaterThanOrEqual(5);
  await places.nth(2).click();
  await expect(places.nth(2)).toHaveAttribute('aria-pressed', 'true');
  await clean(page, 'a phrase in every position');
  await choose(page, 'Where', /^as it was made/);

  await chooseTuning(page, 'D A D G A D');
  await expect(phrases(page)).toContainText(/at string \d fret \d+/);
  await phrases(page).getByText('Read it note by note').click();
  await expect(phrases(page).getByRole('listitem')).toHaveText([/C♯/, /E/, /F♯/, /E/, /C♯/]);
  // Undone: the tuning, the key, the place.
  for (const root of ['C♯', 'A', 'A']) {
    await page.keyboard.press('Control+z');
    await expect(part(page, 'Root')).toHaveText(new RegExp(root));
  }
  await expect(phrases(page)).toContainText('at string 6 fret 5');
});

test('its second bar is drilled as it was made, with its own times; what is played is kept as a phrase again', async ({
  page,
  request,
}) => {
  await opened(page, request, 'Phrases: drilled');
  await typed(page, 'line', 'Degrees', '1:4 ♭3 4 5 ♭7:8t 5 4 ♭3:2', 'Shackle');
  await task(page, 'Practice').click();
  const practice = panel(page, 'Practice');
  await choose(page, 'Practised on', 'the phrase “Shackle”');
  await expect(part(page, 'Drill')).toHaveText(/straight through/);
  await expect(practice.getByText(/^Note 1 of 8/)).toBeVisible();
  await set(page, 'More', async (body) => {
    await body.getByRole('button', { name: 'Next note' }).click();
    for (let i = 0; i < 4; i++) await body.getByRole('button', { name: 'Next note' }).click();
    await body.getByLabel('Play', { exact: true }).selectOption('bar 2');
  });
  await expect(page).toHaveURL(/part=5\.8/);
  await practice.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(practice.getByText(/^Note [6-8] of 8/)).toBeVisible();
  await page.keyboard.press('Space');
  await part(page, 'More').click();
  await page.getByRole('button', { name: 'Keep what is played as a phrase' }).click();
  await expect(part(page, 'Phrase')).toHaveText(/straight through/i);
  await said(page, /Before the first of 4 notes/);
});

test('its times are tapped in to the metronome, by keys', async ({ page, request }) => {
  await opened(page, request, 'Phrases: tapped');
  await typed(page, 'line', 'Degrees', '1:1 ♭3 4', 'Windlass');
  await editor(page).focus();
  await page.keyboard.press('End');
  await part(page, 'Times').press('Enter');
  const form = page.getByRole('dialog', { name: 'Times' });
  await form.getByLabel('Put on').selectOption('eighths');
  await form.getByRole('button', { name: 'Start the metronome' }).press('Enter');
  const field = form.getByRole('button', { name: /^Tap: / });
  for (const n of [0, 1, 2]) {
    await expect(field).toHaveText(`Tap: ${n} of 3`);
    await field.press('Enter');
  }
  await form.getByRole('button', { name: 'Take these times' }).press('Enter');
  await said(page, /^Before the first of [345] notes/);
  // Pressed as fast as a machine presses, each is an eighth after the one before.
  await editor(page).focus();
  await page.keyboard.press('End');
  await page.keyboard.press('ArrowLeft');
  await said(page, /: string \d fret \d+, (eighth|quarter)\./);
});

test('two tabs, a reload and a backup hold the same phrases', async ({ page, context, request }) => {
  const id = await opened(page, request, 'Phrases: two tabs');
  await begun(page, 'Fender');
  await editor(page).focus();
  for (const key of ['Enter', 'Enter', 'ArrowUp']) await page.keyboard.press(key);
  await expect(saved(page)).toBeVisible();
  const other = await context.newPage();
  await open(other, `/charts/${id}/phrases`);
  await editor(other).focus();
  await other.keyboard.press('End');
  await other.keyboard.press('r');
  await expect(saved(other)).toBeVisible();
  await said(page, /of 3/);
  await page.reload();
  await said(page, /of 3/);
  await expect(neck(page)).toBeVisible();
  await other.close();
  const backup: unknown = await (await request.get('/api/backup')).json();
  await editor(page).focus();
  await page.keyboard.press('End');
  await page.keyboard.press('Delete');
  await said(page, /of 2/);
  await expect(saved(page)).toBeVisible();
  await bringBack(request, backup);
  await open(page, `/charts/${id}/phrases`);
  await said(page, /of 3/);
});

test('a lick is found by three of its degrees from another chart, and plays here in this key', async ({
  page,
  request,
}) => {
  await opened(page, request, 'Phrases: the one that has it');
  await typed(page, 'line', 'Degrees', '1 ♭3 4 5 ♭7', 'Sounding line');
  await expect(saved(page)).toBeVisible();
  await opened(page, request, 'Phrases: the one that wants it', {
    key: { root: 'C#', scale: 'minor-pentatonic' },
    at: { string: 6, fret: 9 },
  });
  await phrases(page).getByRole('button', { name: 'New phrase' }).click();
  const found = page.getByRole('dialog', { name: 'New phrase' });
  await found.getByLabel('Begin with').selectOption('kept');
  await found.getByLabel('Degrees in order').fill('4 5 q');
  await expect(found).toContainText('“q” is no degree');
  await found.getByLabel('Degrees in order').fill('4 5 ♭7');
  await found.getByLabel('Name, tag or chart').fill('that has it');
  const it = found.getByRole('list', { name: 'Phrases of all charts' }).getByRole('button');
  await expect(it).toHaveCount(1);
  await expect(it).toHaveText(
    'Sounding line: 1 ♭3 4 5 ♭7. In Phrases: the one that has it, A minor pentatonic.',
  );
  await clean(page, 'the collection of phrases');
  await it.press('Enter');
  await expect(phrases(page)).toContainText('Sounding line');
  await expect(phrases(page)).toContainText('at string 6 fret 9');
  await page.keyboard.press('Control+z');
  await expect(phrases(page)).toContainText('This chart has no phrase yet.');
});
