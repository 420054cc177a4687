// A dead handheld opened by the screw map and closed with all screws in; a dangerous sequence refused at its step.
import { test, expect } from './shop.mjs';

test('a unit is opened only as far as needed by keyboard, tested before the screws, and closed with all screws in', async ({ page }) => {
  await page.goto('/Jobs/123/Fix?part=psu');
  await page.getByRole('link', { name: 'How to get there' }).press('Enter');
  await expect(page.getByRole('heading', { name: 'To Supply board' })).toBeVisible();
  await expect(page.locator('.screws .screw')).toHaveCount(12);
  await page.getByRole('button', { name: 'Done' }).press('Enter');
  await expect(page.locator('.apart-steps li.now').first()).toContainText('Back shell off');
  // The screws that come out now stand out.
  await expect(page.locator('.screws .now')).toHaveCount(7);
  await page.getByText('one missing, stripped or foreign?').press('Enter');
  await page.getByLabel('s3').selectOption('stripped');
  await page.getByRole('button', { name: 'Done' }).press('Enter');
  await expect(page.getByRole('heading', { name: 'Supply board can be reached now' })).toBeVisible();
  await expect(page.getByText('7 out, 7 in the tray')).toBeVisible();
  await expect(page.getByText('Not as it should be: s3 stripped')).toBeVisible();
  await expect(page.getByText('Test before the screws')).toBeVisible();
  await expect(page.locator('.tray li').filter({ hasText: 'back long' })).toContainText('2 × tri-wing 1.5, 12 mm');
  for (const step of ['Back shell off', 'Cells out']) {
    await expect(page.locator('.apart-steps li.now').last()).toContainText(step);
    await page.getByRole('button', { name: 'Back in' }).press('Enter');
  }
  await expect(page.locator('.screws .out')).toHaveCount(0);
});

test('a dangerous sequence is stopped at its step, and goes on after a rinse and drying', async ({ page }) => {
  await page.goto('/Materials');
  const put = async (agent, surface) => {
    await page.getByLabel('Agent').selectOption(agent);
    await page.getByLabel('On which surface').selectOption(surface);
    await page.getByRole('button', { name: 'Put it on' }).press('Enter');
  };
  await put('bleach-1-10', 'bare-plastic');
  await expect(page.locator('.sequence > li')).toHaveCount(1);
  await put('vinegar', 'battery-contacts');
  await expect(page.locator('.sequence > li.stopped')).toContainText('chlorine gas');
  await page.getByRole('link', { name: 'Take the last one off' }).press('Enter');
  await page.getByRole('button', { name: 'Rinse' }).press('Enter');
  await page.getByLabel('Minutes to dry').fill('30');
  await page.getByRole('button', { name: 'Dry', exact: true }).press('Enter');
  await put('vinegar', 'battery-contacts');
  await expect(page.locator('.sequence > li')).toHaveCount(4);
  await expect(page.locator('.sequence > li.stopped')).toHaveCount(0);
});

test('two timers over two jobs run in the strip of every page, and one that is due says so in the title', async ({ page }) => {
  const start = async (job, label, minutes) => {
    await page.goto(`/Timers?job=${job}&label=${label}`);
    await page.getByLabel('Minutes').fill(minutes);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('status').first()).toContainText(label);
  };
  await start(123, 'soak', '20');
  await start(143, 'dry', '0.05');
  await page.goto('/Jobs/123/Find');
  await expect(page.locator('#timers .timer')).toHaveCount(2);
  await expect(page.locator('#timers .timer.due')).toContainText('dry');
  await expect(page).toHaveTitle(/^\(1 due\)/);
  await expect(page.locator('#timers .timer').filter({ hasText: 'soak' })).toContainText(/19:\d\d/);
  await page.getByRole('button', { name: 'soak: pause' }).press('Enter');
  await expect(page.locator('#timers .timer.paused')).toContainText('soak');
  await page.getByRole('button', { name: 'dry: done' }).press('Enter');
  await expect(page.locator('#timers .timer')).toHaveCount(1);
  await expect(page).not.toHaveTitle(/due/);
});
