// The line at the door: what was heard is turned over before Enter, and a wrong model is changed after it.
import { test, expect } from './shop.mjs';

test('what was heard of a line is turned over by keys before it is taken in', async ({ page }) => {
  await page.goto('/');
  await page.locator('[data-heard-line]').focus();
  await page.keyboard.type('quartet, picture flickers, no sound, shell cracked, odd thingy');
  await expect(page.locator('.chip')).toHaveCount(3);
  await expect(page.locator('#heard .doubt')).toContainText('odd');
  // Into the list, the picture is said to work after all, the mark is taken off.
  await page.keyboard.press('ArrowDown');
  await expect(page.locator('#chip-fn-picture')).toBeFocused();
  await page.keyboard.press('Space');
  await page.keyboard.press('Space');
  await expect(page.locator('#chip-fn-picture')).toHaveValue('pass');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('#chip-mark-cracks')).toBeFocused();
  await page.keyboard.press('Space');
  await expect(page.locator('#chip-mark-cracks')).toHaveValue('none');
  // What was turned stays turned while the line is typed on.
  await page.keyboard.press('Escape');
  await page.keyboard.press('End');
  await page.keyboard.type(', light ok');
  await expect(page.locator('.chip')).toHaveCount(4);
  await expect(page.locator('#chip-fn-picture')).toHaveValue('pass');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/Jobs\/\d+\/Find/);
  await expect(page.locator('.know li', { hasText: /^\s*\S+\s*Picture/ })).toContainText('works');
  await expect(page.locator('.know li', { hasText: /Speaker/ })).toContainText('silent');
  await expect(page.locator('.know')).not.toContainText('cracked shell');
});

test('what is not understood is said by picking it', async ({ page }) => {
  await page.goto('/');
  await page.locator('[data-heard-line]').fill('quartet, makes a funny face');
  await page.locator('#heard-more').selectOption('fn.picture=fail:vertical-lines');
  await expect(page.locator('#chip-fn-picture')).toHaveValue('fail:vertical-lines');
  await page.getByRole('button', { name: 'Take in' }).click();
  await expect(page.locator('.know li', { hasText: /^\s*\S+\s*Picture/ })).toContainText('missing vertical lines');
});

test('a unit taken in as the wrong model is changed by keyboard, and its claim is heard again', async ({ page }) => {
  await page.goto('/');
  await page.locator('[data-heard-line]').fill('atrium, no picture');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/Jobs\/\d+\/Find/);
  await expect(page.locator('.know li', { hasText: 'Picture output' })).toContainText('no picture');
  await page.locator('h1').getByRole('link', { name: 'change' }).press('Enter');
  // Its cartridge and its pad are nearest; it is none of them.
  await expect(page.getByRole('button', { name: 'Pellin Atrium pad' })).toBeVisible();
  await page.getByLabel('Another model').selectOption({ label: 'Harrow Quartet' });
  await page.getByRole('button', { name: 'That one' }).press('Enter');
  await expect(page.getByRole('button', { name: 'Change it' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.locator('h1')).toContainText('Harrow Quartet');
  await expect(page.locator('.know li', { hasText: /^\s*\S+\s*Picture/ })).toContainText('nothing at all');
});
