// Map, swap matrix, profile editor, practice and second look in the browser.
import { test, expect } from './shop.mjs';

const box = async (page) => (await page.locator('svg.map').first().getAttribute('viewBox')).split(' ').map(Number);

test('the map is enlarged, moved and shown whole again by keys and buttons', async ({ page }) => {
  await page.goto('/Jobs/143/Find');
  const whole = await box(page);
  await page.keyboard.press('Escape');
  await page.keyboard.press('+');
  await page.keyboard.press('+');
  const near = await box(page);
  expect(near[2]).toBeLessThan(whole[2] * 0.6);
  // Dragged to the left the view moves to the right.
  const svg = page.locator('svg.map');
  const { x, y, width, height } = await svg.boundingBox();
  // A spot without a block: the drag is for the ground, a click for the blocks.
  const spot = await page.evaluate(([left, top, w, h]) => {
    for (let n = 0; n < 400; n++) {
      const [px, py] = [left + w * (0.3 + 0.4 * ((n * 37) % 100) / 100), top + h * (0.2 + 0.5 * ((n * 61) % 100) / 100)];
      const hit = document.elementFromPoint(px, py);
      if (hit?.closest('svg.map') && !hit.closest('a')) return [px, py];
    }
    return null;
  }, [x, y, width, height]);
  await page.mouse.move(...spot);
  await page.mouse.down();
  await page.mouse.move(spot[0] - 60, spot[1]);
  await page.mouse.up();
  expect((await box(page))[0]).toBeGreaterThan(near[0] + 10);
  await page.keyboard.press('-');
  expect((await box(page))[2]).toBeGreaterThan(near[2]);
  await page.getByRole('button', { name: 'all', exact: true }).click();
  expect(await box(page)).toEqual(whole);
});

test('zoom stays when a point is chosen on the map, and the chosen point is told', async ({ page }) => {
  await page.goto('/Jobs/148/Find');
  await page.locator('[data-zoom="in"]').first().click();
  const before = await box(page);
  const point = page.locator('svg.map a.probe:not(.selected)').first();
  const id = await point.getAttribute('data-id');
  await point.focus();
  await page.keyboard.press('Enter');
  const chosen = page.locator('svg.map [aria-current="true"]');
  await expect(chosen).toHaveAttribute('data-id', id);
  expect((await box(page))[2]).toBeCloseTo(before[2], 1);
  await expect(page.locator('.reading-bar .at b')).not.toBeEmpty();
});

test('the map is one stop of the Tab key', async ({ page }) => {
  await page.goto('/Jobs/123/Find');
  const stops = () => page.locator('svg.map a[tabindex="0"]');
  await expect(stops()).toHaveCount(1);
  expect(await page.locator('svg.map a').count()).toBeGreaterThan(10);
  await stops().focus();
  const first = await stops().getAttribute('data-id');
  for (const key of ['ArrowDown', 'ArrowRight', 'ArrowUp', 'ArrowLeft']) await page.keyboard.press(key);
  await expect(stops()).toHaveCount(1);
  expect(await page.evaluate(() => document.activeElement.getAttribute('tabindex'))).toBe('0');
  expect(first).not.toBeNull();
  await page.keyboard.press('Tab');
  expect(await page.evaluate(() => document.activeElement.closest('svg.map') === null)).toBe(true);
});

test('a drag that ends outside the window is ended', async ({ page }) => {
  await page.goto('/Jobs/143/Find');
  for (let n = 0; n < 3; n++) await page.locator('[data-zoom="in"]').first().click();
  const svg = page.locator('svg.map');
  const send = (type, x, y, buttons) => svg.evaluate((element, [type, x, y, buttons]) => {
    element.dispatchEvent(new PointerEvent(type, { pointerId: 1, clientX: x, clientY: y, buttons, bubbles: true }));
  }, [type, x, y, buttons]);
  await svg.evaluate((element) => { element.setPointerCapture = () => {}; });
  await send('pointerdown', 500, 400, 1);
  await send('pointermove', 440, 400, 1);
  const dragged = await box(page);
  // The button went up where the page did not hear of it: what follows is no drag.
  await send('pointermove', 300, 300, 0);
  await send('pointermove', 200, 300, 1);
  expect(await box(page)).toEqual(dragged);
});

