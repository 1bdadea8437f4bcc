import { createHmac } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import type { AddressInfo, Server } from 'node:net';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Carriers } from '../carriers.js';
import { printer, readMail } from '../post.js';
import { Lindenmart } from '../lindenmart.js';
import { outsideServer } from '../server.js';
import { Trade } from '../trade.js';
import { Travels } from '../travels.js';
import { Shop } from '../shop.js';
import { Suppliers } from '../suppliers.js';
import { WorldState } from '../state.js';

const SECRET = 'a shared secret';
const sign = (text: string) => createHmac('sha256', SECRET).update(text).digest('hex');

describe('the outside world', () => {
  let state: WorldState;
  let http: Server;
  let base: string;

  beforeAll(async () => {
    state = new WorldState(mkdtempSync(join(tmpdir(), 'outside-')));
    const shop = new Shop(state, 'http://127.0.0.1:9', SECRET);
    http = outsideServer({
      state,
      shop,
      market: new Lindenmart(state, 'key'),
      trade: new Trade(state, 'http://127.0.0.1:9', 'secret'),
      carriers: new Carriers(state, 'key'),
      travels: new Travels(state, 'http://127.0.0.1:9', 'key'),
      suppliers: new Suppliers(state, 'http://127.0.0.1:9', 'key'),
    });
    await new Promise<void>((done) => http.listen(0, '127.0.0.1', done));
    base = `http://127.0.0.1:${(http.address() as AddressInfo).port}`;
  });
  afterAll(() => {
    state.write();
    http.close();
  });

  const put = (path: string, body: object, signature?: string) => {
    const text = JSON.stringify(body);
    return fetch(base + path, { method: 'PUT', body: text, headers: { 'x-signature': signature ?? sign(text) } });
  };
  const post = (path: string, body: object, headers: Record<string, string> = {}) =>
    fetch(base + path, { method: 'POST', body: JSON.stringify(body), headers });
  const manner = (part: string, how: string) => post('/console/manners', { part, manner: how });

  it('believes stock figures in their sequence, not in the order of arrival', async () => {
    await put('/shop/stock/JAR', { units: 10, sequence: 5 });
    await put('/shop/stock/JAR', { units: 99, sequence: 4 });
    expect(state.world.stock['JAR']).toMatchObject({ units: 10, sequence: 5 });
    await put('/shop/stock/JAR', { units: 7, sequence: 6 });
    expect(state.world.stock['JAR']!.units).toBe(7);
  });

  it('takes nothing that is not signed', async () => {
    expect((await put('/shop/stock/JAR', { units: 1, sequence: 9 }, 'forged')).status).toBe(401);
    expect((await fetch(`${base}/shop/orders?since=`)).status).toBe(401);
    expect(state.world.stock['JAR']!.units).toBe(7);
  });

  it('sells what it believes to have, and no more', async () => {
    const first = (await (await post('/console/orders', { lines: [{ sku: 'JAR', quantity: 5 }] })).json()) as { ref: string };
    expect(first.ref).toMatch(/^W3001-/);
    const second = await post('/console/orders', { lines: [{ sku: 'JAR', quantity: 5 }] });
    expect(second.status).toBe(409);
    expect(await second.json()).toEqual({ message: 'The shop believes that only 2 of JAR are left' });
    expect((await post('/console/orders', { lines: [] })).status).toBe(400);
  });

  it('hands out orders after a cursor', async () => {
    const ask = async (since: string) =>
      (
        await fetch(`${base}/shop/orders?since=${since}`, { headers: { 'x-signature': sign(`/orders?since=${since}`) } })
      ).json() as Promise<{ orders: unknown[]; cursor: string }>;
    expect(await ask('')).toMatchObject({ orders: [{ customer: 'Wick Hill Farm' }], cursor: '3001' });
    expect(await ask('3001')).toEqual({ orders: [], cursor: '3001' });
  });

  it('keeps a shipment once, though it is told twice', async () => {
    const ref = state.world.orders[0]!.order.ref;
    const told = { carrier: 'Harrier Post', tracking: 'HP1', lines: [{ line: 1, quantity: 2 }] };
    for (let i = 0; i < 2; i++) await put(`/shop/orders/${ref}/shipments/S-1-1`, told);
    expect(state.world.orders[0]!.shipments).toEqual([{ parcel: 'S-1-1', ...told }]);
  });

  it('sends goods back, says so again while nobody has heard, and keeps what the stores decide', async () => {
    const ref = state.world.orders[0]!.order.ref;
    const back = (await (await post(`/console/orders/${ref}/return`, { wish: 'refund' })).json()) as { returnRef: string };
    const asked = await fetch(`${base}/shop/orders?since=3001`, { headers: { 'x-signature': sign('/orders?since=3001') } });
    expect(await asked.json()).toMatchObject({ orders: [{ ref, state: 'returned', returnRef: back.returnRef, wish: 'refund' }] });
    const decided = { returnRef: back.returnRef, settlement: 'refund', amount: '4.20' };
    for (let i = 0; i < 2; i++) await put(`/shop/orders/${ref}/returns/G-0001`, decided);
    await put(`/shop/orders/${ref}/returns/G-0002`, { returnRef: null, settlement: 'nothing', amount: null });
    expect(state.world.orders[0]!.returns!.map((r) => [r.returnRef, r.settled?.settlement, r.settled?.amount])).toEqual([
      [back.returnRef, 'refund', '4.20'],
      ['G-0002', 'nothing', null],
    ]);
    expect((await post('/console/orders/NOBODY/return', {})).status).toBe(404);
  });

  const auth = { authorization: 'Bearer key' };
  const parcel = { parcel: 'S-1-1', weightG: 900, service: 'parcel-48', to: { name: 'P', line: 'x', city: 'y', postcode: 'NW8 2RE' } };

  it('prices by weight band and refuses what is too heavy', async () => {
    const rates = async (weightG: number) =>
      ((await (await post('/carriers/harrier/rates', { weightG }, auth)).json()) as { rates: { price: string }[] }).rates.map(
        (r) => r.price,
      );
    expect(await rates(1000)).toEqual(['2.85', '4.10']);
    expect(await rates(1001)).toEqual(['3.60', '5.30']);
    expect(await rates(25_000)).toEqual(['16.50']);
    expect(await rates(31_000)).toEqual([]);
    expect((await post('/carriers/harrier/rates', { weightG: 1 })).status).toBe(401);
    expect((await post('/carriers/nobody/rates', { weightG: 1 }, auth)).status).toBe(404);
  });

  it('prices what is large by its room, what goes far by its way, and takes nothing that is too long', async () => {
    const rates = async (more: object) =>
      ((await (await post('/carriers/harrier/rates', { weightG: 900, ...more }, auth)).json()) as { rates: object[] }).rates[0];
    expect(await rates({ sizeMm: [200, 200, 200] })).toMatchObject({ price: '2.85', surcharges: [] });
    expect(await rates({ sizeMm: [400, 300, 250] })).toMatchObject({ price: '5.20' });
    expect(await rates({ to: { postcode: 'IV2 3AB' } })).toMatchObject({
      price: '7.35',
      surcharges: [{ name: 'remote area', price: '4.50' }],
    });
    expect(await rates({ sizeMm: [1_001, 20, 20] })).toBeUndefined();
  });

  it('sells one label for a parcel, however often it is asked', async () => {
    const label = async () => (await (await post('/carriers/harrier/labels', parcel, auth)).json()) as { tracking: string; pdf: string };
    const [one, two] = [await label(), await label()];
    expect(two.tracking).toBe(one.tracking);
    expect(Buffer.from(one.pdf, 'base64').subarray(0, 5).toString()).toBe('%PDF-');
    expect((await post('/carriers/harrier/labels', { ...parcel, parcel: 'S-2-1', to: {} }, auth)).status).toBe(422);
    await post(`/console/parcels/${one.tracking}/move`, {});
    expect(state.world.parcels[0]!.steps.map((s) => s.what)).toEqual(['label made', 'collected']);
  });

  it('takes a label back by the sender’s reference, and sells another under another', async () => {
    const label = async (reference: string) =>
      (await (await post('/carriers/harrier/labels', { ...parcel, parcel: 'S-3-1', reference }, auth)).json()) as { tracking: string };
    const first = await label('S-3-1');
    expect((await post('/carriers/harrier/voids', { reference: 'S-3-1', tracking: null }, auth)).status).toBe(200);
    expect((await post('/carriers/harrier/voids', { reference: 'S-3-1/9', tracking: null }, auth)).status).toBe(404);
    expect((await label('S-3-1/2')).tracking).not.toBe(first.tracking);
    expect(state.world.parcels.find((p) => p.tracking === first.tracking)?.steps.at(-1)?.what).toBe('given back');
  });

  it('misbehaves when asked to', async () => {
    await manner('carriers', 'failing');
    expect((await post('/carriers/harrier/rates', { weightG: 1 }, auth)).status).toBe(503);
    await manner('carriers', 'well');
    expect((await manner('carriers', 'rudely')).status).toBe(404);
  });

  it('prints PDF and nothing else', async () => {
    const paper = printer(state);
    await new Promise<void>((done) => paper.listen(0, '127.0.0.1', done));
    const print = (bytes: string) =>
      new Promise<void>((done) => {
        const socket = connect((paper.address() as AddressInfo).port, '127.0.0.1', () => socket.end(bytes));
        socket.resume();
        socket.on('close', () => done());
      });
    await print('%PDF-1.3 hello');
    await print('not a paper');
    expect(state.world.papers).toHaveLength(1);
    paper.close();
  });

  it('remembers after a restart', () => {
    state.write();
    expect(new WorldState(state.dir).world.orders).toHaveLength(1);
  });

  it('serves its console', async () => {
    expect(await (await fetch(base)).text()).toContain('Outside world');
    expect((await fetch(`${base}/console/papers/..%2Fworld.json`)).status).toBe(404);
    expect((await fetch(`${base}/elsewhere`)).status).toBe(404);
  });
});

describe('mail', () => {
  it('is read with its subject, text and attachments', () => {
    const raw = [
      'Message-ID: <m1@x>',
      'To: petra@mail.example',
      'Subject: =?UTF-8?Q?J=C3=A4r_is_on_its_way?=',
      'Content-Type: multipart/mixed; boundary=b',
      '',
      '--b',
      'Content-Type: text/plain; charset=utf-8',
      '',
      'Dear Petra,',
      '--b',
      'Content-Type: application/pdf; name=a.pdf',
      'Content-Disposition: attachment; filename=S-1.pdf',
      '',
      'x',
      '--b--',
    ].join('\r\n');
    expect(readMail(raw)).toMatchObject({
      id: '<m1@x>',
      to: 'petra@mail.example',
      subject: 'Jär is on its way',
      text: 'Dear Petra,',
      attachments: ['S-1.pdf'],
    });
  });
});
