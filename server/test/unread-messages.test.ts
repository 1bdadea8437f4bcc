import { createHmac, randomUUID } from 'node:crypto';
import { ChannelPolling } from '../src/connectors/index.js';
import { SHOP_SECRET } from '../src/demo/house.js';
import { OrderIntake } from '../src/orders/index.js';
import { one, Problem, rows } from '../src/platform/index.js';
import { type Caller, House } from './house.js';
import { OutsideWorld } from './outside-world.js';

interface Parked {
  id: number;
  channel: string;
  ref: string | null;
  why: string;
  state: string;
}
const shopOrder = (more: object = {}) => ({
  ref: `U-${randomUUID().slice(0, 8)}`,
  placedAt: '2026-05-14T08:00:00Z',
  customer: 'Petra Lindow',
  address: { line: '2 Beacon Row', city: 'Netherwick', postcode: 'NW8 2RE', country: 'GB' },
  lines: [{ sku: 'JAR-454-RD', quantity: 1, price: '0.95' }],
  ...more,
});

let house: House;
let world: OutsideWorld;
let desk: Caller;
beforeAll(async () => {
  world = await OutsideWorld.open();
  house = await House.open({ VECTRUM_OUTSIDE_URL: world.url });
  desk = await house.as('Orla');
  await house.stock('JAR-454-RD', 'A-01-1', 500);
});
afterAll(async () => {
  await house.close();
  await world.close();
});

/** What the shop has for whoever asks next; asked for once. */
async function polled(orders: unknown[], cursor: string = randomUUID()): Promise<void> {
  world.answers['GET /shop/orders'] = () => ({ status: 200, body: { orders, cursor } });
  await house.source.query(`UPDATE channel SET polled_at = NULL WHERE code = 'SHOP'`);
  await house.app.get(ChannelPolling).runDue();
}
const hook = (body: string) =>
  house.http
    .post('/api/channels/SHOP/webhook')
    .set({ 'content-type': 'application/json', 'x-signature': createHmac('sha256', SHOP_SECRET).update(body).digest('hex') })
    .send(body);
const list = async () => (await desk.get('parked-messages').expect(200)).body.rows as Parked[];
const waiting = async (ref: string | null) => (await list()).filter((m) => m.state === 'waiting' && m.ref === ref);
const codesOf = (ref: string) => rows<{ code: string }>(house.source, 'SELECT code FROM sales_order WHERE channel_ref = ?', [ref]);
const access = () =>
  one<{ poll_cursor: string; poll_error: string | null }>(house.source, `SELECT poll_cursor, poll_error FROM channel WHERE code = 'SHOP'`);
const sheet = async (id: number) =>
  (await desk.get(`parked-messages/${id}`).expect(200)).body as { version: number; raw: string; order: string | null; state: string };
const mend = (id: number, version: number, text: string) =>
  desk.post(`parked-messages/${id}/take-in`, { text }, { 'if-match': `"${version}"` });

