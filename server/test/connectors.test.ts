import { createHmac, randomUUID } from 'node:crypto';
import { ChannelPolling, StockPushing } from '../src/connectors/index.js';
import { LINDEN_KEY, SHOP_SECRET, TRADE_SECRET } from '../src/demo/house.js';
import { Outbox } from '../src/platform/index.js';
import { readDespatchAdvice, readInvoice, readXml, structureFaults } from '../src/ubl/index.js';
import { cancellation, linden, shopOrder, trade } from './channel-messages.js';
import { type Caller, closing, House, keyed } from './house.js';
import { OutsideWorld } from './outside-world.js';

interface Order {
  code: string;
  state: string;
  version: number;
  promisedAt: string;
  holdReason: string | null;
  addressLine: string;
  lines: { sku: string | null; channelSku: string; quantity: number; wanted: number; reserved: number }[];
  [field: string]: unknown;
}
let house: House;
let world: OutsideWorld;
let desk: Caller;
beforeAll(async () => {
  world = await OutsideWorld.open();
  house = await House.open({ VECTRUM_OUTSIDE_URL: world.url });
  desk = await house.as('Maren');
  await house.stock('JAR-454-RD', 'A-01-1', 600);
  await house.deliver();
});
beforeEach(() => {
  world.answers = {};
});
afterAll(async () => {
  await house.close();
  await world.close();
});

const sheet = async (code: string) => (await desk.get(`orders/${code}`).expect(200)).body as Order;
const hook = (message: object) => {
  const body = JSON.stringify(message);
  const signed = createHmac('sha256', SHOP_SECRET).update(body).digest('hex');
  return house.http.post('/api/channels/SHOP/webhook').set({ 'content-type': 'application/json', 'x-signature': signed }).send(body);
};
const document = (xml: string, secret = TRADE_SECRET) =>
  house.http
    .post('/api/channels/TRADE/documents')
    .set({ 'content-type': 'application/xml', 'x-signature': createHmac('sha256', secret).update(xml).digest('hex') })
    .send(xml);
async function polled(orders: unknown[]): Promise<void> {
  world.answers['GET /lindenmart/orders'] = () => ({ status: 200, body: { orders, after: randomUUID() } });
  await house.source.query(`UPDATE channel SET polled_at = NULL, next_poll_at = NULL WHERE code = 'LINDEN'`);
  await house.app.get(ChannelPolling).runDue();
}
const byRef = async (ref: string) =>
  (await house.source.query<{ code: string }[]>('SELECT code FROM sales_order WHERE channel_ref = ?', [ref])).map((o) => o.code);
const unread = async () => ((await desk.get('parked-messages')).body as { waiting: number }).waiting;
const pushes = (sku: string) => world.at(`/offers/${sku}/count`).map((h) => JSON.parse(h.body) as { count: number; version: number });

