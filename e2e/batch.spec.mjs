// A customer brings a console and four games: taken in by lines, one quote, cleaned in a round that is left and gone on with, fetched in two
// parts; then what was typed wrong in a lot is put right and taken back.
import { test, expect } from './shop.mjs';

async function begin(page, name, more) {
  await page.goto('/Lots');
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill(name);
  for (const [label, value] of Object.entries(more)) await page.getByLabel(label).fill(value);
  await page.getByLabel('Most of them are').selectOption('pellin-atrium-cartridge');
  await page.getByRole('button', { name: 'Begin, then its items' }).press('Enter');
  await page.waitForURL(/Items/);
}

async function takeIn(page, lines) {
  await page.keyboard.type(lines.join('\n'));
  await page.getByRole('button', { name: 'Take them in' }).press('Enter');
  await page.waitForURL(/Lots\/\d+$/);
}

test('a console and four games are quoted as one, cleaned in a round, and fetched in two parts', async ({ page }) => {
  await begin(page, 'Rovik, console and games', { 'Brought by': 'Pim Rovik', 'Phone, mail or address': '0555 0142' });
  await takeIn(page, ['pellin atrium, no picture', 'black box', 'black box', 'garbled logo', 'black box']);
  await expect(page.getByRole('heading', { name: /5 units brought by Pim Rovik/ })).toBeVisible();

  await page.getByRole('button', { name: 'Quoted' }).press('Enter');
  await expect(page.getByText('not answered yet')).toBeVisible();
  await page.getByLabel('At most, all').fill('120');
  await page.getByRole('button', { name: 'Agreed' }).press('Enter');
  await expect(page.getByText('Agreed, up to €120.00 together.')).toBeVisible();

  // Two are cleaned, the round is left, and it goes on with the third.
  await page.locator('.rounds li').first().getByRole('link', { name: 'Begin' }).press('Enter');
  const tags = [];
  const answer = async () => {
    const tag = (await page.locator('#do .tag').textContent()).trim();
    tags.push(tag);
    await page.keyboard.press('w');
    await expect(page.locator('#do .tag').filter({ hasText: tag })).toHaveCount(0);
    await page.waitForLoadState();
  };
  await answer();
  await answer();
  await page.keyboard.press('q');
  await page.waitForURL(/Lots\/\d+$/);
  await expect(page.getByText(new RegExp(`was left after ${tags[1]}`))).toBeVisible();
  await page.getByRole('link', { name: 'Go on' }).press('Enter');
  await page.waitForURL(/Round/);
  expect((await page.locator('#do .tag').textContent()).trim()).not.toBe(tags[0]);

  // Two are proved, each by its keys.
  for (const tag of tags) {
    await page.goto(`/Jobs/${tag}/Prove`);
    for (let n = 0; n < 8 && !(await page.getByText('Everything works').first().isVisible()); n++) {
      await page.keyboard.press('w');
      await page.waitForLoadState();
      await page.waitForFunction(() => !document.querySelector('.htmx-request'));
    }
  }

  await page.goto('/Lots');
  await page.getByRole('link', { name: 'Rovik, console and games' }).press('Enter');
  await page.getByRole('link', { name: 'Hand over' }).first().press('Enter');
  await page.waitForURL(/HandOver/);
  await expect(page.locator('input[name=number]:checked')).toHaveCount(2);
  await page.getByRole('button', { name: 'Hand over those chosen' }).press('Enter');
  await page.waitForURL(/Sheet/);
  await expect(page.getByText('2 units handed over, 3 still here.')).toBeVisible();
  await expect(page.locator('.sheet')).toContainText('Clean the edge with alcohol');
  await page.getByRole('link', { name: 'Back to the batch' }).press('Enter');
  await expect(page.getByText('3 of 5 here')).toBeVisible();

  // The rest goes as it is, each with its reason: without one none goes.
  await page.getByRole('link', { name: 'Hand over' }).first().press('Enter');
  for (const box of await page.locator('input[name=number]').all()) await box.check();
  page.allowErrors = /422/;
  await page.getByRole('button', { name: 'Hand over those chosen' }).press('Enter');
  await expect(page.getByRole('alert')).toBeVisible();
  await expect(page.locator('input[name=number]:checked')).toHaveCount(3);
  for (const reason of await page.locator('input[name^=reason-]').all()) await reason.fill('fetched as it is');
  await page.getByRole('button', { name: 'Hand over those chosen' }).press('Enter');
  await expect(page.getByText('3 units handed over: that is all of it.')).toBeVisible();
});

test('what was typed wrong in a lot is put right for several at once and taken back by one key', async ({ page }) => {
  await begin(page, 'cellar', { 'Price, EUR': '12' });
  await takeIn(page, ['dead', 'dead', 'dead']);
  await page.getByText('Those chosen: put right').press('Enter');
  for (const box of (await page.locator('#lot-items input[type=checkbox]').all()).slice(0, 2)) await box.press('Space');
  await page.getByLabel('they are').selectOption('pellin-atrium-pad');
  await page.getByRole('button', { name: 'change', exact: true }).press('Enter');
  await expect(page.locator('.notice')).toContainText('Pellin Atrium pad now');
  await page.keyboard.press('z');
  await expect(page.locator('.notice')).toContainText('cartridge');

  await page.getByText('Those chosen: put right').press('Enter');
  await page.locator('#lot-items input[type=checkbox]').first().press('Space');
  await page.getByRole('button', { name: 'taken in twice' }).press('Enter');
  await expect(page.getByRole('heading', { name: /2 units for €12.00/ })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).press('Enter');
  await expect(page.getByRole('heading', { name: /3 units for €12.00/ })).toBeVisible();
});
