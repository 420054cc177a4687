// Twelve cartridges for one price: taken in by the keyboard, worked on in rounds, the leg that repeats found, one set apart.
import { test, expect } from './shop.mjs';

const items = [
  'black box, liquid', 'black box', 'garbled logo', 'garbled logo', 'dead, edge black', 'black box',
  'garbled logo', 'black box', 'dead', 'garbled logo', 'black box', '! a racing game of another system',
];

test('twelve cartridges for one price are taken in, cleaned in a round, and the leg that repeats is found', async ({ page }) => {
  const started = Date.now();
  await page.goto('/Lots');
  await page.getByRole('textbox', { name: 'Name' }).fill('market, twelve dead');
  await page.getByLabel('Price, EUR').fill('15');
  await page.getByLabel('Most of them are').selectOption('pellin-atrium-cartridge');
  await page.getByLabel('One that works fetches').fill('16');
  await page.getByLabel('One that does not').fill('2');
  await page.getByRole('button', { name: 'Begin, then its items' }).press('Enter');
  await page.waitForURL(/Items/);
  // As fast as they are put in: a line, Enter, the next.
  for (const line of items) await page.keyboard.type(`${line}\n`);
  await page.getByRole('button', { name: 'Read only' }).press('Enter');
  await expect(page.getByRole('heading', { name: /Heard 12 items/ })).toBeVisible();
  await expect(page.getByText('apart:')).toBeVisible();
  await page.getByRole('button', { name: 'Take them in' }).press('Enter');
  await page.waitForURL(/Lots\/\d+$/);
  expect(Date.now() - started).toBeLessThan(180_000);
  await expect(page.getByRole('heading', { name: /12 units for €15.00/ })).toBeVisible();
  await expect(page.locator('.lot-strip li')).toHaveCount(12);
  await expect(page.locator('.lot-strip li.apart')).toHaveCount(1);

  // First clean all.
  const first = page.locator('.rounds li').first();
  await expect(first).toContainText('Clean the edge with alcohol');
  await expect(first).toContainText('11 units');
  await first.getByRole('link', { name: 'Begin' }).press('Enter');
  const tags = [];
  for (const key of ['w', 'f', 'f', 'f', 'w', 'f', 'f', 'f', 'w', 'f', 'f']) {
    const tag = await page.locator('#do .tag').textContent();
    tags.push(tag.trim());
    await page.keyboard.press(key);
    // The last one answered, there is no tag any more.
    await expect(page.locator('#do .tag').filter({ hasText: tag.trim() })).toHaveCount(0);
    await page.waitForLoadState();
  }
  expect(new Set(tags).size).toBe(11);
  await expect(page.getByRole('heading', { name: 'The round is through lot market, twelve dead' })).toBeVisible();
  await page.getByRole('link', { name: 'Back to the lot' }).press('Enter');
  await expect(page.locator('.lot-sum')).toContainText('In the end');

  // A lifted leg in one of them is weighed for the others: their legs come up.
  const garbled = tags.filter((_, n) => items[n] === 'garbled logo');
  await page.goto(`/Jobs/${garbled[0]}/Fix?part=legs1`);
  await page.locator('input[name=method][value=resolder-legs]').check();
  await page.getByLabel('Cause seen with your own eyes?').selectOption('lifted');
  await page.getByRole('button', { name: 'Done, works' }).press('Enter');
  await page.waitForLoadState();
  await expect(async () => {
    await page.goto('/');
    await expect(page.getByRole('region', { name: 'Second look' })).toContainText(garbled[1], { timeout: 1000 });
  }).toPass({ timeout: 30_000 });
});

