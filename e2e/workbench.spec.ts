import {
  choose,
  chooseScale,
  chooseTuning,
  frets,
  labelAt,
  mark,
  neck,
  open,
  openCorner,
  openPart,
  panel as panelOf,
  part,
  says,
  sentence,
  set,
  spot,
  task,
} from './player.ts';
import { expect, test } from './test.ts';

const A_PENTATONIC = '/new?root=A&scale=minor-pentatonic&at=6.5&layout=count.2';

test('each part of the sentence opens in place and changes the chart', async ({ page }) => {
  await open(page, A_PENTATONIC);
  let body = await openPart(page, 'Root');
  await body.getByRole('button', { name: 'G♯', exact: true }).click();
  await says(page, 'G♯ minor pentatonic, root on string 6 fret 4');
  await chooseScale(page, 'ionian');
  body = await openPart(page, 'Root');
  await expect(body.getByText(/double accidental/)).toBeVisible();
  await body.getByRole('button', { name: 'Write it as A♭' }).click();
  await says(page, 'A♭ major');
  body = await openPart(page, 'String and fret');
  await body.getByRole('button', { name: 'Next root' }).click();
  await says(page, 'root on string 1 fret 4');
  await body.getByRole('button', { name: 'Root before' }).click();
  await says(page, 'root on string 6 fret 4');
  // A number is typed figure by figure; one that does not fit stays on show, is told, and changes nothing.
  const fret = body.getByLabel('Fret');
  await fret.click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('12', { delay: 150 });
  await says(page, 'E major, root on string 6 fret 12');
  await page.keyboard.type('9');
  await expect(body.getByText('A whole number from 0 to 22.')).toBeVisible();
  await expect(fret).toHaveValue('129');
  await says(page, 'root on string 6 fret 12');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('0');
  await says(page, 'E major, root on open string 6');
  await page.keyboard.press('Escape');
  body = await openPart(page, 'Layout');
  await body.getByRole('button', { name: /^in position/ }).click();
  await body.getByLabel('A note out of reach goes to').selectOption('the little finger, one fret forward');
  await page.keyboard.press('Escape');
  await says(page, 'in position');
  await chooseTuning(page, 'D A D G A D');
  await says(page, 'in D A D G A D.');
  body = await openPart(page, 'Tuning');
  await body.getByLabel('Strings, lowest first').fill('D A D H A D');
  await expect(body.getByText('“H” is not a string')).toBeVisible();
});

test('favourite and recent scales come first, and a formula can be typed where scales are found', async ({
  page,
}) => {
  await open(page, A_PENTATONIC);
  await chooseScale(page, 'hungarian minor');
  let list = await openPart(page, 'Scale');
  await list.getByRole('button', { name: 'Make this scale a favourite' }).click();
  await expect(list.getByRole('option').first()).toContainText('Hungarian minor');
  await list.getByRole('combobox').fill('1 2 4 b5 b7');
  await list.getByRole('button', { name: /Use 5 notes/ }).click();
  await says(page, 'A scale of 1 2 4 ♭5 ♭7, root');
  // A scale of the player's own bears a name, is found by it, and stays among the recent ones.
  list = await openPart(page, 'Scale');
  await list.getByLabel('Name of this scale').fill('Fog signal');
  await list.getByRole('button', { name: 'Save the name' }).click();
  await says(page, 'A Fog signal, root');
  await page.keyboard.press('Escape');
  await chooseScale(page, 'dorian');
  await page.reload();
  await expect(neck(page)).toBeVisible();
  list = await openPart(page, 'Scale');
  await expect(list.getByRole('group', { name: 'Recent' }).getByRole('option').nth(1)).toContainText(
    'Fog signal',
  );
  await page.keyboard.press('Escape');
  await chooseScale(page, 'fog sig');
  await says(page, 'A Fog signal, root');
  list = await openPart(page, 'Scale');
  await list.getByRole('combobox').fill('zzz');
  await expect(list.getByText('No scale is called that.')).toBeVisible();
});

