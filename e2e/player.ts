import { type APIRequestContext, expect, type Locator, type Page, type Route } from '@playwright/test';
import { type Backup } from '@crow-ladder/contract';
import axe from 'axe-core';

/** What a player does, by the names a player sees. */
export const neck = (page: Page): Locator => page.getByRole('grid', { name: /^Neck/ });
export const sentence = (page: Page): Locator =>
  page.locator('p', { has: page.getByRole('button', { name: /^Root: / }) });
/** A task of the chart, by its name in the row. */
export const task = (page: Page, name: string): Locator =>
  page.getByRole('navigation', { name: 'Tasks' }).getByRole('link', { name, exact: true });
export const panel = (page: Page, name: string): Locator => page.getByRole('region', { name, exact: true });
export const frets = (page: Page): Locator => page.getByTestId('frets');
export const part = (page: Page, name: string): Locator =>
  page.getByRole('button', { name: new RegExp(`^${name}: `) });

/** Takes out every round that a walk left in the log; those of the demo stay. */
export async function noRounds(request: APIRequestContext): Promise<void> {
  const { practice } = (await (await request.get('/api/backup')).json()) as Backup;
  for (const { id } of practice) if (!id.startsWith('demo-')) await request.delete(`/api/practice/${id}`);
}

/** Does what the menu of the chart's name offers. */
export async function fromMenu(page: Page, name: string | RegExp): Promise<void> {
  await page.getByRole('button', { name: /^Chart: / }).click();
  await page.getByRole('dialog', { name: 'Chart' }).getByRole('button', { name }).click();
}
/** Notes and tags, opened. */
export async function openNotes(page: Page): Promise<Locator> {
  await fromMenu(page, 'Notes and tags');
  return page.getByRole('dialog', { name: 'Notes and tags' });
}
export const chartName = (page: Page, name: string): Locator =>
  page.getByRole('button', { name: `Chart: ${name}`, exact: true });
/** On an upright screen: opens or shuts the sheet of the task in front. */
export const turnSheet = (page: Page, name: string): Promise<void> =>
  page.getByRole('button', { name, exact: true }).click();
/** What opens over the corner of the neck. */
export async function openCorner(page: Page): Promise<Locator> {
  await page.getByRole('button', { name: /^How the neck is drawn/ }).click();
  return page.getByRole('dialog', { name: 'How the neck is drawn' });
}

/** Opens a part of the sentence and gives back what opened. */
export async function openPart(page: Page, name: string): Promise<Locator> {
  await part(page, name).click();
  return page.getByRole('dialog', { name });
}

/** Chooses another word for one of a sentence, and what else it asks for. */
export async function choose(
  page: Page,
  word: string,
  choice: string | RegExp,
  more?: (list: Locator) => Promise<unknown>,
): Promise<void> {
  const list = await openPart(page, word);
  await list.getByRole('button', { name: choice, exact: true }).click();
  await more?.(list);
  await closed(page, list);
}
/** Sets what a word of a sentence opens. */
export async function set(
  page: Page,
  word: string,
  work: (body: Locator) => Promise<unknown>,
): Promise<void> {
  const body = await openPart(page, word);
  await work(body);
  await closed(page, body);
}
async function closed(page: Page, panel: Locator): Promise<void> {
  await page.keyboard.press('Escape');
  await panel.waitFor({ state: 'hidden' });
}
/** A tempo typed over the one in the sentence. */
export const setTempo = (page: Page, tempo: number): Promise<void> =>
  set(page, 'Tempo', (body) => body.getByLabel('Quarter notes a minute').fill(String(tempo)));

export async function chooseScale(page: Page, typed: string): Promise<void> {
  const list = await openPart(page, 'Scale');
  await list.getByRole('combobox').fill(typed);
  await page.keyboard.press('Enter');
  await list.waitFor({ state: 'hidden' });
}

export async function chooseTuning(page: Page, typed: string): Promise<void> {
  const body = await openPart(page, 'Tuning');
  await body.getByLabel('Strings, lowest first').fill(typed);
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
}

const spotName = (string: number, fret: number): string =>
  `String ${string}, ${fret ? `fret ${fret}` : 'open'}: `;
/** A spot of the neck, marked or not: asking each of hundreds of cells for its name, as a role does, would take long. */
export const spot = (page: Page, string: number, fret: number): Locator =>
  neck(page).locator(`[role="gridcell"][aria-label^="${spotName(string, fret)}"]`);
/** A spot that holds a note of the scale. */
export const mark = (page: Page, string: number, fret: number): Locator =>
  spot(page, string, fret).and(
    page.locator('[aria-label*="the root"], [aria-label*="degree"], [aria-label*="altered"]'),
  );

