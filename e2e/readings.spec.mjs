// Readings in the browser: the meter over its real TCP path, hands-free, the bar on every page, contacts, calculators, supply.
import { test, expect } from './shop.mjs';

const meterIs = async (page, address) => {
  await page.goto('/Settings');
  const before = await page.getByLabel('Bench meter, address and port').inputValue();
  await page.getByLabel('Bench meter, address and port').fill(address);
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('status').first()).toHaveText('Saved.');
  return before;
};

test('a whole supply path is measured hands-free until the switch is named', async ({ page }) => {
  test.setTimeout(120_000);
  await page.goto('/Jobs/142/Find');
  await page.locator('#walk').selectOption('supply');
  await page.locator('#hands-free').click();
  await page.goto('/Jobs/142/Find?select=walk:supply');
  await expect(page.locator('.reading-bar .at b')).toHaveText('Cells, in the bay');
  // From here on nobody touches a key.
  await expect(page.locator('.map .stretch-words')).toHaveText('the fault lies in here', { timeout: 90_000 });
  await expect(page.locator('.map :is(.part.suspect, .part.failed)[data-id="switch"]')).toBeVisible();
  await expect(page.locator('.know')).toContainText('After the switch');
  for (const point of ['Cells, in the bay', 'Supply, at the board', 'Fuse, far side'])
    await expect(page.locator('.know li', { hasText: point }).first()).toContainText('V a cell');
  // The switch is named, and what it is owed stands above the moves.
  await expect(page.locator('.known-fault')).toContainText('Power switch');
  await expect(page.locator('.move').first()).toContainText('switch');
});

test('pause holds the reading back; lifting the tips lets the next one through', async ({ page }) => {
  test.setTimeout(90_000);
  await page.goto('/Jobs/138/Find?select=probe:tp1');
  await page.keyboard.press('h');
  await page.keyboard.press('p');
  await expect(page.locator('#meter')).toHaveAttribute('data-state', 'held', { timeout: 30_000 });
  await expect(page.locator('.know')).not.toContainText('Cells, in the bay');
  await page.keyboard.press('p');
  await page.keyboard.press('t');
  await expect(page.locator('#meter-words')).toContainText('leads open');
  await page.keyboard.press('t');
  await expect(page.locator('.know')).toContainText('Cells, in the bay', { timeout: 30_000 });
});

test('a reading that is a reason to stop is filed, and hands-free waits until one has read why', async ({ page }) => {
  test.setTimeout(90_000);
  await page.goto('/Jobs/148/Find?select=probe:rail-ohms');
  await page.locator('#hands-free').click();
  await expect(page.locator('.caution.stop', { hasText: 'Short on the supply' })).toBeVisible({ timeout: 30_000 });
  await expect(page.locator('#meter-pause')).toHaveAttribute('aria-pressed', 'true');
  await expect(page.locator('#meter-words')).toContainText('paused: read the stop card');
  const filed = await page.locator('.know li').count();
  await expect(page.locator('#meter')).toHaveAttribute('data-state', /held|none/, { timeout: 30_000 });
  await expect(page.locator('.know li')).toHaveCount(filed);
  await page.keyboard.press('p');
  await expect(page.locator('#meter-pause')).toHaveAttribute('aria-pressed', 'false');
});

test('a practice unit is measured by the meter too, and typed readings are refused there', async ({ page }) => {
  test.setTimeout(90_000);
  page.allowErrors = /422/;
  await page.goto('/Jobs/900001/Find?select=probe:tp1');
  await page.locator('.reading-bar .entry').fill('6.2');
  await page.keyboard.press('Enter');
  await expect(page.locator('.reading-bar .verdict')).toContainText('answers by itself');
  await page.goto('/Jobs/900001/Find?select=probe:tp1');
  await page.locator('#hands-free').click();
  await expect(page.locator('.know li', { hasText: 'Cells, in the bay' })).toContainText(' V', { timeout: 30_000 });
});

test('Enter in an empty field files what the meter shows', async ({ page }) => {
  test.setTimeout(90_000);
  await page.goto('/Jobs/123/Find?select=probe:tp2');
  await expect(page.locator('#meter')).toHaveAttribute('data-state', /accepted|held/, { timeout: 30_000 });
  await expect(page.locator('.know')).not.toContainText('Supply, at the board');
  await page.locator('.reading-bar .entry').press('Enter');
  await expect(page.locator('.know li', { hasText: 'Supply, at the board' })).toContainText(' V');
});