describe('the marketplace', () => {
  it('is asked for orders with its key; each has its own codes, leaves by its time, and is acknowledged', async () => {
    const order = linden();
    await polled([order, order]);
    const [code, ...more] = await byRef(order.number);
    expect(more).toEqual([]);
    expect(await sheet(code!)).toMatchObject({ state: 'open', promisedAt: order.dispatchBy, lines: [{ sku: 'JAR-454-RD', reserved: 2 }] });
    expect(world.at('/lindenmart/orders')[0]!.headers.authorization).toBe(`Bearer ${LINDEN_KEY}`);
    await house.deliver();
    expect(world.at(`/orders/${order.number}/taken`).map((h) => JSON.parse(h.body) as unknown)).toEqual([{ sellersNumber: code }]);
  });

  it('changes and cancels its orders; what it said is told from what the desk has mended', async () => {
    const order = linden();
    await polled([order]);
    const [code] = (await byRef(order.number)) as [string];
    const o = await sheet(code);
    const body = {
      ...keyed({ quote: undefined, ref: undefined }),
      customer: o['customer'],
      addressLine: '7a Fulling Lane',
      why: 'they rang',
    };
    const lines = o.lines.map((l, i) => ({ line: i + 1, sku: l.sku, factor: 1, quantity: '2', price: '0.99' }));
    await desk.put(`orders/${code}`, { ...body, promisedAt: o.promisedAt, lines }, { 'if-match': `"${o.version}"` }).expect(200);
    await polled([{ ...order, edition: 1, goods: [{ offer: 'LM-88121', count: 5, unitPrice: '0.99' }] }]);
    expect(await sheet(code)).toMatchObject({ addressLine: '7a Fulling Lane', lines: [{ wanted: 5, reserved: 5 }] });
    // An older edition that comes late changes nothing.
    await polled([order]);
    expect((await sheet(code)).lines).toMatchObject([{ wanted: 5 }]);
    await polled([{ ...order, edition: 2, status: 'cancelled' }]);
    expect(await sheet(code)).toMatchObject({ state: 'cancelled', lines: [{ reserved: 0 }] });
    const events = (await desk.get(`orders/${code}/history`)).body as { what: string }[];
    expect(events.map((e) => e.what)).toEqual(
      expect.arrayContaining([`${code} changed by its channel`, `${code} is cancelled by its channel`]),
    );
  });

  it('cancels an order before it has said it: it comes in, and is cancelled', async () => {
    const order = linden();
    await polled([{ ...order, status: 'cancelled', edition: 1 }]);
    expect(await byRef(order.number)).toEqual([]);
    await polled([order]);
    const [code] = (await byRef(order.number)) as [string];
    expect((await sheet(code)).state).toBe('cancelled');
  });

  it('is told that its order was cancelled here', async () => {
    const order = linden();
    await polled([order]);
    const [code] = (await byRef(order.number)) as [string];
    const { version } = await sheet(code);
    await desk.post(`orders/${code}/cancel`, { why: 'The bin was empty', tell: false }, { 'if-match': `"${version}"` }).expect(200);
    await house.deliver();
    expect(world.at(`/orders/${order.number}/refused`).map((h) => JSON.parse(h.body) as unknown)).toEqual([{ why: 'The bin was empty' }]);
  });

  it('is told stock once for many changes, with counts that grow, and only its share of what is scarce', async () => {
    const before = pushes('LM-91555').length;
    for (let i = 0; i < 5; i++) await house.stock('TOOL-JH', 'A-05-1', 4);
    await house.deliver();
    // 20 − 5 kept back.
    expect(pushes('LM-91555').slice(before)).toMatchObject([{ count: 15 }]);
    await house.order([['TOOL-JH', 10]]);
    await house.deliver();
    const [first, second] = pushes('LM-91555').slice(before);
    // 10 are left, fewer than 12: four of them are its share, and five are kept back.
    expect(second).toMatchObject({ count: 0 });
    expect(second!.version).toBeGreaterThan(first!.version);
  });

  it('rests where it asks for it, and is told what is true once it has rested', async () => {
    let calls = 0;
    world.answers['POST /lindenmart/offers'] = () => (++calls > 1 ? { status: 200, body: {} } : { status: 429, body: {} });
    await house.stock('JAR-454-RD', 'A-01-1', 1);
    await house.app.get(StockPushing).runDue();
    expect(calls).toBe(1);
    await house.app.get(StockPushing).runDue();
    expect(calls).toBe(1);
    await house.stock('JAR-454-RD', 'A-01-1', 1);
    await desk.post('channels/LINDEN/try').expect(200);
    await house.app.get(StockPushing).runDue();
    const [row] = await house.source.query<{ told: number; free: number }[]>(
      `SELECT l.told_units AS told, s.on_hand - s.held - s.reserved AS free FROM listing l JOIN channel c ON c.id = l.channel_id JOIN site_stock s ON s.item_id = l.item_id AND s.site_id = 1 WHERE c.code = 'LINDEN' AND l.channel_sku = 'LM-88121'`,
    );
    expect(row!.told).toBe(Number(row!.free) - 5);
  });
});

