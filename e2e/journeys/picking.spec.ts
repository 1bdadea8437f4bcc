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
  await desk.goto('/picking/walks');
  await expect(desk.getByRole('row', { name: new RegExp(round) })).toContainText('to be set down');
  await scan(floor, 'TABLE-1');
  await expect(floor.getByText('Set down. Ready to pack')).toBeVisible();
  await expect(desk.getByRole('row', { name: new RegExp(round) })).toHaveCount(0);
  await expect(async () => expect(await api(desk, `orders/${order}`)).toMatchObject({ state: 'picked' })).toPass();
});

test('another lot of the same bin is taken once somebody has said why the one that is due is passed over', async () => {
  const order = await keyOrder(desk, [{ sku: 'POL-PAT', quantity: 2, price: '4.90' }], { priority: 9 });
  const round = await sentToPicking(desk, order);
  const { stops } = await taskOf<{ stops: (Stop & { others: { lot: string }[] })[] }>(desk, 'pick', round);
  const [{ placeCode, lot, others }] = stops as [Stop & { others: { lot: string }[] }];
  await floor.goto(`/floor/pick/${round}`);
  await expect(floor.getByText('Scan an empty tote')).toBeVisible();
  await scan(floor, 'T-30');
  await scan(floor, placeCode);
  await scan(floor, 'POL-PAT');
  await floor.getByRole('button', { name: others[0]!.lot }).tap();
  await expect(floor.getByRole('heading', { name: `Why not lot ${lot}?` })).toBeVisible();
  await scan(floor, 'T-30');
  await expect(band(floor, 'not-this')).toContainText(`Say why lot ${lot} is passed over`);
  await floor.getByRole('button', { name: 'Damaged' }).tap();
  await digits('2');
  await expect(band(floor, 'accepted')).toContainText('2 patties');
  await scan(floor, 'TABLE-1');
  await expect(floor.getByText('Set down. Ready to pack')).toBeVisible();
  await expect(async () => {
    const { entries } = await api<{ entries: { detail: string }[] }>(desk, `tape?limit=5&document=${order}`);
    expect(entries.some((e) => e.detail.includes('lot passed over: damaged'))).toBe(true);
  }).toPass();
});

