import { type ChildProcess, fork } from 'node:child_process';
import { readdirSync, rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import { band, closesItsPages, scan } from '../world.js';

closesItsPages();

const ROOT = resolve(import.meta.dirname, '../..');
const SAMPLES = `${ROOT}/docs/samples`;
const PORT = 4645;
const BASE = `http://127.0.0.1:${PORT}`;
const PASSWORD = 'a long enough password';

interface Database {
  env: Record<string, string>;
  stop: () => Promise<void>;
}
const { startDatabase } = (await import(`${ROOT}/scripts/lib/database.mjs`)) as { startDatabase: (o: object) => Promise<Database> };

let database: Database;
let server: ChildProcess;
let page: Page;
let floor: Page;
let enrolAddress = '';

/** From an empty house and a folder of spreadsheets to the first scan. */
test.describe.configure({ mode: 'serial' });

test.beforeAll(async ({ browser }) => {
  const dir = `${ROOT}/.cache/set-up-db`;
  rmSync(dir, { recursive: true, force: true });
  database = await startDatabase({ dir, bufferPool: '64M' });
  server = fork(`${ROOT}/server/dist/main.js`, [], {
    env: { ...process.env, ...database.env, VECTRUM_DEMO: '0', VECTRUM_PORT: String(PORT), LOG_LEVEL: 'silent' },
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
  });
  await new Promise((done) => server.once('message', done));
  page = await (await browser.newContext({ baseURL: BASE, viewport: { width: 1280, height: 800 } })).newPage();
  floor = await (
    await browser.newContext({ baseURL: BASE, viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })
  ).newPage();
  await page.request.post('/api/first-owner', {
    data: { name: 'Hedda Brook', email: 'hedda@example.org', password: PASSWORD, siteName: 'Old Dairy', siteCode: 'DAIRY' },
  });
  await page.request.post('/api/session', { data: { email: 'hedda@example.org', password: PASSWORD } });
});
test.afterAll(async () => {
  server.kill('SIGTERM');
  await database.stop();
});

test('aisles are built by rule, after a look at what the rule would make', async () => {
  await page.goto('/shelves/aisles');
  await page.getByLabel('to', { exact: true }).fill('B');
  await page.getByLabel('Bays in each').fill('0');
  await expect(page.getByText('An aisle has 1 to 99 bays')).toBeVisible();
  await page.getByLabel('Bays in each').fill('6');
  await page.getByLabel('Levels', { exact: true }).fill('3');
  await expect(page.getByText('2 aisles, 36 bins from A-01-1 to B-06-3, 24 of them open to picking')).toBeVisible();
  await page.getByRole('button', { name: 'Build 36 bins' }).click();
  await expect(page.getByText('Old Dairy: 2 aisles with 36 bins, 0 of them with goods')).toBeVisible();
});

test('a faulty file is told row by row, and writes nothing', async () => {
  await page.goto('/setup/imports');
  await page.getByLabel('Files to take in').setInputFiles(`${SAMPLES}/items-with-faults.csv`);
  await page.getByRole('button', { name: 'Check 6 rows' }).click();
  await expect(page.getByRole('heading', { name: '5 faulty rows' })).toBeVisible();
  await expect(page.getByText('Name is missing')).toBeVisible();
  await expect(page.getByText('wrong check digit')).toBeVisible();
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'These rows as CSV' }).click()]);
  expect(file.suggestedFilename()).toBe('faulty-rows.csv');
  await expect(page.getByRole('button', { name: 'Take in the 1 good row only' })).toBeVisible();
  await page.getByLabel('Tracked by, colour').selectOption('lot');
  await page.getByLabel('Name, empty').fill('Hoe');
  await page.getByRole('button', { name: 'Read 2 values so, and check again' }).click();
  await expect(page.getByRole('heading', { name: '3 faulty rows' })).toBeVisible();
  await expect(page.getByText('remembered for files with the same columns')).toBeVisible();
  await page.goto('/shelves/items');
  await expect(page.getByText('No items yet')).toBeVisible();
});

