import { expect, type BrowserContext, type Page, test } from '@playwright/test';
import { api, band, closesItsPages, desktop, itemsOf, outside, OUTSIDE_URL, phone, scan, signIn } from '../world.js';

closesItsPages();

const LINES = 40;
const FNC1 = '\u001d';
const SSCC = '395210770000000103';

test.describe.configure({ mode: 'serial' });

let context: BrowserContext;
let floor: Page;
let office: Page;

test.beforeAll(async ({ browser }) => {
  context = await phone(browser);
  await signIn(context, 'ruben');
  floor = await context.newPage();
  office = await desktop(browser, 'maren');
  await office.goto('/inbound');
});

const key = () => crypto.randomUUID();

/** Writes and places an order as the buyer's own program would. */
async function placed(supplier: string, lines: { sku: string; factor: number; packs: number; price: string }[]): Promise<string> {
  const made = await office.request.post('/api/purchase-orders', {
    headers: { 'idempotency-key': key() },
    data: { supplier, siteId: 1, note: '', expectedOn: new Date().toISOString().slice(0, 10), lines },
  });
  expect(made.status()).toBe(201);
  const { code } = (await made.json()) as { code: string };
  const done = await office.request.post(`/api/purchase-orders/${code}/place`, {
    headers: { 'idempotency-key': key(), 'if-match': '"1"' },
  });
  expect(done.status()).toBe(200);
  return code;
}

let mixed = '';
let arrival = '';

test('forty lines of a mixed pallet take two inputs a line, by scanner only', async () => {
  const goods = [...(await itemsOf(office)).values()]
    .flatMap((item) => item.codes.map(({ code, packId }) => ({ gtin: code, item, packId })))
    .filter(({ gtin }) => /^\d{14}$/.test(gtin))
    .filter(
      ({ item, packId }, i, all) =>
        item.tracking !== 'serial' &&
        item.packs.some((p) => p.id === packId && p.factor === 1) &&
        all.findIndex((o) => o.item.id === item.id) === i,
    )
    .slice(0, LINES);
  expect(goods).toHaveLength(LINES);
  mixed = await placed(
    'CORRIN',
    goods.map(({ item }) => ({ sku: item.sku, factor: 1, packs: 12, price: '2.50' })),
  );
  await floor.goto('/floor/receive');
  await expect(floor.getByRole('heading', { name: 'Scan paper, pallet or goods' })).toBeVisible();
  await scan(floor, mixed);
  await expect(floor.getByText(`0 of ${LINES}`)).toBeVisible();
  let inputs = 0;
  for (const [i, { gtin, item }] of goods.entries()) {
    const traced = item.tracking === 'none' ? '' : `10MP${i}${FNC1}`;
    const dated = item.tracking === 'lot-expiry' ? '17300131' : '';
    for (const code of [`]C101${gtin}${dated}${traced}3012`, 'VX-CONFIRM']) {
      await scan(floor, code);
      inputs += 1;
    }
    await expect(band(floor, 'accepted')).toContainText(item.name);
  }
  test.info().annotations.push({ type: 'inputs a line', description: `${inputs} inputs for ${LINES} lines: ${inputs / LINES}` });
  expect(inputs).toBeLessThanOrEqual(2 * LINES);
  await expect(floor.getByText(`${LINES} of ${LINES}`)).toBeVisible();
  await expect(async () => {
    expect((await api<{ state: string }>(office, `purchase-orders/${mixed}`)).state).toBe('received');
  }).toPass();
});

test('plain codes take two inputs a line at a keypad: the scan and the number; the next scan books them in', async () => {
  const goods = [...(await itemsOf(office)).values()].filter((i) => i.tracking === 'none' && i.codes.length > 0 && i.packs.some((p) => p.factor === 1)).slice(0, 3); // prettier-ignore
  const code = await placed(
    'CORRIN',
    goods.map(({ sku }) => ({ sku, factor: 1, packs: 12, price: '1.00' })),
  );
  await floor.goto(`/floor/receive/${code}`);
  await expect(floor.getByText('Scan the goods')).toBeVisible();
  for (const { sku, name } of goods) {
    await scan(floor, sku);
    await expect(floor.getByRole('heading', { name }).last()).toBeVisible();
    // A hand takes longer from the scanner to the keys than a program.
    await floor.waitForTimeout(200);
    await floor.keyboard.type('12', { delay: 120 });
    await expect(floor.getByText('12', { exact: true }).first()).toBeVisible();
  }
  await scan(floor, 'VX-CONFIRM');
  await expect(floor.getByText('All lines are in')).toBeVisible();
  await expect(async () => {
    const { lines } = await api<{ lines: { received: number }[] }>(office, `purchase-orders/${code}`);
    expect(lines.map((l) => l.received)).toEqual([12, 12, 12]);
  }).toPass();
});

