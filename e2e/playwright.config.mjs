import { defineConfig } from '@playwright/test';
import { chromiumOptions } from './chromium.mjs';

export default defineConfig({
  testDir: '.',
  timeout: 90_000,
  // A machine under load answers late; what never comes still fails.
  expect: { timeout: 20_000 },
  retries: 0,
  // Two at a time: while one waits for its server the other's browser works. Each has servers of its own.
  workers: 2,
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: chromiumOptions,
  },
});