test('six spreadsheets go in, each after a look at its columns', async () => {
  await page.goto('/setup/imports');
  const files = readdirSync(SAMPLES).filter((f) => /^\d-/.test(f));
  await page.getByLabel('Files to take in').setInputFiles(files.map((f) => `${SAMPLES}/${f}`));
  await expect(page.getByRole('heading', { name: '1-items.csv' })).toBeVisible();
  for (const file of files) {
    await page.getByRole('cell', { name: file }).click();
    await expect(page.getByRole('heading', { name: file })).toBeVisible();
    await page.getByRole('button', { name: /^Check \d+ rows/ }).click();
    await page.getByRole('button', { name: /^Take in \d+ rows/ }).click();
    await expect(page.getByRole('button', { name: 'Take the whole import back' })).toBeVisible();
  }
  await page.goto('/shelves/items');
  await expect(page.getByRole('link', { name: 'All 12' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'No barcode 1' })).toBeVisible();
});

test('pictures go to the items that they are named for', async () => {
  await page.goto('/setup/imports');
  // Any picture will do.
  const picture = await page.screenshot();
  await page.getByLabel('Files to take in').setInputFiles([
    { name: 'basket-s.png', mimeType: 'image/png', buffer: picture },
    { name: 'NOBODY.png', mimeType: 'image/png', buffer: picture },
    { name: '9522000000022.png', mimeType: 'image/png', buffer: Buffer.from('no picture') },
  ]);
  const dialog = page.getByRole('dialog', { name: 'Pictures of items' });
  await expect(dialog.getByText('2 files of 3 have their item.')).toBeVisible();
  await expect(dialog.getByRole('row', { name: /NOBODY/ })).toContainText('No item has this SKU or barcode');
  await dialog.getByRole('button', { name: 'Put 2 pictures in place' }).click();
  await expect(dialog.getByText('1 picture of 2 put in place.')).toBeVisible();
  await expect(dialog.getByRole('row', { name: /9522000000022/ })).toContainText('not a JPEG, PNG or WebP picture');
  await dialog.getByRole('button', { name: 'Close' }).click();
  await page.goto('/shelves/items/BASKET-S');
  await expect(page.locator('img[src*="/BASKET-S/picture"]').first()).toBeVisible();
});

test('an import is taken back as a whole, and put in again', async () => {
  await page.goto('/setup/imports');
  await page.getByRole('cell', { name: '6-opening-stock.csv' }).click();
  await page.getByRole('button', { name: 'Take the whole import back' }).click();
  await expect(page.getByText('Taken back', { exact: true })).toBeVisible();
  await page.getByLabel('Files to take in').setInputFiles(`${SAMPLES}/6-opening-stock.csv`);
  await page.getByRole('button', { name: /^Check 13 rows/ }).click();
  await page.getByRole('button', { name: /^Take in 13 rows/ }).click();
  await expect(page.getByText('13 made, 0 changed').first()).toBeVisible();
});

