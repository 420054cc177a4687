import { defineConfig } from '@playwright/test';
import { chromiumOptions } from './chromium.mjs';

// Files whose tests have a shop of their own. They come first, for they are the longest. Those that share the demo shop follow: a
// worker that goes from one shop to another starts its browser and its server anew.
const own = /(day|first-hour|fix|hand-over|lots|models|network|prove|recap|traces)\.spec\.mjs$/;

export default defineConfig({
  testDir: '.',
  projects: [{ name: 'own', testMatch: own }, { name: 'shared', testIgnore: own }],
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
