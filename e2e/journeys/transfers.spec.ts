import { expect, test } from '@playwright/test';
import { api, band, closesItsPages, desktop, itemsOf, keyOrder, phone, scan, signIn, taskOf } from '../world.js';

closesItsPages();

interface Task {
  lines: { lineId: number; itemId: number; units: number; bins: { code: string; lot: string | null }[] }[];
}

test('goods go to another site: asked for, packed, gathered, sent, taken in with one short, which the carrier answers for', async ({
  browser,
}) => {
  const desk = await desktop(browser, 'maren');
  await desk.goto('/shelves/transfers/new');
  await desk.getByRole('textbox', { name: 'SKU of line 1' }).fill('BOK-WAX');
  await desk.getByRole('textbox', { name: 'Units of line 1' }).fill('5');
  await desk.getByRole('textbox', { name: 'Units of line 1' }).press('Enter');
  await desk.getByRole('textbox', { name: 'Note' }).fill('For the shop window');
  await desk.getByRole('button', { name: 'Ask for 1 line' }).click();
  await expect(desk.getByRole('heading', { name: 'Millrace to Quayside' })).toBeVisible();
  const code = desk.url().split('/').at(-1)!;
  // In a parcel, by a carrier that sells its label.
  await desk.getByRole('button', { name: 'Pack a parcel' }).click();
  await desk.getByRole('textbox', { name: 'Weight, g' }).fill('2400');
  await desk
    .getByRole('button', { name: /^Harrier Post/ })
    .first()
    .click();
  await desk.getByRole('button', { name: 'Pack it, and ask for its label' }).click();
  await expect(desk.getByRole('table', { name: 'Parcels' }).getByRole('link')).toBeVisible();
  const { lines } = await taskOf<Task>(desk, 'gather', code);
  const { codes, packs } = (await itemsOf(desk)).get(lines[0]!.itemId)!;
  const piece = codes.find((c) => c.packId === packs.find((p) => p.factor === 1)!.id)!.code;

  // Bin, goods, number.
  const device = await phone(browser);
  await signIn(device, 'ines');
  const floor = await device.newPage();
  await floor.goto('/floor/transfers');
  await floor.getByRole('link', { name: new RegExp(code) }).tap();
  await expect(floor.getByRole('heading', { name: 'Scan the bin' })).toBeVisible();
  await scan(floor, piece);
  await expect(band(floor, 'not-this')).toContainText('Scan the bin first');
  await scan(floor, lines[0]!.bins[0]!.code);
  await scan(floor, piece);
  await floor.getByRole('button', { name: 'Number' }).tap();
  await floor.getByRole('button', { name: '5', exact: true }).tap();
  await floor.getByRole('button', { name: /^5 .* there$/ }).tap();
  await expect(floor.getByRole('heading', { name: 'Send it off' })).toBeVisible();
  await floor.getByRole('button', { name: 'Send off' }).tap();
  await expect(floor.getByText(`${code}-1`)).toBeVisible();
  await expect(floor.getByRole('textbox', { name: 'Carrier' })).toHaveValue('Harrier Post');
  await floor.getByRole('button', { name: 'It is gone' }).tap();
  await expect(floor.getByRole('heading', { name: 'Scan its paper, or choose' })).toBeVisible();
  await device.close();

  // At the quay four of the five come.
  await expect(desk.getByText('on the road').first()).toBeVisible();
  const other = await phone(browser);
  await signIn(other, 'maren');
  const quay = await other.newPage();
  await quay.goto('/floor/transfers');
  await expect(quay.getByRole('heading', { name: 'Scan its paper, or choose' })).toBeVisible();
  await scan(quay, `${code}-1`);
  await expect(quay.getByRole('heading', { name: 'Scan the goods' })).toBeVisible();
  await expect(band(quay, 'accepted')).toContainText(`${code}-1 is here`);
  await scan(quay, piece);
  await quay.getByRole('button', { name: 'Number' }).tap();
  await quay.getByRole('button', { name: '6', exact: true }).tap();
  await quay.getByRole('button', { name: /^6 .* there$/ }).tap();
  await expect(band(quay, 'too-many')).toContainText('were sent');
  await quay.getByRole('button', { name: 'Number' }).tap();
  await quay.getByRole('button', { name: '4', exact: true }).tap();
  await quay.getByRole('button', { name: /^4 .* there$/ }).tap();
  await expect(band(quay, 'accepted')).toContainText('to QUAY-DOCK');
  await quay.getByRole('button', { name: 'That is all' }).tap();
  await expect(quay.getByText('did not come')).toBeVisible();
  await quay.getByRole('button', { name: 'Yes, close it' }).tap();
  await expect(quay.getByRole('heading', { name: 'Scan its paper, or choose' })).toBeVisible();
  await other.close();

  await expect(desk.getByText('short, to be settled').first()).toBeVisible();
  await desk.getByRole('textbox', { name: 'What happened' }).fill('one fell off the van');
  await desk.getByRole('button', { name: /lost$/ }).click();
  await expect(desk.getByText('the carrier answers for it: one fell off the van')).toBeVisible();
  const { missing } = await api<{ missing: number }>(desk, `transfers/${code}`);
  expect(missing).toBe(0);
});

