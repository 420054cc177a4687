// The whole way of one job, from the door to the printed sheet, by keyboard where a keyboard user would.
import { test, expect, fileAt } from './shop.mjs';

test.use({ demo: false });

/** Presses Tab until the element is focused; a keyboard user must be able to reach it. */
const tabTo = async (page, locator, most = 80) => {
  for (let n = 0; n < most; n++) {
    if (await locator.evaluate((element) => element === document.activeElement)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error('not reached by Tab');
};

test('one job from intake to printed sheet by keyboard', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByText('This shop is empty')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('i');
  await expect(page.getByRole('heading', { name: 'Take a unit in' })).toBeVisible();

  // Model: typed into the list, and the functions follow it.
  await expect(page.getByLabel('Model', { exact: true })).toBeFocused();
  await page.keyboard.type('Pellin Atrium p');
  await expect(page.locator('#fn-cross')).toBeVisible();
  await expect(page.getByLabel('Model', { exact: true })).toBeFocused();
  // Another model in its place, by a word of its name.
  await page.keyboard.press('Control+A');
  await page.keyboard.type('quartet');
  await expect(page.locator('#fn-wheels')).toBeVisible();
  await expect(page.locator('#fn-cross')).toHaveCount(0);

  await tabTo(page, page.getByLabel('Name', { exact: true }));
  await page.keyboard.type('Ilka Dorn');
  await tabTo(page, page.getByLabel('Claim, in the owner\'s words'));
  await page.keyboard.type('no light since last year');
  await tabTo(page, page.locator('input[name="Form.Result[power-light]"][value=""]'));
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('input[name="Form.Result[power-light]"][value="fail"]')).toBeChecked();
  // A failure asks at once what it looks like.
  await expect(page.locator('#look-power-light')).toBeFocused();
  await page.keyboard.type('nothing at all');
  await tabTo(page, page.getByRole('button', { name: 'Take in and go to Find' }));
  await page.keyboard.press('Enter');

  // Find: the reading bar holds the focus; readings walk on by themselves.
  await expect(page).toHaveURL(/\/Jobs\/101\/Find/);
  await expect(page.getByRole('status')).toHaveText('Taken in as 101.');
  const entry = page.locator('.reading-bar input.entry');
  await expect(entry).toBeFocused();
  // The best move is a look; the cells are measured first all the same, chosen on the map by keyboard.
  const first = 'Cells, in the bay';
  await page.keyboard.press('Escape');
  await page.locator('.map a.probe', { hasText: `Probe: ${first}` }).focus();
  await page.keyboard.press('Enter');
  await expect(page.locator('.reading-bar .at b')).toHaveText(first);
  await expect(entry).toBeFocused();
  await page.keyboard.type('5 A');
  await expect(page.locator('#verdict b')).toContainText('wants volts');
  await page.keyboard.press('Control+A');
  await page.keyboard.type('6.2 V');
  await expect(page.locator('#verdict b')).toContainText('as expected');
  await page.keyboard.press('Enter');
  await expect(page.locator('.know')).toContainText(first);
  await expect(page.locator('.map .probe.good', { hasText: first })).toBeVisible();
  await expect(page.locator('.reading-bar .at b')).not.toHaveText(first);

  // Another point is chosen on the map by keyboard: Tab to it, Enter.
  for (const [probe, reading] of [['Contacts, by eye', 'ok, clean'], ['After the switch', '0,02 V']]) {
    await fileAt(page, probe, reading);
  }
  await expect(page.locator('.map .stretch-words')).toHaveText('the fault lies in here');
  await expect(page.locator('.map .part.suspect[data-id="switch"]')).toBeVisible();

  // A slip is taken back with Z and brought back again.
  await page.keyboard.press('Escape');
  await page.keyboard.press('z');
  await expect(page.locator('.map .stretch-words')).toHaveCount(0);
  await page.getByRole('button', { name: 'bring back' }).press('Enter');
  await expect(page.locator('.map .stretch-words')).toBeVisible();

  // Fix: the best cure is preselected; cautions stand at the step.
  await page.getByRole('link', { name: 'Fix', exact: true }).press('Enter');
  await expect(page.getByRole('heading', { name: /Cures for power switch/ })).toBeVisible();
  const flush = page.getByRole('radio', { name: /Flush and cycle the switch/ });
  await expect(flush).toBeChecked();
  await expect(page.locator('.method:has(input[name="method"]:checked) .care')).toContainText('Alcohol burns');
  await page.getByLabel('Cause seen with your own eyes?').selectOption('dirty');
  await page.getByLabel('Minutes it took').fill('6');
  await page.locator('summary', { hasText: 'cost, note' }).press('Enter');
  await page.getByLabel('Cost of parts, EUR').fill('0,20');
  await flush.focus();
  await page.keyboard.press('w');

  // Prove: line by line with the arrow keys and W.
  await expect(page).toHaveURL(/\/Jobs\/101\/Prove/);
  await page.locator('[data-prove-row]').first().focus();
  // Those with the screws in come once it is closed.
  const rows = await page.locator('[data-prove-row]:has([value="pass"])').count();
  for (let n = 1; n < rows; n++) {
    if (n === 1) await page.keyboard.press('ArrowDown');
    await page.keyboard.press('w');
    await expect(page.locator('[data-prove-row] .ok')).toHaveCount(n + 1);
  }
  await expect(page.getByText('Everything works since the last repair')).toBeVisible();
  await page.getByRole('link', { name: 'Hand over' }).last().press('Enter');

  await page.getByLabel('Words for the sheet').fill('Switch flushed; it may return.');
  await page.getByRole('button', { name: 'Return to Ilka Dorn' }).press('Enter');
  await expect(page).toHaveURL(/\/Jobs\/101\/Sheet/);
  const sheet = page.locator('.sheet');
  for (const words of ['Ilka Dorn', 'no light since last year', 'Power switch: dirty', 'Flush and cycle the switch', '€0.20', '✓ works', 'it may return']) {
    await expect(sheet).toContainText(words);
  }

  // Printed: the sheet alone.
  await page.emulateMedia({ media: 'print' });
  await expect(page.locator('header.top')).toBeHidden();
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden();
  await expect(sheet).toBeVisible();
  await page.emulateMedia({ media: 'screen' });

  await page.getByRole('link', { name: 'To the bench', exact: true }).press('Enter');
  await expect(page.getByText('Nothing on the bench')).toBeVisible();
  await page.goto('/Jobs/101/Timeline');
  // Taken in, baseline, 3 readings, withdrawn, back, Fix, cause, repair, works, Prove, 6 proved, a second cartridge, ready, handed to, closed.
  await expect(page.locator('.line-time')).toHaveCount(22);
});
