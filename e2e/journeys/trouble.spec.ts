import { expect, type Page, test } from '@playwright/test';
import { band, buy, closesItsPages, desktop, itemsOf, orderOf, phone, rightWeight, scan, setManner, signIn, taskOf } from '../world.js';

closesItsPages();

test.describe.configure({ mode: 'serial' });
let owner: Page;
test.beforeAll(async ({ browser }) => {
  owner = await desktop(browser, 'maren');
});

test('an order that the shop could not send comes in by asking', async () => {
  await owner.goto('/');
  await setManner(owner, 'shop', 'failing');
  const ref = await buy(owner, [{ sku: 'TOOL-JH', quantity: 1 }]);
  await owner.waitForTimeout(500);
  await setManner(owner, 'shop', 'well');
  await orderOf(owner, ref);
});

test('the floor goes on without a network, and nothing is lost', async ({ browser }) => {
  const context = await phone(browser);
  await signIn(context, 'ruben');
  const floor = await context.newPage();
  await floor.goto('/floor/store');
  await expect(floor.getByText('Scan the goods')).toBeVisible();
  await context.setOffline(true);
  await scan(floor, 'LID-63-GD');
  await expect(band(floor, 'accepted')).toBeVisible();
  await scan(floor, 'A-07-1');
  await expect(band(floor, 'accepted')).toContainText('in A-07-1');
  await expect(floor.getByText('on the way to the server')).toBeVisible();
  await context.setOffline(false);
  await expect(floor.getByText('on the way to the server')).toBeHidden();
  await owner.goto('/shelves/places/A-07-1');
  await expect(owner.getByRole('link', { name: 'Lid 63 mm, gold' })).toBeVisible();
  await context.close();
});

test('a bin that is empty sends the picker to another and puts the doubt on Now', async ({ browser }) => {
  const context = await phone(browser);
  await signIn(context, 'joss');
  const floor = await context.newPage();
  await floor.goto('/floor/pick');
  await floor.locator('.f-list a').first().click();
  const before = await floor.locator('.bin').getAttribute('aria-label');
  await floor.getByRole('button', { name: 'Too few' }).tap();
  await floor.getByRole('button', { name: 'None there' }).tap();
  await expect(band(floor, 'accepted')).toContainText('not here');
  expect(before).not.toBeNull();
  await owner.goto('/');
  await expect(owner.getByText('reported not there').first()).toBeVisible();
  await context.close();
});

test('carriers that do not answer are named, and the packer may try again', async ({ browser }) => {
  await setManner(owner, 'carriers', 'failing');
  const bench = await desktop(browser, 'dilys');
  await bench.goto('/bench');
  await bench
    .getByRole('button', { name: /Open, leaves/ })
    .first()
    .click();
  await expect(bench.getByText('to go of')).toBeVisible();
  const note = bench.getByRole('button', { name: 'Read, and done' });
  if (await note.isVisible()) await note.click();
  const code = bench.url().split('/').at(-1)!;
  const task = await taskOf<{ lines: { itemId: number; picked: number; packed: number }[] }>(bench, 'pack', code);
  const items = await itemsOf(bench);
  for (const l of task.lines) for (let i = l.packed; i < l.picked; i++) await scan(bench, items.get(l.itemId)!.sku);
  await bench.getByLabel('Weight in grams').fill(String(await rightWeight(bench, code)));
  await expect(bench.getByRole('alert').getByText('out of order').first()).toBeVisible();
  await setManner(owner, 'carriers', 'well');
  await expect(async () => {
    const again = bench.getByRole('button', { name: 'Try again' }).first();
    if (await again.isVisible()) await again.click({ timeout: 500 }).catch(() => undefined);
    await expect(bench.getByRole('button', { name: /Harrier Post/ }).first()).toBeVisible({ timeout: 1_000 });
  }).toPass({ timeout: 40_000 });
});
