import { createHmac, randomUUID } from 'node:crypto';
import { promisedFor } from '@vectrum/core/promise';
import { ChannelPolling } from '../src/connectors/index.js';
import { SHOP_SECRET } from '../src/demo/house.js';
import { type Caller, House } from './house.js';
import { OutsideWorld } from './outside-world.js';

const address = { line: '2 Beacon Row', city: 'Netherwick', postcode: 'NW8 2RE', country: 'GB' };
const shopOrder = (more: object = {}) => ({
  ref: `W-${randomUUID().slice(0, 8)}`,
  placedAt: '2026-05-14T08:00:00Z',
  customer: 'Petra Lindow',
  email: 'petra@mail.example',
  address,
  lines: [{ sku: 'JAR-454-RD', quantity: 6, price: '0.95' }],
  ...more,
});

describe('orders from the web shop', () => {
  let house: House;
  let world: OutsideWorld;
  let desk: Caller;

  beforeAll(async () => {
    world = await OutsideWorld.open();
    house = await House.open({ VECTRUM_OUTSIDE_URL: world.url });
    desk = await house.as('Orla');
    await house.stock('JAR-454-RD', 'A-01-1', 100);
  });
  afterAll(async () => {
    await house.close();
    await world.close();
  });

  const hook = (body: string, signature = createHmac('sha256', SHOP_SECRET).update(body).digest('hex'), channel = 'SHOP') =>
    house.http.post(`/api/channels/${channel}/webhook`).set({ 'content-type': 'application/json', 'x-signature': signature }).send(body);
  const count = async () => ((await desk.get('orders')).body.rows as unknown[]).length;

  it('takes a signed order in, reserves it and tells the shop the new figure', async () => {
    const order = shopOrder();
    const answer = await hook(JSON.stringify(order)).expect(200);
    const { code, known } = answer.body as { code: string; known: boolean };
    expect(known).toBe(false);
    expect((await desk.get(`orders/${code}`)).body).toMatchObject({
      channel: 'Web shop',
      channelRef: order.ref,
      state: 'open',
      lines: [{ wanted: 6, reserved: 6, free: 94 }],
    });
    await house.deliver();
    const told = world.at('/shop/stock/JAR-454-RD');
    // 100 − 6 reserved − 2 kept back
    expect(JSON.parse(told.at(-1)!.body)).toMatchObject({ sku: 'JAR-454-RD', units: 92 });
    expect(told.at(-1)!.headers['x-signature']).toBe(createHmac('sha256', SHOP_SECRET).update(told.at(-1)!.body).digest('hex'));
  });

  it('makes one order of a message that comes again, ten times at once', async () => {
    const before = await count();
    const body = JSON.stringify(shopOrder());
    const answers = await Promise.all(Array.from({ length: 10 }, () => hook(body)));
    expect(answers.every((a) => a.status === 200)).toBe(true);
    expect(new Set(answers.map((a) => (a.body as { code: string }).code)).size).toBe(1);
    expect(await count()).toBe(before + 1);
  });

  it.each([
    ['a wrong signature', JSON.stringify(shopOrder()), 'ab'.repeat(32), 401, 'signature'],
    ['no signature', JSON.stringify(shopOrder()), '', 401, 'signature'],
  ])('refuses %s', async (_, body, signature, status, code) => {
    const before = await count();
    expect((await hook(body, signature).expect(status)).body).toMatchObject({ code });
    expect(await count()).toBe(before);
  });

  it.each([
    ['no lines', shopOrder({ lines: [] })],
    ['a quantity of nought', shopOrder({ lines: [{ sku: 'JAR-454-RD', quantity: 0, price: '1' }] })],
    ['half a jar', shopOrder({ lines: [{ sku: 'JAR-454-RD', quantity: 1.5, price: '1' }] })],
    ['no address', shopOrder({ address: undefined })],
    ['a date that is none', shopOrder({ placedAt: 'yesterday' })],
    ['a list', [1, 2]],
  ])('refuses an order with %s', async (_, order) => {
    const before = await count();
    expect((await hook(JSON.stringify(order)).expect(400)).body).toMatchObject({ code: 'form' });
    expect(await count()).toBe(before);
  });

  it('refuses an order for a channel that is no shop', async () => {
    await hook(JSON.stringify(shopOrder()), undefined, 'PHONE').expect(401);
  });

  it('fetches what a message missed, once, and remembers where it was', async () => {
    const missed = shopOrder();
    world.answers['GET /shop/orders'] = (heard) => ({
      status: 200,
      body: heard.path.endsWith('since=') ? { orders: [missed], cursor: '3001' } : { orders: [], cursor: '3001' },
    });
    const before = await count();
    const shops = house.app.get(ChannelPolling);
    await house.source.query('UPDATE channel SET polled_at = NULL');
    await shops.runDue();
    await house.source.query('UPDATE channel SET polled_at = NULL');
    await shops.runDue();
    expect(await count()).toBe(before + 1);
    expect(world.at('/shop/orders').map((h) => h.path)).toEqual(['/shop/orders?since=', '/shop/orders?since=3001']);
    expect((await hook(JSON.stringify(missed))).body).toMatchObject({ known: true });
  });

  it('goes on when the shop does not answer, and says so', async () => {
    world.answers['GET /shop/orders'] = () => ({ status: 500, body: {} });
    await house.source.query('UPDATE channel SET polled_at = NULL');
    await house.app.get(ChannelPolling).runDue();
    const channels = (await desk.get('channels')).body as { code: string; pollError: string }[];
    expect(channels.find((c) => c.code === 'SHOP')!.pollError).toBe('Web shop answered 500');
  });
});

