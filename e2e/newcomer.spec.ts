import { type Page } from '@playwright/test';
import {
  choose,
  chooseTuning,
  fromMenu,
  makeChart,
  neck,
  open,
  openCorner,
  openPart,
  part,
  says,
  spot,
} from './player.ts';
import { expect, test } from './test.ts';

const PENTATONIC = '/new?root=A&scale=minor-pentatonic&at=6.5&layout=count.2';
const press = async (page: Page, ...keys: readonly string[]): Promise<void> => {
  for (const key of keys) await page.keyboard.press(key);
};
const changed = (page: Page) => page.getByRole('status', { name: 'What changed' });

test.describe('by keyboard alone', () => {
  test('a chart is found, its root picked on the neck, a formula mended, the tuning changed', async ({
    page,
    request,
  }) => {
    await makeChart(request, 'Quayside keys');
    await page.goto('/charts');
    await page.getByRole('searchbox', { name: 'Find charts' }).focus();
    await page.keyboard.type('quayside');
    await expect(page.getByRole('listitem')).toHaveCount(1);
    await expect(page.getByRole('searchbox')).toHaveValue('quayside');
    await expect(changed(page)).toHaveText('1 chart found.');
    await expect(async () => {
      await press(page, 'Tab');
      await expect(page.getByRole('link', { name: 'Quayside keys' })).toBeFocused({ timeout: 50 });
    }).toPass({ intervals: [10] });
    await press(page, 'Enter');
    await expect(neck(page)).toBeVisible();
    await expect(page.getByRole('heading', { level: 1, name: 'Quayside keys' })).toBeFocused();
    // The list of keys begins at the key there is, and picking on the neck ends there.
    await press(page, 'r');
    await expect(
      page.getByRole('dialog', { name: 'Root' }).getByRole('button', { name: 'A', exact: true }),
    ).toBeFocused();
    await page.getByRole('button', { name: 'Pick on the neck' }).focus();
    await press(page, 'Enter');
    await expect(spot(page, 6, 5)).toBeFocused();
    await press(page, 'ArrowUp', 'ArrowRight', 'ArrowRight', 'Enter');
    await says(page, 'E minor pentatonic, root on string 5 fret 7');
    await expect(spot(page, 5, 7)).toBeFocused();
    await expect(changed(page)).toHaveText(/E minor pentatonic; root on string 5 fret 7; /);
    await press(page, '2');
    await part(page, 'Formula').focus();
    await press(page, 'Enter');
    await expect(page.getByLabel('Formula: steps, degrees or notes')).toBeFocused();
    await press(page, 'Control+a');
    await page.keyboard.type('WWHWWHH');
    await expect(page.getByText(/the sixth step may be short by 1/).first()).toBeVisible();
    await press(page, 'Control+a');
    await page.keyboard.type('WWHWWWH');
    await press(page, 'Enter');
    await says(page, 'E major');
    await page.getByRole('heading', { level: 1 }).focus();
    await press(page, 'i');
    const strings = page.getByRole('dialog', { name: 'Tuning' }).getByLabel('Strings, lowest first');
    await expect(strings).toBeFocused();
    await press(page, 'Control+a');
    await page.keyboard.type('drop d');
    await press(page, 'Enter', 'Escape');
    await says(page, 'in D A D G B E.');
    await expect(part(page, 'Tuning')).toBeFocused();
  });

  test('charts are renamed and deleted; both come back with the undo key, and the bin holds what is left in it', async ({
    page,
    request,
  }) => {
    for (const name of ['Mooring one', 'Mooring two', 'Mooring three']) await makeChart(request, name);
    await page.goto('/charts?find=mooring');
    const names = page.getByRole('link', { name: /^Mooring/ });
    await expect(names).toHaveCount(3);
    await page.getByRole('button', { name: 'Rename Mooring one' }).focus();
    await press(page, 'Enter');
    await expect(page.getByLabel('Name', { exact: true })).toBeFocused();
    await page.keyboard.type('Mooring first');
    await press(page, 'Enter');
    await expect(page.getByRole('link', { name: 'Mooring first' })).toBeVisible();
    await expect(page.getByRole('button', { name: 'Rename Mooring first' })).toBeFocused();
    for (const name of ['Mooring two', 'Mooring three']) {
      await page.getByRole('button', { name: `Delete ${name}` }).focus();
      await press(page, 'Enter');
      await expect(page.getByRole('link', { name })).toBeHidden();
      await expect(page.locator('body')).not.toBeFocused();
    }
    await page.getByRole('heading', { name: 'Charts' }).focus();
    await press(page, 'Control+z');
    await expect(page.getByRole('link', { name: 'Mooring three' })).toBeVisible();
    await press(page, 'Control+z');
    await expect(names).toHaveCount(3);
    await page.getByRole('button', { name: 'Delete Mooring two' }).click();
    await page.getByRole('link', { name: 'Bin', exact: true }).click();
    const row = page.getByRole('listitem').filter({ hasText: 'Mooring two' });
    await expect(row).toContainText('30 days left');
    await row.getByRole('button', { name: /^Bring back/ }).click();
    await expect(row).toBeHidden();
    await page.goto('/charts?find=mooring');
    await expect(names).toHaveCount(3);
    await page.getByRole('button', { name: 'Delete Mooring two' }).click();
    await page.getByRole('link', { name: 'Bin', exact: true }).click();
    await row.getByRole('button', { name: /^Discard/ }).click();
    await expect(row).toBeHidden();
    expect((await (await request.get('/api/bin')).json()) as { name: string }[]).not.toContainEqual(
      expect.objectContaining({ name: 'Mooring two' }),
    );
  });

  test('after every action focus is on something that is seen', async ({ page, request }) => {
    const id = await makeChart(request, 'Lost and found');
    await makeChart(request, 'Lost luggage');
    /** What has focus, and whether it can be seen; what closes hands it back a moment later. */
    const focused = () =>
      page.evaluate(() => {
        const e = document.activeElement!;
        const box = e.getBoundingClientRect();
        const seen = box.width > 1 && box.height > 1 && box.bottom > 0 && box.top < window.innerHeight;
        const above = document.querySelector('main .sticky')?.getBoundingClientRect();
        const covered =
          above && !e.closest('.sticky, [role="dialog"]') && above.top <= 0 && box.bottom <= above.bottom;
        return { lost: e === document.body, seen, covered: Boolean(covered) };
      });
    const act = async (what: string, work: () => Promise<unknown>): Promise<void> => {
      await work();
      await expect
        .poll(async () => ({ what, ...(await focused()) }), { intervals: [20, 50, 100, 250] })
        .toEqual({ what, lost: false, seen: true, covered: false });
    };
    const click = (name: string | RegExp) => () => page.getByRole('button', { name }).first().click();
    const dialog = page.getByRole('dialog');
    await page.goto(`/charts/${id}`);
    await neck(page).waitFor();
    await page.getByRole('button', { name: /^How the neck is drawn/ }).focus();
    for (const key of ['r', '?']) {
      await act(`opens ${key}`, () => press(page, key).then(() => dialog.waitFor()));
      await act(`closes ${key}`, () => press(page, 'Escape').then(() => dialog.waitFor({ state: 'hidden' })));
    }
    await act('goes to the neck', () => press(page, 'n'));
    await act('walks', () => press(page, 'ArrowRight', 'ArrowUp'));
    await act('moves the key', () => press(page, '+'));
    await act('undoes', () => press(page, 'Control+z'));
    await act('opens a task', () => press(page, '2'));
    await act('lays a formula out', async () => {
      const body = await openPart(page, 'Formula');
      await body.getByLabel('Formula: steps, degrees or notes').fill('1 b2 5');
      await press(page, 'Enter');
      await body.waitFor({ state: 'hidden' });
    });
    await act('opens another task', () => press(page, '1'));
    await act('unfolds what is seldom asked', () => page.getByText('More about this shape').click());
    await act('explains a word', click(/^jog: what is it/));
    await act('closes the word', () => press(page, 'Escape'));
    await act('begins a new one from this', () => fromMenu(page, 'New from this'));
    await act('asks for a name', () => click('Save chart')().then(() => dialog.waitFor()));
    await act('saves', async () => {
      await page.keyboard.type('Lost twice');
      await press(page, 'Enter');
      await dialog.waitFor({ state: 'hidden' });
    });
    await act('goes to the charts', () =>
      press(page, 'g').then(() => page.getByRole('heading', { name: 'Charts' }).waitFor()),
    );
    await act('deletes', click('Delete Lost luggage'));
    await act('undoes the delete by its button', click('Undo'));
    await act('finds nothing', () => page.getByRole('searchbox').fill('zzz'));
    await act('shows all', click('Show all charts'));
    await act('goes to the settings', () => page.getByRole('link', { name: 'Settings' }).click());
  });
});

