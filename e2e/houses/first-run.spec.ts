import { spawn } from 'node:child_process';
import { createHmac } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { expect, type Page, test } from '@playwright/test';
import { EmptyHouse, ROOT, startServer } from '../empty-house.js';
import { closesItsPages, outside, OUTSIDE_URL, scan } from '../world.js';

closesItsPages();

const PORT = 4640;
const BASE = `http://127.0.0.1:${PORT}`;

let house: EmptyHouse;
let page: Page;
let secret = '';

/** The start of the demo that the journeys share. */
const demoPid = () =>
  Number(
    readdirSync(`${ROOT}/.cache/running`).find(
      (pid) => existsSync(`/proc/${pid}`) && readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('demo.mjs'),
    ),
  );

/** A house without demo data: from the first page to the first scan. */
test.describe.configure({ mode: 'serial' });

test.beforeAll(async ({ browser }) => {
  house = await EmptyHouse.open('first-run', PORT);
  page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
});
test.afterAll(() => house.close());

test('a wrong environment is named, and the server ends with 2', async () => {
  const wrong = startServer({ ...house.database.env, DATABASE_PORT: 'many', VECTRUM_PORT: '4641' });
  let said = '';
  wrong.stderr?.on('data', (text: Buffer) => (said += text.toString()));
  const code = await new Promise((done) => wrong.on('exit', done));
  expect(code).toBe(2);
  expect(said).toContain('DATABASE_PORT');
  expect(said).not.toContain(house.database.env['DATABASE_PASSWORD']!);
});

test('a start that cannot work says which process is in its way, and leaves nothing running', async () => {
  const started = (env: Record<string, string>) =>
    new Promise<{ code: number | null; said: string }>((done) => {
      const start = spawn('node', [`${ROOT}/scripts/start.mjs`], { env: { ...process.env, VECTRUM_HTTPS_PORT: '0', ...env } });
      let said = '';
      start.stderr.on('data', (text: Buffer) => (said += text.toString()));
      const tooLong = setTimeout(() => start.kill('SIGTERM'), 20_000);
      start.on('exit', (code) => {
        clearTimeout(tooLong);
        done({ code, said });
      });
    });
  const dir = `${ROOT}/.cache/second-house-db`;
  rmSync(dir, { recursive: true, force: true });
  const taken = await started({ VECTRUM_PORT: String(PORT), VECTRUM_DATA: dir });
  expect(taken.code).toBe(1);
  expect(taken.said).toMatch(/Port 4640 is taken by process \d+ \(.*main\.js\)\. Stop that, or choose another port with VECTRUM_PORT/);
  expect(existsSync(`${dir}/data`)).toBe(false);
  // A directory that another start holds: this run's own, since it lives and was begun by a script.
  await writeFile(`${dir}/held-by`, JSON.stringify({ pid: demoPid(), port: 4610 }));
  const held = await started({ VECTRUM_PORT: '4648', VECTRUM_DATA: dir });
  expect([held.code, held.said]).toEqual([1, expect.stringContaining('Stop it first, or give this start a directory of its own')]);
});

test('the first page makes the owner, and shows no made-up people', async () => {
  await page.goto(BASE);
  await expect(page.getByRole('heading', { name: 'A new house' })).toBeVisible();
  await page.getByLabel('Your name').fill('Hedda Brook');
  await page.getByLabel('E-mail').fill('hedda@example.org');
  await page.getByLabel('Password, 10 characters or more').fill('short');
  await page.getByLabel('Your first site').fill('Old Dairy');
  await page.getByLabel('Its code').fill('DAIRY');
  await page.getByRole('button', { name: 'Open the house' }).click();
  await expect(page.getByText('A password has at least 10 characters')).toBeVisible();
  await page.getByLabel('Password, 10 characters or more').fill('a long enough password');
  await page.getByRole('button', { name: 'Open the house' }).click();
  await expect(page.getByRole('heading', { name: /0 orders promised (today|until)/ })).toBeVisible();
  await expect(page.getByText('Nothing is stuck or late')).toBeVisible();
  await expect(page.getByText('Nothing is on its way')).toBeVisible();
  await expect(page.getByRole('region', { name: 'To the first scan' }).getByText('4 of 4 needed steps left')).toBeVisible();
  await expect(page.getByRole('row', { name: /Bins to keep goods in/ }).getByRole('link', { name: 'Begin' })).toBeVisible();
});

test('empty lists say what to do next', async () => {
  for (const [path, words] of [
    ['/inbound', 'No purchase orders yet'],
    ['/orders', 'No orders here'],
    ['/picking', 'No rounds'],
    ['/packing', 'Nothing waits to be packed'],
    ['/dispatch', 'No carriers yet'],
    ['/shelves/to-put-away', 'Nothing waits to be put away'],
    ['/setup/outbox', 'Nothing has left yet'],
  ] as const) {
    await page.goto(BASE + path);
    await expect(page.getByText(words)).toBeVisible();
  }
});

