// Find in the browser: swaps in place, keys, refusals, speed, and what happens when the server is gone.
import { test, expect } from './shop.mjs';

test('digits choose a move, Escape goes back to the best one, the board is swapped in place', async ({ page }) => {
  await page.goto('/Jobs/123/Find');
  const bar = page.locator('.reading-bar .at b');
  await expect(bar).toHaveText('After the switch');
  await page.evaluate(() => { window.stillHere = true; });
  await page.keyboard.press('Escape');
  await page.keyboard.press('3');
  await expect(bar).not.toHaveText('After the switch');
  // Once, as the bar says, also from an empty field.
  await page.keyboard.press('Escape');
  await expect(bar).toHaveText('After the switch');
  expect(await page.evaluate(() => window.stillHere)).toBe(true);
});

test('a wrong kind of unit is refused with a word why and stays in the field', async ({ page }) => {
  // The refusal is a 422, which the browser notes in its console.
  page.allowErrors = /422/;
  await page.goto('/Jobs/123/Find?select=probe:tp5');
  await page.locator('.reading-bar input.entry').fill('4k7 ohm');
  await page.keyboard.press('Enter');
  await expect(page.locator('#verdict .bad')).toContainText('This probe wants volts');
  await expect(page.locator('.reading-bar input.entry')).toHaveValue('4k7 ohm');
  await expect(page.getByRole('region', { name: 'What we know' })).not.toContainText('Supply board out');
});

test('an entry can be corrected in its place', async ({ page }) => {
  await page.goto('/Jobs/123/Find');
  const item = page.locator('.know li', { hasText: 'Fuse, far side' });
  await item.locator('summary').click();
  await item.getByRole('link', { name: 'Correct' }).click();
  await expect(page.locator('.reading-bar .at')).toContainText('correcting');
  await page.locator('.reading-bar input.entry').fill('0.00');
  await page.keyboard.press('Enter');
  await expect(page.locator('.know li', { hasText: 'Fuse, far side' })).toContainText('0 V');
  await expect(page.locator('.map .stretch-words')).toBeVisible();
  await expect(page.locator('.know li', { hasText: 'Fuse, far side' })).toHaveCount(1);
});

test('a reading updates map, ranking and worth line in place', async ({ page }) => {
  await page.goto('/Jobs/125/Find?select=probe:tp5');
  const worth = await page.locator('#worth').textContent();
  await page.locator('.reading-bar input.entry').fill('0');
  await page.keyboard.press('Enter');
  await expect(page.locator('.map .probe.bad[data-id="tp5"]')).toBeVisible();
  await expect(page.locator('.map .part.suspect[data-id="fuse2"]')).toBeVisible();
  await expect(page.locator('#worth')).not.toHaveText(worth);
});

test('when the server is gone the page says so and keeps what was typed', async ({ page, context }) => {
  page.allowErrors = /net::ERR|Failed to load|htmx:/;
  await page.goto('/Jobs/123/Find?select=probe:tp5');
  await page.locator('.reading-bar input.entry').fill('5.0');
  await context.setOffline(true);
  await page.keyboard.press('Enter');
  await expect(page.locator('#link-lost')).toContainText('still here');
  await expect(page.locator('.reading-bar input.entry')).toHaveValue('5.0');
  await context.setOffline(false);
});

test('the key sheet opens with ? and search with /', async ({ page }) => {
  await page.goto('/');
  // The line at the door has the keys until Escape.
  await expect(page.locator('[data-heard-line]')).toBeFocused();
  await page.keyboard.press('Escape');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('/');
  await expect(page.locator('#find')).toBeFocused();
  await page.keyboard.type('dorn');
  await page.keyboard.press('Enter');
  await expect(page.locator('td .tag')).not.toHaveCount(0);
});

test('the owner fields follow the choice of owner', async ({ page }) => {
  await page.goto('/Intake');
  await expect(page.getByLabel('Name', { exact: true })).toBeVisible();
  await page.getByLabel('shop stock').check();
  await expect(page.getByLabel('Name', { exact: true })).toBeHidden();
  await expect(page.getByLabel('Price paid')).toBeVisible();
});
