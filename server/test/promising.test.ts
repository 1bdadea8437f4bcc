import { type Caller, House, keyed } from './house.js';

interface Hit {
  code: string;
  freeAt: string | null;
  promisedAt: string;
}
const DAY_MS = 86_400_000;
const inDays = (days: number) => new Date(Date.now() + days * DAY_MS).toISOString().slice(0, 10);
const at = (days: number) => new Date(Date.now() + days * DAY_MS).toISOString();

describe('what may be promised', () => {
  let house: House;
  let desk: Caller;
  beforeAll(async () => {
    house = await House.open();
    desk = await house.as('Maren');
  });
  afterAll(() => house.close());

  async function bought(packs: number, expectedOn: string): Promise<string> {
    const order = {
      supplier: 'QUILLON',
      siteId: 1,
      note: '',
      expectedOn,
      lines: [{ sku: 'JAR-454-RD', factor: 48, packs, price: '20.16' }],
    };
    const { code } = (await desk.post('purchase-orders', order).expect(201)).body as { code: string };
    await desk.post(`purchase-orders/${code}/place`, {}, { 'if-match': '"1"' }).expect(200);
    return code;
  }
  const key = async (quantity: number, days: number, more: object = {}) => {
    const order = keyed({
      promisedAt: at(days),
      lines: [{ sku: 'JAR-454-RD', factor: 1, quantity: String(quantity), price: '1' }],
      ...more,
    });
    return ((await desk.post('orders', order).expect(201)).body as { code: string }).code;
  };
  const hits = async (code: string, on: string) => (await desk.get(`purchase-orders/${code}/hits?on=${on}`).expect(200)).body as Hit[];

  it('of an item is told over time, with the documents behind it; an older promise is not eaten', async () => {
    await house.stock('JAR-454-RD', 'A-01-1', 10);
    const purchase = await bought(1, inDays(3));
    const order = await key(30, 6);
    const { free, steps, flows } = (await desk.get('items/JAR-454-RD/promise/1').expect(200)).body as {
      free: number;
      steps: { units: number }[];
      flows: { units: number; document: string }[];
    };
    // Ten lie here and are held for it; of the 48 that come it takes twenty.
    expect(free).toBe(0);
    expect(steps.map((s) => s.units)).toEqual([0, 28]);
    expect(flows.map((f) => [f.document, f.units])).toEqual([
      [purchase, 48],
      [order, -20],
    ]);
  });

  it('breaks where an arrival is late: whom it hits is told, and each is written to once', async () => {
    const [purchase] = (
      await house.source.query<{ code: string }[]>(`SELECT code FROM purchase_order WHERE state = 'placed' ORDER BY id DESC LIMIT 1`)
    ).map((p) => p.code) as [string];
    const silent = await key(10, 7, { email: '', customer: 'Somebody who is rung' });
    expect(await hits(purchase, inDays(4))).toEqual([]);
    const late = await hits(purchase, inDays(20));
    expect(late.map((h) => h.code)).toEqual(expect.arrayContaining([silent]));
    expect(late).toHaveLength(2);
    for (const h of late) expect(Date.parse(h.freeAt!)).toBeGreaterThan(Date.parse(h.promisedAt));
    const body = { on: inDays(20), orders: late.map((h) => h.code) };
    expect((await desk.post(`purchase-orders/${purchase}/letters`, body).expect(200)).body).toEqual({ written: 1, toRing: 1 });
    const mails = await house.outbox('mail.order-late');
    expect(mails).toHaveLength(1);
    expect(mails[0]).toMatchObject({ to: 'wickhill@mail.example' });
    await desk.post(`purchase-orders/${purchase}/letters`, { on: inDays(4), orders: late.map((h) => h.code) }).expect(400);
    await desk.get(`purchase-orders/${purchase}/hits?on=soon`).expect(400);
    await desk.get('purchase-orders/P-0000/hits?on=2030-01-01').expect(404);
  });

  it('is done to many orders at once, each by itself, after what it will do was seen', async () => {
    const [a, b] = [await key(1, 8), await key(1, 8)];
    await house.stock('JAR-454-RD', 'A-01-1', 5);
    const bulk = async (more: object) =>
      (
        await desk
          .post('order-desk/bulk', { what: 'hold', orders: [a, b, 'S-0'], preview: true, reason: 'Stock-take', ...more })
          .expect(200)
      ).body as {
        code: string;
        can: boolean;
        says: string;
      }[];
    expect((await bulk({})).map((l) => l.can)).toEqual([true, true, false]);
    const state = async (code: string) => ((await desk.get(`orders/${code}`)).body as { state: string }).state;
    expect(await state(a)).toBe('open');
    expect((await bulk({ preview: false })).map((l) => l.can)).toEqual([true, true, false]);
    expect([await state(a), await state(b)]).toEqual(['held', 'held']);
    expect((await bulk({ what: 'release' })).map((l) => [l.code, l.can, l.says])).toContainEqual([a, false, 'Stock-take']);
    await desk.post('order-desk/bulk', { what: 'hold', orders: [a], preview: true }).expect(400);
    const pdf = (await desk.bytes(`order-desk/packing-lists?orders=${a},${b}`).expect(200)).body as Buffer;
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
  });
});
