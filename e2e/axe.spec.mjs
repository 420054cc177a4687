// Every main page: no serious fault of accessibility, light or dark; nothing that runs over the side of a phone; and nothing an eye would
// trip over (boxes.mjs) on the bench, at twice the size and on a phone. The dark theme changes colours only, so there only what depends on
// colour is looked at.
import { fileURLToPath } from 'node:url';
import { colours, seriousFaults } from './axe.mjs';
import { boxFaults } from './boxes.mjs';
import { test as base, expect, hearErrors, usual } from './shop.mjs';

// Twice the size of everything is half of the room.
const [bench, twice, phone] = [{ width: 1280, height: 800 }, { width: 640, height: 400 }, { width: 390, height: 780 }];

// One page for all that a worker looks at: to open another takes longer than to look.
const test = base.extend({
  looker: [async ({ browser, shops }, use) => {
    const shop = await shops.of(fileURLToPath(import.meta.url), usual);
    const context = await browser.newContext({ baseURL: shop.address, viewport: bench });
    const page = await context.newPage();
    page.errors = hearErrors(page);
    // The page that is not there says so in the console too.
    page.allowErrors = /404/;
    await use(page);
    await context.close();
  }, { scope: 'worker' }],
});

const pages = [
  '/', '/Intake', '/Intake?Form.Profile=harrow-quartet', '/Intake?Form.Profile=zorbo', '/Jobs/123/Teach', '/Tools', '/Jobs',
  '/Jobs/123/Intake', '/Jobs/123/Find', '/Jobs/123/Find?select=fn:speaker', '/Jobs/123/Fix', '/Jobs/123/Fix?part=switch', '/Jobs/123/Apart?to=main',
  '/Timers', '/Materials?s=bleach-1-10@copper&s=vinegar@lens', '/Jobs/133/Prove',
  '/Jobs/133/Pictures', '/Jobs/127/Owner', '/Jobs/123/Sale', '/Jobs/123/Trays', '/Labels?jobs=133', '/Donors', '/Calls',
  '/Jobs/123/HandOver', '/Jobs/101/Sheet', '/Jobs/123/Model', '/Words',
  '/Jobs/123/Timeline', '/Models', '/Models/harrow-quartet', '/Models/dovrel-sextant/Check', '/Models/harrow-quartet/Card', '/Settings',
  '/nothing-here', '/Jobs/143/Find', '/Jobs/144/Find?select=provoke:power-light:pressed', '/Jobs/123/Why', '/Jobs/149/Swaps', '/Gear',
  '/Patterns', '/Calculators',
  '/Calculators/adapter?kind=dc&volts=12&amps=1&polarity=centre-positive&needKind=dc&needVolts=9&needAmps=0.85&needPolarity=centre-negative',
  '/Jobs/123/Compare', '/Jobs/123/Supply', '/Jobs/142/Contacts', '/Models/harrow-quartet/Good', '/Practice', '/Jobs/900001/Find',
  '/Practice/900001', '/Models/Edit/harrow-duet', '/Models/Import', '/Jobs/123/Run?part=switch&method=polish-switch',
  '/Jobs/124/Run?method=composite-follower', '/Jobs/129/Ladder?part=edge&seen=dark', '/Jobs/123/Materials',
  '/Jobs/143/Capacitors?board=main&at=main/C39', '/Jobs/143/Stages', '/Jobs/143/CapacitorList', '/Jobs/143/OldWays?board=main',
  '/Jobs/143/Placement', '/Jobs/125/BoardDraw', '/Jobs/154/Traces?at=main/V62',
  '/Jobs/155/Traces?run=crack~cart', '/Jobs/154/Jumpers', '/Jobs/133/Starts?function=power-light', '/Capacitors', '/Jobs/124/Wiring?part=connector',
  '/Methods?kind=power-switch', '/Owners', '/Owners/1', '/Money/Purchases', '/Methods/flush-switch', '/Methods/Held', '/Lots', '/Lots/3', '/Lots/3?by=gain',
  '/Rounds', '/Bundle?jobs=101,102', '/Jobs/127/Bill', '/Jobs/108/Bill', '/Lots/3/Items', '/Lots/3/Round?key=fix:flush-switch:power-switch', '/Offers',
  '/Day', '/Day/Hours', '/Day/Back', '/Calendar', '/Accounts', '/Programs',
  '/Jobs/123/Phone', '/Stock', '/Stock/1', '/Orders', '/Money', '/Pins?package=quad-64&pin=18', '/Numbers?q=fuse',
  '/Drivers', '/Calculators/solder', '/Calculators/rectified',
];

// The pages are looked at one by one, by as many workers as there are.
test.describe.configure({ mode: 'parallel' });

for (const path of pages) {
  test(`nothing serious, and on a phone nothing over the side, on ${path}`, async ({ looker: page }) => {
    await page.setViewportSize(bench);
    await page.emulateMedia({ colorScheme: 'light' });
    await page.goto(path);
    expect(await seriousFaults(page), 'light').toEqual([]);
    expect(await boxFaults(page), 'boxes').toEqual([]);
    await page.emulateMedia({ colorScheme: 'dark' });
    expect(await seriousFaults(page, colours), 'dark').toEqual([]);
    await page.setViewportSize(twice);
    expect(await boxFaults(page), 'boxes at twice the size').toEqual([]);
    await page.setViewportSize(phone);
    expect(await boxFaults(page), 'boxes on a phone').toEqual([]);
    expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth), 'over the side').toBeLessThanOrEqual(0);
    expect(page.errors, 'errors in the browser console').toEqual([]);
  });
}