test('the neck is worked by keyboard alone, and says what lies under the hand', async ({ page }) => {
  await open(page, A_PENTATONIC);
  await page.keyboard.press('n');
  await expect(spot(page, 6, 5)).toBeFocused();
  await expect(spot(page, 6, 5)).toHaveAccessibleName('String 6, fret 5: A, the root, index finger');
  await expect(page.getByText('String 6, fret 5: A, the root, index finger.')).toBeVisible();
  await page.keyboard.press('ArrowUp');
  await expect(neck(page).locator('.ring-echo')).toHaveCount(2);
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(
    page.getByText(
      /String 5, fret 7: E, degree 5, ring finger\. Same pitch at string 6 fret 12 and string 4 fret 2\./,
    ),
  ).toBeVisible();
  await page.keyboard.press('Enter');
  await says(page, 'E minor pentatonic, root on string 5 fret 7');
  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  await says(page, 'root on string 5 fret 22');
  await page.keyboard.press('m');
  await page.keyboard.press('-');
  await page.keyboard.press('.');
  await expect(
    page.getByRole('group', { name: 'Ladder of positions' }).getByRole('button', { pressed: true }),
  ).toHaveCount(1);
  await page.keyboard.press('z');
  await expect(mark(page, 6, 0)).toHaveCount(0);
  await page.keyboard.press('z');
  await expect(mark(page, 6, 0)).toHaveCount(1);
  await page.keyboard.press('2');
  await expect(task(page, 'Formula')).toHaveAttribute('aria-current', 'page');
  await page.keyboard.press('1');
  await page.keyboard.press('?');
  await expect(
    page.getByRole('dialog', { name: 'Keys and words' }).getByText('Move the key up a half step'),
  ).toBeVisible();
});

test('marks say what the player asks for; roots alone, zoom, hand and string order change the neck', async ({
  page,
}) => {
  await open(page, A_PENTATONIC);
  const says1 = (text: string): Promise<void> => expect.poll(() => labelAt(page, 4, 7)).toBe(text);
  const options = await openCorner(page);
  const ask = (what: string): Promise<string[]> => options.getByLabel('Marks say').selectOption(what);
  await says1('1');
  for (const [what, text] of [
    ['note names', 'A'],
    ['fret numbers', '7'],
    ['sol-fa', 'do'],
    ['fingers', '3'],
    ['order of play', '6'],
    ['nothing', ''],
  ]) {
    await ask(what!);
    await says1(text!);
  }
  await options.getByRole('switch', { name: 'Roots alone' }).click();
  await expect(neck(page).locator('.mark')).toHaveCount(12);
  await options.getByRole('switch', { name: 'Roots alone' }).click();
  const x = async (s: number, f: number): Promise<number> => (await mark(page, s, f).boundingBox())!.x;
  const y = async (s: number, f: number): Promise<number> => (await mark(page, s, f).boundingBox())!.y;
  expect(await x(6, 8)).toBeGreaterThan(await x(6, 5));
  expect(await y(6, 5)).toBeGreaterThan(await y(1, 5));
  await options.getByLabel('Hand').selectOption('left-handed');
  await options.getByLabel('On top').selectOption('the lowest string');
  await expect
    .poll(async () => (await x(6, 8)) < (await x(6, 5)) && (await y(6, 5)) < (await y(1, 5)))
    .toBe(true);
  await options.getByLabel('From fret').fill('5');
  await expect(mark(page, 6, 3)).toHaveCount(0);
  await options.getByLabel('Hand').selectOption('right-handed');
  await options.getByLabel('On top').selectOption('the highest string');
});

