import { expect, type Page, test } from '@playwright/test';
import { api, closesItsPages, desktop } from '../world.js';

closesItsPages();

let maren: Page;
test.describe.configure({ mode: 'serial' });
test.beforeAll(async ({ browser }) => {
  maren = await desktop(browser, 'maren');
});

const cell = (row: number, column: number) => maren.locator(`[data-cell="${row}/${column}"]`);

test('the list is narrowed, sorted and kept as a view of one’s own, in the address', async () => {
  await maren.goto('/shelves/items');
  await expect(maren.getByRole('gridcell', { name: 'Book: A hive for the school' })).toBeVisible();
  await maren.getByLabel('Every class').selectOption('Clothing');
  await maren.getByRole('button', { name: 'Available' }).click();
  await expect(maren).toHaveURL(/className=Clothing&sort=available/);
  await expect(maren.getByRole('gridcell', { name: 'Bee suit, XL' })).toBeVisible();
  await maren.getByRole('button', { name: 'Keep this view' }).click();
  await maren.getByLabel('Name of this view').fill('Clothes running out');
  await maren.getByLabel('Name of this view').press('Enter');
  await maren.goto('/shelves/items');
  await maren.getByRole('link', { name: 'Clothes running out' }).click();
  await expect(maren).toHaveURL(/className=Clothing/);
});

test('columns are chosen and ordered, and stay so', async () => {
  await maren.goto('/shelves/items');
  await maren.getByRole('button', { name: 'Columns' }).click();
  await maren.getByRole('checkbox', { name: 'Tags' }).check();
  await maren.getByRole('checkbox', { name: 'Lacks' }).uncheck();
  await maren.getByRole('button', { name: 'SKU further left' }).click();
  await maren.keyboard.press('Escape');
  await maren.reload();
  await expect(maren.locator('thead th').first()).toHaveText('SKU');
  await expect(maren.locator('thead')).toContainText('Tags');
  await expect(maren.locator('thead')).not.toContainText('Lacks');
});

test('cells are changed with the keyboard alone, and the tape takes it back', async () => {
  await maren.goto('/shelves/items?className=Books&sort=sku');
  await expect(cell(0, 0)).toContainText('BOK-KIDS');
  await cell(0, 0).focus();
  await maren.keyboard.press('ArrowRight');
  await expect(cell(0, 1)).toBeFocused();
  await maren.keyboard.press('F2');
  await maren.keyboard.type('A hive for any school', { delay: 70 });
  await maren.keyboard.press('Enter');
  await expect(cell(0, 1)).toHaveText('A hive for any school');
  await expect(cell(1, 1)).toBeFocused();
  await maren.keyboard.press('F2');
  await maren.keyboard.type('nonsense', { delay: 70 });
  await maren.keyboard.press('Escape');
  await expect(cell(1, 1)).toHaveText('Apiary log, three years');
  await expect(maren.locator('.tapeline')).toContainText('BOK-KIDS: name A hive for any school');
  // A key that follows another at once would be taken for a scanner's.
  await maren.waitForTimeout(150);
  await maren.keyboard.press('u');
  await expect(cell(0, 1)).toHaveText('Book: A hive for the school');
});

test('many items are changed at once with Space, Shift and one act', async () => {
  await maren.goto('/shelves/items?className=Books&sort=sku');
  await expect(cell(2, 0)).toBeVisible();
  await cell(0, 0).focus();
  await maren.keyboard.press(' ');
  await maren.keyboard.press('ArrowDown');
  await maren.keyboard.press('ArrowDown');
  await maren.keyboard.press('Shift+ ');
  const bar = maren.getByRole('form', { name: 'Change the chosen items' });
  await expect(bar).toContainText('3 items chosen');
  await bar.getByLabel('What to change').selectOption('addTag');
  await bar.getByLabel('To what').fill('Winter reading');
  await bar.getByRole('button', { name: 'Change all 3' }).click();
  await expect(maren.getByRole('gridcell', { name: 'winter reading' })).toHaveCount(3);
  const [file] = await Promise.all([maren.waitForEvent('download'), maren.getByRole('link', { name: 'CSV' }).click()]);
  expect(file.suggestedFilename()).toBe('items.csv');
});

test('every figure of a sheet opens to its sum', async () => {
  await maren.goto('/shelves/items/JAR-454-RD');
  await maren.getByTitle('Why: projected at Millrace').click();
  await expect(maren.locator('.sum')).toContainText('On order');
  await expect(maren.locator('.sum .tot')).toContainText('Projected');
  await maren.getByRole('link', { name: 'Movements' }).click();
  await expect(maren.getByRole('link', { name: 'CSV' })).toBeVisible();
});

test('a kit that would hold itself is refused, with the way round', async () => {
  await maren.goto('/shelves/items/HIV-CRN/edit');
  await maren.getByLabel('Kind').selectOption('kit');
  await maren.getByRole('button', { name: 'Another part' }).click();
  await maren.getByLabel('Part 1', { exact: true }).fill('NUC-STD');
  await maren.getByRole('button', { name: 'Keep the item' }).click();
  await expect(maren.getByRole('alert')).toContainText('HIV-CRN holds NUC-STD holds HIV-CRN');
});

