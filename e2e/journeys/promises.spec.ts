import { expect, type Page, test } from '@playwright/test';
import { api, BASE_URL, closesItsPages, desktop, keyOrder, outside, OUTSIDE_URL } from '../world.js';

closesItsPages();

let desk: Page;
test.beforeAll(async ({ browser }) => {
  desk = await desktop(browser, 'maren');
});

const DAY_MS = 86_400_000;
const inDays = (days: number) => new Date(Date.now() + days * DAY_MS).toISOString();
async function post<T>(path: string, data: object, version?: number): Promise<T> {
  const answer = await desk.request.post(`${BASE_URL}/api/${path}`, {
    headers: { 'idempotency-key': crypto.randomUUID(), ...(version === undefined ? {} : { 'if-match': `"${version}"` }) },
    data,
  });
  expect(answer.ok()).toBe(true);
  return (await answer.json().catch(() => ({}))) as T;
}
const keyed = (customer: string, lines: Parameters<typeof keyOrder>[1], more: object = {}) =>
  keyOrder(desk, lines, { customer, email: `${customer.split(' ')[0]!.toLowerCase()}@mail.example`, ...more });

test('a late arrival says whose promises it breaks, and writes to each', async () => {
  const { code: purchase } = await post<{ code: string }>('purchase-orders', {
    supplier: 'QUILLON',
    siteId: 1,
    note: '',
    expectedOn: inDays(3).slice(0, 10),
    lines: [{ sku: 'JAR-340-HX', factor: 48, packs: 100, price: '20.00' }],
  });
  await post(`purchase-orders/${purchase}/place`, {}, 1);
  const code = await keyed('Alder Vale', [{ sku: 'JAR-340-HX', factor: 48, quantity: 60, price: '30' }], { promisedAt: inDays(6) });
  await desk.goto(`/inbound/${purchase}`);
  const later = desk.getByRole('region', { name: 'If it comes later' });
  await later.getByLabel('Comes on').fill(inDays(4).slice(0, 10));
  await expect(later.getByText('No promise is broken by that.')).toBeVisible();
  await later.getByLabel('Comes on').fill(inDays(12).slice(0, 10));
  await expect(later.getByRole('row', { name: new RegExp(code) })).toBeVisible();
  await later.getByRole('button', { name: /^Write to/ }).click();
  await expect(later.getByText(/letters? on the way/)).toBeVisible();
  await expect(async () => {
    const { mails } = await outside(desk);
    expect(mails.some((m) => m.to === 'alder@mail.example' && m.subject.includes('later than we said'))).toBe(true);
  }).toPass();
  // The order says what it waits for, and how much may be promised when.
  await desk.goto(`/orders/${code}`);
  await desk.getByRole('button', { name: /over time$/ }).click();
  const chart = desk.getByRole('region', { name: /What may be promised of/ });
  await expect(chart.getByRole('img', { name: /may be promised now/ })).toBeVisible();
  await expect(chart.getByRole('link', { name: purchase })).toBeVisible();
});

test('an urgent order is told on every page, and by mail to whoever wished it', async ({ browser }) => {
  await desk.goto('/own');
  await desk.getByLabel('New orders, told by mail').selectOption('urgent ones');
  const piet = await desktop(browser, 'piet');
  await piet.goto('/own');
  await piet.getByLabel('New orders, told by mail').selectOption('urgent ones');
  await piet.goto('/shelves/items');
  const waiting = (await api<{ urgentCount: number }>(piet, 'line')).urgentCount;
  const code = await keyed('Wending Honey', [{ sku: 'BRSH-BEE', quantity: 2, price: '4.10' }], { speed: 'express' });
  await expect(piet.getByRole('link', { name: `${waiting + 1} urgent orders wait` })).toBeVisible();
  await expect(async () => {
    const told = (await outside(piet)).mails.filter((m) => m.subject === `Urgent: ${code}, Wending Honey`);
    // Whoever keyed it is not told of it.
    expect(told.map((m) => m.to)).toEqual(['piet@tarnthistle.example']);
  }).toPass();
  await piet.getByRole('link', { name: /urgent orders wait$/ }).click();
  await expect(piet.getByRole('row', { name: new RegExp(code) })).toBeVisible();
});

test('an order is split, and made one again', async () => {
  const code = await keyed('Barnby Bees', [
    { sku: 'TOOL-STD', quantity: 3, price: '6.90' },
    { sku: 'BRSH-BEE', quantity: 2, price: '4.10' },
  ]);
  await desk.goto(`/orders/${code}`);
  await desk.getByRole('button', { name: 'Split it' }).click();
  const dialog = desk.getByRole('dialog', { name: `Split ${code}` });
  await dialog.getByLabel(/^How many of Hive tool/).fill('2');
  await dialog.getByRole('button', { name: 'Split it' }).click();
  await desk.waitForURL((url) => /\/orders\/S-\d+$/.test(url.pathname) && !url.pathname.endsWith(code));
  const part = desk.url().split('/').at(-1)!;
  await expect.poll(() => api(desk, `orders/${part}`)).toMatchObject({ lines: [{ wanted: 2, reserved: 2 }] });
  await desk.goto(`/orders/${code}`);
  const siblings = desk.getByRole('region', { name: 'Could travel with it' });
  await expect(siblings.getByRole('link', { name: part })).toBeVisible();
  await siblings.getByRole('button', { name: 'Make it one with this' }).click();
  await expect(siblings).toHaveCount(0);
  await expect.poll(() => api(desk, `orders/${part}`)).toMatchObject({ state: 'cancelled' });
});

