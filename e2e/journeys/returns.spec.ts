import { type BrowserContext, expect, type Page, test } from '@playwright/test';
import { api, band, closesItsPages, desktop, outside, phone, scan, signIn } from '../world.js';

closesItsPages();
test.describe.configure({ mode: 'serial' });

let desk: Page;
let context: BrowserContext;
let floor: Page;

test.beforeAll(async ({ browser }) => {
  desk = await desktop(browser, 'maren');
  context = await phone(browser);
  await signIn(context, 'ruben');
  floor = await context.newPage();
});
test.afterAll(async () => {
  await desk.context().close();
  await context.close();
});

const openReturn = async (customer: string, goods = '') => {
  const { rows } = await api<{ rows: { code: string; customer: string; goods: string }[] }>(desk, 'customer-returns?state=open');
  return rows.find((r) => r.customer.startsWith(customer) && r.goods.startsWith(goods))!.code;
};

test('what came back damaged is exchanged for the same goods, on an order that costs nothing', async () => {
  await desk.goto(`/orders/returns/${await openReturn('Moorfoot')}`);
  await expect(desk.getByText('Proposed: send the same again')).toBeVisible();
  await expect(desk.getByRole('button', { name: 'Pay it back, £' })).toBeEnabled();
  await desk.getByRole('button', { name: 'Send the same again' }).click();
  await expect(desk.getByText('exchanged', { exact: true })).toBeVisible();
  await desk
    .getByRole('link', { name: /^S-\d+$/ })
    .last()
    .click();
  await expect(desk.getByRole('heading', { name: 'Moorfoot Honey Co.' })).toBeVisible();
  await expect(desk.getByText('£0.00').first()).toBeVisible();
});

test('the customer announces three, and gets the paper by mail', async () => {
  const found = await api<{ order: string; customer: string }[]>(floor, 'customer-returns/find?q=BOK-KIDS');
  const order = found.find((f) => f.customer.startsWith('Wick Hill'))!.order;
  await desk.goto(`/orders/${order}`);
  await desk.getByRole('link', { name: 'Something comes back' }).click();
  await desk.getByLabel(/^Why Book: A hive/).selectOption({ label: 'Wrong goods sent' });
  await desk.getByLabel(/^Units of Book: A hive/).fill('30');
  await desk.getByRole('button', { name: 'Announce 1 line' }).click();
  await expect(desk.getByText(/only 10 are with the customer/)).toBeVisible();
  await desk.getByLabel(/^Units of Book: A hive/).fill('3');
  await desk.getByRole('button', { name: 'Announce 1 line' }).click();
  await expect(desk).toHaveURL(/\/orders\/returns\/G-\d+$/);
  await expect(async () => {
    const { mails } = await outside(desk);
    expect(mails.some((m) => /^Your return G-\d+/.test(m.subject) && m.attachments.some((a) => /^G-\d+\.pdf$/.test(a)))).toBe(true);
  }).toPass({ timeout: 40_000 });
});

test('two of them come: taken back with scanner and thumb, a mistake is undone, other goods are refused', async () => {
  const code = await openReturn('Wick Hill', 'Book: A hive');
  await floor.goto('/floor/returns');
  await expect(floor.getByRole('heading', { name: /Scan its paper/ })).toBeVisible();
  await scan(floor, code);
  await expect(floor.getByRole('heading', { name: 'Scan what came back' })).toBeVisible();
  await scan(floor, 'SMK-SML');
  await expect(band(floor, 'not-this')).toContainText('did not leave with');
  await scan(floor, 'BOK-KIDS');
  await scan(floor, 'BOK-KIDS');
  await expect(band(floor, 'accepted')).toContainText('2 books');
  await floor.getByRole('button', { name: 'Damaged' }).click();
  await expect(floor.getByRole('button', { name: 'Back on the shelf' })).toHaveCount(0);
  await floor.getByRole('button', { name: /^Scrap/ }).click();
  await expect(band(floor, 'accepted')).toContainText('scrap');
  await floor.getByRole('button', { name: 'Undo' }).click();
  await expect(floor.getByText('3 books announced, 10 books with the customer')).toBeVisible();
  await scan(floor, 'BOK-KIDS');
  await scan(floor, 'BOK-KIDS');
  await floor.getByRole('button', { name: 'As new' }).click();
  await scan(floor, 'VX-CONFIRM');
  await expect(band(floor, 'accepted')).toContainText('back on the shelf');
});

test('they are paid back by a credit note, and counted', async () => {
  await desk.reload();
  await expect(desk.getByText('Proposed: pay it back. Wrong goods sent.')).toBeVisible();
  await desk.getByRole('button', { name: /^Pay it back, £/ }).click();
  await expect(desk.getByText(/^Paid back, £/)).toBeVisible();
  await desk.getByRole('link', { name: /^C-\d+$/ }).click();
  await expect(desk.getByText('Wrong goods sent').first()).toBeVisible();
  await desk.goto('/orders/returns/tally?by=customer');
  await expect(desk.getByRole('row', { name: /Wick Hill/ })).toContainText('3');
  await floor.goto('/floor/store');
  await expect(floor.getByText('Book: A hive for the school').first()).toBeVisible();
});

test('goods of which nobody knows the order are taken in, and closed without money', async () => {
  await floor.goto('/floor/returns');
  await expect(floor.getByRole('heading', { name: /Scan its paper/ })).toBeVisible();
  await scan(floor, 'SMK-SML');
  await floor.getByRole('button', { name: /Nobody knows whose/ }).click();
  await expect(floor.getByRole('heading', { name: 'Scan what came back' })).toBeVisible();
  await scan(floor, 'SMK-SML');
  await floor.getByRole('button', { name: 'Opened' }).click();
  await floor.getByRole('button', { name: /^To quarantine/ }).click();
  await expect(band(floor, 'accepted')).toContainText('to quarantine');
  await desk.goto(`/orders/returns/${await openReturn('Nobody')}`);
  await expect(desk.getByRole('button', { name: /Pay it back/ })).toHaveCount(0);
  await desk.getByRole('button', { name: 'Pay nothing back' }).click();
  await expect(desk.getByText('nothing paid back', { exact: true })).toBeVisible();
});