test('rounds of several orders are proposed, altered by keys, sent, and walked with a tote for each', async () => {
  const customers = ['Larch Row Apiary', 'Sallow Bridge Bees', 'Tansy Field Honey'];
  const orders: string[] = [];
  for (const [i, customer] of customers.entries())
    orders.push(await keyOrder(desk, [{ sku: 'THM-DIG', quantity: 2 + i, price: '11.90' }], { customer }));
  await desk.goto('/picking/release?item=THM-DIG');
  const group = (name: string) => desk.getByRole('region', { name, exact: true });
  const docket = (customer: string) => desk.getByRole('button', { name: new RegExp(customer) });
  for (const customer of customers) await expect(group('On no round').getByText(customer)).toBeVisible();
  await desk.getByRole('button', { name: 'Propose rounds' }).click();
  await expect(desk.getByRole('button', { name: 'Send 1 round' })).toBeEnabled();
  await expect(desk.getByText(/less to walk/)).toBeVisible();
  // By the mouse the third order is put on a round of its own, and by keys back among those that wait.
  const [from, to] = [await docket('Tansy Field Honey').boundingBox(), await group('A round of its own').boundingBox()];
  await desk.mouse.move(from!.x + 20, from!.y + 10);
  await desk.mouse.down();
  await desk.mouse.move(to!.x + 30, to!.y + 12, { steps: 8 });
  await expect(desk.getByText(/^\+\d+ m, \+\d+ min$/)).toBeVisible();
  await desk.mouse.up();
  await expect(group('Round 2').getByText('Tansy Field Honey')).toBeVisible();
  await docket('Tansy Field Honey').focus();
  await desk.keyboard.press('Space');
  await expect(desk.getByText('S-', { exact: false }).and(desk.locator('[aria-live=assertive]'))).toBeAttached();
  for (let i = 0; i < 6 && !(await desk.getByText(/over those on no round/).count()); i++) {
    await desk.keyboard.press('ArrowDown');
    await desk.waitForTimeout(100);
  }
  await desk.keyboard.press('Space');
  await expect(group('On no round').getByText('Tansy Field Honey')).toBeVisible();
  await desk.getByRole('combobox', { name: 'Who walks round 1' }).selectOption({ label: 'Ines Calder' });
  await desk.getByRole('button', { name: 'Send 1 round' }).click();
  await desk.waitForURL('**/picking');
  const { round } = await api<{ round: string }>(desk, `orders/${orders[0]!}`);
  const task = await taskOf<{ orders: { code: string }[]; stops: (Stop & { orderId: number })[] }>(desk, 'pick', round);
  expect(task.orders.map((o) => o.code)).toEqual(orders.slice(0, 2));

  await floor.goto('/floor/pick');
  await floor.getByRole('link', { name: new RegExp(`${round}.*sent to you`) }).tap();
  await expect(floor.getByText('Scan tote 1 of 2, or a cart')).toBeVisible();
  // One scan of the cart brings a tote for each; it is taken back, and taken again.
  await scan(floor, 'CART-3');
  await expect(band(floor, 'accepted')).toContainText('Totes T-41 to T-42, 2 orders');
  await expect(floor.getByRole('list', { name: 'Totes of this round' })).toContainText('CART-3');
  await floor.getByRole('button', { name: 'Undo' }).tap();
  await expect(floor.getByText('Scan tote 1 of 2, or a cart')).toBeVisible();
  await scan(floor, 'CART-3');
  await expect(band(floor, 'accepted')).toContainText('Totes T-41 to T-42, 2 orders');
  const code = (await itemsOf(desk)).get(task.stops[0]!.itemId)!.sku;
  await scan(floor, task.stops[0]!.placeCode);
  await scan(floor, code);
  await digits('2');
  await expect(floor.getByRole('heading', { name: 'Scan the tote' })).toBeVisible();
  await scan(floor, 'T-02');
  await expect(band(floor, 'not-this')).toBeVisible();
  await scan(floor, 'T-41');
  await expect(band(floor, 'accepted')).toContainText('to tote T-41');
  // One of the three is not there: two are taken, the third is sought elsewhere, and that is taken back.
  await floor.getByRole('button', { name: 'Too few' }).tap();
  await digits('2');
  await floor.getByRole('button', { name: '2 thermometers there' }).tap();
  await expect(band(floor, 'accepted')).toContainText('1 thermometer not here');
  await floor.getByRole('button', { name: 'Undo' }).tap();
  await expect(band(floor, 'accepted')).toContainText('Not there');
  await expect(floor.getByRole('main')).toContainText(/3\s*thermometers/);
  await scan(floor, code);
  await digits('3');
  await scan(floor, 'T-42');
  await expect(band(floor, 'accepted')).toContainText('to tote T-42');
  await scan(floor, 'TABLE-1');
  await expect(band(floor, 'accepted')).toContainText('2 orders are ready to pack');
  await desk.goto(`/picking/${round}`);
  await expect(desk.getByRole('columnheader', { name: 'Totes, on CART-3' })).toBeVisible();
  await expect(async () => {
    for (const order of orders.slice(0, 2)) expect(await api(desk, `orders/${order}`)).toMatchObject({ state: 'picked' });
  }).toPass();
});

