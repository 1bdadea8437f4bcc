import { expect, test } from '@playwright/test';
import { BASE_URL, band, closesItsPages, desktop, PASSWORD, phone, scan, signIn } from '../world.js';

closesItsPages();

test('a form that is half written asks before it is left, is there after a reload, and is gone when it is left', async ({ browser }) => {
  const page = await desktop(browser, 'maren');
  await page.goto('/shelves/places/new');
  const code = page.getByLabel('Code, such as C-07-2');
  await code.fill('Z-99-1');
  await page.getByRole('link', { name: /^Orders/ }).click();
  const ask = page.getByRole('dialog', { name: 'This is not kept yet' });
  await ask.getByRole('button', { name: 'Go on writing' }).click();
  await expect(ask).toHaveCount(0);
  await expect(code).toHaveValue('Z-99-1');

  await page.reload();
  await expect(page.getByText('What you had written here is back')).toBeVisible();
  await expect(code).toHaveValue('Z-99-1');

  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await ask.getByRole('button', { name: 'Leave without keeping it' }).click();
  await expect(page).toHaveURL(/\/shelves\/places$/);
  await page.goto('/shelves/places/new');
  await expect(code).toHaveValue('');
});

test('a sign-in that ends in the middle of a form is renewed there', async ({ browser }) => {
  const page = await desktop(browser, 'maren');
  await page.goto('/shelves/places/new');
  await page.getByLabel('Code, such as C-07-2').fill('Z-99-2');
  await page.locator('aside').getByLabel('Kind').selectOption('pick-face');
  await page.context().request.delete(`${BASE_URL}/api/session`);
  const door = page.getByRole('dialog', { name: 'Your sign-in has ended' });
  await door.getByLabel(/Password of maren/).fill('not the password');
  await door.getByRole('button', { name: 'Go on' }).click();
  await expect(door.getByRole('alert')).toBeVisible();
  await door.getByLabel(/Password of maren/).fill(PASSWORD);
  await door.getByRole('button', { name: 'Go on' }).click();
  await expect(door).toHaveCount(0);
  await page.getByRole('button', { name: 'Keep the place' }).click();
  await expect(page.getByRole('heading', { name: 'Z-99-2' })).toBeVisible();
});

test('a sign-in that ends with goods in the hand is renewed there, and what was scanned is booked', async ({ browser }) => {
  const context = await phone(browser);
  await signIn(context, 'ruben');
  const floor = await context.newPage();
  await floor.goto('/floor/store');
  await expect(floor.getByRole('heading', { name: 'Scan the goods' })).toBeVisible();
  const task = (await (await context.request.get(`${BASE_URL}/api/floor/tasks/store/1`)).json()) as {
    task: { goods: { itemId: number; suggestion: { code: string } | null }[] };
  };
  const goods = task.task.goods.find((g) => g.suggestion !== null)!;
  const bin = goods.suggestion!.code;
  const item = (await (await context.request.get(`${BASE_URL}/api/floor/book?site=1`)).json()) as { items: { id: number; sku: string }[] };
  await scan(floor, item.items.find((i) => i.id === goods.itemId)!.sku);
  await expect(floor.getByText(bin).first()).toBeVisible();
  await context.request.delete(`${BASE_URL}/api/session`);
  await scan(floor, bin);
  const door = floor.getByRole('dialog', { name: 'Your sign-in has ended' });
  await door.getByLabel(/Password of ruben/).fill(PASSWORD);
  await door.getByRole('button', { name: 'Go on' }).tap();
  await expect(door).toHaveCount(0);
  await expect(async () => {
    const tape = (await (await context.request.get(`${BASE_URL}/api/tape?limit=5`)).json()) as {
      entries: { title: string; detail: string }[];
    };
    expect(tape.entries.some((e) => `${e.title} ${e.detail}`.includes(bin))).toBe(true);
  }).toPass();
  await expect(floor.getByText('kept here')).toHaveCount(0);
  await expect(band(floor, 'not-this')).toHaveCount(0);
});