test('wrong goods are set apart with the reason, and the close tells what is short', async () => {
  const code = await placed('BRINDLEMOOR', [{ sku: 'TOOL-JH', factor: 20, packs: 2, price: '62.00' }]);
  await floor.goto(`/floor/receive/${code}`);
  await expect(floor.getByRole('heading', { name: 'Scan the goods' })).toBeVisible();
  await scan(floor, 'BRSH-BEE');
  await expect(band(floor, 'not-this')).toContainText(`Not on ${code}`);
  await expect(floor.getByRole('heading', { name: 'Nobody ordered this' })).toBeVisible();
  await floor.getByRole('button', { name: 'Set it apart' }).tap();
  await floor.getByRole('button', { name: '3', exact: true }).tap();
  await floor.getByRole('button', { name: /^Set apart .* to QUARANTINE-1/ }).tap();
  await expect(floor.getByText(/^Picture of Bee brush/)).toBeVisible();
  await floor.getByRole('button', { name: 'Close' }).tap();
  await expect(floor.getByRole('heading', { name: 'This is short' })).toBeVisible();
  await floor.getByLabel('Number on the supplier’s paper').fill('BR-5521');
  await floor.getByRole('button', { name: 'Close it, the rest is short' }).tap();
  await expect(floor.getByRole('heading', { name: 'Scan paper, pallet or goods' })).toBeVisible();
  const { arrivals } = await api<{ arrivals: string[] }>(office, `purchase-orders/${code}`);
  await office.goto(`/inbound/arrivals/${arrivals[0]}`);
  const sheet = office.locator('.sheet');
  await expect(sheet).toContainText('BR-5521');
  await expect(sheet.locator('tbody tr').first()).toContainText('wrong goods');
  await expect(sheet.locator('tbody tr').first()).toContainText('QUARANTINE-1');
});

test('what was set apart goes back to its supplier, and the credit is held against it', async ({ browser }) => {
  await office.goto('/inbound/returns/new');
  const form = office.locator('.sheet');
  await form.getByLabel('To').selectOption({ label: 'Brindlemoor Instruments' });
  await form.getByLabel('Why they go back').fill('not ordered');
  await form
    .getByRole('row', { name: /Bee brush/ })
    .getByRole('button', { name: 'all of it' })
    .click();
  await form.getByRole('button', { name: 'Send back 1 line' }).click();
  await expect(form).toContainText('gone, credit awaited');
  const code = office.url().split('/').at(-1) ?? '';
  const note = await office.request.get(`/api/supplier-returns/${code}/pdf`);
  expect((await note.body()).subarray(0, 5).toString()).toBe('%PDF-');
  const books = await desktop(browser, 'beth');
  await books.goto(`/inbound/returns/${code}`);
  await books.getByLabel('Number of the credit note').fill('CN-9');
  await books.getByLabel('Amount credited').fill('0.00');
  await books.getByRole('button', { name: 'The credit has come' }).click();
  await expect(books.locator('.sheet')).toContainText('CN-9');
});

test('a despatch advice makes an arrival, and one scan receives its pallet', async () => {
  const code = await placed('VETCHLEY', [{ sku: 'OXA-35', factor: 20, packs: 4, price: '72.00' }]);
  await office.goto('/inbound');
  const file = (body: string) => ({ name: 'advice.xml', mimeType: 'application/xml', buffer: Buffer.from(body) });
  await office.getByLabel('Take in a supplier’s file').setInputFiles(file('<!DOCTYPE x [<!ENTITY a "b">]><x>&a;</x>'));
  await expect(office.getByText(/document type declaration is not taken/)).toBeVisible();
  await office.getByLabel('Take in a supplier’s file').setInputFiles(file(advice(code)));
  await expect(office.locator('.sheet')).toContainText('announced, not here yet');
  await expect(office.locator('.sheet')).toContainText(SSCC);
  arrival = office.url().split('/').at(-1) ?? '';
  await floor.goto('/floor/receive');
  await expect(floor.getByText(arrival)).toBeVisible();
  await scan(floor, `]C100${SSCC}`);
  await expect(band(floor, 'accepted')).toContainText('Whole pallet');
  await scan(floor, `]C100${SSCC}`);
  await expect(band(floor, 'too-many')).toContainText('Booked in already');
  await expect(office.locator('.sheet')).toContainText('ADV-LOT');
  await expect(async () => {
    expect((await api<{ state: string }>(office, `purchase-orders/${code}`)).state).toBe('received');
  }).toPass();
});

