import { type Caller, House, receipt } from './house.js';

interface Line {
  lineId: number;
  line: number;
  itemId: number;
  ordered: number;
  received: number;
}

describe('receiving', () => {
  let house: House;
  let dock: Caller;
  let buyer: Caller;
  let dockId: number;

  beforeAll(async () => {
    house = await House.open();
    dock = await house.as('Ruben');
    buyer = await house.as('Piet');
    dockId = await house.placeId('DOCK-1');
  });
  afterAll(() => house.close());

  async function placed(lines: { sku: string; factor: number; packs: number }[], supplier = 'QUILLON'): Promise<string> {
    const made = await buyer
      .post('purchase-orders', { supplier, siteId: 1, note: '', lines: lines.map((l) => ({ ...l, price: '20.16' })) })
      .expect(201);
    const { code } = made.body as { code: string };
    await buyer.post(`purchase-orders/${code}/place`, {}, { 'if-match': '"1"' }).expect(200);
    return code;
  }
  const lines = async (code: string) => (await dock.task<{ lines: Line[] }>('receive', code)).lines;
  const state = async (code: string) => ((await buyer.get(`purchase-orders/${code}`).expect(200)).body as { state: string }).state;
  const take = async (code: string, line: number, units: number, more: object = {}) => {
    const at = (await lines(code)).find((l) => l.line === line);
    return dock.floor(
      receipt(code, {
        lineId: at?.lineId ?? 1,
        itemId: at?.itemId ?? 1,
        units,
        toPlaceId: dockId,
        how: 'scanned',
        ...more,
      }),
    );
  };

  it('does not show a draft to the dock', async () => {
    const made = await buyer.post('purchase-orders', {
      supplier: 'QUILLON',
      siteId: 1,
      note: '',
      lines: [{ sku: 'JAR-454-RD', factor: 48, packs: 1, price: '1' }],
    });
    await dock.get(`floor/tasks/receive/${(made.body as { code: string }).code}`).expect(404);
    expect((await dock.get('floor/receive')).body).toEqual([]);
  });

  it('books units from the supplier to the dock and follows the order’s state', async () => {
    const code = await placed([
      { sku: 'JAR-454-RD', factor: 48, packs: 4 },
      { sku: 'LID-63-GD', factor: 1000, packs: 1 },
    ]);
    await (
      await take(code, 1, 96)
    ).body;
    expect(await house.balance('JAR-454-RD', 'DOCK-1')).toBe(96);
    expect(await state(code)).toBe('part-received');
    await take(code, 1, 96);
    await take(code, 2, 1000);
    expect(await state(code)).toBe('received');
    expect(await lines(code)).toMatchObject([{ received: 192 }, { received: 1000 }]);
  });

  it('allows five per cent above, and says by how many beyond that', async () => {
    const code = await placed([{ sku: 'JAR-340-HX', factor: 48, packs: 5 }]);
    expect((await take(code, 1, 252)).status).toBe(200);
    const answer = await take(code, 1, 1);
    expect(answer.status).toBe(409);
    expect(answer.body).toMatchObject({ code: 'refused', band: 'too-many', title: '13 jars over' });
    expect(await house.balance('JAR-340-HX', 'DOCK-1')).toBe(252);
  });

  it('refuses goods that the order does not name', async () => {
    const code = await placed([{ sku: 'JAR-227-RD', factor: 48, packs: 1 }]);
    const answer = await take(code, 1, 10, { itemId: await house.itemId('SMK-LGE') });
    expect(answer.body).toMatchObject({ band: 'not-this', title: 'Smoker, large' });
  });

  it('wants lot and date where the item is kept by them', async () => {
    const code = await placed([{ sku: 'SYR-05', factor: 4, packs: 3 }], 'OULDEN');
    expect((await take(code, 1, 4)).body).toMatchObject({ band: 'not-this', title: 'Lot missing' });
    expect((await take(code, 1, 4, { lot: 'LM26' })).body).toMatchObject({ title: 'Date missing' });
    expect((await take(code, 1, 4, { lot: 'LM26', expires: '2027-10-31' })).status).toBe(200);
    expect((await take(code, 1, 4, { lot: 'LM26', expires: '2027-11-30' })).body).toMatchObject({ title: 'Date differs' });
    const bins = ((await dock.get('items/SYR-05/stock')).body as { bins: unknown[] }).bins;
    expect(bins).toMatchObject([{ lot: 'LM26', expires: '2027-10-31', units: 4, place: 'DOCK-1' }]);
  });

  it('books straight to a bin, but not to a table or another site', async () => {
    const code = await placed([{ sku: 'JAR-042-MI', factor: 72, packs: 2 }]);
    expect((await take(code, 1, 72, { toPlaceId: await house.placeId('A-09-1') })).status).toBe(200);
    expect((await take(code, 1, 72, { toPlaceId: await house.placeId('TABLE-1') })).body).toMatchObject({
      band: 'not-this',
      title: 'TABLE-1',
    });
    expect((await take(code, 1, 72, { toPlaceId: await house.placeId('QUAY-DOCK') })).status).toBe(409);
    expect(await house.balance('JAR-042-MI', 'A-09-1')).toBe(72);
  });

  it('undoes a receipt: stock, line and state go back together', async () => {
    const code = await placed([{ sku: 'LID-63-BK', factor: 1000, packs: 2 }]);
    const { activityId } = (await take(code, 1, 2000)).body as { activityId: number };
    expect(await state(code)).toBe('received');
    await dock.post(`tape/${activityId}/undo`).expect(201);
    expect(await state(code)).toBe('placed');
    expect(await house.balance('LID-63-BK', 'DOCK-1')).toBe(0);
    expect((await dock.post(`tape/${activityId}/undo`).expect(409)).body).toMatchObject({ code: 'undo' });
    const tape = ((await dock.get('tape?limit=5')).body as { entries: { title: string; undone: boolean }[] }).entries;
    expect(tape[0]!.title).toBe('Undone: 2 boxes: Lid 63 mm, black');
    expect(tape.find((e) => e.title === '2 boxes: Lid 63 mm, black')!.undone).toBe(true);
  });

  it('does not undo what has been put away since', async () => {
    const code = await placed([{ sku: 'HIV-CRN', factor: 5, packs: 2 }], 'PELLOWICK');
    const { activityId } = (await take(code, 1, 10)).body as { activityId: number };
    const itemId = await house.itemId('HIV-CRN');
    await dock
      .floor({ kind: 'store', itemId, lotId: 0, units: 10, fromPlaceId: dockId, toPlaceId: await house.placeId('B-01-1'), how: 'scanned' })
      .expect(200);
    expect((await dock.post(`tape/${activityId}/undo`).expect(409)).body).toMatchObject({ code: 'stock' });
    expect(await state(code)).toBe('received');
  });

  it('lets two people count on one line without going over', async () => {
    const code = await placed([{ sku: 'CAGE-QN', factor: 50, packs: 2 }], 'BRINDLEMOOR');
    const answers = await Promise.all(Array.from({ length: 8 }, () => take(code, 1, 20)));
    expect(answers.filter((a) => a.status === 200)).toHaveLength(5);
    expect(await lines(code)).toMatchObject([{ received: 100 }]);
  });

  it('gives what came to those who wait, oldest promise first', async () => {
    const late = await house.order([['GLV-S', 6]], { promisedAt: '2026-05-20T15:00:00Z' });
    const soon = await house.order([['GLV-S', 4]], { promisedAt: '2026-05-14T15:00:00Z' });
    const code = await placed([{ sku: 'GLV-S', factor: 12, packs: 1 }], 'TINDRA');
    await take(code, 1, 5);
    const reserved = async (order: string) =>
      ((await buyer.get(`orders/${order}`)).body as { lines: { reserved: number }[] }).lines[0]!.reserved;
    expect([await reserved(soon), await reserved(late)]).toEqual([4, 1]);
    await take(code, 1, 7);
    expect([await reserved(soon), await reserved(late)]).toEqual([4, 6]);
    expect(await house.figures('GLV-S')).toEqual({ onHand: 12, held: 0, reserved: 10 });
  });

  it('takes promises back, last promised first, when a receipt is undone', async () => {
    const first = await house.order([['VEIL-RND', 3]], { promisedAt: '2026-05-14T15:00:00Z' });
    const second = await house.order([['VEIL-RND', 3]], { promisedAt: '2026-05-15T15:00:00Z' });
    await house.stock('VEIL-RND', 'C-02-1', 2);
    const code = await placed([{ sku: 'VEIL-RND', factor: 20, packs: 1 }], 'TINDRA');
    const { activityId } = (await take(code, 1, 10)).body as { activityId: number };
    await dock.post(`tape/${activityId}/undo`).expect(201);
    const reserved = async (order: string) =>
      ((await buyer.get(`orders/${order}`)).body as { lines: { reserved: number }[] }).lines[0]!.reserved;
    expect([await reserved(first), await reserved(second)]).toEqual([2, 0]);
  });
});

