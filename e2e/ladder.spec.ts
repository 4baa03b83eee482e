import { type Locator, type Page } from '@playwright/test';
import {
  choose,
  fromMenu,
  held,
  labelAt,
  makeChart,
  mark,
  neck,
  open,
  panel,
  part,
  saved,
  says,
  set,
  spot,
  turnSheet,
} from './player.ts';
import { expect, test } from './test.ts';

const PENTATONIC = '/new/ladder?root=A&scale=minor-pentatonic&at=6.5&layout=count.2';
const ladder = (page: Page): Locator => panel(page, 'Ladder');
const look = (page: Page, name: string): Promise<void> => choose(page, 'Look at', name);
const rungs = (page: Page): Locator => page.getByRole('group', { name: 'Ladder of positions' });

test('every position with its lowest note and roots; the rungs are walked by keys', async ({ page }) => {
  await open(page, PENTATONIC);
  const row = ladder(page).getByRole('row', { name: /^position 1\b.*in front/ });
  await expect(row).toContainText('5 to 8');
  await expect(row).toContainText('A, string 6 fret 5');
  await expect(row).toContainText(
    'string 6 fret 5 (index finger), string 4 fret 7 (ring finger) and string 1 fret 5 (index finger)',
  );
  await expect(row).toContainText('6 notes');
  const front = (name: RegExp): Locator => rungs(page).getByRole('button', { name, pressed: true });
  await front(/^position 1, frets 5 to 8/).focus();
  await page.keyboard.press('ArrowRight');
  await expect(front(/^position 2, frets 7 to 10/)).toBeFocused();
  await page.keyboard.press('Home');
  await expect(front(/^position 4, frets 0 to 3/)).toBeFocused();
  await page.keyboard.press('End');
  await expect(front(/^position 2, an octave up/)).toBeFocused();
});

test('two neighbours: the seam is read string by string, and any two positions are compared', async ({
  page,
}) => {
  await open(page, PENTATONIC);
  await look(page, 'Two positions');
  const seam = ladder(page).getByLabel('The seam, string by string');
  await expect(seam).toContainText(
    'fret 7, your ring finger below, your index finger above; below only fret 5; above only fret 9.',
  );
  await expect(neck(page).locator('.mark-shared')).toHaveCount(6);
  await expect(
    neck(page).getByRole('gridcell', {
      name: 'String 3, fret 7: D, degree 4, ring finger, in both positions',
    }),
  ).toBeVisible();
  await expect(
    neck(page).getByRole('gridcell', { name: 'String 3, fret 9: E, degree 5, in position 2 alone' }),
  ).toBeVisible();
  await choose(page, 'Compare with', 'position 3');
  await expect(ladder(page)).toContainText('They share no note.');
  await expect(page).toHaveURL(/with=2\.9/);
  await page.reload();
  await expect(ladder(page)).toContainText('They share no note.');
  await choose(page, 'Compare with', 'position 5');
  await expect(seam).toContainText(
    'fret 5, your little finger below, your index finger above; below only fret 2; above only fret 7.',
  );
});

test('a root is an anchor: the positions that hold it, and the octave jumps', async ({ page }) => {
  await open(page, PENTATONIC);
  await look(page, 'Roots');
  await expect(ladder(page)).toContainText('From strings 6 and 5: two strings up and two frets up.');
  await expect(ladder(page)).toContainText('From strings 4 and 3: two strings up and three frets up.');
  await expect(ladder(page)).toContainText('position 1: strings 6 and 1.');
  await ladder(page)
    .getByRole('button', { name: /^The root: / })
    .click();
  await page
    .getByRole('dialog', { name: 'The root' })
    .getByRole('button', { name: 'string 4 fret 7', exact: true })
    .click();
  await says(page, 'root on string 4 fret 7');
  const held = ladder(page).getByRole('listitem').filter({ hasText: 'position 2' }).first();
  await expect(held).toContainText('index finger; on its string nothing below, C at fret 10 above.');
  // Without the panel, on the neck itself.
  await spot(page, 2, 10).focus();
  await page.keyboard.press('Enter');
  await expect(ladder(page)).toContainText('The root on string 2 fret 10');
});