test('a formula with a mistake is shown where it misses the octave, and mended', async ({ page }) => {
  await open(page, '/new?root=A&scale=minor-pentatonic&at=6.5&layout=count.2&view=formula');
  const formula = (await openPart(page, 'Formula')).getByLabel('Formula: steps, degrees or notes');
  await formula.fill('W W H W W H H');
  await expect(
    panelOf(page, 'Formula').getByText(
      /These steps add up to 11 half steps; an octave is 12: the sixth step may be short by 1 \(then it is major\)/,
    ),
  ).toBeVisible();
  await expect(
    page.getByText(
      'From fret 5 of string 6 these steps go 5 7 9 10 12 14 15 16; the octave is fret 17, and they land on 16.',
    ),
  ).toBeVisible();
  // The neck itself shows the steps: the landing, and the octave that it misses.
  await expect(
    neck(page).getByRole('gridcell', { name: 'String 6, fret 16: G♯, where the steps land' }),
  ).toBeVisible();
  await expect(neck(page).getByRole('gridcell', { name: 'String 6, fret 17: A, the octave' })).toBeVisible();
  await expect(neck(page)).toContainText('1 fret short');
  await expect(page.getByRole('button', { name: 'Lay it out' })).toBeDisabled();
  await page.keyboard.press('Escape');
  await task(page, 'Shape').click();
  await task(page, 'Formula').click();
  await part(page, 'Formula').click();
  await expect(formula).toHaveValue('W W H W W H H');
  await formula.fill('W W H W W W H');
  await page.getByRole('button', { name: 'Lay it out' }).click();
  await says(page, 'A major');
  const run = page.getByRole('list', { name: 'The run, note by note' });
  await expect(run).toContainText('string 6 fret 17');
  await expect(neck(page).getByRole('gridcell', { name: /note \d/ })).toHaveCount(8);
  const fifth = (at: string): RegExp => new RegExp(`^String ${at}: E, note 5, degree 5, `);
  await expect(neck(page).getByRole('gridcell', { name: fifth('6, fret 12') })).toHaveCount(1);
  // The notes are seen to travel, and come to rest where they are now. Travels are counted as they begin: they are short.
  await page.evaluate(() => {
    const { animate } = Element.prototype;
    Element.prototype.animate = function (...how) {
      document.body.dataset['travels'] = String(Number(document.body.dataset['travels'] ?? 0) + 1);
      return animate.apply(this, how);
    };
  });
  await choose(page, 'Where it is laid out', 'on two strings');
  await expect
    .poll(async () => Number(await page.locator('body').getAttribute('data-travels')))
    .toBeGreaterThan(2);
  await expect(page.getByText(/fret 12 of string 6 is fret 7 of string 5/)).toBeVisible();
  await expect(neck(page).getByRole('gridcell', { name: fifth('5, fret 7') })).toHaveCount(1);
  await expect.poll(() => labelAt(page, 5, 7)).toBe('5');
  await expect(
    neck(page).getByRole('gridcell', { name: 'String 6, fret 12: E, moved to string 5 fret 7' }),
  ).toBeVisible();
  await choose(page, 'Where it is laid out', 'in position');
  await expect(page.getByText(/fret 9 of string 6 is fret 4 of string 5/)).toBeVisible();
  await choose(page, 'Where it is laid out', 'on one string');
  await choose(page, 'Direction', 'going down');
  await expect(run.getByRole('listitem').last()).toContainText('open string 6');
  await choose(page, 'Start on', '2');
  await expect(page.getByText('Begun on 2 these notes are B Dorian.')).toBeVisible();
  await set(page, 'Formula', (body) => body.getByRole('switch', { name: '♭7', exact: true }).click());
  await expect(sentence(page)).toContainText('bebop dominant');
});

