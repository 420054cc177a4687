// The capacitor job: revision, plan to scale, list and kit, stages with one that fails, closing with all screws in.
import { test, expect } from './shop.mjs';

const key = async (page, letter) => {
  await page.waitForLoadState();
  await page.keyboard.press(letter);
};

// Ticks every place of the stage as looked at twice.
const lookTwice = async (page) => {
  for (const box of await page.locator('input[name="Looked"]').all()) await box.check();
};

const did = async (page, name, word) =>
  page.getByRole('row', { name: new RegExp(`^${name} `) }).getByLabel(word, { exact: true }).check();

test('a backlit handheld from its revision to the last screw', async ({ page }) => {
  test.setTimeout(240_000);
  page.allowErrors = /422/;
  await page.goto('/Intake?Form.Profile=dovrel-sextant');
  const baseline = { 'power-light': 'pass', 'start-up': 'pass', picture: 'pass', buttons: 'pass', speaker: 'fail', phones: 'fail' };
  for (const [id, result] of Object.entries(baseline)) {
    await page.locator(`input[name="Form.Result[${id}]"][value="${result}"]`).check();
  }
  await page.getByLabel('Name', { exact: true }).fill('Runa Vesk');
  await page.getByRole('button', { name: 'Take in and go to Find' }).press('Enter');
  await expect(page).toHaveURL(/\/Jobs\/\d+\/Find/);
  const number = page.url().match(/Jobs\/(\d+)/)[1];

  // From the part on Fix to the plan; nothing is shown before the revision is told.
  await page.goto(`/Jobs/${number}/Fix?part=soundcaps`);
  await page.getByRole('link', { name: 'Plan the capacitor job' }).press('Enter');
  await expect(page.getByRole('heading', { name: /Which board revision/ })).toBeVisible();
  await page.goto(`/Jobs/${number}/CapacitorList`);
  await expect(page.getByText('Nothing is ordered before the revision is told')).toBeVisible();
  await page.goto(`/Jobs/${number}/Capacitors`);
  await page.getByRole('button', { name: /two chips under the shield/ }).press('Enter');
  await expect(page.getByText('23 parts')).toBeVisible();

  // Placed behind the page, all three boards; a position has its card.
  await expect(page.getByRole('button', { name: /Place them/ })).toBeVisible();
  await key(page, 'p');
  await expect(page.getByText('23 of 23 placed')).toBeVisible();
  await page.getByRole('link', { name: /Main board/ }).press('Enter');
  await expect(page.locator('.rb .rb-planned')).toHaveCount(12);
  await page.locator('.rb a[aria-label^="C41"]').focus();
  await page.keyboard.press('Enter');
  await expect(page.locator('.recap-card')).toContainText('10 µF 16 V');
  await expect(page.locator('.recap-card')).toContainText('bipolar');

  // The old one: which way it pointed, then what it measured.
  await page.goto(`/Jobs/${number}/Capacitors?at=sound/C4`);
  await page.getByLabel('as drawn').check();
  await page.getByLabel('Measured').fill('61u');
  await page.getByRole('button', { name: 'Note it' }).press('Enter');
  await expect(page.locator('.recap-card')).toContainText('61 µF low plus as drawn');

  // All of a board at once, by taps: here the photo lies a quarter turned, 4 pixels a millimetre.
  await page.goto(`/Jobs/${number}/OldWays?board=sound`);
  await expect(page.locator('#ways-say')).toContainText('Tap the middle of');
  const canvas = page.locator('#ways');
  const size = await canvas.boundingBox();
  const places = await page.locator('[data-place]').evaluateAll((all) => all.map((row) => ({
    name: row.dataset.place, plus: row.dataset.plus.split(' ').map(Number), minus: row.dataset.minus.split(' ').map(Number),
  })));
  const middle = (one) => [(one.plus[0] + one.minus[0]) / 2, (one.plus[1] + one.minus[1]) / 2];
  const tap = ([x, y]) => canvas.click({ position: { x: ((100 + 8 * y) / 800) * size.width, y: ((60 + 8 * x) / 520) * size.height } });
  for (let n = 0; n < 2; n += 1) {
    const name = (await page.locator('#ways-say').textContent()).match(/middle of (\S+)\./)[1];
    await tap(middle(places.find((one) => one.name === name)));
  }
  const [c1, c2] = [places.find((one) => one.name === 'C1'), places.find((one) => one.name === 'C2')];
  await tap(c1.plus);
  await expect(page.locator('#ways-say')).toHaveText('C1: as drawn.');
  await tap(c2.minus);
  await expect(page.locator('#ways-say')).toHaveText('C2: turned.');
  await page.getByRole('button', { name: 'Note them' }).press('Enter');
  await expect(page.getByRole('status').first()).toContainText('turned against the drawing: C2');

  // The list, and a kit against it.
  await page.goto(`/Jobs/${number}/CapacitorList`);
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'As CSV' }).click();
  expect((await download).suggestedFilename()).toBe(`capacitors-${number}.csv`);
  await page.getByLabel(/CSV with value/).fill('value,volts,size,count\n100u,ten,6.3x7,6');
  await page.getByRole('button', { name: 'Check it against the list' }).press('Enter');
  await expect(page.getByRole('alert')).toContainText('line 2: “ten” is no voltage.');
  await expect(page.getByLabel(/CSV with value/)).toHaveValue(/100u,ten/);
  await page.getByLabel(/CSV with value/).fill('value,volts,size,count\n100u,10,6.3x7,6');
  await page.getByRole('button', { name: 'Check it against the list' }).press('Enter');
  await expect(page.locator('.plain-lines')).toContainText('C1 (Supply board): wrong volts: 10 V for 16 V');

  // Opened by its steps.
  await page.goto(`/Jobs/${number}/Apart?to=main`);
  for (const step of ['Cells out', 'Back shell off', 'Board out of the shell']) {
    await expect(page.locator('.apart-steps li.now').first()).toContainText(step);
    await page.getByRole('button', { name: 'Done', exact: true }).press('Enter');
  }
  await expect(page.getByText(/11 out/)).toBeVisible();

  // Stages: nothing goes on without a second look and a try.
  await page.goto(`/Jobs/${number}/Stages`);
  await expect(page.getByRole('heading', { name: /\d stages/ })).toBeVisible();
  await key(page, 'b');
  await expect(page.getByRole('heading', { name: /Stage 1 of 4/ })).toBeVisible();
  await page.getByRole('button', { name: 'as before S' }).press('Enter');
  await expect(page.getByRole('alert')).toContainText('once more');
  await lookTwice(page);
  await did(page, 'Start-up', 'works');
  await did(page, 'Picture', 'works');
  await page.getByRole('button', { name: 'as before S' }).press('Enter');
  await expect(page.getByRole('heading', { name: /Stage 2 of 4/ })).toBeVisible();

  // One that fails: on to Find, with the last group suspected.
  await lookTwice(page);
  await did(page, 'Start-up', 'fails');
  await page.getByRole('button', { name: 'worse W' }).press('Enter');
  await expect(page).toHaveURL(/\/Find/);
  await expect(page.getByRole('status').first()).toContainText('Suspect the last group first');
  await page.goto(`/Jobs/${number}/Stages`);
  for (const stage of [3, 4]) {
    await expect(page.getByRole('heading', { name: new RegExp(`Stage ${stage} of 4`) })).toBeVisible();
    await lookTwice(page);
    await did(page, 'Start-up', 'works');
    await did(page, 'Picture', 'works');
    await page.getByRole('button', { name: 'as before S' }).press('Enter');
    await page.waitForLoadState();
    await page.goto(`/Jobs/${number}/Stages`);
  }
  await expect(page.getByRole('heading', { name: 'All stages done' })).toBeVisible();
  await expect(page.getByText('23 capacitors are new')).toBeVisible();

  // The placement sheet is as large as the board: 124 mm and a margin of 3 on either side.
  await page.goto(`/Jobs/${number}/Placement`);
  const box = await page.locator('section[aria-label="Main board"] .rb').boundingBox();
  expect(box.width).toBeCloseTo((130 / 25.4) * 96, 0);

  // Back together with all screws in.
  await page.goto(`/Jobs/${number}/Apart`);
  for (const step of ['Board out of the shell', 'Back shell off', 'Cells out']) {
    await expect(page.locator('.apart-steps li.now').last()).toContainText(step);
    for (const box of await page.locator('.apart-steps input[type="checkbox"]').all()) await box.check();
    await page.getByRole('button', { name: 'Back in' }).press('Enter');
  }
  await expect(page.locator('.screws .out')).toHaveCount(0);
});

