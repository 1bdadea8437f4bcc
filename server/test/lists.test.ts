import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parse } from 'csv-parse/sync';
import { readXlsx } from '../src/exchange/files/read-xlsx.js';
import { type Caller, House } from './house.js';

const LISTS = ['items', 'places', 'orders', 'customers', 'purchase-orders', 'suppliers', 'channels', 'rounds', 'people', 'devices', 'tape'];
let house: House;
let maren: Caller;
let dir: string;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
  dir = await mkdtemp(join(tmpdir(), 'vectrum-lists-'));
  await house.stock('JAR-454-RD', 'A-01-1', 240);
  await house.stock('MTS-10', 'V-01-1', 12, { code: 'L2610', expires: '2027-03-31' });
  const order = await house.order([['JAR-454-RD', 6]]);
  await house.release(order);
  await house.order([['JAR-1L', 6]], { customer: '=HYPERLINK("http://example.org")' });
});
afterAll(async () => {
  await rm(dir, { recursive: true, force: true });
  await house.close();
});

async function csv(list: string, query = '', who = maren): Promise<Record<string, string>[]> {
  const bytes = (await who.bytes(`exports/lists/${list}.csv${query}`).expect(200)).body as Buffer;
  return parse(bytes, { columns: true, bom: true });
}
async function xlsx(list: string, query = ''): Promise<string[][]> {
  const bytes = (await maren.bytes(`exports/lists/${list}.xlsx${query}`).expect(200)).body as Buffer;
  const path = join(dir, `${list}.xlsx`);
  await writeFile(path, bytes);
  const found: string[][] = [];
  for await (const row of readXlsx(path)) found.push(row);
  return found;
}

describe('every list', () => {
  it.each(LISTS)('of %s is given out as CSV and as XLSX, the same rows in both', async (list) => {
    const rows = await csv(list);
    const sheet = await xlsx(list);
    expect(sheet.length).toBe(rows.length + 1);
    if (rows[0]) expect(sheet[0]).toEqual(Object.keys(rows[0]));
    if (list !== 'devices' && list !== 'purchase-orders') expect(rows.length).toBeGreaterThan(0);
  });

  it('says as what it is to be kept', async () => {
    const answer = await maren.bytes('exports/lists/items.csv').expect(200);
    expect(answer.headers['content-type']).toBe('text/csv; charset=utf-8');
    expect(answer.headers['content-disposition']).toMatch(/^attachment; filename="?[\w .-]*items[\w .-]*\.csv"?$/);
    expect(answer.headers['x-content-type-options']).toBe('nosniff');
  });

  it('that there is not, or of another kind of file, is said not to be there', async () => {
    for (const path of ['lists/nothing.csv', 'lists/constructor.csv', 'lists/__proto__.csv', 'lists/items.pdf', 'lists/items.exe']) {
      const answer = await maren.get(`exports/${path}`);
      expect([400, 404]).toContain(answer.status);
    }
  });
});

describe('the list of items as a file', () => {
  it('has the columns that were chosen, in their order', async () => {
    const rows = await csv('items', '?columns=sku,available,name');
    expect(Object.keys(rows[0]!)).toEqual(['SKU', 'Available', 'Item']);
    const jar = rows.find((r) => r['SKU'] === 'JAR-454-RD');
    expect(jar).toMatchObject({ Available: '234', Item: 'Jar 454 g, round' });
  });

  it('passes over columns that there are not', async () => {
    expect(Object.keys((await csv('items', '?columns=sku,password,toString'))[0]!)).toEqual(['SKU']);
  });

  it('has the rows that the filter shows, in the order shown', async () => {
    const shown = (await maren.get('items?search=jar&sort=-onHand&from=0&limit=100').expect(200)).body as { rows: { sku: string }[] };
    const rows = await csv('items', '?search=jar&sort=-onHand&columns=sku');
    expect(rows.map((r) => r['SKU'])).toEqual(shown.rows.map((r) => r.sku));
    expect(rows.length).toBeLessThan((await csv('items')).length);
  });

  it('has no cost for whoever may not see one, whatever they ask for', async () => {
    const ines = await house.as('Ines');
    expect(Object.keys((await csv('items', '', ines))[0]!)).not.toContain('Cost, typed');
    expect(Object.keys((await csv('items', '?columns=sku,cost', ines))[0]!)).toEqual(['SKU']);
    expect(Object.keys((await csv('items', '?columns=sku,cost'))[0]!)).toEqual(['SKU', 'Cost, typed']);
  });
});

describe('other lists as files', () => {
  it('never hold a cell that begins like a formula', async () => {
    const bytes = (await maren.bytes('exports/lists/orders.csv').expect(200)).body as Buffer;
    const cells = parse(bytes, { bom: true }).flat();
    expect(cells.some((c) => c.includes('HYPERLINK'))).toBe(true);
    expect(cells.filter((c) => /^[=+@\t]/.test(c))).toEqual([]);
  });

  it('hold what the screen shows of orders and rounds', async () => {
    const orders = await csv('orders');
    expect(orders.map((o) => o['State'])).toEqual(expect.arrayContaining(['released', 'held']));
    expect((await csv('rounds'))[0]).toMatchObject({ Customers: 'Wick Hill Farm', Stops: '1', 'Stops done': '0', Units: '6' });
  });

  it('keep each movement of an item, newest first, with its lot', async () => {
    const moved = await csv('movements', '?sku=mts-10');
    expect(moved).toMatchObject([{ To: 'V-01-1', Units: '12', Lot: 'L2610', Document: 'OPENING' }]);
    await maren.get('exports/lists/movements.csv?sku=NO-SUCH').expect(404);
  });

  it('of people, devices and channels are for those who set up', async () => {
    const ines = await house.as('Ines');
    for (const list of ['people', 'devices', 'channels']) await ines.get(`exports/lists/${list}.csv`).expect(403);
    await ines.get('exports/lists/places.csv').expect(200);
  });

  it('show no places, orders or tape of sites that a person does not work at', async () => {
    const ines = await house.as('Ines');
    const sites = (rows: Record<string, string>[]) => new Set(rows.map((r) => r['Site']));
    expect(sites(await csv('places')).size).toBeGreaterThan(1);
    expect([...sites(await csv('places', '', ines))]).toHaveLength(1);
    const far = await house.order([['JAR-1L', 1]]);
    await house.source.query('UPDATE sales_order SET site_id = 2 WHERE code = ?', [far]);
    expect((await csv('orders')).map((o) => o['Order'])).toContain(far);
    expect((await csv('orders', '', ines)).map((o) => o['Order'])).not.toContain(far);
    await house.source.query('UPDATE sales_order SET site_id = 1 WHERE code = ?', [far]);
  });

  it('go on past one page of the tape', async () => {
    const who = (await house.source.query<{ id: number }[]>('SELECT id FROM person LIMIT 1'))[0]!.id;
    const [columns] = await house.source.query<{ c: string }[]>(
      `SELECT GROUP_CONCAT(column_name) AS c FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = 'activity'`,
    );
    expect(columns?.c).toContain('person_id');
    const before = (await csv('tape')).length;
    await house.source.query(
      `INSERT INTO activity (at, person_id, site_id, kind, glyph, title, detail)
       SELECT UTC_TIMESTAMP(3), ?, 1, 'note', 'full', CONCAT('Line ', seq), '' FROM seq_1_to_2500`,
      [who],
    );
    const rows = await csv('tape');
    expect(rows).toHaveLength(before + 2500);
    expect(new Set(rows.map((r) => r['What'])).size).toBeGreaterThanOrEqual(2500);
  });
});