test('what was sold before goes in as a spreadsheet, and the house says what to buy, from whom and when', async () => {
  await page.goto('/plan');
  await expect(page.getByText('Nothing is planned here yet')).toBeVisible();
  const weeks = Array.from({ length: 26 }, (_, i) => new Date(Date.now() - (i + 1) * 7 * 86_400_000).toISOString().slice(0, 10));
  const csv = `SKU,Week beginning,Units asked for\n${weeks.map((day, i) => `BASKET-S,${day},${12 + (i % 3)}`).join('\n')}\n`;
  await page.goto('/setup/imports');
  await page.getByLabel('Files to take in').setInputFiles([{ name: 'sold.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) }]);
  await page.getByRole('button', { name: /^Check 26 rows/ }).click();
  await page.getByRole('button', { name: /^Take in 26 rows/ }).click();
  await expect(page.getByText('26 made, 0 changed').first()).toBeVisible();
  await page.goto('/plan');
  await page.getByRole('button', { name: 'Plan anew now' }).click();
  const line = page.getByRole('region', { name: 'Osier & Withy' }).getByRole('row', { name: /Willow basket, small/ });
  await expect(line).toContainText(/runs out/);
  await page.getByRole('button', { name: 'Draft 1 order, 1 line' }).click();
  await expect(page.getByText('They go to the suppliers when they are placed')).toBeVisible();
  await expect(line).toHaveCount(0);
});

test('the goods without a barcode get one, and its label shows as it prints', async () => {
  await page.goto('/shelves/items/NESTBOX?tab=about');
  await page.getByRole('button', { name: 'Make a barcode' }).click();
  await expect(page.getByRole('cell', { name: '02000000000015' })).toBeVisible();
  await page.getByRole('link', { name: 'Label', exact: true }).click();
  await expect(page.locator('canvas[data-drawn]')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Print 1 label' })).toBeEnabled();
  await page.getByRole('button', { name: 'Print 1 label' }).click();
  await expect(page.getByText('There is no printer at your sites')).toBeVisible();
});

test('a phone is enrolled by the code on the screen, and somebody signs in with badge and PIN', async () => {
  await page.goto('/own');
  await page.getByLabel('Password now').fill(PASSWORD);
  await page.getByLabel('New PIN for shared devices, 4 to 8 digits').fill('2468');
  await page.getByRole('button', { name: 'Change' }).click();
  await expect(page.getByText('Changed.')).toBeVisible();
  await page.goto('/setup/devices');
  await page.getByLabel('Name the device').fill('Phone 1');
  await page.getByRole('button', { name: 'Show a code' }).click();
  const code = (await page.getByRole('img', { name: /^Enrolment code/ }).getAttribute('alt'))!.split(' ').at(-1)!;
  enrolAddress = `/enrol#${code}`;
  await floor.goto(enrolAddress);
  await expect(floor.getByRole('heading', { name: 'Scan your badge' })).toBeVisible();
  const { badge } = (await (await page.request.get('/api/session')).json()) as { badge: string };
  await scan(floor, badge);
  await expect(floor.getByRole('heading', { name: 'Your PIN' })).toBeVisible();
  for (const digit of '2468') await floor.getByRole('button', { name: digit, exact: true }).click();
  await floor.getByRole('button', { name: 'In', exact: true }).click();
  await expect(floor.getByRole('heading', { name: 'Scan a paper, or choose' })).toBeVisible();
});

test('the code works once', async ({ browser }) => {
  const other = await (await browser.newContext({ baseURL: BASE })).newPage();
  await other.goto(enrolAddress);
  await expect(other.getByText('This enrolment code is spent or too old')).toBeVisible();
});

test('the first scan tells what the goods are and where they lie', async () => {
  await scan(floor, '9522000000015');
  await expect(floor.getByRole('heading', { name: 'Willow basket, small' })).toBeVisible();
  await expect(floor.getByText('18 pieces on hand, 18 free')).toBeVisible();
  await scan(floor, 'A-03-1');
  await expect(floor.getByText('Wildflower seed, 100 g')).toBeVisible();
  await scan(floor, 'NC-55010');
  await expect(floor.getByRole('heading', { name: 'Nest box camera' })).toBeVisible();
});

test('an unknown barcode is tied to an item on the spot', async () => {
  await scan(floor, '5012345678900');
  await expect(band(floor, 'unknown')).toBeVisible();
  await floor.getByRole('button', { name: /Tie it to an item/ }).click();
  await scan(floor, 'GLOVE-M');
  await floor.getByRole('button', { name: 'It is a box of 10' }).click();
  await expect(band(floor, 'accepted')).toContainText('box of 10 of Gardening gloves, M');
  await scan(floor, '5012345678900');
  await expect(floor.getByText('box of 10', { exact: false }).first()).toBeVisible();
});

test('somebody is invited, and what they may do is adjusted', async () => {
  await page.goto('/setup/people/new');
  await page.getByLabel('Name', { exact: true }).fill('Tam Reed');
  await page.getByLabel('E-mail').fill('tam@example.org');
  await page.getByRole('checkbox', { name: 'storer' }).check();
  await page.getByRole('button', { name: 'Send the invitation' }).click();
  await expect(page.getByRole('heading', { name: 'Tam Reed' })).toBeVisible();
  await expect(page.locator('.waybill')).toContainText('invited');
  await page.goto('/setup/people/duties');
  const box = page.getByRole('checkbox', { name: 'storer: Book goods in, tie barcodes' });
  await box.check();
  await expect(page.getByText('adjusted')).toBeVisible();
});
