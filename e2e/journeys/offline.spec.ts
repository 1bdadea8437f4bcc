import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type BrowserContext, chromium, expect, type Page, test } from '@playwright/test';
import { Cable } from '../cable.js';
import {
  api,
  band,
  buy,
  closesItsPages,
  desktop,
  does as doesOn,
  itemsOf,
  orderOf,
  outside,
  picked as pickedOn,
  PORT,
  scan,
  sentToPicking,
  signIn,
  taskOf,
} from '../world.js';

closesItsPages();

/** A device whose cable is pulled, reloaded and closed in between; what it did is posted once when the network returns. */
test.describe.configure({ mode: 'serial' });

const CABLE = 4640;
const memory = mkdtempSync(join(tmpdir(), 'device-'));

let office: Page;
let cable: Cable;
let device: BrowserContext;
let floor: Page;

async function switchOn(): Promise<void> {
  device = await chromium.launchPersistentContext(memory, {
    ...test.info().project.use.launchOptions,
    baseURL: `http://127.0.0.1:${CABLE}`,
    viewport: { width: 390, height: 844 },
    hasTouch: true,
  });
  floor = device.pages()[0] ?? (await device.newPage());
}

/** A page that is open, with the shell kept on the device. */
async function opened(path: string, says: string): Promise<void> {
  await floor.goto(path);
  await expect(floor.getByText(says).first()).toBeVisible();
  await floor.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
}

/** The page read anew from what the device keeps. */
async function reloaded(...says: (string | RegExp)[]): Promise<void> {
  await floor.reload();
  for (const word of says) await expect(floor.getByText(word).first()).toBeVisible();
}

const post = async <T>(path: string, data: object, headers: Record<string, string> = {}): Promise<T> => {
  const answer = await office.request.post(`/api/${path}`, { data, headers: { 'idempotency-key': crypto.randomUUID(), ...headers } });
  expect(answer.ok(), `${path}: ${await answer.text()}`).toBe(true);
  return (await answer.json()) as T;
};

/** What a colleague does with a phone that has a network. */
const does = (command: object) => doesOn(office, command);

async function placed(supplier: string, lines: { sku: string; factor: number; packs: number }[]): Promise<string> {
  const { code } = await post<{ code: string }>('purchase-orders', {
    supplier,
    siteId: 1,
    note: '',
    lines: lines.map((l) => ({ ...l, price: '10.00' })),
  });
  await post(`purchase-orders/${code}/place`, {}, { 'if-match': '"1"' });
  return code;
}

interface Receipt {
  dock: { id: number };
  lines: { lineId: number; itemId: number; ordered: number; received: number }[];
}
interface Round {
  state: string;
  toteId: number | null;
  stops: { id: number; itemId: number; lotId: number; placeId: number; placeCode: string; units: number; picked: number }[];
}

/** An order whose goods have come in, booked by a colleague. */
async function cameIn(supplier: string, sku: string, units: number): Promise<void> {
  const document = await placed(supplier, [{ sku, factor: 1, packs: units }]);
  const { dock, lines } = await taskOf<Receipt>(office, 'receive', document);
  const { lineId, itemId } = lines[0]!;
  const facts = { lot: null, expires: null, how: 'scanned', as: 'ordered', condition: 'good', reason: null };
  await does({ kind: 'receive', document, lineId, itemId, units, toPlaceId: dock.id, ...facts });
}

/** An order from the shop, sent to picking. */
async function sold(sku: string, quantity: number): Promise<{ order: string; round: string }> {
  const order = await orderOf(office, await buy(office, [{ sku, quantity }]));
  return { order, round: await sentToPicking(office, order) };
}

/** A whole round, picked by a colleague. */
const picked = (round: string, tote: string) => pickedOn(office, round, tote);

const onHand = async (sku: string): Promise<number> =>
  (await api<{ sites: { site: string; onHand: number }[] }>(office, `items/${sku}/stock`)).sites.find((s) => s.site === 'Millrace')!.onHand;

/** All that was kept has been sent. */
const sent = () => expect(floor.getByText(/kept here/)).toHaveCount(0);

test.beforeAll(async ({ browser }) => {
  office = await desktop(browser, 'maren');
  await office.goto('/');
  cable = await Cable.lay(CABLE, PORT);
  await switchOn();
  await signIn(device, 'maren', `http://127.0.0.1:${CABLE}`);
});

