import { type BrowserContext, type Page, test as base } from '@playwright/test';
import { type Application, application } from './serve.ts';

const WIDE = { width: 1280, height: 800 };

interface Worker {
  /** The application of a worker, with a library of its own and the demo in it. */
  readonly library: Application;
  /** A browser that has been here before: it has the parts of the page, and nothing else. A tab of it is opened for many tests. */
  readonly visitor: { readonly context: BrowserContext; tab: Page | null };
}
interface Options {
  /** Whether a test alters the page beyond what can be taken back: its clock, or what stands in it before its own code. */
  readonly altered: boolean;
}

/** Leaves a tab as a new one is; null where it is gone. */
async function tidied(tab: Page): Promise<Page | null> {
  if (tab.isClosed()) return null;
  await tab.unrouteAll({ behavior: 'ignoreErrors' });
  tab.removeAllListeners();
  await tab.mouse.move(0, 0);
  await tab.goto('about:blank');
  await tab.setViewportSize(WIDE);
  await tab.emulateMedia({ media: null, colorScheme: 'light', reducedMotion: null, forcedColors: null });
  return tab;
}

/**
 * Every worker of the suite has an application of its own. Tests on a wide screen go through one visitor and one tab, as opening a
 * tab takes three times as long as a visit; storage is emptied after each. A test that asks for another screen, for touch, or for a
 * page that it alters has its own.
 */
export const test = base.extend<Options, Worker>({
  altered: [false, { option: true }],
  library: [
    async ({}, use) => {
      const app = await application();
      await use(app);
      await app.end();
    },
    { scope: 'worker' },
  ],
  visitor: [
    async ({ browser, library }, use) => {
      const context = await browser.newContext({ baseURL: library.base, viewport: WIDE });
      await use({ context, tab: null });
      await context.close();
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ library }, use) => use(library.base),
  context: async ({ browser, library, visitor, viewport, hasTouch }, use) => {
    const own = hasTouch || viewport?.width !== WIDE.width;
    const context = own
      ? await browser.newContext({ baseURL: library.base, viewport, hasTouch })
      : visitor.context;
    await use(context);
    if (own) return context.close();
    await context.setOffline(false);
    await context.clearCookies();
    await context.clearPermissions();
    // What a page keeps as it goes is kept before all of it is taken away.
    await Promise.all(context.pages().flatMap((tab) => (tab === visitor.tab ? [] : [tab.close()])));
    visitor.tab ??= await context.newPage();
    const devtools = await context.newCDPSession(visitor.tab);
    await devtools.send('Storage.clearDataForOrigin', {
      origin: library.base,
      storageTypes: 'local_storage,indexeddb',
    });
    await devtools.detach();
  },
  page: async ({ context, visitor, altered }, use) => {
    if (altered || context !== visitor.context) return use(await context.newPage());
    const tab = (visitor.tab ??= await context.newPage());
    await use(tab);
    visitor.tab = await tidied(tab).catch(() => null);
  },
});
export { expect } from '@playwright/test';
