import { expect, test } from '@playwright/test';
import { band, closesItsPages, desktop, keyOrder, picked, putOnScale, scan, sentToPicking } from '../world.js';

closesItsPages();

test('serial numbers are scanned at the table, in two parcels with a note, and found again by whom they went to', async ({ browser }) => {
  const owner = await desktop(browser, 'maren');
  await owner.goto('/shelves/items/SMK-SML/edit');
  await owner.getByLabel('A serial number is scanned when it is packed').check();
  await Promise.all([
    owner.waitForResponse((r) => r.request().method() === 'PUT' && r.ok()),
    owner.getByRole('button', { name: 'Keep', exact: false }).first().click(),
  ]);
  const order = await keyOrder(owner, [{ sku: 'SMK-SML', quantity: 2, price: '38.00' }], { notePacker: 'Ring before you send it' });
  await picked(owner, await sentToPicking(owner, order), 'T-10');
  const bench = await desktop(browser, 'dilys');
  await putOnScale(bench, 0);
  await bench.goto(`/bench/${order}`);
  await expect(bench.getByText('Ring before you send it')).toBeVisible();
  await scan(bench, 'VX-CONFIRM');
  const { items } = (await (await owner.request.get('/api/floor/book?site=1&since=0')).json()) as {
    items: { sku: string; codes: { code: string }[] }[];
  };
  const goods = items.find((i) => i.sku === 'SMK-SML')!.codes[0]!.code;
  await scan(bench, goods);
  await expect(bench.getByText('Scan its serial number')).toBeVisible();
  await scan(bench, order);
  await expect(band(bench, 'not-this')).toContainText('That is a paper');
  await scan(bench, 'SN-4711');
  await expect(bench.getByText('SN-4711', { exact: true })).toBeVisible();
  await scan(bench, 'VX-PARCEL');
  await scan(bench, goods);
  await scan(bench, 'SN-4711');
  await expect(band(bench, 'not-this')).toContainText('in parcel 1 already');
  await bench.getByLabel('Serial number').pressSequentially('sn-4712', { delay: 60 });
  await bench.getByLabel('Serial number').press('Enter');
  await expect(bench.getByText('SN-4711, SN-4712')).toBeVisible();

  await expect(async () => {
    const { found } = (await (await owner.request.get('/api/find?q=SN-4712')).json()) as { found: { code: string; title: string }[] };
    expect(found[0]).toMatchObject({ code: order, title: expect.stringContaining('serial number SN-4712') });
  }).toPass({ timeout: 40_000 });
});