test.afterAll(async () => {
  await device.close();
  await cable.remove();
  rmSync(memory, { recursive: true, force: true });
});

test('a receipt is booked in and closed', async () => {
  const before = await onHand('JAR-227-RD');
  const order = await placed('QUILLON', [{ sku: 'JAR-227-RD', factor: 1, packs: 5 }]);
  await opened(`/floor/receive/${order}`, 'Scan the goods');
  cable.pull();
  await scan(floor, 'JAR-227-RD');
  await floor.getByRole('button', { name: '3', exact: true }).tap();
  await scan(floor, 'VX-CONFIRM');
  await expect(band(floor, 'accepted')).toContainText('3 jars');
  await expect(floor.getByText('1 act kept here')).toBeVisible();

  await reloaded('1 act kept here', 'Scan the goods');
  await scan(floor, 'JAR-227-RD');
  await floor.getByRole('button', { name: '2', exact: true }).tap();
  await scan(floor, 'VX-CONFIRM');
  await expect(floor.getByText('All lines are in')).toBeVisible();
  await floor.getByRole('button', { name: 'Close' }).tap();
  await floor.getByLabel('Number on the supplier’s paper').fill('QG-7001');
  await floor.getByRole('button', { name: 'Close the arrival' }).tap();
  await expect(floor.getByText('It is closed on this phone')).toBeVisible();

  await floor.goto('/floor/receive/P-9999');
  await expect(floor.getByText('was not open on this device before')).toBeVisible();
  await device.close();
  expect(await onHand('JAR-227-RD')).toBe(before);
  await switchOn();
  await floor.goto('/floor');
  await expect(floor.getByText('3 acts kept here')).toBeVisible();
  cable.plugIn();
  await sent();
  await expect.poll(() => onHand('JAR-227-RD')).toBe(before + 5);
  const { state, arrivals } = await api<{ state: string; arrivals: string[] }>(office, `purchase-orders/${order}`);
  expect(state).toBe('received');
  await expect.poll(() => api<object>(office, `arrivals/${arrivals[0]}`)).toMatchObject({ paper: 'QG-7001' });
});

test('goods are looked at and pass', async () => {
  await post('inspection-rules', { sku: 'SMK-LGE', supplier: 'BRINDLEMOOR', kind: 'always', n: 1 });
  await cameIn('BRINDLEMOOR', 'SMK-LGE', 2);
  await opened('/floor/inspect', 'Scan what you look at');
  cable.pull();
  await reloaded('Scan what you look at');
  await scan(floor, 'SMK-LGE');
  await scan(floor, 'VX-CONFIRM');
  await expect(band(floor, 'accepted')).toContainText('passed');
  await reloaded('1 act kept here', 'Scan what you look at');
  await scan(floor, 'SMK-LGE');
  await expect(band(floor, 'not-this')).toBeVisible();
  cable.plugIn();
  await sent();
  const goods = (await taskOf<{ goods: { itemId: number }[] }>(office, 'inspect', 1)).goods;
  const items = await itemsOf(office);
  expect(goods.filter((g) => items.get(g.itemId)!.sku === 'SMK-LGE')).toEqual([]);
});

test('goods are put away', async () => {
  await cameIn('BRINDLEMOOR', 'UNC-FORK', 2);
  await opened('/floor/store', 'Scan the goods');
  cable.pull();
  await reloaded('Scan the goods');
  await scan(floor, 'UNC-FORK');
  await expect(band(floor, 'accepted')).toBeVisible();
  // What was in the hand is still in the hand.
  await reloaded('Scan the bin');
  await scan(floor, 'A-07-1');
  await expect(band(floor, 'accepted')).toContainText('in A-07-1');
  cable.plugIn();
  await sent();
  await office.goto('/shelves/places/A-07-1');
  await expect(office.getByRole('link', { name: /ncapping fork/ })).toBeVisible();
});

