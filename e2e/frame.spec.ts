import { type Page } from '@playwright/test';
import { choose, neck, open, panel, saved, says, set, task, turnSheet } from './player.ts';
import { expect, test } from './test.ts';

const TASKS = ['Shape', 'Formula', 'Ladder', 'Move', 'Compare', 'Practice', 'Phrases'] as const;
const PENTATONIC = '/new?root=A&scale=minor-pentatonic&at=6.5&layout=count.2';

/** What of the frame is in sight and in the way, on the page as it is. */
const measured = (page: Page) =>
  page.evaluate(() => {
    const box = (of: Element | null) => of?.getBoundingClientRect() ?? new DOMRect();
    const inSight = (e: Element): boolean => {
      const { top, bottom, width, height } = box(e);
      return width > 1 && height > 1 && top < innerHeight && bottom > 0;
    };
    const svg = document.querySelector('[role="grid"]');
    const sentence = document.querySelector('.task-sentence');
    // Doors and the list of rungs are counted apart, a spot of the neck is none.
    const controls = [
      ...document.querySelectorAll('button, input, select, textarea, summary, [role="slider"]'),
    ]
      .filter(inSight)
      .filter((e) => !e.closest('[role="grid"], nav, [aria-label="Ladder of positions"]'));
    const STOPS = 'a[href], button:not(:disabled), input, select, textarea, summary, [tabindex="0"]';
    const first = document.querySelector('section[aria-label] .task-sentence button');
    const before = [...document.querySelectorAll<HTMLElement>(STOPS)].filter(
      (e) =>
        e.tabIndex >= 0 &&
        e.getClientRects().length > 0 &&
        first !== null &&
        Boolean(e.compareDocumentPosition(first) & Node.DOCUMENT_POSITION_FOLLOWING),
    );
    return {
      neckAt: box(svg).y,
      neckHigh: box(svg).height,
      place: box(document.querySelector('.upright-neck')).height,
      sentenceAt: box(sentence).y,
      controls: controls.map((e) => e.getAttribute('aria-label') ?? e.textContent),
      stops: before.length,
      wide: document.documentElement.scrollWidth,
    };
  });

test('at 1280x800 every task on every chart of the demo leaves the screen to the neck', async ({
  page,
  request,
}) => {
  const { charts } = (await (await request.get('/api/charts?limit=50')).json()) as {
    charts: { id: string; name: string; about: { instrument: { tuning: readonly number[] } } }[];
  };
  expect(charts.length).toBeGreaterThan(5);
  await request.patch('/api/settings', {
    data: { from: {}, to: { seen: ['welcome', 'map', 'connect', 'move'] } },
  });
  for (const { id, name } of charts) {
    await open(page, `/charts/${id}`);
    await expect(saved(page)).toBeVisible();
    for (const of of TASKS) {
      await task(page, of).click();
      await expect(panel(page, of).locator('.task-sentence').first()).toBeVisible();
      if (of === 'Practice') await expect(panel(page, of).locator('.vf-tabnote').first()).toBeVisible();
      const strings = Number(/(\d+) strings/.exec((await neck(page).getAttribute('aria-label'))!)![1]);
      const it = await measured(page);
      expect({
        chart: name,
        of,
        neckAt: it.neckAt <= 160 || it.neckAt,
        neckHigh: strings < 6 || it.neckHigh >= 280 || it.neckHigh,
        sentenceAt: strings > 6 || it.sentenceAt <= (of === 'Ladder' ? 580 : 510) || it.sentenceAt,
        controls: it.controls.length <= 16 || it.controls,
        stops: it.stops <= 20 || it.stops,
        wide: it.wide,
      }).toEqual({
        chart: name,
        of,
        neckAt: true,
        neckHigh: true,
        sentenceAt: true,
        controls: true,
        stops: true,
        wide: 1280,
      });
    }
  }
});

