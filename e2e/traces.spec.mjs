// Traces and jumpers: a corroded handheld worked through by keys, lines tested by the meter, boards from files and from a slanted photo.
import { test, expect } from './shop.mjs';

// A key is heard once the page's scripts have run.
const key = async (page, letter) => {
  await page.waitForLoadState();
  await page.keyboard.press(letter);
};

// The line under the slot, from the processor to the memory; it is eaten between V62 and V63.
const LINE = ['U1-6', 'V61', 'V62', 'V63', 'V64', 'U2-6'];
const conducts = (a, b) => (LINE.indexOf(a) <= 2) === (LINE.indexOf(b) <= 2);

const tips = async (page) => {
  const words = await page.locator('.trace-test').innerText();
  return words.match(/Beep (\S+) to (\S+)/).slice(1);
};

test('a corroded handheld: the break is enclosed, wires are laid, one falls off, and the slot goes back after its test', async ({ page }) => {
  await page.goto('/Jobs/154/Find');
  await page.getByRole('link', { name: 'Board map', exact: true }).press('Enter');
  await expect(page.locator('.trace-test')).toHaveText('Beep U1-6 to U2-6');
  await key(page, 'n');
  await expect(page.locator('h2', { hasText: 'Address 5' })).toContainText('being enclosed');
  await page.getByRole('button', { name: 'P1 is off' }).press('Enter');
  await expect(page.getByRole('button', { name: 'P1 is off' })).toHaveCount(0);
  // At most as many tests as there are stretches.
  for (let n = 0; n < 5; n += 1) {
    if (await page.getByText('enclosed as closely').isVisible()) break;
    const [a, b] = await tips(page);
    const board = await page.locator('#trace-board').elementHandle();
    await key(page, conducts(a, b) ? 'b' : 'n');
    await board.waitForElementState('hidden');
    await expect(page.locator('h2', { hasText: 'Address 5' })).toBeVisible();
  }
  await expect(page.getByText('enclosed as closely')).toBeVisible();
  await expect(page.locator('.know .row', { hasText: 'V62 – V63' })).toBeVisible();

  // What the tests decided is told to Find.
  await page.goto('/Jobs/154/Find');
  await expect(page.locator('.know', { hasText: 'Lines to the memory' }).first()).toBeVisible();
  await page.goto('/Jobs/154/Jumpers');
  await expect(page.getByRole('heading', { name: /Wire 1 of 2/ })).toBeVisible();
  await expect(page.locator('.wire-list tbody tr')).toHaveCount(2);
  await expect(page.locator('.trace-test')).toContainText('U1-6');
  await key(page, 'b');
  await expect(page.locator('.said, [role=status]').first()).toContainText('Wire for address 5');
  // One is tugged off while the next is soldered: one key, and it is back in the plan.
  await page.getByRole('button', { name: 'fell off' }).press('Enter');
  await expect(page.getByRole('heading', { name: /Wire 1 of 2/ })).toBeVisible();
  await key(page, 'b');
  await expect(page.getByRole('heading', { name: /Wire 1 of 1/ })).toBeVisible();
  await expect(page.locator('.trace-test')).toContainText('J4-2');
  await key(page, 'b');
  // Over the wires, from end to end; each line owes its test.
  for (const left of [2, 1]) {
    await expect(page.getByRole('heading', { name: /Test over the wires/ })).toBeVisible();
    await expect(page.getByRole('button', { name: /It beeps/ })).toBeVisible();
    await key(page, 'b');
    if (left === 1) break;
  }
  await expect(page.getByRole('heading', { name: 'All wires are in' })).toBeVisible();
  await page.getByRole('button', { name: 'is back on' }).press('Enter');
  await expect(page.getByText('Off now')).toHaveCount(0);
});

test('a run of lines is tested one key a line, hands-free by the meter, and what is silent is told', async ({ page }) => {
  await page.goto('/Jobs/146/Traces?part=line1');
  await page.getByRole('link', { name: /CN5 to U2/ }).press('Enter');
  await expect(page.locator('.trace-run a[aria-current]')).toContainText('CN5-1');
  // The stand-in's hand holds the tips; line 1 is eaten, so it stays open and is answered by key.
  await key(page, 'n');
  await expect(page.locator('.trace-run .silent')).toContainText('CN5-1');
  await expect(page.locator('.trace-run a[aria-current]')).toContainText('CN5-2');
  await key(page, 'h');
  await expect(page.locator('.trace-run .beep')).toHaveCount(4);
  await key(page, 'h');
  await expect(page.locator('.trace-run .beep').first()).toContainText('CN5-2');
  // Neighbours that are joined and should not be: one key more.
  await page.getByRole('link', { name: /CN5-2/ }).press('Enter');
  await key(page, 's');
  await expect(page.locator('.trace-run')).toContainText('joined to the next');
  await key(page, 'z');
  await expect(page.locator('.trace-run')).not.toContainText('joined to the next');
  await page.goto('/Jobs/146/Find');
  await page.locator('.older > summary').click();
  await expect(page.locator('.facts', { hasText: 'Line 1, end to end' }).first()).toBeVisible();
});