test('an offer is weighed from the words of its seller, kept, bought and made a lot', async ({ page }) => {
  await page.goto('/Offers');
  await page.getByLabel('What is offered').fill('grey handheld, dead');
  await page.getByLabel('What the seller says, and what the pictures show').fill('no light at all');
  await page.getByLabel(/It is one of these/).selectOption('harrow-quartet');
  await page.getByLabel('Asking for all, EUR').fill('12');
  await page.getByLabel('Postage for all').fill('4');
  await page.getByLabel('One that works fetches').fill('48');
  await page.getByLabel('One that does not').fill('14');
  await page.getByRole('button', { name: 'Weigh it' }).press('Enter');
  await expect(page.locator('#sheet')).toContainText('Power light fails');
  await expect(page.locator('.offer-top')).toContainText('€');
  await expect(page.getByRole('heading', { name: 'Ask the seller' })).toBeVisible();
  await page.getByRole('button', { name: 'Keep it' }).press('Enter');
  await page.waitForURL(/id=\d+/);
  await page.getByLabel('Price of grey handheld, dead').fill('11');
  await page.getByRole('button', { name: 'Bought', exact: true }).press('Enter');
  await expect(page.getByText('bought for €11.00')).toBeVisible();
  await page.getByRole('button', { name: 'Make it a lot' }).press('Enter');
  await page.waitForURL(/Items/);
  await expect(page.getByRole('heading', { name: /grey handheld, dead/ })).toBeVisible();
  // What is wrong is told where it stands, and nothing that was typed is lost.
  await page.goto('/Offers');
  await page.getByLabel('What is offered').fill('half a thing');
  await page.getByLabel(/It is one of these/).selectOption('harrow-quartet');
  await page.getByLabel('One that works fetches').fill('a lot');
  page.allowErrors = /422/;
  await page.getByRole('button', { name: 'Weigh it' }).press('Enter');
  await expect(page.getByRole('alert')).toContainText('not an amount');
  await expect(page.getByLabel('What is offered')).toHaveValue('half a thing');
});

test('a part is ordered, comes late, and the job that waited for it is back on the bench', async ({ page }) => {
  await page.goto('/Jobs/124/HandOver');
  await page.locator('input[name=why]').fill('cone torn');
  await page.getByLabel(/Part on its way/).fill('Speaker 28 mm');
  await page.getByRole('button', { name: 'Waiting for a part' }).press('Enter');
  await page.waitForLoadState();
  await page.goto('/Orders');
  await expect(page.locator('tr', { hasText: 'Speaker 28 mm' }).first()).toContainText('124');
  await page.getByLabel('Job', { exact: true }).fill('127');
  await page.getByLabel('wants').fill('Connector 72');
  await page.getByLabel('how many').fill('2');
  await page.getByRole('button', { name: 'Want', exact: true }).press('Enter');
  // One lies in the bin and is put by; the other has to come, and two more fill the bin up again.
  await expect(page.locator('tr', { hasText: 'Connector 72' }).first()).toContainText('127');
  await expect(page.getByRole('heading', { name: /Best bought/ })).toBeVisible();
  // A supplier that fails loses nothing and says what to do.
  await page.getByText('Old Mill Salvage', { exact: true }).click();
  page.allowErrors = /422/;
  await page.getByRole('button', { name: 'Ask for its prices' }).last().press('Enter');
  await expect(page.getByRole('alert')).toContainText('500');
  await page.getByRole('button', { name: 'Order from Cormorant Parts' }).press('Enter');
  await expect(page.getByRole('heading', { name: /Cormorant Parts .*ordered/ })).toBeVisible();
  await page.getByRole('row', { name: /Connector 72/ }).getByRole('button', { name: /Came/ }).press('Enter');
  await expect(page.getByRole('row', { name: /Connector 72/ })).toContainText('3 of 3');
  await expect(page.getByText(/back on the bench/)).toHaveCount(0);
  await page.getByRole('row', { name: /Speaker 28 mm/ }).getByRole('button', { name: /Came/ }).first().press('Enter');
  await expect(page.getByText('124 back on the bench')).toBeVisible();
  await page.goto('/Stock');
  await page.getByRole('link', { name: 'Connector 72' }).press('Enter');
  await expect(page.getByRole('heading', { name: /2 free of 4/ })).toBeVisible();
  await page.getByLabel('Take', { exact: true }).fill('2');
  await page.getByLabel('into job').fill('127');
  await page.getByRole('button', { name: 'Take out' }).press('Enter');
  await expect(page.getByRole('heading', { name: /2 free of 2/ })).toBeVisible();
});
