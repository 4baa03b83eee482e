import { type Page } from '@playwright/test';
import {
  choose,
  clean,
  neck,
  open,
  openCorner,
  openNotes,
  panel,
  set,
  spot,
  task,
  turnSheet,
} from './player.ts';
import { expect, test } from './test.ts';

const CHART = '/new?root=A&scale=minor-pentatonic&at=6.5&layout=count.2';

/** The same on a small bass: what stands around the neck is read with the whole page each time, spot by spot. */
const SMALL =
  '/new?root=A&scale=minor-pentatonic&at=4.5&layout=count.2&strings=E1.A1.D2.G2&neck=12.864.0.4.right';

/** How far marks, numbers, names and words of the neck stand out from what lies behind them. */
function contrasts(page: Page) {
  // WCAG 2.2: 4.5 for text (1.4.3), 3 for the outline of a mark that carries meaning (1.4.11).
  return neck(page).evaluate((svg) => {
    const canvas = new OffscreenCanvas(1, 1).getContext('2d')!;
    const luminance = (colour: string): number => {
      canvas.fillStyle = colour;
      canvas.fillRect(0, 0, 1, 1);
      const [r, g, b] = [...canvas.getImageData(0, 0, 1, 1).data].map((c) =>
        c / 255 <= 0.04045 ? c / 255 / 12.92 : ((c / 255 + 0.055) / 1.055) ** 2.4,
      );
      return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
    };
    const ratio = (a: string, b: string): number => {
      const [x, y] = [luminance(a), luminance(b)].sort((p, q) => q - p);
      return (x! + 0.05) / (y! + 0.05);
    };
    const ground = getComputedStyle(document.documentElement).backgroundColor;
    const loose = [...svg.querySelectorAll('text')]
      .filter((text) => !text.closest('.mark'))
      .map((text) => ({
        name: text.textContent,
        text: ratio(getComputedStyle(text).fill, ground),
        outline: 21,
      }));
    const marks = [...svg.querySelectorAll('.mark')].map((mark) => {
      const [shape] = mark.querySelectorAll('path');
      const { fill, stroke } = getComputedStyle(shape!);
      const text = mark.querySelector('text')!;
      return {
        name: mark.textContent,
        text: text.textContent ? ratio(getComputedStyle(text).fill, fill) : 21,
        outline: stroke === 'none' ? 21 : ratio(stroke, ground),
      };
    });
    return [...marks, ...loose];
  });
}

/** The task's own part of a page: the neck and what stands around it are the same in every task. */
const PANEL = 'main section:last-of-type';
const DIALOG = '[role="dialog"]';

test('axe finds nothing on any page of the library', async ({ page }) => {
  for (const path of ['/charts', '/instruments', '/instruments/new', '/settings', '/bin', '/nowhere']) {
    await page.goto(path);
    await page.getByRole('heading').first().waitFor();
    await clean(page, path);
  }
  await page.goto('/charts');
  await page
    .getByRole('button', { name: /^Rename/ })
    .first()
    .click();
  await clean(page, 'renaming', DIALOG);
});

test('axe finds nothing around the neck and in any task', async ({ page }) => {
  await open(page, CHART);
  await clean(page, 'the workbench');
  await open(page, SMALL);
  for (const name of ['Formula', 'Ladder', 'Move', 'Compare', 'Chords', 'Practice', 'Phrases']) {
    await task(page, name).click();
    await panel(page, name).waitFor();
    await clean(page, name, PANEL);
  }
  await page.getByRole('button', { name: /^Chart: / }).click();
  await page.getByRole('dialog', { name: 'Chart' }).waitFor();
  await clean(page, 'the menu of the chart', '[role="dialog"]');
  await page.keyboard.press('Escape');
  await (await openNotes(page)).waitFor();
  await clean(page, 'notes and tags', '[role="dialog"]');
  await page.keyboard.press('Escape');
  for (const [name, word, view] of [
    ['Ladder', 'Look at', 'Plan a climb'],
    ['Move', 'What to move', 'Fourths pattern'],
    ['Compare', 'Compare with', 'Modes from its root'],
    ['Compare', 'Compare with', 'Notes on the neck'],
  ] as const) {
    await task(page, name).click();
    await choose(page, word, view);
    await clean(page, `${name}: ${view}`, PANEL);
  }
});

test('axe finds nothing in any task on an upright screen, nor in the pages of the library', async ({
  page,
}) => {
  await page.setViewportSize({ width: 420, height: 900 });
  await open(page, `${SMALL}&over=scale;0;dorian`);
  let before = 'Shape';
  for (const name of ['Formula', 'Ladder', 'Move', 'Compare', 'Chords', 'Practice', 'Phrases']) {
    await turnSheet(page, before);
    await task(page, name).click();
    await expect(panel(page, name).locator('.task-sentence')).toBeVisible();
    await clean(page, `${name}, upright`, PANEL);
    await turnSheet(page, name);
    before = name;
  }
  await clean(page, 'the sheet shut');
  for (const path of ['/charts', '/instruments', '/settings']) {
    await page.goto(path);
    await page.getByRole('heading').first().waitFor();
    await clean(page, `${path}, upright`);
  }
});

test('axe finds nothing in what opens over a chart', async ({ page }) => {
  await open(page, SMALL);
  for (const key of ['r', 's', 'y', 'i', '?']) {
    await page.keyboard.press(key);
    await page.getByRole('dialog').waitFor();
    await clean(page, `dialog of ${key}`, DIALOG);
    await page.keyboard.press('Escape');
    await page.getByRole('dialog').waitFor({ state: 'hidden' });
  }
});