describe('putting away', () => {
  let house: House;
  let storer: Caller;
  let dockId: number;

  beforeAll(async () => {
    house = await House.open();
    storer = await house.as('Ruben');
    dockId = await house.placeId('DOCK-1');
    await house.stock('JAR-454-RD', 'DOCK-1', 96);
  });
  afterAll(() => house.close());

  const store = async (units: number, to: string) =>
    storer.floor({
      kind: 'store',
      itemId: await house.itemId('JAR-454-RD'),
      lotId: 0,
      units,
      fromPlaceId: dockId,
      toPlaceId: await house.placeId(to),
      how: 'scanned',
    });
  const goods = async () =>
    (
      await storer.task<{
        goods: { units: number; fromCode: string; suggestion: { code: string; reason: string } }[];
      }>('store', 1)
    ).goods;

  it('proposes the pick face first, with its reason', async () => {
    expect(await goods()).toMatchObject([{ units: 96, suggestion: { code: 'A-01-1', reason: 'its pick face' } }]);
  });

  it('proposes where the rest lies when there is no home, and an empty bin when there is no rest', async () => {
    await house.source.query(`DELETE s FROM item_site s JOIN item i ON i.id = s.item_id WHERE i.sku IN ('JAR-454-RD', 'SMK-LGE')`);
    await house.stock('JAR-454-RD', 'D-04-3', 48);
    await house.stock('SMK-LGE', 'DOCK-1', 6);
    const list = await goods();
    expect(list.map((g) => g.suggestion.reason).sort()).toEqual(['the nearest empty bin', 'the rest of it lies there']);
    expect(list.find((g) => g.units === 96)!.suggestion.code).toBe('D-04-3');
  });

  it('takes another bin than the proposed one', async () => {
    await (
      await store(48, 'A-05-2')
    ).body;
    expect(await house.balance('JAR-454-RD', 'A-05-2')).toBe(48);
  });

  it('refuses what is no bin, and more than stands there', async () => {
    expect((await store(10, 'TABLE-1')).body).toMatchObject({ band: 'not-this', title: 'TABLE-1' });
    expect((await store(10, 'QUAY-DOCK')).body).toMatchObject({ band: 'not-this' });
    expect((await store(49, 'A-05-2')).body).toMatchObject({ band: 'too-many', title: 'Only 1 tray here' });
  });

  it('refuses a blocked bin', async () => {
    await house.source.query(`UPDATE place SET blocked = 1 WHERE code = 'A-06-2'`);
    expect((await store(10, 'A-06-2')).body).toMatchObject({ band: 'unknown' });
  });

  it('undoes', async () => {
    const { activityId } = (await store(10, 'A-07-2')).body as { activityId: number };
    await storer.post(`tape/${activityId}/undo`).expect(201);
    expect(await house.balance('JAR-454-RD', 'A-07-2')).toBe(0);
    expect(await house.balance('JAR-454-RD', 'DOCK-1')).toBe(48);
  });

  it('loads a cart, and puts away from it', async () => {
    const itemId = await house.itemId('SMK-LGE');
    const cart = await house.placeId('CART-1');
    const move = (fromPlaceId: number, toPlaceId: number) =>
      storer.floor({ kind: 'store', itemId, lotId: 0, units: 6, fromPlaceId, toPlaceId, how: 'scanned' });
    await move(dockId, cart).expect(200);
    expect((await move(cart, cart)).body).toMatchObject({ code: 'refused', band: 'not-this', title: 'CART-1' });
    const smokers = (await goods()).find((g) => g.units === 6);
    expect(smokers).toMatchObject({ fromCode: 'CART-1', suggestion: { reason: 'the nearest empty bin' } });
    await move(cart, await house.placeId('A-08-2')).expect(200);
    expect(await house.balance('SMK-LGE', 'A-08-2')).toBe(6);
  });

  it('splits what a bin has no room for, and brings all into one walk', async () => {
    const sku = 'JAR-340-HX';
    await house.source.query(`UPDATE pack_unit u JOIN item i ON i.id = u.item_id SET u.weight_g = 250 WHERE i.sku = ? AND u.factor = 1`, [
      sku,
    ]);
    await house.source.query(
      `UPDATE place p JOIN item_site s ON s.home_place_id = p.id JOIN item i ON i.id = s.item_id SET p.holds_g = 2500 WHERE i.sku = ?`,
      [sku],
    );
    await house.stock(sku, 'DOCK-1', 40);
    const body = await storer.task<{
      metres: number;
      goods: { itemId: number; suggestion: { units: number; reason: string }; then: { units: number }[] }[];
    }>('store', 1);
    const itemId = await house.itemId(sku);
    expect(body.goods.find((g) => g.itemId === itemId)).toMatchObject({
      suggestion: { units: 10, reason: 'its pick face' },
      then: [{ units: 30 }],
    });
    expect(body.metres).toBeGreaterThan(0);
  });

  it('puts refused scans on the tape and changes nothing else', async () => {
    const before = await house.source.query('SELECT COUNT(*) AS n FROM movement');
    await storer
      .floor({ kind: 'refused', band: 'unknown', title: '5099', detail: 'On nothing here', code: '5099', how: 'scanned', siteId: 1 })
      .expect(200);
    const tape = ((await storer.get('tape?limit=1')).body as { entries: object[] }).entries;
    expect(tape[0]).toMatchObject({ glyph: 'fb-unknown', title: 'Unknown code: 5099', how: 'scanned', undoable: false });
    expect(await house.source.query('SELECT COUNT(*) AS n FROM movement')).toEqual(before);
  });
});
