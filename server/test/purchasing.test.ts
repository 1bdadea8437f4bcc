import { Mailer } from '../src/platform/mailer.js';
import { type Caller, House } from './house.js';

describe('purchase orders', () => {
  let house: House;
  let buyer: Caller;
  const mails: { to: string; attachments: { content: Buffer }[] }[] = [];

  beforeAll(async () => {
    house = await House.open();
    house.app.get(Mailer).send = (mail) => {
      mails.push(mail);
      return Promise.resolve();
    };
    buyer = await house.as('Piet');
  });
  afterAll(() => house.close());

  const four = {
    supplier: 'QUILLON',
    siteId: 1,
    expectedOn: '2026-06-01',
    note: 'Door 2',
    lines: [{ sku: 'JAR-454-RD', factor: 48, packs: 4, price: '20.16' }],
  };
  const draft = async (body: object = four) => ((await buyer.post('purchase-orders', body).expect(201)).body as { code: string }).code;
  const act = (code: string, what: string, version: number) =>
    buyer.post(`purchase-orders/${code}/${what}`, {}, { 'if-match': `"${version}"` });
  const sheet = async (code: string) =>
    (await buyer.get(`purchase-orders/${code}`).expect(200)).body as {
      state: string;
      version: number;
      lines: object[];
      goods: string;
      placedBy: string | null;
      expectedOn: string;
    };

  it('show units and prices both ways: 4 trays of 48 at 20.16 are 192 jars at 0.42', async () => {
    const order = await sheet(await draft());
    expect(order).toMatchObject({ state: 'draft', expectedOn: '2026-06-01', goods: '80.640000' });
    expect(order.lines).toMatchObject([
      { packs: 4, pack: 'tray', factor: 48, ordered: 192, units: 'jars', price: '20.160000', priceEach: '0.420000', goods: '80.640000' },
    ]);
  });

  it('number themselves without a gap or a twin when written at once', async () => {
    const codes = await Promise.all(Array.from({ length: 8 }, () => draft()));
    const numbers = codes.map((c) => Number(c.slice(2))).sort((a, b) => a - b);
    expect(new Set(numbers).size).toBe(8);
    expect(numbers.at(-1)! - numbers[0]!).toBe(7);
  });

  it.each([
    ['an unknown supplier', { ...four, supplier: 'NOBODY' }, 'supplier'],
    ['an unknown item', { ...four, lines: [{ ...four.lines[0], sku: 'NOTHING' }] }, 'lines'],
    ['a pack that the item does not have', { ...four, lines: [{ ...four.lines[0], factor: 50 }] }, 'lines'],
    ['no lines', { ...four, lines: [] }, 'lines'],
    ['part of a pack', { ...four, lines: [{ ...four.lines[0], packs: 1.5 }] }, 'lines.0.packs'],
    ['a price that is none', { ...four, lines: [{ ...four.lines[0], price: 'dear' }] }, 'lines.0.price'],
    ['a day that is none', { ...four, expectedOn: '2026-02-31' }, 'expectedOn'],
    ['a member that nobody knows', { ...four, surprise: true }, 'surprise'],
  ])('refuse %s and say which field', async (_, body, field) => {
    const answer = await buyer.post('purchase-orders', body).expect(400);
    expect(Object.keys((answer.body as { fields: object }).fields)).toContain(field);
  });

  it('can be rewritten as a draft, from the version that was seen', async () => {
    const code = await draft();
    const changed = { ...four, lines: [...four.lines, { sku: 'LID-63-GD', factor: 1000, packs: 1, price: '48' }] };
    await buyer.put(`purchase-orders/${code}`, changed, { 'if-match': '"1"' }).expect(200);
    expect((await sheet(code)).lines).toHaveLength(2);
    expect((await buyer.put(`purchase-orders/${code}`, four, { 'if-match': '"1"' }).expect(412)).body).toMatchObject({ code: 'version' });
  });

  it('are not half rewritten when a line is wrong', async () => {
    const code = await draft();
    const wrong = { ...four, note: 'changed', lines: [four.lines[0], { sku: 'NOTHING', factor: 1, packs: 1, price: '1' }] };
    await buyer.put(`purchase-orders/${code}`, wrong, { 'if-match': '"1"' }).expect(400);
    expect(await sheet(code)).toMatchObject({ version: 1, note: 'Door 2', lines: [{ packs: 4 }] });
  });

  it('go to the supplier as a PDF when placed, once', async () => {
    const code = await draft();
    await act(code, 'place', 1).expect(200);
    expect(await sheet(code)).toMatchObject({ state: 'placed', placedBy: 'Piet Sallow' });
    await act(code, 'place', 2).expect(409);
    await buyer.put(`purchase-orders/${code}`, { ...four, supplier: 'TINDRA' }, { 'if-match': '"2"' }).expect(400);
    await house.deliver();
    expect(mails.filter((m) => m.to === 'orders@quillon.example')).toHaveLength(1);
    expect(mails[0]!.attachments[0]!.content.subarray(0, 5).toString()).toBe('%PDF-');
  });

  it('are placed once when two people press at the same moment', async () => {
    const code = await draft();
    const answers = await Promise.all([act(code, 'place', 1), act(code, 'place', 1), act(code, 'place', 1)]);
    expect(answers.map((a) => a.status).sort()).toEqual([200, 412, 412]);
  });

  it('can be cancelled until goods have come', async () => {
    const code = await draft();
    await act(code, 'place', 1).expect(200);
    await act(code, 'cancel', 2).expect(200);
    expect((await sheet(code)).state).toBe('cancelled');
    const dock = await house.as('Ruben');
    expect((await dock.get(`floor/tasks/receive/${code}`).expect(409)).body).toMatchObject({ code: 'state' });
  });

  it('print as PDF for everybody, without prices for those who may not see them', async () => {
    const code = await draft();
    const dock = await house.as('Ruben');
    const blind = (await dock.get(`purchase-orders/${code}`).expect(200)).body as { goods?: string; lines: { price?: string }[] };
    expect([blind.goods, blind.lines[0]!.price]).toEqual([undefined, undefined]);
    const pdf = await dock.get(`purchase-orders/${code}/pdf`).expect(200);
    expect(pdf.headers['content-type']).toBe('application/pdf');
    await buyer.get('purchase-orders/P-9999/pdf').expect(404);
  });

  it('are listed with what is late and how many lines are in', async () => {
    const code = await draft({ ...four, expectedOn: '2020-01-01' });
    await act(code, 'place', 1).expect(200);
    const rows = (await buyer.get('purchase-orders')).body.rows as { code: string; late: boolean; lines: number; linesIn: number }[];
    expect(rows.find((r) => r.code === code)).toMatchObject({ late: true, lines: 1, linesIn: 0 });
    expect(((await buyer.get('line')).body as { stages: { stage: string; stuck: number }[] }).stages[0]).toMatchObject({
      stage: 'inbound',
      stuck: expect.any(Number),
    });
  });
});
