// A morning at the bench: three soaks, a promise that holds once there are hours for it, an overrun, and a part that comes.
import { test, expect } from './shop.mjs';

const planned = async (page) => {
  await page.goto('/Day');
  await expect(page.locator('#board')).toHaveAttribute('aria-busy', 'false', { timeout: 30_000 });
};

test('a morning with three soaks, an overrun, a part that comes, and a promise saved', async ({ page }) => {
  test.setTimeout(240_000);
  page.allowErrors = /422/;
  // The bench's list is worked out behind the first page.
  await page.goto('/');
  await expect(page.locator('#next')).not.toHaveAttribute('hx-get', /Next/, { timeout: 60_000 });

  // Whoever reads this at night: the shop is open round the clock, so that the day is the same at any hour.
  await page.goto('/Day/Hours');
  for (const day of ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']) {
    await page.getByLabel(day).fill('0-23:59');
  }
  await page.getByLabel('People').fill('0');
  await page.getByRole('button', { name: 'Keep' }).press('Enter');
  await expect(page.getByRole('alert')).toContainText('1 to 20 people');
  await expect(page.getByLabel('Monday')).toHaveValue('0-23:59');
  await page.getByLabel('People').fill('1');
  await page.getByRole('button', { name: 'Keep' }).press('Enter');
  await expect(page.getByText('Kept.')).toBeVisible();

  // Three soaks run; hands go on with something else meanwhile.
  for (const [job, label] of [[120, 'vinegar'], [131, 'bath'], [134, 'drying']]) {
    await page.goto(`/Timers?job=${job}&label=${label}`);
    await page.getByLabel('Minutes').fill('90');
    await page.getByRole('button', { name: 'Start' }).press('Enter');
    await page.waitForLoadState();
  }
  await planned(page);
  await expect(page.locator('.day-while')).toHaveCount(3);
  await expect(page.locator('.day-first')).toContainText('now');
  expect(await page.locator('.day-lanes .day-passive').count()).toBeGreaterThan(3);

  // What is promised for tomorrow is done before what is not.
  const promise = page.locator('aside li', { hasText: '143' }).first();
  await expect(promise).toContainText(/\d+\s%/);
  await page.getByText('As a table').click();
  const rows = await page.locator('#board tbody tr').allInnerTexts();
  const last = rows.findLastIndex((row) => row.includes('143 '));
  expect(last).toBeGreaterThan(0);
  expect(last).toBeLessThan(rows.length - 1);

  // Something urgent comes in: it is told with its time, and stays to be read while plans follow one another.
  await page.getByLabel('What', { exact: true }).fill('fetch the parcel');
  await page.locator('input[name=minutes]').fill('45');
  const today = await page.evaluate(() => new Date(Date.now() - 86_400_000).toISOString().slice(0, 10));
  await page.locator('input[name=due]').fill(today);
  await page.getByRole('button', { name: 'Add', exact: true }).press('Enter');
  await expect(page.getByText('fetch the parcel: in the plan.')).toBeVisible();
  await expect(page.locator('#board')).toHaveAttribute('aria-busy', 'false', { timeout: 60_000 });
  await expect(page.locator('#board')).toContainText(/fetch the parcel came in, planned for \d/);
  // Little is moved for little: a hand-over of five minutes that stood first may stay there, nothing longer.
  const byHand = page.locator('#board tbody tr', { hasText: 'hands' });
  await expect.poll(async () => (await byHand.allInnerTexts()).findIndex((row) => row.includes('fetch the parcel'))).toBeGreaterThanOrEqual(0);
  const ahead = (await byHand.allInnerTexts()).findIndex((row) => row.includes('fetch the parcel'));
  expect(ahead).toBeLessThanOrEqual(1);
  if (ahead === 1) await expect(page.locator('.day-first')).toContainText(/\s[1-5]\smin/);
  await page.getByRole('button', { name: 'Done', exact: true }).press('Enter');
  await planned(page);
  await expect(page.locator('.day-first')).not.toContainText('fetch the parcel');

  // A quarter of an hour is free.
  await page.locator('input[name=free]').fill('15');
  await page.getByRole('button', { name: 'What fits' }).press('Enter');
  await expect(page.locator('aside ol li').first()).toContainText(/\d+\smin/);

  // The speaker comes: the job that waited for it is in the day.
  await expect(page.locator('#board')).not.toContainText('126 Harrow Quartet');
  await page.goto('/Jobs/126/HandOver');
  await page.getByRole('button', { name: /Take it down|Back on the bench|came/ }).first().press('Enter');
  await page.waitForLoadState();
  await planned(page);
  // Anywhere in the plan: how many hours the drawing shows is another matter.
  await expect(page.locator('#board')).toContainText('126 Harrow Quartet');

  // A repair takes far longer than expected: the minutes learn from it, and the day is planned with them.
  await page.goto('/Day/Hours');
  const all = page.getByRole('row', { name: /all of them/ });
  const times = async () => Number((await all.locator('td').first().innerText()).trim());
  const before = await times();
  await page.goto('/Jobs/137/Fix');
  await page.getByLabel('Minutes it took').fill('95');
  await page.getByRole('button', { name: 'Done, not tried yet' }).press('Enter');
  await page.waitForLoadState();
  await page.goto('/Day/Hours');
  expect(await times()).toBe(before + 1);
});

test('what another page does comes into the day that is open', async ({ page }) => {
  await planned(page);
  const other = await page.context().newPage();
  await other.goto('/');
  await other.getByPlaceholder(/what is on the label/).fill('harrow quartet no light');
  await other.getByRole('button', { name: 'Take in', exact: true }).last().press('Enter');
  await other.waitForURL(/Jobs\/\d+\/Find/);
  const number = other.url().match(/Jobs\/(\d+)/)[1];
  await other.close();
  await expect(page.locator('#board')).toContainText(`${number} Harrow Quartet`, { timeout: 20_000 });
});

test('fixed hours come from a calendar file, and the feed is read by calendar programs', async ({ page }) => {
  const day = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10).replaceAll('-', '');
  const file = ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//hand//EN', 'BEGIN:VEVENT', 'UID:x1', `DTSTAMP:${day}T000000Z`,
    `DTSTART:${day}T100000Z`, `DTEND:${day}T113000Z`, 'SUMMARY:Market', 'END:VEVENT', 'END:VCALENDAR', ''].join('\r\n');
  page.allowErrors = /422/;
  await page.goto('/Calendar');
  await page.getByLabel('iCalendar file').setInputFiles({ name: 'other.ics', mimeType: 'text/calendar', buffer: Buffer.from('hello') });
  await page.getByRole('button', { name: 'Take them in' }).press('Enter');
  await expect(page.getByRole('alert')).toContainText('no iCalendar file');
  await page.getByLabel('iCalendar file').setInputFiles({ name: 'other.ics', mimeType: 'text/calendar', buffer: Buffer.from(file) });
  await page.getByRole('button', { name: 'Take them in' }).press('Enter');
  await expect(page.getByText('In the plan.')).toBeVisible();
  await expect(page.locator('li', { hasText: 'Market' })).toBeVisible();
  const feed = await page.request.get('/calendar.ics');
  expect(feed.headers()['content-type']).toContain('text/calendar');
  const text = await feed.text();
  expect(text).toContain('UID:promise-143@mendro');
  expect(text).toMatch(/BEGIN:VCALENDAR\r\n[\s\S]*END:VCALENDAR/);
});
