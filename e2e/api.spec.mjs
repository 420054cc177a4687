// The interface for other programs: its description passes a linter, and a client made from it works the shop.
import { createConfig, lintFromString } from '@redocly/openapi-core';
import { OpenAPIClientAxios } from 'openapi-client-axios';
import { test, expect } from './shop.mjs';

test('the description passes the linter, and a client made of it takes a unit in and reads it back', async ({ page, shop }) => {
  const described = await (await page.request.get(`${shop.address}/openapi/1.json`)).text();
  const config = await createConfig({ extends: ['recommended-strict'] });
  const faults = await lintFromString({ source: described, config });
  expect(faults.map((f) => `${f.ruleId}: ${f.message} ${f.location?.[0]?.pointer ?? ''}`)).toEqual([]);

  await page.goto('/Programs');
  await page.getByLabel('Name').fill('The till');
  for (const box of await page.getByRole('checkbox').all()) await box.check();
  await page.getByRole('button', { name: 'Make its token' }).click();
  const token = (await page.locator('.notice.good .mono').innerText()).trim();

  const api = new OpenAPIClientAxios({ definition: JSON.parse(described) });
  const client = await api.init();
  Object.assign(client.defaults, { baseURL: shop.address, validateStatus: () => true, headers: { Authorization: `Bearer ${token}` } });
  const unit = { model: 'harrow-quartet', claim: 'no light', owner: 'Ada Vint' };
  const key = { headers: { 'Idempotency-Key': 'till-1' } };
  const taken = await client.takeIn(null, unit, key);
  expect(taken.status).toBe(201);
  const { number } = taken.data;
  // Sent twice it is done once; the same key with another unit is refused, and so is a key that is none.
  expect((await client.takeIn(null, unit, key)).data).toEqual({ number });
  expect((await client.takeIn(null, { ...unit, claim: 'no sound' }, key)).status).toBe(422);
  expect((await client.takeIn(null, unit, { headers: { 'Idempotency-Key': 'x'.repeat(201) } })).status).toBe(422);
  expect((await client.addReading({ number }, { function: 'power-light', works: false })).status).toBe(201);
  const job = await client.readJob({ number });
  expect(job.data.claim).toBe('no light');
  expect(job.data.records.length).toBeGreaterThan(0);
  expect((await client.readBench()).data.map((u) => u.number)).toContain(number);
  expect((await client.readStock()).status).toBe(200);
  expect((await client.readJob({ number: 999999 })).status).toBe(404);
});
