import { type BrowserContext, expect, type Page, test } from '@playwright/test';
import { api, BASE_URL, closesItsPages, desktop, outside, phone, scan, signIn } from '../world.js';

closesItsPages();

const OLD = 'thistle-and-tarn';
const NEW = 'a quieter password';

let maren: Page;
let door: Page;
let link = '';
test.describe.configure({ mode: 'serial' });
test.beforeAll(async ({ browser }) => {
  maren = await desktop(browser, 'maren');
  const context = await browser.newContext({ baseURL: BASE_URL, viewport: { width: 1280, height: 800 } });
  door = await context.newPage();
});

const signInAs = async (password: string) => {
  await door.goto('/sign-in');
  await door.getByLabel('E-mail').fill('beth@tarnthistle.example');
  await door.getByLabel('Password').fill(password);
  await door.keyboard.press('Enter');
};

test('a forgotten password is asked for at the door, and its link comes by mail', async () => {
  await door.goto('/sign-in');
  await door.getByRole('link', { name: /Forgotten|link/ }).click();
  await door.getByLabel('Your e-mail').fill('nobody@tarnthistle.example');
  await door.getByRole('button', { name: 'Mail me a link' }).click();
  await expect(door.getByRole('status')).toContainText('If nobody@tarnthistle.example belongs to somebody here');
  await door.goto('/forgotten');
  await door.getByLabel('Your e-mail').fill('Beth@tarnthistle.example');
  await door.getByRole('button', { name: 'Mail me a link' }).click();
  await expect(door.getByRole('status')).toContainText('a link is on its way');
  await expect(async () => {
    const { mails } = await outside(maren);
    expect(mails.filter((m) => m.to.includes('nobody@'))).toHaveLength(0);
    const text = mails.filter((m) => m.to.includes('beth@')).map((m) => (m as unknown as { text: string }).text);
    link = /\/welcome#[\w-]+/.exec((text.at(-1) ?? '').replace(/=\r?\n/g, ''))?.[0] ?? '';
    expect(link).not.toBe('');
  }).toPass({ timeout: 40_000 });
});

test('the link lets a new password be chosen once; the old one is no good any more', async () => {
  await door.goto(link);
  await expect(door.getByRole('heading', { name: 'A new password' })).toBeVisible();
  await door.getByLabel(/^Password/).fill('short');
  await expect(door.getByRole('button', { name: 'Keep the password' })).toBeDisabled();
  await door.getByLabel(/^Password/).fill(NEW);
  await door.getByRole('button', { name: 'Keep the password' }).click();
  await expect(door.getByRole('heading', { name: 'Your password is set' })).toBeVisible();
  await signInAs(OLD);
  await expect(door.getByRole('alert')).toContainText('do not match');
  await door.getByLabel('Password').fill(NEW);
  await door.keyboard.press('Enter');
  await expect(door.getByLabel('Find anything')).toBeVisible();
});

test('a link that is spent says so', async ({ browser }) => {
  const other = await (await browser.newContext({ baseURL: BASE_URL })).newPage();
  await other.goto(link);
  await expect(other.getByRole('alert')).toBeVisible();
  await expect(other.getByLabel(/^Password/)).toHaveCount(0);
});

test('one’s own password is changed by whoever knows it', async () => {
  await door.goto('/own');
  await door.getByLabel('Password now').fill('not this one');
  await door.getByLabel(/^New password/).fill(OLD);
  await door.getByRole('button', { name: 'Change' }).click();
  await expect(door.getByText('This is not your password now').first()).toBeVisible();
  await door.getByLabel('Password now').fill(NEW);
  await door.getByRole('button', { name: 'Change' }).click();
  await expect(door.getByText('Changed.')).toBeVisible();
});

test('somebody is signed out everywhere by whoever sets up people', async () => {
  const { id } = (await api<{ id: number; email: string }[]>(maren, 'people')).find((p) => p.email.startsWith('beth'))!;
  await maren.goto(`/setup/people/${id}`);
  await expect(maren.getByRole('heading', { name: 'Beth Quarrie' })).toBeVisible();
  await maren.getByRole('button', { name: /Sign .*out/ }).click();
  await expect(async () => {
    await door.goto('/orders');
    await expect(door).toHaveURL(/sign-in/, { timeout: 1_000 });
  }).toPass({ timeout: 40_000 });
  await signInAs(OLD);
  await expect(door.getByLabel('Find anything')).toBeVisible();
});

test('a spreadsheet given out as XLSX goes in again and changes nothing', async () => {
  const file = await (await maren.request.get('/api/exports/data/suppliers.xlsx')).body();
  await maren.goto('/setup/imports');
  await maren
    .getByLabel('Files to take in')
    .setInputFiles({ name: 'our suppliers.xlsx', mimeType: 'application/octet-stream', buffer: file });
  await maren.getByRole('button', { name: /^Check \d+ rows$/ }).click();
  await maren.getByRole('button', { name: /^Take in/ }).click();
  await expect(maren.getByRole('region', { name: 'Imports' }).getByText('0 made, 0 changed').first()).toBeVisible();
});