test('the plan is dragged into shape, and the walk tells its metres', async () => {
  await maren.goto('/shelves/plan');
  await maren.getByRole('button', { name: 'Change the plan' }).click();
  const before = (await maren.locator('.waybill').first().innerText()).match(/([\d,]+) m/)![1];
  await maren.getByLabel('Chosen').selectOption({ label: 'aisle P' });
  await maren.getByLabel('From x, m').fill('52');
  await maren.getByLabel('To x').fill('52');
  await expect(maren.locator('.waybill').first()).toContainText(/m (saved|more)/);
  const canvas = maren.locator('.plan-box canvas');
  const box = (await canvas.boundingBox())!;
  // Aisle H: dragged by hand, two metres to the right.
  const plan = await api<{ widthM: number; depthM: number; version: number; shapes: { label: string; x: number }[] }>(maren, 'plans/1');
  const scale = Math.min((box.width - 36) / plan.widthM, (box.height - 36) / plan.depthM);
  const h = plan.shapes.find((s) => s.label === 'H')!;
  await maren.mouse.move(box.x + 18 + h.x * scale, box.y + 18 + 7 * scale);
  await maren.mouse.down();
  await maren.mouse.move(box.x + 18 + (h.x + 2) * scale, box.y + 18 + 7 * scale, { steps: 6 });
  await maren.mouse.up();
  await maren.getByRole('button', { name: 'Keep the plan' }).click();
  await expect(maren.getByRole('button', { name: 'Change the plan' })).toBeVisible();
  const after = await api<{ version: number; shapes: { label: string; x: number }[] }>(maren, 'plans/1');
  expect(after.version).toBe(plan.version + 1);
  expect(after.shapes.find((s) => s.label === 'P')!.x).toBe(52);
  expect(after.shapes.find((s) => s.label === 'H')!.x).toBeCloseTo(h.x + 2, 0);
  expect(before).toBeTruthy();
  await expect(api<{ x: number }>(maren, 'places/P-01-1')).resolves.toMatchObject({ x: 52 });
});

test('a label is designed, snapped into place, and printed through the tray', async () => {
  await maren.goto('/setup/labels/new');
  await maren.getByLabel('Name of the design').fill('Small shelf label');
  await maren.getByLabel('A label of').selectOption('place');
  await maren.getByRole('button', { name: 'Barcode' }).click();
  await maren.getByRole('button', { name: 'Text' }).click();
  await maren.getByLabel('X, mm').fill('-3');
  await expect(maren.getByText('stands over the edge of the label')).toBeVisible();
  await maren.getByLabel('X, mm').fill('3');
  await maren.getByLabel('Y', { exact: true }).fill('1');
  await expect(maren.locator('canvas[data-drawn]')).toBeVisible();
  await maren.getByRole('button', { name: 'Keep the design' }).click();
  await maren.getByRole('link', { name: 'Small shelf label' }).click();
  await expect(maren.getByLabel('Name of the design')).toHaveValue('Small shelf label');
  await maren.goto('/setup/labels/print?subject=place&codes=C-07-2,C-08-2');
  await maren.getByLabel(/^Design/).selectOption({ label: 'Small shelf label' });
  await maren.getByRole('button', { name: 'Print 2 labels' }).click();
  await expect(maren.getByText('Sent to Label printer, packing tables')).toBeVisible();
  await maren.goto('/setup/printers');
  await expect(maren.getByRole('row', { name: /2 labels: C-07-2 and 1 more.*printed/ })).toBeVisible();
});

test('a choice of the company says what it changes, and changes it', async () => {
  await maren.goto('/setup/company');
  // Whoever goes on by the address has waited until it is kept.
  const kept = maren.waitForResponse((r) => r.request().method() === 'PUT' && r.url().includes('/settings/'));
  await maren.getByLabel(/^Weights and lengths/).selectOption('pounds and inches');
  expect((await kept).ok()).toBe(true);
  await maren.goto('/shelves/items/JAR-454-RD?tab=about');
  await expect(maren.getByText('0.54 lb')).toBeVisible();
  await maren.goto('/setup/company');
  await maren.getByLabel(/^Too many accepted/).fill('400');
  await maren.getByLabel(/^Too many accepted/).press('Enter');
  await expect(maren.getByText('a whole number from 0 to 100')).toBeVisible();
  await maren.getByLabel(/^Weights and lengths/).selectOption('kilograms and millimetres');
});

test('those without the duty see neither costs nor Setup’s closed parts', async ({ browser }) => {
  const orla = await desktop(browser, 'orla');
  await orla.goto('/shelves/items/JAR-454-RD');
  await expect(orla.getByRole('heading', { name: 'Jar 454 g, round' })).toBeVisible();
  await expect(orla.getByText('Cost of a jar')).toHaveCount(0);
  await orla.goto('/setup/people');
  await expect(orla.getByText('People is not among your duties')).toBeVisible();
});
