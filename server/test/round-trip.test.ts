import sharp from 'sharp';
import { type Caller, House } from './house.js';
import { takenIn } from './importing.js';

const KINDS = [
  'sites',
  'plan',
  'zones',
  'walls',
  'places',
  'items',
  'packs',
  'barcodes',
  'parts',
  'policies',
  'suppliers',
  'contacts',
  'prices',
  'breaks',
  'carriers',
  'lanes',
  'services',
  'boxes',
  'customers',
  'addresses',
  'customer-prices',
  'channels',
  'channel-sites',
  'listings',
  'stock',
  'demand',
  'buying-rules',
];

async function exported(caller: Caller, kind: string, file = 'csv'): Promise<Buffer> {
  return (await caller.bytes(`exports/data/${kind}.${file}`).expect(200)).body as Buffer;
}

/** A list that nobody has changed yet. */
const FRESH = { 'if-match': '"1"' };

describe('everything given out, taken in by an empty company, given out again', () => {
  let full: House;
  let empty: House;
  let maren: Caller;
  let founder: Caller;
  const files = new Map<string, Buffer>();

  beforeAll(async () => {
    full = await House.open();
    maren = await full.as('Maren');
    await full.stock('JAR-454-RD', 'A-01-1', 96);
    await full.stock('MTS-10', 'V-01-1', 12, { code: 'L2610', expires: '2027-03-31' });
    await full.source.query(`UPDATE item SET name = '=SUM(A1)&"x"' WHERE sku = 'BOK-WAX'`);
    await full.source.query(
      `INSERT INTO channel_site (channel_id, site_id) SELECT c.id, s.id FROM channel c JOIN site s ON s.code = 'QUAY' WHERE c.code = 'SHOP'`,
    );
    await full.source.query(
      `INSERT INTO carrier_service (carrier_id, code, name, days, price, most_g) SELECT id, 'today', 'In town today', 0, '4.80', 12000 FROM carrier WHERE code = 'PEDAL'`,
    );
    await full.source.query(`UPDATE item SET name = 'Jar, "round"; 454 g – Größe' WHERE sku = 'JAR-227-RD'`);
    await full.source.query(
      `INSERT INTO demand_week (site_id, item_id, week, given_units) SELECT 1, id, 2930, 17 FROM item WHERE sku = 'BOK-WAX'`,
    );
    await full.source.query(
      `INSERT INTO buying_rule (item_id, site_id, service_percent, review_days) SELECT id, 1, 98.5, 14 FROM item WHERE sku = 'BOK-WAX'`,
    );
    const [of] = await full.source.query<{ supplier: string; sku: string }[]>(
      'SELECT s.code AS supplier, i.sku FROM supplier_item t JOIN supplier s ON s.id = t.supplier_id JOIN item i ON i.id = t.item_id ORDER BY i.sku LIMIT 1',
    );
    await takenIn(full, maren, 'contacts.csv', `Supplier,Person,Does,E-mail\n${of!.supplier},Una Skep,Orders,una@skep.example\n`);
    await takenIn(full, maren, 'breaks.csv', `Supplier,SKU,From packs,Price of a pack\n${of!.supplier},${of!.sku},12,4.85\n`);
    empty = await House.open({}, false);
    await empty.http
      .post('/api/first-owner')
      .send({
        name: 'Maren Holt',
        email: 'maren@tarnthistle.example',
        password: 'thistle-and-tarn',
        siteName: 'Millrace',
        siteCode: 'MILL',
      })
      .expect(204);
    founder = await empty.as('Maren');
    await founder.put(
      'company/money',
      {
        currencies: [],
        taxRates: [
          { code: 'STD', name: 'Standard', percent: '20' },
          { code: 'ZERO', name: 'Zero', percent: '0' },
        ],
      },
      FRESH,
    );
    await founder
      .put(
        'items/extra-fields',
        {
          fields: [
            { name: 'Country of origin', kind: 'choice', choices: ['United Kingdom', 'Czechia', 'Lithuania'] },
            { name: 'Guarantee in months', kind: 'number', choices: [] },
          ],
        },
        FRESH,
      )
      .expect(204);
  });
  afterAll(async () => {
    await full.close();
    await empty.close();
  });

  it.each(KINDS)('%s go in whole', async (kind) => {
    files.set(kind, await exported(maren, kind));
    const done = await takenIn(empty, founder, `${kind}.csv`, files.get(kind)!);
    expect(done.kind).toBe(kind);
    // The items and packs have brought their barcodes with them.
    if (kind !== 'barcodes') expect(done.made + done.changed).toBeGreaterThan(0);
  });

  it.each(KINDS)('%s come out equal', async (kind) => {
    expect((await exported(founder, kind)).toString()).toBe(files.get(kind)!.toString());
  });

  it('change nothing when they are taken in a second time', async () => {
    for (const kind of ['items', 'packs', 'suppliers', 'prices', 'customers', 'policies', 'listings']) {
      const done = await takenIn(empty, founder, `${kind} again.csv`, files.get(kind)!);
      expect([kind, done.made]).toEqual([kind, 0]);
    }
  });

  it('read the same from XLSX', async () => {
    const before = await exported(founder, 'items');
    const sheet = await exported(maren, 'items', 'xlsx');
    expect((await takenIn(empty, founder, 'items.xlsx', sheet)).total).toBe(before.toString().trim().split('\r\n').length - 1);
    expect((await exported(founder, 'items')).toString()).toBe(before.toString());
  });

  it('hold the stock that they say, each heap in its place', async () => {
    expect(await empty.balance('JAR-454-RD', 'A-01-1')).toBe(96);
    expect(await empty.balance('MTS-10', 'V-01-1')).toBe(12);
  });

  it('never hold a cell that begins like a formula', () => {
    for (const file of files.values()) expect(file.toString()).not.toMatch(/(^|,|\n)"?[=@+]/);
    expect(files.get('items')!.toString()).toContain(`'=SUM(A1)`);
  });

  it('are one archive too', async () => {
    const zip = (await maren.bytes('exports/everything.zip').expect(200)).body as Buffer;
    expect(zip.subarray(0, 2).toString()).toBe('PK');
    for (const kind of KINDS) expect(zip.includes(`-${kind}.csv`)).toBe(true);
  });

  it('have pictures with them, each named for its item, which come back as they were', async () => {
    const drawn = sharp({ create: { width: 400, height: 300, channels: 3, background: '#a63' } });
    await maren.file('put', 'items/JAR-454-RD/picture', await drawn.png().toBuffer()).expect(204);
    const picture = (await maren.bytes('items/JAR-454-RD/picture').expect(200)).body as Buffer;
    const zip = (await maren.bytes('exports/everything.zip').expect(200)).body as Buffer;
    expect([zip.includes('pictures/JAR-454-RD.webp'), zip.includes(picture)]).toEqual([true, true]);
    const names = 'JAR-454-RD,jar-227-rd,NO-SUCH';
    expect((await founder.get(`pictures?names=${names}`).expect(200)).body).toEqual([
      { name: 'JAR-454-RD', item: expect.objectContaining({ sku: 'JAR-454-RD', hasPicture: false }) },
      { name: 'jar-227-rd', item: expect.objectContaining({ sku: 'JAR-227-RD' }) },
      { name: 'NO-SUCH', item: null },
    ]);
    const mark = async (caller: Caller) => ((await caller.get('items/JAR-454-RD')).body as { pictureMark: string }).pictureMark;
    await founder.file('put', 'items/JAR-454-RD/picture', picture).expect(204);
    // Where it stands already, it is not written anew, and no worse for coming back.
    const before = await mark(maren);
    await maren.file('put', 'items/JAR-454-RD/picture', picture).expect(204);
    expect(await mark(maren)).toBe(before);
    expect((await founder.get('pictures?names=JAR-454-RD')).body).toMatchObject([{ item: { hasPicture: true } }]);
  });

  it('tell a picture’s item by a barcode too', async () => {
    const [barcode, sku] = files.get('barcodes')!.toString().split('\r\n')[1]!.split(',');
    expect((await founder.get(`pictures?names=${barcode}`)).body).toMatchObject([{ item: { sku } }]);
  });
});
