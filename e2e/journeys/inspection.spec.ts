import { expect, type Page, test } from '@playwright/test';
import { band, closesItsPages, desktop, phone, scan, signIn } from '../world.js';

closesItsPages();

let owner: Page;
let floor: Page;

test.beforeAll(async ({ browser }) => {
  owner = await desktop(browser, 'maren');
  const context = await phone(browser);
  await signIn(context, 'ruben');
  floor = await context.newPage();
});

test('a rule holds what comes in, and the phone says so at the dock', async () => {
  await owner.goto('/inbound/inspection/rules');
  await owner.getByRole('button', { name: 'Add a rule' }).click();
  await owner.getByLabel('Item, or all').fill('tool-std');
  await owner.getByRole('combobox', { name: 'From', exact: true }).selectOption('BRINDLEMOOR');
  await owner.getByRole('combobox', { name: 'How often' }).selectOption('every');
  await owner.getByLabel('Number').fill('4');
  await owner.getByRole('button', { name: 'Keep this rule' }).click();
  await expect(owner.getByRole('row', { name: /Hive tool, standard/ })).toContainText('every 4th delivery');
  await owner.getByRole('button', { name: 'Add a rule' }).click();
  await owner.getByLabel('Item, or all').fill('TOOL-STD');
  await owner.getByRole('combobox', { name: 'From', exact: true }).selectOption('BRINDLEMOOR');
  await owner.getByRole('button', { name: 'Keep this rule' }).click();
  await expect(owner.getByText('There is a rule for these already. Change that one').first()).toBeVisible();
  await owner.goto('/inbound/suppliers/BRINDLEMOOR');
  await expect(owner.getByText(/every 4th delivery of Hive tool, standard/)).toBeVisible();

  const body = { supplier: 'BRINDLEMOOR', siteId: 1, note: '', lines: [{ sku: 'TOOL-STD', factor: 20, packs: 2, price: '52.00' }] };
  const keyed = () => ({ 'idempotency-key': crypto.randomUUID() });
  const made = await owner.request.post('/api/purchase-orders', { data: body, headers: keyed() });
  const { code } = (await made.json()) as { code: string };
  await owner.request.post(`/api/purchase-orders/${code}/place`, { data: {}, headers: { ...keyed(), 'if-match': '"1"' } });
  await floor.goto('/floor');
  await expect(floor.getByText('Scan a paper, or choose')).toBeVisible();
  await scan(floor, code);
  await expect(floor.getByText('Scan the goods')).toBeVisible();
  await scan(floor, 'TOOL-STD');
  for (const digit of '40') await floor.getByRole('button', { name: digit, exact: true }).tap();
  await scan(floor, 'VX-CONFIRM');
  await expect(band(floor, 'accepted')).toContainText('to INSPECT-1 to be looked at: the first delivery');
});

test('goods pass by two scans, and can then be put away', async () => {
  await floor.goto('/floor/inspect');
  // What was received a moment ago is on its way to the server.
  await expect(floor.getByRole('button', { name: /Hive tool, standard/ })).toBeVisible();
  await scan(floor, 'TOOL-STD');
  await expect(band(floor, 'accepted')).toContainText('the first delivery');
  await scan(floor, 'VX-CONFIRM');
  await expect(band(floor, 'accepted')).toContainText('2 boxes passed');
  await expect(async () => {
    await floor.goto('/floor/store');
    await expect(floor.getByRole('button', { name: /Hive tool, standard.*INSPECT-1/ })).toBeVisible({ timeout: 1_000 });
  }).toPass();
});

test('a checklist is answered with one thumb; what fails is set aside in part', async () => {
  await floor.goto('/floor/inspect');
  await expect(floor.getByText('Scan what you look at')).toBeVisible();
  await scan(floor, 'FDR-RAP');
  await expect(floor.getByRole('button', { name: '3 checks to answer' })).toBeDisabled();
  await scan(floor, 'VX-CONFIRM');
  await expect(band(floor, 'not-this')).toContainText('3 of 3 checks open');
  await floor.getByRole('button', { name: 'Lid closes all round: yes' }).tap();
  await floor.getByRole('button', { name: 'No cracks when pressed: no' }).tap();
  await expect(band(floor, 'not-this')).toContainText('Not fulfilled');
  await floor.getByLabel('Width across').fill('330.5');
  await floor.getByLabel('Width across').blur();
  await scan(floor, 'VX-CONFIRM');
  await expect(band(floor, 'not-this')).toContainText('A check was not fulfilled');
  await floor.getByRole('button', { name: 'Pass all the same' }).tap();
  await expect(floor.getByRole('button', { name: 'Say why first' })).toBeDisabled();
  await floor.getByRole('button', { name: 'Back' }).tap();
  await floor.getByRole('button', { name: 'Fewer' }).tap();
  await floor.getByRole('button', { name: '1', exact: true }).tap();
  await floor.getByRole('button', { name: 'Reject 1 box' }).tap();
  await floor.getByRole('button', { name: 'No cracks when pressed: no' }).tap();
  await floor.getByRole('button', { name: 'Set aside in quarantine' }).tap();
  await expect(band(floor, 'accepted')).toContainText('1 box set aside');
  await floor.getByRole('button', { name: 'No cracks when pressed: yes' }).tap();
  await floor.getByRole('button', { name: 'Pass 5 boxes' }).tap();
  await expect(band(floor, 'accepted')).toContainText('5 boxes passed');
});

test('the office sees what was found, and takes the rejected into stock after all', async () => {
  await owner.goto('/inbound/inspection');
  // The phone says what it passed before the server has it: until then it stands among those that wait.
  await owner.getByRole('region', { name: 'Rejected, in whole or part' }).getByRole('link', { name: 'Rapid feeder' }).click();
  const verdicts = owner.getByRole('table', { name: 'Verdicts' });
  await expect(verdicts.getByRole('row', { name: /set aside/ })).toContainText('No cracks when pressed: no');
  await expect(verdicts.getByRole('row', { name: /passed/ })).toContainText('5 boxes');
  await owner.goto('/inbound/returns/new');
  const row = owner.getByRole('row', { name: /Rapid feeder/ });
  await expect(row).toContainText('No cracks when pressed: no');
  await owner.getByLabel(/are good after all/).fill('Looked again: a scratch');
  await row.getByRole('button', { name: 'into stock' }).click();
  await expect(row).toHaveCount(0);
});