describe('what a channel believes', () => {
  it('is compared with what is true, and told anew', async () => {
    await house.deliver();
    world.answers['GET /lindenmart/offers'] = () => ({ status: 200, body: { offers: [{ sku: 'LM-88121', title: 'Jar', count: 3 }] } });
    expect((await desk.post('channels/LINDEN/beliefs').expect(200)).body).toEqual({ count: 1 });
    const jar = async () =>
      ((await desk.get('channels/LINDEN/beliefs')).body as { channelSku: string; units: number; told: number; believes: number }[]).find(
        (b) => b.channelSku === 'LM-88121',
      )!;
    const { units, told, believes } = await jar();
    expect([told, believes]).toEqual([units, 3]);
    const before = pushes('LM-88121').length;
    await desk.post('channels/LINDEN/repair').expect(200);
    await house.deliver();
    expect(pushes('LM-88121').slice(before)).toMatchObject([{ count: units }]);
  });

  it('is told after an outage, the latest figure alone, and messages in their order', async () => {
    for (const start of ['POST /lindenmart', 'GET /lindenmart', 'PUT /shop', 'GET /shop'])
      world.answers[start] = () => ({ status: 503, body: {} });
    const before = pushes('LM-88121').length;
    const orders = [await house.order([['JAR-454-RD', 3]]), await house.order([['JAR-454-RD', 2]])];
    await house.deliver();
    const channels = (await desk.get('channels')).body as { code: string; pushError: string | null; dueStock: number }[];
    expect(channels.find((c) => c.code === 'LINDEN')).toMatchObject({ pushError: 'Lindenmart answered 503' });
    expect(channels.find((c) => c.code === 'LINDEN')!.dueStock).toBeGreaterThan(0);
    const failed = pushes('LM-88121').length - before;
    world.answers = {};
    await desk.post('channels/LINDEN/try').expect(200);
    await house.deliver();
    const after = pushes('LM-88121').slice(before + failed);
    expect(after).toHaveLength(1);
    expect(orders).toHaveLength(2);
    expect(((await desk.get('channels')).body as { code: string; dueStock: number }[]).find((c) => c.code === 'LINDEN')).toMatchObject({
      dueStock: 0,
      pushError: null,
    });
  });
});

it('goes on to the next where a channel refuses one thing that it is told', async () => {
  const [first, second] = [linden(), linden()];
  world.answers[`POST /lindenmart/orders/${first.number}`] = () => ({ status: 404, body: {} });
  await polled([first, second]);
  await house.deliver();
  expect(world.at(`/orders/${second.number}/taken`)).toHaveLength(1);
  expect(await house.app.get(Outbox).waiting()).toBe(0);
  const { rows } = (await desk.get('channels/LINDEN/exchanges')).body as { rows: { ref: string; went: string; detail: string }[] };
  expect(rows.find((r) => r.ref === first.number && r.went === 'failed')!.detail).toContain('404');
});

