import { defineConfig } from '@playwright/test';
import { chromiumOptions } from './chromium.mjs';

// The longest files come first, so that none begins when the others end.
const long = /(day|first-hour|fix|hand-over|lots|models|network|prove|recap|traces)\.spec\.mjs$/;

export default defineConfig({
  testDir: '.',
  projects: [{ name: 'long', testMatch: long }, { name: 'short', testIgnore: long }],
  timeout: 90_000,
  // A machine under load answers late; what never comes still fails.
  expect: { timeout: 20_000 },
  retries: 0,
  // Two at a time: while one waits for its server the other's browser works. Each has shops of its own.
  workers: 2,
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: chromiumOptions,
  },
});
