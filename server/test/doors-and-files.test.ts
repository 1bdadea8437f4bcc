import { randomUUID } from 'node:crypto';
import { type Caller, House, receipt } from './house.js';

interface Order {
  door: string | null;
  version: number;
  state: string;
  files: { id: number; name: string; bytes: number; by: string }[];
  lines: { returned: number }[];
}

describe('doors and files of purchase orders', () => {
  let house: House;
  let buyer: Caller;
  let dock: Caller;
  let picker: Caller;

  beforeAll(async () => {
    house = await House.open();
    [buyer, dock, picker] = await Promise.all([house.as('Piet'), house.as('Ruben'), house.as('Ines')]);
  });
  afterAll(() => house.close());

  const body = (more: object = {}) => ({
    supplier: 'QUILLON',
    siteId: 1,
    note: '',
    lines: [{ sku: 'JAR-454-RD', factor: 48, packs: 4, price: '20.16' }],
    ...more,
  });
  const draft = async (more: object = {}) => ((await buyer.post('purchase-orders', body(more)).expect(201)).body as { code: string }).code;
  const sheet = async (code: string, who = buyer) => (await who.get(`purchase-orders/${code}`).expect(200)).body as Order;
  const act = (code: string, what: string, version: number) =>
    buyer.post(`purchase-orders/${code}/${what}`, {}, { 'if-match': `"${version}"` });
  async function placed(more: object = {}): Promise<string> {
    const code = await draft(more);
    await act(code, 'place', 1).expect(200);
    return code;
  }

  describe('a door', () => {
    it('is a dock of the order’s own site', async () => {
      for (const door of ['A-01-1', 'QUAY-DOCK', 'NOWHERE'])
        expect((await buyer.post('purchase-orders', body({ door })).expect(400)).body).toMatchObject({
          fields: { door: `${door} is no dock of this site. Choose one from the list` },
        });
      expect((await sheet(await draft({ door: 'dock-2' }))).door).toBe('DOCK-2');
    });

    it('is where the phone books goods in, and shows in what is due', async () => {
      const code = await placed({ door: 'DOCK-2', expectedOn: '2026-06-01' });
      expect(await dock.task('receive', code)).toMatchObject({ dock: { code: 'DOCK-2' } });
      const due = (await dock.get('floor/receive').expect(200)).body as { code: string; door: string }[];
      expect(due.find((d) => d.code === code)?.door).toBe('DOCK-2');
    });

    it('changes on a placed order without a word to the supplier', async () => {
      const code = await placed({ door: 'DOCK-2' });
      const mails = (await house.outbox('mail.purchase-order')).length;
      await buyer.put(`purchase-orders/${code}`, body({ door: 'DOCK-1' }), { 'if-match': '"2"' }).expect(200);
      expect((await sheet(code)).door).toBe('DOCK-1');
      expect((await house.outbox('mail.purchase-order')).length).toBe(mails);
    });

    it('goes on to the arrival, and can be changed there until it is closed', async () => {
      const code = await placed({ door: 'DOCK-2' });
      const task = await dock.task<{ dock: { id: number }; lines: { lineId: number; itemId: number }[] }>('receive', code);
      const { lineId, itemId } = task.lines[0]!;
      const goods = { lineId, itemId, units: 48, toPlaceId: task.dock.id, how: 'scanned' };
      const { arrival } = (await dock.floor(receipt(code, goods)).expect(200)).body as { arrival: string };
      expect((await dock.get(`arrivals/${arrival}`)).body).toMatchObject({ door: 'DOCK-2' });
      await dock.post(`arrivals/${arrival}/door`, { door: 'DOCK-1' }).expect(200);
      expect(await dock.task('receive', code)).toMatchObject({ dock: { code: 'DOCK-1' } });
      await dock.post(`arrivals/${arrival}/door`, { door: 'A-01-1' }).expect(400);
      await dock.floor({ kind: 'close-arrival', document: code, paper: '' }).expect(200);
      await dock.post(`arrivals/${arrival}/door`, { door: null }).expect(409);
    });
  });

  it('an order that is cancelled takes with it what was announced for it alone', async () => {
    const [code, other] = [await placed(), await placed()];
    const announce = async (orders: string[]) => {
      const arrival = `A-${randomUUID().slice(0, 6)}`;
      const { insertId } = await house.source.query<{ insertId: number }>(
        `INSERT INTO arrival (code, site_id, supplier_id, state, expected_on) SELECT ?, site_id, supplier_id, 'announced', UTC_DATE() FROM purchase_order WHERE code = ?`,
        [arrival, orders[0]],
      );
      for (const o of orders)
        await house.source.query('INSERT INTO arrival_order (arrival_id, order_id) SELECT ?, id FROM purchase_order WHERE code = ?', [
          insertId,
          o,
        ]);
      return arrival;
    };
    const [alone, shared] = [await announce([code]), await announce([code, other])];
    await act(code, 'cancel', 2).expect(200);
    expect((await dock.get(`arrivals/${alone}`)).body).toMatchObject({ state: 'closed' });
    expect((await dock.get(`arrivals/${shared}`)).body).toMatchObject({ state: 'announced' });
  });

  it('a line says how much of it went back', async () => {
    const code = await placed();
    const apart = await house.placeId('QUARANTINE-1');
    const task = await dock.task<{ lines: { lineId: number; itemId: number }[] }>('receive', code);
    const { lineId, itemId } = task.lines[0]!;
    const goods = { lineId, itemId, units: 6, toPlaceId: apart, how: 'scanned', condition: 'damaged' };
    await dock.floor(receipt(code, goods)).expect(200);
    const back = {
      supplier: 'QUILLON',
      siteId: 1,
      reason: 'broken',
      lines: [{ itemId, lotId: 0, condition: 'damaged', placeId: apart, units: 4 }],
    };
    await buyer.post('supplier-returns', back).expect(201);
    expect((await sheet(code)).lines).toMatchObject([{ returned: 4 }]);
  });

  describe('files', () => {
    const file = (code: string, name: string, bytes: Buffer, who = buyer) =>
      who.file('post', `purchase-orders/${code}/files?name=${encodeURIComponent(name)}`, bytes);

    it('are kept as they came, and given out as a download that no browser opens', async () => {
      const code = await draft();
      const bytes = Buffer.from([0, 255, 60, 115, 99, 114, 105, 112, 116, 62, 10, 13]);
      await file(code, '../../Angebot “Gläser”.html', bytes).expect(201);
      const { files } = await sheet(code);
      expect(files).toMatchObject([{ name: 'Angebot “Gläser”.html', bytes: bytes.length, by: expect.stringContaining('Piet') as string }]);
      const answer = await buyer.bytes(`order-files/${files[0]!.id}`).expect(200);
      expect(answer.headers).toMatchObject({ 'content-type': 'application/octet-stream', 'x-content-type-options': 'nosniff' });
      expect(answer.headers['content-disposition']).toContain('attachment');
      expect((answer.body as Buffer).equals(bytes)).toBe(true);
      await buyer.delete(`order-files/${files[0]!.id}`).expect(204);
      expect((await sheet(code)).files).toEqual([]);
      await buyer.get(`order-files/${files[0]!.id}`).expect(404);
    });

    it('are refused empty, without a name and beyond twenty', async () => {
      const code = await draft();
      await file(code, 'empty.pdf', Buffer.alloc(0)).expect(400);
      await file(code, '..', Buffer.from('x')).expect(400);
      await file('P-9999', 'a.pdf', Buffer.from('x')).expect(404);
      for (let i = 0; i < 20; i++) await file(code, `${i}.txt`, Buffer.from('x')).expect(201);
      expect((await file(code, 'one-more.txt', Buffer.from('x')).expect(409)).body).toMatchObject({ code: 'state' });
    });

    it('are not for those who may not see costs', async () => {
      const code = await draft();
      await file(code, 'quotation.pdf', Buffer.from('x')).expect(201);
      const { files } = await sheet(code);
      expect((await sheet(code, picker)).files).toEqual([]);
      await picker.get(`order-files/${files[0]!.id}`).expect(403);
      await file(code, 'mine.pdf', Buffer.from('x'), picker).expect(403);
    });
  });
});