test('what keys change is told once, and going past the last position says so', async ({ page }) => {
  await open(page, PENTATONIC);
  const tells = (text: string | RegExp): Promise<void> => expect(changed(page)).toHaveText(text);
  await press(page, '.');
  await tells('position 2, frets 7 to 10.');
  await press(page, 'l');
  await tells('marks say note names.');
  await press(page, 'o');
  await tells('roots alone.');
  await press(page, 'z');
  await tells('frets 5 to 12 shown.');
  // What changes at one moment is told in one sentence.
  await page.evaluate(() => {
    for (const key of ['z', 'o'])
      document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
  });
  await tells('all notes; the whole neck shown.');
  await press(page, '+');
  await tells(/^B♭ minor pentatonic; root on string 6 fret 6; position 2, frets 8 to 11/);
  for (let i = 0; i < 12; i++) await press(page, '.');
  // Where the end is reached in one go with the position before, both are told.
  await tells(/(^|; )this is the last position up the neck\.$/);
  await press(page, '.');
  await tells('this is the last position up the neck.');
  await expect(page).toHaveTitle('New chart, Shape – Crow Ladder');
  // A seam is read with the lower one of its rungs.
  await press(page, '3');
  await expect(
    page.getByRole('group', { name: 'Ladder of positions' }).getByRole('button').first(),
  ).toHaveAccessibleDescription(/^Seam of position \d and position \d: \d+ shared notes$/);
});

