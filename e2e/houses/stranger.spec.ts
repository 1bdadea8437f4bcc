import { type Browser, expect, type Locator, type Page, test } from '@playwright/test';
import { EmptyHouse } from '../empty-house.js';
import { closesItsPages, scan } from '../world.js';

closesItsPages();

/** A tea house in a town that writes German: its own files, two sites, people without mail, two phones, nothing by route or loader. */
const PORT = 4670;
const file = (name: string, rows: string[]) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(rows.join('\r\n')) });
const FILES = [
  file('artikel.csv', [
    'Artikelnummer;Bezeichnung;Warengruppe;Chargenpflicht;Gewicht (kg);Länge cm;Breite cm;Höhe cm;EAN;EK-Preis',
    'TEE 1/100;Assam kräftig, 100 g;Tee;ja;0,12;8;8;18;4012345000016;2,10',
    'TEE 2/100;Darjeeling erste Ernte, 100 g;Tee;ja;0,12;8;8;18;4012345000023;3,45',
    'KANNE-GR;Kanne groß, Steingut;Zubehör;nein;1,4 kg;22;16;18;;12,80',
    'TÜTE-S;Papiertüte, klein;Verpackung;nein;leicht;12;8;1;;0,04',
  ]),
  file('lieferanten.csv', [
    'Lieferantennummer;Firma;E-Mail-Adresse;Währung;Lieferzeit (Tage)',
    'TEEHAUS;Teehaus Uferweg;bestellung@teehaus.example;EUR;9',
  ]),
  file('einkaufspreise.csv', ['Lieferant;Artikelnummer;Inhalt;Preis', 'TEEHAUS;TEE 1/100;1;2,10', 'TEEHAUS;KANNE-GR;1;12,80']),
  file('kunden.csv', [
    'Kundennummer;Name;E-Mail;Straße;PLZ;Ort;Land',
    'K-100;Café am Markt;cafe@markt.example;Marktplatz 3;12345;Altstadt;DE',
  ]),
  file('bestand.csv', [
    'Lagerplatz;Artikelnummer;Menge;Charge;Einkaufspreis',
    'A-01-1;TEE 1/100;40;A26-1;2,10',
    'A-01-2;TEE 2/100;25;D26-7;3,45',
    'B-01-1;KANNE-GR;6;;12,80',
  ]),
];

/** Counts what a person does: a field filled, a key pressed, a file or a code given. */
class Hand {
  inputs = 0;
  fill(field: Locator, text: string): Promise<void> {
    this.inputs++;
    return field.fill(text);
  }
  press(what: Locator): Promise<void> {
    this.inputs++;
    return what.click();
  }
  async choose(field: Locator, value: string | { label: string }): Promise<void> {
    this.inputs++;
    await field.selectOption(value);
  }
  give(field: Locator, files: Parameters<Locator['setInputFiles']>[0]): Promise<void> {
    this.inputs++;
    return field.setInputFiles(files);
  }
  scan(page: Page, code: string): Promise<void> {
    this.inputs++;
    return scan(page, code);
  }
}

const hand = new Hand();
let house: EmptyHouse;
let page: Page;
let browser: Browser;
let firstOrder = '';
/** Badge and PIN of those who were set up, by first name. */
const keys = new Map<string, { badge: string; pin: string }>();
const button = (name: string | RegExp) => page.getByRole('button', { name });

test.describe.configure({ mode: 'serial' });
test.use({ actionTimeout: 15_000 });

test.beforeAll(async ({ browser: opened }) => {
  browser = opened;
  house = await EmptyHouse.open('stranger', PORT);
  page = await (await browser.newContext({ baseURL: house.url, viewport: { width: 1280, height: 800 } })).newPage();
});
test.afterAll(async () => {
  test.info().annotations.push({ type: 'inputs', description: `${hand.inputs} in all` });
  await house.close();
});

