// A shop of its own for each test file, on a free port and with a fresh data folder, and pages that fail on console errors.
import { test as base, expect } from '@playwright/test';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { onFreePort, openAlone, startHost } from './servers.mjs';

/** Opens a shop: with or without the demo world and the invented models, and with more words for its server; by a host that has
 * others too, or alone. */
export const start = async ({ demo, models, more = [] }, host = null) => {
  const data = mkdtempSync(join(tmpdir(), 'mendro-e2e-'));
  // The demo world as the run has made it once; by hand a server makes its own.
  if (demo && process.env.MENDRO_PREPARED_DEMO) cpSync(process.env.MENDRO_PREPARED_DEMO, data, { recursive: true });
  const openAt = (port) => (host?.open ?? openAlone)([
    '--data', data, '--port', String(port), '--demo', String(demo), '--demo-models', String(models), '--warm-up', 'no', ...more,
  ]);
  let [port, server] = await onFreePort(openAt);
  return {
    address: `http://127.0.0.1:${port}`,
    port,
    said: () => server.said(),
    /** Ends the server, where it is a process of its own as a power cut would, and opens the same shop again. */
    restart: async () => {
      await server.close();
      server = await openAt(port);
    },
    stop: async () => {
      await server.close();
      rmSync(data, { recursive: true, force: true });
    },
  };
};

// The shop of a worker: one at a time, another for another file or when something else is asked of it.
const shopsOf = (host) => {
  let [open, what] = [null, null];
  return {
    of: async (file, { alone, ...asked }) => {
      const wanted = JSON.stringify([file, alone, asked]);
      if (what !== wanted) {
        await open?.stop();
        [open, what] = [await start(asked, alone ? null : host), wanted];
      }
      return open;
    },
    close: () => open?.stop(),
  };
};

// A request that is broken off because a newer one, or another page, takes its place: htmx tells it twice. One that fails tells
// htmx:sendError or htmx:responseError besides, and those count.
const brokenOff = /^htmx:(?:afterRequest|sendAbort)\b/;

/** Collects what a page says of errors, but for those that its test allows. */
export const hearErrors = (page) => {
  const errors = [];
  page.on('console', (message) => {
    const text = message.text();
    if (message.type() === 'error' && !brokenOff.test(text) && !page.allowErrors?.test(text)) errors.push(text);
  });
  page.on('pageerror', (error) => errors.push(error.message));
  return errors;
};

/** What a shop of the tests is where nothing else is said. */
export const usual = { demo: true, models: true, more: [], alone: false };

export const test = base.extend({
  demo: [usual.demo, { option: true }],
  // The invented models; without them the shop begins with the builds alone.
  models: [usual.models, { option: true }],
  // What the server is told besides.
  more: [usual.more, { option: true }],
  // A process of its own, for tests that end it or read what it says.
  alone: [usual.alone, { option: true }],
  host: [async ({}, use) => {
    const host = startHost();
    await use(host);
    host.end();
  }, { scope: 'worker' }],
  shops: [async ({ host }, use) => {
    const shops = shopsOf(host);
    await use(shops);
    await shops.close();
  }, { scope: 'worker' }],
  // Which files a worker is given, and in which order, is chance: no test may find what those of another file have filed.
  shop: async ({ shops, demo, models, more, alone }, use, { file }) => use(await shops.of(file, { demo, models, more, alone })),
  baseURL: ({ shop }, use) => use(shop.address),
  page: async ({ page }, use) => {
    const errors = hearErrors(page);
    await use(page);
    // Nothing is on its way when the browser's context is closed: no post, no stream.
    if (!page.isClosed()) await page.goto('about:blank');
    expect(errors, 'errors in the browser console').toEqual([]);
  },
});

/** Chooses a point on the map by keyboard, types a reading into the bar and files it. */
export const fileAt = async (page, probe, reading) => {
  const entry = page.locator('.reading-bar input.entry');
  await page.keyboard.press('Escape');
  await page.locator('.map a.probe', { hasText: `Probe: ${probe}` }).focus();
  await page.keyboard.press('Enter');
  await expect(page.locator('.reading-bar .at b')).toHaveText(probe);
  await expect(entry).toBeFocused();
  await page.keyboard.type(reading);
  await page.keyboard.press('Enter');
  await expect(page.locator(`.know details:has-text("${probe}")`)).toBeVisible();
};

export { expect };
