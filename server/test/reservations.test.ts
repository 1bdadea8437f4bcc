import { AllocationService } from '../src/allocation/allocation.service.js';
import { Containers } from '../src/allocation/containers.service.js';
import { Reservations } from '../src/allocation/reservations.service.js';
import { actAs } from '../src/demo/morning.js';
import { inTransaction, one, rows } from '../src/platform/database/tx.js';
import { type Caller, closing, House, pickOf, type TakenStop } from './house.js';

describe('what is promised', () => {
  let house: House;
  let maren: Caller;
  let seq = 20;

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    await house.source.query(
      `INSERT INTO place (site_id, parent_id, code, kind, walk_order) SELECT s.id, NULL, CONCAT(s.code, '-', k.kind), k.kind, 0 FROM site s JOIN (SELECT 'packing-table' AS kind) k WHERE s.code = 'QUAY' AND NOT EXISTS (SELECT 1 FROM place p WHERE p.site_id = s.id AND p.kind = 'packing-table')`,
    );
  });
  afterAll(() => house.close());

  const held = (order: string) =>
    rows<{ site: number; place: string | null; kind: string | null; units: number }>(
      house.source,
      `SELECT v.site_id AS site, p.code AS place, p.kind, v.units FROM reservation v JOIN sales_order_line l ON l.id = v.order_line_id JOIN sales_order o ON o.id = l.order_id LEFT JOIN place p ON p.id = v.place_id WHERE o.code = ? ORDER BY v.site_id, p.code`,
      [order],
    );
  const state = async (code: string) => ((await maren.get(`orders/${code}`)).body as { state: string }).state;
  const stopsOf = async (round: string) => (await maren.task<{ stops: (TakenStop & { placeCode: string })[] }>('pick', round)).stops;

  it('follows the goods from the site to a bin, a tote, a parcel, and out of the house', async () => {
    await house.stock('JAR-454-RD', 'A-01-1', 10);
    const order = await house.order([['JAR-454-RD', 4]]);
    expect(await held(order)).toEqual([{ site: 1, place: null, kind: null, units: 4 }]);
    const round = await house.release(order);
    expect(await held(order)).toEqual([{ site: 1, place: 'A-01-1', kind: 'pick-face', units: 4 }]);
    const [stop] = await stopsOf(round);
    const tote = `T-${String(seq++)}`;
    await maren.floor(pickOf(round, stop!, 3, await house.placeId(tote))).expect(200);
    expect((await held(order)).map((h) => [h.kind, h.units])).toEqual([
      ['pick-face', 1],
      ['tote', 3],
    ]);
    await maren.floor(pickOf(round, stop!, 1, await house.placeId(tote))).expect(200);
    await maren.floor({ kind: 'set-down', round, placeId: await house.placeId('TABLE-1') }).expect(200);
    await house.packAll(order);
    expect(await held(order)).toEqual([{ site: 1, place: `${order}-1`, kind: 'parcel', units: 4 }]);
    expect(await house.figures('JAR-454-RD')).toMatchObject({ reserved: 4 });
  });

  it('may lie at two sites for one line, and the order ships from both', async () => {
    await house.stock('UNC-FORK', 'A-03-1', 2);
    const quay = (await one<{ code: string; id: number }>(
      house.source,
      `SELECT p.code, p.id FROM place p JOIN site s ON s.id = p.site_id WHERE s.code = 'QUAY' AND p.kind = 'pick-face' AND p.pickable = 1 ORDER BY p.walk_order LIMIT 1`,
    ))!;
    await house.stock('UNC-FORK', quay.code, 3);
    const order = await house.order([['UNC-FORK', 5]]);
    const line = (await one<{ id: number; itemId: number }>(
      house.source,
      'SELECT l.id, l.item_id AS itemId FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id WHERE o.code = ?',
      [order],
    ))!;
    await inTransaction(house.source, (tx) =>
      house.app.get(Reservations, { strict: false }).hold(tx, { lineId: line.id, itemId: line.itemId, siteId: 2 }, 3),
    );
    expect((await held(order)).map((h) => [h.site, h.units])).toEqual([
      [1, 2],
      [2, 3],
    ]);
    const { version } = (await maren.get(`orders/${order}`)).body as { version: number };
    const { rounds } = (await maren.post(`orders/${order}/release`, {}, { 'if-match': `"${version}"` }).expect(200)).body as {
      rounds: string[];
    };
    expect(rounds).toHaveLength(2);
    const [here, there] = await Promise.all(rounds.map(stopsOf));
    expect([here!.map((s) => s.placeCode), there!.map((s) => s.placeCode)]).toEqual([['A-03-1'], [quay.code]]);
    expect(await state(order)).toBe('released');
    await house.pickAll(rounds[0]!, `T-${String(seq++)}`);
    expect(await state(order)).toBe('picking');
    expect(((await maren.get('line')).body as { stages: { stage: string; count: number }[] }).stages).toBeDefined();
    const farTote = (await one<{ id: number }>(
      house.source,
      `SELECT p.id FROM place p WHERE p.site_id = 2 AND p.kind = 'tote' LIMIT 1`,
    )) ?? {
      id: Number(
        (await house.source.query<{ insertId: number }>(`INSERT INTO place (site_id, code, kind) VALUES (2, 'QT-01', 'tote')`)).insertId,
      ),
    };
    await maren.floor(pickOf(rounds[1]!, there![0]!, 3, farTote.id)).expect(200);
    const table = (await one<{ id: number }>(house.source, `SELECT id FROM place WHERE site_id = 2 AND kind = 'packing-table' LIMIT 1`))!;
    await maren.floor({ kind: 'set-down', round: rounds[1]!, placeId: table.id }).expect(200);
    expect(await state(order)).toBe('picked');
  });

  it('goes with a tote that changes its site, and both sites’ figures with it', async () => {
    await house.stock('GLV-M', 'A-04-1', 6);
    const order = await house.order([['GLV-M', 4]]);
    const round = await house.release(order);
    const tote = `T-${String(seq++)}`;
    await house.pickAll(round, tote);
    const figures = (site: number) =>
      one<{ onHand: number; reserved: number }>(
        house.source,
        'SELECT s.on_hand AS onHand, s.reserved FROM site_stock s JOIN item i ON i.id = s.item_id WHERE i.sku = ? AND s.site_id = ?',
        ['GLV-M', site],
      );
    const act = await actAs(house.source, 'Maren');
    const dock = (await one<{ id: number }>(house.source, `SELECT id FROM place WHERE site_id = 2 AND kind = 'dock' LIMIT 1`))!;
    const move = (to: number) =>
      house
        .placeId(tote)
        .then((id) => inTransaction(house.source, (tx) => house.app.get(Containers, { strict: false }).move(tx, act, id, to)));
    await move(dock.id);
    expect(await figures(1)).toEqual({ onHand: 2, reserved: 0 });
    expect(await figures(2)).toEqual({ onHand: 4, reserved: 4 });
    expect(await held(order)).toEqual([{ site: 2, place: tote, kind: 'tote', units: 4 }]);
    await move(await house.placeId('TABLE-1'));
    expect(await figures(1)).toEqual({ onHand: 6, reserved: 4 });
    const moves = await rows(
      house.source,
      'SELECT from_site_id, to_site_id FROM container_move m JOIN place p ON p.id = m.place_id WHERE p.code = ? ORDER BY m.id',
      [tote],
    );
    expect(moves.slice(-2)).toEqual([
      { from_site_id: 1, to_site_id: 2 },
      { from_site_id: 2, to_site_id: 1 },
    ]);
  });

  it('does not let goods be picked into a tote while the tote changes its site', async () => {
    await house.stock('GLV-L', 'A-05-1', 40);
    const round = await house.release(await house.order([['GLV-L', 40]]));
    const [stop] = await stopsOf(round);
    const tote = await house.placeId(`T-${String(seq++)}`);
    await maren.floor(pickOf(round, stop!, 1, tote)).expect(200);
    const act = await actAs(house.source, 'Maren');
    const far = (await one<{ id: number }>(house.source, `SELECT id FROM place WHERE site_id = 2 AND kind = 'dock' LIMIT 1`))!.id;
    const near = await house.placeId('DOCK-1');
    const moves = Array.from({ length: 6 }, (_, i) =>
      inTransaction(house.source, (tx) => house.app.get(Containers, { strict: false }).move(tx, act, tote, i % 2 === 0 ? far : near)),
    );
    const picks = Array.from({ length: 12 }, () => maren.floor(pickOf(round, stop!, 1, tote)));
    await Promise.allSettled([...moves, ...picks]);
    await inTransaction(house.source, (tx) => house.app.get(Containers, { strict: false }).move(tx, act, tote, near));
    const [sum] = await rows<{ balances: string; figures: string }>(
      house.source,
      `SELECT (SELECT SUM(b.units) FROM balance b JOIN place p ON p.id = b.place_id WHERE b.item_id = i.id AND p.site_id = 1) AS balances, (SELECT on_hand FROM site_stock s WHERE s.item_id = i.id AND s.site_id = 1) AS figures FROM item i WHERE i.sku = 'GLV-L'`,
    );
    expect(Number(sum!.balances)).toBe(Number(sum!.figures));
  });

  it('lets an order have two parcels open at once, closed one by one', async () => {
    await house.stock('JAR-454-RD', 'A-01-1', 20);
    const order = await house.order([['JAR-454-RD', 6]]);
    await house.pickAll(await house.release(order), `T-${String(seq++)}`);
    const pack = (parcel: number, units: number) => maren.floor({ kind: 'pack', order, parcel, line: 1, units, how: 'scanned' });
    await Promise.all([pack(1, 1), pack(2, 1), pack(1, 1), pack(2, 1)]);
    const { parcels } = await maren.task<{ parcels: { number: number; open: boolean; contents: object[] }[] }>('pack', order);
    expect(parcels).toMatchObject([
      { number: 1, open: true, contents: [{ line: 1, units: 2 }] },
      { number: 2, open: true, contents: [{ line: 1, units: 2 }] },
    ]);
    await maren.floor(closing(order, { parcel: 1 })).expect(200);
    expect(await state(order)).toBe('picked');
    expect((await pack(1, 1).expect(409)).body).toMatchObject({ code: 'state' });
    expect((await maren.floor(closing(order, { parcel: 2 })).expect(409)).body).toMatchObject({
      detail: '2 pieces are still to scan into the parcel',
    });
    await pack(2, 2).expect(200);
    await maren.floor(closing(order, { parcel: 2, weightG: 180 + 245 * 4 })).expect(200);
    expect(await state(order)).toBe('packed');
    expect(await held(order)).toHaveLength(2);
  });

  it('is given back where nothing stands behind it, but not from under a round', async () => {
    await house.stock('SMK-LGE', 'A-06-1', 4);
    const first = await house.order([['SMK-LGE', 2]]);
    const second = await house.order([['SMK-LGE', 2]]);
    const round = await house.release(first);
    const [stop] = await stopsOf(round);
    await maren.floor({ kind: 'short', round, stopId: stop!.id, units: 2, there: 0 }).expect(200);
    const settled = await inTransaction(house.source, async (tx) => {
      await house.app.get(AllocationService).settle(tx, [{ siteId: 1, itemId: await house.itemId('SMK-LGE') }]);
      return true;
    });
    expect(settled).toBe(true);
    const units = async (code: string) => (await held(code)).reduce((n, h) => n + h.units, 0);
    expect((await units(first)) + (await units(second))).toBeLessThanOrEqual(2);
  });
});
