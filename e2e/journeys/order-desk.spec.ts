import { type BrowserContext, expect, type Locator, type Page, test } from '@playwright/test';
import {
  api,
  band,
  closesItsPages,
  desktop,
  itemsOf,
  keyOrder,
  outside,
  phone,
  rightWeight,
  scan,
  sentToPicking,
  signIn,
  taskOf,
} from '../world.js';

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

/** Goes to a field or act by the Tab key alone. */
async function tabTo(page: Page, to: Locator): Promise<void> {
  await to.waitFor();
  for (let i = 0; i < 60; i++) {
    if (await to.evaluate((el) => el === document.activeElement)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error('Tab does not come there');
}
const type = (page: Page, text: string) => page.keyboard.type(text, { delay: 70 });

interface Order {
  code: string;
  state: string;
  version: number;
  lines: { wanted: number; reserved: number; picked: number }[];
  parcels: { state: string }[];
}
const order = (code: string) => api<Order>(desk, `orders/${code}`);

/** An order that comes before others. */
const keyed = (units: number) => keyOrder(desk, [{ sku: 'TOOL-JH', quantity: units, price: '7.90' }], { priority: 9 });

/** Picks so many by scanner: the bin, the goods one by one, the tote. */
async function pickByScanner(round: string, tote: string, units: number): Promise<void> {
  const { stops } = await taskOf<{ stops: { itemId: number; placeCode: string }[] }>(desk, 'pick', round);
  const code = (await itemsOf(desk)).get(stops[0]!.itemId)!.codes[0]!.code;
  await floor.goto(`/floor/pick/${round}`);
  await expect(floor.getByText('Scan an empty tote')).toBeVisible();
  await scan(floor, tote);
  await scan(floor, stops[0]!.placeCode);
  for (let i = 0; i < units; i++) await scan(floor, code);
  await scan(floor, tote);
}

test('from quote to order by keyboard alone', async () => {
  await desk.goto('/orders');
  await tabTo(desk, desk.getByRole('link', { name: 'Key an order' }));
  await desk.keyboard.press('Enter');
  await expect(desk.getByRole('heading', { name: 'Key an order' })).toBeVisible();
  await tabTo(desk, desk.getByRole('combobox', { name: 'Customer' }));
  await type(desk, 'moorfoot');
  await expect(desk.getByRole('option', { name: /Moorfoot Honey/ })).toBeVisible();
  await desk.keyboard.press('Enter');
  await expect(desk.getByLabel('Street')).toHaveValue('18 Quarry Bank');
  await tabTo(desk, desk.getByLabel('Only a quote'));
  await desk.keyboard.press('Space');
  await expect(desk.getByRole('heading', { name: 'Write a quote' })).toBeVisible();
  await tabTo(desk, desk.getByRole('combobox', { name: 'Goods of line 1' }));
  await type(desk, 'round jar');
  await expect(desk.getByRole('option', { name: /Jar 454 g, round/ })).toBeVisible();
  await desk.keyboard.press('ArrowDown');
  await desk.keyboard.press('Enter');
  const quantity = desk.getByLabel('How many, line 1');
  await expect(quantity).toBeFocused();
  await type(desk, '2');
  await tabTo(desk, desk.getByLabel('Pack of line 1'));
  await desk.keyboard.press('ArrowDown');
  // What this customer pays for a tray is known.
  await expect(desk.getByLabel('Price, line 1')).toHaveValue(/^\d+(\.\d+)?$/);
  await expect(desk.getByText('Their own price')).toBeVisible();
  await desk.getByLabel('Price, line 1').focus();
  await desk.keyboard.press('Enter');
  await expect(desk.getByRole('combobox', { name: 'Goods of line 2' })).toBeFocused();
  await type(desk, 'TOOL-JH');
  await desk.keyboard.press('Enter');
  await expect(desk.getByLabel('How many, line 2')).toHaveValue('1');
  await tabTo(desk, desk.getByRole('button', { name: 'Keep the quote' }));
  await desk.keyboard.press('Enter');
  await desk.waitForURL(/\/orders\/S-\d+$/);
  const code = desk.url().split('/').at(-1)!;
  await expect(desk.getByText('2 × 48')).toBeVisible();
  await expect.poll(() => order(code)).toMatchObject({ state: 'quote', lines: [{ reserved: 0 }, { reserved: 0 }] });
  await tabTo(desk, desk.getByRole('button', { name: 'Mail it' }));
  await desk.keyboard.press('Enter');
  await expect(async () => {
    const { mails } = await outside(desk);
    expect(mails.some((m) => m.subject === `Our quote ${code}` && m.attachments.includes(`${code}.pdf`))).toBe(true);
  }).toPass();
  // The next thing to do, by its key.
  await desk.keyboard.press('n');
  await expect(desk.getByText(`Quote ${code} is an order`).first()).toBeVisible();
  await expect.poll(async () => (await order(code)).state).toBe('open');
});

test('an order is changed while it is picked: the phone is told, and what is wanted no longer is put away', async () => {
  const code = await keyed(4);
  const round = await sentToPicking(desk, code);
  await pickByScanner(round, 'T-25', 3);
  await expect(async () => expect((await order(code)).lines[0]!.picked).toBe(3)).toPass();
  await desk.goto(`/orders/${code}/edit`);
  await expect(desk.getByText('It is picking: the floor is told at once')).toBeVisible();
  await desk.getByLabel('How many, line 1').fill('2');
  await desk.getByLabel('Why it is changed').fill('two are enough');
  await desk.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(desk.getByText('The floor is asked: 1 to put away from T-25.')).toBeVisible();
  await expect(desk.getByText(/4 → 2\. two are enough/)).toBeVisible();
  // The phone, which nobody touched, says so.
  await expect(floor.getByText('The order has changed')).toBeVisible();
  await expect(floor.getByText('Set the tote down')).toBeVisible();
  await scan(floor, 'TABLE-1');
  await expect(floor.getByText('Set down. Ready to pack')).toBeVisible();
  await floor.getByRole('link', { name: 'Put them away' }).tap();
  await expect(floor).toHaveURL(/\/floor\/store/);
  await expect.poll(() => order(code)).toMatchObject({ state: 'picked', lines: [{ wanted: 2, picked: 2 }] });
});

test('an order is cancelled after packing: what it takes back is listed, the label is given back', async ({ browser }) => {
  const code = await keyed(2);
  await pickByScanner(await sentToPicking(desk, code), 'T-26', 2);
  await scan(floor, 'TABLE-1');
  await expect(floor.getByText('Set down. Ready to pack')).toBeVisible();
  const bench = await desktop(browser, 'dilys');
  await bench.goto(`/bench/${code}`);
  await expect(bench.getByRole('heading', { name: 'Moorfoot Honey Co.' })).toBeVisible();
  const [, item] = [...(await itemsOf(desk))].find(([, i]) => i.sku === 'TOOL-JH')!;
  for (let i = 0; i < 2; i++) await scan(bench, item.codes[0]!.code);
  await bench.getByLabel('Weight in grams').fill(String(await rightWeight(bench, code)));
  await bench.getByRole('button', { name: /Harrier Post parcel, two days/ }).click();
  await bench.getByRole('button', { name: 'Print label' }).click();
  await expect(bench.getByText('Label printed. Put the parcel into its lane.')).toBeVisible();
  await desk.goto(`/orders/${code}`);
  await desk.getByRole('button', { name: 'Cancel it' }).click();
  const dialog = desk.getByRole('dialog', { name: `Cancel ${code}` });
  await expect(dialog.getByText(`Parcel ${code}-1 is taken apart: 2 pieces to put away.`)).toBeVisible();
  await expect(dialog.getByText(`The label of ${code}-1 is given back to its carrier.`)).toBeVisible();
  await dialog.getByLabel('Why').fill('They bought elsewhere');
  await dialog.getByRole('button', { name: 'Cancel the order' }).click();
  await expect(desk.getByText('taken apart, its label is void')).toBeVisible();
  await expect.poll(() => order(code)).toMatchObject({ state: 'cancelled', parcels: [{ state: 'void' }] });
  await expect(async () => {
    const world = (await outside(desk)) as unknown as { parcels: { parcel: string; steps: { what: string }[] }[] };
    expect(world.parcels.find((p) => p.parcel === `${code}-1`)?.steps.at(-1)?.what).toBe('given back');
  }).toPass();
  // Nobody can hand it over any more.
  await bench.goto('/dispatch');
  await expect(bench.getByRole('link', { name: `${code}-1` })).toHaveCount(0);
  await expect(band(bench, 'too-many')).toHaveCount(0);
});

test('an order is held by hand for somebody, and goes on', async () => {
  const code = await keyed(1);
  await desk.goto(`/orders/${code}`);
  await desk.getByRole('button', { name: 'Hold it' }).click();
  const dialog = desk.getByRole('dialog', { name: `Hold ${code}` });
  await dialog.getByLabel('Why').fill('Waits for the bank');
  await dialog
    .getByLabel('Who sees to it')
    .selectOption({ label: 'Orla Finch' })
    .catch(() => undefined);
  await dialog.getByRole('button', { name: 'Hold it' }).click();
  const held = desk.getByRole('region', { name: 'Held' });
  await expect(held.getByText('Waits for the bank')).toBeVisible();
  await expect(desk.getByRole('button', { name: 'Send to picking' })).toHaveCount(0);
  await held.getByRole('button', { name: 'Clear it' }).click();
  await expect(held).toHaveCount(0);
  await expect(desk.getByRole('button', { name: 'Send to picking' })).toBeVisible();
});