test('a round is picked and set down', async () => {
  const { order, round } = await sold('JAR-454-RD', 3);
  await opened(`/floor/pick/${round}`, 'Scan an empty tote');
  cable.pull();
  await reloaded('Scan an empty tote');
  await scan(floor, 'T-39');
  const { stops } = await taskOf<Round>(office, 'pick', round);
  for (const stop of stops) {
    await scan(floor, stop.placeCode);
    await scan(floor, 'JAR-454-RD');
    await expect(floor.getByText('1 jar in hand')).toBeVisible();
    await reloaded('1 jar in hand');
    for (let n = 1; n < stop.units; n++) await scan(floor, 'JAR-454-RD');
    await scan(floor, 'T-39');
  }
  await scan(floor, 'TABLE-1');
  await expect(floor.getByText('Set down. Ready to pack')).toBeVisible();
  await device.close();
  expect((await taskOf<Round>(office, 'pick', round)).stops.every((s) => s.picked === 0)).toBe(true);
  await switchOn();
  await floor.goto(`/floor/pick/${round}`);
  await expect(floor.getByText('Set down. Ready to pack')).toBeVisible();
  await expect(floor.getByText(/acts kept here/)).toBeVisible();
  cable.plugIn();
  await sent();
  await expect.poll(async () => (await taskOf<Round>(office, 'pick', round)).stops.map((s) => s.picked)).toEqual(stops.map((s) => s.units));
  await expect.poll(() => api<object>(office, `orders/${order}`)).toMatchObject({ state: 'picked' });
});

test('a parcel is packed and closed; its label comes with the network', async () => {
  const { order, round } = await sold('JAR-454-RD', 2);
  await picked(round, 'T-38');
  await floor.setViewportSize({ width: 1280, height: 800 });
  await opened(`/bench/${order}`, 'to go of 2');
  cable.pull();
  await reloaded('to go of 2');
  await scan(floor, 'JAR-454-RD');
  await reloaded('1 act kept here', 'to go of 2');
  await scan(floor, 'JAR-454-RD');
  await floor.getByLabel('Weight in grams').fill('580');
  await floor.getByRole('button', { name: /Cheapest service/ }).click();
  await floor.getByRole('button', { name: 'Print label' }).click();
  await expect(floor.getByText('The label comes then')).toBeVisible();
  await device.close();
  await switchOn();
  await floor.setViewportSize({ width: 1280, height: 800 });
  await floor.goto(`/bench/${order}`);
  await expect(floor.getByText('acts kept here')).toBeVisible();
  cable.plugIn();
  await sent();
  await expect(floor.getByText('Label printed. Put the parcel into its lane.')).toBeVisible();
  await expect.poll(async () => (await outside(office)).parcels.filter((p) => p.parcel === `${order}-1`)).toHaveLength(1);
  await floor.setViewportSize({ width: 390, height: 844 });
});

test('what a colleague took meanwhile comes back as a question, and is answered', async () => {
  const { round } = await sold('JAR-454-RD', 2);
  await opened(`/floor/pick/${round}`, 'Scan an empty tote');
  const stop = (await taskOf<Round>(office, 'pick', round)).stops[0]!;
  cable.pull();
  await scan(floor, 'T-37');
  await scan(floor, stop.placeCode);
  await scan(floor, 'JAR-454-RD');
  await scan(floor, 'JAR-454-RD');
  await scan(floor, 'T-37');
  await expect(band(floor, 'accepted')).toBeVisible();
  await device.close();
  await picked(round, 'T-36');
  await switchOn();
  await floor.goto('/floor');
  cable.plugIn();
  await floor.getByRole('link', { name: /came too late/ }).tap();
  await expect(floor.getByRole('heading', { name: 'What becomes of this?' })).toBeVisible();
  await expect(floor.getByRole('group', { name: /2 jars/ })).toBeVisible();
  await office.goto('/');
  await office
    .getByRole('row', { name: /2 jars: Jar 454 g, round/ })
    .getByRole('link')
    .click();
  await expect(office.getByRole('heading', { name: 'What came too late' })).toBeVisible();
  await expect(office.getByRole('row', { name: /2 jars/ })).toContainText('Maren');
  const put = floor.getByRole('button').filter({ hasText: /back/i }).first();
  await put.tap();
  await expect(floor.getByText('Nothing came too late')).toBeVisible();
  await office.reload();
  await expect(office.getByText('Nothing came too late')).toBeVisible();
  await expect.poll(async () => (await taskOf<Round>(office, 'pick', round)).stops.map((s) => s.picked)).toEqual([2]);
});