test('a house of two sites is opened, its bins are built, and their labels are at hand', async () => {
  await page.goto('/');
  await hand.fill(page.getByLabel('Your name'), 'Änne Förster');
  await hand.fill(page.getByLabel('E-mail'), 'aenne@teehandel.example');
  await hand.fill(page.getByLabel('Password, 10 characters or more'), 'eine lange Nacht');
  await hand.fill(page.getByLabel('Your first site'), 'Lager Süd');
  await hand.fill(page.getByLabel('Its code'), 'SUED');
  await hand.press(button('Open the house'));
  await hand.press(page.getByRole('link', { name: 'Begin' }));
  await hand.fill(page.getByLabel('to', { exact: true }), 'B');
  await hand.fill(page.getByLabel('Bays in each'), '3');
  await hand.fill(page.getByLabel('Levels', { exact: true }), '2');
  await hand.fill(page.getByLabel('Of them open to picking'), '2');
  await hand.press(button('Build 12 bins'));
  await hand.press(page.getByRole('link', { name: 'Print labels for these 12 bins' }));
  await expect(page.getByLabel('Places, by their codes')).toHaveValue(/A-01-1\n(.*\n)+B-03-2/);
  await expect(button('Print 12 labels')).toBeEnabled();
  await page.goto('/setup/company');
  await hand.fill(page.getByLabel('Another site'), 'Laden Mitte');
  await hand.fill(
    page
      .getByRole('region', { name: 'Sites' })
      .or(page.locator('form', { hasText: 'Make the site' }))
      .getByLabel('Code')
      .first(),
    'MITTE',
  );
  await hand.press(button('Make the site'));
  await expect(page.getByText('Laden Mitte (MITTE)')).toBeVisible();
});

test('five files of a firm go in as they are, mended on the page', async () => {
  await page.goto('/setup/imports');
  await hand.give(page.getByLabel('Files to take in'), FILES);
  for (const [name, kind, mends] of [
    ['artikel.csv', 'Items', true],
    ['lieferanten.csv', 'Suppliers', false],
    ['einkaufspreise.csv', 'Suppliers’ codes and prices', false],
    ['kunden.csv', 'Customers', false],
    ['bestand.csv', 'Opening stock', false],
  ] as const) {
    await hand.press(page.getByRole('cell', { name }));
    await expect(page.getByRole('heading', { name })).toBeVisible();
    const holds = page.getByLabel('This file holds');
    const guessed = await holds.locator('option:checked').innerText();
    if (guessed !== kind) await hand.choose(holds, { label: kind });
    await hand.press(button(/^Check \d+ rows?/));
    if (mends) {
      await hand.choose(page.getByLabel('Tracked by, ja'), 'lot');
      await hand.choose(page.getByLabel('Tracked by, nein'), 'none');
      await hand.fill(page.getByRole('textbox', { name: 'Weight, g, leicht' }), '5 g');
      await hand.press(button('Read 3 values so, and check again'));
    }
    await hand.press(button(/^Take in \d+ rows?/));
    await expect(button('Take the whole import back')).toBeVisible();
  }
  await page.goto(`/shelves/items/${encodeURIComponent('TEE 1/100')}`);
  await expect(page.getByRole('heading', { name: 'Assam kräftig, 100 g' })).toBeVisible();
  await expect(page.getByText('40 pieces', { exact: true })).toBeVisible();
});

test('three people without mail come in by badge and PIN, on two phones', async () => {
  for (const [name, duty] of [
    ['Bela Kurz', 'picker'],
    ['Cem Lang', 'packer'],
    ['Dora Mai', 'receiver'],
  ] as const) {
    await page.goto('/setup/people/new');
    await hand.fill(page.getByLabel('Name'), name);
    await hand.press(page.getByLabel(duty, { exact: true }));
    await hand.press(button('Set them up'));
    await hand.press(button('Give out a PIN'));
    const slip = page.getByRole('status').filter({ hasText: 'PIN' });
    const badge = /V-\d+/.exec(await slip.innerText())![0];
    keys.set(name.split(' ')[0]!, { badge, pin: /PIN\s*(\d{6})/.exec(await slip.innerText())![1]! });
  }
  for (const [phone, who] of [
    ['Phone 1', 'Bela'],
    ['Phone 2', 'Dora'],
  ] as const) {
    const floor = await enrolled(phone);
    await signsIn(floor, who);
    await expect(floor.getByRole('heading', { name: 'Scan a paper, or choose' })).toBeVisible();
    phones.set(phone, floor);
  }
  // The first scan.
  const first = phones.get('Phone 2')!;
  await hand.scan(first, '4012345000016');
  await expect(first.getByRole('heading', { name: 'Assam kräftig, 100 g' })).toBeVisible();
  await expect(first.getByText('40 pieces on hand, 40 free')).toBeVisible();
  test.info().annotations.push({ type: 'inputs to the first scan', description: String(hand.inputs) });
  process.stdout.write(`  inputs to the first scan: ${hand.inputs}\n`);
  expect(hand.inputs).toBeLessThan(90);
});