test('an item, a supplier and an order later, the first goods are scanned in', async () => {
  await page.goto(`${BASE}/shelves/items/new`);
  await page.getByLabel('SKU', { exact: true }).fill('JAR-1');
  await page.getByLabel('Name', { exact: true }).fill('Jar');
  await page.getByLabel('Barcodes of pack 1').fill('9521077990007');
  await page.getByRole('button', { name: 'Keep the item' }).click();
  await expect(page.getByRole('heading', { name: 'Jar', exact: true })).toBeVisible();

  await page.goto(`${BASE}/inbound/suppliers/new`);
  await page.getByLabel('Name', { exact: true }).fill('Glassworks');
  await page.getByLabel('Code', { exact: true }).fill('GLASS');
  await page.getByLabel('Mail for orders').fill('orders@glass.example');
  await page.getByRole('button', { name: 'Add a price' }).click();
  await page.getByLabel('Our SKU, price 1').fill('JAR-1');
  await page.getByLabel('Their number, price 1').fill('G1');
  await page.getByLabel('Price of a pack, price 1').fill('0,42');
  await page.getByRole('button', { name: 'Keep the supplier' }).click();
  await expect(page.getByRole('heading', { name: 'Glassworks' })).toBeVisible();

  await page.goto(`${BASE}/inbound/new`);
  await page.getByRole('combobox', { name: 'Supplier' }).selectOption({ label: 'Glassworks' });
  await page.getByLabel('Goods of line 1').fill('jar');
  await page.getByRole('option', { name: /^Jar/ }).click();
  await page.getByLabel('How many, line 1').fill('12');
  await page.getByRole('button', { name: 'Keep the draft' }).click();
  await page.getByRole('button', { name: /Place with/ }).click();
  await page.getByRole('link', { name: 'Book in line 1' }).click();
  await expect(page.getByText('Scan the goods')).toBeVisible();
  await scan(page, '9521077990007');
  await page.getByRole('button', { name: '1', exact: true }).click();
  await page.getByRole('button', { name: '2', exact: true }).click();
  await page.getByRole('button', { name: /Book in 12 pieces to DOCK-1/ }).click();
  await expect(page.getByText('All lines are in')).toBeVisible();
  await page.goto(`${BASE}/shelves/items/JAR-1`);
  await expect(page.getByText('12 pieces', { exact: true })).toBeVisible();
  await page.goto(BASE);
  for (const step of ['Items', 'Goods on the shelves', 'A supplier to buy from', 'The first scan'])
    await expect(page.getByRole('row', { name: new RegExp(`done ${step}`) })).toBeVisible();
});

test('the mail that has no server waits in the outbox and says why', async () => {
  await page.goto(`${BASE}/setup/outbox`);
  await expect(page.getByText('No mail server is set. Set SMTP_URL')).toBeVisible();
});

test('a bin, a lane, a tote, a box, a carrier and its departure are made by hand', async () => {
  for (const [code, kind] of [
    ['A-01-1', 'pick-face'],
    ['LANE-1', 'dispatch-lane'],
    ['T-01', 'tote'],
  ] as const) {
    await page.goto(`${BASE}/shelves/places/new`);
    await page.getByLabel('Code, such as C-07-2').fill(code);
    await page.locator('aside').getByLabel('Kind').selectOption(kind);
    await page.getByRole('button', { name: 'Keep the place' }).click();
    await expect(page.getByRole('heading', { name: code })).toBeVisible();
  }

  await page.goto(`${BASE}/setup/boxes`);
  await expect(page.getByText('No boxes yet')).toBeVisible();
  await page.getByRole('link', { name: 'New box' }).click();
  await page.getByLabel('Code', { exact: true }).fill('SMALL');
  await page.getByRole('button', { name: 'Keep the box' }).click();
  await expect(page.getByText('Inner length in millimetres, 10 or more').first()).toBeVisible();
  for (const [label, value] of [
    ['Length inside, mm', '300'],
    ['Width inside, mm', '200'],
    ['Height inside, mm', '150'],
    ['Weighs empty, g', '120'],
    ['Carries, g', '8000'],
    ['Costs, each', '0.34'],
    ['Old Dairy', '25'],
  ] as const)
    await page.locator('aside').getByLabel(label).fill(value);
  await page.getByRole('button', { name: 'Keep the box' }).click();
  await expect(page.getByRole('row', { name: /SMALL.*25/ })).toBeVisible();

  await page.goto(`${BASE}/setup/carriers/new`);
  await page.getByLabel('Name', { exact: true }).fill('Harrier Post');
  await page.getByLabel('Code', { exact: true }).fill('HARRIER');
  await page.getByLabel('Address of its system').fill(`${OUTSIDE_URL}/carriers/harrier`);
  await page.getByRole('button', { name: 'Keep the carrier' }).click();
  await expect(page.getByText('Type the key that the carrier gave you').first()).toBeVisible();
  await page.getByLabel('Key for its system').fill('carrier-knows-this-house');
  await expect(page.getByLabel('Lane, lane 1')).toHaveValue('LANE-1');
  await page.getByRole('button', { name: 'Keep the carrier' }).click();
  await page.getByRole('button', { name: 'Ask for prices' }).click();
  await expect(page.getByText('Parcel, two days')).toBeVisible();

  await page.goto(`${BASE}/setup/company`);
  await page.getByRole('button', { name: 'Add a departure' }).click();
  const days = page.locator('section.calendar');
  await days.getByLabel('Carrier, departure 1').selectOption('HARRIER');
  await Promise.all([
    page.waitForResponse((r) => r.request().method() === 'PUT' && r.ok()),
    days.getByRole('button', { name: 'Keep', exact: true }).click(),
  ]);
  await page.goto(`${BASE}/dispatch`);
  await expect(page.getByText(/van at (\w{3} \d+ \w{3} )?15:30/)).toBeVisible();
});

