// Proof of an intermittent cure: one key a start until it is decided, then filed as evidence.
import { test, expect } from './shop.mjs';

test('an intermittent unit is proved by a run of starts, one key each', async ({ page }) => {
  const key = async (letter) => {
    await page.waitForLoadState();
    await page.keyboard.press(letter);
  };
  await page.goto('/Jobs/133/Prove');
  await page.getByRole('link', { name: 'Run of starts: Power light' }).press('Enter');
  await expect(page.getByText(/15 more starts without a failure/)).toBeVisible();
  for (let n = 1; n <= 3; n += 1) {
    await key('w');
    await expect(page.getByText(`0 of ${n} failed`)).toBeVisible();
  }
  // The protocol says under which condition: cold first, then with a hand on it.
  await key('f');
  await expect(page.getByText('1 of 4 failed')).toBeVisible();
  await key('z');
  await expect(page.getByText('0 of 3 failed')).toBeVisible();
  for (let n = 4; n <= 15; n += 1) {
    await key('w');
    await expect(page.getByText(`0 of ${n} failed`)).toBeVisible();
  }
  await expect(page.getByText('accepted: it is cured')).toBeVisible();
  await expect(page.getByText(/at most 18.1\d* % fail/)).toBeVisible();
  await key('e');
  await expect(page.getByText('Power light: 0 of 15 starts failed, accepted').first()).toBeVisible();
});

test('starts are counted hands-free by what the unit draws from the bench supply', async ({ page, context }) => {
  await page.goto('/Jobs/133/Starts?function=start-up&watch=true');
  await expect(page.getByText('Switch it on')).toBeVisible();
  const supply = await context.newPage();
  await supply.goto('/Jobs/133/Supply');
  await expect(supply.locator('[data-key="o"]')).toBeVisible();
  await supply.keyboard.press('o');
  await expect(page.getByText('0 of 1 failed')).toBeVisible();
  await expect(page.getByText('Switch it off')).toBeVisible();
  // The page of the supply comes anew with each press: it is not left before it has.
  const anew = supply.waitForEvent('load');
  await supply.keyboard.press('o');
  await expect(page.getByText('Switch it on')).toBeVisible();
  await anew;
  await supply.goto('about:blank');
  await supply.close();
  // By hand again: nothing asks the supply any more.
  await page.getByRole('link', { name: 'by hand again' }).click();
  await expect(page.getByRole('link', { name: 'Hands-free, by the bench supply' })).toBeVisible();
});
