import {
  chooseScale,
  frets,
  fromMenu,
  intercept,
  mark,
  neck,
  open,
  openCorner,
  part,
  saveAs,
  saved,
  says,
} from './player.ts';
import { expect, test } from './test.ts';

test('the whole path: demo, another scale, a root on string 5, save, reload, list, open, delete, undo', async ({
  page,
}) => {
  await page.goto('/charts');
  await page.getByRole('searchbox', { name: 'Find charts' }).fill('slow bow');
  await page.waitForURL(/find=slow/);
  await page.getByRole('link', { name: 'Slow Bow Door' }).click();
  await says(page, 'F♯ Dorian, root on string 6 fret 2, three notes per string, in E A D G B E.');
  await fromMenu(page, 'New from this');
  await chooseScale(page, 'minor pentatonic');
  await expect(part(page, 'Layout')).toContainText('two notes per string');
  // Any spot can become the root, one outside the scale too: B♭ on string 5.
  const box = (await neck(page).boundingBox())!;
  const five = (await mark(page, 5, 2).boundingBox())!;
  const nut = (await mark(page, 6, 2).boundingBox())!;
  expect(nut.x).toBeGreaterThan(box.x);
  await page.mouse.click(five.x - box.width * 0.05, five.y + five.height / 2);
  await says(page, 'B♭ minor pentatonic, root on string 5 fret 1');
  await expect(frets(page)).toHaveText('1 4 / 1 4 / 1 3 / 1 3 / 2 4 / 1 4');
  await saveAs(page, 'Fog over the strait');
  await expect(saved(page)).toBeVisible();
  await page.reload();
  await says(page, 'B♭ minor pentatonic');
  await page.getByRole('link', { name: 'Charts' }).click();
  await page.getByRole('searchbox', { name: 'Find charts' }).fill('fog');
  await page.waitForURL(/find=fog/);
  await page.getByRole('link', { name: 'Fog over the strait' }).click();
  await expect(frets(page)).toHaveText('1 4 / 1 4 / 1 3 / 1 3 / 2 4 / 1 4');
  await page.goBack();
  await page.getByRole('button', { name: 'Delete Fog over the strait' }).click();
  await expect(page.getByRole('link', { name: 'Fog over the strait' })).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: 'Fog over the strait' })).toBeVisible();
});

test('a link carries the whole unsaved state, and a broken one says what is wrong', async ({ page }) => {
  await open(page, '/new?root=Eb&scale=lydian&at=7.4&layout=reach.4&strings=B1.E2.A2.D3.G3.B3.E4');
  await says(page, 'E♭ Lydian, root on string 7 fret 4, within a reach of 4 frets, in B E A D G B E');
  await (await openCorner(page)).getByRole('switch', { name: 'Roots alone' }).click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('+');
  await says(page, 'E Lydian');
  // From its first change on it has an address of its own, which says no more than which chart it is.
  await expect(page).toHaveURL(/\/charts\/[\w-]+\/shape$/);
  await page.reload();
  await says(page, 'E Lydian, root on string 7 fret 5');
  await page.goto('/new?root=Q&scale=lydian');
  await expect(page.getByText(/The address could not be read: The root is a note A to G/)).toBeVisible();
  await page.goto('/new/juggling?root=A&scale=major&at=6.5&layout=count.3');
  await expect(page.getByText('A chart has no task “juggling”. Shown instead: Shape.')).toBeVisible();
  await open(page, '/new?root=A&scale=minor-pentatonic&at=6.5&layout=count.2&front=2.8');
  await expect(
    page.getByText(
      'The position that was asked for, from fret 8, is not in this layout here. In front is position 1, the one through the root.',
    ),
  ).toBeVisible();
  await page.goto('/charts/none');
  await expect(page.getByRole('heading', { name: 'This chart cannot be opened' })).toBeVisible();
});

test('a page that fails says so, and there is a way on', async ({ page }) => {
  const go = await intercept(page, '**/api/settings', (route) => route.fulfill({ json: { theme: 'paper' } }));
  await page.goto('/new');
  await expect(page.getByRole('heading', { name: 'This page has stopped' })).toBeVisible();
  go();
  await page.getByRole('button', { name: 'Load it again' }).click();
  await expect(neck(page)).toBeVisible();
});
