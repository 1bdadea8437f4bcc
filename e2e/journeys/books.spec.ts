import { expect, type Page, test } from '@playwright/test';
import { closesItsPages, desktop } from '../world.js';

closesItsPages();
test.describe.configure({ mode: 'serial' });

let books: Page;
let invoice = '';

test.beforeAll(async ({ browser }) => {
  books = await desktop(browser, 'beth');
});
test.afterAll(() => books.context().close());

test('two deliveries of one customer go on one invoice, looked at before it is posted', async () => {
  await books.goto('/books');
  const rows = books.getByRole('row', { name: /S-\d+/ });
  await expect(rows.first()).toBeVisible();
  await books.getByRole('button', { name: /One invoice for all 2/ }).click();
  await expect(books.getByRole('heading', { name: 'Thornlea Garden Centre' })).toBeVisible();
  await expect(books.getByRole('row', { name: /Book: A hive for the school/ })).toContainText('6');
  await books.getByLabel('Freight', { exact: true }).fill('4,95');
  await books.getByLabel('Tax on freight').selectOption({ index: 1 });
  await books.getByRole('button', { name: /^Post the invoice over/ }).click();
  await expect(books).toHaveURL(/\/books\/invoices\/I-\d+$/);
  invoice = /I-\d+$/.exec(books.url())?.[0] ?? '';
  await expect(books.getByText('trade debtors to sales').first()).toBeVisible();
  await books.goto('/books');
  await expect(books.getByRole('row', { name: /Thornlea/ })).toHaveCount(0);
});

test('what was delivered in part says so first', async () => {
  await books
    .getByRole('row', { name: /Wick Hill/ })
    .getByRole('link', { name: 'Look at it' })
    .click();
  await expect(books.getByText('2 still to come')).toBeVisible();
  await expect(books.getByRole('button', { name: /^Post the invoice over/ })).toBeEnabled();
});

test('it is sent by mail, credited in part, and paid by what the payer wrote', async () => {
  await books.goto(`/books/invoices/${invoice}`);
  await books.getByRole('button', { name: 'Send it by mail' }).click();
  await expect(books.getByRole('button', { name: 'Send it again' })).toBeVisible();
  await books.getByRole('button', { name: 'Credit some of it' }).click();
  await books.getByLabel('Credit of line 1').fill('2');
  await books.getByLabel('Why it is credited').fill('Came wet');
  await books.getByRole('button', { name: 'Post the credit note' }).click();
  await expect(books).toHaveURL(/\/books\/invoices\/C-\d+$/);
  await expect(books.getByText('Came wet')).toBeVisible();
  await books.goto('/books/payments');
  await books.getByLabel('Amount').fill('20');
  await books.getByLabel('The payer wrote').fill(`Thornlea, ${invoice}`);
  await books.getByRole('button', { name: 'Note it' }).click();
  await expect(books.getByRole('status').filter({ hasText: `For ${invoice}` })).toBeVisible();
  await books.goto('/books/invoices?show=overdue');
  await expect(books.getByRole('row', { name: /Moorfoot/ })).toBeVisible();
  await expect(books.getByText('of it overdue')).toBeVisible();
});

test('the journal goes out once; the second time there is nothing', async () => {
  await books.goto('/books/accounts');
  await expect(books.getByText('and that is what stands on its account')).toBeVisible();
  await books.goto('/books/journal');
  const stray = books.getByText(/Say first which accounts of yours these are/);
  await expect(books.getByText(/\d+ entries over/)).toBeVisible();
  if (await stray.isVisible()) {
    await books.getByRole('link', { name: 'Name them' }).click();
    await expect(books.getByText('and that is what stands on its account')).toBeVisible();
    for (const empty of await books.getByLabel(/^Your number for/).all()) if ((await empty.inputValue()) === '') await empty.fill('9999');
    // Whoever goes on by the address has waited until they are kept.
    const answered = books.waitForResponse((r) => r.request().method() === 'PUT' && r.url().includes('account'));
    await books.getByRole('button', { name: 'Keep your accounts' }).click();
    expect((await answered).ok()).toBe(true);
    await books.goto('/books/journal');
  }
  await books.getByRole('button', { name: 'Export them' }).click();
  await expect(books.getByText('Nothing that did not go out before')).toBeVisible();
  await expect(books.getByRole('button', { name: 'Export them' })).toBeDisabled();
  const file = books.waitForEvent('download');
  await books.getByRole('link', { name: 'CSV' }).first().click();
  expect((await file).suggestedFilename()).toContain('journal');
});

test('the month is closed: no payment is dated in it until it is opened again', async () => {
  await books.goto('/books/accounts');
  await expect(books.getByRole('heading', { name: 'No period is closed' })).toBeVisible();
  await books.getByRole('button', { name: 'Close it' }).click();
  await expect(books.getByRole('heading', { name: /^Closed to the end of/ })).toBeVisible();
  await books.goto('/books/payments');
  await books.getByLabel('Amount').fill('5');
  await books.getByLabel('The payer wrote').fill('Late');
  await books.getByLabel('Paid on').fill('2020-01-31');
  await books.getByRole('button', { name: 'Note it' }).click();
  await expect(books.getByText(/The books are closed to the end of .*Choose a later day/)).toBeVisible();
  await books.goto('/books/accounts');
  await books.getByLabel('Why it is opened again').fill('The auditor asks');
  await books.getByRole('button', { name: 'Open the last again' }).click();
  await expect(books.getByRole('heading', { name: 'No period is closed' })).toBeVisible();
  await expect(books.getByText(/The auditor asks/).first()).toBeVisible();
});