test('goods are moved by two scans, used up for a purpose, and a wrong number is put right', async ({ browser }) => {
  const desk = await desktop(browser, 'maren');
  const { bins } = await api<{ bins: { place: string; kind: string; units: number; condition: string }[] }>(desk, 'items/SVE-DBL/stock');
  const { place } = bins.find((b) => b.condition === 'good' && (b.kind === 'reserve' || b.kind === 'pick-face'))!;
  const there = (await api<{ stock: { name: string; units: number }[] }>(desk, `places/${place}`)).stock[0]!;
  const device = await phone(browser);
  await signIn(device, 'ines');
  const floor = await device.newPage();
  await floor.goto('/floor/move');
  await expect(floor.getByRole('heading', { name: 'Scan where the goods lie' })).toBeVisible();
  await scan(floor, place);
  await expect(floor.getByRole('heading', { name: 'Scan the goods' })).toBeVisible();
  await floor.getByRole('button', { name: new RegExp(there.name) }).tap();
  await floor.getByRole('button', { name: 'Use up' }).tap();
  await floor.getByRole('button', { name: 'Given as a sample' }).tap();
  await expect(floor.getByRole('textbox', { name: 'Why, or for whom' })).toBeVisible();
  await scan(floor, 'CART-2');
  await expect(band(floor, 'accepted')).toContainText('to CART-2');
  await expect(floor.getByRole('heading', { name: 'Nothing lies here' })).toBeVisible();
  await floor.goto('/floor/move/CART-2');
  await expect(floor.getByRole('heading', { name: 'Scan the goods' })).toBeVisible();
  await scan(floor, place);
  await expect(band(floor, 'accepted')).toContainText(`All of CART-2`);
  // The phone says so before the house has heard of it.
  await expect
    .poll(async () => (await api<{ stock: { name: string }[] }>(desk, `places/${place}`)).stock.map((s) => s.name))
    .toContain(there.name);
  await device.close();

  await desk.goto(`/shelves/places/${place}`);
  await desk.getByRole('button', { name: `Do something with ${there.name}` }).click();
  await desk.getByRole('link', { name: 'Put the number right' }).click();
  await desk.getByRole('textbox', { name: 'Units that are there' }).fill(String(there.units + 1));
  await desk.getByRole('textbox', { name: 'Why' }).fill('one was behind the others');
  await desk.getByLabel('Picture').setInputFiles({ name: 'shelf.png', mimeType: 'image/png', buffer: await desk.screenshot() });
  await desk.getByRole('button', { name: 'Put the number right' }).click();
  await expect(desk.getByText(/The books follow|Somebody else decides/)).toBeVisible();
  const { entries } = await api<{ entries: { title: string; picture: string | null }[] }>(desk, 'tape?limit=10&mine=1');
  const pictured = entries.find((e) => e.picture !== null)!;
  expect((await desk.request.get(`/api/acts/${pictured.picture}/picture`)).headers()['content-type']).toBe('image/webp');
});

test('what an order lacks and the quay has is fetched: the order is promised for then, and the quay keeps it for that', async ({
  browser,
}) => {
  const desk = await desktop(browser, 'orla');
  const order = await keyOrder(desk, [{ sku: 'CND-MLD-BE', quantity: 2, price: '14.50' }], { customer: 'Skep and Candle' });
  await desk.goto(`/orders/${order}`);
  const ways = desk.getByRole('region', { name: 'How it can go' });
  const way = ways.getByRole('row', { name: /Fetch 2 pieces from Quayside, then all of it from Millrace/ });
  await expect(way).toContainText('about £');
  await way.getByRole('button', { name: 'Have it fetched' }).click();
  await expect(ways.getByText('Asked for:')).toBeVisible();
  await expect(ways.getByText(/waits for T-\d+/)).toBeVisible();
  await expect(way).toHaveCount(0);
  await expect(desk.getByText(/2 on T-\d+/)).toBeVisible();
  await ways
    .getByRole('link', { name: /^T-\d+$/ })
    .first()
    .click();
  await expect(desk.getByRole('heading', { name: 'Quayside to Millrace' })).toBeVisible();
  await expect(desk.getByText(`For ${order}`)).toBeVisible();
  expect((await desk.request.get(`/api/transfers/${desk.url().split('/').at(-1)}/pdf`)).headers()['content-type']).toBe('application/pdf');
});

test('slotting says what should change places, and what is then to be carried over', async ({ browser }) => {
  const desk = await desktop(browser, 'maren');
  await desk.goto('/shelves/slotting');
  await expect(desk.getByText(/orders of the last \d+ weeks walk [\d,]+ m a week/)).toBeVisible();
  const [first] = await desk.getByRole('region', { name: 'Changes of places' }).getByRole('checkbox').all();
  const label = (await first!.getAttribute('aria-label'))!;
  await desk.getByRole('checkbox').nth(1).uncheck();
  await desk.getByRole('button', { name: 'Make the first 1' }).click();
  await expect(desk.getByRole('region', { name: 'To be carried over' })).toContainText(label.split(' to ').at(-1)!);
  await desk.goto('/shelves/expiring?days=365');
  await expect(desk.getByText(/some will be left when they pass their date within 365 days/)).toBeVisible();
});