describe('trade orders', () => {
  it('come as UBL, by our own codes and by barcode, and are answered with an OrderResponse', async () => {
    const id = `PO-${randomUUID().slice(0, 6)}`;
    const xml = trade(id, [
      ['Sellers', 'JAR-454-RD', 6],
      ['Standard', '19521077000017', 1],
    ]);
    const { code } = (await document(xml).expect(200)).body as { code: string };
    expect(await sheet(code)).toMatchObject({
      state: 'open',
      customer: 'Thornlea Garden Centre',
      lines: [
        { sku: 'JAR-454-RD', wanted: 6 },
        { sku: 'JAR-454-RD', quantity: 1, wanted: 48 },
      ],
    });
    expect((await document(xml).expect(200)).body).toMatchObject({ code, known: true });
    await house.deliver();
    const [answer] = world.at('/trade/order-responses');
    expect(answer!.body).toContain('<cbc:OrderResponseCode>AP</cbc:OrderResponseCode>');
    expect(answer!.headers['x-signature']).toBe(createHmac('sha256', TRADE_SECRET).update(answer!.body).digest('hex'));
  });

  it('have their parcels and invoices told to the customer’s system, as UBL that reads back', async () => {
    const id = `PO-${randomUUID().slice(0, 6)}`;
    const { code } = (await document(trade(id, [['Sellers', 'JAR-454-RD', 6]])).expect(200)).body as { code: string };
    const round = await house.release(code);
    await house.pickAll(round, 'T-31');
    await (await house.packAll(code)).floor(closing(code, { weightG: 180 + 245 * 6 })).expect(200);
    const parcel = `${code}-1`;
    const handed = { kind: 'hand-over', siteId: 1, parcels: [parcel], driver: 'Odo Fenn', signature: 'M10 20L300 150' };
    const [carrier] = await house.source.query<{ code: string }[]>('SELECT c.code FROM parcel p JOIN carrier c ON c.id = p.carrier_id WHERE p.code = ?', [parcel]); // prettier-ignore
    await house.source.query(`UPDATE parcel SET state = 'labelled', tracking = 'HP-TRADE-1' WHERE code = ?`, [parcel]);
    await (await house.as('Dilys')).floor({ ...handed, carrier: carrier?.code ?? 'HARRIER' }).expect(200);
    await desk.post('invoices', { orders: [code] }).expect(201);
    await house.deliver();
    const said = (path: string) => world.at(path).at(-1)!;
    const advice = readXml(Buffer.from(said('/trade/despatch-advices').body));
    expect(structureFaults(advice)).toEqual([]);
    expect(readDespatchAdvice(advice)).toMatchObject({
      id: parcel,
      tracking: 'HP-TRADE-1',
      lines: [{ order: id.toUpperCase(), orderLine: 1, packs: 6, sku: 'JAR-454-RD' }],
    });
    const invoice = said('/trade/invoices');
    expect(invoice.headers['x-signature']).toBe(createHmac('sha256', TRADE_SECRET).update(invoice.body).digest('hex'));
    const read = readXml(Buffer.from(invoice.body));
    expect(structureFaults(read)).toEqual([]);
    expect(readInvoice(read)).toMatchObject({ kind: 'invoice', lines: [{ units: 6, order: code }] });
  });

  it('are changed under the same number, and cancelled', async () => {
    const id = `PO-${randomUUID().slice(0, 6)}`;
    const { code } = (await document(trade(id, [['Sellers', 'JAR-454-RD', 6]])).expect(200)).body as { code: string };
    expect((await document(trade(id, [['Sellers', 'JAR-454-RD', 9]])).expect(200)).body).toMatchObject({ code, what: 'change' });
    expect((await sheet(code)).lines).toMatchObject([{ wanted: 9 }]);
    expect((await document(cancellation(id)).expect(200)).body).toMatchObject({ code, what: 'cancel' });
    expect((await sheet(code)).state).toBe('cancelled');
  });

  it('that are wrong are refused with the reason and kept; a wrong signature is not even read', async () => {
    const before = await unread();
    const { body } = await document(trade('PO-BAD', [['Sellers', 'JAR-454-RD', 'a few']])).expect(400);
    expect(JSON.stringify(body)).toContain('line 1');
    await document('<Order><ID>half').expect(400);
    await document('<Order xmlns="urn:x"><!DOCTYPE a></Order>').expect(400);
    await document(trade('PO-X', [['Sellers', 'JAR-454-RD', 1]]), 'another secret').expect(401);
    expect(await unread()).toBe(before + 3);
    expect(await byRef('PO-BAD')).toEqual([]);
  });

  it('for goods that nobody knows are held until they are linked', async () => {
    const id = `PO-${randomUUID().slice(0, 6)}`;
    const { code } = (await document(trade(id, [['Buyers', 'THEIRS-1', 2]])).expect(200)).body as { code: string };
    const held = await sheet(code);
    expect(held).toMatchObject({ state: 'held', holdReason: expect.stringContaining('THEIRS-1') as string });
    await desk
      .post(`orders/${code}/clear-hold`, { links: [{ line: 1, sku: 'JAR-454-RD' }] }, { 'if-match': `"${held.version}"` })
      .expect(200);
    expect(await sheet(code)).toMatchObject({ state: 'open', lines: [{ sku: 'JAR-454-RD', reserved: 2 }] });
  });
});

