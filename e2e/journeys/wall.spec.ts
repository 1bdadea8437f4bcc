import { expect, test } from '@playwright/test';
import { api, band, closesItsPages, desktop, itemsOf, keyOrder, phone, scan, signIn, taskOf } from '../world.js';

closesItsPages();

interface Task {
  orders: { id: number; code: string }[];
  stops: { itemId: number; placeCode: string; units: number }[];
  goods: { orderId: number; itemId: number; units: number }[];
}

test('a wall is made; two orders are picked as one, sorted into its slots by scans, and wait to be packed', async ({ browser }) => {
  const desk = await desktop(browser, 'maren');
  await desk.goto('/shelves/places/new');
  await desk.getByLabel('Code, such as C-07-2').fill('WALL-2');
  await desk.getByRole('combobox', { name: 'Kind', exact: true }).selectOption('sorting wall');
  await desk.getByLabel('Rows of slots, one over the other').fill('1');
  await desk.getByLabel('Slots in a row').fill('2');
  await expect(desk.getByText('It gets 2 slots')).toBeVisible();
  await desk.getByRole('button', { name: 'Keep the place' }).click();
  await expect(desk.getByText('Goods lie in its slots')).toBeVisible();

  const orders: string[] = [];
  for (const [i, customer] of ['Withy Lane Honey', 'Osier Bank Bees'].entries())
    orders.push(await keyOrder(desk, [{ sku: 'PAIL-3', quantity: 1 + i, price: '3.20' }], { customer }));
  await desk.goto('/picking/release?item=PAIL-3');
  await desk.getByRole('combobox', { name: 'Orders are sorted' }).selectOption('Sorted at the wall');
  await expect(desk.getByLabel('Orders on a round')).toHaveValue('12');
  await desk.getByRole('button', { name: 'Propose rounds' }).click();
  await expect(desk.getByRole('button', { name: 'Send 1 round' })).toBeEnabled();
  await desk.getByRole('button', { name: 'Send 1 round' }).click();
  await desk.waitForURL('**/picking');
  const { round } = await api<{ round: string }>(desk, `orders/${orders[0]!}`);
  const { stops } = await taskOf<Task>(desk, 'pick', round);
  expect(stops.map((s) => s.units)).toEqual([3]);

  const device = await phone(browser);
  await signIn(device, 'ines');
  const floor = await device.newPage();
  const { codes, packs } = (await itemsOf(desk)).get(stops[0]!.itemId)!;
  const code = codes.find((c) => c.packId === packs.find((p) => p.factor === 1)!.id)!.code;
  await floor.goto(`/floor/pick/${round}`);
  await expect(floor.getByText('Scan an empty tote')).toBeVisible();
  await scan(floor, 'T-28');
  await scan(floor, stops[0]!.placeCode);
  for (let i = 0; i < 3; i++) await scan(floor, code);
  await expect(floor.getByText('Set the totes down at the wall')).toBeVisible();
  await scan(floor, 'TABLE-1');
  await expect(band(floor, 'not-this')).toContainText('Set it down at a sorting wall');
  await scan(floor, 'WALL-2');
  await expect(band(floor, 'accepted')).toContainText('2 orders together: ready to sort');
  await floor.getByRole('link', { name: 'Sort it' }).tap();

  // One piece, two inputs; the wrong slot is refused, and the right one is lit.
  await expect(floor.getByRole('heading', { name: 'Scan the goods' })).toBeVisible();
  await scan(floor, code);
  await expect(floor.getByRole('heading', { name: 'Into slot 1: scan it' })).toBeVisible();
  await expect(floor.locator('.wall [aria-current]')).toHaveText(/^1/);
  await scan(floor, 'WALL-2-02');
  await expect(band(floor, 'not-this')).toContainText('These go into slot 1');
  await scan(floor, 'WALL-2-01');
  await expect(band(floor, 'accepted')).toContainText('is complete: ready to pack');
  await scan(floor, code);
  await floor.getByRole('button', { name: '2', exact: true }).tap();
  await scan(floor, 'WALL-2-02');
  await expect(floor.getByRole('heading', { name: 'All of it is sorted' })).toBeVisible();
  await expect(floor.getByRole('listitem', { name: /^Slot 2, .*complete/ })).toBeVisible();

  await expect(async () => {
    const { rows } = await api<{ rows: { order: string; tote: string }[] }>(desk, 'bench/queue');
    expect(orders.map((o) => rows.find((r) => r.order === o)?.tote)).toEqual(['WALL-2-01', 'WALL-2-02']);
  }).toPass();
  await desk.goto('/bench');
  await scan(desk, 'WALL-2-02');
  await expect(desk.getByText('Osier Bank Bees').first()).toBeVisible();
  await device.close();
});
