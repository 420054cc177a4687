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
    // The tests of a worker share a browser context, emptied between them: to make one takes as long as three pages.
    reuseContext: true,
    viewport: { width: 1280, height: 800 },
    launchOptions: chromiumOptions,
  },
});
