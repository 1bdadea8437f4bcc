import { expect, type Page, test } from '@playwright/test';
import {
  band,
  BASE_URL,
  closesItsPages,
  desktop,
  does,
  goesWrong,
  keyOrder,
  outside,
  phone,
  picked,
  scan,
  sentToPicking,
  signIn,
} from '../world.js';

closesItsPages();

let owner: Page;
let dock: Page;

/** Two jars in a parcel with its label, in the freight lane or in that of the post. */
async function parcelFor(tote: string, carrier: string, code: string): Promise<string> {
  const order = await keyOrder(owner, [{ sku: 'JAR-454-RD', quantity: 2, price: '1.00' }]);
  await picked(owner, await sentToPicking(owner, order), tote);
  await does(owner, { kind: 'pack', order, parcel: 1, line: 1, units: 2, how: 'scanned' });
  await does(owner, {
    kind: 'close-parcel',
    order,
    parcel: 1,
    carton: 'B2',
    weightG: 670,
    service: { carrier, code },
    weightSeen: true,
  });
  await expect(async () => expect((await outside(owner)).parcels.some((p) => p.parcel === `${order}-1`)).toBe(true)).toPass({
    timeout: 20_000,
  });
  return `${order}-1`;
}

test('a van is loaded by scan: the wrong lane is refused, the driver signs, and one parcel misses it', async ({ browser }) => {
  owner = await desktop(browser, 'maren');
  const context = await phone(browser);
  await signIn(context, 'dilys');
  dock = await context.newPage();
  const [one, two] = [await parcelFor('T-09', 'NORTHWAY', 'pallet-day'), await parcelFor('T-09', 'NORTHWAY', 'pallet-day')];
  const post = await parcelFor('T-09', 'HARRIER', 'parcel-48');

  await dock.goto('/floor');
  await dock.getByRole('link', { name: /^Load/ }).click();
  await expect(dock.getByRole('heading', { name: 'Which van?' })).toBeVisible();
  await expect(dock.getByRole('link', { name: /Northway Freight/ })).toBeVisible();
  await scan(dock, one);
  await expect(dock.getByRole('heading', { name: 'Scan a parcel' })).toBeVisible();
  await expect(dock.getByText(two)).toBeVisible();

  await scan(dock, post);
  await expect(band(dock, 'not-this')).toContainText('It goes with Harrier Post: lane LANE-HARRIER');
  await scan(dock, one);
  await expect(band(dock, 'accepted')).toContainText(one);
  await scan(dock, one);
  await expect(band(dock, 'too-many')).toContainText('It is on the van already');
  // The office sees the rail fill.
  await owner.goto('/dispatch');
  await expect(owner.getByRole('region', { name: 'Northway Freight' }).getByLabel(`${one}, on the van`)).toBeVisible();

  await dock.getByRole('button', { name: 'Hand over' }).click();
  await expect(dock.getByRole('heading', { name: '1 parcel goes with the driver' })).toBeVisible();
  await expect(dock.getByText(/stays? behind/)).toBeVisible();
  await dock.getByLabel('Driver’s name').pressSequentially('Odo Fenn', { delay: 60 });
  const pen = (await dock.getByRole('img', { name: 'Sign here' }).boundingBox())!;
  await dock.mouse.move(pen.x + 30, pen.y + 60);
  await dock.mouse.down();
  for (let i = 1; i < 12; i++) await dock.mouse.move(pen.x + 30 + i * 20, pen.y + 60 + (i % 2) * 30);
  await dock.mouse.up();
  await dock.getByRole('button', { name: 'Sign and hand over' }).click();
  await expect(band(dock, 'accepted')).toContainText('1 parcel handed over');

  await expect(owner.getByRole('region', { name: 'Handed over' }).getByRole('row', { name: /Northway Freight.*Odo Fenn/ })).toBeVisible();
  await expect(owner.getByRole('link', { name: two })).toBeVisible();
  await expect(owner.getByRole('link', { name: one })).toHaveCount(0);
  await scan(dock, one);
  await expect(band(dock, 'unknown').or(band(dock, 'not-this'))).toBeVisible();
});

