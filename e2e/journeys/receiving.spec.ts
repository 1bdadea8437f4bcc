import { type Browser, type BrowserContext, expect, type Page, test } from '@playwright/test';
import { band, closesItsPages, desktop, phone, scan, signIn } from '../world.js';

closesItsPages();

let context: BrowserContext;
let floor: Page;

test.beforeEach(async ({ browser }) => {
  context = await phone(browser);
});
test.afterEach(() => context.close());

async function open(who: string, path: string): Promise<void> {
  await signIn(context, who);
  floor = await context.newPage();
  await floor.goto(path);
}

/** An order that a buyer has written and placed; returns its number. */
async function placed(browser: Browser): Promise<string> {
  const buyer = await desktop(browser, 'piet');
  const lines = [
    { sku: 'JAR-340-HX', factor: 1, packs: 5, price: '0.4' },
    { sku: 'LID-63-GD', factor: 1, packs: 6, price: '0.05' },
    { sku: 'SMK-LGE', factor: 1, packs: 3, price: '12' },
    { sku: 'VEIL-RND', factor: 1, packs: 4, price: '6' },
  ];
  const once = () => ({ 'idempotency-key': crypto.randomUUID() });
  const data = { supplier: 'QUILLON', siteId: 1, note: '', lines };
  const made = await buyer.request.post('/api/purchase-orders', { data, headers: once() });
  const { code } = (await made.json()) as { code: string };
  const done = await buyer.request.post(`/api/purchase-orders/${code}/place`, { data: {}, headers: { ...once(), 'if-match': '"1"' } });
  expect(done.ok(), await done.text()).toBe(true);
  await buyer.context().close();
  return code;
}

test('another paper in the middle of one books in what was counted, and goes there', async ({ browser }) => {
  const [one, two] = [await placed(browser), await placed(browser)];
  await open('ruben', `/floor/receive/${one}`);
  await expect(floor.getByText('Scan the goods')).toBeVisible();
  await scan(floor, 'SMK-LGE');
  await scan(floor, two);
  await expect(band(floor, 'accepted')).toContainText('Going on with it');
  await expect(floor).toHaveURL(new RegExp(`/floor/receive/${two}$`));
  await floor.goto(`/floor/receive/${one}`);
  await expect(floor.getByRole('button', { name: /Smoker, large.*1 of 3/ })).toBeVisible();
});

test('goods are found by words and places by a list, where no label is at hand', async ({ browser }) => {
  await open('ruben', `/floor/receive/${await placed(browser)}`);
  await floor.getByRole('button', { name: 'elsewhere' }).tap();
  await floor.getByLabel('Part of the place’s code').fill('dock-2');
  await floor.getByRole('button', { name: /DOCK-2/ }).tap();
  await expect(floor.getByText('Goods go to DOCK-2')).toBeVisible();
  await floor.getByRole('button', { name: 'Type code' }).tap();
  await floor.getByLabel('Code').fill('veil');
  await floor.getByRole('list', { name: 'What the words could mean' }).getByRole('button').first().tap();
  await expect(floor.getByText('How many came?')).toBeVisible();
});

test('a delivery is taken in as it stands on the paper once its sample is counted', async ({ browser }) => {
  const code = await placed(browser);
  await open('maren', `/floor/receive/${code}`);
  await floor.getByRole('button', { name: /^The rest as on the paper/ }).tap();
  await expect(floor.getByText('Count 2 lines first')).toBeVisible();
  await expect(floor.getByRole('button', { name: 'Count the sample first' })).toBeDisabled();
  for (let left = 2; left > 0; left--) {
    await floor.locator('ul button').first().tap();
    const whole = await floor.getByText(/ to come$/).textContent();
    for (const digit of /^(\d+)/.exec(whole ?? '')?.[1] ?? '') await floor.getByRole('button', { name: digit, exact: true }).tap();
    await floor.getByRole('button', { name: /^Book in/ }).tap();
    await expect(floor.getByRole('button', { name: /^The rest as on the paper/ })).toBeVisible();
    if (left > 1) await floor.getByRole('button', { name: /^The rest as on the paper/ }).tap();
  }
  await floor.getByRole('button', { name: /^The rest as on the paper/ }).tap();
  await floor.getByRole('button', { name: /^Book in 2 lines to DOCK-1/ }).tap();
  await expect(floor.getByText('All lines are in')).toBeVisible();
  await floor.getByRole('button', { name: /^Undo/ }).first().tap();
  await expect(floor.getByText('2 of 4')).toBeVisible();
});

test('so many that nobody ordered are asked about once more', async ({ browser }) => {
  await open('maren', `/floor/receive/${await placed(browser)}`);
  await expect(floor.getByText('Scan the goods')).toBeVisible();
  await scan(floor, 'BOK-LOG');
  await floor.getByRole('button', { name: 'Take it in' }).tap();
  for (let i = 0; i < 5; i++) await floor.getByRole('button', { name: '9', exact: true }).tap();
  await floor.getByRole('button', { name: /^Book in/ }).tap();
  await expect(floor.getByText('So many?')).toBeVisible();
  await floor.getByRole('button', { name: 'Count again' }).tap();
  await expect(floor.getByText('How many came?')).toBeVisible();
});

test('a code that nothing has is matched in the office, and known on the phone', async ({ browser }) => {
  await open('ruben', `/floor/receive/${await placed(browser)}`);
  await expect(floor.getByText('Scan the goods')).toBeVisible();
  await scan(floor, '9521077990090');
  await expect(band(floor, 'unknown')).toContainText('9521077990090');
  const page = await desktop(browser, 'maren');
  await page.goto('/shelves/codes');
  const row = page.getByRole('row', { name: /9521077990090/ });
  await row.getByRole('combobox', { name: /^Goods with/ }).fill('smoker, large');
  await page.getByRole('option', { name: /Smoker, large/ }).click();
  await row.getByRole('button', { name: 'Match' }).click();
  await expect(row).toHaveCount(0);
  await page.context().close();
  await floor.reload();
  await expect(floor.getByText('What is it on?')).toBeVisible();
  await scan(floor, '9521077990090');
  await expect(band(floor, 'accepted')).toContainText('Smoker, large');
});