test('a board is drawn by taps over a photo and planned', async ({ page }) => {
  await page.goto('/Jobs/125/BoardDraw');
  const canvas = page.locator('#draw');
  const size = await canvas.boundingBox();
  const tap = (x, y) => canvas.click({ position: { x: (x / 800) * size.width, y: (y / 520) * size.height } });
  // 100 pixels are 10 mm.
  await page.getByLabel('Known distance, mm').fill('10');
  await tap(100, 500);
  await tap(200, 500);
  await page.getByLabel('corner of the board').check();
  for (const [x, y] of [[100, 50], [500, 50], [500, 350], [100, 350]]) await tap(x, y);
  await page.getByRole('button', { name: 'Corners or line done' }).click();
  await page.getByLabel('capacitor: plus, then minus').check();
  await page.getByLabel('Value', { exact: true }).fill('10u 16 V');
  await page.getByLabel('Section').fill('sound');
  await tap(290, 200);
  await tap(310, 200);
  const text = page.locator('#draw-text');
  await expect(text).toHaveValue(/^board board-1: Main board; .*\ncap C1: sound; 10u 16 V; plus .*, minus /);
  // A tap is a whole pixel of the screen: a tenth of a millimetre here.
  const figures = (await text.inputValue()).replace(/^board board-1|C1|10u 16 V/g, '').match(/[0-9.]+/g).map(Number);
  [0, 30, 40, 30, 40, 0, 0, 0, 19, 15, 21, 15].forEach((wanted, n) => expect(Math.abs(figures[n] - wanted)).toBeLessThan(0.3));
  await page.getByRole('button', { name: 'Use this board' }).press('Enter');
  await expect(page.getByRole('heading', { name: 'What goes in' })).toBeVisible();
  await page.getByRole('button', { name: /Place them/ }).press('Enter');
  await expect(page.getByText('1 of 1 placed')).toBeVisible();
});