test('arrow keys walk over the map and Enter opens what is there', async ({ page }) => {
  await page.goto('/Jobs/123/Find');
  const focused = () => page.evaluate(() => document.activeElement?.dataset.id);
  await page.locator('svg.map a.part[data-id="cells"]').focus();
  await page.keyboard.press('ArrowDown');
  expect(await focused()).not.toBe('cells');
  // Downwards along the supply: every press goes on to something lower.
  const seen = new Set(['cells']);
  for (let n = 0; n < 6; n++) { seen.add(await focused()); await page.keyboard.press('ArrowDown'); }
  expect(seen.size).toBeGreaterThanOrEqual(6);
  await page.locator('svg.map a.part[data-id="contacts"]').focus();
  await page.keyboard.press('ArrowRight');
  expect(await focused()).not.toBe('contacts');
  await page.locator('svg.map a.part[data-id="switch"]').focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /Cures for power switch/ })).toBeVisible();
});

test('zoom stays when a reading redraws the board', async ({ page }) => {
  await page.goto('/Jobs/148/Find?select=probe:tp2');
  await page.locator('[data-zoom="in"]').first().click();
  const before = await box(page);
  await page.locator('.reading-bar input.entry').fill('3.0');
  await page.keyboard.press('Enter');
  await expect(page.locator('.map .probe.good[data-id="tp2"]')).toBeVisible();
  expect(await box(page)).toEqual(before);
});

test('printed, Find is the map with what is known', async ({ page }) => {
  await page.goto('/Jobs/123/Find');
  await page.emulateMedia({ media: 'print' });
  await expect(page.locator('svg.map')).toBeVisible();
  await expect(page.locator('.know')).toBeVisible();
  await expect(page.locator('.reading-bar')).toBeHidden();
  await expect(page.locator('.find .moves')).toBeHidden();
  await expect(page.locator('.map-tools')).toBeHidden();
});

test('a form sent twice files once', async ({ page }) => {
  await page.goto('/Jobs/148/Prove');
  const rows = async () => {
    const answer = await page.request.get('/Jobs/148/Timeline');
    return ((await answer.text()).match(/class="line-time"/g) ?? []).length;
  };
  // The very same form, key and all, posted two times at once, as a double click or an impatient retry does.
  const before = await rows();
  const statuses = await page.evaluate(async () => {
    const form = [...document.querySelectorAll('.prove form')].find((f) => f.querySelector('input[name="once"]'));
    const body = new URLSearchParams(new FormData(form, form.querySelector('button')));
    const send = () => fetch(form.action, { method: 'POST', body }).then((r) => r.status);
    return Promise.all([send(), send()]);
  });
  expect(statuses).toEqual([200, 200]);
  expect(await rows()).toBe(before + 1);
});

test('two swaps find the bad cable', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('textbox', { name: /Model and symptom/ }).fill('atrium no video');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/Find/);
  for (const works of ['power-light', 'start-up']) {
    await page.goto(`${page.url().split('?')[0]}?select=fn:${works}`);
    await page.getByRole('button', { name: 'Works', exact: true }).click();
    await expect(page.locator(`.map .function.works[data-id="${works}"]`)).toBeVisible();
  }
  await page.getByRole('link', { name: 'Swap trials' }).click();
  await expect(page.getByRole('heading', { name: /Swap trials/ })).toBeVisible();
  // The proposal sets the row up; what stands in is the least worn piece.
  await page.getByLabel('Test screen').selectOption({ label: 'Old set by the door' });
  await page.getByRole('button', { name: '✕ fails' }).click();
  await expect(page.locator('.matrix .swapped')).toHaveText(['Old set by the door']);
  await page.getByLabel('Test cable').selectOption({ label: 'Cable B, blue tape' });
  await page.getByRole('button', { name: '✓ works' }).click();
  await expect(page.locator('.matrix .swapped')).toHaveCount(2);
  await expect(page.locator('aside .share').first()).toContainText('Test cable');
  await page.getByRole('link', { name: 'Back to Find' }).click();
  await expect(page.locator('.know')).toContainText('Cable B, blue tape');
});