test('orders are grouped, kept as a view, and held together after a look at what that does', async () => {
  const codes = [
    await keyed('Zenith Apiary', [{ sku: 'TOOL-STD', quantity: 1, price: '6.90' }]),
    await keyed('Zenith Apiary', [{ sku: 'BRSH-BEE', quantity: 1, price: '4.10' }]),
  ];
  await desk.goto('/orders');
  await desk.getByLabel('Grouped by').selectOption('customer');
  await desk.getByLabel('Customer', { exact: true }).fill('Zenith');
  await expect(desk.getByRole('row', { name: /^Zenith Apiary 2 orders$/ })).toBeVisible();
  await desk.getByRole('button', { name: 'Keep this view' }).click();
  await desk.getByLabel('Name of the view').fill('Zenith');
  await desk.keyboard.press('Enter');
  await expect(desk.getByRole('link', { name: 'Zenith', exact: true })).toBeVisible();
  await desk.getByLabel('Choose all that are shown').check();
  await desk.getByRole('group', { name: 'Chosen orders' }).getByRole('button', { name: 'Hold' }).click();
  const dialog = desk.getByRole('dialog', { name: 'Hold: 2 orders' });
  await dialog.getByLabel('They wait for').fill('The stock-take');
  await dialog.getByRole('button', { name: 'See what it does' }).click();
  await expect(dialog.getByText('held: The stock-take')).toHaveCount(2);
  await expect.poll(() => api(desk, `orders/${codes[0]!}`)).toMatchObject({ state: 'open' });
  await dialog.getByRole('button', { name: 'Hold 2 orders' }).click();
  await dialog.getByRole('button', { name: 'Done' }).click();
  for (const code of codes) expect(await api(desk, `orders/${code}`)).toMatchObject({ state: 'held', holdReason: 'The stock-take' });
  await desk.goto('/orders');
  await desk.getByRole('link', { name: 'Zenith', exact: true }).click();
  await expect(desk).toHaveURL(/search=Zenith/);
  await desk.getByRole('button', { name: 'Let the view Zenith go' }).click();
  await expect(desk.getByRole('link', { name: 'Zenith', exact: true })).toHaveCount(0);
});

test('a channel shows what it said, what it believes, and takes a file of orders; its catalogue is taken over', async () => {
  await desk.request.post(`${OUTSIDE_URL}/console/odd`, { data: {} });
  await desk.goto('/setup/channels/SHOP');
  await desk.getByRole('button', { name: 'Something unreadable' }).first().click();
  await expect(desk.getByText('"two jars"')).toBeVisible();
  await desk.getByText('What it believes').click();
  await desk.getByRole('button', { name: 'Ask what it believes' }).click();
  await expect(
    desk
      .getByRole('row', { name: /JAR-454-RD/ })
      .getByRole('cell')
      .nth(5),
  ).not.toHaveText('–');
  await desk.getByRole('button', { name: 'Tell it all anew' }).click();
  await desk.getByRole('link', { name: 'Take over what it offers' }).click();
  await expect(desk.getByText('the same barcode')).toBeVisible();
  await desk.getByRole('button', { name: 'Take 2 offers over' }).click();
  await expect(desk).toHaveURL(/\/setup\/channels\/SHOP$/);
  await expect.poll(() => api(desk, 'items/VEIL-FOLD')).toMatchObject({ name: 'Folding veil' });
  await desk.getByText('Not listed').click();
  await desk.getByRole('checkbox', { name: 'List BOX-GFT-2' }).check();
  await desk.getByLabel('Price of BOX-GFT-2').fill('1.95');
  await desk.getByRole('button', { name: 'List 1 item' }).click();
  await expect(desk.getByRole('checkbox', { name: 'List BOX-GFT-2' })).toHaveCount(0);
  await desk.goto('/setup/channels/PHONE');
  const csv =
    'order,customer,street,town,postcode,sku,quantity,price\nF-900,Fernlea,Mill Lane 4,Ambleforth,AM4 7TQ,BRSH-BEE,1,4.10\nF-901,Skelby,,,,BRSH-BEE,few,4.10\n';
  await desk.locator('input[type=file]').setInputFiles({ name: 'orders.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await expect(desk.getByText('1 order taken in, 1 put aside to be mended')).toBeVisible();
});