test('a freight bill that comes late is shared over the goods, and the landed cost shows its share', async ({ browser }) => {
  const { arrivals } = await api<{ arrivals: string[] }>(office, `purchase-orders/${mixed}`);
  const books = await desktop(browser, 'beth');
  await books.goto('/inbound/bills/new');
  await books.getByLabel('Supplier').selectOption({ label: 'Marrowdale Wax' });
  await books.getByLabel('Number on the bill').fill('HAUL-77');
  await books.getByRole('button', { name: 'Add freight or another charge' }).click();
  await books.getByLabel('Charge 1', { exact: true }).fill('Sea freight');
  await books.getByLabel('Order of charge 1').selectOption(mixed);
  await books.getByLabel('Amount of charge 1').fill('96.00');
  await books.getByRole('button', { name: 'Enter £96.00' }).click();
  await expect(books.locator('.sheet')).toContainText('not on the order; shared over its goods');
  await expect(books.locator('.sheet')).toContainText('posted');
  await office.goto(`/inbound/arrivals/${arrivals[0]}`);
  await office.locator('.sheet [data-why]').first().click();
  await expect(office.locator('.sum')).toContainText('Sea freight, Marrowdale Wax HAUL-77');
  await expect(office.locator('.sum')).toContainText('0.20');
  await expect(office.locator('.sum tr.tot')).toContainText('2.70');
});

function advice(order: string): string {
  const urn = 'urn:oasis:names:specification:ubl:schema:xsd:';
  return `<?xml version="1.0"?>
<DespatchAdvice xmlns="${urn}DespatchAdvice-2" xmlns:cac="${urn}CommonAggregateComponents-2" xmlns:cbc="${urn}CommonBasicComponents-2">
  <cbc:ID>VA-JOURNEY</cbc:ID><cbc:IssueDate>2026-05-14</cbc:IssueDate>
  <cac:OrderReference><cbc:ID>${order}</cbc:ID></cac:OrderReference>
  <cac:DespatchSupplierParty/><cac:DeliveryCustomerParty/>
  <cac:DespatchLine><cbc:ID>1</cbc:ID><cbc:DeliveredQuantity unitCode="C62">4</cbc:DeliveredQuantity>
    <cac:OrderLineReference><cbc:LineID>1</cbc:LineID></cac:OrderLineReference>
    <cac:Item><cac:ItemInstance><cac:LotIdentification><cbc:LotNumberID>ADV-LOT</cbc:LotNumberID><cbc:ExpiryDate>2030-01-31</cbc:ExpiryDate></cac:LotIdentification></cac:ItemInstance></cac:Item>
    <cac:Shipment><cbc:ID>1</cbc:ID><cac:TransportHandlingUnit><cbc:ID schemeID="SSCC">${SSCC}</cbc:ID></cac:TransportHandlingUnit></cac:Shipment>
  </cac:DespatchLine>
</DespatchAdvice>`;
}

test('what came with an arrival goes back from where it stands', async () => {
  const { arrivals } = await api<{ arrivals: string[] }>(office, `purchase-orders/${mixed}`);
  await office.goto(`/inbound/arrivals/${arrivals[0]}`);
  await office.getByRole('link', { name: 'Send some of it back' }).click();
  await expect(office.getByRole('heading', { name: `What came with ${arrivals[0]}` })).toBeVisible();
  await office.getByLabel('Why they go back').fill('Ordered by mistake');
  await office.getByRole('button', { name: 'all of it' }).first().click();
  await office.getByRole('button', { name: 'Send back 1 line' }).click();
  await expect(office).toHaveURL(/\/inbound\/returns\/Z-\d+/);
  await expect(office.getByText('gone, credit awaited')).toBeVisible();
});

test('a supplier reads the order in its mail, changes it and sends the goods, all by its own system', async () => {
  const code = await placed('MARROWDALE', [{ sku: 'WAX-SN-10', factor: 10, packs: 3, price: '61.00' }]);
  await expect(async () => expect((await outside(office)).purchases.map((p) => p.order)).toContain(code)).toPass();
  const desk = async (what: string) =>
    (await (await office.request.post(`${OUTSIDE_URL}/console/purchases/${code}/${what}`, { data: {} })).json()) as { said: string };
  expect((await desk('change')).said).toBe('changed');
  await office.goto(`/inbound/${code}`);
  await expect(office.getByText(/63\.44/).first()).toBeVisible();
  await office.getByRole('button', { name: 'Take it so' }).click();
  await expect(office.getByText(', confirmed')).toBeVisible();
  expect((await desk('despatch')).said).toBe('on its way');
  await expect(office.getByRole('link', { name: /^A-\d+/ })).toBeVisible();
});