test('every line over a crack is in one list and bridged in one plan', async ({ page }) => {
  await page.goto('/Jobs/155/Traces?run=crack~cart');
  await expect(page.locator('.trace-run li')).toHaveCount(6);
  for (let n = 1; n <= 6; n += 1) {
    await key(page, 'n');
    await expect(page.locator('.trace-run .silent')).toHaveCount(n);
  }
  await key(page, 'w');
  await expect(page.locator('.wire-list tbody tr')).toHaveCount(6);
  await expect(page.locator('.bm-wire')).toHaveCount(6);
});

test('points and nets come from a file, and the map is turned over and its layers are switched', async ({ page }) => {
  await page.goto('/Jobs/125/BoardDraw');
  const record = (net, part, pin, side, x, y) => `3${side === '00' ? 1 : 2}7${net.padEnd(14)}   ${part.padEnd(6)}-${pin.padEnd(4)}       `
    + `A${side}X+${String(x * 1000).padStart(6, '0')}Y+${String(y * 1000).padStart(6, '0')}X0000Y0000R000 S0`;
  const file = ['P  UNITS CUST 1', record('A0', 'U1', '1', '00', 10, 10), record('A0', 'U2', '1', '00', 40, 10), record('A1', 'U1', '2', '01', 10, 20),
    record('A1', 'U2', '2', '02', 40, 20), '317broken', '999'].join('\r\n');
  await page.getByLabel(/Points and nets/).setInputFiles({ name: 'board.ipc', mimeType: 'text/plain', buffer: Buffer.from(file) });
  await page.getByRole('button', { name: 'Read it' }).press('Enter');
  await expect(page.getByText('4 points and 2 nets')).toBeVisible();
  await expect(page.getByText(/^line 6:/)).toBeVisible();
  await page.getByRole('button', { name: 'Use this board' }).press('Enter');
  await expect(page.locator('.trace-test')).toHaveText('Beep U1-1 to U2-1');
  const place = async () => (await page.locator('.bm-spot').first().boundingBox()).x;
  const before = await place();
  await key(page, 'f');
  await expect(page.getByText('from below, mirrored')).toBeVisible();
  expect(await place()).toBeGreaterThan(before);
  await page.getByLabel('other nets').uncheck();
  await expect(page.locator('.bm-net').first()).toBeHidden();
  await page.getByRole('link', { name: 'A1' }).first().press('Enter');
  await expect(page.locator('.trace-test')).toHaveText('Beep U1-2 to U2-2');
  await expect(page.locator('.bm-net').first()).toBeHidden();
});

test('a line is tapped over a slanted photo, and four corners put it right', async ({ page }) => {
  await page.goto('/Jobs/137/BoardDraw');
  const canvas = page.locator('#draw');
  await canvas.scrollIntoViewIfNeeded();
  const size = await canvas.boundingBox();
  const tap = (x, y) => canvas.click({ position: { x: (x / 800) * size.width, y: (y / 520) * size.height } });
  await page.getByLabel('slanted photo: four corners').check();
  await page.getByLabel('Rectangle wide, mm').fill('60');
  await page.getByLabel('and high, mm').fill('40');
  // A rectangle seen from below its lower edge: 600 pixels wide in front, 400 behind. By the rules of perspective its middle is where the
  // diagonals cross: (400, 260) between (100, 500), (700, 500), (600, 100), (200, 100) lies at y = 260.
  for (const [x, y] of [[100, 500], [700, 500], [600, 100], [200, 100]]) await tap(x, y);
  await page.getByLabel('line of copper: points').check();
  await page.getByLabel('Line is').fill('address 5');
  await tap(400, 260);
  await page.getByLabel('Point is a').selectOption('leg');
  await page.getByLabel('of part').fill('U1');
  await tap(600, 100);
  await page.getByRole('button', { name: 'Corners or line done' }).click();
  // A second line from the first point is a branch of the same net.
  await tap(400, 260);
  await tap(200, 100);
  const text = await page.locator('#draw-text').inputValue();
  const point = (id) => text.match(new RegExp(`point ${id}: ([-0-9.]+) ([-0-9.]+)`)).slice(1).map(Number);
  const near = ([x, y], [u, v]) => expect(Math.hypot(x - u, y - v)).toBeLessThan(0.5);
  near(point('N1'), [30, 20]);
  near(point('N2'), [60, 40]);
  near(point('N3'), [0, 40]);
  expect(text).toContain('net L1: address 5; N1 - N2, N1 - N3');
  await page.getByRole('button', { name: 'Use this board' }).press('Enter');
  await expect(page.getByRole('heading', { name: /address 5/ })).toBeVisible();
});
