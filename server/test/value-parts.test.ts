import { type Caller, House } from './house.js';

interface Value {
  value: string;
  rows: { key: string; lot: string | null; units: number; value: string }[];
}
interface Slow {
  reserve: string;
  booked: string;
  rows: { sku: string; days: number; sold: boolean; percent: number; reserve: string }[];
}

/** What stock is worth by site and lot, and what is set aside for what nobody buys. */
describe('worth in parts', () => {
  let house: House;
  let books: Caller;

  beforeAll(async () => {
    house = await House.open();
    books = await house.as('Maren');
    await house.source.query(`UPDATE item SET cost = 3.333333 WHERE sku IN ('SMK-LGE', 'BOK-LOG')`);
    await house.stock('SMK-LGE', 'A-01-1', 7);
    const [far] = await house.source.query<{ code: string }[]>(
      `SELECT code FROM place WHERE site_id = 2 AND kind IN ('pick-face','counter','dock') ORDER BY id LIMIT 1`,
    );
    await house.stock('SMK-LGE', far!.code, 4);
    await house.stock('BOK-LOG', 'A-01-1', 5);
  });
  afterAll(() => house.close());

  const value = async (query: string) => (await books.get(`value?limit=500&${query}`).expect(200)).body as Value;
  const sum = (v: Value) => v.rows.reduce((n, r) => n + Math.round(Number(r.value) * 1e6), 0);
  const slow = async () => (await books.get('value/slow').expect(200)).body as Slow;

  it('is the whole by site and by lot, to the last digit, today and on days before', async () => {
    const [{ sku } = { sku: '' }] = await house.source.query<{ sku: string }[]>(
      `SELECT sku FROM item WHERE tracking = 'lot-expiry' LIMIT 1`,
    );
    await house.stock(sku, 'A-01-1', 6, { code: 'V-1', expires: '2031-05-01' });
    await house.stock(sku, 'A-01-1', 5, { code: 'V-2', expires: '2031-06-01' });
    for (const by of ['item', 'site', 'lot', 'class']) {
      const v = await value(`by=${by}`);
      expect(sum(v)).toBe(Math.round(Number(v.value) * 1e6));
    }
    const lots = (await value(`by=lot&search=${sku}`)).rows;
    expect(lots.map((l) => [l.lot, l.units]).sort()).toEqual([['V-1, best before 2031-05-01', 6], ['V-2, best before 2031-06-01', 5]]); // prettier-ignore
    expect((await value('by=site')).rows.length).toBeGreaterThan(1);
    const before = await value('by=site&on=2001-01-01');
    expect(before.rows).toEqual([]);
  });

  it('is set aside by the house’s rule, once, and taken back as goods sell', async () => {
    expect(await slow()).toMatchObject({ rows: [], reserve: '0.000000' });
    expect((await books.post('value/slow/book')).status).toBe(409);
    // Everything has stood here since today: a rule of nought days is reached at once.
    await books.put('company/settings/slowDays', { value: '0' }).expect(204);
    const first = await slow();
    expect(first.rows.find((r) => r.sku === 'SMK-LGE')).toMatchObject({ sold: false, percent: 25 });
    expect(Number(first.reserve)).toBeGreaterThan(0);
    const both = await Promise.all([books.post('value/slow/book'), books.post('value/slow/book')]);
    expect(both.map((b) => b.status).sort()).toEqual([204, 409]);
    expect((await slow()).booked).toBe(first.reserve);
    await books.put('company/settings/slowDays', { value: '180' }).expect(204);
    await books.post('value/slow/book').expect(204);
    expect(await slow()).toMatchObject({ booked: '0.000000', reserve: '0.000000' });
    // Stock and its account are as they were: the reserve stands beside them.
    const { stockWorth, stockAccount } = (await books.get('journal/accounts').expect(200)).body as {
      stockWorth: string;
      stockAccount: string;
    };
    expect(stockWorth).toBe(stockAccount);
  });
});
