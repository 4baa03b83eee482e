import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { defineConfig } from '@playwright/test';

const root = resolve(import.meta.dirname, '..');
export const chromium =
  process.env['CHROMIUM_PATH'] ?? ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find(existsSync) ?? '';

export default defineConfig({
  testDir: import.meta.dirname,
  outputDir: join(root, 'test-results/e2e'),
  fullyParallel: true,
  workers: 2,
  timeout: 120_000,
  expect: { timeout: 15_000 },
  reporter: [['list'], ['json', { outputFile: join(root, 'test-results/playwright.json') }]],
  use: {
    viewport: { width: 1280, height: 800 },
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: chromium,
      args: [
        '--no-sandbox',
        '--disable-background-networking',
        '--disable-component-update',
        '--no-first-run',
        // Nothing here needs what draws in three dimensions, which is computed where there is no such hardware.
        '--disable-gpu',
        // Tabs of one visitor share a process, as opening one takes long.
        '--process-per-site',
      ],
    },
  },
});
