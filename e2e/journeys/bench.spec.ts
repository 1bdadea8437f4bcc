import { expect, type Page, test } from '@playwright/test';
import {
  band,
  closesItsPages,
  desktop,
  keyOrder,
  outside,
  picked,
  putOnScale,
  rightWeight,
  scan,
  sentToPicking,
  setManner,
} from '../world.js';

closesItsPages();
test.describe.configure({ mode: 'serial' });

const PRINTED = 'Label printed. Put the parcel into its lane.';
let owner: Page;
let bench: Page;
let inputs = 0;

/** Scans as a packer does, and counts. */
async function scans(...codes: string[]): Promise<void> {
  for (const code of codes) {
    await scan(bench, code);
    inputs++;
  }
}

/** An order whose goods stand at the table in a tote. */
async function atTable(lines: [string, number][], tote: string, more: object = {}): Promise<string> {
  const code = await keyOrder(
    owner,
    lines.map(([sku, quantity]) => ({ sku, quantity, price: '1.00' })),
    more,
  );
  await picked(owner, await sentToPicking(owner, code), tote);
  return code;
}

const parcelsOf = async (code: string) => (await outside(owner)).parcels.filter((p) => p.parcel.startsWith(code));

test.beforeAll(async ({ browser }) => {
  owner = await desktop(browser, 'maren');
  bench = await desktop(browser, 'dilys');
  await putOnScale(owner, 0);
});
test.beforeEach(async () => {
  inputs = 0;
  await bench.goto('/bench');
  await expect(bench.getByRole('heading', { name: 'Scan a tote or a docket' })).toBeVisible();
});

test('an order of one piece has its label after two scans; scanned as goods, after one', async () => {
  const [first, second] = [await atTable([['CAGE-QN', 1]], 'T-03'), await atTable([['MRK-PEN', 1]], 'T-04')];
  await putOnScale(owner, 12 + 90);
  await scans('T-03');
  await expect(bench.getByText('to go of 1')).toBeVisible();
  await scans('CAGE-QN');
  await expect(bench.getByText(PRINTED)).toBeVisible();
  expect([inputs, (await parcelsOf(first)).length]).toEqual([2, 1]);
  await bench.goto('/bench');
  await expect(bench.getByRole('heading', { name: 'Scan a tote or a docket' })).toBeVisible();
  await expect(bench.getByText(second)).toBeVisible();
  await scans('MRK-PEN');
  await expect(bench.getByText(PRINTED)).toBeVisible();
  expect([inputs, (await parcelsOf(second)).length]).toEqual([3, 1]);
});

test('four lines, ten pieces and a note are packed by scanner alone', async () => {
  const lines: [string, number][] = [
    ['MRK-PEN', 3],
    ['TOOL-STD', 2],
    ['UNC-FORK', 2],
    ['WAX-BLK-500', 3],
  ];
  const code = await atTable(lines, 'T-05', { notePacker: 'A gift: no prices, please' });
  await putOnScale(owner, 0);
  await scans('T-05');
  await expect(bench.getByText('to go of 10')).toBeVisible();
  await scans('VX-CONFIRM');
  for (const [sku, quantity] of lines) for (let i = 0; i < quantity; i++) await scans(sku);
  await expect(bench.getByRole('img', { name: /^Box .* by .* mm, .* % full$/ })).toBeVisible();
  await putOnScale(owner, 5 * 18 + 3000);
  await expect(bench.getByRole('img', { name: 'Weight is off' })).toBeVisible();
  await putOnScale(owner, await rightWeight(bench, code));
  await expect(bench.getByText(PRINTED)).toBeVisible();
  console.log(`four lines, ten pieces, a note: ${inputs} scans from tote to label`);
  expect(inputs).toBe(12);
});

