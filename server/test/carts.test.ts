import type { PickTask, SortTask } from '@vectrum/core/scan';
import { one } from '../src/platform/database/tx.js';
import { type Caller, closing, House, pickOf, type TakenStop } from './house.js';

/** Rounds that are walked with a cart, on which their totes stand. */
describe('a cart', () => {
  let house: House;
  let maren: Caller;
  let ines: Caller;
  let joss: Caller;
  let dilys: Caller;

  beforeAll(async () => {
    house = await House.open();
    [maren, ines, joss, dilys] = [await house.as('Maren'), await house.as('Ines'), await house.as('Joss'), await house.as('Dilys')];
    await house.stock('SMK-LGE', 'A-10-1', 60);
  });
  // Closing checks the ledger, and what is promised against what orders hold.
  afterAll(() => house.close());

  const order = () => house.order([['SMK-LGE', 1]]);
  async function send(count: number, pooled = false): Promise<{ round: string; codes: string[] }> {
    const codes: string[] = [];
    for (let i = 0; i < count; i++) codes.push(await order());
    const orders = await Promise.all(
      codes.map(async (code) => ({ code, version: ((await maren.get(`orders/${code}`)).body as { version: number }).version })),
    );
    const sent = await maren.post('rounds', { siteId: 1, rounds: [{ orders, sentTo: null, pooled }] }).expect(201);
    return { round: (sent.body as { rounds: string[] }).rounds[0]!, codes };
  }
  const task = (round: string) => ines.task<PickTask & { stops: (TakenStop & PickTask['stops'][number])[] }>('pick', round);
  const where = async (code: string) =>
    (
      await one<{ at: string | null }>(
        house.source,
        'SELECT q.code AS at FROM place p LEFT JOIN place q ON q.id = p.parent_id WHERE p.code = ?',
        [code],
      )
    )?.at;
  /** What a phone asks for when the cart is scanned: its empty totes for the orders in turn. */
  async function scanned(round: string, cart = 'CART-3') {
    const { orders, carts } = await task(round);
    const cartPlaceId = await house.placeId(cart);
    const free = carts?.find((c) => c.placeId === cartPlaceId)?.toteIds ?? [];
    const wanting = orders.filter((o) => o.toteIds.length === 0);
    return {
      kind: 'cart',
      round,
      cartPlaceId,
      totes: wanting.slice(0, free.length).map((o, i) => ({ orderId: o.id, totePlaceId: free[i]! })),
    };
  }
  async function pickAll(round: string): Promise<void> {
    const { stops, orders } = await task(round);
    for (const s of stops) await ines.floor(pickOf(round, s, s.units, orders.find((o) => o.id === s.orderId)!.toteIds[0]!)).expect(200);
  }
  const setDown = async (round: string, at = 'TABLE-2') =>
    ines.floor({ kind: 'set-down', round, placeId: await house.placeId(at) }).expect(200);
  const taken = async (round: string, cart = 'CART-3') => (await task(round)).carts?.find((c) => c.placeId === cartId[cart])?.taken;
  const cartId: Record<string, number> = {};
  beforeAll(async () => {
    for (const code of ['CART-1', 'CART-3']) cartId[code] = await house.placeId(code);
  });

  it('brings its totes in one act, stands with them at the table, and is free again once they are packed', async () => {
    const { round, codes } = await send(2);
    const asked = await scanned(round);
    expect(asked.totes).toHaveLength(2);
    await ines.floor(asked).expect(200);
    expect((await task(round)).cartId).toBe(cartId['CART-3']);
    const next = await send(1);
    expect(await taken(next.round)).toBe(`In use on ${round}`);
    await pickAll(round);
    await setDown(round);
    expect([await where('CART-3'), await where('T-41'), await where('T-42')]).toEqual(['TABLE-2', 'CART-3', 'CART-3']);
    const { rows } = (await dilys.get('bench/queue')).body as { rows: { order: string; table: string; tote: string }[] };
    expect(rows.filter((r) => codes.includes(r.order)).map((r) => r.table)).toEqual(['TABLE-2', 'TABLE-2']);
    // Not while somebody's goods stand on it.
    expect(await taken(next.round)).toBe(`In use on ${round}`);
    await joss.floor(await scanned(next.round)).expect(409);
    for (const code of codes) {
      await dilys.floor({ kind: 'pack', order: code, parcel: 1, line: 1, units: 1, how: 'scanned' }).expect(200);
      await dilys.floor(closing(code, { weightSeen: true, weightG: 900 })).expect(200);
    }
    const parcel = await where(`${codes[0]!}-1`);
    expect(parcel).toBe('TABLE-2');
    expect(await taken(next.round)).toBeUndefined();
    await ines.floor(await scanned(next.round)).expect(200);
    const sheet = (await maren.get(`rounds/${next.round}`)).body as { cart: string; orders: { totes: string[] }[] };
    expect(sheet).toMatchObject({ cart: 'CART-3', orders: [{ totes: ['T-41'] }] });
    await pickAll(next.round);
    await setDown(next.round);
  });

  it('is for one of two who scan it at the same moment', async () => {
    const [a, b] = [await send(1), await send(1)];
    const [own, other] = [await scanned(a.round, 'CART-1'), await scanned(b.round, 'CART-1')];
    const answers = await Promise.all([ines.floor(own), joss.floor(other)]);
    expect(answers.map((r) => r.status).sort()).toEqual([200, 409]);
  });

  it('is taken back by undo while nothing lies in its totes, and a tote that is taken alone leaves it', async () => {
    await house.source.query("INSERT INTO place (site_id, code, kind, walk_order) VALUES (1, 'CART-9', 'cart', 9399)");
    const cart = await house.placeId('CART-9');
    await house.source.query(`UPDATE place SET parent_id = ? WHERE code IN ('T-11', 'T-12')`, [cart]);
    const { round } = await send(2);
    const act = (await ines.floor(await scanned(round, 'CART-9')).expect(200)).body as { activityId: number };
    await ines.post(`tape/${act.activityId}/undo`).expect(201);
    expect(await task(round)).toMatchObject({ cartId: null, orders: [{ toteIds: [] }, { toteIds: [] }] });
    const { orders, stops } = await task(round);
    await ines.floor({ kind: 'tote', round, orderId: orders[0]!.id, totePlaceId: await house.placeId('T-11') }).expect(200);
    expect([await where('T-11'), await where('T-12')]).toEqual([null, 'CART-9']);
    // The cart comes later: what is in use stands on it from then on, and what is scanned then too.
    const later = (await ines.floor(await scanned(round, 'CART-9')).expect(200)).body as { activityId: number };
    expect([await where('T-11'), await where('T-12')]).toEqual(['CART-9', 'CART-9']);
    const own = stops.find((s) => s.orderId === orders[1]!.id)!;
    await ines.floor(pickOf(round, own, 1, await house.placeId('T-12'))).expect(200);
    await ines.post(`tape/${later.activityId}/undo`).expect(409);
    await ines
      .floor(
        pickOf(
          round,
          stops.find((s) => s.orderId === orders[0]!.id)!,
          1,
          await house.placeId('T-11'),
        ),
      )
      .expect(200);
    await setDown(round, 'TABLE-1');
    expect([await where('CART-9'), await where('T-11')]).toEqual(['TABLE-1', 'CART-9']);
  });

  it('stands at the wall with what is picked together, which is sorted from there', async () => {
    await house.source.query("INSERT INTO place (site_id, code, kind, walk_order) VALUES (1, 'CART-8', 'cart', 9398)");
    await house.source.query(`UPDATE place SET parent_id = ? WHERE code = 'T-14'`, [await house.placeId('CART-8')]);
    const { round } = await send(2, true);
    await ines.floor(await scanned(round, 'CART-8')).expect(200);
    await pickAll(round);
    await setDown(round, 'WALL-1');
    const wall = await ines.task<SortTask>('sort', round);
    expect(wall.wall.code).toBe('WALL-1');
    const g = wall.goods[0]!;
    const slot = wall.slots.find((s) => !s.busy)!.placeId;
    const { orderId, itemId, lotId, units, toteId } = g;
    await ines
      .floor({ kind: 'sort', round, orderId, itemId, lotId, units, fromPlaceId: toteId, slotPlaceId: slot, how: 'scanned' })
      .expect(200);
  });

  it('is refused where it is none, of another site, loaded with goods, or where a tote is not on it or not for this round', async () => {
    const { round } = await send(1);
    const { orders } = await task(round);
    const ask = async (cart: number, totes: object[] = []) =>
      JSON.stringify((await ines.floor({ kind: 'cart', round, cartPlaceId: cart, totes }).expect(409)).body);
    await house.source.query(
      "INSERT INTO place (site_id, code, kind, walk_order) VALUES (1, 'CART-7', 'cart', 9397), (2, 'CART-Q', 'cart', 9397)",
    );
    const empty = await house.placeId('CART-7');
    expect(await ask(await house.placeId('TABLE-1'))).toContain('Not a cart');
    expect(await ask(999_999)).toContain('No such cart');
    expect(await ask(await house.placeId('CART-Q'))).toMatch(/No such cart|another site/);
    expect(await ask(empty, [{ orderId: orders[0]!.id, totePlaceId: await house.placeId('T-30') }])).toContain(
      'does not stand empty on CART-7',
    );
    await house.source.query(`UPDATE place SET parent_id = ? WHERE code = 'T-30'`, [empty]);
    expect(await ask(empty, [{ orderId: 999_999, totePlaceId: await house.placeId('T-30') }])).toContain('not on the round');
    expect((await task(round)).cartId).toBeNull();
    await house.stock('SMK-SML', 'CART-7', 2);
    expect(await ask(empty)).toContain('Goods wait on it');
  });
});