describe('a file of orders', () => {
  const HEADS = 'order;customer;street;town;postcode;sku;quantity;price\n';
  const sent = (text: string, channel = 'PHONE') => desk.file('post', `channels/${channel}/files`, Buffer.from(text));

  it('is taken in order by order; what is wrong is put aside and holds up nothing', async () => {
    const [a, b, c] = [1, 2, 3].map(() => `F-${randomUUID().slice(0, 6)}`) as [string, string, string];
    const text = `${HEADS}${a};Fernlea;Mill Lane 4;Ambleforth;AM4 7TQ;JAR-454-RD;2;0.95\n${a};;;;;JAR-227-RD;1;0.74\n${b};Skelby;;;;JAR-454-RD;many;1\n${c};Weir;12 Weir Street;Hathersley;HA1 3PN;JAR-454-RD;1;0.95\n`;
    const done = (await sent(text).expect(200)).body as { taken: string[]; parked: number };
    expect(done).toMatchObject({ known: 0, parked: 1 });
    expect(done.taken).toHaveLength(2);
    expect((await sheet(done.taken[0]!)).lines).toHaveLength(2);
    expect((await sent(text).expect(200)).body).toMatchObject({ taken: [], known: 2 });
  });

  it.each([
    ['nothing', ''],
    ['other heads', 'a;b\n1;2\n'],
    ['an open quote', `${HEADS}"F-1;x`],
  ])('that holds %s is refused, with the heads that it needs', async (_, text) => {
    const { body } = await sent(text).expect(400);
    expect((body as { fields: { file: string } }).fields.file).toBeTruthy();
  });

  it('may be a trade order, whatever the channel is', async () => {
    const done = (await sent(trade(`PO-${randomUUID().slice(0, 6)}`, [['Sellers', 'JAR-454-RD', 1]]), 'TRADE').expect(200)).body;
    expect((done as { taken: string[] }).taken).toHaveLength(1);
  });
});

describe('a shop that changes its mind', () => {
  it('is followed until the goods are in a closed parcel; then somebody is asked', async () => {
    const order = shopOrder();
    const { code } = (await hook(order).expect(200)).body as { code: string };
    expect((await hook({ ...order, lines: [{ sku: 'JAR-454-RD', quantity: 3, price: '0.95' }] }).expect(200)).body).toMatchObject({
      code,
      what: 'change',
    });
    expect((await sheet(code)).lines).toMatchObject([{ wanted: 3, reserved: 3 }]);
    const round = await house.release(code);
    await house.pickAll(round, 'T-30');
    await (await house.packAll(code)).floor(closing(code, { weightG: 180 + 245 * 3 })).expect(200);
    const late = await hook({ ...order, lines: [{ sku: 'JAR-454-RD', quantity: 1, price: '0.95' }] }).expect(400);
    expect(JSON.stringify(late.body)).toContain('closed parcel');
    expect((await sheet(code)).lines).toMatchObject([{ wanted: 3 }]);
  });

  it('holds an order that is not paid, and a large first one, until it is', async () => {
    const order = shopOrder({ paid: false });
    const { code } = (await hook(order).expect(200)).body as { code: string };
    expect(await sheet(code)).toMatchObject({ state: 'held', holdReason: expect.stringContaining('Not paid') as string });
    await hook({ ...order, paid: true }).expect(200);
    expect((await sheet(code)).state).toBe('open');
    const large = shopOrder({ email: 'new@mail.example', lines: [{ sku: 'JAR-454-RD', quantity: 2, price: '600.00' }] });
    const held = (await hook(large).expect(200)).body as { code: string };
    expect(await sheet(held.code)).toMatchObject({ state: 'held', holdReason: expect.stringContaining('first order') as string });
  });
});