test('three parcels, box by box; a small box is refused in words', async () => {
  const code = await atTable(
    [
      ['FDR-CON', 2],
      ['BOK-YEAR', 1],
      ['BRSH-BEE', 2],
    ],
    'T-06',
    { notePacker: 'Ring the bell' },
  );
  await putOnScale(owner, 0);
  await scans('T-06');
  await expect(bench.getByText('to go of 5')).toBeVisible();
  await scans('VX-CONFIRM', 'FDR-CON', 'VX-BOX-B1');
  await expect(bench.getByRole('button', { name: /^B1.*(does not go in|too small)/ })).toBeVisible();
  await scans('VX-BOX-B9');
  await expect(band(bench, 'not-this')).toContainText('There is no such box');
  await scans('VX-BOX-B2', 'VX-LABEL');
  await expect(band(bench, 'not-this')).toContainText('4 pieces to scan');
  // Twice as heavy as it should be: the packer looks, and says so of this parcel alone.
  await putOnScale(owner, 990);
  await scans('VX-WEIGH');
  await expect(bench.getByLabel('Weight in grams')).toHaveValue('990');
  await expect(bench.getByRole('button', { name: 'Label, rest in another box' })).toBeEnabled();
  await scans('VX-SERVICE', 'VX-LABEL');
  await expect(bench.getByRole('button', { name: 'Looked: weight is right' })).toBeVisible();
  await scans('VX-LABEL');
  await expect(bench.getByRole('button', { name: 'Open 1 again' })).toBeVisible();
  await scans('FDR-CON', 'VX-BOX-B2', 'VX-WEIGH');
  await expect(bench.getByRole('button', { name: 'Label, rest in another box' })).toBeEnabled();
  await scans('VX-LABEL');
  await expect(bench.getByRole('button', { name: 'Looked: weight is right' })).toBeVisible();
  await putOnScale(owner, 310 + 180);
  await scans('VX-WEIGH');
  await expect(bench.getByLabel('Weight in grams')).toHaveValue('490');
  await expect(bench.getByRole('button', { name: 'Label, rest in another box' })).toBeEnabled();
  await scans('VX-LABEL');
  await expect(bench.getByRole('button', { name: 'Open 2 again' })).toBeVisible();
  await putOnScale(owner, 0);
  await scans('BOK-YEAR', 'BRSH-BEE', 'BRSH-BEE');
  await putOnScale(owner, await rightWeight(bench, code).then((g) => g - 2 * 310));
  await expect(bench.getByText(PRINTED)).toHaveCount(3);
  await expect.poll(async () => (await parcelsOf(code)).map((p) => p.parcel).sort()).toEqual([1, 2, 3].map((n) => `${code}-${n}`));
});

test('the printer fails and says so; a parcel is opened again, and goes by another service', async () => {
  const code = await atTable([['TOOL-STD', 2]], 'T-07');
  await putOnScale(owner, 0);
  await setManner(owner, 'printer', 'failing');
  await scans('T-07');
  await expect(bench.getByText('to go of 2')).toBeVisible();
  await scans('TOOL-STD', 'TOOL-STD');
  await putOnScale(owner, await rightWeight(bench, code));
  await expect(bench.getByText('The label is not on paper')).toBeVisible();
  await setManner(owner, 'printer', 'well');
  await bench.getByRole('button', { name: 'Try again' }).click();
  await expect(bench.getByText(PRINTED)).toBeVisible();
  await scans('VX-OPEN');
  await expect(band(bench, 'accepted')).toContainText('is open again');
  await scans('VX-WEIGH');
  await expect(bench.getByRole('button', { name: 'Print label' })).toBeEnabled();
  await scans('VX-SERVICE');
  await expect(band(bench, 'accepted')).toContainText('next day');
  await scans('VX-LABEL');
  await expect(bench.getByText(PRINTED)).toBeVisible();
  await expect(async () => {
    const kept = (await (await owner.request.get('http://127.0.0.1:4710/console/state')).json()) as {
      parcels: { parcel: string; service: string; steps: { what: string }[] }[];
    };
    expect(kept.parcels.filter((p) => p.parcel === `${code}-1`).map((p) => [p.service, p.steps.at(-1)?.what])).toEqual([
      ['Parcel, two days', 'given back'],
      ['Parcel, next day', 'label made'],
    ]);
  }).toPass();
});

test('an order is parked with its reason, and waits last', async () => {
  await putOnScale(owner, 0);
  const code = await atTable([['BRSH-BEE', 1]], 'T-08');
  await scans(code);
  await expect(bench.getByText('to go of 1')).toBeVisible();
  await scans('VX-PARK');
  await bench.getByLabel('Why it waits').fill('no box');
  await bench.getByRole('button', { name: 'Park it' }).click();
  await expect(bench.getByText('parked: no box')).toBeVisible();
});