test('the mouse does not move the keyboard’s spot', async ({ page }) => {
  await open(page, PENTATONIC);
  await press(page, 'n', 'ArrowRight');
  await expect(spot(page, 6, 6)).toBeFocused();
  const box = (await spot(page, 2, 12).boundingBox())!;
  await page.mouse.move(box.x + 4, box.y + 4);
  await expect(page.getByText('String 2, fret 12:')).toBeVisible();
  await page.mouse.move(2, 2);
  await expect(page.getByText('String 6, fret 6:')).toBeVisible();
  await press(page, 'ArrowRight', 'Enter');
  await says(page, 'B minor pentatonic, root on string 6 fret 7');
});

test.describe('with a thumb', () => {
  test.use({ hasTouch: true, viewport: { width: 420, height: 900 } });

  test('a tap tells about a note, a second one makes it the root', async ({ page }) => {
    await open(page, PENTATONIC);
    // A neck that is drawn anew just then takes its cells with it: nothing was tapped, and it is tapped again.
    const tap = (string: number, fret: number): Promise<void> =>
      expect(() => spot(page, string, fret).tap({ force: true, timeout: 2000 })).toPass();
    await tap(5, 7);
    await expect(page.getByText('String 5, fret 7: E, degree 5, ring finger.')).toBeVisible();
    await says(page, 'A minor pentatonic, root on string 6 fret 5');
    await tap(5, 7);
    await says(page, 'E minor pentatonic, root on string 5 fret 7');
    await tap(4, 7);
    await page.getByRole('button', { name: 'Make it the root' }).tap();
    await says(page, 'A minor pentatonic, root on string 4 fret 7');
  });

  test('targets are as large as a thumb and words can be read, down to 320', async ({ page, request }) => {
    const id = await makeChart(request, 'Thumbs');
    for (const [width, path] of [
      [420, `/charts/${id}`],
      [320, `/charts/${id}`],
      [320, `/charts/${id}/formula`],
      [320, '/charts'],
      [320, '/instruments'],
      [320, '/settings'],
    ] as const) {
      await page.setViewportSize({ width, height: 900 });
      await page.goto(path);
      const measured = (): Promise<object> =>
        page.evaluate(() => {
          const seen = (e: Element): boolean =>
            e.getClientRects().length > 0 && e.getBoundingClientRect().width > 1;
          const small = [...document.querySelectorAll('a, button, select, input, summary')]
            .filter(seen)
            // A checkbox is pressed by its label too.
            .filter((e) => !(e instanceof HTMLInputElement && (e.type === 'checkbox' || e.type === 'file')))
            .filter((e) => {
              const { width, height } = e.getBoundingClientRect();
              const inText = e.matches('.explained') || (e.tagName === 'A' && e.closest('p'));
              return !inText && (width < 43.5 || height < 43.5);
            })
            .map(
              (e) =>
                `${e.outerHTML.slice(0, 80)} ${Math.round(e.getBoundingClientRect().width)}x${Math.round(e.getBoundingClientRect().height)}`,
            );
          const tiny = [...document.querySelectorAll('main *')]
            .filter(
              (e) => seen(e) && [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent!.trim()),
            )
            .flatMap((e) => {
              const scale =
                e instanceof SVGElement
                  ? e.closest('svg')!.getBoundingClientRect().width / e.closest('svg')!.viewBox.baseVal.width
                  : 1;
              const px = Number.parseFloat(getComputedStyle(e).fontSize) * scale;
              return px < (window.innerWidth > 400 ? 11.9 : 10)
                ? [`${e.textContent!.slice(0, 20)} ${px.toFixed(1)}`]
                : [];
            });
          const wide = document.documentElement.scrollWidth > window.innerWidth;
          const stands = document.querySelector('h1, h2') !== null;
          return { stands, small, tiny, wide };
        });
      await expect
        .poll(async () => ({ width, path, ...(await measured()) }))
        .toEqual({ width, path, stands: true, small: [], tiny: [], wide: false });
    }
  });
});

