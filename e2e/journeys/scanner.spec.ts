import { type BrowserContext, expect, type Page, test } from '@playwright/test';
import { band, closesItsPages, phone, scan, scanKeys, signIn } from '../world.js';

closesItsPages();

let context: BrowserContext;
let floor: Page;

test.describe.configure({ mode: 'serial' });
test.beforeAll(async ({ browser }) => {
  context = await phone(browser);
  await signIn(context, 'ruben');
  floor = await context.newPage();
});
test.afterAll(() => context.close());

/** Syrup by lot and date, as its box says it, with the keys of one scanner for the separator. */
const syrup = (separator: string[]) => [...'0109521077000485', ...'10LM2618', ...separator, ...'17271031', 'Enter'];

test('a code whose separator was lost is refused, and nothing of it is guessed', async () => {
  await floor.goto('/floor/receive');
  await floor.getByRole('link', { name: /Oulden Syrup Mill/ }).tap();
  await expect(floor.getByText('Scan the goods')).toBeVisible();
  await scanKeys(floor, syrup([]));
  await expect(band(floor, 'unknown')).toContainText('A separator seems to be missing');
  await expect(floor.getByLabel('Lot')).toHaveCount(0);
});

test('the test card shows what the scanner sends, and the device learns it', async () => {
  await floor.goto('/floor');
  await floor.getByRole('link', { name: /Try the scanner/ }).tap();
  await expect(floor.getByText('Scan the test card')).toBeVisible();
  await scanKeys(floor, [...'0109521234543213', ...'10aZ-7y', 'F9', ...'17291231', 'Enter']);
  await expect(floor.getByRole('list', { name: 'What the scanner sent' })).toContainText('It sends F9 for the separator');
  await expect(floor.getByText('This device knows its scanner')).toBeVisible();
});

test('lot and date come apart by the key that was learned, and by those that are usual', async () => {
  await floor.goto('/floor/receive');
  await floor.getByRole('link', { name: /Oulden Syrup Mill/ }).tap();
  for (const key of ['F9', 'Ctrl+]', 'F8']) {
    await expect(floor.getByText('Scan the goods')).toBeVisible();
    await scanKeys(floor, syrup([key]));
    await expect(floor.getByLabel('Lot')).toHaveValue('LM2618');
    await expect(floor.getByLabel('Best before')).toHaveValue('2027-10-31');
    await floor.getByRole('button', { name: 'Back' }).tap();
  }
});

test('a lot is scanned into its field, whole', async () => {
  await expect(floor.getByText('Scan the goods')).toBeVisible();
  await scan(floor, 'SYR-05');
  await floor.getByLabel('Lot').fill('WRONG');
  await scan(floor, 'LM-2619');
  await expect(floor.getByLabel('Lot')).toHaveValue('LM-2619');
});
