import { existsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { defineConfig } from '@playwright/test';

const root = resolve(import.meta.dirname, '..');
export const chromium =
  process.env['CHROMIUM_PATH'] ?? ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find(existsSync) ?? '';
const port = 4791;

export default defineConfig({
  testDir: import.meta.dirname,
  outputDir: join(root, 'test-results/e2e'),
  fullyParallel: false,
  workers: 1,
  timeout: 120_000,
  expect: { timeout: 15_000 },
  reporter: [['list'], ['json', { outputFile: join(root, 'test-results/playwright.json') }]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    trace: 'retain-on-failure',
    launchOptions: {
      executablePath: chromium,
      args: [
        '--no-sandbox',
        '--disable-background-networking',
        '--disable-component-update',
        '--no-first-run',
      ],
    },
  },
  webServer: {
    command: 'node --import tsx packages/server/src/main.ts',
    cwd: root,
    url: `http://127.0.0.1:${port}/api/health`,
    env: {
      CROW_LADDER_PORT: String(port),
      CROW_LADDER_DB: join(tmpdir(), `crow-ladder-e2e-${process.pid}.sqlite`),
    },
    reuseExistingServer: false,
  },
});
