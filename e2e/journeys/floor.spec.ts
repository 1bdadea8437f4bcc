import { type BrowserContext, expect, type Page, test } from '@playwright/test';
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

test('a person sees only the tasks of their duties', async () => {
  await open('dilys', '/floor');
  await expect(floor.getByRole('link', { name: /Packing table/ })).toBeVisible();
  await expect(floor.getByRole('link', { name: /^Receive/ })).toHaveCount(0);
  await floor.goto('/floor/receive');
  await expect(floor.getByText('This needs the duty of receive')).toBeVisible();
});

test('a bookkeeper is told that nothing waits on the phone', async () => {
  await open('beth', '/floor');
  await expect(floor.getByText('None of your duties are done on the phone')).toBeVisible();
});

test('a scan with no task open says what the code is', async () => {
  await open('ruben', '/floor');
  await expect(floor.getByText('Scan a paper, or choose')).toBeVisible();
  await scan(floor, '19521077000017');
  await expect(floor.getByRole('heading', { name: 'Jar 454 g, round' })).toBeVisible();
  await expect(floor.getByText('tray of 48')).toBeVisible();
  await scan(floor, '5099999999994');
  await expect(band(floor, 'unknown')).toContainText('5099999999994');
});

test('a paper that is not there is told, with a way back', async () => {
  await open('ruben', '/floor/receive/P-9999');
  await expect(floor.getByText('Order or arrival P-9999 is not known here')).toBeVisible();
  await floor.getByRole('link', { name: /What is due/ }).tap();
  await expect(floor.getByText('Scan paper, pallet or goods')).toBeVisible();
});

test('the practice scanner does what a scanner does', async () => {
  await open('ruben', '/floor/receive');
  await floor.getByRole('link', { name: /Oulden Syrup Mill/ }).tap();
  // The list has a Practice key too: the delivery is open first.
  await expect(floor.getByText('Scan the goods')).toBeVisible();
  await floor.getByRole('button', { name: 'Practice' }).tap();
  await floor.getByRole('button', { name: /Syrup, 5 litre can, box of 4/ }).tap();
  await expect(floor.getByText('How many came?')).toBeVisible();
  await expect(floor.getByLabel('Lot')).toBeVisible();
});

test('goods kept by lot and date are booked in only with both', async () => {
  await open('ruben', '/floor/receive');
  await floor.getByRole('link', { name: /Oulden Syrup Mill/ }).tap();
  await expect(floor.getByText('Scan the goods')).toBeVisible();
  await scan(floor, 'SYR-05');
  await scan(floor, 'VX-CONFIRM');
  await expect(band(floor, 'not-this')).toContainText('Lot missing');
  await floor.getByLabel('Lot').fill('LM2617');
  await floor.getByLabel('Best before').fill('2027-10-31');
  await floor.getByRole('button', { name: /Book in 1 can to DOCK-2/ }).tap();
  await expect(band(floor, 'accepted')).toContainText('1 can');
});

test('a torn code is typed, and kept as typed', async ({ browser }) => {
  await open('ruben', '/floor/store');
  await expect(floor.getByRole('heading', { name: 'Scan the goods' })).toBeVisible();
  await floor.getByRole('button', { name: 'Type code' }).tap();
  await floor.getByLabel('Code').fill('5099999999994');
  await floor.getByRole('button', { name: 'Enter' }).tap();
  await expect(band(floor, 'unknown')).toContainText('5099999999994');
  const office = await desktop(browser, 'maren');
  await expect(async () => {
    const tape = (await (await office.request.get('/api/tape?limit=5')).json()) as { entries: { title: string; how: string }[] };
    expect(tape.entries).toContainEqual(expect.objectContaining({ title: 'Unknown code: 5099999999994', how: 'typed' }));
  }).toPass();
});

test('a person who has nothing enrolled is shown the way', async () => {
  floor = await context.newPage();
  await floor.goto('/floor/sign-in');
  await expect(floor.getByText('This device is not enrolled')).toBeVisible();
  await floor.getByRole('link', { name: 'enrol this device' }).tap();
  await floor.getByLabel('Enrolment code').fill('WRONG123');
  await floor.getByRole('button', { name: 'Enrol' }).tap();
  await expect(floor.getByRole('alert')).toContainText('spent or too old');
});

test('targets are large enough for gloves', async () => {
  await open('ines', '/floor/pick');
  await floor.locator('.f-list a').first().tap();
  await expect(floor.locator('.f-keys .f-key').first()).toBeVisible();
  const boxes = await floor
    .locator('.f-keys .f-key')
    .evaluateAll((keys) => keys.map((k) => k.getBoundingClientRect()).map((r) => ({ h: r.height, bottom: r.bottom })));
  for (const box of boxes) {
    expect(box.h).toBeGreaterThanOrEqual(64);
    expect(box.bottom).toBeLessThanOrEqual(844);
  }
  const small = await floor.evaluate(
    () =>
      [...document.querySelectorAll('.floor *')].filter(
        (e) =>
          e.childNodes.length > 0 &&
          [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent?.trim()) &&
          parseFloat(getComputedStyle(e).fontSize) < 15,
      ).length,
  );
  expect(small).toBe(0);
});

test('nothing scrolls sideways, at either size', async ({ browser }) => {
  await open('ruben', '/floor/receive/P-1180');
  await expect(floor.getByText('Scan the goods')).toBeVisible();
  expect(await floor.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  const office = await desktop(browser, 'maren');
  for (const path of ['/', '/inbound/P-1180', '/orders', '/shelves/items/JAR-454-RD', '/dispatch', '/setup/channels/SHOP']) {
    await office.goto(path);
    await office.waitForTimeout(600);
    expect(await office.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1280);
  }
});
