import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Locator, type Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import { clean, fromMenu, makeChart, part } from './player.ts';
import { expect, test } from './test.ts';

const dialog = (page: Page): Locator => page.getByRole('dialog', { name: 'Print', exact: true });
const A_MINOR = { key: { root: 'A', scale: 'minor-pentatonic' }, at: { string: 6, fret: 5 } };
/** The text of a PDF file, page by page. */
function textOf(path: string): readonly string[] {
  const { stdout, status } = spawnSync('pdftotext', ['-layout', path, '-']);
  expect(status).toBe(0);
  return stdout.toString().split('\f').slice(0, -1);
}
async function pick(page: Page, word: string, choice: string): Promise<void> {
  await part(page, word).click();
  await page.getByRole('button', { name: choice, exact: true }).click();
}

test('a book of all keys is printed: its pages are shown, and its text is read back from the file', async ({
  page,
  request,
}) => {
  await page.goto(`/charts/${await makeChart(request, 'Paper: a book', A_MINOR)}`);
  await fromMenu(page, /^Print$/);
  const it = dialog(page);
  await expect(it.getByRole('img', { name: 'Page 1 of 1' })).toBeVisible();
  await clean(page, 'a book before it is printed');
  await pick(page, 'What to print', 'the whole ladder in all keys');
  await expect(it.getByRole('status')).toHaveText('12 pages, as they will come out.');
  const page3 = it.getByRole('img', { name: 'Page 3 of 12' });
  await expect(page3).toContainText('A minor pentatonic: position');
  // What stands below on every page ends 15 of its 210 mm before the right edge, 8 of its 297 above the lower one.
  const [paper, foot] = [
    (await page3.boundingBox())!,
    (await page3.getByText('3 of 12').last().boundingBox())!,
  ];
  expect((foot.x + foot.width - paper.x) / paper.width).toBeCloseTo(195 / 210, 1);
  expect((foot.y + foot.height / 2 - paper.y) / paper.height).toBeCloseTo(289 / 297, 1);
  const file = page.waitForEvent('download');
  await it.getByRole('button', { name: 'Save as PDF' }).click();
  const download = await file;
  expect(download.suggestedFilename()).toBe('paper-a-book-the-whole-ladder-in-all-keys.pdf');
  const pages = textOf(await download.path());
  expect(pages).toHaveLength(12);
  for (const root of ['A', 'B♭', 'B', 'C', 'C♯', 'D', 'E♭', 'E', 'F', 'F♯', 'G'])
    expect(pages.slice(2).join('').split(`${root} minor pentatonic: position`)).toHaveLength(5 + 1);
});

test('the same book is saved as pictures: each page as SVG and as PNG of its size', async ({
  page,
  request,
}) => {
  await page.goto(`/charts/${await makeChart(request, 'Paper: pictures', A_MINOR)}`);
  await fromMenu(page, /^Print$/);
  const it = dialog(page);
  await pick(page, 'What to print', 'the whole ladder');
  await pick(page, 'Paper', 'letter');
  await it.getByRole('switch', { name: 'With tablature of each diagram' }).click();
  await expect(it.getByRole('status')).toHaveText(/^4 pages/);
  const file = page.waitForEvent('download');
  await it.getByRole('button', { name: 'Save as pictures' }).click();
  const files = unzipSync(readFileSync(await (await file).path()));
  expect(Object.keys(files).sort()).toEqual(
    [1, 2, 3, 4].flatMap((page) => [`page-${page}.png`, `page-${page}.svg`]),
  );
  const svg = Buffer.from(files['page-2.svg']!).toString('utf8');
  expect(svg).toContain('A minor pentatonic: position');
  expect(svg).toContain('@font-face{font-family:Paper;');
  const png = Buffer.from(files['page-2.png']!);
  // Width and height of a PNG stand after its first 16 bytes; letter paper at 200 dots an inch.
  expect([png.readUInt32BE(16), png.readUInt32BE(20)]).toEqual([1700, 2200]);
  // It is drawn on: white alone would be far smaller.
  expect(png.length).toBeGreaterThan(30_000);
});

test('the browser prints the sheet of what is practised, every note of it and nothing of the page', async ({
  page,
  request,
}) => {
  const id = await makeChart(request, 'Paper: by the browser', { ...A_MINOR });
  const folder = mkdtempSync(join(tmpdir(), 'paper-'));
  const printed = async (name: string): Promise<readonly string[]> => {
    const path = join(folder, `${name}.pdf`);
    writeFileSync(path, await page.pdf({ preferCSSPageSize: true }));
    return textOf(path);
  };
  for (const [task, title] of [
    ['practice', /Up and down on position 1/u],
    ['shape', /Root: string 6 fret 5/u],
  ] as const) {
    await page.goto(`/charts/${id}/${task}`);
    // What is printed is ready once the pointer has left the page, on its way to the browser's menu.
    await expect(async () => {
      await page.dispatchEvent('html', 'mouseleave');
      const [text, ...more] = await printed(task);
      expect(text).toContain('1 of 1');
      expect(more).toEqual([]);
    }).toPass();
    const [text] = await printed(task);
    expect(text).toMatch(title);
    expect(text).toContain('Paper: by the browser');
    // Twelve notes up, eleven down: as many counts stand under the tablature.
    const counts = text!
      .split('\n')
      .filter((line) => /^\s*1\s+\+\s+2\s+\+/u.test(line))
      .join(' ');
    expect(counts.trim().split(/\s+/u)).toHaveLength(23);
    expect(text).not.toMatch(/Play|Save|Charts|Settings/u);
  }
  // A key that prints before the page rests waits for the sheet.
  await page.addInitScript(() => {
    Object.assign(window, { print: () => Object.assign(window, { printed: document.title }) });
  });
  await page.goto(`/charts/${id}/practice`);
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
  await expect(async () => {
    await page.keyboard.press('Control+p');
    expect(await page.evaluate(() => 'printed' in window)).toBe(true);
  }).toPass();
});

test('charts that were found are printed as one book', async ({ page, request }) => {
  await makeChart(request, 'Paper: lower deck', A_MINOR);
  await makeChart(request, 'Paper: upper deck', {
    key: { root: 'D', scale: 'dorian' },
    at: { string: 5, fret: 5 },
  });
  await page.goto('/charts?find=deck Paper');
  await page.getByRole('button', { name: 'Print' }).click();
  const it = dialog(page);
  await expect(it.getByRole('status')).toHaveText(/^2 pages/);
  const sheet = it.getByRole('img', { name: 'Page 2 of 2' });
  await expect(sheet).toContainText('Paper: lower deck: A minor pentatonic');
  await expect(sheet).toContainText('Paper: upper deck: D Dorian');
  await it.getByLabel('Charts found by').fill('deck Paper upper');
  await expect(sheet).not.toContainText('lower deck');
  await expect(sheet).toContainText('upper deck');
  await it.getByLabel('Charts found by').fill('no such chart');
  await expect(it.getByRole('status')).toHaveText('There is nothing to print: no position is found.');
  await expect(it.getByRole('button', { name: 'Save as PDF' })).toBeDisabled();
});
