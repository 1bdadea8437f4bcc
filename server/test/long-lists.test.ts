import { type Caller, House } from './house.js';

/** A list longer than any window: everything is counted, reached and given out. */
const MANY = 1_230;

let house: House;
let maren: Caller;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
  await house.source.query(
    `INSERT INTO customer (code, name) SELECT CONCAT('MANY-', seq), CONCAT('Customer ', LPAD(seq, 5, '0')) FROM seq_1_to_${MANY}`,
  );
  await house.source.query(
    `INSERT INTO sales_order (code, channel_id, channel_ref, site_id, state, customer, placed_at, promised_at, shipped_at)
     SELECT CONCAT('X-', seq), (SELECT MIN(id) FROM channel), CONCAT('many-', seq), 1, IF(seq <= 600, 'shipped', 'open'), CONCAT('Customer ', seq), UTC_TIMESTAMP(), UTC_TIMESTAMP() + INTERVAL seq MINUTE, IF(seq <= 600, UTC_TIMESTAMP() - INTERVAL seq MINUTE, NULL) FROM seq_1_to_${MANY}`,
  );
  await house.source.query(
    `INSERT INTO purchase_order (code, supplier_id, site_id, state, currency, created_by, expected_on)
     SELECT CONCAT('Y-', seq), (SELECT MIN(id) FROM supplier), 1, IF(seq <= 900, 'closed', 'placed'), 'GBP', 1, '2026-01-01' FROM seq_1_to_${MANY}`,
  );
});
afterAll(async () => {
  await house.source.query(`DELETE FROM sales_order WHERE code LIKE 'X-%'`);
  await house.source.query(`DELETE FROM purchase_order WHERE code LIKE 'Y-%'`);
  await house.close();
});

interface Listed {
  rows: { code: string; state?: string }[];
  total: number;
}
const page = async (path: string) => (await maren.get(path).expect(200)).body as Listed;

/** Reads a list to its end, a window at a time. */
async function toTheEnd(path: string): Promise<{ codes: string[]; total: number }> {
  const codes: string[] = [];
  for (;;) {
    const { rows, total } = await page(`${path}${path.includes('?') ? '&' : '?'}from=${codes.length}&limit=500`);
    codes.push(...rows.map((r) => r.code));
    if (rows.length < 500) return { codes, total };
  }
}
const lines = async (path: string) =>
  String((await maren.bytes(`exports/lists/${path}`).expect(200)).body as Buffer)
    .trim()
    .split('\r\n').length - 1;

describe('a list longer than a window', () => {
  it.each([
    ['customers', 'customers.csv', (n: number) => n >= MANY],
    ['orders?show=gone', 'orders.csv?show=gone', (n: number) => n === 600],
    ['orders', 'orders.csv', (n: number) => n === MANY - 600],
    ['purchase-orders', 'purchase-orders.csv', (n: number) => n === MANY],
  ])('of %s is counted, read to its end without one missing or twice, and given out whole', async (path, file, fits) => {
    const { codes, total } = await toTheEnd(path);
    expect([fits(total), total]).toEqual([true, codes.length]);
    expect(new Set(codes).size).toBe(codes.length);
    expect(await lines(file)).toBe(total);
  });

  it('of purchase orders shows those that are open first, however many are over', async () => {
    const { rows } = await page('purchase-orders?limit=200');
    expect(new Set(rows.map((r) => r.state))).toEqual(new Set(['placed']));
    const end = await page(`purchase-orders?from=${MANY - 30}&limit=30`);
    expect(new Set(end.rows.map((r) => r.state))).toEqual(new Set(['closed']));
  });

  it('of orders is narrowed by the server, with how many there are of each', async () => {
    const { counts } = (await maren.get('orders?limit=1').expect(200)).body as { counts: Record<string, number> };
    expect(counts).toEqual({ all: MANY - 600, urgent: 0, ready: MANY - 600, short: 0, stuck: 0 });
    await house.source.query(`UPDATE sales_order SET promised_at = UTC_TIMESTAMP() - INTERVAL 1 HOUR WHERE code = 'X-1000'`);
    const stuck = await page('orders?show=stuck');
    expect(stuck.rows.map((r) => r.code)).toEqual(['X-1000']);
  });

  it('says no more than that there are more than anybody counts', async () => {
    await house.source.query(`INSERT INTO customer (code, name) SELECT CONCAT('MORE-', seq), 'More' FROM seq_1_to_9000`);
    expect((await page('customers?limit=10')).total).toBe(10_001);
    expect(await lines('customers.csv')).toBeGreaterThan(10_100);
  });

  it('has no row where none is asked for, or the window lies behind its end', async () => {
    expect(await page('purchase-orders?from=5000')).toMatchObject({ rows: [], total: MANY });
    expect((await page('purchase-orders?from=-3&limit=1e9')).rows.length).toBe(200);
  });
});