test('while it plays at 1280x800 the neck, the count, the verdict, the line that sounds and the next one are in sight', async ({
  page,
}) => {
  await open(page, '/new/practice?root=A&scale=dorian&at=6.5&layout=count.3&drill=groups.3.twice&tempo=60');
  await expect(panel(page, 'Practice').locator('.lamp.lit')).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeInViewport({ ratio: 1 });
  await expect(page.getByRole('button', { name: 'That was clean' })).toBeInViewport({ ratio: 1 });
  await expect(neck(page)).toBeInViewport({ ratio: 0.98 });
  expect((await neck(page).boundingBox())!.height).toBeGreaterThanOrEqual(200);
  const seen = await page.evaluate(() => {
    const covered = document.querySelector('main .sticky')!.getBoundingClientRect().bottom;
    const notes = [...document.querySelectorAll('.notation .vf-tabnote')].map((n) =>
      n.getBoundingClientRect(),
    );
    const lines = [...new Set(notes.map((n) => Math.round(n.bottom / 60)))];
    const whole = notes.filter((n) => n.top >= covered && n.bottom <= innerHeight);
    return { lines: lines.length, firstNotes: notes.slice(0, 40).every((n) => whole.includes(n)) };
  });
  expect(seen.firstNotes).toBe(true);
  await page.keyboard.press('Space');
});

test('acts from an open chart in Shape', async ({ page }) => {
  let acts = 0;
  const act = async (work: () => Promise<unknown>): Promise<void> => {
    acts++;
    await work();
  };
  const begin = async (): Promise<void> => {
    await open(page, PENTATONIC);
    acts = 0;
  };
  await begin();
  await act(() => page.keyboard.press('.'));
  await expect(page.getByRole('button', { name: /^position 2, frets 7/, pressed: true })).toBeVisible();
  expect(acts).toBe(1);
  await begin();
  await act(() => choose(page, 'Root', 'C'));
  await says(page, 'C minor pentatonic');
  expect(acts).toBeLessThanOrEqual(2);
  await begin();
  await act(() => task(page, 'Ladder').click());
  await act(() => choose(page, 'Look at', 'Plan a climb'));
  await act(() => choose(page, 'To', 'three octaves up'));
  await expect(panel(page, 'Ladder')).toContainText(/\d ways? found/);
  expect(acts).toBeLessThanOrEqual(3);
  await begin();
  await act(() => task(page, 'Practice').click());
  await act(() =>
    choose(page, 'Drill', 'groups', (list) => list.getByLabel('Notes in a group').selectOption('three')),
  );
  await act(() => set(page, 'Tempo', (body) => body.getByLabel('Quarter notes a minute').fill('80')));
  await expect(panel(page, 'Practice').locator('.task-sentence')).toContainText('groups of three');
  await expect(panel(page, 'Practice').locator('.task-sentence')).toContainText('80');
  expect(acts).toBeLessThanOrEqual(4);
});

test.describe('on an upright screen', () => {
  test.use({ viewport: { width: 420, height: 900 } });

  test('the neck has the screen in every task, and stays above the sheet', async ({ page }) => {
    await open(page, PENTATONIC);
    let before = 'Shape';
    for (const of of TASKS) {
      await turnSheet(page, before);
      await task(page, of).click();
      before = of;
      await expect(panel(page, of)).toBeVisible();
      const opened = await measured(page);
      expect([of, opened.place >= 300 || opened.place]).toEqual([of, true]);
      await turnSheet(page, of);
      await expect(panel(page, of)).toBeHidden();
      await expect
        .poll(async () => {
          const { neckAt, neckHigh, wide } = await measured(page);
          return [of, neckAt <= 130 || neckAt, neckHigh >= 495 || neckHigh, wide];
        })
        .toEqual([of, true, true, 420]);
    }
  });

  test('a climb shows the frets that it uses, and while it plays the neck or its line of tablature is whole', async ({
    page,
  }) => {
    await open(
      page,
      '/new/ladder?root=Eb&scale=minor-pentatonic&at=6.11&layout=count.2&look=climbs&climb=diagonal',
    );
    await expect(neck(page)).toContainText('16');
    await expect(neck(page).getByRole('gridcell', { name: /^String \d, fret 3: / })).toHaveCount(0);
    await open(page, '/new/practice?root=A&scale=dorian&at=6.5&layout=count.3&tempo=60');
    await expect(neck(page).locator('.ring-sounding')).toBeVisible();
    await page.keyboard.press('Space');
    await expect(page.getByRole('button', { name: 'That was clean' })).toBeInViewport({ ratio: 1 });
    await expect(neck(page)).toBeInViewport({ ratio: 0.98 });
    await turnSheet(page, 'Practice');
    const lit = panel(page, 'Practice').locator('.lamp.lit');
    await expect(lit).toBeInViewport({ ratio: 1 });
    const notes = panel(page, 'Practice').locator('.vf-tabnote');
    await expect(notes.first()).toBeInViewport({ ratio: 1 });
    await page.keyboard.press('Space');
  });
});
