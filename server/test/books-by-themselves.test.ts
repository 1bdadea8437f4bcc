import { Timetables } from '../src/books/index.js';
import { addDays, siteDay } from '../src/platform/index.js';
import { type Caller, House } from './house.js';

interface Kept {
  what: string;
  every: string;
  lastSays: string;
  version: number;
}

/** What the books do by timetable, periods that are closed, and the journal as JSON. */
describe('the books by themselves', () => {
  let house: House;
  let books: Caller;
  let today: string;

  beforeAll(async () => {
    house = await House.open();
    books = await house.as('Beth');
    today = (await siteDay(house.source, null)).today;
    const { version, accounts } = (await books.get('journal/accounts').expect(200)).body as {
      version: number;
      accounts: { account: string }[];
    };
    await books
      .put(
        'journal/accounts',
        { accounts: accounts.map((a, i) => ({ account: a.account, number: String(1000 + i), name: '' })) },
        { 'if-match': `"${version}"` },
      )
      .expect(204);
  });
  afterAll(() => house.close());

  const kept = async (what: string) => ((await books.get('books/timetables').expect(200)).body as Kept[]).find((t) => t.what === what);
  const set = async (what: string, every: string | null) =>
    books.put(`books/timetables/${what}`, { every }, { 'if-match': `"${(await kept(what))?.version ?? 0}"` });
  const look = (day = today) => house.app.get(Timetables).look(day);
  /** An order that has left. */
  async function gone(more: object = {}): Promise<string> {
    await house.stock('SMK-LGE', 'A-01-1', 1);
    const code = await house.order([['SMK-LGE', 1]], more);
    await house.shipped(code, 1, 1);
    return code;
  }

  it('export the journal once a period, in the name of whoever set it, and never twice', async () => {
    expect((await set('export', 'week')).status).toBe(204);
    expect((await set('nothing', 'week')).status).toBe(400);
    expect((await set('export', 'year')).status).toBe(400);
    expect(await look()).toBe(0);
    for (const [debit, credit] of [['bank', 'trade debtors'], ['trade debtors', 'bank']]) // prettier-ignore
      await house.source.query(`INSERT INTO value_entry (at, debit, credit, amount, document) VALUES (UTC_TIMESTAMP() - INTERVAL 20 DAY, ?, ?, 1, 'T')`, [debit, credit]); // prettier-ignore
    const longAgo = () => house.source.query(`UPDATE timetable SET last_on = '2020-01-01'`);
    await longAgo();
    // Two servers look at once.
    const done = await Promise.all([look(), look()]);
    expect(done.reduce((a, b) => a + b, 0)).toBe(1);
    expect(await look()).toBe(0);
    expect((await kept('export'))?.lastSays).toMatch(/^J-\d+: 2 entries up to/);
    await longAgo();
    expect(await look()).toBe(1);
    expect((await kept('export'))?.lastSays).toMatch(/^Nothing was posted/);
  });

  it('say so where whoever set it may not do it any more', async () => {
    await house.source.query(`UPDATE timetable SET person_id = (SELECT id FROM person WHERE name LIKE 'Ines%')`);
    await house.source.query(`UPDATE timetable SET last_on = '2020-01-01'`);
    await look();
    expect((await kept('export'))?.lastSays).toContain('may not do it any more');
    expect((await set('export', null)).status).toBe(204);
    expect(await kept('export')).toBeUndefined();
  });

  it('invoice what left before the period: one invoice a customer, none for what left since', async () => {
    await gone({ customer: 'One', email: 'one@x.example' });
    await gone({ customer: 'Two', email: '' });
    expect((await set('invoices', 'day')).status).toBe(204);
    await look(addDays(today, 1));
    expect((await kept('invoices'))?.lastSays).toBe('2 invoices, 1 by mail');
    await gone({ customer: 'Three' });
    await look(addDays(today, 1));
    const { rows } = (await books.get('invoices/open').expect(200)).body as { rows: { customer: string }[] };
    expect(rows.map((r) => r.customer)).toEqual(['Three']);
    await look(addDays(today, 2));
    expect((await kept('invoices'))?.lastSays).toBe('1 invoice, 1 by mail');
    await look(addDays(today, 3));
    expect((await kept('invoices'))?.lastSays).toBe('Nothing had left that was not invoiced');
  });

  it('close a period once all of it has gone out, refuse days within it, and open it again with a reason', async () => {
    const through = addDays(today, -1);
    await house.source.query(
      `INSERT INTO value_entry (at, debit, credit, amount, document) VALUES (UTC_TIMESTAMP() - INTERVAL 3 DAY, 'bank', 'trade debtors', 1, 'T')`,
    );
    await house.source.query(
      `INSERT INTO value_entry (at, debit, credit, amount, document) VALUES (UTC_TIMESTAMP() - INTERVAL 3 DAY, 'trade debtors', 'bank', 1, 'T')`,
    );
    expect((await books.post('books/periods/close', { through: today })).status).toBe(400);
    expect((await books.post('books/periods/close', { through: '2026-13-45' })).status).toBe(400);
    expect((await books.post('books/periods/close', { through })).body).toMatchObject({
      fields: { through: expect.stringContaining('Export them first') },
    });
    const { code } = (await books.post('journal/exports', { through: today }).expect(201)).body as { code: string };
    await books.post('books/periods/close', { through }).expect(204);
    expect((await books.post('books/periods/close', { through })).body).toMatchObject({
      fields: { through: expect.stringContaining('already') },
    });
    const pay = (paidOn: string) => books.post('payments', { paidOn, amount: '5.00', says: 'Thanks' });
    expect((await pay(through)).body).toMatchObject({ fields: { paidOn: expect.stringContaining('closed') } });
    await pay(today).expect(201);
    await books.post('books/periods/reopen', { why: 'A payment was forgotten' }).expect(204);
    await pay(through).expect(201);
    expect((await books.post('books/periods/reopen', { why: 'Again' })).status).toBe(409);
    const { closedThrough, rows } = (await books.get('books/periods').expect(200)).body as {
      closedThrough: string | null;
      rows: { reopenedWhy: string }[];
    };
    expect([closedThrough, rows[0]?.reopenedWhy]).toEqual([null, 'A payment was forgotten']);
    const json = ((await books.bytes(`exports/lists/journal.json?export=${code}`).expect(200)).body as Buffer).toString();
    const entries = JSON.parse(json) as Record<string, string | number>[];
    expect(entries.length).toBeGreaterThan(2);
    expect(entries[0]).toMatchObject({ Export: code, 'Debit account': expect.stringMatching(/^10\d\d$/), Amount: expect.any(String) });
  });

  it('are for nobody who keeps no books', async () => {
    const picker = await house.as('Ines');
    expect((await picker.get('books/timetables')).status).toBe(403);
    expect((await picker.post('books/periods/close', { through: today })).status).toBe(403);
  });
});
