// A server of its own for each test file, on a free port and a fresh data folder, and pages that fail on console errors.
import { test as base, expect } from '@playwright/test';
import { spawn } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');

const freePort = () => new Promise((resolve) => {
  const probe = createServer().listen(0, '127.0.0.1', () => {
    const { port } = probe.address();
    probe.close(() => resolve(port));
  });
});

/** Starts a shop of its own. */
export const start = async (demo, models, more = []) => {
  const data = mkdtempSync(join(tmpdir(), 'mendro-e2e-'));
  // The demo world as the run has made it once; by hand a server makes its own.
  const prepare = () => {
    if (demo && process.env.MENDRO_PREPARED_DEMO) cpSync(process.env.MENDRO_PREPARED_DEMO, data, { recursive: true });
  };
  prepare();
  let [port, server] = [0, null];
  // Between the asking and the opening another may have taken the port: then the next.
  for (let tries = 0; server === null; tries++) {
    port = await freePort();
    try {
      server = await open(demo, models, data, port, more);
    } catch (problem) {
      if (tries === 4 || !/address already in use/i.test(problem.message)) throw problem;
    }
  }
  const end = () => {
    server.removeAllListeners('exit');
    server.kill('SIGKILL');
  };
  const restart = async (between = () => {}) => {
    const gone = new Promise((resolve) => { server.once('close', resolve); });
    end();
    await gone;
    between();
    server = await open(demo, models, data, port, more);
  };
  return {
    address: `http://127.0.0.1:${port}`,
    port,
    /** What it said so far. */
    said: () => server.said(),
    /** Ends the server as a power cut would, and opens the same shop again. */
    restart: () => restart(),
    /** Opens the shop anew, as if nothing had been done in it. */
    renew: () => restart(() => {
      rmSync(data, { recursive: true, force: true });
      mkdirSync(data);
      prepare();
    }),
    stop: () => {
      end();
      rmSync(data, { recursive: true, force: true });
    },
  };
};

// A server of a test lives too short to gain from compiling what is called often once more.
const shortLived = { ...process.env, DOTNET_TC_CallCountThreshold: '2000' };

const open = async (demo, models, data, port, more) => {
  const program = process.env.MENDRO_TEST_PROGRAM ?? join(root, 'src/Mendro.Web/bin/Release/net10.0');
  const server = spawn('dotnet', [join(program, 'Mendro.Web.dll'),
    '--contentRoot', join(root, 'src/Mendro.Web'), '--data', data, '--port', String(port),
    '--demo', String(demo), '--demo-models', String(models), '--warm-up', 'no', ...more], { env: shortLived, stdio: ['ignore', 'pipe', 'pipe'] });
  let log = '';
  // The server says itself when it is open: nothing has to be waited for by the clock.
  await new Promise((resolve, reject) => {
    const read = (chunk) => { log += chunk; if (log.includes('Mendro is open')) resolve(); };
    server.stdout.on('data', read);
    server.stderr.on('data', read);
    server.on('exit', () => reject(new Error(`The server ended:\n${log}`)));
  });
  server.said = () => log;
  return server;
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

export const test = base.extend({
  demo: [true, { option: true, scope: 'worker' }],
  // The invented models; without them the shop begins with the builds alone.
  models: [true, { option: true, scope: 'worker' }],
  // Tests that change much, or end the server, name a shop of their own.
  own: ['', { option: true, scope: 'worker' }],
  // What the server is told besides.
  more: [[], { option: true, scope: 'worker' }],
  shop: [async ({ demo, models, own, more }, use) => {
    void own;
    const shop = await start(demo, models, more);
    await use(shop);
    shop.stop();
  }, { scope: 'worker' }],
  // Which files a worker is given, and in which order, is chance: no test may find what those of another file have filed.
  baseURL: async ({ shop }, use, { file }) => {
    if (shop.usedBy && shop.usedBy !== file) await shop.renew();
    shop.usedBy = file;
    await use(shop.address);
  },
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
