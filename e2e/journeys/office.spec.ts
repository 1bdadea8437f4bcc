import { expect, type Page, test } from '@playwright/test';
import { api, closesItsPages, desktop, scan } from '../world.js';

closesItsPages();

let page: Page;
test.beforeAll(async ({ browser }) => {
  page = await desktop(browser, 'maren');
});

test('the flow is the navigation: digits open the stages', async () => {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: /orders? promised (today|until)/ })).toBeVisible();
  for (const [key, path] of [
    ['1', '/inbound'],
    ['2', '/shelves/items'],
    ['3', '/orders'],
    ['4', '/picking'],
    ['5', '/packing'],
    ['6', '/dispatch'],
    ['0', '/'],
  ] as const) {
    await page.keyboard.press(key);
    await expect(page).toHaveURL(new RegExp(`${path}$`));
  }
});

test('the any-field lists words and opens scanned codes', async () => {
  await page.goto('/orders');
  await page.getByLabel('Find anything').waitFor();
  await page.keyboard.press('/');
  await page.keyboard.type('smoker', { delay: 70 });
  await expect(page.getByRole('option', { name: /Smoker, large/ })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/shelves\/items\/SMK-/);
  await scan(page, 'A-01-1');
  await expect(page).toHaveURL(/\/shelves\/places\/A-01-1$/);
  await scan(page, '19521077000017');
  await expect(page).toHaveURL(/\/shelves\/items\/JAR-454-RD$/);
  await scan(page, '5012345678900');
  await expect(page.getByRole('alert')).toContainText('5012345678900 is on nothing here');
});

test('a sheet closes with Escape and steps with the arrows', async () => {
  await page.goto('/orders');
  await page.locator('tr[data-open]').first().focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/orders\/S-\d+/);
  await page.locator('.sheet').waitFor();
  const first = page.url();
  await page.keyboard.press('ArrowDown');
  await expect(page).not.toHaveURL(first);
  await page.keyboard.press('Escape');
  await expect(page).toHaveURL(/\/orders$/);
});

test('a held order goes on once its address is known', async () => {
  await page.goto('/orders?show=stuck');
  await page.getByText('No postcode or street').first().click();
  await page.getByLabel('Postcode').fill('SK2 9LD');
  await page.getByRole('button', { name: 'Clear the hold' }).click();
  await expect(page.getByRole('button', { name: 'Send to picking' })).toBeVisible();
});

test('an unknown code is linked once', async () => {
  await page.goto('/orders?show=stuck');
  await page.getByText('Unknown code LM-99999').first().click();
  await page.getByLabel(/their code LM-99999/).fill('NOTHING');
  await page.getByRole('button', { name: 'Clear the hold' }).click();
  await expect(page.getByText('There is no item NOTHING').first()).toBeVisible();
  await page.getByLabel(/their code LM-99999/).fill('BRSH-BEE');
  await page.getByRole('button', { name: 'Clear the hold' }).click();
  await expect(page.getByText('Bee brush')).toBeVisible();
});

test('an order that is short tells how it can go, and is promised for when it can', async () => {
  const code = await shortOrder(page);
  await page.goto(`/orders/${code}`);
  const ways = page.getByRole('region', { name: 'How it can go' });
  await expect(ways.getByRole('row', { name: /All of it from Millrace.*waits for P-\d+/ })).toBeVisible();
  const leaves = (
    await ways
      .getByRole('row', { name: /All of it from Millrace/ })
      .getByRole('cell')
      .nth(2)
      .innerText()
  ).trim();
  await ways.getByRole('button', { name: 'Promise it for then' }).click();
  await expect(page.getByText(`Promised${leaves}`)).toBeVisible();
  await expect(ways.getByRole('button', { name: 'Promise it for then' })).toHaveCount(0);
});

test('a new item is made, found and changed', async () => {
  await page.goto('/shelves/items/new');
  await page.getByLabel('SKU', { exact: true }).fill('HNY-DIP');
  await page.getByLabel('Name', { exact: true }).fill('Honey dipper');
  await page.getByLabel('Class', { exact: true }).fill('Tools');
  await page.getByLabel('Barcodes of pack 1').fill('9521077990007');
  await page.getByRole('button', { name: 'Keep the item' }).click();
  await expect(page.getByRole('heading', { name: 'Honey dipper' })).toBeVisible();
  await expect(page.getByText('Lacks cost, size or weight')).toBeVisible();
  await page.getByRole('link', { name: 'Change the item' }).click();
  await page.getByLabel('Cost until the books know one, GBP').fill('0.85');
  await page.getByLabel('Barcodes of pack 1').fill('9521077990008');
  await page.getByRole('button', { name: 'Keep the item' }).click();
  await expect(page.getByText('wrong check digit').first()).toBeVisible();
  await page.getByLabel('Barcodes of pack 1').fill('9521077990007');
  await page.getByRole('button', { name: 'Keep the item' }).click();
  await expect(page.getByText('Lacks size or weight')).toBeVisible();
});

