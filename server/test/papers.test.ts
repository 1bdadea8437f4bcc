import { type Caller, closing, House } from './house.js';

/** Papers beside invoices: what an order will come to, what left for it, what a customer owes. */
describe('papers for customers', () => {
  let house: House;
  let books: Caller;
  let maren: Caller;

  beforeAll(async () => {
    house = await House.open();
    [books, maren] = await Promise.all([house.as('Beth'), house.as('Maren')]);
    await house.stock('SMK-LGE', 'A-01-1', 10);
  });
  afterAll(() => house.close());

  const pdf = async (caller: Caller, path: string) => ((await caller.bytes(path).expect(200)).body as Buffer).subarray(0, 5).toString();

  it('say beforehand what all of an order will come to, and write nothing', async () => {
    const code = await house.order([['SMK-LGE', 3]]);
    expect(await pdf(await house.as('Orla'), `invoices/proforma/${code}`)).toBe('%PDF-');
    expect((await books.get('invoices')).body).toMatchObject({ rows: [] });
    expect((await books.get('invoices/proforma/S-99999')).status).toBe(404);
    expect((await (await house.as('Ines')).get(`invoices/proforma/${code}`)).status).toBe(403);
  });

  it('say what left for an order, once something has', async () => {
    await house.stock('JAR-454-RD', 'A-01-1', 6);
    const code = await house.order([['JAR-454-RD', 6]]);
    expect((await maren.get(`bench/orders/${code}/delivery-note`)).status).toBe(404);
    await house.pickAll(await house.release(code), 'T-09');
    const dilys = await house.packAll(code);
    await dilys.floor(closing(code, { weightG: 180 + 245 * 6 })).expect(200);
    await house.source.query(`UPDATE parcel SET state = 'labelled', tracking = 'HP1', carrier_id = COALESCE(carrier_id, (SELECT id FROM carrier WHERE code = 'HARRIER')) WHERE code = ?`, [`${code}-1`]); // prettier-ignore
    const handed = {
      kind: 'hand-over',
      siteId: 1,
      carrier: 'HARRIER',
      parcels: [`${code}-1`],
      driver: 'Odo Fenn',
      signature: 'M10 20L300 150',
    };
    await dilys.floor(handed).expect(200);
    expect(await pdf(maren, `bench/orders/${code}/delivery-note`)).toBe('%PDF-');
  });

  it('say what a customer owes, how old it is, and go by mail', async () => {
    const account = { code: 'OWES', name: 'Owes & Co', email: 'owes@mail.example', phone: '', addressLine: '1 Lane', city: 'Netherwick', postcode: 'NW8', country: 'GB', note: '', termsDays: 30, wholeOnly: false, addresses: [], prices: [] }; // prettier-ignore
    await maren.post('customers', account).expect(201);
    const invoiced = async (price: string): Promise<string> => {
      await house.stock('SMK-LGE', 'A-01-1', 1);
      const order = await house.order([['SMK-LGE', 1]], { account: 'OWES' });
      await house.source.query('UPDATE sales_order_line l JOIN sales_order o ON o.id = l.order_id SET l.price = ? WHERE o.code = ?', [
        price,
        order,
      ]);
      await house.shipped(order, 1, 1);
      return ((await books.post('invoices', { orders: [order] }).expect(201)).body as { code: string }).code;
    };
    const [old, fresh] = [await invoiced('10'), await invoiced('20')];
    await house.source.query(
      'UPDATE invoice SET issued_on = issued_on - INTERVAL 80 DAY, due_on = due_on - INTERVAL 80 DAY WHERE code = ?',
      [old],
    );
    await books.post(`invoices/${fresh}/credit`, { reason: 'half', again: false, lines: [{ line: 1, units: 1 }] }).expect(201);
    const statement = (await books.get('statements/owes').expect(200)).body as {
      owed: string;
      rows: { code: string; daysLate: number }[];
      ages: { amount: string }[];
    };
    expect(statement).toMatchObject({ owed: '12.00', rows: [{ code: old, daysLate: 50 }] });
    expect(statement.ages.map((a) => a.amount)).toEqual(['0.00', '0.00', '12.00', '0.00']);
    expect(await pdf(books, 'statements/OWES/pdf')).toBe('%PDF-');
    await books.post('statements/OWES/send').expect(204);
    expect((await house.outbox('mail.statement')).at(-1)).toMatchObject({ account: 'OWES', to: 'owes@mail.example' });
    expect((await books.get('statements/NOBODY')).status).toBe(404);
    await house.deliver();
  });

  it('go to a printer, wait in its tray, and for nobody who may not read them', async () => {
    await maren.post('labels/printers', { name: 'Office', siteId: 1, address: '127.0.0.1:9' }).expect(201);
    const [{ id } = { id: 0 }] = (await books.get('labels/printers').expect(200)).body as { id: number; name: string }[];
    const printed = (caller: Caller, paper: string, code: string) => caller.post('labels/papers', { paper, code, printerId: id });
    expect((await printed(books, 'invoice', 'I-0001').expect(201)).body).toMatchObject({ job: expect.any(Number) });
    expect((await printed(books, 'statement', 'owes')).status).toBe(201);
    const picker = await house.as('Ines');
    for (const paper of ['invoice', 'proforma', 'statement'])
      expect((await printed(picker, paper, paper === 'statement' ? 'OWES' : 'I-0001')).status).toBe(403);
    expect((await printed(books, 'nothing', 'I-0001')).status).toBe(404);
    const tray = (await books.get('labels/tray').expect(200)).body as { title: string; state: string }[];
    expect(tray.map((t) => t.title)).toEqual(expect.arrayContaining(['Invoice I-0001', 'Statement OWES']));
  });
});
