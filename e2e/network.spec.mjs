// A shop on its own network: the first owner, two people at one job, a phone that joins by its code. The shop answers on loopback, as
// if behind a proxy, under a name of its own.
import { readFileSync } from 'node:fs';
import { seriousFaults } from './axe.mjs';
import { test, expect } from './shop.mjs';

test.use({ alone: true, more: ['--proxy', '127.0.0.1', '--names', 'shop.test'] });
test.describe.configure({ mode: 'serial' });

const word = 'kettle orbit lamp sixty';
const at = (shop, path) => `http://shop.test:${shop.port}${path}`;
const enter = async (page, shop, name) => {
  await page.goto(at(shop, '/SignIn'));
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('Password').fill(word);
  await page.getByLabel('Password').press('Enter');
  await expect(page.getByRole('link', { name })).toBeVisible();
};
let benCode;

test('nothing is there but the door until the first owner is in, with the code from the terminal', async ({ page, shop }) => {
  page.allowErrors = /422/;
  await page.goto(at(shop, '/Jobs/123/Find'));
  await expect(page.getByRole('heading', { name: 'The first owner of this shop' })).toBeVisible();
  expect(await seriousFaults(page)).toEqual([]);
  const [, code] = /once: (\S+)/.exec(shop.said());
  await page.getByLabel('Code from the terminal').fill('0000-0000-0000');
  await page.getByLabel('Your name').fill('Nora Weld');
  await page.getByLabel('Password').fill(word);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('not the code');
  await page.getByLabel('Code from the terminal').fill(code.toLowerCase());
  await page.getByLabel('Password').fill(word);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: 'Nora Weld' })).toBeVisible();

  await page.goto(at(shop, '/Accounts'));
  await page.getByLabel('Name').fill('Ben Solder');
  await page.getByRole('button', { name: 'Make it and get the code' }).press('Enter');
  benCode = await page.locator('.notice.good .mono.big').innerText();
  expect(await seriousFaults(page)).toEqual([]);
  await page.getByRole('link', { name: 'Nora Weld' }).click();
  await expect(page.getByText('this one')).toBeVisible();
  expect(await seriousFaults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Sign out' }).press('Enter');
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  expect(await seriousFaults(page)).toEqual([]);
});

test('two people at one job see each other and what each files, and nothing typed is lost', async ({ page, browser, shop }) => {
  await enter(page, shop, 'Nora Weld');
  const ben = await (await browser.newContext()).newPage();
  await ben.goto(at(shop, '/Code'));
  expect(await seriousFaults(ben)).toEqual([]);
  await ben.getByLabel('Code').fill(benCode);
  await ben.getByLabel('New password').fill(word);
  await ben.keyboard.press('Enter');
  await expect(ben.getByRole('link', { name: 'Ben Solder' })).toBeVisible();

  await ben.goto(at(shop, '/Jobs/142/Find?select=fn:speaker'));
  await page.goto(at(shop, '/'));
  await expect(page.locator('[data-taken="142"]')).toHaveText('Ben Solder');
  await page.goto(at(shop, '/Jobs/142/Find'));
  await expect(page.locator('#here')).toHaveText('Ben Solder has this open');
  await expect(ben.locator('#here')).toHaveText('Nora Weld has this open');

  // Nora is typing a reading while Ben files a trial.
  await page.locator('.map a.probe').first().focus();
  await page.keyboard.press('Enter');
  const entry = page.locator('.reading-bar input.entry');
  await expect(entry).toBeFocused();
  await page.keyboard.type('4.9');
  const point = await page.locator('.reading-bar .at b').innerText();
  await ben.locator('.reading-bar select[name="result"], .reading-bar [name="result"]').first().waitFor();
  await ben.getByRole('button', { name: /Works/ }).first().press('Enter');
  await expect(ben.locator('.know')).toContainText('Speaker');
  await expect(page.locator('#changed')).toContainText('Ben Solder changed this job');
  await expect(page.locator('.know')).toContainText('Speaker');
  await expect(entry).toHaveValue('4.9');
  await expect(entry).toBeFocused();
  await page.keyboard.type('1');
  await expect(entry).toHaveValue('4.91');
  await page.keyboard.press('Enter');
  await expect(page.locator('.know')).toContainText(point);
  await expect(ben.locator('.know')).toContainText(point);

  await ben.goto(at(shop, '/Jobs/142/Timeline'));
  await expect(ben.locator('.line-time').first()).toContainText('by Nora Weld');
  await ben.goto(at(shop, '/'));
  await expect(page.locator('#here')).toHaveText('');
});

test('a phone joins by its code, sees one job and adds a picture that the bench sees at once', async ({ page, browser, shop }) => {
  await enter(page, shop, 'Nora Weld');
  await page.goto(at(shop, '/Jobs/133/Phone'));
  await page.getByRole('button', { name: 'Show a code' }).press('Enter');
  await expect(page.locator('svg.qr')).toBeVisible();
  expect(await seriousFaults(page)).toEqual([]);
  const link = await page.locator('.join .small .mono').innerText();
  await page.goto(at(shop, '/Jobs/133/Pictures'));
  const before = await page.locator('#thumbs li').count();

  const context = await browser.newContext({ viewport: { width: 390, height: 800 }, isMobile: true, hasTouch: true });
  const phone = await context.newPage();
  await phone.goto(link);
  expect(await seriousFaults(phone)).toEqual([]);
  await phone.getByRole('button', { name: 'Join with this phone' }).click();
  await expect(phone).toHaveURL(/\/Jobs\/133\/Pictures$/);
  expect(await phone.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true);
  const picture = readFileSync(new URL('../docs/screenshots/day.png', import.meta.url));
  await phone.locator('input[type="file"]').first().setInputFiles({ name: 'IMG_1.png', mimeType: 'image/png', buffer: picture });
  await phone.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(phone.locator('#thumbs li')).toHaveCount(before + 1);
  await expect(page.locator('#thumbs li')).toHaveCount(before + 1);
  await expect(page.locator('#changed')).toContainText('Nora Weld, by phone');

  // Nothing else is open to it, and the code lets nobody else in.
  for (const path of ['/', '/Jobs', '/Jobs/142/Find', '/Settings', '/Stock']) {
    const answer = await phone.goto(at(shop, path));
    expect(answer.status(), path).toBe(403);
  }
  const other = await (await browser.newContext()).newPage();
  await other.goto(link);
  await expect(other.getByText('does not hold any more')).toBeVisible();

  // Its session stands under its owner's, and ends there.
  await page.goto(at(shop, '/Me'));
  const row = page.getByRole('row', { name: /phone at job 133/ });
  await row.getByRole('button', { name: 'End it' }).press('Enter');
  await expect(row).toHaveCount(0);
  await phone.goto(at(shop, '/Jobs/133/Pictures'));
  await expect(phone.getByRole('heading', { name: 'Sign in' })).toBeVisible();
});
