import { expect, type Page, test } from '@playwright/test';
import { band, closesItsPages, desktop, keyOrder, picked, putOnScale, scan, sentToPicking, taskOf } from '../world.js';

closesItsPages();

async function wantsPictures(page: Page, on: boolean): Promise<void> {
  const answer = await page.request.put('/api/company/settings/parcelPictures', {
    data: { value: String(on) },
    headers: { 'idempotency-key': crypto.randomUUID() },
  });
  expect(answer.ok()).toBe(true);
}

const PNG = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==', 'base64');

test('a card goes along by rule, is left out by a scan, and the customer reads it; a kit goes in by its own code, and the parcel is pictured', async ({
  browser,
}) => {
  const owner = await desktop(browser, 'maren');
  await owner.goto('/setup/inserts');
  await owner.getByLabel('Goes along').selectOption({ label: 'Tarn and Thistle sticker, STK-TT' });
  await owner.getByLabel('With orders of').selectOption({ label: 'Phone' });
  await owner.getByLabel('Worth at least').fill('80,00');
  await owner.getByRole('button', { name: 'Keep the rule' }).click();
  await expect(owner.getByRole('button', { name: 'Change Tarn and Thistle sticker' })).toBeVisible();
  await wantsPictures(owner, true);

  const order = await keyOrder(owner, [{ sku: 'KIT-TREAT', quantity: 2, price: '45.00' }]);
  await owner.goto(`/orders/${order}`);
  await expect(owner.getByText('goes along')).toBeVisible();
  await picked(owner, await sentToPicking(owner, order), 'T-29');

  const bench = await desktop(browser, 'dilys');
  await putOnScale(bench, 0);
  await bench.goto(`/bench/${order}`);
  await expect(bench.getByText('Tarn and Thistle sticker only goes along')).toBeVisible();
  await scan(bench, 'KIT-TREAT');
  await expect(band(bench, 'accepted')).toContainText('1 kit of Autumn treatment kit');
  await scan(bench, 'KIT-TREAT');
  await expect(band(bench, 'accepted')).toContainText('1 more to scan');
  await scan(bench, 'KIT-TREAT');
  await expect(band(bench, 'too-many')).toContainText('has all of it');
  await bench.locator('input[type=file]').setInputFiles({ name: 'parcel.png', mimeType: 'image/png', buffer: PNG });
  await expect(bench.getByText('Pictured. Take another')).toBeVisible();
  await scan(bench, 'VX-LEAVE-OUT');
  await expect(band(bench, 'accepted')).toContainText('Left out');
  await putOnScale(bench, 2220);
  await expect(bench.getByRole('heading', { name: 'Done' }).or(bench.getByText('scan the next tote or docket'))).toBeVisible({
    timeout: 20_000,
  });

  await owner.goto(`/orders/${order}`);
  await expect(owner.getByText('left out', { exact: true })).toBeVisible();
  await expect(owner.getByRole('link', { name: 'Picture' })).toBeVisible();
  // The sticker goes back to its shelf, and the tote is free for the next.
  const { goods } = await taskOf<{ goods: { fromCode: string; suggestion: { code: string } | null }[] }>(owner, 'store', 1);
  await owner.goto('/floor/store');
  await expect(owner.getByRole('button', { name: /Tarn and Thistle sticker/ }).first()).toBeVisible();
  await scan(owner, 'STK-TT');
  await expect(owner.getByText('Scan the bin')).toBeVisible();
  await scan(owner, goods.find((g) => g.fromCode === 'T-29')!.suggestion!.code);
  await expect(band(owner, 'accepted')).toContainText('Tarn and Thistle sticker, in');
  // Nobody else's journey meets this rule.
  await owner.goto('/setup/inserts');
  await owner.getByRole('button', { name: 'Change Tarn and Thistle sticker' }).click();
  await owner.getByRole('button', { name: 'Take this rule away' }).click();
  await expect(owner.getByRole('button', { name: 'Change Tarn and Thistle sticker' })).toBeHidden();
  await wantsPictures(owner, false);
});
