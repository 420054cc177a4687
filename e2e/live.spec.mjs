// What pages are told: whose turn it is at the meter, and what another page did.
import { test, expect } from './shop.mjs';

const words = (page) => page.locator('#meter-words');

test('who has the meter is asked before another page takes it, keeps it or gives it, and has it again', async ({ page, context }) => {
  test.setTimeout(90_000);
  await page.goto('/Jobs/123/Find?select=probe:tp3');
  await expect(words(page)).toContainText('as expected', { timeout: 30_000 });
  const other = await context.newPage();
  // Both are in front: a tab out of sight would give the meter without being asked.
  await page.evaluate(() => Object.defineProperty(document, 'hidden', { get: () => false }));
  await other.goto('/Jobs/123/Find?select=probe:tp4');
  await expect(page.locator('#meter-ask')).toBeVisible();
  await expect(page.locator('#meter-ask')).toContainText('Job 123 asks for the meter');
  await page.locator('#meter-keep').click();
  await expect(words(other)).toContainText('Job 123 keeps the meter');
  await expect(words(page)).toContainText('as expected');
  await other.locator('#meter-again').click();
  await expect(page.locator('#meter-ask')).toBeVisible();
  await page.locator('#meter-give').click();
  await expect(words(other)).toContainText(/missing|low/, { timeout: 30_000 });
  await expect(words(page)).toContainText('Given to another page');
  await page.locator('#meter-again').click();
  await expect(other.locator('#meter-ask')).toBeVisible();
  const third = await context.newPage();
  await third.goto('/Jobs/123/Find?select=probe:tp5');
  await expect(other.locator('#meter-ask')).toBeVisible();
  await third.goto('/Gear');
  await expect(other.locator('#meter-ask')).toBeHidden();
  await other.close();
  await expect(words(page)).toContainText('as expected', { timeout: 30_000 });
});

test('two tabs share one stream, and the second goes on when the first is closed', async ({ page, context }) => {
  let streams = 0;
  context.on('request', (request) => { if (request.url().endsWith('/Events')) streams += 1; });
  await page.goto('/Jobs/123/Find?select=probe:tp3');
  await expect(words(page)).toContainText('as expected', { timeout: 30_000 });
  const other = await context.newPage();
  await other.goto('/Jobs/142/Prove');
  expect(streams).toBe(1);
  await page.close();
  await other.goto('/Jobs/123/Find?select=probe:tp3');
  await expect(words(other)).toContainText('as expected', { timeout: 30_000 });
});

test('what another page files in the job is shown where it is open too', async ({ page, context }) => {
  await page.goto('/Jobs/123/Find');
  await expect(page.locator('#changed')).toBeHidden();
  const other = await context.newPage();
  await other.goto('/Jobs/123/Find?select=probe:tp5');
  await other.locator('.reading-bar .entry').fill('5.03');
  await other.keyboard.press('Enter');
  await expect(other.locator('#undo')).toBeVisible();
  await expect(other.locator('#changed')).toBeHidden();
  await expect(page.locator('#changed')).toContainText('shown as it is now');
  await expect(page.locator('.know')).toContainText('5.03 V');
});

test('a unit that is still being worked out says so, and the bench completes itself', async ({ page }) => {
  // The list is answered once as it is while something is being worked out.
  let first = true;
  await page.route('**/?handler=Next', (route) => route.continue());
  await page.route('**/', async (route) => {
    const answer = await route.fetch();
    const body = await answer.text();
    if (!first) return route.fulfill({ response: answer });
    first = false;
    const row = '>\n                <td><a class="tag"';
    return route.fulfill({
      response: answer,
      body: body.replace('<div id="next"', '<div id="next" hx-get="/?handler=Next"').replace(`<tr${row}`, `<tr class="stale"${row}`),
    });
  });
  const next = page.waitForResponse((response) => response.url().endsWith('handler=Next'));
  await page.goto('/');
  expect((await next).status()).toBe(200);
  await expect(page.locator('#next .stale')).toHaveCount(0);
  await expect(page.locator('#next tbody tr').first()).toBeVisible();
});