test('a channel is made by hand, and its secret is shown once', async () => {
  await page.goto(`${BASE}/setup/channels/new`);
  await page.getByLabel('Name', { exact: true }).fill('Web shop');
  await page.getByLabel('Code', { exact: true }).fill('WEB');
  await page.getByRole('button', { name: 'Add a listing' }).click();
  await page.getByLabel('Its code, listing 1').fill('jar');
  await page.getByLabel('Our SKU, listing 1').fill('JAR-1');
  await page.getByLabel('Price, listing 1').fill('1.20');
  await page.getByRole('button', { name: 'Keep the channel' }).click();
  await page.getByRole('button', { name: 'Give it a secret' }).click();
  secret = await page.getByRole('region', { name: 'Secret' }).locator('.break-all').innerText();
  await page.reload();
  await expect(page.getByText('signed with a secret that both know')).toBeVisible();
  await expect(page.getByText(secret)).toHaveCount(0);
});

/** An order of jars, signed by the shop. Returns its code. */
async function ordered(ref: string, quantity: number): Promise<string> {
  const body = JSON.stringify({
    ref,
    placedAt: new Date().toISOString(),
    customer: 'Petra Lindow',
    address: { line: '2 Beacon Row', city: 'Netherwick', postcode: 'NW8 2RE', country: 'GB' },
    lines: [{ sku: 'jar', quantity, price: '1.20' }],
  });
  const sent = await page.request.post(`${BASE}/api/channels/WEB/webhook`, {
    data: body,
    headers: { 'content-type': 'application/json', 'x-signature': createHmac('sha256', secret).update(body).digest('hex') },
  });
  expect(sent.status()).toBe(200);
  return ((await sent.json()) as { code: string }).code;
}

test('an order comes signed, is picked, packed, labelled and handed over: the first parcel is at the carrier', async () => {
  await page.goto(`${BASE}/floor/store`);
  await expect(page.getByRole('heading', { name: 'Scan the goods' })).toBeVisible();
  await scan(page, '9521077990007');
  await scan(page, 'A-01-1');
  await expect(page.getByText('Jar, in A-01-1', { exact: true })).toBeVisible();

  const code = await ordered('WEB-1', 3);

  await page.goto(`${BASE}/orders/${code}`);
  await page.getByRole('button', { name: /Send to picking/ }).click();
  await expect(page.getByText(/R-\d+/).first()).toBeVisible();
  await page.goto(`${BASE}/floor/pick`);
  await page.getByRole('link', { name: /R-/ }).first().click();
  await expect(page.getByRole('heading', { name: 'Scan an empty tote' })).toBeVisible();
  await scan(page, 'T-01');
  await scan(page, 'A-01-1');
  for (let i = 0; i < 3; i++) await scan(page, '9521077990007');
  await scan(page, 'TABLE-1');

  await expect(page.getByText('Set down. Ready to pack')).toBeVisible();
  await page.goto(`${BASE}/bench/${code}`);
  await expect(page.getByRole('heading', { name: 'Petra Lindow' })).toBeVisible();
  await expect(page.getByText('Scanner ready')).toBeVisible();
  for (let i = 0; i < 3; i++) await scan(page, '9521077990007');
  await expect(page.getByLabel('Weight in grams')).toBeEnabled();
  await page.getByLabel('Weight in grams').fill('900');
  await page.getByRole('button', { name: /Harrier Post parcel, two days/ }).click();
  await page.getByRole('button', { name: 'Print label' }).click();
  // A house without a printer is told so, and prints the label from the page.
  await expect(page.getByText(/The label is not on paper: .* has no printer/)).toBeVisible();
  await expect(page.getByRole('link', { name: 'See the label' })).toBeVisible();

  await page.goto(`${BASE}/dispatch`);
  await page.getByRole('button', { name: /Hand 1 parcel to Harrier Post/ }).click();
  await expect(page.getByText(/1 parcel gone, list/)).toBeVisible();
  const { parcels } = await outside(page);
  expect(parcels.some((p) => p.parcel === `${code}-1`)).toBe(true);
  await page.goto(`${BASE}/setup/boxes`);
  await expect(page.getByRole('row', { name: /SMALL.*24/ })).toBeVisible();
  await page.goto(`${BASE}/shelves/items/JAR-1`);
  await expect(page.getByText('9 pieces', { exact: true })).toBeVisible();
});