test('a bin and a supplier are made through their screens', async () => {
  await page.goto('/shelves/places/new');
  await page.getByLabel(/Code, such as/).fill('Z-01-1');
  await page.getByRole('button', { name: 'Keep the place' }).click();
  await expect(page.getByRole('heading', { name: 'Z-01-1' })).toBeVisible();
  await page.getByRole('button', { name: 'Block the place' }).click();
  await expect(page.getByText('blocked')).toBeVisible();
  await page.goto('/inbound/suppliers/new');
  await page.getByLabel('Name', { exact: true }).fill('Alder Baskets');
  await page.getByLabel('Code', { exact: true }).fill('ALDER');
  await page.getByLabel('Mail for orders').fill('orders@alder.example');
  await page.getByRole('button', { name: 'Add a price' }).click();
  await page.getByLabel('Our SKU, price 1').fill('hny-dip');
  await page.getByLabel('Their number, price 1').fill('AB-1');
  await page.getByLabel('Price of a pack, price 1').fill('0.85');
  await page.getByRole('button', { name: 'Another price' }).click();
  await page.getByLabel('Our SKU, price 2').fill('HNY-DIP');
  await page.getByLabel('From packs, price 2').fill('50');
  await page.getByLabel('Price of a pack, price 2').fill('0.79');
  await page.getByRole('button', { name: 'Keep the supplier' }).click();
  await expect(page.getByRole('heading', { name: 'Alder Baskets' })).toBeVisible();
  await expect(page.getByText('Honey dipper')).toBeVisible();
});

test('a channel lists an item under its own code', async () => {
  await page.goto('/setup/channels/LINDEN/edit');
  const rows = page.getByRole('textbox', { name: /Its code, listing/ });
  await expect(rows).not.toHaveCount(0);
  const next = (await rows.count()) + 1;
  await page.getByRole('button', { name: 'Another listing' }).click();
  await page.getByLabel(`Its code, listing ${next}`).fill('LM-1');
  await page.getByLabel(`Our SKU, listing ${next}`).fill('NO-SUCH');
  await page.getByLabel(`Price, listing ${next}`).fill('1.90');
  await page.getByRole('button', { name: 'Keep the channel' }).click();
  await expect(page.getByText('There is no item NO-SUCH').first()).toBeVisible();
  await page.getByLabel(`Our SKU, listing ${next}`).fill('HNY-DIP');
  await page.getByRole('button', { name: 'Keep the channel' }).click();
  await page.getByRole('link', { name: /^Listings \d+$/ }).click();
  await expect(page.getByText('LM-1', { exact: true })).toBeVisible();
});

test('the sum behind a number opens beneath its row', async () => {
  await page.goto('/shelves/items/JAR-227-RD');
  await page.getByTitle('Why: on hand at Millrace').click();
  await expect(page.locator('.sum')).toContainText('Received');
  await expect(page.locator('.sum')).toContainText('=');
});

test('a scan into a field that did not ask leaves the field as it was', async () => {
  await page.goto('/shelves/places/new');
  const field = page.getByLabel(/Code, such as/);
  await field.fill('Q-1');
  await scan(page, '19521077000017');
  await expect(field).toHaveValue('Q-1');
  await page.getByRole('button', { name: 'Leave without keeping it' }).click();
  await expect(page).toHaveURL(/\/shelves\/items\/JAR-454-RD$/);
  await page.goto('/inbound/suppliers/new');
  await page.getByLabel('Name', { exact: true }).pressSequentially('Alder', { delay: 60 });
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Alder');
});

test('nobody sees what is not theirs', async ({ browser }) => {
  const orla = await desktop(browser, 'orla');
  await orla.goto('/setup/people');
  await expect(orla.getByText('People is not among your duties')).toBeVisible();
  await orla.goto('/shelves/items/JAR-454-RD');
  await expect(orla.getByRole('heading', { name: 'Jar 454 g, round' })).toBeVisible();
  await expect(orla.getByText('Cost of a jar')).toHaveCount(0);
  await orla.goto('/nowhere');
  await expect(orla.getByText('There is nothing at this address')).toBeVisible();
});

test('signing in: wrong password, right one, and back to where one was going', async ({ browser }) => {
  const context = await browser.newContext();
  const door = await context.newPage();
  await door.goto('/orders');
  await expect(door).toHaveURL(/sign-in/);
  await door.getByLabel('E-mail').fill('maren@tarnthistle.example');
  await door.getByLabel('Password').fill('wrong');
  await door.keyboard.press('Enter');
  await expect(door.getByRole('alert')).toContainText('do not match');
  await door.getByLabel('Password').fill('thistle-and-tarn');
  await door.keyboard.press('Enter');
  await expect(door).toHaveURL(/\/orders$/);
});

test('the OpenAPI document is served', async () => {
  const doc = await api<{ paths: object }>(page, 'openapi.json');
  expect(Object.keys(doc.paths).length).toBeGreaterThan(45);
});

interface Short {
  code: string;
  state: string;
  promisedAt: string;
}

/** An order of the house that waits for goods which are on order, and can go at another time than it is promised for. */
async function shortOrder(page: Page): Promise<string> {
  const { rows } = (await (await page.request.get('/api/orders?show=short')).json()) as { rows: Short[] };
  for (const { code, promisedAt } of rows.filter((o) => o.state === 'open')) {
    const ways = (await (await page.request.get(`/api/orders/${code}/ways`)).json()) as {
      kind: string;
      wholeAt: string;
      atOrdersSite: boolean;
      waitsFor: string[];
    }[];
    if (ways.some((w) => w.kind === 'together' && w.atOrdersSite && w.wholeAt !== promisedAt && w.waitsFor.length > 0)) return code;
  }
  throw new Error('No order of the demo waits for goods that are on order');
}