test('every mark and label stands out from its ground, in both themes', async ({ page }) => {
  for (const colorScheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme });
    await open(page, `${CHART.replace('count.2', 'skip.3.1.1d')}`);
    const shape = await contrasts(page);
    expect(shape.length).toBeGreaterThan(60);
    expect(shape.filter((r) => r.text < 4.5 || r.outline < 3)).toEqual([]);
  }
  await page.keyboard.press('2');
  await set(page, 'Formula', (body) => body.getByLabel('Formula: steps, degrees or notes').fill('W W H W'));
  await expect(neck(page)).toContainText('short');
  const lesson = await contrasts(page);
  expect(lesson.map((r) => r.name)).toContain('5 frets short');
  expect(lesson.filter((r) => r.text < 4.5 || r.outline < 3)).toEqual([]);
});

test('an upright screen shows an upright neck, its ladder level with the frets, and its positions in reach of the thumb', async ({
  page,
}) => {
  await page.setViewportSize({ width: 420, height: 900 });
  await open(page, CHART);
  const dock = page.getByRole('group', { name: 'Positions' });
  // The position in front is in sight from its first fret to its last, between the sentence and the dock.
  const seen = async (string: number, fret: number): Promise<boolean> => {
    const box = (await spot(page, string, fret).boundingBox())!;
    return box.y > 0 && box.y + box.height <= (await dock.boundingBox())!.y;
  };
  await expect(dock).toBeVisible();
  expect([await seen(6, 5), await seen(1, 8)]).toEqual([true, true]);
  const shows = async (what: string): Promise<void> => {
    await (await openCorner(page)).getByRole('button', { name: what }).click();
    await page.keyboard.press('Escape');
  };
  await shows('The whole neck');
  await expect(spot(page, 1, 22)).toHaveCount(1);
  const box = (await neck(page).boundingBox())!;
  expect(box.height).toBeGreaterThan(box.width * 1.5);
  const at5 = (await spot(page, 6, 5).boundingBox())!;
  const bar = (await page.locator('.rung[data-front="true"]').boundingBox())!;
  expect(bar.y).toBeLessThan(at5.y + at5.height / 2);
  expect(bar.y).toBeGreaterThan(at5.y - 2.5 * at5.height);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(420);
  await shows('The position');
  await dock.getByRole('button', { name: 'Position above' }).click();
  await expect(dock.getByRole('button', { name: 'Positions, in front position 2' })).toBeVisible();
  await dock.getByRole('button', { name: /^Positions/ }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^position 4, an octave up/ })
    .click();
  await expect(
    dock.getByRole('button', { name: 'Positions, in front position 4, an octave up' }),
  ).toBeVisible();
});

test('in forced colours what is chosen differs by more than its hue, and strong actions can be read', async ({
  page,
}) => {
  await page.emulateMedia({ forcedColors: 'active' });
  await open(
    page,
    '/new/compare?root=F%23&scale=natural-minor&at=6.2&layout=count.3&over=scale;0;dorian&look=parallel',
  );
  await expect(page.getByRole('button', { name: 'Dorian', pressed: true })).toBeVisible();
  const seen = await page.evaluate(() => {
    const sheet = document.createElement('div');
    sheet.style.cssText = 'forced-color-adjust: none; color: Canvas';
    document.body.append(sheet);
    const ground = getComputedStyle(sheet).color;
    const bars = (of: string, side: 'borderBottomColor' | 'borderLeftColor') =>
      [...document.querySelectorAll(of)]
        .filter((e) => getComputedStyle(e)[side] !== ground)
        .map((e) => e.textContent);
    const strong = getComputedStyle(document.querySelector('.button-strong')!);
    const [chosen] = [...document.querySelectorAll('.pick[aria-pressed=true]')];
    const said = [...chosen!.children].map(
      (e) => getComputedStyle(e).color === getComputedStyle(chosen!).color,
    );
    return {
      tasks: bars('.task', 'borderBottomColor'),
      picks: bars('.pick-row', 'borderLeftColor').length,
      strong: strong.color !== strong.backgroundColor && strong.forcedColorAdjust,
      said: said.every(Boolean),
    };
  });
  expect(seen).toEqual({ tasks: ['Compare'], picks: 1, strong: 'none', said: true });
});

test('headings come in order, in every task and page', async ({ page }) => {
  const jumps = (): Promise<readonly string[]> =>
    page.evaluate(() => {
      const all = [...document.querySelectorAll('h1, h2, h3, h4, h5, h6')];
      const level = (e: Element | undefined): number => Number(e?.tagName[1] ?? 0);
      return all.filter((e, i) => level(e) > level(all[i - 1]) + 1).map((e) => e.outerHTML.slice(0, 80));
    });
  await open(page, `${CHART}&over=scale;0;natural-minor`);
  for (const name of ['Shape', 'Formula', 'Ladder', 'Move', 'Compare', 'Chords', 'Practice', 'Phrases']) {
    await task(page, name).click();
    await expect(panel(page, name).locator('.task-sentence')).toBeVisible();
    expect([name, await jumps()]).toEqual([name, []]);
  }
  for (const path of ['/charts', '/instruments', '/instruments/new', '/settings', '/bin']) {
    await page.goto(path);
    await page.getByRole('heading', { level: 1 }).waitFor();
    expect([path, await jumps()]).toEqual([path, []]);
  }
});

test('enlarged twice, the neck with its position is in sight', async ({ page }) => {
  await page.setViewportSize({ width: 640, height: 400 });
  await open(page, CHART);
  await expect
    .poll(() =>
      page.locator('svg.neck .mark-note, svg.neck .mark-root').evaluateAll(
        (marks) =>
          marks.filter((m) => {
            const { top, bottom } = m.getBoundingClientRect();
            return top >= 0 && bottom <= innerHeight;
          }).length,
      ),
    )
    .toBeGreaterThanOrEqual(6);
});
