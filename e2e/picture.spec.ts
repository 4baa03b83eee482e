import { readFileSync } from 'node:fs';
import { type ChartPage } from '@crow-ladder/contract';
import { type Page } from '@playwright/test';
import { fromMenu, neck, open } from './player.ts';
import { expect, test } from './test.ts';

/** What a drawing shows, read from its elements: kind, label, name and place of each mark, and every other word with its place. */
const READ = (root: Element): string[] => {
  // Rounded twice, as a file has two decimals already.
  const round = (n: string): string => (Math.round(Math.round(Number(n) * 100) / 10) / 10).toFixed(1);
  const rounded = (text: string | null): string => (text ?? '').replace(/-?\d+(\.\d+)?/g, round);
  const marks = [...root.querySelectorAll('g.mark')].map((g) => {
    const place = rounded(g.getAttribute('transform')).match(/-?[\d.]+/g)!;
    const outline = rounded(g.querySelector('path')!.getAttribute('d'));
    return [g.getAttribute('class'), g.textContent, ...place, outline];
  });
  const words = [...root.querySelectorAll('text')]
    .filter((t) => !t.closest('g.mark'))
    .map((t) => [
      t.getAttribute('class'),
      t.textContent,
      rounded(t.getAttribute('x')),
      rounded(t.getAttribute('y')),
    ]);
  const lines = [...root.querySelectorAll('path.wire, path.nut, path.string')].map((p) => [
    p.getAttribute('class'),
    rounded(p.getAttribute('d')),
  ]);
  return [...marks, ...words, ...lines].map((parts) => parts.join(' | ')).sort();
};

async function savedPicture(page: Page, kind: 'SVG' | 'PNG') {
  await fromMenu(page, 'Save as');
  const dialog = page.getByRole('dialog', { name: 'Save as' });
  await dialog.getByLabel('What').selectOption('the neck as it is shown');
  await dialog.getByLabel('As').selectOption(`${kind} (.${kind.toLowerCase()})`);
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    dialog.getByRole('button', { name: 'Save the file' }).click(),
  ]);
  return { name: file.suggestedFilename(), data: readFileSync(await file.path()) };
}

test('the SVG of demo charts shows what the page shows, mark by mark and place by place', async ({
  page,
  request,
}) => {
  const { charts } = (await (await request.get('/api/charts')).json()) as ChartPage;
  const demo = ['Slow Bow Door', 'Lifeboat Drill', 'Vehicle Deck Four'];
  for (const name of demo) {
    await open(page, `/charts/${charts.find((c) => c.name === name)!.id}`);
    const shown = await neck(page).evaluate(READ);
    const { name: file, data } = await savedPicture(page, 'SVG');
    expect(file).toBe(`${name.toLowerCase().replace(/[^a-z]+/g, '-')}.svg`);
    const text = data.toString('utf8');
    const written = await page
      .evaluate<string[]>(
        `{
          const root = new DOMParser().parseFromString(${JSON.stringify(text)}, 'image/svg+xml');
          root.querySelector('parsererror') ? ['not well-formed'] : (${READ.toString()})(root.documentElement);
        }`,
      )
      .catch((e: Error) => [e.message]);
    expect(shown.length).toBeGreaterThan(60);
    expect(written).toEqual(shown);
    // Its marks have the names that the page's grid says.
    const told = [...text.matchAll(/aria-label="(String[^"]+)"/g)].map(([, name]) => name!);
    expect(told.length).toBeGreaterThan(20);
    await expect(neck(page).getByRole('gridcell', { name: told.at(-1)!, exact: true })).toHaveCount(1);
    const names = await neck(page)
      .getByRole('gridcell')
      .evaluateAll((cells) => cells.map((c) => c.getAttribute('aria-label')));
    expect(told.filter((name) => !names.includes(name))).toEqual([]);
    // It stands by itself: the faces by name and with their data, nothing from outside, no variable left.
    expect(text).toContain("'Atkinson Hyperlegible Next'");
    expect(text).toMatch(/src:url\(data:font\/woff2;base64,/);
    expect(text.replace(/xmlns="[^"]+"/, '')).not.toMatch(/https?:|var\(--/);
  }
});

test('the PNG is twice as fine as the drawing, and a formula is saved as it is shown', async ({ page }) => {
  await open(page, '/new/formula?root=A&scale=major&at=6.5&layout=count.3');
  await expect(neck(page)).toContainText('W slide');
  const { name, data } = await savedPicture(page, 'PNG');
  expect(name).toBe('new-chart.png');
  expect(data.subarray(1, 4).toString()).toBe('PNG');
  const [width, height] = [data.readUInt32BE(16), data.readUInt32BE(20)];
  const [, , w, h] = (await neck(page).getAttribute('viewBox'))!.split(' ').map(Number);
  expect([width, height]).toEqual([2 * w!, 2 * h!]);
  const svg = await savedPicture(page, 'SVG');
  expect(svg.data.toString()).toContain('>W slide<');
});