describe('a message that cannot be understood', () => {
  it('holds up none of those after it, and is kept once, as it came', async () => {
    const [first, odd, last] = [shopOrder(), shopOrder({ lines: 'a jar' }), shopOrder()];
    await polled([first, odd, last], 'c-1');
    expect(await codesOf(first.ref)).toHaveLength(1);
    expect(await codesOf(last.ref)).toHaveLength(1);
    const [kept] = await waiting(odd.ref);
    expect(kept).toMatchObject({ channel: 'Web shop', why: expect.stringContaining('lines') });
    expect(JSON.parse((await sheet(kept!.id)).raw)).toEqual(odd);
    expect(await access()).toMatchObject({ poll_cursor: 'c-1', poll_error: null });
    await polled([odd]);
    expect(await waiting(odd.ref)).toHaveLength(1);
  });

  it('is shown on Now to whoever can mend it', async () => {
    await polled([shopOrder({ customer: '' })]);
    const { stuck } = (await desk.get('now').expect(200)).body as { stuck: { title: string; link: string; action: string }[] };
    expect(stuck.find((s) => s.link === '/orders/unread')).toMatchObject({
      title: expect.stringMatching(/^Web shop, \d+ messages? cannot be understood$/),
      action: 'Mend it',
    });
  });

  it('is refused where its sender waits for an answer, with what is against each field, and kept too', async () => {
    const odd = shopOrder({ lines: [{ sku: 'JAR-454-RD', quantity: 1, price: 'cheap' }] });
    const answer = await hook(JSON.stringify(odd)).expect(400);
    expect((answer.body as { fields: object }).fields).toHaveProperty(['lines.0.price']);
    expect(await waiting(odd.ref)).toHaveLength(1);
    await hook('{"ref": "half').expect(400);
    expect(await waiting(null)).toHaveLength(1);
  });

  it('is mended by hand, and comes in as one order however often that is sent', async () => {
    const odd = shopOrder({ placedAt: 'yesterday' });
    await polled([odd]);
    const id = (await waiting(odd.ref))[0]!.id;
    const { version } = await sheet(id);
    const still = await mend(id, version, JSON.stringify(odd)).expect(400);
    expect((still.body as { fields: object }).fields).toHaveProperty('placedAt');
    const whole = JSON.stringify({ ...odd, placedAt: '2026-05-13T10:00:00Z' });
    const answers = await Promise.all([mend(id, version, whole), mend(id, version, whole)]);
    expect(answers.map((a) => a.status).sort()).toEqual([200, 412]);
    const made = await codesOf(odd.ref);
    expect(made).toHaveLength(1);
    expect(await sheet(id)).toMatchObject({ state: 'taken-in', order: made[0]!.code });
  });

  it('waits no longer once the same order comes in by itself', async () => {
    const odd = shopOrder({ customer: 7 });
    await polled([odd]);
    const id = (await waiting(odd.ref))[0]!.id;
    await hook(JSON.stringify({ ...odd, customer: 'Petra Lindow' })).expect(200);
    const [made] = await codesOf(odd.ref);
    expect(await sheet(id)).toMatchObject({ state: 'taken-in', order: made!.code });
  });

  it('is set aside with the reason, and is then settled', async () => {
    const odd = shopOrder({ address: null });
    await polled([odd]);
    const id = (await waiting(odd.ref))[0]!.id;
    const { version } = await sheet(id);
    const aside = (why: string, seen = version) => desk.post(`parked-messages/${id}/set-aside`, { why }, { 'if-match': `"${seen}"` });
    await aside('').expect(400);
    await aside('A test of theirs').expect(204);
    expect(await sheet(id)).toMatchObject({ state: 'set-aside', settledWhy: 'A test of theirs', settledBy: 'Orla Finch' });
    await mend(id, version + 1, JSON.stringify(shopOrder())).expect(409);
  });

  it('is not taken for one where the house was only busy: it is asked for again', async () => {
    const order = shopOrder();
    const before = await access();
    const takeIn = jest.spyOn(house.app.get(OrderIntake), 'takeIn').mockRejectedValueOnce(new Problem(503, 'busy', 'Try again'));
    await polled([order], 'c-busy');
    expect(await waiting(order.ref)).toEqual([]);
    expect((await access())?.poll_cursor).toBe(before?.poll_cursor);
    takeIn.mockRestore();
    await polled([order], 'c-busy');
    expect(await codesOf(order.ref)).toHaveLength(1);
    expect(await access()).toEqual({ poll_cursor: 'c-busy', poll_error: null });
  });

  it('never stops a channel, whatever rule it breaks', async () => {
    const deep = (n: number): unknown => (n === 0 ? 1 : [deep(n - 1)]);
    const odd: unknown[] = [
      null,
      5,
      'text',
      [],
      {},
      { ref: 'X-1' },
      shopOrder({ ref: 1e99 }),
      shopOrder({ ref: '' }),
      shopOrder({ customer: 'x'.repeat(5_000) }),
      shopOrder({ customer: '\ud800' }),
      shopOrder({ placedAt: '+275760-09-13T00:00:00Z' }),
      shopOrder({ promisedAt: '9999-12-31T23:59:59Z' }),
      shopOrder({ placedAt: '2026-02-30T00:00:00Z' }),
      shopOrder({ address: deep(400) }),
      shopOrder({ lines: Array.from({ length: 400 }, () => ({ sku: 'JAR-454-RD', quantity: 1, price: '1' })) }),
      shopOrder({ lines: [{ sku: 'JAR-454-RD', quantity: 1e9, price: '1' }] }),
      shopOrder({ lines: [{ sku: 'JAR-454-RD', quantity: 1, price: '1e5' }] }),
      JSON.parse('{"__proto__": {"ref": "P-1"}, "constructor": 1}'),
    ];
    const good = shopOrder();
    await polled([...odd, good], 'c-all');
    expect(await codesOf(good.ref)).toHaveLength(1);
    expect(await access()).toMatchObject({ poll_cursor: 'c-all', poll_error: null });
  });
});

describe('who sees what could not be understood', () => {
  it('is the order desk, at its own sites', async () => {
    await (await house.as('Ines')).get('parked-messages').expect(403);
    const id = (await one<{ id: number }>(house.source, 'SELECT id FROM parked_message LIMIT 1'))!.id;
    await house.source.query(`DELETE FROM person_site WHERE site_id = 1 AND person_id = (SELECT id FROM person WHERE name LIKE 'Orla%')`);
    const away = await house.as('Orla');
    expect((await away.get('parked-messages').expect(200)).body).toEqual({ rows: [], total: 0, waiting: 0 });
    await away.get(`parked-messages/${id}`).expect(404);
    await away.post(`parked-messages/${id}/set-aside`, { why: 'not mine' }, { 'if-match': '"1"' }).expect(403);
  });

  it('is nobody without the secret: an unsigned message is not kept', async () => {
    const count = async () => (await one<{ n: string }>(house.source, 'SELECT COUNT(*) AS n FROM parked_message'))?.n;
    const before = await count();
    await house.http
      .post('/api/channels/SHOP/webhook')
      .set({ 'content-type': 'application/json', 'x-signature': 'ab'.repeat(32) })
      .send('{"ref": "spam"}')
      .expect(401);
    expect(await count()).toBe(before);
  });
});