const phones = new Map<string, Page>();

/** A phone that the owner's page has shown a code to. */
async function enrolled(name: string): Promise<Page> {
  await page.goto('/setup/devices');
  await hand.fill(page.getByLabel('Name the device'), name);
  await hand.press(button('Show a code'));
  const code = (await page.getByRole('img', { name: /^Enrolment code/ }).getAttribute('alt'))!.split(' ').at(-1)!;
  const context = await browser.newContext({ baseURL: house.url, viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  const floor = await context.newPage();
  hand.inputs++;
  await floor.goto(`/enrol#${code}`);
  await expect(floor.getByRole('heading', { name: 'Scan your badge' })).toBeVisible();
  return floor;
}

async function signsIn(floor: Page, who: string): Promise<void> {
  const { badge, pin } = keys.get(who)!;
  await hand.scan(floor, badge);
  await expect(floor.getByRole('heading', { name: 'Your PIN' })).toBeVisible();
  for (const digit of pin) await floor.getByRole('button', { name: digit, exact: true }).click();
  await hand.press(floor.getByRole('button', { name: 'In', exact: true }));
}

test('an order is keyed, picked, packed and handed over: the first parcel leaves', async () => {
  for (const [code, kind] of [
    ['SPUR-1', 'dispatch-lane'],
    ['T-01', 'tote'],
  ] as const) {
    await page.goto('/shelves/places/new');
    await hand.fill(page.getByLabel('Code, such as C-07-2'), code);
    await hand.choose(page.locator('aside').getByLabel('Kind'), kind);
    await hand.press(button('Keep the place'));
    await expect(page.getByRole('heading', { name: code })).toBeVisible();
  }
  await page.goto('/setup/boxes/new');
  for (const [label, value] of [
    ['Code', 'KARTON-1'],
    ['Length inside, mm', '300'],
    ['Width inside, mm', '200'],
    ['Height inside, mm', '200'],
    ['Weighs empty, g', '150'],
    ['Carries, g', '10000'],
  ] as const)
    await hand.fill(page.locator('aside').getByLabel(label, { exact: true }), value);
  await hand.press(button('Keep the box'));
  await page.goto('/setup/carriers/new');
  await hand.fill(page.getByLabel('Name', { exact: true }), 'Radkurier Nord');
  await hand.fill(page.getByLabel('Code', { exact: true }), 'RAD');
  await hand.press(button('Add a service'));
  await hand.fill(page.getByLabel('Service, service 1'), 'Innenstadt');
  await hand.fill(page.getByLabel('Code, service 1'), 'stadt');
  await hand.fill(page.getByLabel('Price, service 1'), '4,50');
  await hand.press(button('Keep the carrier'));
  await expect(page.getByRole('heading', { name: 'Radkurier Nord' })).toBeVisible();

  await page.goto('/orders/new');
  await hand.fill(page.getByRole('combobox', { name: 'Customer' }), 'Café');
  await hand.press(page.getByRole('option', { name: /Café am Markt/ }));
  await hand.fill(page.getByRole('combobox', { name: 'Goods of line 1' }), 'Assam');
  await hand.press(page.getByRole('option', { name: /Assam/ }));
  await hand.fill(page.getByLabel('How many, line 1'), '2');
  await hand.fill(page.getByLabel('Price, line 1'), '5,90');
  await expect(page.getByLabel('Price, line 1')).toHaveValue('5.90');
  await hand.press(button('Keep the order'));
  await page.waitForURL(/\/orders\/S-\d+$/);
  firstOrder = page.url().split('/').at(-1)!;
  const order = firstOrder;
  await hand.press(button(/Send to picking/));
  await expect(page.getByText(/R-\d+/).first()).toBeVisible();

  const floor = phones.get('Phone 1')!;
  await floor.goto('/floor/pick');
  await hand.press(floor.getByRole('link', { name: /R-/ }).first());
  await expect(floor.getByRole('heading', { name: 'Scan an empty tote' })).toBeVisible();
  await hand.scan(floor, 'T-01');
  await hand.scan(floor, 'A-01-1');
  for (let i = 0; i < 2; i++) await hand.scan(floor, '4012345000016');
  await expect(floor.getByText('Scan the lot on it, or choose it').or(floor.getByText('Set the tote down'))).toBeVisible();
  if (await floor.getByText('Scan the lot on it, or choose it').isVisible()) await hand.scan(floor, 'A26-1');
  await hand.scan(floor, 'T-01');
  await hand.scan(floor, 'TABLE-1');
  await expect(floor.getByText('Set down. Ready to pack')).toBeVisible();

  await page.goto(`/bench/${order}`);
  await expect(page.getByRole('heading', { name: 'Café am Markt' })).toBeVisible();
  await expect(page.getByText('Scanner ready')).toBeVisible();
  for (let i = 0; i < 2; i++) await hand.scan(page, '4012345000016');
  await hand.fill(page.getByLabel('Weight in grams'), '390');
  await hand.press(button(/Radkurier Nord/));
  await hand.press(button('Print label'));
  await expect(page.getByRole('link', { name: 'See the label' })).toBeVisible();
  await page.goto('/dispatch');
  await hand.press(button(/Hand 1 parcel to Radkurier Nord/));
  await expect(page.getByText(/1 parcel gone, list/)).toBeVisible();
  // The house knows its way now.
  await page.goto('/');
  await expect(page.getByRole('heading', { name: /orders? promised/ })).toBeVisible();
  await expect(page.getByText('To the first parcel')).toHaveCount(0);
  process.stdout.write(`  inputs to the first parcel: ${hand.inputs}\n`);
  expect(hand.inputs).toBeLessThan(160);
});

test('one of the goods comes back to a house that has set nothing up for it', async () => {
  const floor = phones.get('Phone 2')!;
  await floor.goto('/floor/returns');
  await expect(floor.getByRole('heading', { name: /Scan its paper/ })).toBeVisible();
  await scan(floor, `${firstOrder}-1`);
  await expect(floor.getByRole('heading', { name: 'Scan what came back' })).toBeVisible();
  await scan(floor, '4012345000016');
  await floor.getByRole('button', { name: 'As new' }).click();
  await expect(floor.getByText('This site has no quarantine')).toBeVisible();
  await floor.getByRole('button', { name: /^Back on the shelf/ }).click();
  await expect(floor.locator('[data-band="accepted"]')).toContainText('back on the shelf');
  await page.goto('/orders/returns/G-0001');
  await button(/^Pay it back, /).click();
  await expect(page.getByText(/^Paid back, /)).toBeVisible();
  await expect(page.getByText('None of it was invoiced, and none of it will be')).toBeVisible();
});

test('goods go to the shop in a parcel with a label, are taken in there, and their lot is held wherever it is', async () => {
  await page.goto('/setup/company');
  const shop = page.getByRole('region', { name: 'Laden Mitte' });
  await shop.getByLabel('Address').fill('Marktplatz 9');
  await shop.getByLabel('City').fill('Altstadt');
  await shop.getByLabel('Postcode').fill('12345');
  await shop.getByLabel('Country, such as GB').fill('de');
  await shop.getByRole('button', { name: 'Keep' }).click();
  await expect(shop.getByLabel('Country, such as GB')).toHaveValue('DE');

  await page.goto('/shelves/transfers/new');
  await page.getByRole('textbox', { name: 'SKU of line 1' }).fill('TEE 2/100');
  await page.getByRole('textbox', { name: 'Units of line 1' }).fill('5');
  await page.getByRole('textbox', { name: 'Units of line 1' }).press('Enter');
  await button('Ask for 1 line').click();
  await expect(page.getByRole('heading', { name: 'Lager Süd to Laden Mitte' })).toBeVisible();
  const transfer = page.url().split('/').at(-1)!;
  await button('Pack a parcel').click();
  await page.getByRole('textbox', { name: 'Weight, g' }).fill('900');
  await button(/^Radkurier Nord/).click();
  await button('Pack it, and ask for its label').click();
  await expect(page.getByRole('table', { name: 'Parcels' }).getByRole('link', { name: `${transfer}-1` })).toBeVisible();

  await page.goto(`/floor/gather/${transfer}`);
  await expect(page.getByRole('heading', { name: 'Scan the bin' })).toBeVisible();
  await scan(page, 'A-01-2');
  await scan(page, '4012345000023');
  await button('Number').click();
  await button('5').click();
  await button(/^5 .* there$/).click();
  await button('Send off').click();
  await expect(page.getByRole('textbox', { name: 'Carrier' })).toHaveValue('Radkurier Nord');
  await button('It is gone').click();
  await expect(page.getByRole('heading', { name: 'Scan its paper, or choose' })).toBeVisible();
  await scan(page, `${transfer}-1`);
  await expect(page.getByText('1 of 1 parcel scanned here')).toBeVisible();
  await scan(page, '4012345000023');
  await button('Number').click();
  await button('5').click();
  await button(/^5 .* there$/).click();
  await button('That is all').click();
  await button('Yes, close it').click();
  await expect(page.getByRole('heading', { name: 'Scan its paper, or choose' })).toBeVisible();

  await page.goto('/shelves/trace');
  await page.getByRole('searchbox', { name: 'Lot or serial number' }).fill('D26');
  await page.getByRole('row', { name: /TEE 2/ }).getByRole('link').click();
  await page.getByRole('textbox', { name: 'Why it is held' }).fill('Muffig');
  await button('Hold it everywhere').click();
  const where = page.getByRole('table', { name: 'Where it is' });
  await expect(where.getByText('held')).toHaveCount(2);
  await expect(where.getByText('MITTE-DOCK')).toBeVisible();
});

test('a present is put together of what lies there, and is worth what went into it', async () => {
  await page.goto('/shelves/items/new');
  const form = page.locator('aside');
  await form.getByLabel('SKU', { exact: true }).fill('GESCHENK-1');
  await form.getByLabel('Name', { exact: true }).fill('Geschenk mit Kanne');
  await form.getByLabel('Kind').selectOption('assembly');
  for (const [i, [sku, units]] of [
    ['TEE 1/100', '2'],
    ['KANNE-GR', '1'],
  ].entries()) {
    await button('Another part').click();
    await form.getByLabel(`Part ${i + 1}`, { exact: true }).fill(sku!);
    await form.getByLabel(`Units of part ${i + 1}`).fill(units!);
  }
  await button('Keep the item').click();
  await expect(page.getByRole('heading', { name: 'Geschenk mit Kanne' })).toBeVisible();

  await page.goto('/shelves/builds/new');
  await page.getByRole('combobox', { name: 'What, and where' }).selectOption({ label: 'Geschenk mit Kanne, Lager Süd' });
  await page.getByRole('textbox', { name: 'How many' }).fill('2');
  await button('Plan it').click();
  await page.waitForURL('**/shelves/builds/K-*');
  const build = page.url().split('/').at(-1)!;
  await page.goto('/floor');
  await expect(page.getByRole('heading', { name: 'Scan a paper, or choose' })).toBeVisible();
  await scan(page, build);
  for (const [bin, goods, units] of [
    ['B-01-1', 'KANNE-GR', 2],
    ['A-01-1', '4012345000016', 4],
  ] as const) {
    await expect(page.getByRole('heading', { name: 'Scan the bin' })).toBeVisible();
    await scan(page, bin);
    await expect(page.getByRole('heading', { name: 'Scan the goods' })).toBeVisible();
    await scan(page, goods);
    await button('Number').click();
    await page.getByRole('button', { name: String(units), exact: true }).click();
    await button(/ there$/).click();
    await expect(page.locator('[data-band="accepted"]')).toContainText(`from ${bin}`);
  }
  await expect(page.getByRole('heading', { name: 'All parts are together' })).toBeVisible();
  await button('It is built').click();
  await expect(page.getByRole('heading', { name: 'Scan where they go' })).toBeVisible();
  await scan(page, 'B-01-2');
  await expect(page.getByRole('heading', { name: 'Is it built?' })).toBeVisible();
  await button('It is built').click();
  await expect(page.getByRole('heading', { name: 'Scan a paper, or choose' })).toBeVisible();
  await page.goto(`/shelves/builds/${build}`);
  // Two teas at 2.10 and a pot at 12.80.
  await expect(page.getByText('One is worth')).toBeVisible();
  await expect(page.getByText(/17\.00/).first()).toBeVisible();
});
