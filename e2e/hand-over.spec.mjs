// From proof to the door: an intermittent unit proved by starts, photographed, labelled, sheeted and returned; another to sale; a third to parts.
import { test, expect } from './shop.mjs';

test('an intermittent unit is proved, photographed, labelled, sheeted and returned', async ({ page }) => {
  const key = async (letter) => {
    await page.waitForLoadState();
    await page.keyboard.press(letter);
  };
  await page.goto('/Jobs/133/Starts?function=power-light');
  for (let n = 1; n <= 15; n += 1) {
    await key('w');
    await expect(page.getByText(`0 of ${n} failed`)).toBeVisible();
  }
  await key('e');
  // The rest of the plan, one key each: the next line has the focus after each answer.
  await page.waitForURL(/Prove/);
  await page.locator('[data-prove-row].now').focus();
  const all = async () => {
    while (await page.locator('[data-prove-row].now').count()) {
      const left = await page.locator('#prove h2').first().textContent();
      await page.keyboard.press('w');
      await expect(page.locator('#prove h2').first()).not.toHaveText(left);
    }
  };
  await all();
  // The shell was off: what goes through it is felt once more with the screws in.
  await page.getByRole('button', { name: 'It is closed up again' }).press('Enter');
  await page.waitForLoadState();
  await page.locator('[data-prove-row].now').focus();
  await all();
  await expect(page.getByText('Everything works since the last repair')).toBeVisible();
  await expect(page.getByRole('heading', { name: /^All tried/ })).toBeVisible();

  // A picture as a phone sends it, and an arrow on it where one taps.
  await page.goto('/Jobs/133/Pictures');
  const photo = await page.screenshot({ type: 'jpeg' });
  await page.getByLabel('Pictures', { exact: true }).setInputFiles({ name: 'IMG_0001.jpg', mimeType: 'image/jpeg', buffer: photo });
  await page.getByLabel('Words').last().fill('ready to go');
  await page.getByRole('button', { name: 'Add' }).press('Enter');
  await expect(page.getByRole('heading', { name: '3 pictures' })).toBeVisible();
  await page.locator('#picture').click({ position: { x: 120, y: 90 } });
  await expect(page.locator('#picture .pm-line')).toHaveCount(1);
  await page.getByRole('button', { name: 'take off' }).press('Enter');
  await expect(page.locator('#picture .pm-line')).toHaveCount(0);

  // The yellowed one: inside, outside and the grey card are tapped one after the other.
  await page.getByRole('link', { name: 'As it came' }).click();
  await page.getByLabel('inside of the shell').check();
  const box = await page.locator('#picture').boundingBox();
  const tap = (x, y) => page.locator('#picture').click({ position: { x: box.width * x, y: box.height * y } });
  await tap(0.7, 0.85);
  await tap(0.22, 0.4);
  await tap(0.86, 0.5);
  await page.getByRole('button', { name: 'Measure' }).press('Enter');
  await expect(page.getByText(/ΔE \d+\.\d between inside and outside: another/)).toBeVisible();

  await page.goto('/Labels?jobs=133&paper=roll');
  await expect(page.getByRole('img', { name: 'QR code: MENDRO-133' })).toBeVisible();

  await page.goto('/Jobs/133/Owner');
  await page.getByLabel('About').selectOption('it is ready');
  await page.getByRole('button', { name: 'Note it' }).press('Enter');
  await expect(page.getByText('Nils Ober told on the phone that it is ready').first()).toBeVisible();
  await page.goto('/Jobs/133/HandOver');
  await page.getByLabel('Warranty until').fill('2027-05-31');
  await page.getByRole('button', { name: 'Return to Nils Ober' }).press('Enter');
  await expect(page).toHaveURL(/\/Jobs\/133\/Sheet/);
  const sheet = page.locator('.sheet');
  for (const words of ['0 of 15 starts failed', 'at most 18.1 %',
    'Handed to Nils Ober; warranty until 31 May 2027', '✓ works', 'Shell, outside against inside']) {
    await expect(sheet).toContainText(words);
  }
  await expect(sheet.locator('svg.picture')).toHaveCount(2);
  const text = await page.request.get('/Jobs/133/Sheet?handler=Text');
  expect(await text.text()).toContain('PROOF IN NUMBERS');
});

test('a unit goes to sale at a price out of what others fetched, and is sold', async ({ page }) => {
  await page.goto('/Jobs/128/Sale?grade=worn');
  await page.getByRole('textbox', { name: 'Price, EUR' }).first().fill('24');
  await page.getByRole('button', { name: 'Add' }).press('Enter');
  await expect(page.getByText('rests on 1 price')).toBeVisible();
  await page.goto('/Jobs/128/HandOver');
  if (await page.getByLabel('Why it goes all the same').count()) await page.getByLabel('Why it goes all the same').fill('sold as it is');
  await page.getByLabel('Asking price').fill('22');
  await page.getByRole('button', { name: 'To sale' }).press('Enter');
  await page.getByRole('link', { name: 'Sold, returned or withdrawn' }).click();
  await page.getByRole('textbox', { name: 'Price, EUR' }).last().fill('20');
  await page.getByLabel('Fees', { exact: true }).fill('2');
  await page.getByLabel('Postage').first().fill('4');
  await page.getByRole('button', { name: 'Sold', exact: true }).press('Enter');
  await expect(page.getByText('€14.00 is left of €20.00')).toBeVisible();
});

test('a third goes to parts, and what is good in it is in stock', async ({ page }) => {
  await page.goto('/Jobs/148/HandOver');
  await page.getByText('To parts').first().click();
  await page.getByRole('button', { name: 'To parts' }).press('Enter');
  await expect(page).toHaveURL(/\/Jobs\/148\/Sheet/);
  await page.goto('/Donors');
  const speaker = page.getByRole('row').filter({ hasText: 'Speaker' }).filter({ hasText: '148' });
  await expect(speaker).toHaveCount(1);
  await speaker.getByRole('button', { name: 'Taken' }).press('Enter');
  await expect(page.getByRole('row').filter({ hasText: 'Speaker' }).filter({ hasText: '148' })).toHaveCount(0);
});

test('a job waits for a named part and comes back when it came', async ({ page }) => {
  await page.goto('/Jobs/126/HandOver');
  await page.getByLabel('Reason').fill('cone on order');
  await page.getByLabel('Part on its way').fill('speaker 28 mm');
  await page.getByRole('button', { name: 'Waiting for a part' }).press('Enter');
  await page.goto('/Calls');
  await page.getByRole('button', { name: 'speaker 28 mm came' }).press('Enter');
  await expect(page.getByText('speaker 28 mm: 126 back on the bench.')).toBeVisible();
});