test('what left is invoiced with the first number of the house, and paid by naming it', async () => {
  await page.goto(`${BASE}/books`);
  await page.getByRole('link', { name: 'Look at it' }).first().click();
  await expect(page.getByRole('heading', { name: 'Petra Lindow' })).toBeVisible();
  await expect(page.getByRole('row', { name: /Jar/ })).toContainText('3 pieces');
  await page.getByRole('button', { name: /^Post the invoice over/ }).click();
  await expect(page).toHaveURL(/\/books\/invoices\/I-0001$/);
  await page.goto(`${BASE}/books/payments`);
  await page.getByLabel('Amount').fill('3,60');
  await page.getByLabel('The payer wrote').fill('I-0001');
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(page.getByText('For I-0001')).toBeVisible();
  await page.goto(`${BASE}/books/accounts`);
  await expect(page.getByText('and that is what stands on its account')).toBeVisible();
});

test('a message that cannot be understood waits at the order desk, is mended there and comes in', async () => {
  const body = JSON.stringify({
    ref: 'WEB-2',
    placedAt: new Date().toISOString(),
    customer: 'Juno Appleyard',
    address: { line: '12 Weir Street', city: 'Hathersley', postcode: 'HA1 3PN', country: 'GB' },
    lines: [{ sku: 'jar', quantity: 'two', price: '1.20' }],
  });
  const sent = await page.request.post(`${BASE}/api/channels/WEB/webhook`, {
    data: body,
    headers: { 'content-type': 'application/json', 'x-signature': createHmac('sha256', secret).update(body).digest('hex') },
  });
  expect(sent.status()).toBe(400);
  await page.goto(BASE);
  await page.getByRole('link', { name: /Mend it/ }).click();
  await page.getByRole('row', { name: /WEB-2/ }).click();
  const text = page.getByLabel('The message');
  await expect(text).toHaveValue(/"quantity": "two"/);
  await page.getByRole('button', { name: 'Take it in as it stands here' }).click();
  await expect(page.getByRole('alert').first()).toContainText('quantity');
  await text.fill((await text.inputValue()).replace('"two"', '2'));
  await page.getByRole('button', { name: 'Take it in as it stands here' }).click();
  await expect(page).toHaveURL(/\/orders\/S-\d+$/);
  await expect(page.getByRole('heading', { name: 'Juno Appleyard' })).toBeVisible();
  await page.goto(`${BASE}/orders/unread`);
  await expect(page.getByRole('row', { name: /WEB-2/ })).toContainText('taken in');
});

test('the house leaves picking out: the next order goes to the packing table at once, and is packed from the shelf', async () => {
  await page.goto(`${BASE}/setup/company`);
  const days = page.locator('section.calendar');
  await days.getByRole('checkbox', { name: /^Rounds are walked/ }).uncheck();
  await Promise.all([
    page.waitForResponse((r) => r.request().method() === 'PUT' && r.ok()),
    days.getByRole('button', { name: 'Keep', exact: true }).click(),
  ]);
  const code = await ordered('WEB-3', 2);
  await page.goto(`${BASE}/orders/${code}`);
  await page.getByRole('button', { name: /Send to packing/ }).click();
  await page.getByRole('link', { name: /^Pack it/ }).click();
  await expect(page.getByText('from A-01-1')).toBeVisible();
  await expect(page.getByText('Scanner ready')).toBeVisible();
  for (let i = 0; i < 2; i++) await scan(page, '9521077990007');
  await expect(page.getByText('in the parcel').first()).toBeVisible();
  await page.goto(`${BASE}/picking`);
  await expect(page.getByText(code)).toHaveCount(0);
});