test('positions from where the hand is, by frets and strings or by a chord', async ({ page }) => {
  await open(page, PENTATONIC);
  await look(page, 'From the hand');
  await set(page, 'Hand', async (body) => {
    await body.getByLabel('To fret').fill('7');
    await body.getByLabel('Lowest string', { exact: true }).fill('5');
  });
  const found = ladder(page).getByRole('list', { name: 'Positions from the hand' }).getByRole('listitem');
  await expect(found.first()).toContainText(
    'position 1: 8 notes under the hand, the hand stays; the nearest root is on string 4 fret 7.',
  );
  await expect(found.nth(1)).toContainText('position 2: 3 notes under the hand, the hand goes 2 frets up');
  await set(page, 'Hand', async (body) => {
    const chord = body.getByLabel('Or the frets of a chord, lowest string first');
    await chord.fill('x 7 7 6 5');
    await expect(
      ladder(page)
        .getByRole('paragraph')
        .filter({ hasText: /^A chord here has 6 frets/ }),
    ).toBeVisible();
    await chord.fill('x 7 7 6 5 5');
  });
  await expect(found.first()).toContainText('position 1: 4 notes under the hand');
  await expect(
    neck(page).getByRole('gridcell', { name: 'String 3, fret 6: C♯, held, outside the scale' }),
  ).toBeVisible();
  await found.nth(1).getByRole('button').click();
  await expect(rungs(page).getByRole('button', { pressed: true })).toHaveAccessibleName(/^position 2/);
});

test('the neck is cut into regions; the boundary is moved by keys and typed', async ({ page }) => {
  await open(page, PENTATONIC);
  await look(page, 'Regions');
  const boundary = ladder(page).getByRole('slider', { name: 'Boundary' });
  await expect(boundary).toHaveAttribute('aria-valuenow', '7');
  await expect(ladder(page)).toContainText(
    'Frets 0 to 6:string 3 frets 2 and 5; string 2 frets 3 and 5; string 1 frets 3 and 5.',
  );
  await boundary.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(boundary).toHaveAttribute('aria-valuenow', '9');
  await expect(ladder(page)).toContainText('Frets 9 to 22:');
  await set(page, 'Boundaries', (body) => body.getByLabel('The high region begins at fret').fill('12'));
  await expect(boundary).toHaveAttribute('aria-valuenow', '12');
  const box = (await boundary.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + 8);
  await page.mouse.down();
  await page.mouse.move((await mark(page, 6, 5).boundingBox())!.x, box.y + 8, { steps: 6 });
  await page.mouse.up();
  await expect(boundary).toHaveAttribute('aria-valuenow', '5');
  await expect(page).toHaveURL(/cut=5/);
  await set(page, 'Boundaries', (body) => body.getByRole('button', { name: 'Another boundary' }).click());
  await expect(ladder(page)).toContainText('Frets 5 to 9:');
  // Another octave is laid out where most regions have room for it.
  await expect(ladder(page).getByRole('list', { name: 'Places of the note' })).toContainText(
    'open string 5: 648 mm sound, wound',
  );
  await expect(page).toHaveURL(/cut=5\.10/);
  await page.reload();
  await expect(ladder(page).getByRole('slider')).toHaveCount(2);
  expect(await labelAt(page, 6, 5)).toBe('1');
  await expect(part(page, 'Root')).toBeVisible();
});

