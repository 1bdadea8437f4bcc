import {
  readOrder,
  readXml,
  structureFaults,
  writeDespatchAdvice,
  writeOrderResponse,
  type UblDespatchLine,
  type UblOrderResponse,
  type UblParty,
} from '../src/ubl/index.js';
import { type Caller, House, receipt } from './house.js';

interface Sheet {
  state: string;
  answer: string;
  version: number;
  expectedOn: string | null;
  lines: {
    line: number;
    packs: number;
    price: string;
    expectedOn: string | null;
    closed: number;
    answer: { says: string; price: string | null; on: string | null; packs: number | null } | null;
  }[];
  changes: { line: number | null; what: string; was: string; becomes: string; why: string }[];
}
const us: UblParty = { code: '', name: 'Tarn & Thistle', addressLines: [], email: '', phone: '' };
const quillon: UblParty = { code: 'QUILLON', name: 'Quillon Glassware', addressLines: [], email: '', phone: '' };

describe('what suppliers send', () => {
  let house: House;
  let buyer: Caller;
  let dock: Caller;
  let seq = 0;

  beforeAll(async () => {
    house = await House.open();
    [buyer, dock] = await Promise.all([house.as('Piet'), house.as('Ruben')]);
  });
  afterAll(() => house.close());

  async function placed(
    lines: [sku: string, packs: number, factor: number, price: string][] = [
      ['JAR-454-RD', 4, 48, '20.16'],
      ['LID-63-GD', 2, 1000, '48'],
    ],
    supplier = 'QUILLON',
  ): Promise<string> {
    const body = {
      supplier,
      siteId: 1,
      note: '',
      expectedOn: '2030-06-01',
      lines: lines.map(([sku, packs, factor, price]) => ({ sku, packs, factor, price })),
    };
    const { code } = (await buyer.post('purchase-orders', body).expect(201)).body as { code: string };
    await buyer.post(`purchase-orders/${code}/place`, {}, { 'if-match': '"1"' }).expect(200);
    return code;
  }
  const sheet = async (code: string) => (await buyer.get(`purchase-orders/${code}`).expect(200)).body as Sheet;
  const send = (text: string) => buyer.file('post', 'supplier-documents', Buffer.from(text));
  const answer = (order: string, more: Partial<UblOrderResponse> = {}) =>
    writeOrderResponse(
      {
        id: `QR-${++seq}`,
        issuedOn: '2030-05-15',
        says: 'changed',
        order,
        note: '',
        seller: quillon.name,
        promisedOn: null,
        lines: [],
        ...more,
      },
      quillon,
      us,
      'GBP',
    );
  const told = (line: number, more: object) => ({
    line,
    says: 'changed' as const,
    packs: null,
    price: null,
    promisedOn: null,
    note: '',
    ...more,
  });

  describe('orders go out', () => {
    it('as UBL that keeps to the standard, with our codes and theirs', async () => {
      const code = await placed();
      const text = (await buyer.bytes(`purchase-orders/${code}/ubl`).expect(200)).body as Buffer;
      const root = readXml(text);
      expect(structureFaults(root)).toEqual([]);
      expect(readOrder(root)).toMatchObject({
        code,
        currency: 'GBP',
        expectedOn: '2030-06-01',
        goods: '176.64',
        total: '176.64',
        lines: [
          { line: 1, sku: 'JAR-454-RD', supplierSku: 'JAR454RD', packs: 4, factor: 48, price: '20.16', gtin: '19521077000017' },
          { line: 2, packs: 2, factor: 1000 },
        ],
      });
      await dock.get(`purchase-orders/${code}/ubl`).expect(403);
    });
  });

  describe('answers', () => {
    it('confirm an order as it is', async () => {
      const code = await placed();
      expect((await send(answer(code, { says: 'accepted', promisedOn: '2030-06-01' })).expect(201)).body).toMatchObject({
        kind: 'OrderResponse',
        code,
        says: `${code} is confirmed as ordered`,
      });
      expect(await sheet(code)).toMatchObject({
        answer: 'confirmed',
        lines: [{ answer: { says: 'accepted' } }, { answer: { says: 'accepted' } }],
      });
    });

    it('stand beside what was ordered until the buyer takes them', async () => {
      const code = await placed();
      await send(answer(code, { lines: [told(1, { packs: 3, price: '21.00', promisedOn: '2030-06-10' })] })).expect(201);
      const before = await sheet(code);
      expect(before).toMatchObject({
        answer: 'to-settle',
        lines: [
          { packs: 4, price: '20.160000', answer: { says: 'changed', packs: 3, price: '21.000000', on: '2030-06-10' } },
          { answer: { says: 'accepted' } },
        ],
      });
      await buyer.post(`purchase-orders/${code}/answer`, { says: 'accept', note: '' }, { 'if-match': `"${before.version}"` }).expect(200);
      const after = await sheet(code);
      expect(after).toMatchObject({
        answer: 'confirmed',
        lines: [{ packs: 3, price: '21.000000', expectedOn: '2030-06-10' }, { packs: 2 }],
      });
      expect(after.changes).toContainEqual(
        expect.objectContaining({ line: 1, what: 'price', was: '20.160000', becomes: '21.000000', why: 'the supplier’s answer' }),
      );
      await buyer.post(`purchase-orders/${code}/answer`, { says: 'accept', note: '' }, { 'if-match': `"${after.version}"` }).expect(409);
    });

    it('are queried by mail, with what is asked instead', async () => {
      const code = await placed();
      await send(answer(code, { lines: [told(1, { price: '30' })] })).expect(201);
      const { version } = await sheet(code);
      await buyer.post(`purchase-orders/${code}/answer`, { says: 'query', note: ' ' }, { 'if-match': `"${version}"` }).expect(400);
      await buyer
        .post(`purchase-orders/${code}/answer`, { says: 'query', note: 'We agreed on 20.16' }, { 'if-match': `"${version}"` })
        .expect(200);
      expect(await sheet(code)).toMatchObject({ answer: 'queried', lines: [{ price: '20.160000' }, {}] });
      expect((await house.outbox('mail.order-query')).at(-1)).toMatchObject({ code, note: 'We agreed on 20.16' });
    });

    it('that refuse a line close it; that refuse all cancel the order', async () => {
      const code = await placed();
      await send(answer(code, { lines: [told(2, { says: 'refused', note: 'not made any more' })] })).expect(201);
      let now = await sheet(code);
      await buyer.post(`purchase-orders/${code}/answer`, { says: 'accept', note: '' }, { 'if-match': `"${now.version}"` }).expect(200);
      now = await sheet(code);
      expect(now).toMatchObject({ state: 'placed', lines: [{ closed: 0 }, { closed: 2000 }] });
      const stock = (await buyer.get('items/LID-63-GD/stock').expect(200)).body as { sites: { siteId: number; incoming: number }[] };
      expect(JSON.stringify(stock)).not.toContain('"incoming":4000');
      const gone = await placed();
      await send(answer(gone, { says: 'refused' })).expect(201);
      const { version } = await sheet(gone);
      await buyer.post(`purchase-orders/${gone}/answer`, { says: 'accept', note: '' }, { 'if-match': `"${version}"` }).expect(200);
      expect(await sheet(gone)).toMatchObject({ state: 'cancelled' });
    });

    it('are taken once, of lines that are there, of orders that wait for them', async () => {
      const code = await placed();
      const text = answer(code, { says: 'acknowledged' });
      await send(text).expect(201);
      expect(await sheet(code)).toMatchObject({ answer: 'acknowledged' });
      expect((await send(text).expect(409)).body).toMatchObject({ detail: expect.stringContaining('was taken in before') as string });
      expect((await send(answer(code, { lines: [told(9, {})] })).expect(400)).body).toMatchObject({
        detail: expect.stringContaining('no line 9') as string,
      });
      await send(answer('P-9999')).expect(404);
    });
  });

  describe('advices', () => {
    const line = (n: number, order: string, more: Partial<UblDespatchLine> = {}): UblDespatchLine => ({
      line: n,
      order,
      orderLine: n,
      packs: 1,
      factor: null,
      sku: '',
      name: '',
      lot: null,
      expires: null,
      sscc: null,
      ...more,
    });
    const advice = (lines: UblDespatchLine[], more: object = {}) =>
      writeDespatchAdvice(
        { id: `DA-${++seq}`, issuedOn: '2030-05-30', arrivesOn: '2030-06-02', tracking: null, supplier: quillon.name, lines, ...more },
        quillon,
        us,
      );
    const SSCC = ['395060001343520013', '395060001343520020'];

    it('make an expected arrival with lots and pallets, and each pallet comes in by one scan', async () => {
      const code = await placed(
        [
          ['SYR-05', 8, 4, '27.60'],
          ['FON-025', 4, 5, '21.50'],
        ],
        'OULDEN',
      );
      const answered = await send(
        advice([
          line(1, code, { packs: 6, lot: 'S-9', expires: '2031-01-31', sscc: SSCC[0]! }),
          line(2, code, { orderLine: 1, packs: 2, lot: 'S-10', expires: '2031-02-28', sscc: SSCC[1]! }),
          line(3, code, { orderLine: 2, packs: 4, sku: 'FON-025', lot: 'F-9', expires: '2031-01-31', sscc: SSCC[1]! }),
        ]),
      ).expect(201);
      const { code: arrival, says } = answered.body as { code: string; says: string };
      expect(says).toBe(`${arrival} is announced, 2 pallets`);
      expect((await buyer.get(`arrivals/${arrival}`).expect(200)).body).toMatchObject({
        state: 'announced',
        expectedOn: '2030-06-02',
        orders: [code],
        announced: [{ sscc: SSCC[0], words: '6 boxes', lot: 'S-9', received: false }, {}, { sku: 'FON-025' }],
      });
      const toPlaceId = await house.placeId('DOCK-1');
      for (const sscc of SSCC) await dock.floor({ kind: 'receive-pallet', document: arrival, sscc, toPlaceId, how: 'scanned' }).expect(200);
      expect(await sheet(code)).toMatchObject({ state: 'received' });
      expect((await buyer.get(`arrivals/${arrival}`)).body).toMatchObject({
        state: 'open',
        receipts: [{ lot: 'F-9' }, { lot: 'S-10' }, { words: '6 boxes', lot: 'S-9', by: expect.stringContaining('Ruben') as string }],
      });
    });

    it.each<[string, (code: string) => UblDespatchLine[], number, string]>([
      ['of no order of ours', () => [line(1, 'P-9999')], 400, 'no order P-9999'],
      ['of a line that is not there', (c) => [line(1, c, { orderLine: 7 })], 400, 'no line 7'],
      ['of other goods than the line', (c) => [line(1, c, { sku: 'SMK-LGE' })], 400, 'is JAR-454-RD'],
      ['of a pallet that was announced before', (c) => [line(1, c, { sscc: SSCC[0]! })], 400, 'announced before'],
      ['with nothing on it', () => [], 400, 'lacks cac:DespatchLine'],
    ])('are refused, and nothing is made: %s', async (_, lines, status, says) => {
      const code = await placed();
      const before = ((await buyer.get('arrivals')).body.rows as unknown[]).length;
      expect((await send(advice(lines(code))).expect(status)).body).toMatchObject({ detail: expect.stringContaining(says) as string });
      expect(((await buyer.get('arrivals')).body.rows as unknown[]).length).toBe(before);
    });

    it('that are no UBL are told where, and hostile ones go no further', async () => {
      expect((await send('<Order/>').expect(400)).body).toMatchObject({
        code: 'form',
        fields: { document: expect.stringContaining('no document') as string },
      });
      await send('<!DOCTYPE a [<!ENTITY x SYSTEM "file:///etc/passwd">]><a>&x;</a>').expect(400);
      await send('a'.repeat(2 * 1024 * 1024 + 10)).expect(413);
      await dock.file('post', 'supplier-documents', Buffer.from('<a/>')).expect(403);
    });
  });

  describe('orders after placing', () => {
    const edit = (code: string, version: number, lines: object[], more: object = {}) =>
      buyer.put(
        `purchase-orders/${code}`,
        { supplier: 'QUILLON', siteId: 1, note: '', expectedOn: '2030-06-01', lines, ...more },
        { 'if-match': `"${version}"` },
      );
    const jars = { sku: 'JAR-454-RD', packs: 4, factor: 48, price: '20.16' };
    const lids = { sku: 'LID-63-GD', packs: 2, factor: 1000, price: '48' };

    it('keep what they were, line by line, and tell the supplier', async () => {
      const code = await placed();
      const { version } = await sheet(code);
      const mails = (await house.outbox('mail.purchase-order')).length;
      await edit(
        code,
        version,
        [{ ...jars, packs: 6, expectedOn: '2030-06-20' }, lids, { sku: 'JAR-340-HX', packs: 1, factor: 48, price: '18' }],
        {
          charges: [{ says: 'Freight', amount: '40', by: 'weight' }],
        },
      ).expect(200);
      const now = await sheet(code);
      expect(now.changes.map((c) => [c.line, c.what, c.was, c.becomes])).toEqual([
        [null, 'charges', 'nothing', 'Freight 40.00 by weight'],
        [3, 'goods', 'nothing', '1 of JAR-340-HX'],
        [1, 'day', 'nothing', '2030-06-20'],
        [1, 'quantity', '4', '6'],
      ]);
      expect((await house.outbox('mail.purchase-order')).slice(mails)).toMatchObject([{ code, changed: true }]);
      await edit(code, now.version, [
        { ...jars, packs: 6, expectedOn: '2030-06-20' },
        lids,
        { sku: 'JAR-340-HX', packs: 1, factor: 48, price: '18.000' },
      ]).expect(200);
      expect((await house.outbox('mail.purchase-order')).slice(mails)).toHaveLength(1);
    });

    it('lose no line, change no goods, and never fall below what has come', async () => {
      const code = await placed();
      const { lines } = await dock.task<{ lines: { lineId: number; itemId: number }[] }>('receive', code);
      await dock
        .floor(
          receipt(code, {
            lineId: lines[0]!.lineId,
            itemId: lines[0]!.itemId,
            units: 96,
            toPlaceId: await house.placeId('DOCK-1'),
            how: 'scanned',
          }),
        )
        .expect(200);
      const { version } = await sheet(code);
      for (const wrong of [[jars], [{ ...jars, packs: 1 }, lids], [{ ...jars, sku: 'JAR-340-HX' }, lids]])
        await edit(code, version, wrong).expect(400);
      await edit(code, version, [{ ...jars, packs: 2 }, lids]).expect(200);
      expect(await sheet(code)).toMatchObject({ state: 'part-received' });
    });

    it('are closed short: nobody waits for the rest', async () => {
      const code = await placed([['CAGE-QN', 4, 50, '12']], 'BRINDLEMOOR');
      const { version } = await sheet(code);
      await buyer.post(`purchase-orders/${code}/close`, {}, { 'if-match': `"${version}"` }).expect(409);
      const { lines } = await dock.task<{ lines: { lineId: number; itemId: number }[] }>('receive', code);
      await dock
        .floor(
          receipt(code, {
            lineId: lines[0]!.lineId,
            itemId: lines[0]!.itemId,
            units: 120,
            toPlaceId: await house.placeId('DOCK-1'),
            how: 'scanned',
          }),
        )
        .expect(200);
      await buyer.post(`purchase-orders/${code}/close`, {}, { 'if-match': `"${(await sheet(code)).version}"` }).expect(200);
      expect(await sheet(code)).toMatchObject({
        state: 'closed',
        lines: [{ closed: 80 }],
        changes: [{ line: 1, what: 'closed short', becomes: '80 units' }],
      });
      await dock.get(`floor/tasks/receive/${code}`).expect(409);
    });
  });

  describe('drafts', () => {
    const draft = async (lines: [string, number, number, string][], supplier = 'QUILLON') => {
      const body = {
        supplier,
        siteId: 1,
        note: '',
        lines: lines.map(([sku, packs, factor, price]) => ({ sku, packs, factor, price })),
        charges: [{ says: 'Freight', amount: '12.50', by: 'value' }],
      };
      return ((await buyer.post('purchase-orders', body).expect(201)).body as { code: string }).code;
    };
    const short = async (code: string) => (await sheet(code)).lines.map((l) => [l.line, l.packs]);

    it('are copied with goods, prices and charges', async () => {
      const code = await placed();
      const copy = ((await buyer.post(`purchase-orders/${code}/copy`).expect(201)).body as { code: string }).code;
      expect(await sheet(copy)).toMatchObject({
        state: 'draft',
        expectedOn: null,
        lines: [{ packs: 4, price: '20.160000' }, { packs: 2 }],
        alike: expect.arrayContaining([code]) as string[],
      });
    });

    it('are brought together: equal goods become one line', async () => {
      const [a, b] = [
        await draft([['JAR-454-RD', 1, 48, '20']]),
        await draft([
          ['JAR-454-RD', 2, 48, '20'],
          ['LID-63-GD', 1, 1000, '48'],
        ]),
      ];
      await buyer.post(`purchase-orders/${a}/merge`, { other: b }, { 'if-match': '"1"' }).expect(200);
      expect(await short(a)).toEqual([
        [1, 3],
        [2, 1],
      ]);
      expect(await sheet(a)).toMatchObject({ charges: [{ says: 'Freight' }, { says: 'Freight' }] });
      expect(await sheet(b)).toMatchObject({ state: 'cancelled', lines: [] });
      const other = await draft([['SYR-05', 1, 4, '20']], 'OULDEN');
      await buyer.post(`purchase-orders/${a}/merge`, { other }, { 'if-match': '"2"' }).expect(400);
      await buyer.post(`purchase-orders/${a}/merge`, { other: a }, { 'if-match': '"2"' }).expect(400);
    });

    it('are taken apart, but never wholly', async () => {
      const code = await draft([
        ['JAR-454-RD', 1, 48, '20'],
        ['JAR-340-HX', 2, 48, '18'],
        ['LID-63-GD', 3, 1000, '48'],
      ]);
      await buyer.post(`purchase-orders/${code}/split`, { lines: [1, 2, 3] }, { 'if-match': '"1"' }).expect(400);
      await buyer.post(`purchase-orders/${code}/split`, { lines: [4] }, { 'if-match': '"1"' }).expect(400);
      const made = (
        (await buyer.post(`purchase-orders/${code}/split`, { lines: [1, 3] }, { 'if-match': '"1"' }).expect(201)).body as { code: string }
      ).code;
      expect(await short(code)).toEqual([[1, 2]]);
      expect(await short(made)).toEqual([
        [1, 1],
        [2, 3],
      ]);
    });
  });
});
