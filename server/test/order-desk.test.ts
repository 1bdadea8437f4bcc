import { type Caller, closing, House, keyed, pickOf, type TakenStop } from './house.js';
import { OutsideWorld } from './outside-world.js';

interface Line {
  line: number;
  sku: string | null;
  quantity: number;
  factor: number;
  price: string;
  wanted: number;
  reserved: number;
  picked: number;
  packed: number;
}
interface Order {
  code: string;
  state: string;
  version: number;
  holdReason: string | null;
  holds: { id: number; kind: string; reason: string; owner: string | null; own: boolean }[];
  cancelledWhy: string | null;
  canFollow: boolean;
  channel: string;
  worth: string;
  lines: Line[];
  parcels: { code: string; state: string }[];
  [field: string]: unknown;
}
interface StoreTask {
  goods: { itemId: number; lotId: number; units: number; fromPlaceId: number; fromCode: string }[];
}
type Stop = TakenStop & { picked: number; short: number };

/** What the order desk does, in every state that an order can be in; the ledger is proved clean at the end. */
describe('the order desk', () => {
  let house: House;
  let world: OutsideWorld;
  let desk: Caller;
  let ines: Caller;
  let dilys: Caller;
  beforeAll(async () => {
    world = await OutsideWorld.open();
    house = await House.open({ VECTRUM_OUTSIDE_URL: world.url });
    [desk, ines, dilys] = [await house.as('Maren'), await house.as('Ines'), await house.as('Dilys')];
    world.answers = {
      'POST /carriers/harrier/labels': () => ({
        status: 200,
        body: { tracking: 'HP10000000GB', price: '3.60', pdf: Buffer.from('%PDF-1.3 a label').toString('base64') },
      }),
    };
    await house.stock('JAR-454-RD', 'A-01-1', 500);
    await house.stock('JAR-227-RD', 'A-02-1', 40);
  });
  afterAll(async () => {
    await house.close();
    await world.close();
  });

  const sheet = async (code: string) => (await desk.get(`orders/${code}`).expect(200)).body as Order;
  const at = (version: number) => ({ 'if-match': `"${version}"` });
  const key = async (more: object = {}) => ((await desk.post('orders', keyed(more)).expect(201)).body as { code: string }).code;
  /** The order as a form would send it back, with changes. */
  async function change(code: string, more: object | ((order: Order) => object), status = 200) {
    const o = await sheet(code);
    const lines = o.lines
      .filter((l) => l.quantity > 0 && (l as { kit?: number | null }).kit == null)
      .map((l) => ({ line: l.line, sku: l.sku ?? '', factor: l.factor, quantity: String(l.quantity), price: l.price }));
    const fields = [
      'account',
      'customer',
      'email',
      'phone',
      'addressLine',
      'city',
      'postcode',
      'country',
      'siteId',
      'speed',
      'priority',
      'wholeOnly',
    ];
    const body = {
      ...Object.fromEntries(fields.map((f) => [f, o[f]])),
      notePacker: o['notePacker'] ?? '',
      notePicker: o['notePicker'] ?? '',
      promisedAt: o['promisedAt'],
      lines,
      why: 'the customer rang',
      ...(typeof more === 'function' ? more({ ...o, lines: lines as never }) : more),
    };
    return desk.put(`orders/${code}`, body, at(o.version)).expect(status);
  }
  const quantity = (line: number, to: string) => (o: Order) => ({
    lines: o.lines.map((l) => (l.line === line ? { ...l, quantity: to } : l)),
  });
  async function cancel(code: string, status = 200) {
    const { version } = await sheet(code);
    return desk.post(`orders/${code}/cancel`, { why: 'no longer wanted', tell: false }, at(version)).expect(status);
  }
  const stopsOf = async (round: string) => (await ines.task<{ stops: Stop[] }>('pick', round)).stops;
  /** A tote that nothing lies in and nobody uses. */
  async function freeTote(): Promise<string> {
    const [free] = await house.source.query<{ code: string }[]>(
      `SELECT p.code FROM place p WHERE p.kind = 'tote' AND p.site_id = 1 AND NOT EXISTS (SELECT 1 FROM tote_use u WHERE u.open_tote = p.id) AND NOT EXISTS (SELECT 1 FROM balance b WHERE b.place_id = p.id AND b.units > 0) ORDER BY p.code LIMIT 1`,
    );
    return free!.code;
  }
  async function pick(round: string, units?: number): Promise<string> {
    const into = await freeTote();
    for (const stop of await stopsOf(round)) {
      const left = stop.units - stop.picked - stop.short;
      if (left > 0) await ines.floor(pickOf(round, stop, Math.min(left, units ?? left), await house.placeId(into))).expect(200);
    }
    return into;
  }
  const setDown = async (round: string) => ines.floor({ kind: 'set-down', round, placeId: await house.placeId('TABLE-1') }).expect(200);
  async function picked(code: string): Promise<string> {
    const round = await house.release(code);
    const into = await pick(round);
    await setDown(round);
    return into;
  }
  async function putBack(from: string): Promise<number> {
    const store = await house.as('Maren');
    const { goods } = await store.task<StoreTask>('store', 1);
    let units = 0;
    for (const g of goods.filter((x) => x.fromCode === from)) {
      const { itemId, lotId, fromPlaceId } = g;
      await store
        .floor({ kind: 'store', itemId, lotId, units: g.units, fromPlaceId, toPlaceId: await house.placeId('A-01-1'), how: 'scanned' })
        .expect(200);
      units += g.units;
    }
    return units;
  }
  const isFree = async (code: string) =>
    (await house.source.query<object[]>('SELECT u.id FROM tote_use u JOIN place p ON p.id = u.open_tote WHERE p.code = ?', [code]))
      .length === 0;

  describe('keys orders', () => {
    it('in packs and parts of them, with a price for one, and reserves them at once', async () => {
      const code = await key({
        lines: [
          { sku: 'jar-454-rd', factor: 48, quantity: '1', price: '40.80' },
          { sku: 'JAR-454-RD', factor: 48, quantity: '0.5', price: '40.80' },
        ],
      });
      const order = await sheet(code);
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
      const first = await key({ ref: 'PO-77' });
      const { body } = await desk.post('orders', keyed({ ref: 'PO-77' })).expect(400);
      expect((body as { fields: { ref: string } }).fields.ref).toContain(first);
    });

    it('without an address, held for one; and mends it', async () => {
      const code = await key({ postcode: '' });
      expect(await sheet(code)).toMatchObject({ state: 'held', holds: [{ kind: 'address', own: true }] });
      await change(code, { postcode: 'NW8 2RE' });
      expect(await sheet(code)).toMatchObject({ state: 'open', holdReason: null, holds: [] });
    });

    it('as quotes, which hold nothing until the customer says yes', async () => {
      const before = await house.figures('JAR-454-RD');
      const code = await key({ quote: true, quotedUntil: '2099-01-31' });
      expect(await sheet(code)).toMatchObject({ state: 'quote', quotedUntil: '2099-01-31' });
      expect((await house.figures('JAR-454-RD')).reserved).toBe(before.reserved);
      await desk.post(`orders/${code}/mail`).expect(200);
      await house.deliver();
      const { version } = await sheet(code);
      await desk.post(`orders/${code}/confirm`, {}, at(version)).expect(200);
      expect(await sheet(code)).toMatchObject({ state: 'open', lines: [{ reserved: 2 }] });
      expect((await desk.bytes(`orders/${code}/paper`).expect(200)).body.subarray(0, 5).toString()).toBe('%PDF-');
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
      const code = await key();
      const { version } = await sheet(code);
      const { personId: owner } = await house.as('Orla');
      await desk.post(`orders/${code}/holds`, { kind: 'payment', reason: 'Waits for the bank', ownerId: owner }, at(version)).expect(200);
      const held = await sheet(code);
      expect(held).toMatchObject({ state: 'held', holdReason: 'Waits for the bank', holds: [{ kind: 'payment', own: false }] });
      expect(held.holds[0]!.owner).toContain('Orla');
      await desk.post(`orders/${code}/release`, {}, at(held.version)).expect(409);
      await desk.post(`orders/${code}/holds/${held.holds[0]!.id}/clear`, { why: 'paid' }, at(held.version)).expect(200);
      expect(await sheet(code)).toMatchObject({ state: 'open', holdReason: null });
    });

    it('and recalls what was sent to picking and not begun', async () => {
      const code = await key();
      const round = await house.release(code);
      const { version } = await sheet(code);
      await desk.post(`orders/${code}/holds`, { kind: 'check', reason: 'Ring them' }, at(version)).expect(200);
      expect(await sheet(code)).toMatchObject({ state: 'held', lines: [{ reserved: 2 }] });
      expect(await stopsOf(round)).toEqual([]);
    });

    it('and their parcels are not handed over while one holds them', async () => {
      const code = await key();
      await picked(code);
      await (await house.packAll(code)).floor(closing(code)).expect(200);
      await house.deliver();
      const { version } = await sheet(code);
      await desk.post(`orders/${code}/holds`, { kind: 'payment', reason: 'The cheque bounced' }, at(version)).expect(200);
      const { body } = await dilys.post('dispatch/hand-overs', { carrier: 'HARRIER', parcels: [`${code}-1`] }).expect(409);
      expect(JSON.stringify(body)).toContain('The cheque bounced');
    });
  });

  describe('recalls', () => {
    it('an order that nobody has begun, and one that is begun with nothing picked', async () => {
      const code = await key();
      const round = await house.release(code);
      await ines.floor({ kind: 'take', round }).expect(200);
      expect((await sheet(code)).state).toBe('picking');
      await desk.post(`orders/${code}/recall`, {}, at((await sheet(code)).version)).expect(200);
      expect(await sheet(code)).toMatchObject({ state: 'open', lines: [{ reserved: 2 }] });
      // It can be sent again, and picked.
      await picked(code);
      expect((await sheet(code)).state).toBe('picked');
    });

    it('but none of which something is picked, and says what to do', async () => {
      const code = await key();
      await pick(await house.release(code), 1);
      const { body } = await desk.post(`orders/${code}/recall`, {}, at((await sheet(code)).version)).expect(409);
      expect((body as { detail: string }).detail).toContain('cancel it');
    });
  });

  describe('changes orders', () => {
    it('that wait: fewer, more, other goods; and keeps what it was, who changed it and why', async () => {
      const code = await key();
      await change(code, (o) => ({
        lines: [
          { ...o.lines[0], quantity: '5' },
          { sku: 'JAR-227-RD', factor: 1, quantity: '3', price: '0.75' },
        ],
        notePacker: 'No prices in the box',
      }));
      expect((await sheet(code)).lines).toMatchObject([
        { wanted: 5, reserved: 5 },
        { sku: 'JAR-227-RD', wanted: 3, reserved: 3 },
      ]);
      await change(code, (o) => ({ lines: o.lines.slice(1) }));
      expect((await sheet(code)).lines).toMatchObject([{ wanted: 0, reserved: 0 }, { wanted: 3 }]);
      const events = (await desk.get(`orders/${code}/history`).expect(200)).body as { what: string; detail: string; who: string | null }[];
      expect(events.map((e) => `${e.what}: ${e.detail}`)).toEqual(
        expect.arrayContaining([
          'Line 1, units: 2 → 5. the customer rang',
          'Note to the packer: nothing → No prices in the box. the customer rang',
        ]),
      );
      expect(events.every((e) => e.who?.includes('Maren'))).toBe(true);
    });

    it('of two people at once, one is told and nothing of the other is lost', async () => {
      const code = await key();
      const { version } = await sheet(code);
      await change(code, quantity(1, '4'));
      await desk.put(`orders/${code}`, { ...keyed({ quote: undefined, ref: undefined }), why: '' }, at(version)).expect(412);
      expect((await sheet(code)).lines).toMatchObject([{ wanted: 4 }]);
    });

    it('that are sent to picking: the stop asks for fewer, and more follows on a round of its own', async () => {
      const code = await key({ lines: [{ sku: 'JAR-454-RD', factor: 1, quantity: '6', price: '1' }] });
      const round = await house.release(code);
      await change(code, quantity(1, '4'));
      expect(await stopsOf(round)).toMatchObject([{ units: 4 }]);
      await change(code, (o) => ({ lines: [...o.lines, { sku: 'JAR-227-RD', factor: 1, quantity: '2', price: '1' }] }));
      const order = await sheet(code);
      expect(order).toMatchObject({ state: 'released', canFollow: false });
      await pick(round);
      await setDown(round);
      const [{ round: second }] = (await house.source.query<{ round: string }[]>(
        `SELECT r.code AS round FROM \`round\` r JOIN round_order x ON x.round_id = r.id JOIN sales_order o ON o.id = x.order_id WHERE o.code = ? ORDER BY r.id DESC`,
        [code],
      )) as [{ round: string }];
      expect(second).not.toBe(round);
      await pick(second);
      await setDown(second);
      expect((await sheet(code)).state).toBe('picked');
    });

    it('that are half picked: what lies in the tote and is wanted no longer is asked to be put away', async () => {
      const code = await key({ lines: [{ sku: 'JAR-454-RD', factor: 1, quantity: '6', price: '1' }] });
      const round = await house.release(code);
      const into = await pick(round, 4);
      const { body } = await change(code, quantity(1, '3'));
      expect((body as { floor: string }).floor).toBe(`1 to put away from ${into}`);
      const task = await ines.task<{ stops: Stop[]; spare: { code: string; units: number }[] }>('pick', round);
      expect(task.spare).toMatchObject([{ code: into, units: 1 }]);
      expect(task.stops.every((s) => s.units === s.picked)).toBe(true);
      expect(await putBack(into)).toBe(1);
      await setDown(round);
      expect(await sheet(code)).toMatchObject({ state: 'picked', lines: [{ wanted: 3, picked: 3 }] });
      await house.packAll(code);
      await dilys.floor(closing(code, { weightG: 180 + 245 * 3 })).expect(200);
      expect(await isFree(into)).toBe(true);
    });

    it('that are being packed: the parcel is not closed before it is out again, and the note is read anew', async () => {
      const code = await key({ lines: [{ sku: 'JAR-454-RD', factor: 1, quantity: '3', price: '1' }], notePacker: 'Gift' });
      await picked(code);
      await dilys.floor({ kind: 'note-seen', order: code }).expect(200);
      await house.packAll(code);
      await change(code, (o) => ({ ...quantity(1, '2')(o), notePacker: 'Gift, wrapped' }));
      const { body } = await dilys.floor(closing(code)).expect(409);
      expect(JSON.stringify(body)).toMatch(/note|Take 1 of/i);
      await dilys.floor({ kind: 'note-seen', order: code }).expect(200);
      const told = await dilys.floor(closing(code)).expect(409);
      expect(JSON.stringify(told.body)).toContain('Take 1 of');
      expect(await putBack(`${code}-1`)).toBe(1);
      await dilys.floor(closing(code)).expect(200);
      expect((await sheet(code)).state).toBe('packed');
    });

    it('but not to fewer than a closed parcel holds', async () => {
      const code = await key();
      await picked(code);
      await (await house.packAll(code)).floor(closing(code)).expect(200);
      const { body } = await change(code, quantity(1, '1'), 400);
      expect(Object.keys((body as { fields: object }).fields)).toContain('lines.0.quantity');
    });

    it('and never to a line of other goods, or of nobody’s', async () => {
      const code = await key();
      const other = await change(code, (o) => ({ lines: [{ ...o.lines[0], sku: 'JAR-227-RD' }] }), 400);
      expect(Object.keys((other.body as { fields: object }).fields)).toContain('lines.0.sku');
      await change(code, (o) => ({ lines: [{ ...o.lines[0], line: 9 }] }), 400);
    });
  });

  describe('cancels orders', () => {
    it.each(['quote', 'open', 'held', 'released', 'picking', 'picked', 'packing', 'packed', 'labelled'])(
      'that are %s, and all of it is free again',
      async (state) => {
        const before = await house.figures('JAR-454-RD');
        const code = await key({ quote: state === 'quote', postcode: state === 'held' ? '' : 'NW8 2RE' });
        const going = ['picking', 'picked', 'packing', 'packed', 'labelled'];
        let into = '';
        if (state === 'released') await house.release(code);
        if (state === 'picking') into = await pick(await house.release(code), 1);
        if (going.indexOf(state) > 0) into = await picked(code);
        if (going.indexOf(state) > 1) await house.packAll(code);
        if (going.indexOf(state) > 2) await dilys.floor(closing(code)).expect(200);
        if (state === 'labelled') await house.deliver();
        const list = (await desk.get(`orders/${code}/cancelling`).expect(200)).body as { can: boolean; labels: string[] };
        expect(list).toMatchObject({ can: true, labels: state === 'labelled' ? [`${code}-1`] : [] });
        await cancel(code);
        expect(await sheet(code)).toMatchObject({ state: 'cancelled', cancelledWhy: 'no longer wanted', lines: [{ reserved: 0 }] });
        expect(await house.figures('JAR-454-RD')).toMatchObject({ onHand: before.onHand, reserved: before.reserved });
        if (state === 'picking') {
          const [{ round }] = (await house.source.query<{ round: string }[]>(
            'SELECT r.code AS round FROM `round` r JOIN round_order x ON x.round_id = r.id JOIN sales_order o ON o.id = x.order_id WHERE o.code = ?',
            [code],
          )) as [{ round: string }];
          await setDown(round);
        }
        const inParcel = going.indexOf(state) > 1;
        if (into !== '') expect(await putBack(inParcel ? `${code}-1` : into)).toBe(state === 'picking' ? 1 : 2);
        if (into !== '') expect(await isFree(into)).toBe(true);
        if (inParcel) expect((await sheet(code)).parcels).toMatchObject([{ state: 'void' }]);
        await cancel(code, 409);
      },
    );

    it('that have gone in part: the rest, and the order is over', async () => {
      const code = await key({
        lines: [
          { sku: 'JAR-454-RD', factor: 1, quantity: '2', price: '1' },
          { sku: 'SUIT-XL', factor: 1, quantity: '1', price: '62' },
        ],
      });
      await house.stock('SUIT-XL', 'A-03-1', 1);
      await picked(code);
      await dilys.floor({ kind: 'pack', order: code, parcel: 1, line: 1, units: 2, how: 'scanned' }).expect(200);
      await dilys.floor(closing(code)).expect(409);
      await cancel(code);
      expect((await sheet(code)).state).toBe('cancelled');
    });

    it('while somebody picks them, whichever comes first', async () => {
      for (let i = 0; i < 8; i++) {
        const code = await key({ lines: [{ sku: 'JAR-454-RD', factor: 1, quantity: '4', price: '1' }] });
        const round = await house.release(code);
        const [stop] = await stopsOf(round);
        const empty = await freeTote();
        const into = await house.placeId(empty);
        const { version } = await sheet(code);
        await Promise.all([
          ...[1, 1, 1].map((units) => ines.floor(pickOf(round, stop!, units, into))),
          desk.post(`orders/${code}/cancel`, { why: 'race', tell: false }, at(version)),
        ]);
        let order = await sheet(code);
        if (order.state !== 'cancelled') {
          await cancel(code);
          order = await sheet(code);
        }
        expect(order).toMatchObject({ state: 'cancelled', lines: [{ reserved: 0 }] });
        await ines.floor(pickOf(round, stop!, 1, into)).expect(({ status }) => expect(status).toBeGreaterThanOrEqual(400));
        const { state } = (await house.source.query<{ state: string }[]>('SELECT state FROM `round` WHERE code = ?', [round]))[0]!;
        if (state === 'picking') await setDown(round);
        await putBack(empty);
        expect(await isFree(empty)).toBe(true);
      }
    });
  });

  it('lets an order that goes only whole wait for all of it, and takes nothing that others can use', async () => {
    await house.stock('GLV-S', 'A-04-1', 5);
    const whole = await key({
      wholeOnly: true,
      priority: 5,
      lines: [
        { sku: 'GLV-S', factor: 1, quantity: '3', price: '9' },
        { sku: 'GLV-M', factor: 1, quantity: '2', price: '9' },
      ],
    });
    expect((await sheet(whole)).lines).toMatchObject([{ reserved: 0 }, { reserved: 0 }]);
    const other = await key({ lines: [{ sku: 'GLV-S', factor: 1, quantity: '2', price: '9' }] });
    expect((await sheet(other)).lines).toMatchObject([{ reserved: 2 }]);
    await house.stock('GLV-M', 'A-04-2', 2);
    expect((await sheet(whole)).lines).toMatchObject([{ reserved: 3 }, { reserved: 2 }]);
    await house.stock('GLV-M', 'A-04-2', 1);
  });

  it('makes two orders of one and one of two, and what is promised goes with the goods', async () => {
    const code = await key({
      ref: 'PO-SPLIT',
      lines: [
        { sku: 'JAR-454-RD', factor: 48, quantity: '1', price: '40.80' },
        { sku: 'JAR-227-RD', factor: 1, quantity: '2', price: '0.74' },
      ],
    });
    const split = async (body: object, status = 200) =>
      desk.post(`orders/${code}/split`, body, at((await sheet(code)).version)).expect(status);
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
    expect(await sheet(part)).toMatchObject({
      channelRef: 'PO-SPLIT/2',
      lines: [{ wanted: 20, reserved: 20, factor: 1, price: '0.850000' }],
    });
    expect((await sheet(code)).lines).toMatchObject([
      { wanted: 28, reserved: 28, price: '0.850000' },
      { wanted: 2, reserved: 2 },
    ]);
    expect(await house.figures('JAR-454-RD')).toEqual(before);
    const siblings = (await desk.get(`orders/${code}/siblings`).expect(200)).body as { code: string }[];
    expect(siblings.map((x) => x.code)).toContain(part);
    await desk.post(`orders/${code}/merge`, { other: part }, at((await sheet(code)).version)).expect(200);
    expect(await sheet(part)).toMatchObject({ state: 'cancelled', cancelledWhy: `goes with ${code}`, lines: [{ reserved: 0 }] });
    expect((await sheet(code)).lines).toMatchObject([{ reserved: 28 }, { reserved: 2 }, { wanted: 20, reserved: 20 }]);
    expect(await house.figures('JAR-454-RD')).toEqual(before);
    // To another site: what lies here is free again.
    const { code: there } = (await split({ siteId: 2, lines: [{ line: 3, units: 20 }] })).body as { code: string };
    expect(await sheet(there)).toMatchObject({ siteId: 2, lines: [{ wanted: 20, reserved: 0 }] });
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
    const code = await key({ lines: [{ sku: 'KIT-HARV', factor: 1, quantity: '2', price: '99' }] });
    const order = await sheet(code);
    expect(order.lines).toHaveLength(parts.length + 1);
    expect(order).toMatchObject({
      state: 'open',
      worth: '198.000000',
      lines: [{ isKit: true, wanted: 0, quantity: 2 }, ...parts.map(() => ({ kit: 1 }))],
    });
    for (const line of order.lines.slice(1)) expect(line.reserved).toBe(line.wanted);
    const less = (await desk.get('order-desk/goods/KIT-HARV?site=1').expect(200)).body as { free: number };
    expect(less.free).toBe(facts.free - 2);
    await change(code, quantity(1, '1'));
    const half = await sheet(code);
    for (const [i, p] of parts.entries()) expect(half.lines.slice(1).map((l) => l.wanted)).toContain(parts[i]!.units && p.units);
    await picked(code);
    expect((await sheet(code)).state).toBe('picked');
    await cancel(code);
    await change(await key({ lines: [{ sku: 'KIT-HARV', factor: 1, quantity: '1', price: '99' }] }), {
      lines: [{ sku: 'JAR-454-RD', factor: 1, quantity: '1', price: '1' }],
    });
  });

  it('says why a line waits and what will cure it; what is only not put away yet is told apart', async () => {
    await house.stock('TOOL-STD', 'DOCK-1', 3);
    const code = await key({ lines: [{ sku: 'TOOL-STD', factor: 1, quantity: '5', price: '6.90' }] });
    const [cure] = (await desk.get(`orders/${code}/cures`).expect(200)).body as { line: number; lacks: number; cures: object[] }[];
    expect(cure).toMatchObject({ line: 1, lacks: 2, cures: [{ kind: 'put-away', units: 3, where: 'DOCK-1' }] });
    // Nobody can pick it there, and releasing it says so.
    await house.stock('TOOL-STD', 'DOCK-1', 2);
    const { version } = await sheet(code);
    const { body } = await desk.post(`orders/${code}/release`, {}, at(version)).expect(409);
    expect((body as { detail: string }).detail).toContain('dock');
  });

  it('gives one order what another holds, with whom it hits shown first', async () => {
    await house.stock('TOOL-JH', 'A-05-1', 4);
    const first = await key({ lines: [{ sku: 'TOOL-JH', factor: 1, quantity: '4', price: '7.90' }] });
    const second = await key({ lines: [{ sku: 'TOOL-JH', factor: 1, quantity: '3', price: '7.90' }] });
    const who = (await desk.get(`orders/${second}/lines/1/holders`).expect(200)).body as { lacks: number; holders: object[] };
    expect(who).toMatchObject({ lacks: 3, holders: [{ code: first, units: 4, line: 1 }] });
    const take = async (units: number) =>
      desk.post(`orders/${second}/lines/1/take`, { order: first, line: 1, units }, at((await sheet(second)).version));
    await take(5).then((r) => expect(r.status).toBe(400));
    const answers = await Promise.all([take(3), take(3)]);
    expect(answers.map((a) => a.status).sort()).toEqual([200, 412]);
    expect((await sheet(second)).lines).toMatchObject([{ reserved: 3 }]);
    expect((await sheet(first)).lines).toMatchObject([{ reserved: 1 }]);
    // What comes later does not turn it round.
    await house.stock('TOOL-JH', 'A-05-1', 1);
    expect((await sheet(second)).lines).toMatchObject([{ reserved: 3 }]);
  });

  it('keys an order where no channel of the desk is there yet', async () => {
    await house.source.query(`UPDATE channel SET kind = 'trade' WHERE kind = 'phone'`);
    const code = await key();
    expect((await sheet(code)).channel).toBe('Telephone and counter');
    expect((await sheet(await key())).channel).toBe('Telephone and counter');
  });
});
