// Takes the pictures in docs/screenshots from a demo that is running, and with a second address that of an empty shop:
// node e2e/screenshots.mjs [address] [address of an empty shop]
import { chromium } from 'playwright-core';
import { chromiumOptions } from './chromium.mjs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const address = process.argv[2] ?? 'http://127.0.0.1:5080';
const folder = join(dirname(fileURLToPath(import.meta.url)), '../docs/screenshots');
const views = [
  ['bench', '/'], ['intake', '/Intake?Form.Profile=harrow-quartet'], ['find', '/Jobs/123/Find'],
  ['find-phone', '/Jobs/123/Find', { viewport: { width: 390, height: 780 } }], ['fix', '/Jobs/123/Fix?part=switch'], ['prove', '/Jobs/133/Prove'],
  ['hand-over', '/Jobs/128/HandOver'], ['builds', '/Intake?Form.Profile=pocket+thing+blue'],
  ['lot', '/Lots/3?by=gain'], ['orders', '/Orders'], ['taking-apart', '/Jobs/123/Apart?to=main'],
  ['day', '/Day', { after: '#board[aria-busy="false"]', then: '/Day' }], ['contacts', '/Jobs/129/Contacts'],
];

const browser = await chromium.launch(chromiumOptions);
// Last, for they change the job: a method under way, with its timer in the strip.
views.push(
  ['capacitors', '/Jobs/143/Capacitors?board=main', { keys: ['p'], after: '.rb-planned', then: '/Jobs/143/Capacitors?board=main&at=main/C38' }],
);
views.push(
  ['board-map', '/Jobs/154/Traces', { press: ['n'] }],
  ['pictures', '/Jobs/133/Pictures'],
  ['sale', '/Jobs/123/Sale?grade=good'],
);
views.push(['run-sheet', '/Jobs/123/Run?part=switch&method=flush-switch', { keys: ['n', 'n', 'n'] }]);
if (process.argv[3]) views.push(['first-hour', process.argv[3] + '/']);
for (const [name, path, options = {}] of views) {
  const context = await browser.newContext({ viewport: options.viewport ?? { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.goto(path.startsWith('http') ? path : address + path, { waitUntil: 'networkidle' });
  for (const key of options.keys ?? []) {
    await Promise.all([page.waitForEvent('load'), page.keyboard.press(key)]);
  }
  for (const key of options.press ?? []) {
    await Promise.all([page.waitForEvent('requestfinished', (request) => request.method() === 'POST'), page.keyboard.press(key)]);
    await page.waitForLoadState('networkidle');
  }
  if (options.after) {
    await page.waitForSelector(options.after);
    await page.goto(address + options.then, { waitUntil: 'networkidle' });
  }
  await page.screenshot({ path: join(folder, `${name}.png`) });
  await context.close();
}
await browser.close();