describe('what holds an order', () => {
  let house: House;
  let desk: Caller;

  beforeAll(async () => {
    house = await House.open();
    desk = await house.as('Orla');
    await house.stock('JAR-454-RD', 'A-01-1', 20);
  });
  afterAll(() => house.close());

  interface Sheet {
    version: number;
    state: string;
    holdReason: string | null;
    lines: { sku: string | null; reserved: number; wanted: number }[];
  }
  const sheet = async (code: string) => (await desk.get(`orders/${code}`)).body as Sheet;
  const clear = async (code: string, body: object) =>
    desk.post(`orders/${code}/clear-hold`, body, { 'if-match': `"${(await sheet(code)).version}"` });

  it('is a missing postcode, until the order desk has it', async () => {
    const code = await house.order([['JAR-454-RD', 2]], { address: { ...address, postcode: '' } });
    expect(await sheet(code)).toMatchObject({
      state: 'held',
      holdReason: 'No postcode or street. Ask the customer',
      lines: [{ reserved: 2 }],
    });
    await (
      await clear(code, { city: 'Skelby' })
    ).body;
    expect((await sheet(code)).state).toBe('held');
    await clear(code, { postcode: 'SK2 9LD' });
    expect(await sheet(code)).toMatchObject({ state: 'open', holdReason: null });
  });

  it('is a code that nobody knows; linking it once is enough for later orders', async () => {
    const code = await house.order(
      [
        ['SHELF-JAR', 3],
        ['JAR-454-RD', 1],
      ],
      { channel: 'LINDEN' },
    );
    const held = await sheet(code);
    expect(held.holdReason).toBe('Unknown code SHELF-JAR, JAR-454-RD. Link it to an item');
    expect((await clear(code, { links: [{ line: 1, sku: 'NOTHING' }] })).body).toMatchObject({
      code: 'form',
      fields: { links: 'There is no item NOTHING. Type the SKU of one that is here' },
    });
    await clear(code, {
      links: [
        { line: 1, sku: 'JAR-454-RD' },
        { line: 2, sku: 'jar-454-rd' },
      ],
    });
    expect(await sheet(code)).toMatchObject({
      state: 'open',
      lines: [
        { sku: 'JAR-454-RD', reserved: 3 },
        { sku: 'JAR-454-RD', reserved: 1 },
      ],
    });
    expect((await sheet(await house.order([['SHELF-JAR', 1]], { channel: 'LINDEN' }))).state).toBe('open');
  });

  it('is not cleared from an old view of the order', async () => {
    const code = await house.order([['JAR-454-RD', 1]], { address: { ...address, line: '' } });
    const { version } = await sheet(code);
    await desk.post(`orders/${code}/clear-hold`, { city: 'Skelby' }, { 'if-match': `"${version}"` }).expect(200);
    const stale = await desk.post(`orders/${code}/clear-hold`, { addressLine: 'X' }, { 'if-match': `"${version}"` }).expect(412);
    expect(stale.body).toMatchObject({ code: 'version' });
    await desk.post(`orders/${code}/clear-hold`, { addressLine: 'X' }).expect(428);
  });

  it('keeps a held order from being picked', async () => {
    const code = await house.order([['JAR-454-RD', 1]], { address: { ...address, postcode: '' } });
    await desk.post(`orders/${code}/release`, {}, { 'if-match': `"${(await sheet(code)).version}"` }).expect(409);
  });
});

describe('the promise', () => {
  it.each([
    ['2026-05-14T09:00:00Z', '2026-05-14T15:30:00.000Z'],
    ['2026-05-14T14:01:00Z', '2026-05-15T15:30:00.000Z'],
    ['2026-05-15T14:30:00Z', '2026-05-18T15:30:00.000Z'],
    ['2026-05-16T08:00:00Z', '2026-05-18T15:30:00.000Z'],
  ])('of an order that comes at %s is %s', (now, promised) => {
    const site = { timeZone: 'Europe/London', workingDays: 'YYYYYNN', departures: [{ leavesAt: '16:30', closesMinutes: 90 }] };
    expect(promisedFor(new Date(now), site).toISOString()).toBe(promised);
  });
  it('is the first van of a day that has several, in the time of the site', () => {
    const site = {
      timeZone: 'Europe/Prague',
      workingDays: 'YYYYYYN',
      departures: [
        { leavesAt: '18:00', closesMinutes: 30 },
        { leavesAt: '11:00', closesMinutes: 60 },
      ],
    };
    expect(promisedFor(new Date('2026-01-10T08:59:00Z'), site).toISOString()).toBe('2026-01-10T10:00:00.000Z');
    expect(promisedFor(new Date('2026-01-10T09:01:00Z'), site).toISOString()).toBe('2026-01-10T17:00:00.000Z');
    expect(promisedFor(new Date('2026-01-10T17:00:00Z'), site).toISOString()).toBe('2026-01-12T10:00:00.000Z');
  });
  it('keeps its hour by the wall clock when the clocks change', () => {
    const site = { timeZone: 'Europe/London', workingDays: 'YYYYYYY', departures: [{ leavesAt: '15:30', closesMinutes: 60 }] };
    expect(promisedFor(new Date('2026-03-28T16:00:00Z'), site).toISOString()).toBe('2026-03-29T14:30:00.000Z');
    expect(promisedFor(new Date('2026-10-24T16:00:00Z'), site).toISOString()).toBe('2026-10-25T15:30:00.000Z');
  });
});
