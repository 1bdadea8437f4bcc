import { type BrowserContext, expect, type Page, test } from '@playwright/test';
import { api, band, closesItsPages, desktop, itemsOf, keyOrder, phone, scan, sentToPicking, signIn, taskOf } from '../world.js';

closesItsPages();

let desk: Page;
let device: BrowserContext;
let floor: Page;
test.beforeAll(async ({ browser }) => {
  desk = await desktop(browser, 'maren');
  device = await phone(browser);
  await signIn(device, 'ines');
  floor = await device.newPage();
});

interface Stop {
  itemId: number;
  placeCode: string;
  lot: string | null;
  units: number;
  metres: number;
}
const digits = async (number: string) => {
  for (const digit of number) await floor.getByRole('button', { name: digit, exact: true }).tap();
};

test('nine of one thing are three inputs, its lot is not taken for granted, and the bin comes first', async () => {
  const order = await keyOrder(
    desk,
    [
      { sku: 'BRSH-BEE', quantity: 9, price: '3.90' },
      { sku: 'MTS-02', quantity: 2, price: '9.90' },
    ],
    { priority: 9 },
  );
  const round = await sentToPicking(desk, order);
  const { stops } = await taskOf<{ stops: Stop[] }>(desk, 'pick', round);
  const items = await itemsOf(desk);
  // A walk begins and ends at the table: it is never nothing.
  expect(stops[0]!.metres).toBeGreaterThan(0);
  const { rows } = await api<{ rows: { code: string; metres: number }[] }>(desk, 'rounds');
  expect(rows.find((r) => r.code === round)!.metres).toBeGreaterThan(stops.reduce((sum, s) => sum + s.metres, 0));
  await floor.goto(`/floor/pick/${round}`);
  await expect(floor.getByText('Scan an empty tote')).toBeVisible();
  await scan(floor, 'T-31');
  for (const stop of stops) {
    const { codes, packs } = items.get(stop.itemId)!;
    const single = packs.find((p) => p.factor === 1)!.id;
    const code = codes.find((c) => c.packId === single)!.code;
    if (stop.lot === null) {
      // Goods before their bin: they wait in the hand until it was seen.
      await scan(floor, code);
      await expect(floor.getByText('Scan its bin too')).toBeVisible();
      await scan(floor, 'T-31');
      await expect(band(floor, 'not-this')).toContainText('Scan the bin that you took it from');
      await scan(floor, stop.placeCode);
      await expect(floor.getByText('How many? Or scan on')).toBeVisible();
      await digits(String(stop.units));
      await expect(band(floor, 'accepted')).toContainText(`${stop.units} brushes`);
    } else {
      await scan(floor, stop.placeCode);
      await scan(floor, code);
      await expect(floor.getByText('Scan the lot on it, or choose it')).toBeVisible();
      await floor.getByRole('button', { name: `It is ${stop.lot}` }).tap();
      await digits(String(stop.units));
      await expect(band(floor, 'accepted')).toContainText(`${stop.units} packs`);
    }
  }
  await scan(floor, 'TABLE-1');
  await expect(floor.getByText('Set down. Ready to pack')).toBeVisible();
  await expect(async () => expect(await api(desk, `orders/${order}`)).toMatchObject({ state: 'picked' })).toPass();
});
