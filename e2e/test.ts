import { test as base } from '@playwright/test';
import { type Application, application } from './serve.ts';

/** Every worker of the suite has an application and a library of its own, with the demo in it. */
export const test = base.extend<object, { readonly library: Application }>({
  library: [
    async ({}, use) => {
      const app = await application();
      await use(app);
      await app.end();
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ library }, use) => use(library.base),
});
export { expect } from '@playwright/test';
