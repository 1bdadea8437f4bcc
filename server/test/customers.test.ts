import { randomUUID } from 'node:crypto';
import { type Caller, House } from './house.js';

let house: House;
let orla: Caller;
beforeAll(async () => {
  house = await House.open();
  orla = await house.as('Orla');
});
afterAll(() => house.close());

const customer = (more: object = {}) => ({
  code: 'WICK',
  name: 'Wick Hill Farm',
  email: 'wickhill@mail.example',
  phone: '01632 960 117',
  addressLine: '2 Beacon Row',
  city: 'Netherwick',
  postcode: 'NW8 2RE',
  country: 'GB',
  note: 'Rings the bell at the side door',
  termsDays: 14,
  wholeOnly: false,
  addresses: [],
  prices: [],
  ...more,
});
interface Sheet {
  code: string;
  name: string;
  version: number;
  orders: { code: string; state: string }[];
}
const sheet = async (code: string, who = orla) => (await who.get(`customers/${code}`).expect(200)).body as Sheet;
const named = async (search: string) =>
  ((await orla.get(`customers?search=${encodeURIComponent(search)}`).expect(200)).body.rows as Sheet[]).map((c) => c.code);

describe('customers', () => {
  it('are made once, however often the button is pressed', async () => {
    const key = randomUUID();
    for (let i = 0; i < 3; i++) {
      const answer = await orla.post('customers', customer({ code: 'moss' }), { 'idempotency-key': key });
      expect([200, 201]).toContain(answer.status);
      expect(answer.body).toEqual({ code: 'MOSS' });
    }
    expect(await named('MOSS')).toEqual(['MOSS']);
  });

  it('have a code of their own', async () => {
    await orla.post('customers', customer()).expect(201);
    const answer = await orla.post('customers', customer({ code: 'wick', name: 'Another' })).expect(400);
    expect(answer.body).toMatchObject({ fields: { code: 'WICK is taken. Choose another code' } });
  });

  it.each([
    ['code', 'a b'],
    ['code', 'X'],
    ['name', ''],
    ['email', 'not-an-address'],
    ['country', 'gb'],
    ['country', 'Great Britain'],
    ['note', 'x'.repeat(301)],
    ['postcode', 'x'.repeat(21)],
  ])('are refused with a %s of %j, by field', async (field, value) => {
    const answer = await orla.post('customers', customer({ code: 'BAD', [field]: value })).expect(400);
    expect(Object.keys((answer.body as { fields: object }).fields)).toContain(field);
    expect(await named('BAD')).toEqual([]);
  });

  it('need no e-mail address', async () => {
    await orla.post('customers', customer({ code: 'NOMAIL', name: 'Cash and carry', email: '' })).expect(201);
    expect((await sheet('NOMAIL')).orders).toEqual([]);
  });

  it('are found by code, name and town, with wildcards as plain signs', async () => {
    expect(await named('wick hill')).toContain('WICK');
    expect(await named('netherw')).toContain('WICK');
    expect(await named('100%')).toEqual([]);
    expect(await named('_')).toEqual([]);
  });

  it('have several addresses and prices of their own, which are kept as one with them', async () => {
    const barn = { name: 'North barn', addressLine: '4 Barn Row', city: 'Netherwick', postcode: 'NW8 2RF', country: 'GB' };
    const price = { sku: 'jar-454-rd', factor: 48, price: '39.90' };
    await orla.post('customers', customer({ code: 'BARN', addresses: [barn], prices: [price] })).expect(201);
    expect(await sheet('BARN')).toMatchObject({ termsDays: 14, addresses: [barn], prices: [{ sku: 'JAR-454-RD', factor: 48 }] });
    const bad = customer({ code: 'BARN', addresses: [barn, { ...barn, name: 'north barn' }], prices: [] });
    const twice = await orla.put('customers/BARN', bad, { 'if-match': '"1"' }).expect(400);
    expect(Object.keys((twice.body as { fields: object }).fields)).toEqual(['addresses.1.name']);
    const unknown = customer({ code: 'BARN', prices: [{ ...price, sku: 'NO-SUCH' }] });
    expect((await orla.put('customers/BARN', unknown, { 'if-match': '"1"' }).expect(400)).body).toMatchObject({
      fields: { 'prices.0.sku': 'There is no item NO-SUCH' },
    });
    // Nothing of what was refused is kept.
    expect(await sheet('BARN')).toMatchObject({ version: 1, addresses: [barn], prices: [{ sku: 'JAR-454-RD' }] });
  });

  it('show their orders, newest first, of the sites of whoever looks', async () => {
    const older = await house.order([['JAR-1L', 1]]);
    const newer = await house.order([['JAR-1L', 2]]);
    expect((await sheet('WICK')).orders.slice(0, 2).map((o) => o.code)).toEqual([newer, older]);
    await house.source.query('UPDATE sales_order SET site_id = 2 WHERE code = ?', [newer]);
    expect((await sheet('WICK', await house.as('Ines'))).orders.map((o) => o.code)).toEqual([older]);
    await house.source.query('UPDATE sales_order SET site_id = 1 WHERE code = ?', [newer]);
  });

  it('are changed from the version that was seen', async () => {
    const { version } = await sheet('WICK');
    const to = customer({ name: 'Wick Hill Farm & Sons' });
    await orla.put('customers/WICK', to, { 'if-match': `"${version}"` }).expect(200);
    const late = await orla.put('customers/WICK', customer(), { 'if-match': `"${version}"` }).expect(412);
    expect(late.body).toMatchObject({ code: 'version' });
    expect(await sheet('WICK')).toMatchObject({ name: 'Wick Hill Farm & Sons', version: version + 1 });
  });

  it('are changed by one of two who change them at once', async () => {
    const { version } = await sheet('WICK');
    const answers = await Promise.all(
      ['One', 'Two', 'Three'].map((name) => orla.put('customers/WICK', customer({ name }), { 'if-match': `"${version}"` })),
    );
    expect(answers.map((a) => a.status).sort()).toEqual([200, 412, 412]);
    expect((await sheet('WICK')).version).toBe(version + 1);
  });

  it('are kept by the order desk; others read', async () => {
    const ines = await house.as('Ines');
    await ines.get('customers').expect(200);
    await ines.post('customers', customer({ code: 'INES' })).expect(403);
    await ines.put('customers/WICK', customer(), { 'if-match': '"1"' }).expect(403);
  });

  it('that are not there are said not to be', async () => {
    expect((await orla.get('customers/NOBODY').expect(404)).body).toMatchObject({ detail: expect.stringContaining('NOBODY') });
    await orla.put('customers/NOBODY', customer(), { 'if-match': '"1"' }).expect(404);
  });
});