test('a carrier says that a parcel is lost; the order desk claims it, and it is paid', async ({ browser }) => {
  owner = await desktop(browser, 'maren');
  const parcel = await parcelFor('T-09', 'NORTHWAY', 'pallet-day');
  await owner.goto('/dispatch');
  await owner.getByLabel(`${parcel} goes with the van`).check();
  const handed = owner.waitForResponse((r) => r.url().endsWith('/hand-overs') && r.request().method() === 'POST');
  await owner.getByRole('button', { name: /Hand \d+ (loaded )?parcels? to Northway Freight/ }).click();
  expect((await handed).status()).toBe(200);
  const tracking = (await outside(owner)).parcels.find((p) => p.parcel === parcel)!.tracking;
  await goesWrong(owner, tracking, 'lost');

  await owner.goto('/orders/claims');
  await owner.getByRole('row', { name: new RegExp(parcel) }).click();
  await expect(owner.getByRole('heading', { name: `${parcel} is lost` })).toBeVisible();
  await expect(owner.getByText('Not found at the depot').first()).toBeVisible();
  await owner.getByLabel('Amount').fill('24.50');
  await owner.getByRole('button', { name: 'Claim it from Northway Freight' }).click();
  await owner.getByLabel('Amount').fill('20.00');
  await owner.getByRole('button', { name: 'It was paid' }).click();
  await expect(owner.getByText('paid', { exact: true })).toBeVisible();
  await owner.goto('/orders/claims');
  await expect(owner.getByRole('row', { name: new RegExp(parcel) })).toHaveCount(0);
  await owner.goto(`/orders/${parcel.slice(0, -2)}`);
  await expect(owner.getByText(/^lost, /)).toBeVisible();
  await expect(owner.getByText(/^booking BK-/)).toBeVisible();
});

test('freight goes from the bins to the lorry with one phone: packed on a pallet as it was scanned, then loaded', async ({ browser }) => {
  owner = await desktop(browser, 'maren');
  const context = await phone(browser);
  await signIn(context, 'maren');
  dock = await context.newPage();
  const trust = (value: boolean) =>
    owner.request.put(`${BASE_URL}/api/company/settings/trustTotes`, {
      data: { value: String(value) },
      headers: { 'idempotency-key': crypto.randomUUID() },
    });
  expect((await trust(true)).ok()).toBe(true);
  const order = await keyOrder(owner, [
    { sku: 'JAR-454-RD', quantity: 6, price: '1.00' },
    { sku: 'SMK-LGE', quantity: 1, price: '30.00' },
  ]);
  await picked(owner, await sentToPicking(owner, order), 'T-09');
  await dock.goto(`/floor/pack/${order}`);
  await expect(dock.getByRole('heading', { name: 'All of it in the box?' })).toBeVisible();
  await scan(dock, 'VX-ALL');
  await expect(dock.getByRole('heading', { name: 'Weigh it' })).toBeVisible();
  await scan(dock, 'VX-BOX-PALLET');
  await expect(dock.getByText('Parcel 1, box PALLET')).toBeVisible();
  await dock.getByLabel('Weight in grams').fill('27900');
  await dock.getByRole('button', { name: /Northway Freight.*next working day(?!, tail)/i }).click();
  await dock.getByRole('button', { name: 'Label', exact: true }).click();
  const odd = dock.getByRole('button', { name: 'Weight is right' });
  await expect(odd.or(dock.getByText('Label printed'))).toBeVisible();
  if (await odd.isVisible()) await odd.click();
  await expect(dock.getByText(/Label printed/)).toBeVisible();
  await dock.goto('/floor/load/1-NORTHWAY');
  await expect(dock.getByRole('heading', { name: 'Scan a parcel' })).toBeVisible();
  await scan(dock, order);
  await expect(band(dock, 'accepted')).toContainText(`${order}-1`);
  expect((await trust(false)).ok()).toBe(true);
});