test('what a system with its own colours shows: the chosen rung, pressed buttons, the task, the seams', async ({
  page,
}) => {
  await page.emulateMedia({ forcedColors: 'active', reducedMotion: 'reduce' });
  await open(page, PENTATONIC);
  await press(page, '3', 'r');
  await page.getByRole('dialog', { name: 'Root' }).waitFor();
  const ground = (selector: string): Promise<string> =>
    page
      .locator(selector)
      .first()
      .evaluate((e) => getComputedStyle(e).backgroundColor);
  const plain = await ground('.rung[aria-pressed="false"]');
  for (const chosen of ['.rung[aria-pressed="true"]', '.button[aria-pressed="true"]', '.seam'])
    expect([chosen, await ground(chosen)]).not.toEqual([chosen, plain]);
  const edge = (current: string): Promise<string> =>
    page
      .locator(`.task${current}`)
      .first()
      .evaluate((e) => getComputedStyle(e).borderBottomColor);
  expect(await edge('[aria-current="page"]')).not.toBe(await edge(':not([aria-current])'));
  await press(page, 'Escape');
  await page.getByRole('dialog').waitFor({ state: 'hidden' });
  await press(page, '2');
  await choose(page, 'Where it is laid out', 'on two strings');
  expect(await neck(page).evaluate((svg) => svg.getAnimations({ subtree: true }).length)).toBe(0);
});

test('tunings are read as players type them, and asked about where they may mean two instruments', async ({
  page,
}) => {
  await open(page, PENTATONIC);
  for (const [typed, said] of [
    ['dadgad', 'D A D G A D'],
    ['drop d', 'D A D G B E'],
  ]) {
    await chooseTuning(page, typed!);
    await says(page, `in ${said}.`);
  }
  await chooseTuning(page, 'E A D G B E');
  const body = await openPart(page, 'Tuning');
  await body.getByLabel('Strings, lowest first').fill('E A D G');
  await body.getByRole('button', { name: 'Or E1 A1 D2 G2' }).click();
  await says(page, 'in E A D G.');
  await expect(page.getByText(/The layout is|E1/).first()).toBeVisible();
});