/** What is drawn on a spot; null where no mark is. */
export const labelAt = (page: Page, string: number, fret: number): Promise<string | null> =>
  spot(page, string, fret).evaluate((cell) => {
    const middle = (e: Element): readonly [number, number] => {
      const { x, y, width, height } = e.getBoundingClientRect();
      return [x + width / 2, y + height / 2];
    };
    const [x, y] = middle(cell);
    const outline = [...cell.closest('svg')!.querySelectorAll('.mark > path')].find((path) => {
      const [a, b] = middle(path);
      return Math.hypot(a - x, b - y) < 2;
    });
    return outline ? outline.parentElement!.textContent : null;
  });

export async function saveAs(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Save chart' }).click();
  await page.getByRole('dialog').getByLabel('Name').fill(name);
  await page.keyboard.press('Enter');
  await page.getByText(`Saved as “${name}”.`).waitFor();
  await expect(page).toHaveURL(/\/charts\/[\w-]+(\/\w+)?$/);
}

/** An instrument as it is sent. */
export const SIX_STRING = {
  name: 'six-string',
  tuning: [40, 45, 50, 55, 59, 64],
  frets: 22,
  scaleLength: 648,
  capo: 0,
  handed: 'right' as const,
  wound: 3,
};

/** A chart made beside the interface, for tests that begin with one. */
export async function makeChart(
  request: APIRequestContext,
  name: string,
  change: object = {},
): Promise<string> {
  const state = {
    v: 2,
    key: { root: 'A', scale: 'minor-pentatonic' },
    at: { string: 6, fret: 5 },
    layout: { kind: 'count', counts: [2] },
    front: null,
    instrumentId: null,
  };
  const made = await request.post('/api/charts', {
    data: { name, tags: [], notes: '', state: { ...state, instrument: SIX_STRING, ...change } },
  });
  expect(made.status()).toBe(201);
  return ((await made.json()) as { id: string }).id;
}

type Run = typeof axe.run;
/** What axe finds within a part of the page by some of its rules; axe is brought to a page once. */
async function found(page: Page, within: string, runOnly: readonly string[]): Promise<readonly string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source);
  return page.evaluate(
    async ([within, runOnly]) => {
      const { axe } = window as unknown as { readonly axe: { readonly run: Run } };
      const options = { runOnly: [...runOnly], resultTypes: ['violations' as const] };
      const { violations } = await axe.run(within, options);
      return violations.map((v) => `${v.id} ${v.nodes[0]?.html.slice(0, 160)}`);
    },
    [within, runOnly] as const,
  );
}

/**
 * Axe finds nothing on the page as it is now, or within a part of it, and in the other theme no lack of contrast: colours are all
 * that a theme changes.
 */
export async function clean(page: Page, what: string, within = 'html'): Promise<void> {
  const all = ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'];
  expect([what, await found(page, within, all)]).toEqual([what, []]);
  await page.emulateMedia({ colorScheme: 'dark' });
  expect([what, await found(page, within, ['color-contrast'])]).toEqual([what, []]);
  await page.emulateMedia({ colorScheme: 'light' });
}

/** Puts a backup in place of the library, as a program does. */
export async function bringBack(request: APIRequestContext, backup: unknown): Promise<void> {
  const to = `/api/restores/${Math.random().toString(36).slice(2).padEnd(8, '0')}`;
  expect((await request.put(to, { data: backup })).status()).toBe(200);
  expect((await request.post(`${to}/replace`)).status()).toBe(200);
}

/** The sentence reads so, without the names of its parts, which only screen readers hear. */
export const says = (page: Page, text: string): Promise<void> =>
  expect
    .poll(
      async () =>
        ((await sentence(page).textContent()) ?? '').replace(
          /(Root|Scale|String and fret|Layout|Tuning): /g,
          '',
        ),
      { intervals: [20, 50, 100, 100, 250] },
    )
    .toContain(text);

/** Opens an address of the workbench and waits until it can be used. */
export async function open(page: Page, path: string): Promise<void> {
  await page.goto(path);
  await neck(page).waitFor();
}

export const saved = (page: Page): Locator => page.getByRole('status').filter({ hasText: /^Saved$/ });

/** Takes the requests to an address in hand until it is let go. The route stays: taken away it can leave a request hanging that is on its way. */
export async function intercept(
  page: Page,
  address: string,
  work: (route: Route) => unknown,
): Promise<() => void> {
  let on = true;
  await page.route(address, async (route) => void (await (on ? work(route) : route.continue())));
  return () => void (on = false);
}

/** Holds the requests of a method to an address back until they are let go. */
export async function held(page: Page, address: string, method: string): Promise<() => void> {
  let go: () => void = () => undefined;
  const gone = new Promise<void>((done) => (go = done));
  await page.route(address, async (route) => {
    if (route.request().method() === method) await gone;
    await route.continue().catch(() => undefined);
  });
  return go;
}