test('why tells what speaks for and against', async ({ page }) => {
  await page.goto('/Jobs/123/Find');
  await page.getByRole('link', { name: /Why\?/ }).click();
  await expect(page.locator('.reason').first()).toContainText('Power switch, dirty');
  await expect(page.locator('.reason').first()).toContainText('Fuse, far side: 6.21 V');
});

test('the editor redraws the map and lists problems while typing, and keeps a new version', async ({ page }) => {
  await page.goto('/Models/Edit/harrow-duet');
  await expect(page.getByText('Nothing wrong: it can be diagnosed with.')).toBeVisible();
  const rows = page.locator('table.rows').first().locator('tbody tr');
  const last = rows.nth(await rows.count() - 2);
  await last.getByLabel(/name/).fill('Light board');
  await expect(page.locator('#preview .problems')).toContainText('the library has no part kind');
  await last.getByLabel(/kind/).selectOption('backlight');
  await expect(page.locator('#preview .problems')).toContainText('no function needs “Light board”');
  await expect(page.locator('#preview svg.map')).toContainText('Light board');
  const feeds = page.getByLabel('Feeds');
  await feeds.fill(`${await feeds.inputValue()}\nlight: light-board > panel`);
  await expect(page.getByText('Nothing wrong: it can be diagnosed with.')).toBeVisible();
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('status')).toContainText('Kept as version 2');
  await expect(page.locator('svg.map')).toContainText('Light board');
  await page.getByRole('button', { name: 'use this one again' }).click();
  await expect(page.getByRole('status')).toContainText('as version 3');
  await expect(page.locator('svg.map')).not.toContainText('Light board');
});

test('a practice unit answers, is cured and scored', async ({ page }) => {
  await page.goto('/Practice');
  await page.locator('select[name=model]').selectOption({ label: 'Pellin Atrium pad' });
  await page.getByLabel(/Unit number/).fill('3');
  await page.getByRole('button', { name: 'Put a unit on the bench' }).click();
  await expect(page.locator('.tag.big')).toHaveText(/^P\d+$/);
  for (let n = 0; n < 40; n++) {
    const lead = page.locator('[data-move="1"] [data-take]');
    if (await lead.count() === 0) break;
    const known = await page.locator('.know li').count();
    if ((await lead.textContent()).trim() === 'Do it') {
      await lead.click();
      await page.getByRole('button', { name: 'Do it' }).click();
      await expect(page).toHaveURL(/Find/);
    } else {
      await lead.click();
      await page.locator('.reading-bar .btn.first').click();
    }
    await expect.poll(() => page.locator('.know li').count()).toBeGreaterThan(known);
  }
  await page.getByRole('link', { name: 'See the score and the better path' }).click();
  await expect(page.getByRole('status')).toContainText('Cured in');
  await expect(page.locator('.walk')).toHaveCount(2);
});

test('a second look is listed on the bench and its check is one press away', async ({ page }) => {
  await page.goto('/');
  const look = page.locator('section[aria-labelledby="second-look"] li').first();
  await expect(look).toContainText('a leg lifted off its pad');
  await look.getByRole('button', { name: 'not worth it' }).click();
  await expect(page.locator('section[aria-labelledby="second-look"]')).toContainText('taken off the list');
  await page.getByRole('button', { name: 'undo' }).click();
  // Its check is one press away, chosen in the reading bar.
  await page.locator('section[aria-labelledby="second-look"] li').first().getByRole('link', { name: /Push the legs/ }).click();
  await expect(page).toHaveURL(/\/Jobs\/\d+\/Find\?select=probe:legs/);
  // One that had been set aside came back by itself when the like cause was found.
  await page.goto('/Jobs/121/Timeline');
  await expect(page.getByText(/Back on the bench: a second look, for what was found in job \d+/)).toBeVisible();
});

test('a lesson is left out of the patterns and counts again', async ({ page }) => {
  await page.goto('/Patterns?model=pellin-atrium-cartridge');
  const row = page.locator('.patterns tr', { hasText: 'Program chip legs' });
  await expect(row).toContainText('3/');
  await row.getByRole('button', { name: '111' }).click();
  await expect(page.locator('.patterns tr', { hasText: 'Program chip legs' })).toContainText('2/');
  await page.getByRole('button', { name: '✕111' }).click();
  await expect(page.locator('.patterns tr', { hasText: 'Program chip legs' })).toContainText('3/');
});
