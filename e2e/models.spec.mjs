// Models as a whole: their check, and one given away to another shop and taken back in with its differences.
import { readFileSync } from 'node:fs';
import { test, expect, start } from './shop.mjs';

test.use({ demo: false, models: true });

test('the check of a model names what nothing tells apart, and one button mends it', async ({ page }) => {
  await page.goto('/Models/dovrel-sextant');
  await page.getByRole('link', { name: 'How good is it?' }).press('Enter');
  const alike = page.locator('section[aria-labelledby=alike] li').filter({ hasText: 'Sound cable, broken' });
  await expect(alike).toContainText('Sound board, chip dead');
  await alike.getByRole('button', { name: 'Add: Sound cable, by buzzer' }).press('Enter');
  await expect(page.getByRole('status').first()).toContainText('knows now: Sound cable, by buzzer');
  await expect(alike).toHaveCount(0);
});

test('what one more check saves is tried in the background, with its progress, and can be stopped', async ({ page }) => {
  await page.goto('/Models/quillon-tripos/Check');
  await page.getByRole('button', { name: 'Try them on practice units' }).click();
  await expect(page.locator('#gain progress')).toBeVisible();
  // It is told how far it is without anybody asking.
  await expect(page.locator('#gain progress')).not.toHaveAttribute('value', '0', { timeout: 60_000 });
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.locator('#gain')).toContainText('It was stopped.', { timeout: 60_000 });
});

test('a model goes to another shop and comes back with its differences shown', async ({ page, browser, host }) => {
  await page.goto('/Models/harrow-duet');
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'as JSON' }).click()]);
  const file = await download.path();
  const other = await start({ demo: false, models: false }, host);
  try {
    const there = await (await browser.newContext({ baseURL: other.address })).newPage();
    await there.goto('/Models/Import');
    await there.locator('input[type=file]').setInputFiles({ name: 'duet.json', mimeType: 'application/json', buffer: readFileSync(file) });
    await there.getByRole('button', { name: 'Take it in' }).click();
    await expect(there.getByRole('heading', { level: 1 })).toContainText('Harrow Duet');

    // The other shop knows it better, and gives it back.
    await there.goto('/Models/Edit/harrow-duet');
    await there.locator('details summary').first().click();
    await there.locator('[name="Form.Note"]').fill('The grey ones have a stiffer latch.');
    await there.locator('[name="Form.Author"]').fill('Ilka Dorn');
    await there.getByRole('button', { name: 'Keep it' }).click();
    await expect(there.getByText('by Ilka Dorn')).toBeVisible();
    const [again] = await Promise.all([there.waitForEvent('download'), there.getByRole('link', { name: 'as JSON' }).click()]);

    await page.goto('/Models/Import');
    await page.locator('input[type=file]').setInputFiles({ name: 'duet.json', mimeType: 'application/json', buffer: readFileSync(await again.path()) });
    await page.getByRole('button', { name: 'Take it in' }).click();
    const row = page.locator('table.differences tbody tr').filter({ hasText: 'note' });
    await expect(row).toContainText('stiffer latch');
    await row.getByRole('checkbox').check();
    await page.getByRole('button', { name: 'Take what is ticked' }).click();
    await expect(page.getByText('The grey ones have a stiffer latch.')).toBeVisible();
    await expect(page.getByText('by Ilka Dorn')).toBeVisible();
    await there.close();
  } finally {
    await other.stop();
  }
});
