// An empty shop: from a name on a label to the first cause with a name, by keyboard, teaching the model on the way.
import { test, expect, fileAt } from './shop.mjs';

test.use({ demo: false, models: false });

test('an empty shop comes to its first cause by keyboard, with a part and a probe taught on the way', async ({ page }) => {
  await page.goto('/');
  await expect(page.locator('.first-hour li')).toHaveCount(3);
  await page.locator('[data-heard-line]').focus();
  await page.keyboard.type('zorbo 3, four cells, no light, terminals corroded');
  await expect(page.locator('#heard')).toContainText('The shop does not know zorbo 3 yet');
  await page.keyboard.press('Enter');

  // What it is nearest to is asked with pictures, the likeliest first.
  await expect(page).toHaveURL(/\/Intake/);
  const build = page.locator('button.build').first();
  await expect(build).toContainText('four cells');
  // It is the one that Enter takes.
  await expect(build).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.locator('.new-model')).toContainText('zorbo 3 is new');
  await expect(page.locator('input[name="Form.Result[power-light]"][value="fail"]')).toBeChecked();
  // What was said of its condition is kept for a new name as well.
  await expect(page.getByRole('checkbox', { name: 'corrosion at the battery' })).toBeChecked();
  await page.getByRole('button', { name: 'Take in and go to Find' }).press('Enter');
  await expect(page).toHaveURL(/\/Jobs\/101\/Find/);
  await expect(page.locator('.move').first()).toBeVisible();

  // This one has a choke behind the switch, and a place to measure there: two lines, without leaving the job.
  const teach = async (line, said) => {
    await page.locator('details.teach summary').press('Enter');
    await page.locator('details.teach input[name=line]').fill(line);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('status').first()).toContainText(said);
  };
  await teach('part Choke behind power switch as trace', 'knows now: part Choke');
  await expect(page.locator('.map .part[data-id="choke"]')).toBeVisible();
  await teach('probe Behind the choke at choke 4.8 to 6.6 V', 'knows now: probe Behind the choke');

  for (const [probe, reading] of [['Contacts, by eye', 'ok, clean'], ['After the switch', '6.1 V'], ['Behind the choke', '0.01 V']]) {
    await fileAt(page, probe, reading);
  }
  // The taught part is the one to blame.
  await expect(page.locator('.map .part.suspect[data-id="choke"], .map .part.failed[data-id="choke"]')).toBeVisible();
  await expect(page.locator('.moves')).toContainText('Choke');

  // What was taught is told with the model, and the last of it can be taken back.
  await page.goto('/Jobs/101/Teach');
  await expect(page.locator('main')).toContainText('part Choke');
  await page.getByRole('button', { name: 'Take back what this job taught last' }).press('Enter');
  await expect(page.getByRole('status').first()).toContainText('Taken back: probe Behind the choke');
});

test('two complaints: after the cure each is asked for again by one key, and the second is gone on with', async ({ page }) => {
  await page.goto('/');
  await page.locator('[data-heard-line]').focus();
  await page.keyboard.type('Quimber front loader, red light comes on, does not start and no picture');
  await page.keyboard.press('Enter');
  await page.locator('button.build', { hasText: 'Front-loading' }).press('Enter');
  await expect(page.locator('.new-model')).toContainText('is new');
  await page.getByRole('button', { name: 'Take in and go to Find' }).press('Enter');
  await expect(page).toHaveURL(/\/Jobs\/\d+\/Find/);
  const chips = page.locator('.complaint');
  await expect(chips).toHaveText([/Start-up fails/, /Picture output fails/]);

  const job = page.url().match(/\/Jobs\/\d+/)[0];
  await expect(page.locator('.reading-bar')).toBeVisible();
  await page.goto(`${job}/Fix?part=connector&method=clean-connector`);
  await page.getByRole('button', { name: 'Done, not tried yet' }).press('Enter');
  await expect(page).toHaveURL(/Find/);
  await expect(chips).toHaveText([/Start-up not tried since/, /Picture output not tried since/]);
  await expect(page.locator('.move').first()).toContainText('Try again: start-up');
  await expect(page.locator('.reading-bar .at b')).toHaveText('Start-up');
  await page.keyboard.press('w');
  await expect(page.locator('.reading-bar .at b')).toHaveText('Picture output');
  await page.keyboard.press('f');
  await expect(chips).toHaveText([/Start-up works/, /Picture output fails/]);
  await expect(page.locator('.move').first()).not.toContainText('Set it aside');
  await expect(page.locator('.worth')).not.toContainText('Not worth');
  // A chip's own key sets the bar to it.
  await page.keyboard.press('Escape');
  await page.keyboard.press('5');
  await expect(page.locator('.reading-bar .at b')).toHaveText('Start-up');
});

test('a blank screen by keyboard alone: the build by what is claimed, another game, a clean connector, and the paper says what cured it', async ({ page }) => {
  await page.goto('/');
  await page.locator('[data-heard-line]').focus();
  await page.keyboard.type('Torvik Duo 16: light is on but no picture and no sound');
  await page.keyboard.press('Enter');
  // What can show a picture and make a sound stands first, and the arrow keys go from one to the next.
  const builds = page.locator('button.build');
  await expect(builds.first()).toBeFocused();
  await expect(builds.first()).toContainText('onsole');
  await page.keyboard.press('ArrowRight');
  await expect(builds.nth(1)).toBeFocused();
  await page.keyboard.press('ArrowLeft');
  await expect(builds.first()).toBeFocused();
  const wanted = (await builds.allInnerTexts()).findIndex((text) => text.includes('Top-loading'));
  for (let n = 0; n < wanted; n++) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(page.locator('.new-model')).toContainText('Top-loading');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/Jobs\/\d+\/Find/);
  const job = page.url().match(/\/Jobs\/\d+/)[0];

  // The first move is a swap: the bar says by which keys it is reached.
  await expect(page.locator('.move').first()).toContainText('another test cartridge');
  await expect(page.locator('.reading-bar .keys')).toContainText('swap it');
  await page.keyboard.press('Escape');
  await page.keyboard.press('1');
  await expect(page).toHaveURL(/Swaps/);
  await page.keyboard.press('f');
  await expect(page).toHaveURL(/Find/);
  await expect(page.locator('.facts')).toContainText('swap trial');

  await page.goto(`${job}/Fix?part=connector&method=clean-connector`);
  await page.keyboard.press('w');
  await expect(page).toHaveURL(/Find/);
  await expect(page.locator('.map .since')).toContainText('not tried since');
  await page.keyboard.press('w');
  await expect(page.locator('.complaint')).toHaveText([/Picture output works/, /Sound output works/]);
  // Nobody saw what was wrong, and the paper still says where it was.
  await page.goto(`${job}/Sheet`);
  await expect(page.locator('main')).toContainText(/Cartridge connector: what was wrong was not seen; picture output and sound output work/);
});
