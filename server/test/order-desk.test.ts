import { DeskHands } from './desk-hands.js';
import { type Caller, closing, type House, keyed } from './house.js';

/** What the order desk keys, holds, recalls, splits and gives; the ledger is proved clean at the end. */
describe('the order desk', () => {
  let hands: DeskHands;
  let house: House;
  let desk: Caller;
  let ines: Caller;
  let dilys: Caller;
  beforeAll(async () => {
    hands = await DeskHands.open();
    ({ house, desk, ines, dilys } = hands);
  });
  afterAll(() => hands.close());

  describe('keys orders', () => {
    it('in packs and parts of them, with a price for one, and reserves them at once', async () => {
      const code = await hands.key({
        lines: [
          { sku: 'jar-454-rd', factor: 48, quantity: '1', price: '40.80' },
          { sku: 'JAR-454-RD', factor: 48, quantity: '0.5', price: '40.80' },
        ],
      });
      const order = await hands.sheet(code);
      expect(order).toMatchObject({ state: 'open', channelRef: code, worth: '61.200000' });
      expect(order.lines).toMatchObject([
        { quantity: 1, factor: 48, wanted: 48, reserved: 48, price: '40.800000' },
        { quantity: 24, factor: 1, wanted: 24, reserved: 24, price: '0.850000' },
      ]);
    });

    it.each([
      ['no goods', { lines: [{ sku: '', factor: 1, quantity: '1', price: '1' }] }, 'lines.0.sku'],
      ['goods that nobody knows', { lines: [{ sku: 'NO-SUCH', factor: 1, quantity: '1', price: '1' }] }, 'lines.0.sku'],
      ['half a piece', { lines: [{ sku: 'JAR-454-RD', factor: 1, quantity: '0.5', price: '1' }] }, 'lines.0.quantity'],
      ['a pack that there is not', { lines: [{ sku: 'JAR-454-RD', factor: 7, quantity: '1', price: '1' }] }, 'lines.0.factor'],
      ['an account that there is not', { account: 'NOBODY' }, 'account'],
      ['a time that has passed', { promisedAt: '2020-01-01T00:00:00Z' }, 'promisedAt'],
      ['no customer', { customer: '' }, 'customer'],
      ['no lines', { lines: [] }, 'lines'],
    ])('and refuses %s at its field', async (_, more, field) => {
      const { body } = await desk.post('orders', keyed(more)).expect(400);
      expect(Object.keys((body as { fields: object }).fields)).toContain(field);
    });

    it('and says where a customer’s number is here already', async () => {
      const first = await hands.key({ ref: 'PO-77' });
      const { body } = await desk.post('orders', keyed({ ref: 'PO-77' })).expect(400);
      expect((body as { fields: { ref: string } }).fields.ref).toContain(first);
    });

    it('without an address, held for one; and mends it', async () => {
      const code = await hands.key({ postcode: '' });
      expect(await hands.sheet(code)).toMatchObject({ state: 'held', holds: [{ kind: 'address', own: true }] });
      await hands.change(code, { postcode: 'NW8 2RE' });
      expect(await hands.sheet(code)).toMatchObject({ state: 'open', holdReason: null, holds: [] });
    });

    it('as quotes, which hold nothing until the customer says yes', async () => {
      const before = await house.figures('JAR-454-RD');
      const code = await hands.key({ quote: true, quotedUntil: '2099-01-31' });
      expect(await hands.sheet(code)).toMatchObject({ state: 'quote', quotedUntil: '2099-01-31' });
      expect((await house.figures('JAR-454-RD')).reserved).toBe(before.reserved);
      await desk.post(`orders/${code}/mail`).expect(200);
      await house.deliver();
      const { version } = await hands.sheet(code);
      await desk.post(`orders/${code}/confirm`, {}, hands.at(version)).expect(200);
      expect(await hands.sheet(code)).toMatchObject({ state: 'open', lines: [{ reserved: 2 }] });
      expect(((await desk.bytes(`orders/${code}/paper`).expect(200)).body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
    });

    it('and tells what is free here and elsewhere, when more comes, and what this customer pays', async () => {
      await house.stock('JAR-227-RD', 'Q-01-1', 7).catch(() => undefined);
      const facts = (await desk.get('order-desk/goods/jar-227-rd?site=1&account=&channel=PHONE').expect(200)).body;
      expect(facts).toMatchObject({ sku: 'JAR-227-RD', free: 40 });
      await (await house.as('Ines')).get('order-desk/goods/JAR-227-RD?site=1').expect(403);
    });
  });

  describe('holds orders', () => {
    it('by hand, for a reason and somebody who sees to it, and lets them go on', async () => {
      const code = await hands.key();
      const { version } = await hands.sheet(code);
      const { personId: owner } = await house.as('Orla');
      await desk
        .post(`orders/${code}/holds`, { kind: 'payment', reason: 'Waits for the bank', ownerId: owner }, hands.at(version))
        .expect(200);
      const held = await hands.sheet(code);
      expect(held).toMatchObject({ state: 'held', holdReason: 'Waits for the bank', holds: [{ kind: 'payment', own: false }] });
      expect(held.holds[0]!.owner).toContain('Orla');
      await desk.post(`orders/${code}/release`, {}, hands.at(held.version)).expect(409);
      await desk.post(`orders/${code}/holds/${held.holds[0]!.id}/clear`, { why: 'paid' }, hands.at(held.version)).expect(200);
      expect(await hands.sheet(code)).toMatchObject({ state: 'open', holdReason: null });
    });

    it('and recalls what was sent to picking and not begun', async () => {
      const code = await hands.key();
      const round = await house.release(code);
      const { version } = await hands.sheet(code);
      await desk.post(`orders/${code}/holds`, { kind: 'check', reason: 'Ring them' }, hands.at(version)).expect(200);
      expect(await hands.sheet(code)).toMatchObject({ state: 'held', lines: [{ reserved: 2 }] });
      expect(await hands.stopsOf(round)).toEqual([]);
    });

    it('and their parcels are not handed over while one holds them', async () => {
      const code = await hands.key();
      await hands.picked(code);
      await (await house.packAll(code)).floor(closing(code)).expect(200);
      await house.deliver();
      const { version } = await hands.sheet(code);
      await desk.post(`orders/${code}/holds`, { kind: 'payment', reason: 'The cheque bounced' }, hands.at(version)).expect(200);
      const { body } = await dilys.post('dispatch/hand-overs', { carrier: 'HARRIER', parcels: [`${code}-1`] }).expect(409);
      expect(JSON.stringify(body)).toContain('The cheque bounced');
    });
  });

  describe('recalls', () => {
    it('an order that nobody has begun, and one that is begun with nothing picked', async () => {
      const code = await hands.key();
      const round = await house.release(code);
      await ines.floor({ kind: 'take', round }).expect(200);
      expect((await hands.sheet(code)).state).toBe('picking');
      await desk.post(`orders/${code}/recall`, {}, hands.at((await hands.sheet(code)).version)).expect(200);
      expect(await hands.sheet(code)).toMatchObject({ state: 'open', lines: [{ reserved: 2 }] });
      // It can be sent again, and picked.
      await hands.picked(code);
      expect((await hands.sheet(code)).state).toBe('picked');
    });

    it('with what is picked already, which the floor puts away out of its tote', async () => {
      const code = await hands.key();
      const tote = await hands.pick(await house.release(code), 1);
      await desk.post(`orders/${code}/recall`, {}, hands.at((await hands.sheet(code)).version)).expect(200);
      expect(await hands.sheet(code)).toMatchObject({ state: 'open', lines: [{ reserved: 2 }] });
      expect(await hands.putBack(tote)).toBe(1);
    });
  });

  it('lets an order that goes only whole wait for all of it, and takes nothing that others can use', async () => {
    await house.stock('GLV-S', 'A-04-1', 5);
    const whole = await hands.key({
      wholeOnly: true,
      priority: 5,
      lines: [
        { sku: 'GLV-S', factor: 1, quantity: '3', price: '9' },
        { sku: 'GLV-M', factor: 1, quantity: '2', price: '9' },
      ],
    });
    expect((await hands.sheet(whole)).lines).toMatchObject([{ reserved: 0 }, { reserved: 0 }]);
    const other = await hands.key({ lines: [{ sku: 'GLV-S', factor: 1, quantity: '2', price: '9' }] });
    expect((await hands.sheet(other)).lines).toMatchObject([{ reserved: 2 }]);
    await house.stock('GLV-M', 'A-04-2', 2);
    expect((await hands.sheet(whole)).lines).toMatchObject([{ reserved: 3 }, { reserved: 2 }]);
    await house.stock('GLV-M', 'A-04-2', 1);
  });

  it('makes two orders of one and one of two, and what is promised goes with the goods', async () => {
    const code = await hands.key({
      ref: 'PO-SPLIT',
      lines: [
        { sku: 'JAR-454-RD', factor: 48, quantity: '1', price: '40.80' },
        { sku: 'JAR-227-RD', factor: 1, quantity: '2', price: '0.74' },
      ],
    });
    const split = async (body: object, status = 200) =>
      desk.post(`orders/${code}/split`, body, hands.at((await hands.sheet(code)).version)).expect(status);
    await split({ siteId: 1, lines: [{ line: 1, units: 60 }] }, 400);
    await split(
      {
        siteId: 1,
        lines: [
          { line: 1, units: 48 },
          { line: 2, units: 2 },
        ],
      },
      400,
    );
    const before = await house.figures('JAR-454-RD');
    const { code: part } = (await split({ siteId: 1, lines: [{ line: 1, units: 20 }] })).body as { code: string };
    expect(await hands.sheet(part)).toMatchObject({
      channelRef: 'PO-SPLIT/2',
      lines: [{ wanted: 20, reserved: 20, factor: 1, price: '0.850000' }],
    });
    expect((await hands.sheet(code)).lines).toMatchObject([
      { wanted: 28, reserved: 28, price: '0.850000' },
      { wanted: 2, reserved: 2 },
    ]);
    expect(await house.figures('JAR-454-RD')).toEqual(before);
    const siblings = (await desk.get(`orders/${code}/siblings`).expect(200)).body as { code: string }[];
    expect(siblings.map((x) => x.code)).toContain(part);
    await desk.post(`orders/${code}/merge`, { other: part }, hands.at((await hands.sheet(code)).version)).expect(200);
    expect(await hands.sheet(part)).toMatchObject({ state: 'cancelled', cancelledWhy: `goes with ${code}`, lines: [{ reserved: 0 }] });
    expect((await hands.sheet(code)).lines).toMatchObject([{ reserved: 28 }, { reserved: 2 }, { wanted: 20, reserved: 20 }]);
    expect(await house.figures('JAR-454-RD')).toEqual(before);
    // To another site: what lies here is free again.
    const { code: there } = (await split({ siteId: 2, lines: [{ line: 3, units: 20 }] })).body as { code: string };
    expect(await hands.sheet(there)).toMatchObject({ siteId: 2, lines: [{ wanted: 20, reserved: 0 }] });
    expect((await house.figures('JAR-454-RD')).reserved).toBe(before.reserved - 20);
  });

  it('sells a kit by its parts: it is never short while they are there, and its channel is told what they allow', async () => {
    const kit = async (path: string) =>
      (await desk.get(path).expect(200)).body as { kind: string; parts: { sku: string; units: number }[] };
    const { kind, parts } = await kit('items/KIT-HARV');
    expect(kind).toBe('kit');
    for (const [i, p] of parts.entries()) await house.stock(p.sku, `A-0${(i % 5) + 1}-1`, p.units * 3);
    const facts = (await desk.get('order-desk/goods/KIT-HARV?site=1').expect(200)).body as { free: number };
    expect(facts.free).toBeGreaterThanOrEqual(3);
    const code = await hands.key({ lines: [{ sku: 'KIT-HARV', factor: 1, quantity: '2', price: '99' }] });
    const order = await hands.sheet(code);
    expect(order.lines).toHaveLength(parts.length + 1);
    expect(order).toMatchObject({
      state: 'open',
      worth: '198.000000',
      lines: [{ isKit: true, wanted: 0, quantity: 2 }, ...parts.map(() => ({ kit: 1 }))],
    });
    for (const line of order.lines.slice(1)) expect(line.reserved).toBe(line.wanted);
    const less = (await desk.get('order-desk/goods/KIT-HARV?site=1').expect(200)).body as { free: number };
    expect(less.free).toBe(facts.free - 2);
    await hands.change(code, hands.quantity(1, '1'));
    const half = await hands.sheet(code);
    for (const [i, p] of parts.entries()) expect(half.lines.slice(1).map((l) => l.wanted)).toContain(parts[i]!.units && p.units);
    await hands.picked(code);
    expect((await hands.sheet(code)).state).toBe('picked');
    await hands.cancel(code);
    await hands.change(await hands.key({ lines: [{ sku: 'KIT-HARV', factor: 1, quantity: '1', price: '99' }] }), {
      lines: [{ sku: 'JAR-454-RD', factor: 1, quantity: '1', price: '1' }],
    });
  });

  it('says why a line waits and what will cure it; what is only not put away yet is told apart', async () => {
    await house.stock('TOOL-STD', 'DOCK-1', 3);
    const code = await hands.key({ lines: [{ sku: 'TOOL-STD', factor: 1, quantity: '5', price: '6.90' }] });
    const [cure] = (await desk.get(`orders/${code}/cures`).expect(200)).body as { line: number; lacks: number; cures: object[] }[];
    expect(cure).toMatchObject({ line: 1, lacks: 2, cures: [{ kind: 'put-away', units: 3, where: 'DOCK-1' }] });
    // Nobody can pick it there, and releasing it says so.
    await house.stock('TOOL-STD', 'DOCK-1', 2);
    const { version } = await hands.sheet(code);
    const { body } = await desk.post(`orders/${code}/release`, {}, hands.at(version)).expect(409);
    expect((body as { detail: string }).detail).toContain('dock');
  });

  it('gives one order what another holds, with whom it hits shown first', async () => {
    await house.stock('TOOL-JH', 'A-05-1', 4);
    const first = await hands.key({ lines: [{ sku: 'TOOL-JH', factor: 1, quantity: '4', price: '7.90' }] });
    const second = await hands.key({ lines: [{ sku: 'TOOL-JH', factor: 1, quantity: '3', price: '7.90' }] });
    const who = (await desk.get(`orders/${second}/lines/1/holders`).expect(200)).body as { lacks: number; holders: object[] };
    expect(who).toMatchObject({ lacks: 3, holders: [{ code: first, units: 4, line: 1 }] });
    const take = async (units: number) =>
      desk.post(`orders/${second}/lines/1/take`, { order: first, line: 1, units }, hands.at((await hands.sheet(second)).version));
    await take(5).then((r) => expect(r.status).toBe(400));
    const answers = await Promise.all([take(3), take(3)]);
    expect(answers.map((a) => a.status).sort()).toEqual([200, 412]);
    expect((await hands.sheet(second)).lines).toMatchObject([{ reserved: 3 }]);
    expect((await hands.sheet(first)).lines).toMatchObject([{ reserved: 1 }]);
    // What comes later does not turn it round.
    await house.stock('TOOL-JH', 'A-05-1', 1);
    expect((await hands.sheet(second)).lines).toMatchObject([{ reserved: 3 }]);
  });

  it('keys an order where no channel of the desk is there yet', async () => {
    await house.source.query(`UPDATE channel SET kind = 'trade' WHERE kind = 'phone'`);
    const code = await hands.key();
    expect((await hands.sheet(code)).channel).toBe('Telephone and counter');
    expect((await hands.sheet(await hands.key())).channel).toBe('Telephone and counter');
  });
});
