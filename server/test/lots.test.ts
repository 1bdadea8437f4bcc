import { type Caller, House } from './house.js';

let house: House;
let maren: Caller;
let ines: Caller;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
  ines = await house.as('Ines');
});
afterAll(() => house.close());

const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
const correct = (lot: string, body: object, who = maren, sku = 'SYR-05') => who.post(`trace/correct?sku=${sku}&lot=${lot}`, body);
const booksOf = async () =>
  (
    await house.source.query<{ worth: string; stock: string }[]>(
      `SELECT (SELECT SUM(value) FROM cost_pool) AS worth, (SELECT SUM(IF(debit = 'stock', amount, 0)) - SUM(IF(credit = 'stock', amount, 0)) FROM value_entry) AS stock`,
    )
  )[0];
const at = async (place: string) =>
  house.source.query<{ lot: string; units: number; condition: string }[]>(
    `SELECT l.code AS lot, b.units, b.stock_condition AS \`condition\` FROM balance b JOIN place p ON p.id = b.place_id JOIN lot l ON l.id = b.lot_id WHERE p.code = ? AND b.units > 0 ORDER BY l.code, b.stock_condition`,
    [place],
  );

describe('a lot', () => {
  it('that is recalled is held also where it comes in later, until it is free again', async () => {
    await house.stock('SYR-05', 'A-02-1', 4, { code: 'BAD-1', expires: '2028-01-01' });
    await maren.post('trace/hold?sku=SYR-05&lot=BAD-1', { reason: 'smells of vinegar' }).expect(200);
    await house.stock('SYR-05', 'A-02-2', 3, { code: 'BAD-1', expires: '2028-01-01' });
    await house.stock('SYR-05', 'A-02-2', 2, { code: 'GOOD-1', expires: '2028-02-01' });
    expect(await at('A-02-2')).toEqual([
      { lot: 'BAD-1', units: 3, condition: 'held' },
      { lot: 'GOOD-1', units: 2, condition: 'good' },
    ]);
    const { recalls } = (await maren.get('trace?sku=SYR-05&lot=BAD-1').expect(200)).body as { recalls: { version: number }[] };
    const freed = await maren.post('trace/free?sku=SYR-05&lot=BAD-1', {}, { 'if-match': `"${recalls[0]!.version}"` }).expect(200);
    expect(freed.body).toMatchObject({ units: 7 });
    expect((await at('A-02-2'))[0]).toMatchObject({ lot: 'BAD-1', condition: 'good' });
  });

  it('gets the code and the date that stand on its label', async () => {
    await house.stock('SYR-05', 'A-03-1', 5, { code: 'L-0O1', expires: '2027-09-01' });
    await correct('L-0O1', { lot: 'L-001', expiresOn: '2027-10-01', why: 'an O for a nought' }, ines).expect(403);
    await correct('L-0O1', { lot: 'L-001', expiresOn: null, why: 'an O for a nought' }).expect(400);
    await correct('L-0O1', { lot: 'L-001', expiresOn: '2027-10-01', why: '' }).expect(400);
    await correct('L-0O1', { lot: ' ', expiresOn: '2027-10-01', why: 'a blank' }).expect(400);
    expect((await correct('L-0O1', { lot: 'L-001', expiresOn: '2027-10-01', why: 'an O for a nought' }).expect(200)).body).toEqual({
      lot: 'L-001',
      units: 0,
    });
    await maren.get('trace?sku=SYR-05&lot=L-0O1').expect(404);
    expect((await maren.get('trace?sku=SYR-05&lot=L-001').expect(200)).body).toMatchObject({ expiresOn: '2027-10-01' });
  });

  it('that is another by its label goes over to it wherever it lies, worth what it was worth', async () => {
    await house.stock('SYR-05', 'A-04-1', 5, { code: 'M-1', expires: '2027-11-01' });
    await house.stock('SYR-05', 'A-04-1', 2, { code: 'M-2', expires: '2027-11-01' });
    await house.stock('SYR-05', 'A-05-1', 6, { code: 'M-2', expires: '2027-11-01' });
    const before = await booksOf();
    await correct('M-2', { lot: 'M-1', expiresOn: '2027-12-01', why: 'one delivery' }).expect(400);
    const both = await Promise.all([1, 2].map(() => correct('M-2', { lot: 'M-1', expiresOn: '2027-11-01', why: 'one delivery' })));
    expect(both.map((r) => (r.body as { units?: number }).units).sort()).toEqual([0, 8]);
    expect(await at('A-04-1')).toEqual([{ lot: 'M-1', units: 7, condition: 'good' }]);
    expect(await at('A-05-1')).toEqual([{ lot: 'M-1', units: 6, condition: 'good' }]);
    expect(await booksOf()).toEqual(before);
  });

  it('is left alone where a round comes for it', async () => {
    await house.release(await house.order([['SYR-05', 2]]));
    const answer = await correct('L-001', { lot: 'M-1', expiresOn: '2027-11-01', why: 'one delivery' });
    expect([answer.status, (answer.body as { detail: string }).detail]).toEqual([409, expect.stringContaining('A-03-1')]);
  });
});

describe('what passes its date soon', () => {
  it('is told with what will be left of it, and what may be done', async () => {
    await house.stock('SYR-05', 'A-08-2', 9, { code: 'PAST', expires: inDays(-2) });
    await house.stock('SYR-05', 'A-08-2', 30, { code: 'NEXT', expires: inDays(28) });
    // With the two before, eight weeks have wanted 28 of it: one every other day.
    await house.order([['SYR-05', 26]]);
    const { lots } = (await maren.get('trace/expiring?days=60').expect(200)).body as {
      lots: { lot: string; left: number; todo: string; aWeek: number; days: number; units: number }[];
    };
    expect(lots.find((l) => l.lot === 'PAST')).toMatchObject({ days: -2, left: 9, todo: 'take-out' });
    const next = lots.find((l) => l.lot === 'NEXT')!;
    expect(next).toMatchObject({ days: 28, aWeek: 3.5, todo: 'mark-down' });
    expect(next.left).toBe(next.units - 14);
    expect(lots.every((l) => l.days <= 60)).toBe(true);
    expect(((await maren.get('trace/expiring?days=0')).body as { lots: { lot: string }[] }).lots.map((l) => l.lot)).toContain('PAST');
  });
});