test('a long list scrolls to its end and back without an empty row', async () => {
  await maren.goto('/shelves/items?sort=sku');
  await expect(maren.locator('[data-cell="0/0"]')).toBeVisible();
  await maren.locator('[data-cell="0/0"]').focus();
  await maren.keyboard.press('End');
  const { total } = await api<{ total: number }>(maren, 'items?from=0&limit=1');
  await expect(maren.locator(`[data-cell="${total - 1}/0"]`)).toBeFocused();
  await expect(maren.locator('tbody .skel')).toHaveCount(0);
  await maren.keyboard.press('Home');
  await expect(maren.locator('[data-cell="0/0"]')).toBeFocused();
  await expect(maren.locator('tbody .skel')).toHaveCount(0);
});

test.describe('on the phone', () => {
  let context: BrowserContext;
  let floor: Page;
  test.beforeAll(async ({ browser }) => {
    context = await phone(browser);
    await signIn(context, 'ruben');
    floor = await context.newPage();
  });

  test('whatever is scanned is told, and its label printed with one thumb', async () => {
    await floor.goto('/floor/look');
    await expect(floor.getByRole('heading', { name: 'Scan anything' })).toBeVisible();
    await scan(floor, 'JAR-227-RD');
    await expect(floor.getByRole('heading', { name: /Jar 227/ })).toBeVisible();
    const before = (await outside(maren)).papers.length;
    await floor.getByRole('button', { name: 'Print a label' }).tap();
    await expect(floor.getByText(/^Sent to /)).toBeVisible();
    await expect(async () => expect((await outside(maren)).papers.length).toBeGreaterThan(before)).toPass({ timeout: 40_000 });
    await scan(floor, 'C-07-2');
    await expect(floor.getByRole('heading', { name: 'C-07-2' })).toBeVisible();
    await expect(floor.getByRole('button', { name: 'Print a label' })).toBeVisible();
  });

  test('a bin leads to the goods in it, and the goods to their bins', async () => {
    const { sku, place } = await lying();
    await scan(floor, place);
    await floor.getByRole('link', { name: new RegExp(sku) }).tap();
    await expect(floor.getByText(sku, { exact: true }).first()).toBeVisible();
    await floor.getByRole('link', { name: new RegExp(place) }).tap();
    await expect(floor.getByRole('heading', { name: place })).toBeVisible();
  });
});

/** Some goods, and a bin that they lie in. */
async function lying(): Promise<{ sku: string; place: string }> {
  const { bins } = await api<{ bins: { place: string; siteId: number }[] }>(maren, 'items/JAR-454-RD/stock');
  return { sku: 'JAR-454-RD', place: bins[0]!.place };
}

test('other duties wait until the person agrees; what goes beyond one’s own is refused by its field', async ({ browser }) => {
  await maren.goto('/setup/people');
  await maren.getByRole('row', { name: /Corin Vail/ }).click();
  await maren.getByRole('checkbox', { name: 'set up' }).check();
  await maren.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(maren.locator('.waybill')).toContainText('set up');

  const corin = await desktop(browser, 'corin');
  await corin.goto('/setup/people');
  await corin.getByRole('row', { name: /Ines Calder/ }).click();
  await corin.getByRole('checkbox', { name: 'buyer' }).check();
  await corin.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(corin.getByRole('alert')).toContainText('the right to buy, which you have not');
  await corin.getByRole('checkbox', { name: 'buyer' }).uncheck();
  await corin.getByRole('checkbox', { name: 'counter' }).check();
  await corin.getByRole('button', { name: 'Keep', exact: true }).click();
  const waits = corin.getByRole('region', { name: 'A change that waits' });
  await expect(waits).toContainText('Corin Vail asks: their duties should be picker, counter');
  await expect(waits.getByRole('button')).toHaveText(['Take it back']);
  await corin.goto('/setup/people/duties');
  await expect(corin.getByLabel('picker: Pick', { exact: true })).toBeDisabled();

  const ines = await desktop(browser, 'ines');
  await ines.goto('/own');
  const asked = ines.getByRole('region', { name: 'A change that waits' });
  await expect(asked).toContainText('your duties should be picker, counter');
  await asked.getByRole('button', { name: 'Agree' }).click();
  await expect(asked).toHaveCount(0);
  await expect(corin.getByRole('alert')).toHaveCount(0);
  await corin.goto('/setup/people');
  await expect(corin.getByRole('row', { name: /Ines Calder/ })).toContainText('picker, counter');
});