test('a round is picked from paper, and what was written on it is entered in one go', async () => {
  const order = await keyOrder(desk, [{ sku: 'THM-DIG', quantity: 4, price: '11.90' }], { customer: 'Paper Mill Apiary' });
  const round = await sentToPicking(desk, order);
  await desk.goto(`/picking/${round}`);
  expect((await desk.request.get(`/api/rounds-papers?rounds=${round}&papers=lists,slips,labels`)).headers()['content-type']).toBe(
    'application/pdf',
  );
  await desk.getByRole('button', { name: 'Enter a paper list' }).click();
  const form = desk.getByRole('form', { name: 'Results of the paper list' });
  await form.getByRole('button', { name: 'Enter and set down' }).click();
  await expect(desk.getByText(/say how many were taken/)).toBeVisible();
  await form.getByLabel(/^Taken from/).fill('3');
  await form.getByLabel(/^Tote of/).fill('t-29');
  await form.getByRole('button', { name: 'Enter and set down' }).click();
  await expect(form).toHaveCount(0);
  await expect(desk.getByText(', 1 not there')).toBeVisible();
  await expect.poll(() => api(desk, `orders/${order}`)).toMatchObject({ state: 'picked' });
});

test('a colleague walks with whoever is on a round: no two are sent to one bin, and the office moves a stop', async ({ browser }) => {
  const order = await keyOrder(
    desk,
    ['JAR-120-SQ', 'JAR-250-SK', 'BTL-500-GL', 'JAR-190-HX'].map((sku) => ({ sku, quantity: 1, price: '1.00' })),
    { customer: 'Hazel Copse Bees', priority: 9 },
  );
  const round = await sentToPicking(desk, order);
  await floor.goto(`/floor/pick/${round}`);
  await expect(floor.getByText('Scan an empty tote')).toBeVisible();
  await scan(floor, 'T-35');
  await expect(floor.getByText('Scan the bin')).toBeVisible();

  const other = await phone(browser);
  await signIn(other, 'joss');
  const second = await other.newPage();
  await second.goto(`/floor/pick/${round}`);
  await expect(second.getByText('Somebody walks it')).toBeVisible();
  await expect(second.getByText('Ines Calder has 4 stops to go')).toBeVisible();
  await second.getByRole('button', { name: 'Help' }).tap();
  await expect(second.getByText('Scan the bin')).toBeVisible();
  await expect(second.getByText('Ines Calder has 2 stops to go')).toBeVisible();
  await expect(floor.getByText('Joss Arkle has 2 stops to go')).toBeVisible();
  const binOf = (page: Page) => page.getByLabel(/^Bin /).getAttribute('aria-label');
  expect(await binOf(floor)).not.toBe(await binOf(second));

  await desk.goto(`/picking/${round}`);
  const row = desk.getByRole('row').filter({ has: desk.getByRole('combobox', { name: /^Who goes to/ }) });
  await expect(row).toHaveCount(4);
  const of = (name: string) => row.filter({ has: desk.locator(`option:checked:text-is("${name}")`) });
  await expect(of('Joss Arkle')).toHaveCount(2);
  await of('Ines Calder').last().getByRole('combobox').selectOption({ label: 'Joss Arkle' });
  await expect(floor.getByText('Joss Arkle has 3 stops to go')).toBeVisible();
  await floor.getByRole('button', { name: 'Take all of it' }).tap();
  await expect(second.getByText('Ines Calder has 4 stops to go')).toBeVisible();
  await other.close();
});

test('a daily run is set up, shows what it would send, and is removed again', async () => {
  await desk.goto('/picking/runs/new');
  await desk.getByLabel('Runs at, every working day').fill('7.15');
  await desk.getByRole('button', { name: 'Keep the run' }).click();
  await expect(desk.getByText('Write the time as 07:30').first()).toBeVisible();
  await desk.getByLabel('Runs at, every working day').fill('07:15');
  await desk.getByRole('combobox', { name: 'Stops', exact: true }).selectOption('One stop');
  await desk.getByRole('checkbox', { name: 'Switched on' }).uncheck();
  await desk.getByRole('button', { name: 'Keep the run' }).click();
  await expect(desk.getByRole('heading', { name: 'What it would send now' })).toBeVisible();
  await expect(desk.getByRole('row', { name: /07:15.*of one stop/ })).toBeVisible();
  await desk.getByRole('button', { name: 'Remove it' }).click();
  await expect(desk.getByRole('row', { name: /07:15/ })).toHaveCount(0);
});
