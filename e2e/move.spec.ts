import { type Locator, type Page } from '@playwright/test';
import { choose, labelAt, makeChart, open, panel, part, saved, says, set, spot, task } from './player.ts';
import { expect, test } from './test.ts';

const PENTATONIC = '/new/move?root=A&scale=minor-pentatonic&at=6.5&layout=count.2';
const move = (page: Page): Locator => panel(page, 'Move');
const happens = (page: Page): Locator => move(page).getByRole('status', { name: 'What happens' });
const button = (page: Page, name: string): Locator => move(page).getByRole('button', { name, exact: true });

test('a position is moved to a key where it leaves the neck; it is applied, and taken back', async ({
  page,
}) => {
  await open(page, `${PENTATONIC}&front=0.17`);
  await choose(page, 'Key', 'C');
  await expect(happens(page)).toContainText('The neck shows C minor pentatonic, not applied yet.');
  await expect(happens(page)).toContainText(
    'All of it goes 9 frets down, an octave from where it would leave the neck.',
  );
  await expect(happens(page)).toContainText('string 6 fret 8');
  await move(page).getByText('The root on each string').click();
  await expect(move(page)).toContainText('string 6: 8 and 20; string 5: 3 and 15;');
  // Before and after on one neck.
  await expect(spot(page, 6, 17)).toHaveAccessibleName(/where it was$/);
  await expect(spot(page, 6, 8)).toHaveAccessibleName(/moved$/);
  await says(page, 'A minor pentatonic');
  await expect(page).toHaveURL(/move=key\.3/);
  await page.reload();
  await expect(happens(page)).toContainText('All of it goes 9 frets down');
  await button(page, 'Leave').click();
  await expect(happens(page)).toBeHidden();
  await set(page, 'Steps', async (body) => {
    await body.getByRole('button', { name: 'Fourth up' }).click();
    await body.getByRole('button', { name: 'Half step down' }).click();
  });
  await expect(part(page, 'Steps')).toContainText('4 half steps up');
  // What the neck shows is said wherever one looks, and left as it is it waits.
  const shows = 'The neck shows C♯ minor pentatonic, not applied';
  await expect(page.getByText(`${shows}; sentence and ladder are as before.`)).toBeVisible();
  await expect(page.getByText(/the neck shows C♯ minor pentatonic, not applied\./)).toBeAttached();
  await spot(page, 6, 9).focus();
  await expect(page.getByText(/^Moved, not applied: String 6, fret 9: C♯/)).toBeVisible();
  await task(page, 'Shape').click();
  await expect(page.getByText('To C♯ minor pentatonic: not applied, it waits in Move.')).toBeVisible();
  await task(page, 'Move').click();
  await expect(happens(page)).toContainText(shows);
  await button(page, 'Apply').click();
  await says(page, 'C♯ minor pentatonic');
  await page.keyboard.press('Control+z');
  await says(page, 'A minor pentatonic');
  // The notes glide back to where they were.
  await expect.poll(() => labelAt(page, 6, 17)).toBe('1');
});

test('a six-string chart goes to other tunings and a seven-string, its notes kept or its grip', async ({
  page,
}) => {
  await open(page, `${PENTATONIC}&look=tuning`);
  const to = {
    selectOption: (name: string): Promise<void> =>
      set(page, 'To the tuning or instrument', (body) =>
        body.getByLabel('To the tuning or instrument').selectOption(name),
      ),
  };
  const [notes, grip] = ['Keep the notes', 'Keep the grip'].map((name) =>
    move(page).getByRole('region', { name, exact: true }),
  );
  await to.selectOption('drop D');
  await expect(notes!).toContainText('String 6 is tuned 2 half steps down, so its marks move 2 frets up.');
  await expect(notes!).toContainText('The hand at fret 5 no longer covers string 6: 2 frets too far, 45 mm.');
  await expect(grip!).toContainText('The notes make no scale of the catalogue over G.');
  await to.selectOption('D A D G A D');
  await expect(notes!).toContainText('The hand at fret 5 no longer covers string 6');
  await expect(grip!).toContainText('The notes make A Phrygian, its root on string 4 fret 7.');
  await expect(grip!).toContainText(
    'Seen from where the root was, they make G Dorian, its root on string 6 fret 5.',
  );
  await to.selectOption('all fourths');
  await expect(notes!).toContainText('String 1 is tuned 1 half step up, so its marks move 1 fret down.');
  await to.selectOption('half a step down');
  await expect(grip!).toContainText('The notes make G♯ minor pentatonic, its root on string 6 fret 5.');
  await set(page, 'To the tuning or instrument', async (body) => {
    await body.getByLabel('To the tuning or instrument').selectOption('strings that I type');
    await body.getByLabel('Strings, lowest first').fill('B1 E2 A2 D3 G3 B3 E4');
  });
  await expect(notes!).toContainText('Nothing changes on these strings.');
  await to.selectOption('drop D');
  await notes!.getByRole('button', { name: /^Lay it out anew/ }).click();
  await says(page, 'in D A D G B E');
  await page.keyboard.press('Control+z');
  await says(page, 'two notes per string, in E A D G B E');
});

