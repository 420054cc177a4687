// The whole unit as the goal, by keyboard: what comes and goes, gear that a swap names, a wreck, and worse after one's own work.
import { test, expect } from './shop.mjs';

test.use({ demo: false });

const takeIn = async (page, line) => {
  await page.goto('/');
  await page.locator('[data-heard-line]').focus();
  await page.keyboard.type(line);
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/Jobs\/\d+\/Find/);
  await expect(page.locator('.move').first()).toBeVisible();
  return page.url().match(/\/Jobs\/\d+/)[0];
};

const bar = (page) => page.locator('.reading-bar .at b');
const first = (page) => page.locator('.move').first();
const chips = (page) => page.locator('.complaint');

// A function is tried at the bar: its chip's key, then W, or the look and F's button.
const fails = async (page, look) => {
  await page.getByLabel('What the failure looks like').selectOption(look);
  await page.locator('.reading-bar').getByRole('button', { name: 'Fails' }).press('Enter');
};

const tried = async (page, look) => {
  await page.keyboard.press('Escape');
  await page.keyboard.press('5');
  await expect(bar(page)).toHaveText('Start-up');
  const filed = page.waitForResponse(/handler=Function/);
  if (look === 'w') await page.keyboard.press('w');
  else await fails(page, look);
  await filed;
  await expect(page.locator('.htmx-request')).toHaveCount(0);
};

test('an intermittent with three faces is weighed by all of them, in whichever order they came', async ({ page }) => {
  const moves = [];
  for (const faces of [['garbled-logo', 'solid-colour', 'w'], ['w', 'solid-colour', 'garbled-logo']]) {
    await takeIn(page, 'pellin atrium, light comes on, does not start');
    for (const face of faces) await tried(page, face);
    await expect(chips(page)).toHaveText([/Start-up (comes and goes|fails)/]);
    await expect(page.locator('.map .part.suspect[data-id="connector"]')).toBeVisible();
    await expect(page.locator('.worth')).not.toContainText('0 %');
    moves.push(await first(page).innerText());
  }
  expect(moves[0]).not.toContain('Set it aside');
  expect(moves[1].split('\n')[0]).toBe(moves[0].split('\n')[0]);
});

test('a swap that works names the gear, and that is dealt with next', async ({ page }) => {
  await takeIn(page, 'pellin atrium, starts, sound is fine, no picture');
  const swap = page.locator('.move', { has: page.locator('summary', { hasText: /another.*cable/i }) });
  await expect(swap).toHaveCount(1);
  if (await swap.getAttribute('open') === null) await swap.locator('summary').press('Enter');
  await swap.locator('[data-take]').focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/Swaps/);
  await page.keyboard.press('w');
  await expect(page).toHaveURL(/Find/);
  await expect(first(page)).toContainText('cable');
  await expect(first(page)).not.toContainText('Set it aside');
});

test('a wreck is looked at and asked for a short before anything, and a short is the end', async ({ page }) => {
  const job = await takeIn(page, 'harrow quartet, no light, board cracked');
  await expect(page.locator('.know')).toContainText(/crack/i);
  await expect(first(page)).toContainText(/ground|board/i);
  expect(job).toBeTruthy();
  await page.keyboard.press('1');
  await page.locator('.reading-bar input.entry').focus();
  await page.keyboard.type('2 ohm');
  await page.keyboard.press('Enter');
  await expect(first(page)).toContainText('beyond repair');
});

test('worse after one’s own work: that work is gone over first', async ({ page }) => {
  const job = await takeIn(page, 'harrow quartet, light comes and goes when pressed, starts');
  await page.goto(`${job}/Fix?part=switch&method=replace-switch`);
  await page.getByRole('button', { name: 'Done, not tried yet' }).press('Enter');
  await expect(page).toHaveURL(/Find/);
  await expect(first(page)).toContainText('Try again: power light');
  await fails(page, 'nothing');
  await expect(first(page)).toContainText(/last work|power switch/i);
});