it('keeps what was said, as it was said, for those who may see the channel', async () => {
  const { rows } = (await desk.get('channels/SHOP/exchanges').expect(200)).body as {
    rows: { id: number; what: string; direction: string }[];
  };
  expect(new Set(rows.map((r) => r.what))).toEqual(
    new Set(['order', 'change', 'message', 'stock', 'asked'].filter((w) => rows.some((r) => r.what === w))),
  );
  const order = rows.find((r) => r.what === 'order')!;
  const { raw } = (await desk.get(`channels/SHOP/exchanges/${order.id}`).expect(200)).body as { raw: string };
  expect(JSON.parse(raw)).toHaveProperty('ref');
  await (await house.as('Ines')).get('channels/SHOP/exchanges').expect(403);
});

it('takes over what a channel offers: linked by barcode, SKU and name as proposed, made where nothing is like it', async () => {
  world.answers['GET /shop/goods'] = () => ({
    status: 200,
    body: {
      goods: [
        { sku: 'JAR-454-RD', title: 'Jar', price: '0.95' },
        { sku: 'SHOP-TRAY', title: 'A tray of jars', price: '40.00', barcode: '19521077000017' },
        { sku: 'shop veil/1', title: 'Veil', price: '12.00', barcode: '9521077990007' },
        { sku: 'SHOP-SMOKE', title: 'Smoker, large', price: '24.50' },
        { title: 'no code' },
      ],
    },
  });
  const offers = (await desk.get('channels/SHOP/catalogue').expect(200)).body as {
    channelSku: string;
    by: string;
    sku: string | null;
    factor: number;
  }[];
  expect(offers.map((o) => [o.channelSku, o.by, o.factor])).toEqual([
    ['JAR-454-RD', 'linked', 1],
    ['SHOP-TRAY', 'barcode', 48],
    ['shop veil/1', 'new', 1],
    ['SHOP-SMOKE', offers.at(-1)!.by, 1],
  ]);
  const chosen = offers.filter((o) => o.by !== 'linked').map((o) => ({ channelSku: o.channelSku, sku: o.sku ?? '' }));
  const key = randomUUID();
  for (let i = 0; i < 2; i++)
    expect((await desk.post('channels/SHOP/catalogue', chosen, { 'idempotency-key': key }).expect(200)).body).toEqual({
      count: chosen.length,
    });
  const made = (await desk.get('items/SHOP-VEIL-1').expect(200)).body as { name: string };
  expect(made.name).toBe('Veil');
  const { code } = (await hook(shopOrder({ lines: [{ sku: 'SHOP-TRAY', quantity: 2, price: '40.00' }] })).expect(200)).body as {
    code: string;
  };
  expect((await sheet(code)).lines).toMatchObject([{ sku: 'JAR-454-RD', wanted: 96 }]);
});

it('never sells the last five twice, with two channels and the counter racing in two hundred orders', async () => {
  await house.stock('SUIT-M', 'A-06-1', 5);
  const from = [
    () => hook(shopOrder({ lines: [{ sku: 'SUIT-M', quantity: 1, price: '62.00' }] })),
    () => document(trade(`R-${randomUUID().slice(0, 8)}`, [['Sellers', 'SUIT-M', 1]])),
    () => desk.post('orders', keyed({ lines: [{ sku: 'SUIT-M', factor: 1, quantity: '1', price: '62' }] })),
  ];
  const made: string[] = [];
  for (let wave = 0; wave < 10; wave++) {
    const answers = await Promise.all(Array.from({ length: 20 }, (_, i) => from[i % 3]!()));
    for (const a of answers) {
      expect([200, 201]).toContain(a.status);
      made.push((a.body as { code: string }).code);
    }
  }
  expect(new Set(made).size).toBe(200);
  const [row] = await house.source.query<{ reserved: string; open: string }[]>(
    `SELECT (SELECT SUM(v.units) FROM reservation v JOIN item i ON i.id = v.item_id WHERE i.sku = 'SUIT-M') AS reserved, (SELECT COUNT(*) FROM sales_order WHERE code IN (?) AND state IN ('open','held')) AS open`,
    [made],
  );
  expect([Number(row!.reserved), Number(row!.open)]).toEqual([5, 200]);
  await house.deliver();
  const told = world.at('/stock/SUIT-M').map((h) => (JSON.parse(h.body) as { units: number }).units);
  expect(told.at(-1)).toBe(0);
});
