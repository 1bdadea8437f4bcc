import { type ChildProcess, fork } from 'node:child_process';
import { rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import { closesItsPages, scan } from '../world.js';

closesItsPages();

const ROOT = resolve(import.meta.dirname, '../..');
const PORT = 4640;
const BASE = `http://127.0.0.1:${PORT}`;

interface Database {
  env: Record<string, string>;
  stop: () => Promise<void>;
}
const { startDatabase } = (await import(`${ROOT}/scripts/lib/database.mjs`)) as { startDatabase: (o: object) => Promise<Database> };

let database: Database;
let server: ChildProcess;
let page: Page;

function start(env: Record<string, string>): ChildProcess {
  return fork(`${ROOT}/server/dist/main.js`, [], {
    env: { ...process.env, ...env, LOG_LEVEL: 'silent' },
    stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
  });
}

/** A house without demo data: from the first page to the first scan. */
test.describe.configure({ mode: 'serial' });

test.beforeAll(async ({ browser }) => {
  const dir = `${ROOT}/.cache/first-run-db`;
  rmSync(dir, { recursive: true, force: true });
  database = await startDatabase({ dir, bufferPool: '64M' });
  server = start({ ...database.env, VECTRUM_DEMO: '0', VECTRUM_PORT: String(PORT) });
  await new Promise((done) => server.once('message', done));
  page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
});
test.afterAll(async () => {
  server.kill('SIGTERM');
  await database.stop();
});

test('a wrong environment is named, and the server ends with 2', async () => {
  const wrong = start({ ...database.env, DATABASE_PORT: 'many', VECTRUM_PORT: '4641' });
  let said = '';
  wrong.stderr?.on('data', (text: Buffer) => (said += text.toString()));
  const code = await new Promise((done) => wrong.on('exit', done));
  expect(code).toBe(2);
  expect(said).toContain('DATABASE_PORT');
  expect(said).not.toContain(database.env['DATABASE_PASSWORD']!);
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
  await expect(page.getByRole('heading', { name: /0 orders promised today/ })).toBeVisible();
  await expect(page.getByText('Nothing is stuck or late')).toBeVisible();
  await expect(page.getByText('Nothing is on its way')).toBeVisible();
});

test('empty lists say what to do next', async () => {
  for (const [path, words] of [
    ['/inbound', 'No purchase orders yet'],
    ['/orders', 'No orders here'],
    ['/picking', 'No rounds'],
    ['/packing', 'Nothing waits to be packed'],
    ['/dispatch', 'No carriers yet'],
    ['/shelves/to-put-away', 'The dock is clear'],
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
  await page.getByLabel(/Price list/).fill('JAR-1, 1, G1, 0.42');
  await page.getByRole('button', { name: 'Keep the supplier' }).click();
  await expect(page.getByRole('heading', { name: 'Glassworks' })).toBeVisible();

  await page.goto(`${BASE}/inbound/new`);
  await page.getByRole('combobox', { name: 'Supplier' }).selectOption({ label: 'Glassworks' });
  await page.getByLabel('Goods of line 1').selectOption({ label: 'Jar' });
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
});

test('the mail that has no server waits in the outbox and says why', async () => {
  await page.goto(`${BASE}/setup/outbox`);
  await expect(page.getByText('No mail server is set. Set SMTP_URL')).toBeVisible();
});
