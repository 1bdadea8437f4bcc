import { expect, type Page, test } from '@playwright/test';
import { api, BASE_URL, closesItsPages, desktop, taskOf } from '../world.js';

closesItsPages();

/** A form keeps what was typed, whatever happens to its record meanwhile. */
test.describe.configure({ mode: 'serial' });

let buyer: Page;
let other: Page;
let code = '';

interface Order {
  version: number;
  note: string;
  lines: { ordered: number; received: number }[];
}
const order = () => api<Order>(buyer, `purchase-orders/${code}`);
const post = (page: Page, path: string, data: object, headers: Record<string, string> = {}) =>
  page.request.post(`${BASE_URL}/api/${path}`, { data, headers: { 'idempotency-key': crypto.randomUUID(), ...headers } });

interface Dock {
  lines: { lineId: number; itemId: number }[];
  dock: { id: number };
}
/** The dock counts goods of the first line in, as a phone says it. */
async function bookIn(units: number): Promise<void> {
  const id = crypto.randomUUID();
  const { id: madeBy } = await api<{ id: number }>(other, 'session');
  const { lines, dock } = await taskOf<Dock>(other, 'receive', code);
  const { lineId, itemId } = lines[0]!;
  const goods = {
    lineId,
    itemId,
    units,
    toPlaceId: dock.id,
    lot: null,
    expires: null,
    how: 'scanned',
    as: 'ordered',
    condition: 'good',
    reason: null,
  };
  const sent = { command: { id, kind: 'receive', document: code, ...goods }, madeAt: new Date().toISOString(), madeBy, late: false };
  const answer = await post(other, 'floor/commands', sent, { 'idempotency-key': id });
  expect(answer.status(), await answer.text()).toBe(200);
}
test.beforeAll(async ({ browser }) => {
  buyer = await desktop(browser, 'piet');
  other = await desktop(browser, 'maren');
  const line = (sku: string, packs: number) => ({ sku, factor: 1, packs, price: '0.50', expectedOn: null });
  const body = { supplier: 'QUILLON', siteId: 1, expectedOn: '2027-03-01', door: null, note: 'As agreed', charges: [] };
  const lines = [line('JAR-454-RD', 200), line('JAR-340-HX', 100)];
  code = ((await (await post(buyer, 'purchase-orders', { ...body, lines })).json()) as { code: string }).code;
  expect((await post(buyer, `purchase-orders/${code}/place`, {}, { 'if-match': '"1"' })).status()).toBe(200);
});

test('a buyer types while the dock books goods in, and nothing that was typed is lost', async () => {
  await buyer.goto(`/inbound/${code}/edit`);
  await buyer.getByLabel('How many, line 2').fill('160');
  await buyer.getByLabel('Note to the supplier').fill('The second pallet by noon, please');
  await bookIn(48);
  await expect(buyer.getByLabel('Tape, newest first').getByText('1 tray: Jar 454 g, round')).toBeVisible();
  await expect(buyer.getByLabel('How many, line 2')).toHaveValue('160');
  await expect(buyer.getByLabel('Note to the supplier')).toHaveValue('The second pallet by noon, please');
  await expect(buyer.getByRole('alert', { name: 'Changed meanwhile' })).toHaveCount(0);
  await buyer.getByRole('button', { name: 'Keep the changes, tell the supplier' }).click();
  await buyer.waitForURL(new RegExp(`/inbound/${code}$`));
  const after = await order();
  expect(after.note).toBe('The second pallet by noon, please');
  expect(after.lines.map((l) => [l.ordered, l.received])).toEqual([
    [200, 48],
    [160, 0],
  ]);
});

test('two people change one field: both values are shown, and the buyer chooses', async () => {
  await buyer.goto(`/inbound/${code}/edit`);
  await buyer.getByLabel('Note to the supplier').fill('Mine: ring before you come');
  await other.goto(`/inbound/${code}/edit`);
  await other.getByLabel('Note to the supplier').fill('Theirs: leave it at the gate');
  await other.getByLabel('How many, line 1').fill('240');
  await other.getByRole('button', { name: 'Keep the changes, tell the supplier' }).click();
  await other.waitForURL(new RegExp(`/inbound/${code}$`));

  const changed = buyer.getByRole('alert', { name: 'Changed meanwhile' });
  await expect(changed).toContainText('Mine: ring before you come');
  await expect(changed).toContainText('Theirs: leave it at the gate');
  await expect(buyer.getByRole('button', { name: 'Choose what stays first' })).toBeDisabled();
  // What only the other changed has come into the form by itself.
  await expect(buyer.getByLabel('How many, line 1')).toHaveValue('240');
  await changed.getByRole('button', { name: 'Keep yours' }).click();
  await buyer.getByRole('button', { name: 'Keep the changes, tell the supplier' }).click();
  await buyer.waitForURL(new RegExp(`/inbound/${code}$`));
  const after = await order();
  expect(after.note).toBe('Mine: ring before you come');
  expect(after.lines[0]!.ordered).toBe(240);
});
