import { actAs } from '../src/demo/morning.js';
import { inTransaction } from '../src/platform/database/tx.js';
import { LedgerService } from '../src/stock/ledger.service.js';
import { type Caller, House, receipt } from './house.js';

interface Landed {
  value: string;
  each: string;
  parts: { says: string; document: string; amount: string; each: string }[];
}
interface Bill {
  state: string;
  version: number;
  total: string;
  lines: { finding: string; expected: string; difference: string; overWords: string | null }[];
  entries: { debit: string; credit: string; sku: string | null; amount: string }[];
}

describe('what stock costs', () => {
  let house: House;
  let buyer: Caller;
  let dock: Caller;
  let books: Caller;
  let dockId: number;
  let seq = 0;

  beforeAll(async () => {
    house = await House.open();
    [buyer, dock, books] = await Promise.all([house.as('Piet'), house.as('Ruben'), house.as('Beth')]);
    dockId = await house.placeId('DOCK-1');
  });
  afterAll(() => house.close());

  type Line = [sku: string, packs: number, factor: number, price: string];
  async function placed(lines: Line[], charges: object[] = [], supplier = 'QUILLON'): Promise<string> {
    const body = {
      supplier,
      siteId: 1,
      note: '',
      charges,
      lines: lines.map(([sku, packs, factor, price]) => ({ sku, packs, factor, price })),
    };
    const { code } = (await buyer.post('purchase-orders', body).expect(201)).body as { code: string };
    await buyer.post(`purchase-orders/${code}/place`, {}, { 'if-match': '"1"' }).expect(200);
    return code;
  }
  async function take(code: string, line: number, units: number): Promise<{ arrival: string; activityId: number }> {
    const { lines } = await dock.task<{
      lines: { lineId: number; itemId: number; line: number }[];
    }>('receive', code);
    const l = lines.find((x) => x.line === line)!;
    return (await dock.floor(receipt(code, { lineId: l.lineId, itemId: l.itemId, units, toPlaceId: dockId, how: 'scanned' })).expect(200))
      .body as { arrival: string; activityId: number };
  }
  const landed = async (arrival: string) =>
    ((await buyer.get(`arrivals/${arrival}`).expect(200)).body as { receipts: { landed: Landed }[] }).receipts
      .map((r) => r.landed)
      .reverse();
  const pool = async (sku: string) => {
    const [row] = await house.source.query<{ units: number; value: string }[]>(
      'SELECT p.units, p.value FROM cost_pool p JOIN item i ON i.id = p.item_id WHERE i.sku = ?',
      [sku],
    );
    return [row?.units, row?.value];
  };
  const enter = (goods: object[], charges: object[] = [], more: object = {}) =>
    books.post('bills', { supplier: 'QUILLON', ref: `INV-${++seq}`, billedOn: '2026-06-30', note: '', goods, charges, ...more });
  const bill = async (code: string) => (await books.get(`bills/${code}`).expect(200)).body as Bill;
  const coded = async (answer: ReturnType<typeof enter>) => ((await answer.expect(201)).body as { code: string }).code;
  /** Sends some away through the ledger, as a van does. */
  async function sell(sku: string, units: number): Promise<void> {
    const act = await actAs(house.source, 'Maren');
    const itemId = await house.itemId(sku);
    const ledger = house.app.get(LedgerService);
    await inTransaction(house.source, async (tx) => {
      const move = {
        itemId,
        lotId: 0,
        condition: 'good' as const,
        fromPlaceId: dockId,
        toPlaceId: await ledger.outside(tx, 'customer'),
        units,
      };
      await ledger.post(tx, act, [move], { task: 'ship', document: 'SOLD' });
    });
  }

  it('is the price and what falls on it of the charges, each share told', async () => {
    const code = await placed(
      [
        ['JAR-454-RD', 4, 48, '20.16'],
        ['LID-63-GD', 1, 1000, '48'],
      ],
      [{ says: 'Freight', amount: '120.00', by: 'value' }],
    );
    const { arrival } = await take(code, 1, 48);
    await take(code, 1, 144);
    await take(code, 2, 1000);
    const costs = await landed(arrival);
    expect(costs[0]).toMatchObject({
      value: '38.965000',
      each: '0.811771',
      parts: [
        { says: 'Price 20.16 for 48', document: code, amount: '20.160000', each: '0.420000' },
        { says: 'Freight, by value', document: code, amount: '18.805000' },
      ],
    });
    const freight = costs.reduce((sum, c) => sum + Number(c.parts[1]!.amount), 0);
    expect(freight).toBeCloseTo(120, 6);
    expect(await pool('JAR-454-RD')).toEqual([192, '155.860000']);
  });

  it('is taken into the house’s money at the rate of the day', async () => {
    await house.source.query(`UPDATE currency SET rate = 0.86 WHERE code = 'EUR'`);
    await house.source.query(`UPDATE supplier SET currency = 'EUR' WHERE code = 'TINDRA'`);
    const code = await placed([['VEIL-RND', 1, 20, '100']], [], 'TINDRA');
    const [cost] = await landed((await take(code, 1, 20)).arrival);
    expect(cost).toMatchObject({ value: '86.000000', parts: [{ says: 'Price 100.00 for 20 EUR at 0.86' }] });
  });

  it('is hidden from those who may not see costs', async () => {
    const code = await placed([['JAR-340-HX', 1, 48, '18']]);
    const { arrival } = await take(code, 1, 48);
    const seen = (await dock.get(`arrivals/${arrival}`).expect(200)).body as { receipts: { landed?: Landed }[] };
    expect(seen.receipts[0]!.landed).toBeUndefined();
    await dock.get('bills').expect(403);
    await buyer.get('bills').expect(403);
  });

  it('is hidden from a bookkeeper who may not see costs, and from one of another site', async () => {
    const order = await placed([['JAR-340-HX', 1, 48, '18']]);
    await take(order, 1, 48);
    const { code } = (await enter([{ order, line: 1, units: 48, amount: '18.00' }]).expect(201)).body as { code: string };
    const person = books.personId;
    await house.source.query('UPDATE person SET sees_costs = 0 WHERE id = ?', [person]);
    for (const path of ['bills', `bills/${code}`, 'bills/open?supplier=QUILLON'])
      expect((await books.get(path).expect(403)).text).toContain('may see costs');
    await enter([{ order, line: 1, units: 48, amount: '18.00' }]).expect(403);
    await house.source.query('UPDATE person SET sees_costs = 1 WHERE id = ?', [person]);
    const sites = await house.source.query<{ site_id: number }[]>('SELECT site_id FROM person_site WHERE person_id = ?', [person]);
    await house.source.query('DELETE FROM person_site WHERE person_id = ? AND site_id = 1', [person]);
    await books.get(`bills/${code}`).expect(404);
    expect((await books.get('bills').expect(200)).body).toEqual({ rows: [], total: 0 });
    await enter([{ order, line: 1, units: 48, amount: '18.00' }]).expect(403);
    await house.source.query('DELETE FROM person_site WHERE person_id = ?', [person]);
    for (const { site_id } of sites)
      await house.source.query('INSERT INTO person_site (person_id, site_id) VALUES (?, ?)', [person, site_id]);
    await books.get(`bills/${code}`).expect(200);
  });

  it('goes out at the average, and the last piece takes what is left', async () => {
    const a = await placed([['TOOL-JH', 1, 20, '10']], [], 'BRINDLEMOOR');
    await take(a, 1, 20);
    const b = await placed([['TOOL-JH', 1, 20, '20.01']], [], 'BRINDLEMOOR');
    await take(b, 1, 20);
    await sell('TOOL-JH', 7);
    expect(await pool('TOOL-JH')).toEqual([33, '24.758250']);
    await sell('TOOL-JH', 33);
    expect(await pool('TOOL-JH')).toEqual([0, '0.000000']);
  });

  it('is taken back with the receipt', async () => {
    const code = await placed([['SMK-LGE', 1, 6, '60']], [{ says: 'Freight', amount: '6', by: 'units' }], 'BRINDLEMOOR');
    const { activityId } = await take(code, 1, 6);
    expect(await pool('SMK-LGE')).toEqual([6, '66.000000']);
    await dock.post(`tape/${activityId}/undo`).expect(201);
    expect(await pool('SMK-LGE')).toEqual([0, '0.000000']);
  });

  describe('bills', () => {
    it('that fit order and arrival are posted at once', async () => {
      const code = await placed([['JAR-042-MI', 2, 72, '30']], [{ says: 'Freight', amount: '14.40', by: 'units' }]);
      await take(code, 1, 144);
      const open = (await books.get('bills/open?supplier=quillon').expect(200)).body as {
        goods: { order: string; units: number; amount: string }[];
        charges: { order: string; says: string }[];
      };
      expect(open.goods).toContainEqual(expect.objectContaining({ order: code, units: 144, words: '2 trays', amount: '60.000000' }));
      expect(open.charges).toContainEqual(expect.objectContaining({ order: code, says: 'Freight', amount: '14.40' }));
      const made = await coded(
        enter([{ order: code, line: 1, units: 144, amount: '60.00' }], [{ order: code, says: 'Freight', amount: '14.40', by: 'units' }]),
      );
      expect(await bill(made)).toMatchObject({
        state: 'posted',
        total: '74.40',
        lines: [{ finding: 'fits' }, { finding: 'fits', expected: '14.400000' }],
        entries: [{ debit: 'not billed yet', credit: 'bills to pay', amount: '74.400000' }],
      });
      expect(await pool('JAR-042-MI')).toEqual([144, '74.400000']);
      const after = (await books.get('bills/open?supplier=QUILLON').expect(200)).body as { goods: { order: string }[] };
      expect(after.goods.some((g) => g.order === code)).toBe(false);
    });

    it('that differ wait; posted as billed, the difference goes to stock and to what has gone', async () => {
      const code = await placed([['JAR-227-RD', 2, 48, '14.40']]);
      await take(code, 1, 96);
      await sell('JAR-227-RD', 24);
      expect(await pool('JAR-227-RD')).toEqual([72, '21.600000']);
      const made = await coded(enter([{ order: code, line: 1, units: 96, amount: '38.40' }]));
      const waiting = await bill(made);
      expect(waiting).toMatchObject({
        state: 'differs',
        entries: [],
        lines: [{ finding: 'dearer', expected: '28.800000', difference: '9.600000' }],
      });
      await books.post(`bills/${made}/settle`, { says: 'accept', note: '' }, { 'if-match': `"${waiting.version}"` }).expect(200);
      expect((await bill(made)).entries).toEqual([
        { debit: 'not billed yet', credit: 'bills to pay', sku: null, amount: '28.800000' },
        { debit: 'stock', credit: 'bills to pay', sku: 'JAR-227-RD', amount: '7.200000' },
        { debit: 'cost of goods', credit: 'bills to pay', sku: 'JAR-227-RD', amount: '2.400000' },
      ]);
      expect(await pool('JAR-227-RD')).toEqual([72, '28.800000']);
    });

    it('for freight that come weeks late are shared to the last penny, and the share shows on the goods', async () => {
      const code = await placed(
        [
          ['LID-63-BK', 2, 1000, '40'],
          ['CAGE-QN', 1, 50, '20'],
        ].map((l) => l as Line),
        [],
        'CORRIN',
      );
      const { arrival } = await take(code, 1, 2000);
      await take(code, 2, 50);
      await sell('LID-63-BK', 1500);
      const made = await coded(
        enter([], [{ order: code, says: 'Sea freight', amount: '100.00', by: 'value' }], { supplier: 'MARROWDALE' }),
      );
      const posted = await bill(made);
      expect(posted).toMatchObject({ state: 'posted', lines: [{ finding: 'late' }] });
      const of = (debit: string, sku: string) => posted.entries.find((e) => e.debit === debit && e.sku === sku)?.amount;
      expect([of('stock', 'LID-63-BK'), of('cost of goods', 'LID-63-BK'), of('stock', 'CAGE-QN'), of('cost of goods', 'CAGE-QN')]).toEqual([
        '20.000000',
        '60.000000',
        '20.000000',
        undefined,
      ]);
      expect(await pool('LID-63-BK')).toEqual([500, '40.000000']);
      expect((await landed(arrival))[0]!.parts.at(-1)).toMatchObject({
        says: expect.stringMatching(/^Sea freight, Marrowdale Wax/) as string,
        document: made,
        amount: '80.000000',
        each: '0.040000',
      });
    });

    it('for a promised charge leave the part of goods that are still to come to these', async () => {
      const code = await placed([['EXT-4T', 2, 1, '100']], [{ says: 'Freight', amount: '30.00', by: 'value' }], 'BRINDLEMOOR');
      const { lines } = await dock.task<{ lines: { lineId: number; itemId: number }[] }>('receive', code);
      const piece = (lot: string) =>
        dock
          .floor(
            receipt(code, {
              lineId: lines[0]!.lineId,
              itemId: lines[0]!.itemId,
              units: 1,
              lot,
              toPlaceId: dockId,
              how: 'scanned',
            }),
          )
          .expect(200);
      await piece('HE-1');
      await coded(enter([], [{ order: code, says: 'Freight', amount: '30.00', by: 'value' }], { supplier: 'BRINDLEMOOR' }));
      expect(await pool('EXT-4T')).toEqual([1, '115.000000']);
      await piece('HE-2');
      expect(await pool('EXT-4T')).toEqual([2, '230.000000']);
    });

    it('of more than came, of other suppliers, entered twice or for nothing are told so', async () => {
      const code = await placed([['JAR-340-HX', 2, 48, '18']]);
      await take(code, 1, 48);
      const many = await coded(enter([{ order: code, line: 1, units: 96, amount: '36.00' }]));
      expect(await bill(many)).toMatchObject({ state: 'differs', lines: [{ finding: 'too many', overWords: '1 tray' }] });
      expect((await enter([{ order: code, line: 1, units: 48, amount: '18' }], [], { supplier: 'TINDRA' }).expect(400)).body).toMatchObject(
        { detail: expect.stringContaining('not an order with') as string },
      );
      expect((await enter([{ order: code, line: 9, units: 1, amount: '1' }]).expect(400)).body).toMatchObject({
        detail: `${code} has no line 9`,
      });
      await enter([]).expect(400);
      const ref = { ref: 'SAME' };
      await enter([{ order: code, line: 1, units: 48, amount: '18' }], [], ref).expect(201);
      expect((await enter([{ order: code, line: 1, units: 48, amount: '18' }], [], ref).expect(400)).body).toMatchObject({
        fields: { ref: expect.stringContaining('before') as string },
      });
      const early = await placed([['JAR-340-HX', 1, 48, '18']]);
      await enter([], [{ order: early, says: 'Freight', amount: '5', by: 'value' }]).expect(409);
    });

    it('that come twice at once fit the goods once', async () => {
      const code = await placed([['JAR-340-HX', 1, 48, '18']]);
      await take(code, 1, 48);
      const line = [{ order: code, line: 1, units: 48, amount: '18.00' }];
      const codes = await Promise.all(Array.from({ length: 4 }, () => coded(enter(line))));
      const states = await Promise.all(codes.map(async (c) => (await bill(c)).state));
      expect(states.sort()).toEqual(['differs', 'differs', 'differs', 'posted']);
    });

    it('are queried by mail, and keep goods from being taken back', async () => {
      const code = await placed([['HIV-CRN', 2, 5, '50']], [], 'PELLOWICK');
      const { activityId } = await take(code, 1, 10);
      const made = await coded(enter([{ order: code, line: 1, units: 10, amount: '150' }], [], { supplier: 'PELLOWICK' }));
      const { version } = await bill(made);
      await books.post(`bills/${made}/settle`, { says: 'query', note: '' }, { 'if-match': `"${version}"` }).expect(400);
      await books.post(`bills/${made}/settle`, { says: 'query', note: 'We agreed on 100' }, { 'if-match': `"${version}"` }).expect(200);
      expect((await house.outbox('mail.bill-query')).at(-1)).toMatchObject({ note: 'We agreed on 100' });
      await books.post(`bills/${made}/settle`, { says: 'accept', note: '' }, { 'if-match': `"${version + 1}"` }).expect(200);
      expect((await dock.post(`tape/${activityId}/undo`).expect(409)).body).toMatchObject({
        detail: expect.stringContaining(made) as string,
      });
    });
  });

  it('is chosen to be reckoned by layers before the first goods, not after', async () => {
    const owner = await house.as('Maren');
    expect((await owner.put('company/settings/costMethod', { value: 'first in, first out' }).expect(400)).body).toMatchObject({
      detail: expect.stringContaining('before the first goods') as string,
    });
  });
});

