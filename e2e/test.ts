import { type BrowserContext, test as base } from '@playwright/test';
import { type Application, application } from './serve.ts';

const WIDE = { width: 1280, height: 800 };

interface Worker {
  /** The application of a worker, with a library of its own and the demo in it. */
  readonly library: Application;
  /** A browser that has been here before: it has the parts of the page, and nothing else. */
  readonly visitor: BrowserContext;
}

/**
 * Every worker of the suite has an application of its own. Tests on a wide screen go through one visitor, whose storage is emptied
 * after each; a test that asks for another screen or for touch has a visitor of its own.
 */
export const test = base.extend<object, Worker>({
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
      await use(context);
      await context.close();
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ library }, use) => use(library.base),
  context: async ({ browser, library, visitor, viewport, hasTouch }, use) => {
    const own = hasTouch || viewport?.width !== WIDE.width;
    const context = own ? await browser.newContext({ baseURL: library.base, viewport, hasTouch }) : visitor;
    await use(context);
    if (own) return context.close();
    await context.setOffline(false);
    await context.clearCookies();
    await context.clearPermissions();
    // What a page keeps as it goes is kept before all of it is taken away.
    await Promise.all(context.pages().map((p) => p.close()));
    const page = await context.newPage();
    const devtools = await context.newCDPSession(page);
    await devtools.send('Storage.clearDataForOrigin', {
      origin: library.base,
      storageTypes: 'local_storage,indexeddb',
    });
    await page.close();
  },
});
export { expect } from '@playwright/test';
