import { writeDespatchAdvice, writeOrderResponse, type UblOrderResponse } from '../src/ubl/index.js';
import { signature } from '../src/platform/signature.js';
import { type Caller, House } from './house.js';

const US = { code: '', name: 'Tarn & Thistle', addressLines: [], email: '', phone: '' };
const THEM = { ...US, code: 'QUILLON', name: 'Quillon Glassware' };

describe('a supplier’s own system', () => {
  let house: House;
  let buyer: Caller;
  let key: string;

  beforeAll(async () => {
    house = await House.open();
    buyer = await house.as('Piet');
    key = ((await buyer.post('suppliers/QUILLON/document-key').expect(201)).body as { key: string }).key;
  });
  afterAll(() => house.close());

  async function placed(supplier = 'QUILLON'): Promise<string> {
    const body = { supplier, siteId: 1, note: '', lines: [{ sku: 'JAR-454-RD', factor: 48, packs: 4, price: '20.16' }] };
    const { code } = (await buyer.post('purchase-orders', body).expect(201)).body as { code: string };
    await buyer.post(`purchase-orders/${code}/place`, {}, { 'if-match': '"1"' }).expect(200);
    return code;
  }
  const answer = (order: string, more: Partial<UblOrderResponse> = {}) =>
    writeOrderResponse(
      {
        id: `AB-${order}`,
        issuedOn: '2026-05-14',
        says: 'accepted',
        order,
        note: '',
        seller: THEM.name,
        promisedOn: null,
        lines: [],
        ...more,
      },
      THEM,
      US,
      'GBP',
    );
  const send = (xml: string, signed = signature(key, xml), code = 'QUILLON') =>
    house.http.post(`/api/suppliers/${code}/documents`).set('content-type', 'application/xml').set('x-signature', signed).send(xml);
  const sheet = async (code: string) =>
    (await buyer.get(`purchase-orders/${code}`).expect(200)).body as { answer: string; arrivals: string[] };

  it('answers an order under its key, with nobody signed in; the tape names no person', async () => {
    const code = await placed();
    expect((await send(answer(code)).expect(200)).body).toMatchObject({ kind: 'OrderResponse', code });
    expect((await sheet(code)).answer).toBe('confirmed');
    const [entry] = ((await buyer.get('tape?limit=1')).body as { entries: { title: string; who: string | null }[] }).entries;
    expect(entry).toMatchObject({ title: `${code} is confirmed as ordered`, who: 'Vectrum' });
  });

  it('announces what it has sent, and says the same twice without harm', async () => {
    const code = await placed();
    const advice = writeDespatchAdvice(
      {
        id: 'LS-1',
        issuedOn: '2026-05-14',
        arrivesOn: '2026-05-15',
        tracking: null,
        supplier: THEM.name,
        lines: [
          {
            line: 1,
            order: code,
            orderLine: 1,
            packs: 4,
            factor: null,
            sku: '',
            name: 'Jar',
            lot: null,
            expires: null,
            sscc: '395210770000000998',
          },
        ],
      },
      THEM,
      US,
    );
    const first = (await send(advice).expect(200)).body as { code: string };
    expect((await send(advice).expect(200)).body).toEqual(first);
    expect((await sheet(code)).arrivals).toEqual([first.code]);
    const other = advice.replace('2026-05-15', '2026-05-16');
    expect((await send(other)).status).toBeGreaterThanOrEqual(400);
    expect((await sheet(code)).arrivals).toHaveLength(1);
  });

  it('takes what is sent at once by two lines as one', async () => {
    const code = await placed();
    const xml = answer(code);
    const both = await Promise.all([send(xml), send(xml)]);
    expect(both.filter((b) => b.status === 200).length).toBeGreaterThanOrEqual(1);
    const kept: unknown[] = await house.source.query('SELECT id FROM supplier_document WHERE ref = ?', [`AB-${code}`]);
    expect(kept).toHaveLength(1);
    await send(xml).expect(200);
  });

  it('is turned away without the right key, and once its key was changed', async () => {
    const xml = answer(await placed());
    for (const bad of ['', 'forged', signature('another key', xml)]) await send(xml, bad).expect(401);
    await send(xml, signature(key, xml), 'TINDRA').expect(401);
    await send(xml, signature(key, xml), 'NOBODY').expect(401);
    const before = key;
    key = ((await buyer.post('suppliers/QUILLON/document-key').expect(201)).body as { key: string }).key;
    await send(xml, signature(before, xml)).expect(401);
    await send(xml).expect(200);
    expect((await buyer.get('suppliers/QUILLON')).body).toMatchObject({ sendsDocuments: true });
    expect((await buyer.get('suppliers/TINDRA')).body).toMatchObject({ sendsDocuments: false });
    const picker = await house.as('Ines');
    await picker.post('suppliers/QUILLON/document-key').expect(403);
  });

  it('speaks for no other supplier’s orders', async () => {
    const theirs = await placed('CORRIN');
    expect((await send(answer(theirs)).expect(400)).body).toMatchObject({ fields: { document: `${theirs} is not an order of yours` } });
    expect((await sheet(theirs)).answer).toBe('');
  });

  it('is told what is wrong with a document, and nothing is kept of it', async () => {
    await send('<!DOCTYPE a [<!ENTITY b "c">]><OrderResponse>&b;</OrderResponse>').expect(400);
    await send('<Invoice/>').expect(400);
    await send(answer('P-9999')).expect(404);
    const kept: unknown[] = await house.source.query(`SELECT id FROM supplier_document WHERE ref = 'AB-P-9999'`);
    expect(kept).toEqual([]);
  });

  it.each([
    ['a price that is none', '<cbc:PriceAmount currencyID="GBP">dear</cbc:PriceAmount>', /price/i],
    ['a price below nought', '<cbc:PriceAmount currencyID="GBP">-5.00</cbc:PriceAmount>', /price/i],
    ['a price beyond all reason', '<cbc:PriceAmount currencyID="GBP">99999999999999</cbc:PriceAmount>', /price/i],
    ['a day that is none', '2026-13-45', /day/i],
  ])('is told of %s', async (_, wrong, says) => {
    const code = await placed();
    const line = { line: 1, says: 'changed' as const, packs: 4, price: '21.00', promisedOn: '2026-06-01', note: '' };
    const xml = answer(code, { says: 'changed', lines: [line] });
    const bad = wrong.startsWith('<')
      ? xml.replace(/<cbc:PriceAmount[^>]*>[^<]*<\/cbc:PriceAmount>/, wrong)
      : xml.replace('2026-06-01', wrong);
    expect(bad).not.toBe(xml);
    const refused = await send(bad).expect(400);
    expect((refused.body as { fields: { document: string } }).fields.document).toMatch(says);
    expect((await sheet(code)).answer).toBe('');
  });

  it('is told of quantities beyond all reason, and may have long numbers for its papers', async () => {
    const code = await placed();
    const advice = (packs: number, id: string, factor: number | null = null) =>
      writeDespatchAdvice(
        {
          id,
          issuedOn: '2026-05-14',
          arrivesOn: '2026-05-15',
          tracking: null,
          supplier: THEM.name,
          lines: [{ line: 1, order: code, orderLine: 1, packs, factor, sku: '', name: 'Jar', lot: null, expires: null, sscc: null }],
        },
        THEM,
        US,
      );
    await send(advice(999_999_999, 'LS-7')).expect(400);
    await send(advice(1_000_000, 'LS-7', 1_000_000)).expect(400);
    expect((await sheet(code)).arrivals).toEqual([]);
    await send(advice(4, 'LS-'.padEnd(200, '7'))).expect(200);
    expect((await sheet(code)).arrivals).toHaveLength(1);
  });

  it('is told what cannot be taken in, and the buyer sees it too: to be set aside, or taken in when the reason is gone', async () => {
    interface Unread {
      id: number;
      supplier: string;
      why: string;
      state: string;
      text: string;
      version: number;
      settledWhy: string | null;
    }
    const list = async () => (await buyer.get('unread-documents').expect(200)).body as { rows: Unread[]; waiting: number };
    const one = async (id: number) => (await buyer.get(`unread-documents/${id}`).expect(200)).body as Unread;
    const settle = async (id: number, how: string, body: object = {}) =>
      buyer.post(`unread-documents/${id}/${how}`, body, { 'if-match': `"${(await one(id)).version}"` });
    const before = (await list()).rows.length;

    // Nobody without the key fills the list; what comes twice waits once.
    await send('<Order>', 'f'.repeat(64)).expect(401);
    for (let n = 0; n < 3; n++) await send('<Order>no end').expect(400);
    const later = await placed();
    const odd = answer('P-9999999');
    await send(odd).expect((r) => {
      if (r.status < 400 || r.status > 409) throw new Error(`answered ${r.status}`);
    });
    const { rows, waiting } = await list();
    expect([rows.length, waiting]).toEqual([before + 2, before + 2]);
    expect(rows.find((d) => d.why.includes('not well formed'))).toMatchObject({ supplier: 'Quillon Glassware', state: 'waiting' });
    // It holds up nothing that comes behind it.
    await send(answer(later)).expect(200);

    const broken = rows.find((d) => d.why.includes('not well formed'))!;
    expect((await one(broken.id)).text).toBe('<Order>no end');
    await (await house.as('Ines')).get('unread-documents').expect(403);
    await settle(broken.id, 'set-aside', { why: '' }).then((r) => expect(r.status).toBe(400));
    await settle(broken.id, 'take-in').then((r) => expect(r.status).toBe(400));
    await settle(broken.id, 'set-aside', { why: 'they sent it again' }).then((r) => expect(r.status).toBe(204));
    await settle(broken.id, 'set-aside', { why: 'twice' }).then((r) => expect(r.status).toBe(409));

    const unknown = (await list()).rows.filter((d) => d.state === 'waiting').at(-1)!;
    await settle(unknown.id, 'take-in').then((r) => expect(r.status).toBeGreaterThanOrEqual(400));
    await house.source.query(`UPDATE purchase_order SET code = 'P-9999999' WHERE code = ?`, [await placed()]);
    await settle(unknown.id, 'take-in').then((r) => expect([r.status, r.body]).toEqual([204, {}]));
    expect(await one(unknown.id)).toMatchObject({ state: 'taken-in', settledWhy: expect.stringContaining('P-9999999') });
    expect((await sheet('P-9999999')).answer).toBe('confirmed');
  });
});