test('two instruments in one chart, kept over a reload and switched between', async ({ page, request }) => {
  const id = await makeChart(request, 'Two on the car deck');
  await open(page, `/charts/${id}/move?look=tuning&to=t:drop-d`);
  await button(page, 'Keep both instruments in this chart: the notes').click();
  await says(page, 'root on string 6 fret 7, two notes per string, in D A D G B E');
  await expect(saved(page)).toBeVisible();
  await page.goto(`/charts/${id}/shape`);
  const all = page.getByRole('group', { name: 'Instruments of this chart' });
  await set(page, 'Tuning', async () => {
    await expect(all).toContainText('drop D');
    await all.getByRole('button', { name: 'six-string', exact: true }).click();
  });
  await says(page, 'root on string 6 fret 5, two notes per string, in E A D G B E');
  await expect(saved(page)).toBeVisible();
  await page.reload();
  await says(page, 'in E A D G B E');
  await set(page, 'Tuning', async () => {
    await all.getByRole('button', { name: 'Take drop D out of this chart' }).click();
    await expect(all).toBeHidden();
  });
  await page.keyboard.press('Control+z');
  await set(page, 'Tuning', () => expect(all).toContainText('drop D'));
});

test('the fourths pattern in three steps, and one drill with a forgotten jog', async ({ page }) => {
  await open(page, `${PENTATONIC}&look=fourths`);
  const step = move(page).getByRole('status', { name: 'This step' });
  await expect(step).toContainText('The anchor: a root, here on string 6 fret 5.');
  const next = move(page).getByRole('button', { name: 'Next step' });
  await next.click();
  await expect(step).toContainText('it covers frets 5 to 9');
  // As if all strings were fourths apart: string 2 has fret 5 and 7, where the scale has 6 and 8 in the end.
  await expect(spot(page, 2, 7)).toHaveAccessibleName('String 2, fret 7: in the pattern, degree ♭7');
  await next.click();
  await expect(step).toContainText(
    'String 1 moves 1 fret up, because strings 3 and 2 are a major third apart.',
  );
  await expect(spot(page, 2, 8)).toHaveAccessibleName(/degree ♭7.*in the window$/);
  await expect(move(page).getByRole('region', { name: 'The rule of this tuning' })).toContainText(
    'Root on strings 2 and 1: strings 6, 5, 4 and 3 move 1 fret down.',
  );
  await button(page, 'Drill it').click();
  const asked = move(page).getByText(/lay the window over it/);
  const judged = move(page).getByRole('status', { name: 'Judgement' });
  // Until a root is asked for whose window crosses the jog upward.
  for (let i = 0; i < 40 && !/root on string [3-6] /.test((await asked.textContent())!); i++)
    await button(page, 'Another one').click();
  const text = (await asked.textContent())!;
  const [, root, , low, high] = /root on string (\d) fret (\d+).*frets (\d+) to (\d+)/
    .exec(text)!
    .map(Number);
  expect(root).toBeGreaterThan(2);
  // The player lays the window straight over all strings, and forgets the jog.
  const [key, scale] = [/^(\S+) (.*?), root/.exec(text)![1]!, /^(\S+) (.*?), root/.exec(text)![2]!];
  const OFFSETS: Readonly<Record<string, readonly number[]>> = {
    'minor pentatonic': [0, 3, 5, 7, 10],
    'major pentatonic': [0, 2, 4, 7, 9],
    Dorian: [0, 2, 3, 5, 7, 9, 10],
    Mixolydian: [0, 2, 4, 5, 7, 9, 10],
  };
  const pc = ['C', 'C♯', 'D', 'D♯', 'E', 'F', 'F♯', 'G', 'G♯', 'A', 'A♯', 'B'].indexOf(
    key.replace('D♭', 'C♯').replace('E♭', 'D♯').replace('G♭', 'F♯').replace('A♭', 'G♯').replace('B♭', 'A♯'),
  );
  const open6 = [4, 11, 7, 2, 9, 4];
  const inScale = (string: number, fret: number): boolean =>
    OFFSETS[scale]!.includes((open6[string - 1]! + fret - pc + 24) % 12);
  const place = async (string: number, fret: number): Promise<void> =>
    spot(page, string, fret).click({ force: true });
  for (let string = 6; string >= 1; string--)
    for (let fret = low!; fret <= high!; fret++)
      // On strings 2 and 1 the true spots lie a fret higher; what is placed is where they would be without the jog.
      if (inScale(string, string <= 2 ? fret + 1 : fret)) await place(string, fret);
  await button(page, 'Check').click();
  await expect(judged).toContainText('String 2: the jog from string 3 to 2 was forgotten.');
  await expect(judged).toContainText('String 1: the jog from string 3 to 2 was forgotten.');
  for (let string = 2; string >= 1; string--)
    for (let fret = low!; fret <= high!; fret++) if (inScale(string, fret + 1)) await place(string, fret);
  for (let string = 2; string >= 1; string--)
    for (let fret = low!; fret <= high!; fret++) if (inScale(string, fret + 1)) await place(string, fret + 1);
  await button(page, 'Check').click();
  await expect(judged).toContainText('All of it is right');
});