test('a lost meter says so, readings are typed meanwhile, and it comes back', async ({ page, context }) => {
  test.setTimeout(90_000);
  const other = await context.newPage();
  const address = await meterIs(other, '127.0.0.1:9');
  await page.goto('/Jobs/123/Find?select=probe:tp4');
  await expect(page.locator('#meter-words')).toContainText('Is the instrument on', { timeout: 15_000 });
  await expect(page.locator('#meter')).toHaveAttribute('data-state', 'lost');
  await page.locator('.reading-bar .entry').fill('0.02');
  await page.keyboard.press('Enter');
  await expect(page.locator('.know li', { hasText: 'After the switch' })).toContainText('0.02 V');
  await page.goto('/Jobs/123/Find?select=probe:tp3');
  await meterIs(other, address);
  await expect(page.locator('#meter-words')).toContainText('as expected', { timeout: 30_000 });
});

test('the bar on Prove files, says what it means, and takes back by one key', async ({ page }) => {
  const bar = page.locator('#bar .reading-bar');
  await page.goto('/Jobs/129/Fix');
  await expect(bar).toBeVisible();
  await page.keyboard.press('r');
  await expect(page.locator('#bar .entry, #bar select').first()).toBeFocused();
  await page.goto('/Jobs/138/HandOver');
  await expect(page.locator('#bar')).toHaveCount(0);
  await page.goto('/Jobs/138/Prove');
  await expect(page.locator('.prove .btn.first')).toHaveCount(1);
  await expect(bar).toHaveCount(0);
  await page.getByRole('link', { name: 'Take a reading' }).click();
  await expect(bar).toBeVisible();
  await page.evaluate(() => window.htmx.ajax('GET', '/Jobs/138/Bar?handler=Board&select=probe:rail-ohms', { target: '#bar', swap: 'outerHTML' }));
  await expect(page.locator('#bar .at b')).toHaveText('5 V to ground');
  await expect(page.locator('#bar .entry')).toBeFocused();
  await page.keyboard.type('beep');
  await expect(page.locator('#verdict')).toContainText('Stop.');
  await page.keyboard.press('Enter');
  await expect(page.locator('.bar-said')).toContainText('5 V to ground');
  await expect(page.locator('.bar-stop .caution')).toContainText('Short on the supply');
  await page.keyboard.press('z');
  await expect(page.locator('.bar-said')).toContainText('Taken back');
  await expect(page.locator('.bar-stop')).toHaveCount(0);
});

test('contacts are swept with one key each and filed as evidence', async ({ page }) => {
  await page.goto('/Jobs/130/Contacts?connector=edge');
  for (const [key, contact, next] of [['b', 1, 3], ['n', 3, 5], ['s', 5, 7]]) {
    await page.keyboard.press(key);
    await expect(page.locator(`[data-contact="${contact}"] .sign`)).not.toBeEmpty();
    await expect(page.locator('.contact[aria-current]')).toHaveAttribute('data-contact', String(next));
  }
  await expect(page.locator('.contacts')).toContainText('2 of 3 beep; silent 3; joined 5–7');
  await page.keyboard.press('z');
  await expect(page.locator('.contacts')).not.toContainText('joined 5');
  await expect(page.locator('.contact[aria-current]')).toHaveAttribute('data-contact', '5');
  await page.keyboard.press('Escape');
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('.contact[aria-current]')).toHaveAttribute('data-contact', '7');
  await page.keyboard.type('7');
  await page.keyboard.press('Escape');
  await page.locator('.reading-bar .entry').fill('7 ohm');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-contact="7"]')).toHaveClass(/silent/);
  await expect(page.locator('.contacts')).toContainText('fits what was seen: picture fine but figures garbled');
  await page.getByRole('button', { name: 'File it as evidence' }).click();
  await expect(page.locator('.know li', { hasText: 'Fingers to legs' })).toContainText('silent 3, 7');
});

test('contacts are swept by the meter, hands-free', async ({ page }) => {
  test.setTimeout(90_000);
  await page.goto('/Jobs/124/Contacts');
  await page.locator('#hands-free').click();
  await expect(page.locator('.contact.beep')).toHaveCount(3, { timeout: 60_000 });
  await expect(page.locator('.contact.beep .sign i').first()).toHaveText(/^0\.\d$/);
});

