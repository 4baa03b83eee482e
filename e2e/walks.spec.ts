import { type Chart } from '@crow-ladder/contract';
import { type APIRequestContext, type BrowserContext, type Page } from '@playwright/test';
import { makeChart, neck, openNotes } from './player.ts';
import { expect, test } from './test.ts';

/** How many walks there are: all of them in the thorough run. */
const WALKS = process.env['THOROUGH'] ? 100 : 5;
const STEPS = 14;
/** So long, in ms, a player tries to reach something before looking what lies over it. */
const PATIENCE = 10_000;

/** Numbers by chance that are the same each time (a linear congruential generator; Knuth, The Art of Computer Programming 2, 3.3.4). */
function chance(seed: number): (below: number) => number {
  let is = seed * 2654435761 + 1;
  return (below) => {
    is = (Math.imul(is, 1664525) + 1013904223) >>> 0;
    return Math.floor((is / 2 ** 32) * below);
  };
}

type Server = 'there' | 'away' | 'lost' | 'late';
const SERVERS: readonly Server[] = ['there', 'there', 'away', 'lost', 'late'];

/** Notes of charts, as a player finds them: on the server, in drafts, and in conflicts that are shown. */
async function everything(page: Page, request: APIRequestContext, find: string): Promise<string> {
  // A connection that was kept open is closed by the server after a while, it may be as it is asked over it.
  const read = async <T>(path: string): Promise<T> =>
    (await (await request.get(`/api/charts${path}`, { maxRetries: 2 })).json()) as T;
  const { charts } = await read<{ charts: readonly { readonly id: string }[] }>(`?find=${find}`);
  const saved = await Promise.all(charts.map(async ({ id }) => (await read<Chart>(`/${id}`)).notes));
  const kept = await page.evaluate(
    () =>
      new Promise<readonly string[]>((done) => {
        const opening = indexedDB.open('crow-ladder');
        opening.onsuccess = () => {
          const all = opening.result.transaction('works').objectStore('works').getAll();
          all.onsuccess = () => {
            opening.result.close();
            done((all.result as { draft: { notes: string } }[]).map((w) => w.draft.notes));
          };
        };
      }),
  );
  return [...saved, ...kept].join('\n');
}

/** A question that lies over a chart: nothing of the chart can be reached under it. */
const asked = async (page: Page): Promise<boolean> => (await page.getByRole('dialog').count()) > 0;

/** Types a word at the end of the notes; nothing where no chart can be typed into just now. Gives whether it was typed. */
async function type(page: Page, word: string): Promise<boolean> {
  if (await asked(page)) return false;
  const notes = page.getByRole('textbox', { name: 'Notes' });
  try {
    await openNotes(page);
    await notes.focus();
  } catch (error) {
    // A question came up before the notes were open.
    if (await asked(page)) return false;
    throw error;
  }
  await page.keyboard.press('Control+End');
  await page.keyboard.type(` ${word}`);
  // Leaving the field is what keeps it; a question that came up meanwhile has taken the rest of the word.
  return page.locator('textarea').evaluate((field: HTMLTextAreaElement, typed) => {
    field.blur();
    const kept = field.value.split(/\s+/).includes(typed);
    // A question that came up lies over it.
    field.closest('[role="dialog"]')!.querySelector<HTMLElement>('[aria-label="Close"]')!.click();
    return kept;
  }, word);
}

async function walk(context: BrowserContext, request: APIRequestContext, nth: number): Promise<void> {
  const draw = chance(nth + 1);
  const find = `Ramble${nth}`;
  const id = await makeChart(request, `${find} ferry`);
  let server: Server = 'there';
  const tab = async (at: string): Promise<Page> => {
    const page = await context.newPage();
    page.setDefaultTimeout(PATIENCE);
    page.on('dialog', () => {
      throw new Error('A page asked before it was left.');
    });
    await page.route('**/api/charts/*', async (route) => {
      const how = server;
      if (route.request().method() !== 'PUT' || how === 'there') return route.continue();
      if (how === 'away') return route.abort();
      if (how === 'lost') await route.fetch().catch(() => undefined);
      if (how === 'late') await new Promise((later) => setTimeout(later, 900));
      return how === 'lost' ? route.abort() : route.continue().catch(() => undefined);
    });
    await page.goto(at);
    await neck(page).waitFor();
    return page;
  };
  const at = `/charts/${id}/shape`;
  const tabs = [await tab(at), await tab(at)];
  const words: string[] = [];
  for (let step = 0; step < STEPS; step++) {
    const which = draw(2);
    const page = tabs[which]!;
    const kind = draw(10);
    if (kind < 5) {
      const word = `w${nth}x${step}`;
      if (await type(page, word)) words.push(word);
    } else if (kind < 6) server = SERVERS[draw(SERVERS.length)]!;
    else if (kind < 7) {
      await page.reload();
      await neck(page).waitFor();
    } else if (kind < 8) {
      await page.close({ runBeforeUnload: true });
      if (!page.isClosed()) await page.waitForEvent('close');
      tabs[which] = await tab(draw(2) ? at : `${at}?front=0.${draw(9)}`);
    } else if (kind < 9) await page.keyboard.press('Control+s');
    else {
      const both = page.getByRole('button', { name: 'Keep both' });
      // What stands may be settled by the other tab before it is asked for.
      if ((await both.count()) > 0)
        await both.click().catch(async (error: unknown) => {
          if ((await both.count()) > 0) throw error;
        });
    }
  }
  server = 'there';
  for (const page of tabs) {
    await page.close({ runBeforeUnload: true });
    if (!page.isClosed()) await page.waitForEvent('close');
  }
  const last = await tab(at);
  await expect
    .poll(async () => {
      const all = (await everything(last, request, find)).split(/\s+/);
      return words.filter((word) => !all.includes(word));
    })
    .toEqual([]);
  await last.close();
}

for (let nth = 0; nth < WALKS; nth++)
  test(`walk ${nth}: whatever two tabs do, no change is lost`, async ({ context, request }) => {
    await walk(context, request, nth);
  });
