import { readInvoice, readXml, structureFaults } from '../src/ubl/index.js';
import { type Caller, House } from './house.js';

interface Invoice {
  gross: string;
  open: string;
  currency: string;
  shown: {
    currency: string;
    rate: string;
    net: string;
    tax: string;
    gross: string;
    open: string;
    lines: { amount: string; net: string }[];
  } | null;
  entries: { debit: string; credit: string; amount: string }[];
}

/** Customers who are invoiced in a currency of their own. */
describe('an invoice in another currency', () => {
  let house: House;
  let books: Caller;
  let maren: Caller;

  beforeAll(async () => {
    house = await House.open();
    [books, maren] = await Promise.all([house.as('Beth'), house.as('Maren')]);
    await house.stock('SMK-LGE', 'A-01-1', 60);
    await house.source.query(
      `INSERT INTO currency (code, rate, as_of) VALUES ('EUR', 0.85, '2026-01-01') ON DUPLICATE KEY UPDATE rate = 0.85`,
    );
    await maren.post('customers', customer('BIENE', 'EUR')).expect(201);
  });
  afterAll(() => house.close());

  const customer = (code: string, currency: string | null) => ({ code, name: `Imkerei ${code}`, email: 'i@mail.example', phone: '', addressLine: 'Weg 1', city: 'Altstadt', postcode: '12345', country: 'DE', note: '', termsDays: 30, wholeOnly: false, currency, addresses: [], prices: [] }); // prettier-ignore
  async function gone(units: number, price = '10', account = 'BIENE'): Promise<string> {
    const code = await house.order([['SMK-LGE', units]], { account });
    await house.source.query('UPDATE sales_order_line l JOIN sales_order o ON o.id = l.order_id SET l.price = ? WHERE o.code = ?', [
      price,
      code,
    ]);
    await house.shipped(code, 1, units);
    return code;
  }
  const made = async (orders: string[], more: object = {}) =>
    ((await books.post('invoices', { orders, ...more }).expect(201)).body as { code: string }).code;
  const sheet = async (code: string) => (await books.get(`invoices/${code}`).expect(200)).body as Invoice;
  const pay = async (amount: string, says: string) =>
    ((await maren.post('payments', { paidOn: new Date().toISOString().slice(0, 10), amount, says }).expect(201)).body as { id: number }).id;

  it('is reckoned in it as a document of its own, at the rate of the day; the books stay in the house’s money', async () => {
    const orders = [await gone(3)];
    expect((await books.post('invoices/preview', { orders }).expect(200)).body).toMatchObject({
      gross: '36.00',
      theirCurrency: 'EUR',
      inTheirs: '42.35',
    });
    const code = await made(orders);
    const invoice = await sheet(code);
    // 30.00 at 0.85 are 35.29, and 20 % on these 7.06.
    expect(invoice).toMatchObject({
      gross: '36.00',
      currency: 'GBP',
      shown: { currency: 'EUR', rate: '0.85', net: '35.29', tax: '7.06', gross: '42.35', open: '42.35' },
    });
    expect(invoice.entries.map((e) => e.amount)).toEqual(['30.000000', '6.000000']);
    const xml = readXml(Buffer.from((await books.get(`invoices/${code}/xml`).expect(200)).text));
    expect(structureFaults(xml)).toEqual([]);
    expect(readInvoice(xml)).toMatchObject({ currency: 'EUR', net: '35.29', gross: '42.35', lines: [{ net: '35.29' }] });
    await books.get(`invoices/${code}/pdf`).expect(200);
    expect((await books.get('statements/BIENE')).body).toMatchObject({ currency: 'EUR', owed: '42.35' });
    // Three lines of 4.39, each rounded: the document says 18.58, though 15.80 at 0.85 are 18.59; so does all that speaks of it.
    const three = await made([await gone(1, '4.39'), await gone(1, '4.39'), await gone(1, '4.39')]);
    const said = (await sheet(three)).shown;
    expect(said).toMatchObject({ gross: '18.58', open: '18.58' });
    const statement = (await books.get('statements/BIENE')).body as { owed: string; rows: { code: string; gross: string; open: string }[] };
    expect(statement.rows.find((r) => r.code === three)).toMatchObject({ gross: '18.58', open: '18.58' });
    // A later rate changes nothing of it, nor of what is credited.
    await house.source.query(`UPDATE currency SET rate = 0.9 WHERE code = 'EUR'`);
    const { code: credit } = (
      await books.post(`invoices/${code}/credit`, { reason: 'One came broken', again: false, lines: [{ line: 1, units: 1 }] }).expect(201)
    ).body as { code: string };
    expect((await sheet(credit)).shown).toMatchObject({ rate: '0.85', gross: '-14.11' });
    await house.source.query(`UPDATE currency SET rate = 0.85 WHERE code = 'EUR'`);
  });

  it('leaves what the rate did as a loss or a gain, and only once something is paid', async () => {
    const [short, over] = [await made([await gone(2)]), await made([await gone(2)])];
    expect((await books.post(`invoices/${short}/exchange-difference`)).body).toMatchObject({
      detail: expect.stringContaining('Nothing of'),
    });
    await pay('23.40', short);
    await books.post(`invoices/${short}/exchange-difference`).expect(200);
    expect(await sheet(short)).toMatchObject({
      open: '0.00',
      entries: expect.arrayContaining([{ debit: 'exchange difference', credit: 'trade debtors', amount: '0.600000' }]),
    });
    const id = await pay('24.75', over);
    await maren.post(`payments/${id}/gain`).expect(200);
    expect((await maren.post(`payments/${id}/gain`)).status).toBe(409);
    // The payment never came: the gain goes with it.
    await maren.post(`payments/${id}/take-back`).expect(204);
    expect(await sheet(over)).toMatchObject({ open: '24.00' });
    const [left] = await house.source.query<{ n: string }[]>(
      `SELECT SUM(IF(debit = 'exchange difference', amount, -amount)) AS n FROM value_entry WHERE 'exchange difference' IN (debit, credit) AND payment_id = ?`,
      [id],
    );
    expect(Number(left?.n)).toBe(0);
  });

  it('is for those who have one: no difference in the house’s own money, no currency that nobody knows', async () => {
    await maren.post('customers', customer('HOME', null)).expect(201);
    const own = await made([await gone(1, '10', 'HOME')]);
    const id = await pay('11.00', own);
    expect((await sheet(own)).shown).toBeNull();
    expect((await books.post(`invoices/${own}/exchange-difference`)).body).toMatchObject({ detail: expect.stringContaining('own money') });
    await pay('5.00', own);
    expect((await maren.post(`payments/${id}/gain`)).status).toBe(409);
    expect((await maren.post('customers', customer('XX', 'QQZ'))).body).toMatchObject({
      fields: { currency: expect.stringContaining('no currency QQZ') },
    });
    await house.source.query(`UPDATE currency SET rate = 0 WHERE code = 'EUR'`).catch(() => undefined);
    await house.source.query(`UPDATE customer SET currency = 'USD' WHERE code = 'HOME'`);
    await house.source.query(`DELETE FROM currency WHERE code = 'USD'`).catch(() => undefined);
    expect((await books.post('invoices', { orders: [await gone(1, '10', 'HOME')] })).body).toMatchObject({
      fields: { orders: expect.stringContaining('Nobody has said a rate for USD') },
    });
  });
});