test('every point of a unit is measured hands-free beside the good ones', async ({ page }) => {
  test.setTimeout(120_000);
  await page.goto('/Jobs/142/Compare');
  await expect(page.getByLabel('then to')).toHaveValue('every');
  const row = (name) => page.locator('#compared tr', { hasText: name });
  await expect(row('Fuse, by buzzer')).toContainText('not measured');
  await page.locator('#hands-free').click();
  await expect(row('Fuse, by buzzer').locator('.strip svg')).toBeVisible({ timeout: 60_000 });
  // An open switch looks like lifted tips: it is filed by Enter alone.
  await expect(page.locator('.reading-bar')).toContainText('Switch, by buzzer', { timeout: 40_000 });
  await expect(page.locator('#meter-words')).toContainText('Enter files OL');
  await page.locator('.reading-bar .entry').press('Enter');
  await expect(page.locator('#meter-words')).toContainText('Nothing left that a meter answers', { timeout: 60_000 });
  for (const name of ['Speaker, ohms', 'Pad, pressed']) await expect(row(name)).not.toContainText('not measured');
  await expect(row('After the switch')).toContainText('spreads below');
  await page.locator('#hands-free').click();
  await row('Fuse, far side').getByRole('link', { name: 'again' }).click();
  await expect(page.locator('.reading-bar .entry')).toBeFocused();
  await expect(page.locator('.reading-bar')).toContainText('Fuse, far side');
});

test('bands are chosen by pressing colours, and taken back', async ({ page }) => {
  await page.goto('/Calculators/resistor-bands');
  const palette = page.getByRole('group', { name: 'Add a band' });
  for (const colour of ['green', 'blue', 'black', 'gold']) await palette.getByRole('button', { name: colour }).click();
  await expect(page.locator('.calc-outputs')).toContainText('56 Ω');
  await palette.getByRole('button', { name: 'take back' }).click();
  await palette.getByRole('button', { name: 'brown' }).click();
  await expect(page.locator('.calc-outputs')).toContainText('1 %');
});

test('swapped tips are told in full, the meter stands clear of the words, and nothing is filed', async ({ page }) => {
  page.allowErrors = /422/;
  await page.goto('/Jobs/123/Find?select=probe:tp4');
  const before = await page.locator('.know li').count();
  await page.locator('.reading-bar .entry').fill('-6.2');
  await expect(page.locator('#verdict')).toContainText('swap the tips');
  await page.keyboard.press('Enter');
  await expect(page.locator('#verdict')).toContainText('swap the tips');
  await expect(page.locator('.reading-bar .entry')).toHaveValue('-6.2');
  await expect(page.locator('.know li')).toHaveCount(before);
  // The bar may be swapped in this very moment: then neither has a place yet.
  await expect.poll(async () => {
    const [words, meter] = [await page.locator('#verdict').boundingBox(), await page.locator('#meter').boundingBox()];
    return words && meter ? meter.y + meter.height <= words.y : 'no place yet';
  }).toBe(true);
});

test('a calculator answers while one types, draws it, and files it in a job', async ({ page }) => {
  await page.goto('/Calculators/resistor-bands?job=123');
  await page.getByLabel('Colours, from the end where they begin').fill('yellow,violet,red,gold');
  await expect(page.locator('.calc-outputs')).toContainText('4.7 kΩ');
  await expect(page.locator('.calc-drawing svg rect[fill]')).toHaveCount(4);
  await page.getByLabel('Measured, if known (Ω)').fill('9k8');
  await expect(page.locator('.verdict-word')).toContainText('too high');
  await page.getByLabel('Colours, from the end where they begin').fill('yellow,mauve,red');
  await expect(page.locator('#calc-result .wrong')).toContainText('“mauve” is no band colour');
  await page.getByLabel('Colours, from the end where they begin').fill('brown,black,orange,gold');
  await expect(page.locator('.verdict-word')).toContainText('within tolerance');
  await page.getByRole('button', { name: 'File', exact: true }).click();
  await expect(page).toHaveURL(/\/Jobs\/123\/Find/);
  await expect(page.locator('.know')).toContainText('Resistor bands');
});

test('the bar leads to the calculator with what is known filled in', async ({ page }) => {
  await page.goto('/Jobs/123/Find?select=probe:tp3');
  await page.locator('.reading-bar a', { hasText: 'calc' }).click();
  await expect(page.getByRole('textbox', { name: 'Cells in series' })).toHaveValue('4');
  await expect(page.locator('.calc-outputs')).toContainText('6.4 V');
});

test('the bench supply is set, switched by key, and tells what the draw means', async ({ page }) => {
  await page.goto('/Jobs/142/Supply');
  // The page asks the supply by itself; then its key is there.
  await expect(page.locator('[data-key="o"]')).toBeVisible();
  // What stands in the fields is what the unit gets; nothing has to be set first.
  await page.keyboard.press('o');
  await expect(page.locator('#supply-state')).toContainText('Nothing is drawn');
  await expect(page.locator('#supply-state')).toContainText('6.00 V');
  await page.keyboard.press('o');
  await expect(page.locator('#supply-state')).toContainText('output off');
  await Promise.all([page.waitForEvent('load'), page.getByRole('button', { name: 'Set', exact: true }).click()]);
  await expect(page.locator('#supply-state')).toContainText('output off');
});