test('a new chart that was not saved is offered again as a draft with its time', async ({ page }) => {
  await open(page, PENTATONIC);
  await press(page, '+');
  await says(page, 'B♭ minor pentatonic');
  await page.getByRole('link', { name: 'Charts' }).click();
  await expect(page.getByRole('heading', { name: 'Charts' })).toBeVisible();
  await page.reload();
  const drafts = page.getByRole('region', { name: 'Drafts' });
  await expect(drafts).toContainText('B♭ minor pentatonic, string 6 fret 6');
  await drafts.getByRole('link', { name: /^Draft of / }).click();
  await says(page, 'B♭ minor pentatonic');
  await page.getByRole('button', { name: 'Save chart' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toBeFocused();
  await page.keyboard.type('From a draft');
  await press(page, 'Enter');
  await expect(page.getByText('Saved as “From a draft”.')).toBeVisible();
});

test('the fingers are the same wherever they are said', async ({ page }) => {
  await open(page, '/new/shape?root=F%23&scale=dorian&at=6.2&layout=count.3&school=slides&way=2&down=1');
  const shape = page.getByRole('region', { name: 'Shape', exact: true });
  await (await openCorner(page)).getByLabel('Marks say').selectOption('fingers');
  await press(page, 'Escape');
  await shape.getByRole('row').nth(6).waitFor();
  const table = await shape
    .getByRole('row')
    .filter({ hasText: /^string/ })
    .evaluateAll((rows) => rows.map((r) => r.children[3]!.firstChild!.textContent!));
  const signature = (await shape.locator('dd', { hasText: ' / ' }).nth(1).textContent())!;
  expect(signature.split(' / ')).toEqual(table);
  const tab = (await shape.getByRole('region', { name: /plain text$/ }).textContent())!.split('\n');
  const below = tab
    .filter((line) => /^ +\d/.test(line))
    .join(' ')
    .trim()
    .split(/ +/);
  expect(below).toEqual(signature.match(/\d/g)!);
  const close = await shape
    .getByRole('img', { name: /close up/ })
    .locator('.mark')
    .allTextContents();
  expect([...close].sort()).toEqual([...below].sort());
  const first = Number(below.at(-1)!);
  const words = ['open string', 'index finger', 'middle finger', 'ring finger', 'little finger'];
  await expect(spot(page, 6, 2)).toHaveAccessibleName(new RegExp(`${words[first]}$`));
});

test('a first visit says what this is for; the hints go one by one, each for good; the demo can be cleared', async ({
  page,
  request,
}) => {
  await request.patch('/api/settings', { data: { from: {}, to: { seen: [] } } });
  await open(page, PENTATONIC);
  const hint = page.getByRole('complementary', { name: 'Hint' });
  await expect(hint).toContainText('maps scale shapes on the neck');
  await expect(hint).toContainText('Map:');
  await spot(page, 5, 7).click({ force: true });
  await expect(hint).toContainText('Connect:');
  await press(page, '.');
  await expect(hint).toContainText('Move:');
  await press(page, '+');
  await expect(hint).toBeHidden();
  await page.reload();
  await expect(neck(page)).toBeVisible();
  await expect(hint).toBeHidden();
  // Put away, the card takes along all that it would still have said.
  await request.patch('/api/settings', { data: { from: {}, to: { seen: [] } } });
  await page.reload();
  await hint.getByRole('button', { name: 'Close the hints' }).click();
  await expect(hint).toBeHidden();
  await press(page, '.', '+');
  await page.reload();
  await expect(neck(page)).toBeVisible();
  await expect(hint).toBeHidden();
});

test('on paper there are no menus and hints, and what is chosen is plain', async ({ page }) => {
  await open(page, `${PENTATONIC}&notes=Slack%20water.&tag=deck`);
  const words = page.getByText('Slack water.');
  await expect(words).toBeHidden();
  await page.emulateMedia({ media: 'print' });
  await expect(words).toBeVisible();
  await expect(page.getByRole('heading', { name: 'New chart' })).toBeVisible();
  for (const gone of [
    page.getByRole('navigation').first(),
    page.getByRole('button', { name: 'Undo' }),
    page.getByRole('button', { name: 'Save chart' }),
  ])
    await expect(gone).toBeHidden();
  await expect(page.getByRole('button', { name: 'position 1, frets 5 to 8' })).toBeVisible();
  await expect(page.getByRole('table')).toBeVisible();
  const colours = await neck(page).evaluate(
    (svg) => getComputedStyle(svg.querySelector('.mark-root path')!).fill,
  );
  expect(colours).toBe('rgb(0, 0, 0)');
});