test('a climb is chosen, read, stepped through by keys; what there is no room for is said', async ({
  page,
}) => {
  await open(page, '/new/ladder?root=G&scale=major&at=6.3&layout=count.3');
  await look(page, 'Climbs');
  const way = (name: string, more?: (list: Locator) => Promise<unknown>): Promise<void> =>
    choose(page, 'Way along the neck', name, more);
  await way('relay', (list) => list.getByRole('switch', { name: 'Through all positions' }).click());
  await expect(part(page, 'Way along the neck')).toContainText('by a relay, 12 notes a leg');
  const told = ladder(page)
    .getByRole('status')
    .filter({ hasText: /^Note / });
  await expect(told).toHaveText('Note 1 of 24: string 6 fret 3, index finger, G.');
  const next = ladder(page).getByRole('button', { name: 'Next note' });
  await next.focus();
  for (let i = 0; i < 12; i++) await page.keyboard.press('ArrowRight');
  await expect(told).toHaveText(/^Note 13 of 24: .*string 4 fret 5, index finger, G\.$/);
  await page.keyboard.press('End');
  await expect(told).toHaveText(/^Note 24 of 24: string 1 fret 10, little finger, D\.$/);
  await expect(next).toBeFocused();
  // On the neck: the way, the note looked at, the place of the hand under it.
  await expect(neck(page).locator('.path')).toHaveCount(1);
  await expect(
    neck(page).getByRole('gridcell', {
      name: /^String 1, fret 10: D, degree 5, little finger, note 24 of the climb$/,
    }),
  ).toBeVisible();
  await expect(ladder(page).getByRole('img', { name: /^The hand’s stairs: at frets 3, / })).toBeVisible();
  await choose(page, 'Direction', 'down');
  await expect(told).toHaveText('Note 1 of 24: string 1 fret 10, little finger, D.');
  await set(page, 'Way along the neck', (body) => body.getByLabel('Notes of a leg').fill('7'));
  await expect(
    ladder(page).getByText('The notes of a leg are a multiple of the notes per string: 3, 6, 9 …'),
  ).toBeVisible();
  await way('diagonal');
  await expect(ladder(page).getByText(/^The diagonal needs a scale/)).toBeVisible();
  // A string skip with one note altered names the scale that it makes, or says that it is none.
  await way('string skip', async (list) => {
    const altered = list.getByRole('group', { name: 'Alter single notes by a half step' });
    await altered.getByRole('button', { name: '4', exact: true }).click();
    await expect(ladder(page).getByText(/falls on the 3/)).toBeVisible();
    await altered.getByRole('button', { name: '4 lowered' }).click();
  });
  await expect(ladder(page)).toContainText('Altered so, it is G Lydian.');
  // The way down is fingered by itself, and what differs is said.
  await open(
    page,
    '/new/ladder?root=D&scale=minor-pentatonic&at=6.10&layout=count.2&look=climbs&climb=diagonal',
  );
  await expect(ladder(page)).toContainText(
    'Coming down it is fingered otherwise: 3 1 / 3 1 s1 / 3 1 / 3 1 s1 / 3 1, where going up it is 1 3 / 1 3 s3 / 1 3 / 1 3 s3 / 1 3.',
  );
});

test('two climbs are saved with the chart, and are there after a reload, and in a new chart from this one', async ({
  page,
  request,
}) => {
  const id = await makeChart(request, 'Companionway');
  await open(page, `/charts/${id}/ladder?look=climbs`);
  const keep = async (called: string): Promise<void> => {
    await ladder(page).getByRole('button', { name: 'Keep it' }).click();
    await page.getByLabel('Keep this climb with the chart as').fill(called);
    await page.keyboard.press('Enter');
  };
  const list = page.getByRole('dialog', { name: 'Climbs kept with the chart' });
  const listed = async (many: number): Promise<void> => {
    await ladder(page)
      .getByRole('button', { name: `${many} kept` })
      .click();
  };
  for (const [way, called] of [
    ['zigzag', 'Deck to deck'],
    ['on one string', 'Along the rail'],
  ] as const) {
    await choose(page, 'Way along the neck', way);
    await keep(called);
  }
  await keep('Deck to deck');
  await expect(
    page.getByText('A climb of this chart has this name already: choose another one.').first(),
  ).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(saved(page)).toBeVisible();
  await page.reload();
  await listed(2);
  await expect(list.getByRole('listitem')).toHaveCount(2);
  await list.getByRole('button', { name: 'Along the rail', exact: true }).click();
  await expect(
    ladder(page)
      .getByRole('status')
      .filter({ hasText: /^Note 1 of / }),
  ).toContainText('string 6 fret 5, ');
  await expect(part(page, 'Way along the neck')).toContainText('on string 6 alone');
  await listed(2);
  await list.getByRole('button', { name: 'Deck to deck', exact: true }).click();
  await expect(part(page, 'Way along the neck')).toContainText('in a zigzag');
  await fromMenu(page, 'New from this');
  await expect(page).not.toHaveURL(new RegExp(id));
  await look(page, 'Climbs');
  await expect(page).toHaveURL(/look=climbs/);
  await page.reload();
  await listed(2);
  await expect(list.getByRole('listitem')).toHaveText([/Deck to deck/, /Along the rail/]);
});

