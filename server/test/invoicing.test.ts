import { readInvoice, readXml, structureFaults } from '../src/ubl/index.js';
import { type Caller, House } from './house.js';
import { checked, takenIn } from './importing.js';

interface Invoice {
  code: string;
  net: string;
  tax: string;
  gross: string;
  open: string;
  overdue: boolean;
  creditedBy: string[];
  lines: { line: number; order: string | null; sku: string; units: number; amount: string; credited: number }[];
  payments: { amount: string }[];
  entries: { debit: string; credit: string; amount: string }[];
}

describe('invoices', () => {
  let house: House;
  let books: Caller;
  let maren: Caller;

  beforeAll(async () => {
    house = await House.open();
    [books, maren] = await Promise.all([house.as('Beth'), house.as('Maren')]);
    await house.source.query(
      `INSERT INTO tax_rate (code, name, percent) VALUES ('T20', 'Standard', 20), ('T5', 'Reduced', 5) ON DUPLICATE KEY UPDATE percent = VALUES(percent)`,
    );
    await house.source.query(`UPDATE item SET tax_code = 'T20' WHERE sku IN ('SMK-LGE', 'VEIL-RND')`);
    await house.source.query(`UPDATE item SET tax_code = 'T5' WHERE sku = 'BOK-LOG'`);
  });
  afterAll(() => house.close());

  /** An order at a price, of which so much has left the house. */
  async function delivered(lines: [sku: string, quantity: number, price: string][], more: object = {}): Promise<string> {
    for (const [sku, quantity] of lines) await house.stock(sku, 'A-01-1', quantity);
    const code = await house.order(
      lines.map(([sku, quantity]) => [sku, quantity]),
      more,
    );
    for (const [i, [, , price]] of lines.entries())
      await house.source.query(
        'UPDATE sales_order_line l JOIN sales_order o ON o.id = l.order_id SET l.price = ? WHERE o.code = ? AND l.line = ?',
        [price, code, i + 1],
      );
    return code;
  }
  /** Units of a line leave the house through the ledger. */
  const ship = (code: string, line: number, units: number) => house.shipped(code, line, units);
  const make = (orders: string[], more: object = {}) => books.post('invoices', { orders, ...more });
  const made = async (orders: string[], more: object = {}) => ((await make(orders, more).expect(201)).body as { code: string }).code;
  const sheet = async (code: string) => (await books.get(`invoices/${code}`).expect(200)).body as Invoice;
  const open = async () =>
    ((await books.get('invoices/open?limit=500').expect(200)).body as { rows: { code: string; amount: string; differing: number }[] }).rows;

  it('are over what was delivered, line by line, with tax by rate and the entries that say so', async () => {
    const order = await delivered([['SMK-LGE', 3, '24.50'], ['BOK-LOG', 2, '9.99']]); // prettier-ignore
    expect((await open()).map((o) => o.code)).not.toContain(order);
    expect((await make([order])).status).toBe(400);
    await ship(order, 1, 2);
    await ship(order, 2, 2);
    expect((await open()).find((o) => o.code === order)).toMatchObject({ amount: '68.98', differing: 1 });
    const preview = (await books.post('invoices/preview', { orders: [order] }).expect(200)).body as {
      lines: { differs: string }[];
      gross: string;
    };
    expect(preview.lines.map((l) => l.differs)).toEqual(['1 still to come', '']);
    const code = await made([order], { freight: '4.95', freightTax: 'T20', note: 'With thanks' });
    const invoice = await sheet(code);
    // 49.00 + 4.95 at 20 %, 19.98 at 5 %.
    expect(invoice).toMatchObject({ net: '73.93', tax: '11.79', gross: '85.72', open: '85.72', overdue: false });
    expect(invoice.entries).toEqual([
      { debit: 'trade debtors', credit: 'sales', amount: '68.980000' },
      { debit: 'trade debtors', credit: 'freight charged', amount: '4.950000' },
      { debit: 'trade debtors', credit: 'sales tax', amount: '11.790000' },
    ]);
    expect((await open()).map((o) => o.code)).not.toContain(order);
    await ship(order, 1, 1);
    const second = await sheet(await made([order]));
    expect(second.lines).toMatchObject([{ sku: 'SMK-LGE', units: 1, amount: '24.50' }]);
  });

  it('hold a kit under its own price, once all of its parts have left', async () => {
    const [kit, smoker, book] = await Promise.all(['MRK-PEN', 'SMK-LGE', 'BOK-LOG'].map((sku) => house.itemId(sku)));
    await house.source.query(`UPDATE item SET kind = 'kit', tax_code = 'T20' WHERE id = ?`, [kit]);
    await house.source.query('INSERT INTO item_part (item_id, part_item_id, units) VALUES (?, ?, 1), (?, ?, 2)', [kit, smoker, kit, book]);
    await house.stock('SMK-LGE', 'A-01-1', 2);
    await house.stock('BOK-LOG', 'A-01-1', 4);
    const order = await delivered([['MRK-PEN', 2, '30']]);
    const parts: { line: number; units: number }[] = await house.source.query(
      'SELECT l.line, l.units FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id WHERE o.code = ? AND l.kit_line IS NOT NULL ORDER BY l.units',
      [order],
    );
    await ship(order, parts[0]!.line, 2);
    expect((await make([order])).status).toBe(400);
    await ship(order, parts[1]!.line, 2);
    expect((await sheet(await made([order]))).lines).toMatchObject([{ sku: 'MRK-PEN', units: 1, amount: '30.00' }]);
    await ship(order, parts[1]!.line, 2);
    expect((await sheet(await made([order]))).lines).toMatchObject([{ sku: 'MRK-PEN', units: 1, amount: '30.00' }]);
  });

  it('cost in parts what they would have cost at once', async () => {
    const order = await delivered([['VEIL-RND', 3, '0.335']]);
    const amounts: number[] = [];
    for (let i = 0; i < 3; i++) {
      await ship(order, 1, 1);
      amounts.push(Number((await sheet(await made([order]))).net));
    }
    expect(amounts.reduce((a, b) => a + b, 0)).toBeCloseTo(1.01, 10);
  });

  it('merge shipments of one customer, never of two', async () => {
    const mine = { customer: 'Wick Hill Farm', email: 'wick@hill.example' };
    const [one, two, other] = [await delivered([['SMK-LGE', 1, '10']], mine), await delivered([['BOK-LOG', 1, '20']], mine), await delivered([['SMK-LGE', 1, '10']], { customer: 'Somebody else', email: 'else@x.example' })]; // prettier-ignore
    for (const order of [one, two, other]) await ship(order, 1, 1);
    expect((await make([one, other])).body).toMatchObject({ fields: { orders: expect.stringContaining('different customers') } });
    const invoice = await sheet(await made([one, two], { discountPercent: '10' }));
    expect(invoice.lines.map((l) => [l.order, l.amount])).toEqual([[one, '9.00'], [two, '18.00']]); // prettier-ignore
  });

  it('hold no unit twice, and their numbers have no gap, whoever posts at once and whatever fails between', async () => {
    const orders = await Promise.all(Array.from({ length: 10 }, () => delivered([['SMK-LGE', 1, '10']])));
    for (const order of orders) await ship(order, 1, 1);
    const answers = await Promise.all([...orders, ...orders, 'S-99999'].map((order) => make([order])));
    expect(answers.map((a) => a.status).sort()).toEqual([...Array(10).fill(201), ...Array(10).fill(400), 404]);
    const codes: { code: string }[] = await house.source.query(`SELECT code FROM invoice WHERE kind = 'invoice' ORDER BY id`);
    expect(codes.map((c) => Number(c.code.slice(2)))).toEqual(codes.map((_, i) => i + 1));
  });

  it('say prices with the tax in them where the channel does', async () => {
    await house.source.query(`UPDATE channel SET prices_hold_tax = 1 WHERE code = 'PHONE'`);
    const order = await delivered([['SMK-LGE', 3, '9.99'], ['BOK-LOG', 1, '10.00']]); // prettier-ignore
    await ship(order, 1, 3);
    await ship(order, 2, 1);
    const invoice = await sheet(await made([order]));
    expect(invoice).toMatchObject({ gross: '39.97', net: '34.50', tax: '5.47' });
    await house.source.query(`UPDATE channel SET prices_hold_tax = 0 WHERE code = 'PHONE'`);
  });

  it('are credited in part and in whole, never beyond; what was invoiced wrongly may be invoiced again', async () => {
    const order = await delivered([['VEIL-RND', 3, '0.335'], ['SMK-LGE', 1, '10']]); // prettier-ignore
    await ship(order, 1, 3);
    await ship(order, 2, 1);
    const code = await made([order]);
    const credit = (lines: object[], again = false) => books.post(`invoices/${code}/credit`, { reason: 'Torn', again, lines });
    const notes = [];
    for (let i = 0; i < 3; i++)
      notes.push(await sheet(((await credit([{ line: 1, units: 1 }]).expect(201)).body as { code: string }).code));
    expect(notes.reduce((sum, n) => sum + Number(n.net), 0)).toBeCloseTo(-1.01, 10);
    expect((await credit([{ line: 1, units: 1 }])).body).toMatchObject({ fields: { 'lines.0.units': expect.stringContaining('only 0') } });
    await credit([{ line: 9, units: 1 }]).expect(400);
    await books.post(`invoices/${notes[0]?.code}/credit`, { reason: 'x', again: false, lines: [{ line: 1, units: 1 }] }).expect(409);
    expect((await make([order])).status).toBe(400);
    await credit([{ line: 2, units: 1 }], true).expect(201);
    expect(await sheet(code)).toMatchObject({ open: '0.00' });
    expect((await sheet(await made([order]))).lines).toMatchObject([{ sku: 'SMK-LGE', units: 1, amount: '10.00' }]);
  });

  it('are paid by what names them, from a bank’s file once, and the rest by hand', async () => {
    const order = await delivered([['BOK-LOG', 2, '50']]);
    await ship(order, 1, 2);
    const code = await made([order]);
    const pay = (body: object) => books.post('payments', { paidOn: '2026-05-14', ...body });
    expect((await pay({ amount: '40', says: `part of ${code.toLowerCase()}` }).expect(201)).body).toMatchObject({
      invoices: [code],
      free: '0.00',
    });
    expect(await sheet(code)).toMatchObject({ open: '65.00', payments: [{ amount: '40.00' }] });
    const file = `Date;Amount;Purpose;Transaction id\n14.05.2026;65,00;INV ${code} thanks;TX-1\n15.05.2026;12,00;no number;TX-2\n`;
    await takenIn(house, maren, 'bank.csv', file);
    expect(await sheet(code)).toMatchObject({ open: '0.00' });
    // The bank's next list has the days of the last one too.
    const run = await takenIn(house, maren, 'bank2.csv', `${file}16.05.2026;1,00;${code};TX-3\n`);
    expect(run.made).toBe(1);
    const other = await checked(house, maren, 'bank3.csv', file.replace('65,00', '66,00'));
    expect(other.faults.map((f) => f.reason)).toEqual([expect.stringContaining('noted before, over 65.00')]);
    await maren.post(`imports/${run.id}/undo`).expect(204);
    expect((await pay({ amount: '0', says: '' })).status).toBe(400);
    expect((await pay({ paidOn: '2026-W10-1', amount: '5', says: '' })).status).toBe(400);
    expect((await pay({ amount: '5', says: '', bankRef: 'TX-1' })).body).toMatchObject({
      fields: { bankRef: expect.stringContaining('noted before') },
    });
    const { rows } = (await books.get('payments').expect(200)).body as { rows: { id: number; free: string; says: string }[] };
    const free = rows.find((p) => p.says === 'no number');
    expect(free?.free).toBe('12.00');
    expect((await books.post(`payments/${free?.id}/use`, { invoice: code })).body).toMatchObject({
      fields: { invoice: expect.stringContaining('is paid') },
    });
    const next = await delivered([['BOK-LOG', 1, '8']]);
    await ship(next, 1, 1);
    const owed = await made([next]);
    const used = await Promise.all([1, 2].map(() => books.post(`payments/${free?.id}/use`, { invoice: owed })));
    expect(used.map((u) => u.status).sort()).toEqual([200, 400]);
    expect(await sheet(owed)).toMatchObject({ open: '0.00' });
    await books.post(`payments/${free?.id}/take-back`).expect(204);
    expect(await sheet(owed)).toMatchObject({ open: '8.40', payments: [] });
    await books.post(`payments/${free?.id}/take-back`).expect(409);
  });

  it('pay back what a credit note holds once its invoice was paid', async () => {
    const order = await delivered([['SMK-LGE', 1, '10']]);
    await ship(order, 1, 1);
    const code = await made([order]);
    await books.post('payments', { paidOn: '2026-05-14', amount: '12', says: code }).expect(201);
    const note = (
      (await books.post(`invoices/${code}/credit`, { reason: 'Returned', again: false, lines: [{ line: 1, units: 1 }] }).expect(201))
        .body as { code: string }
    ).code;
    expect(await sheet(note)).toMatchObject({ gross: '-12.00', open: '-12.00' });
    await books.post(`invoices/${note}/paid-back`).expect(200);
    expect(await sheet(note)).toMatchObject({ open: '0.00' });
    await books.post(`invoices/${note}/paid-back`).expect(409);
    await books.post(`invoices/${code}/paid-back`).expect(409);
  });

  it('are taken back whole, whoever gives them away meanwhile, and a credit note that waited is set off', async () => {
    const owing = async () => {
      const order = await delivered([['SMK-LGE', 1, '10']]);
      await ship(order, 1, 1);
      return made([order]);
    };
    const noted = async (says: string) => {
      const { body } = await books.post('payments', { paidOn: '2026-05-14', amount: '12', says }).expect(201);
      return (body as { id: number }).id;
    };
    for (let i = 0; i < 5; i++) {
      const [code, id] = [await owing(), await noted('unnamed')];
      const [, taken] = await Promise.all([books.post(`payments/${id}/use`, { invoice: code }), books.post(`payments/${id}/take-back`)]);
      expect(taken.status).toBe(204);
      expect(await sheet(code)).toMatchObject({ open: '12.00', payments: [] });
    }
    const code = await owing();
    const id = await noted(code);
    const credit = { reason: 'Returned', again: false, lines: [{ line: 1, units: 1 }] };
    const note = ((await books.post(`invoices/${code}/credit`, credit).expect(201)).body as { code: string }).code;
    expect(await sheet(note)).toMatchObject({ open: '-12.00' });
    await books.post(`payments/${id}/take-back`).expect(204);
    expect([await sheet(code), await sheet(note)]).toMatchObject([{ open: '0.00' }, { open: '0.00' }]);
  });

  it('go out as paper and as UBL 2.1, which reads back as it was written, by mail too', async () => {
    const order = await delivered([['SMK-LGE', 2, '24.50']]);
    await ship(order, 1, 2);
    const code = await made([order]);
    const note = (
      (await books.post(`invoices/${code}/credit`, { reason: 'Dented', again: false, lines: [{ line: 1, units: 1 }] }).expect(201))
        .body as { code: string }
    ).code;
    for (const [document, kind, gross] of [
      [code, 'invoice', '58.80'],
      [note, 'credit', '29.40'],
    ] as const) {
      const { body } = await books.get(`invoices/${document}/xml`).buffer(true).parse((r, done) => { const parts: Buffer[] = []; r.on('data', (p: Buffer) => parts.push(p)); r.on('end', () => done(null, Buffer.concat(parts))); }); // prettier-ignore
      const root = readXml(body as Buffer);
      expect(structureFaults(root)).toEqual([]);
      expect(readInvoice(root)).toMatchObject({ kind, code: document, gross, credits: kind === 'credit' ? code : null, lines: [{ sku: 'SMK-LGE', order }] }); // prettier-ignore
      await books.get(`invoices/${document}/pdf`).expect(200).expect('content-type', 'application/pdf');
    }
    await books.post(`invoices/${code}/send`).expect(204);
    expect((await house.outbox('mail.invoice')).at(-1)).toMatchObject({ code });
  });

  it('are for whoever keeps the books', async () => {
    const joss = await house.as('Joss');
    for (const path of ['invoices', 'invoices/open', 'invoices/I-0001', 'payments', 'journal', 'value', 'margin'])
      await joss.get(path).expect(403);
    await joss.post('invoices', { orders: ['S-1'] }).expect(403);
    await books.get('invoices/I-9999').expect(404);
    for (const path of [
      'journal?from=2026-13-45',
      'journal?to=2026-02-30',
      'journal/accounts?to=2026-13-45',
      'sales-tax?to=2026-13-45',
      'value?on=2026-13-45',
      'margin?from=2026-13-45',
    ])
      await books.get(path).expect(400);
  });

  it('say what sales were taxed with, to the penny what stands on the account', async () => {
    const tax = (await books.get('sales-tax').expect(200)).body as { tax: string; net: string; rows: { taxCode: string; tax: string }[] };
    const [posted] = await house.source.query<{ tax: string; net: string }[]>('SELECT SUM(tax) AS tax, SUM(net) AS net FROM invoice');
    expect([tax.tax, tax.net]).toEqual([posted?.tax, posted?.net]);
    expect(new Set(tax.rows.map((r) => r.taxCode))).toEqual(new Set(['T20', 'T5']));
    const { accounts } = (await books.get('journal/accounts').expect(200)).body as { accounts: { account: string; balance: string }[] };
    expect(accounts.find((a) => a.account === 'sales tax')?.balance).toBe(`-${tax.tax}0000`);
    expect(((await books.get('sales-tax?to=2001-01-01')).body as { rows: object[] }).rows).toEqual([]);
  });

  describe('value and margin', () => {
    const value = async (query = '') =>
      (await books.get(`value?limit=500&${query}`).expect(200)).body as {
        value: string;
        rows: { key: string; units: number; value: string }[];
        ages: { value: string }[];
      };

    it('say what stock is worth now, by item and class, and how old it is, to the last digit', async () => {
      const [items, classes] = [await value(), await value('by=class')];
      expect(classes.value).toBe(items.value);
      const sum = (rows: { value: string }[]) => rows.reduce((all, r) => all + BigInt(r.value.replace('.', '')), 0n);
      expect(sum(items.rows)).toBe(BigInt(items.value.replace('.', '')));
      expect(sum(classes.rows)).toBe(sum(items.rows));
      const pool = await house.source.query<{ value: string }[]>('SELECT SUM(value) AS value FROM cost_pool');
      expect(items.value).toBe(pool[0]?.value);
    });

    it('know that there was none on a day before it came', async () => {
      const item = async (on: string) => (await value(`search=GLV-XS&on=${on}`)).rows;
      await house.source.query(`UPDATE item SET cost = 2 WHERE sku = 'GLV-XS'`);
      await house.stock('GLV-XS', 'A-02-1', 5);
      await house.stock('GLV-XS', 'A-02-1', 3);
      const days = (n: number) => new Date(Date.now() + n * 86_400_000).toISOString().slice(0, 10);
      expect(await item(days(-2))).toEqual([]);
      for (const on of ['', days(1)]) expect(await item(on)).toMatchObject([{ key: 'GLV-XS', units: 8, value: '16.000000' }]);
      await books.get('value?on=yesterday').expect(400);
    });

    it('say what was left of an order with the cost at which its goods left', async () => {
      await house.source.query(`UPDATE item SET cost = 3 WHERE sku = 'GLV-S'`);
      const order = await delivered([['GLV-S', 4, '5']], { customer: 'Margin & Co', email: 'm@co.example' });
      await ship(order, 1, 4);
      await made([order]);
      const by = async (what: string) =>
        (await books.get(`margin?by=${what}`).expect(200)).body as {
          rows: { key: string; net: string; cost: string; margin: string; share: number; ahead: boolean }[];
        };
      expect((await by('order')).rows.find((r) => r.key === order)).toMatchObject({
        net: '20.000000',
        cost: '12.000000',
        margin: '8.000000',
        share: 4000,
        ahead: false,
      });
      expect((await by('customer')).rows.find((r) => r.key === 'Margin & Co')).toMatchObject({ margin: '8.000000' });
      expect((await by('channel')).rows).toHaveLength(1);
      const [orders, items] = [await by('order'), await by('item')];
      expect(items.rows.find((r) => r.key === 'GLV-S')).toMatchObject({ net: '20.000000', cost: '12.000000', share: 4000 });
      // A kit stands under its own name with what its parts cost, and all of it is the same money.
      const kit = items.rows.find((r) => r.key === 'MRK-PEN');
      expect(kit).toMatchObject({ net: '60.000000' });
      expect(Number(kit?.cost)).toBeGreaterThan(0);
      const sum = (rows: { net: string }[]) => rows.reduce((n, r) => n + Number(r.net), 0).toFixed(2);
      expect(sum(items.rows)).toBe(sum(orders.rows));
      expect(((await books.get('margin?to=2001-01-01')).body as { rows: object[] }).rows).toEqual([]);
    });
  });

  describe('the journal', () => {
    interface Preview { entries: number; unnamed: string[] } // prettier-ignore
    const today = new Date().toISOString().slice(0, 10);
    const preview = async () => (await books.get(`journal/export-preview?through=${today}`).expect(200)).body as Preview;
    const csv = async (code: string) => (await books.get(`exports/lists/journal.csv?export=${code}`).expect(200)).text.trim().split('\n');

    it('balances, and what stock is worth is what stands on its account', async () => {
      const { accounts, stockWorth, stockAccount } = (await books.get('journal/accounts').expect(200)).body as {
        accounts: { balance: string }[];
        stockWorth: string;
        stockAccount: string;
      };
      expect(stockWorth).toBe(stockAccount);
      expect(accounts.reduce((sum, a) => sum + BigInt(a.balance.replace('.', '')), 0n)).toBe(0n);
    });

    it('goes out once, in the company’s own accounts, and the same file under its number for ever', async () => {
      const { entries, unnamed } = await preview();
      expect(entries).toBeGreaterThan(20);
      expect((await books.post('journal/exports', { through: today })).body).toMatchObject({
        fields: { through: expect.stringContaining(unnamed[0] ?? '') },
      });
      const { version } = (await books.get('journal/accounts')).body as { version: number };
      const named = unnamed.map((account, i) => ({ account, number: String(1000 + i), name: account }));
      await books
        .put('journal/accounts', { accounts: [...named, { account: 'no such', number: '1', name: '' }] }, { 'if-match': `"${version}"` })
        .expect(400);
      await books.put('journal/accounts', { accounts: named }, { 'if-match': `"${version}"` }).expect(204);
      const answers = await Promise.all([1, 2].map(() => books.post('journal/exports', { through: today })));
      expect(answers.map((a) => a.status).sort()).toEqual([201, 409]);
      const { code } = answers.find((a) => a.status === 201)?.body as { code: string };
      const lines = await csv(code);
      expect(lines).toHaveLength(entries + 1);
      await books.post('journal/exports', { through: today }).expect(409);
      await house.stock('SMK-LGE', 'A-01-1', 1);
      expect(await csv(code)).toEqual(lines);
      const next = ((await books.post('journal/exports', { through: today }).expect(201)).body as { code: string }).code;
      expect(await csv(next)).toHaveLength((await csv(next)).length);
      expect(Number(next.slice(2))).toBe(Number(code.slice(2)) + 1);
      await books.get('exports/lists/journal.csv?export=J-9999').expect(404);
      await books.post('journal/exports', { through: '2099-01-01' }).expect(400);
    });
  });
});
