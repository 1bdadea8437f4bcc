import { expect, type Page, test } from '@playwright/test';
import { closesItsPages, desktop } from '../world.js';

closesItsPages();

let page: Page;
test.beforeAll(async ({ browser }) => {
  page = await desktop(browser, 'maren');
});

const inSheet = () => page.evaluate(() => document.activeElement?.closest('.sheet') !== null);
const focused = () => page.evaluate(() => document.activeElement?.textContent?.trim() ?? '');

/** Waits until what a sheet reads by and by is there: half a second in which nothing is added. */
async function settles(): Promise<void> {
  const parts = () => page.locator('.sheet :is(a, button, input, select)').count();
  let before = -1;
  await expect(async () => {
    const now = await parts();
    const same = now === before;
    before = now;
    expect(same).toBe(true);
  }).toPass({ intervals: [500] });
}

/** Presses Tab from the sheet's start until the keyboard leaves it; returns how many things it came to (a date has several parts), and how many there are. */
async function tabThrough(): Promise<{ reached: number; there: number }> {
  let last = await page.evaluateHandle(() => document.activeElement);
  let reached = 0;
  for (let presses = 0; presses < 200; presses++) {
    await page.keyboard.press('Tab');
    if (!(await inSheet())) break;
    const next = await page.evaluateHandle(() => document.activeElement);
    if (!(await page.evaluate(([a, b]) => a === b, [last, next]))) reached++;
    last = next;
  }
  const there = await page.evaluate(() => {
    const all = [...document.querySelectorAll<HTMLElement>('.sheet a[href], .sheet button, .sheet input, .sheet select, .sheet textarea')];
    return all.filter((el) => !el.matches(':disabled') && el.checkVisibility() && el.getBoundingClientRect().width > 0).length;
  });
  return { reached, there };
}

for (const [list, what] of [
  ['/orders', 'an order'],
  ['/inbound', 'a purchase order'],
  ['/inbound/suppliers', 'a supplier'],
  ['/shelves/places', 'a place'],
  ['/setup/carriers', 'a carrier'],
] as const)
  test(`${what}: Enter leads into the sheet, Tab to each of its acts, Escape back to the row`, async () => {
    await page.goto(list);
    const row = page.locator('.list [data-open]').nth(1);
    const start = row.locator('xpath=self::*[@tabindex="0"] | self::*[not(@tabindex)]//a').first();
    await start.focus();
    const from = await focused();
    await page.keyboard.press('Enter');
    await expect(page.locator('.sheet h1')).toBeVisible();
    await expect(page.locator('.sheet .skel')).toHaveCount(0);
    await expect.poll(inSheet).toBe(true);
    await settles();
    const { reached, there } = await tabThrough();
    expect(there).toBeGreaterThan(0);
    expect(reached).toBe(there);
    await page.locator('.sheet-in').focus();
    await page.keyboard.press('Escape');
    await expect(page.locator('.sheet')).toHaveCount(0);
    await expect.poll(focused).toBe(from);
  });

test('a sheet that is stepped to keeps the keyboard, and Escape goes to the row that it shows', async () => {
  await page.goto('/orders');
  await page.locator('.list tr[data-open]').first().focus();
  await page.keyboard.press('Enter');
  await expect.poll(inSheet).toBe(true);
  await expect(page.locator('.sheet .skel')).toHaveCount(0);
  const second = await page.locator('.list tr[data-open]').nth(1).locator('td.code').innerText();
  await page.keyboard.press('ArrowDown');
  await expect(page).toHaveURL(new RegExp(`/orders/${second}$`));
  await expect(page.locator('.list tr[aria-selected="true"]')).toContainText(second);
  await expect.poll(inSheet).toBe(true);
  await page.keyboard.press('Escape');
  await expect.poll(focused).toContain(second);
});

test('in a table that is walked by arrows, the keyboard stays there while the sheet follows', async () => {
  await page.goto('/shelves/items?className=Books&sort=sku');
  const cell = (row: number) => page.locator(`[data-cell="${row}/0"]`);
  await cell(0).focus();
  await page.keyboard.press('Enter');
  await expect.poll(inSheet).toBe(true);
  const first = page.url();
  await cell(0).focus();
  await page.keyboard.press('ArrowDown');
  await expect(cell(1)).toBeFocused();
  await expect(page).not.toHaveURL(first);
  await page.keyboard.press('ArrowDown');
  await expect(cell(2)).toBeFocused();
});

test('Escape in a field of a sheet leaves the field first, and what was typed', async () => {
  await page.goto('/orders/customers/new');
  await page.getByLabel('Name', { exact: true }).fill('Half a name');
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Half a name');
  await expect.poll(inSheet).toBe(true);
  await page.keyboard.press('Escape');
  await page.getByRole('dialog', { name: 'This is not kept yet' }).getByRole('button', { name: 'Go on writing' }).press('Enter');
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Half a name');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Leave without keeping it' }).press('Enter');
  await expect(page).toHaveURL(/\/orders\/customers$/);
});