test('a climb is planned; a tighter limit changes it, an impossible one is named with what loosening gives', async ({
  page,
}) => {
  await open(page, PENTATONIC);
  await look(page, 'Plan a climb');
  const told = ladder(page).getByRole('status').first();
  const plans = ladder(page).getByRole('list', { name: 'Planned climbs' }).getByRole('button');
  await expect(told).toContainText('3 ways found from string 6 fret 5 to A.');
  await expect(plans.first()).toHaveText(
    'The easiest: 0 shifts; at most 77 mm under the hand, frets 5 to 8.',
  );
  await expect(plans.nth(1)).toHaveText(/^(As easy|Harder): .*note \d+/);
  await expect(neck(page).locator('.path')).toHaveCount(1);
  await expect(part(page, 'Limits')).toContainText('no limits');
  await set(page, 'Limits', (body) => body.getByLabel('Highest string').fill('3'));
  await expect(plans.first()).toHaveText(/^The easiest: [1-9]\d* shifts?;/);
  await expect(ladder(page).getByRole('list', { name: 'Shifts' }).getByRole('listitem').first()).toHaveText(
    /^Note \d+, to string \d fret \d+ with the \w+ finger: .* (up|down) \(\d+ mm\)\.$/,
  );
  await plans.nth(1).click();
  await expect(plans.nth(1)).toHaveAttribute('aria-pressed', 'true');
  const shifts = (most: string): Promise<void> =>
    set(page, 'Limits', (body) => body.getByLabel('Most shifts').fill(most));
  await shifts('0');
  await expect(ladder(page)).toContainText('There is no way under');
  await expect(ladder(page).getByRole('list', { name: 'What loosening gives' })).toContainText(
    /Without the number of shifts: a way with [1-9]\d* shifts?\./,
  );
  await shifts('9');
  await expect(told).toContainText('ways found');
  await expect(page).toHaveURL(/plan=root\.o2\.one\.[^&]*\.9\.100/);
  await page.reload();
  await expect(part(page, 'Limits')).toContainText('the strings and the number of shifts');
  await expect(plans.first()).toHaveText(/^The easiest: [1-9]/);
});

test('a long plan is called off, and the page goes on meanwhile', async ({ page }) => {
  await open(
    page,
    '/new/ladder?root=C%23&scale=major&at=9.0&layout=count.3&strings=C%231.F%231.B1.E2.A2.D3.G3.B3.E4.A4.D5.G5&neck=36.700.0.5.right',
  );
  // A planner that does not come stands for a long plan.
  const go = await held(page, '**/assets/planner-*', 'GET');
  await look(page, 'Plan a climb');
  await ladder(page).getByRole('button', { name: 'Cancel' }).click();
  await expect(ladder(page).getByRole('status').first()).toContainText('The plan was called off.');
  go();
  await ladder(page).getByRole('button', { name: 'Plan again' }).click();
  await expect(ladder(page).getByRole('status').first()).toContainText(/^[1-9] ways? found from/, {
    timeout: 60_000,
  });
});

test.describe('on a narrow, upright screen', () => {
  test.use({ viewport: { width: 420, height: 900 } });
  test('the boundary is dragged beside the neck, and the stairs stand there', async ({ page }) => {
    await open(page, `${PENTATONIC}&look=regions`);
    const boundary = page.getByRole('slider', { name: 'Boundary' });
    await boundary.focus();
    await page.keyboard.press('ArrowDown');
    await expect(boundary).toHaveAttribute('aria-valuenow', '8');
    await boundary.scrollIntoViewIfNeeded();
    const [box, to] = [(await boundary.boundingBox())!, (await mark(page, 6, 5).boundingBox())!];
    await page.mouse.move(box.x + 12, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + 12, to.y, { steps: 5 });
    await page.mouse.up();
    await expect(boundary).toHaveAttribute('aria-valuenow', '5');
    await turnSheet(page, 'Ladder');
    await look(page, 'Climbs');
    await turnSheet(page, 'Ladder');
    const stairs = page.getByRole('img', { name: /^The hand’s stairs: at frets 5, / });
    await expect(stairs).toBeVisible();
    expect((await stairs.boundingBox())!.height).toBeGreaterThan(400);
  });
});