test('the shape is explained: fingers, signature, jog, law, roots, reach, and other schools beside it', async ({
  page,
}) => {
  await open(page, A_PENTATONIC);
  await expect(frets(page)).toHaveText('5 8 / 5 7 / 5 7 / 5 7 / 5 8 / 5 8');
  const panel = panelOf(page, 'Shape');
  await panel.getByText('More about this shape').click();
  await expect(panel).toContainText('1 4 / 1 3 / 1 3 / 1 3 / 1 4 / 1 4');
  await expect(panel).toContainText('these strings are a major third (4 half steps) apart, not a fourth (5)');
  await expect(panel).toContainText('The wide steps (3 frets) follow the root and the 5');
  await expect(panel).toContainText(
    'String 6 fret 5 (index finger), string 4 fret 7 (ring finger) and string 1 fret 5 (index finger).',
  );
  await choose(page, 'Fingers', 'three fingers');
  await expect(
    panel
      .getByRole('row', { name: /^string 6/ })
      .getByRole('cell')
      .nth(0),
  ).toHaveText('1 4');
  await expect(
    panel
      .getByRole('row', { name: /^string 6/ })
      .getByRole('cell')
      .nth(1),
  ).toHaveText('1 stretch 3');
  const close = panel.getByRole('img', { name: 'position 1 close up, with fingers' });
  const fingers = async (): Promise<string> => (await close.locator('.mark').allTextContents()).join('');
  const before = await fingers();
  await choose(page, 'Which fingering', 'second way');
  await expect.poll(fingers).not.toBe(before);
  await expect(panel.getByText(/A wide stretch/)).toBeHidden();
  // What a position has in common with those that the player knows.
  await panel.getByRole('switch', { name: 'You know this shape' }).click();
  await page.getByRole('button', { name: 'position 2, frets 7 to 10' }).click();
  await expect(panel.getByText('Compared with the positions you know')).toBeVisible();
  await expect(panel.getByText('6 notes of it lie in position 1 too.')).toBeVisible();
  await expect(page).toHaveURL(/front=1\.7/);
  await page.reload();
  await expect(page.getByRole('button', { name: 'position 2, frets 7 to 10', pressed: true })).toBeVisible();
  await page.getByRole('button', { name: 'position 1, an octave up, frets 17 to 20, known' }).click();
  await panel.getByRole('switch', { name: 'You know this shape' }).click();
  await expect(
    page.getByRole('button', { name: 'position 1, an octave up, frets 17 to 20', exact: true }),
  ).toBeVisible();
  await open(page, '/new?root=F&scale=major&at=6.1&layout=count.3');
  await expect(panel.getByText(/Stop at pain, numbness or tingling/)).toBeVisible();
});

test('a nine-string with 27 frets and a four-string bass', async ({ page }) => {
  await open(page, A_PENTATONIC);
  await chooseTuning(page, 'C# F# B E A D G B E');
  const body = await openPart(page, 'Tuning');
  await body.getByLabel('Frets').fill('27');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('grid', { name: 'Neck, 9 strings, 27 frets' })).toBeVisible();
  await chooseScale(page, 'phrygian dominant');
  await says(page, 'three notes per string, in C♯ F♯ B E A D G B E');
  await expect.poll(() => labelAt(page, 9, 27)).toBe('5');
  await spot(page, 9, 20).click({ force: true });
  await says(page, 'root on string 9 fret 20');
  const list = await openPart(page, 'Tuning');
  await list.getByRole('button', { name: 'four-string bass', exact: true }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('grid', { name: 'Neck, 4 strings, 21 frets' })).toBeVisible();
  await says(page, 'root on string 4');
});

test('a screen that is turned, or a window that is made narrower and wider, keeps its neck', async ({
  page,
}) => {
  await open(page, '/new?root=A&scale=minor-pentatonic&at=6.5&layout=count.2');
  const roots = (): Promise<number> => neck(page).locator('.mark-root').count();
  const before = await roots();
  expect(before).toBeGreaterThan(1);
  await page.setViewportSize({ width: 420, height: 900 });
  await expect.poll(roots).toBeGreaterThan(1);
  await page.setViewportSize({ width: 1280, height: 800 });
  await expect.poll(roots).toBe(before);
  await page.keyboard.press('+');
  await says(page, 'B♭ minor pentatonic');
});