describe('first in, first out', () => {
  it('takes the oldest layer first, and keeps pool and layers as one', async () => {
    const house = await House.open();
    try {
      await house.source.query(`INSERT INTO setting (name, value) VALUES ('costMethod', '{"is":"first in, first out"}')`);
      await house.stock('TOOL-JH', 'A-05-1', 10);
      await house.source.query(`UPDATE cost_layer SET value = 10, value_left = 10`);
      await house.source.query(`UPDATE cost_pool SET value = 10`);
      await house.source.query(`UPDATE value_entry SET amount = 10`);
      await house.source.query(`UPDATE item SET cost = 3 WHERE sku = 'TOOL-JH'`);
      const ledger = house.app.get(LedgerService);
      const place = await house.placeId('A-05-1');
      const itemId = await house.itemId('TOOL-JH');
      const act = await actAs(house.source, 'Maren');
      const move = (into: boolean, units: number, cost?: string) =>
        inTransaction(house.source, async (tx) => {
          const other = await ledger.outside(tx, into ? 'supplier' : 'count-difference');
          const ends = into ? { fromPlaceId: other, toPlaceId: place } : { fromPlaceId: place, toPlaceId: other };
          await ledger.post(tx, act, [{ itemId, lotId: 0, condition: 'good', ...ends, units }], {
            task: 'open',
            document: 'T',
            ...(cost ? { unitCosts: [cost] } : {}),
          });
        });
      await move(true, 10, '2');
      await move(false, 12);
      const [pool] = await house.source.query<object[]>('SELECT units, value FROM cost_pool WHERE item_id = ?', [itemId]);
      expect(pool).toEqual({ units: 8, value: '16.000000' });
      const [sums] = await house.source.query<
        {
          v: string;
        }[]
      >('SELECT SUM(value_left) AS v FROM cost_layer WHERE item_id = ?', [itemId]);
      expect(sums!.v).toBe('16.000000');
    } finally {
      await house.close();
    }
  });
});
