import { createHmac, randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { type Caller, House } from './house.js';

interface Sheet {
  code: string;
  state: string;
  order: string | null;
  version: number;
  amount: string | null;
  credits: string[];
  exchangeOrder: string | null;
  settledAs: string | null;
  proposed: { settlement: string; why: string } | null;
  pictures: number[];
  goodsBack: {
    orderLine: number | null;
    sku: string;
    left: string;
    announced: string;
    back: string;
    pieces: { id: number; fate: string; undone: boolean; givenBack: boolean }[];
  }[];
}

/** What customers send back. */
describe('returns of customers', () => {
  let house: House;
  let maren: Caller;
  let dock: Caller;

  beforeAll(async () => {
    house = await House.open();
    [maren, dock] = await Promise.all([house.as('Maren'), house.as('Ruben')]);
    await house.source.query(
      `INSERT INTO tax_rate (code, name, percent) VALUES ('T20', 'Standard', 20) ON DUPLICATE KEY UPDATE percent = 20`,
    );
    await house.source.query(`UPDATE item SET tax_code = 'T20' WHERE sku = 'SMK-LGE'`);
  });
  afterAll(() => house.close());

  /** An order that has left the house: its code, and the numbers of its lines. */
  async function gone(lines: [sku: string, units: number][], more: object = {}) {
    for (const [sku, units] of lines) await house.stock(sku, 'A-01-1', units);
    const code = await house.order(lines, more);
    await house.source.query(`UPDATE sales_order_line l JOIN sales_order o ON o.id = l.order_id SET l.price = 10 WHERE o.code = ?`, [code]);
    for (const [i, [, units]] of lines.entries()) await house.shipped(code, i + 1, units);
    const rows: { id: number; item_id: number }[] = await house.source.query(
      'SELECT l.id, l.item_id FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id WHERE o.code = ? ORDER BY l.line',
      [code],
    );
    return { code, lines: rows.map((r) => r.id), items: rows.map((r) => r.item_id) };
  }
  const announce = (order: string, lines: object[], more: object = {}) => maren.post('customer-returns', { order, lines, ...more });
  const announced = async (order: string, lines: object[], more: object = {}) =>
    ((await announce(order, lines, more).expect(201)).body as { code: string }).code;
  const opened = async (body: object) =>
    ((await dock.post('customer-returns/open', { siteId: 1, ...body }).expect(200)).body as { code: string }).code;
  const sheet = async (code: string) => (await maren.get(`customer-returns/${code}`).expect(200)).body as Sheet;
  const back = (code: string, of: { lines: number[]; items: number[] }, at: number, more: object = {}) =>
    dock.floor({
      kind: 'come-back',
      code,
      orderLineId: of.lines[at],
      itemId: of.items[at],
      units: 1,
      lot: null,
      number: null,
      cameAs: 'as-new',
      fate: 'shelf',
      note: '',
      how: 'scanned',
      ...more,
    });
  const settle = async (code: string, settlement: string, more: object = {}) =>
    maren.post(
      `customer-returns/${code}/settle`,
      { settlement, why: 'as agreed', ...more },
      { 'if-match': `"${(await sheet(code)).version}"` },
    );
  /** What the journal says of goods under a document: what they took from or gave back to their cost. */
  const cost = async (document: string) => {
    const [row] = await house.source.query<{ cost: string | null }[]>(
      `SELECT SUM(IF(debit = 'cost of goods', amount, -amount)) AS cost FROM value_entry WHERE document = ? AND (debit = 'cost of goods' OR credit = 'cost of goods')`,
      [document],
    );
    return Number(row?.cost ?? 0);
  };

  it('are announced by the desk with a paper, taken back by scans, and paid back by a credit note', async () => {
    const order = await gone([['SMK-LGE', 3], ['BOK-LOG', 2]]); // prettier-ignore
    const { code: invoice } = (await maren.post('invoices', { orders: [order.code] }).expect(201)).body as { code: string };
    const code = await announced(order.code, [{ orderLine: order.lines[0], units: 2, reason: 'unwanted' }]);
    expect(((await maren.bytes(`customer-returns/${code}/pdf`).expect(200)).body as Buffer).toString('latin1')).toContain('%PDF');
    expect((await house.outbox('mail.return-paper')).at(-1)).toMatchObject({ code });
    const task = await dock.task<{ goods: { announced: number; left: number }[] }>('come-back', code);
    expect(task.goods.map((g) => [g.announced, g.left])).toEqual([[2, 3], [0, 2]]); // prettier-ignore
    const before = await house.figures('SMK-LGE');
    await back(code, order, 0, { units: 2 }).expect(200);
    expect((await house.figures('SMK-LGE')).onHand).toBe(before.onHand + 2);
    expect(await sheet(code)).toMatchObject({ state: 'here', proposed: { settlement: 'refund', why: 'Back within 30 days' } });
    expect((await settle(code, 'refund')).body).toMatchObject({ code });
    const settled = await sheet(code);
    // Two of 10.00 at 20 %.
    expect(settled).toMatchObject({ state: 'settled', settledAs: 'refund', amount: '24.00' });
    const credit = (await maren.get(`invoices/${settled.credits[0]}`).expect(200)).body as { gross: string; credits: string };
    expect(credit).toMatchObject({ gross: '-24.00' });
    expect(JSON.stringify(await maren.get(`invoices/${invoice}`).then((r) => r.body as object))).toContain(settled.credits[0]);
    expect((await house.outbox('mail.return-settled')).at(-1)).toMatchObject({ code });
    await house.deliver();
  });

  it('bring back exactly what it cost, in whatever steps, whatever became dearer meanwhile', async () => {
    const order = await gone([['BOK-LOG', 3]]);
    const left = await cost(order.code);
    // Stock becomes dearer: what comes back does not.
    await house.source.query(`UPDATE cost_pool SET value = value + 100 WHERE item_id = ?`, [order.items[0]]);
    await house.source.query(
      `INSERT INTO value_entry (item_id, debit, credit, amount, document) VALUES (?, 'stock', 'opening', 100, 'TEST')`,
      [order.items[0]],
    );
    await house.source.query(
      `UPDATE cost_layer SET value = value + 100, value_left = value_left + 100 WHERE item_id = ? AND units_left > 0 ORDER BY id LIMIT 1`,
      [order.items[0]],
    );
    const code = await announced(order.code, [{ orderLine: order.lines[0], units: 3, reason: 'wrong-goods' }]);
    for (let i = 0; i < 3; i++) await back(code, order, 0).expect(200);
    expect(left).toBeGreaterThan(0);
    expect(await cost(code)).toBe(-left);
    expect((await back(code, order, 0).expect(409)).body).toMatchObject({ title: 'All of it is back' });
  });

  it('are taken off what is still to be invoiced where nothing was', async () => {
    const order = await gone([['SMK-LGE', 3]]);
    const code = await opened({ order: order.code });
    await back(code, order, 0).expect(200);
    await settle(code, 'refund').then((r) => expect(r.status).toBe(200));
    expect(await sheet(code)).toMatchObject({ credits: [], amount: '12.00' });
    const { code: invoice } = (await maren.post('invoices', { orders: [order.code] }).expect(201)).body as { code: string };
    expect((await maren.get(`invoices/${invoice}`)).body).toMatchObject({ net: '20.00' });
  });

  it('pay nothing twice that somebody has credited by hand before', async () => {
    const order = await gone([['SMK-LGE', 3]]);
    const { code: invoice } = (await maren.post('invoices', { orders: [order.code] }).expect(201)).body as { code: string };
    await maren.post(`invoices/${invoice}/credit`, { reason: 'They rang', again: false, lines: [{ line: 1, units: 1 }] }).expect(201);
    const code = await opened({ order: order.code });
    await back(code, order, 0, { units: 2 }).expect(200);
    expect((await settle(code, 'refund')).body).toMatchObject({ code });
    // One of two was paid back before.
    expect(await sheet(code)).toMatchObject({ amount: '12.00' });
    expect((await maren.post('invoices', { orders: [order.code] })).status).toBe(400);
  });

  it('pay a kit back once all of its parts are here', async () => {
    const [kit, smoker, book] = await Promise.all(['VEIL-RND', 'SMK-LGE', 'BOK-LOG'].map((sku) => house.itemId(sku)));
    await house.source.query(`UPDATE item SET kind = 'kit' WHERE id = ?`, [kit]);
    await house.source.query('INSERT INTO item_part (item_id, part_item_id, units) VALUES (?, ?, 1), (?, ?, 2)', [kit, smoker, kit, book]);
    const code = await house.order([['VEIL-RND', 1]]);
    const parts: { id: number; line: number; item_id: number; units: number; sku: string }[] = await house.source.query(
      'SELECT l.id, l.line, l.item_id, l.units, i.sku FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id JOIN item i ON i.id = l.item_id WHERE o.code = ? AND l.kit_line IS NOT NULL ORDER BY l.line',
      [code],
    );
    for (const part of parts) {
      await house.stock(part.sku, 'A-01-1', part.units);
      await house.shipped(code, part.line, part.units);
    }
    const of = { lines: parts.map((p) => p.id), items: parts.map((p) => p.item_id) };
    const one = await opened({ order: code });
    for (const [at, part] of parts.slice(1).entries())
      await back(one, of, at + 1, { units: part.units, cameAs: 'opened', fate: 'quarantine' }).expect(200);
    expect((await settle(one, 'refund')).body).toMatchObject({ code: one });
    expect(await sheet(one)).toMatchObject({ state: 'settled', amount: '0.00' });
    const two = await opened({ order: code });
    await back(two, of, 0, { units: parts[0]?.units, cameAs: 'opened', fate: 'quarantine' }).expect(200);
    expect((await settle(two, 'refund')).body).toMatchObject({ code: two });
    expect(Number((await sheet(two)).amount)).toBeGreaterThan(0);
    expect((await maren.post('invoices', { orders: [code] })).status).toBe(400);
  });

  it('go where they belong: quarantine, supplier, scrap; and an act is taken back', async () => {
    const order = await gone([['BOK-LOG', 5]]);
    const code = await opened({ order: order.code });
    await back(code, order, 0, { cameAs: 'opened', fate: 'quarantine' }).expect(200);
    await back(code, order, 0, { cameAs: 'faulty', fate: 'supplier' }).expect(200);
    const { activityId } = (await back(code, order, 0, { cameAs: 'damaged', fate: 'scrap' }).expect(200)).body as { activityId: number };
    expect((await back(code, order, 0, { cameAs: 'damaged', fate: 'shelf' }).expect(409)).body).toMatchObject({
      title: 'Not back on the shelf',
    });
    const aside = (await maren.get('supplier-returns/aside').expect(200)).body as { sku: string; condition: string }[];
    expect(
      aside
        .filter((a) => a.sku === 'BOK-LOG')
        .map((a) => a.condition)
        .sort(),
    ).toEqual(['damaged', 'held']);
    const scrapped = async () =>
      house.source
        .query<unknown[]>(`SELECT id FROM value_entry WHERE document = ? AND (debit = 'scrap' OR credit = 'scrap')`, [code])
        .then((r) => r.length);
    expect(await scrapped()).toBe(1);
    await dock.post(`tape/${activityId}/undo`).expect(201);
    expect(await scrapped()).toBe(2);
    expect((await sheet(code)).goodsBack[0]).toMatchObject({ back: expect.stringContaining('2') });
  });

  it('are exchanged for the same goods, free of charge and invoiced never', async () => {
    const order = await gone([['SMK-LGE', 1]]);
    await house.stock('SMK-LGE', 'A-01-1', 4);
    const code = await announced(order.code, [{ orderLine: order.lines[0], units: 1, reason: 'faulty' }], { wish: 'exchange' });
    await back(code, order, 0, { cameAs: 'faulty', fate: 'supplier' }).expect(200);
    expect(await sheet(code)).toMatchObject({ proposed: { settlement: 'exchange' } });
    await settle(code, 'exchange').then((r) => expect(r.status).toBe(200));
    const { exchangeOrder } = await sheet(code);
    expect((await maren.get(`orders/${exchangeOrder}`).expect(200)).body).toMatchObject({ customer: 'Wick Hill Farm' });
    await house.shipped(exchangeOrder!, 1, 1);
    expect((await maren.post('invoices', { orders: [exchangeOrder] })).status).toBe(400);
  });

  it('stay the customer’s while they are repaired, and go back to them', async () => {
    const order = await gone([['SMK-LGE', 2]]);
    const code = await announced(order.code, [{ orderLine: order.lines[0], units: 2, reason: 'faulty' }], { wish: 'repair' });
    await back(code, order, 0, { cameAs: 'faulty', fate: 'repair' }).expect(200);
    expect(await cost(code)).toBe(0);
    // Nobody takes another's goods into stock, or sends them to a supplier.
    expect(JSON.stringify((await maren.get('supplier-returns/aside')).body)).not.toContain(
      '"condition":"apart","placeId":' + (await house.placeId('QUARANTINE-1')),
    );
    expect((await settle(code, 'refund')).body).toMatchObject({ fields: { settlement: expect.stringContaining('kept instead') } });
    expect((await settle(code, 'repair')).body).toMatchObject({ fields: { wentWith: expect.stringContaining('Say how') } });
    await settle(code, 'repair', { wentWith: 'Harrier Post HP123' }).then((r) => expect(r.status).toBe(200));
    const done = await sheet(code);
    expect(done.goodsBack[0]).toMatchObject({ back: '', pieces: [{ givenBack: true }] });
    // It is with the customer again, so that it may come back again.
    const again = await opened({ order: order.code });
    await back(again, order, 0, { units: 2 }).expect(200);
  });

  it('that cannot be repaired are kept instead, at what they cost', async () => {
    const order = await gone([['BOK-LOG', 1]]);
    const code = await opened({ order: order.code });
    await back(code, order, 0, { cameAs: 'faulty', fate: 'repair' }).expect(200);
    const { version, goodsBack } = await sheet(code);
    await maren
      .post(`customer-returns/${code}/pieces/${goodsBack[0]?.pieces[0]?.id}/keep`, { fate: 'scrap' }, { 'if-match': `"${version}"` })
      .expect(200);
    expect(await cost(code)).toBe(-(await cost(order.code)));
    await settle(code, 'refund').then((r) => expect(r.status).toBe(200));
  });

  it('are found at the dock by whatever is on them, and one order has one return that is open', async () => {
    const order = await gone([['SMK-LGE', 2]], { ref: 'SHOP-4711' });
    const find = async (q: string) =>
      (await dock.get(`customer-returns/find?q=${encodeURIComponent(q)}`).expect(200)).body as { order: string; code: string | null }[];
    expect(await find('SHOP-4711')).toMatchObject([{ order: order.code, code: null, named: true }]);
    expect((await find('SMK-LGE')).map((f) => f.order)).toContain(order.code);
    expect(await find('%')).toEqual([]);
    const [a, b] = await Promise.all([opened({ order: order.code }), opened({ order: order.code })]);
    expect(a).toBe(b);
    expect(await find(order.code)).toMatchObject([{ code: a }]);
    expect(await find(a)).toMatchObject([{ code: a, order: order.code }]);
  });

  it('of which nobody knows the order are taken in all the same, and closed without money', async () => {
    const itemId = await house.itemId('SMK-LGE');
    const code = await opened({ sku: 'smk-lge' });
    await back(code, { lines: [], items: [itemId] }, 0, { orderLineId: null }).expect(200);
    expect(await sheet(code)).toMatchObject({ order: null, proposed: { settlement: 'nothing' } });
    expect((await settle(code, 'refund')).status).toBe(400);
    await settle(code, 'nothing').then((r) => expect(r.status).toBe(200));
    expect((await back(code, { lines: [], items: [itemId] }, 0, { orderLineId: null }).expect(409)).body).toMatchObject({
      detail: expect.stringContaining('settled'),
    });
  });

  it('take no unit twice, from two phones at once', async () => {
    const order = await gone([['BOK-LOG', 4]]);
    const code = await opened({ order: order.code });
    const answers = await Promise.all(Array.from({ length: 8 }, () => back(code, order, 0)));
    expect(answers.filter((a) => a.status === 200)).toHaveLength(4);
    const both = await Promise.all([settle(code, 'refund'), settle(code, 'nothing')]);
    expect(both.map((b) => b.status).sort()).toEqual([200, 412]);
  });

  it('know the lot that left, and refuse another', async () => {
    const [{ sku, id } = { sku: '', id: 0 }] = await house.source.query<{ sku: string; id: number }[]>(
      `SELECT sku, id FROM item WHERE tracking = 'lot-expiry' LIMIT 1`,
    );
    await house.stock(sku, 'A-01-1', 2, { code: 'RET-1', expires: '2030-01-01' });
    const [lot] = await house.source.query<{ id: number }[]>(`SELECT id FROM lot WHERE code = 'RET-1'`);
    const order = await house.order([[sku, 2]]);
    await house.shipped(order, 1, 2, 'A-01-1', lot?.id);
    const [line] = await house.source.query<{ id: number; orderId: number }[]>(
      'SELECT l.id, o.id AS orderId FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id WHERE o.code = ?',
      [order],
    );
    const placeId = await house.placeId('DOCK-1');
    const { insertId } = await house.source.query<{ insertId: number }>(
      `INSERT INTO parcel (code, order_id, number, place_id, state) VALUES (?, ?, 1, ?, 'gone')`,
      [`${order}-1`, line?.orderId, placeId],
    );
    await house.source.query('INSERT INTO parcel_line (parcel_id, order_line_id, lot_id, units) VALUES (?, ?, ?, 2)', [
      insertId,
      line?.id,
      lot?.id,
    ]);
    const code = await opened({ order });
    const of = { lines: [line?.id ?? 0], items: [id] };
    expect((await back(code, of, 0, { fate: 'quarantine' }).expect(409)).body).toMatchObject({ detail: expect.stringContaining('lot') });
    expect((await back(code, of, 0, { lot: 'OTHER', fate: 'quarantine' }).expect(409)).body).toMatchObject({ title: 'Lot OTHER' });
    await back(code, of, 0, { lot: 'RET-1', fate: 'quarantine', units: 2 }).expect(200);
    expect(await cost(code)).toBe(-(await cost(order)));
  });

  it('are announced by their channel once, and it is told what they came to', async () => {
    const [shop] = await house.source.query<{ id: number; secret: string }[]>(`SELECT id, secret FROM channel WHERE code = 'SHOP'`);
    const ref = `W-${randomUUID().slice(0, 8)}`;
    const order = await gone([['SMK-LGE', 1]], { ref, channel: 'SHOP' });
    const say = (message: object) => {
      const body = JSON.stringify(message);
      const signed = createHmac('sha256', shop?.secret ?? '')
        .update(body)
        .digest('hex');
      return house.http.post('/api/channels/SHOP/webhook').set({ 'content-type': 'application/json', 'x-signature': signed }).send(body);
    };
    const message = {
      state: 'returned',
      ref,
      returnRef: `${ref}-R1`,
      lines: [{ sku: 'SMK-LGE', quantity: 1, reason: 'faulty' }],
      wish: 'refund',
    };
    await house.source.query(`UPDATE channel SET base_url = 'http://127.0.0.1:9/shop' WHERE code = 'SHOP'`);
    const first = (await say(message)).body as { code: string };
    expect((await say(message)).body).toMatchObject({ code: first.code, known: true, what: 'return' });
    // More than left, goods that did not leave, an order nobody knows: kept to be mended, each under its own number.
    for (const [i, odd] of [
      { lines: [{ sku: 'SMK-LGE', quantity: 9 }] },
      { lines: [{ sku: 'NO-SUCH', quantity: 1 }] },
      { ref: 'NOBODY' },
      { lines: 'all' },
    ].entries())
      expect((await say({ ...message, returnRef: `${ref}-X${i}`, ...odd })).status).toBeGreaterThanOrEqual(400);
    const parked = (await maren.get('parked-messages?limit=500').expect(200)).body as { rows: { ref: string; state: string }[] };
    expect(parked.rows.filter((p) => p.ref?.startsWith(`${ref}-X`) && p.state === 'waiting')).toHaveLength(4);
    await back(first.code, order, 0, { cameAs: 'faulty', fate: 'supplier' }).expect(200);
    await settle(first.code, 'refund').then((r) => expect(r.status).toBe(200));
    await house.source.query(`UPDATE channel SET base_url = NULL WHERE code = 'SHOP'`);
    expect((await house.outbox('channel.return')).at(-1)).toMatchObject({
      ref,
      code: first.code,
      returnRef: `${ref}-R1`,
      settlement: 'refund',
      amount: '12.00',
      lines: [{ sku: 'SMK-LGE', units: 1 }],
    });
  });

  it('that do not come are called off; what is over stays as it is', async () => {
    const order = await gone([['SMK-LGE', 1]]);
    const code = await announced(order.code, [{ orderLine: order.lines[0], units: 1, reason: 'late' }]);
    const off = (version: number) =>
      maren.post(`customer-returns/${code}/call-off`, { why: 'They keep it' }, { 'if-match': `"${version}"` });
    expect((await off(99)).status).toBe(412);
    await off((await sheet(code)).version).expect(200);
    expect((await back(code, order, 0).expect(409)).body).toMatchObject({ detail: expect.stringContaining('settled') });
    expect((await settle(code, 'refund')).status).toBe(409);
  });

  it('keep pictures, refuse what is none, and show them to nobody elsewhere', async () => {
    const order = await gone([['SMK-LGE', 1]]);
    const code = await opened({ order: order.code });
    const red = sharp({ create: { width: 40, height: 30, channels: 3, background: '#a33' } });
    const png = await red.png().toBuffer();
    await dock.file('post', `customer-returns/${code}/pictures`, png).expect(204);
    expect((await dock.file('post', `customer-returns/${code}/pictures`, Buffer.from('<svg/>'))).status).toBe(400);
    const { pictures } = await sheet(code);
    expect((await maren.bytes(`customer-returns/${code}/pictures/${pictures[0]}`).expect(200)).headers['content-type']).toBe('image/webp');
    const other = await sheet(await opened({ sku: 'SMK-LGE' }));
    expect((await maren.get(`customer-returns/${other.code}/pictures/${pictures[0]}`)).status).toBe(404);
  });

  it('are nobody’s business who works at other sites only', async () => {
    const order = await gone([['SMK-LGE', 1]]);
    const lines = [{ orderLine: order.lines[0], units: 1, reason: 'late' }];
    const code = await announced(order.code, lines);
    const piet = await house.as('Piet');
    await house.source.query('UPDATE person SET duties = ? WHERE id = ?', [JSON.stringify(['receiver', 'order-desk']), piet.personId]);
    await house.source.query('DELETE FROM person_site WHERE person_id = ? AND site_id = 1', [piet.personId]);
    for (const q of [code, order.code, 'SMK-LGE', 'Wick Hill'])
      expect((await piet.get(`customer-returns/find?q=${encodeURIComponent(q)}`).expect(200)).body).toEqual([]);
    expect((await piet.get(`customer-returns/${code}`)).status).toBe(404);
    expect((await piet.get(`floor/tasks/come-back/${code}`)).status).toBeGreaterThanOrEqual(403);
    for (const body of [{ code }, { order: order.code }])
      expect((await piet.post('customer-returns/open', { siteId: 2, ...body })).status).toBeGreaterThanOrEqual(403);
    expect((await piet.post('customer-returns', { order: order.code, lines })).status).toBeGreaterThanOrEqual(403);
    expect((await sheet(code)).state).toBe('announced');
  });

  it('refuse what is announced wrongly, by its field', async () => {
    const order = await gone([['SMK-LGE', 1]]);
    const line = { orderLine: order.lines[0], units: 1, reason: 'late' };
    expect((await announce(order.code, [{ ...line, units: 2 }])).body).toMatchObject({
      fields: { 'lines.0.units': expect.stringContaining('only 1') },
    });
    expect((await announce(order.code, [{ ...line, reason: 'because' }])).status).toBe(400);
    expect((await announce(order.code, [{ ...line, orderLine: 1 }])).status).toBe(400);
    expect((await announce(order.code, [line, line])).status).toBe(400);
    const open = await house.order([['SMK-LGE', 1]]);
    expect((await announce(open, [line])).body).toMatchObject({ detail: expect.stringContaining('Nothing of') });
  });

  it('are counted by item, supplier and customer, with why', async () => {
    for (const by of ['item', 'supplier', 'customer']) {
      const { rows } = (await maren.get(`customer-returns/tally?by=${by}`).expect(200)).body as {
        rows: { key: string; left: number; back: number; share: number }[];
      };
      expect(rows.length).toBeGreaterThan(0);
      expect(rows.every((r) => r.back > 0 && r.share > 0)).toBe(true);
    }
    expect((await maren.get('customer-returns/tally?from=2026-13-45')).status).toBe(400);
  });
});
