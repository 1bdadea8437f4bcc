import type { SortTask } from '@vectrum/core/scan';
import { type Caller, House, pickOf, type TakenStop } from './house.js';

type Stop = TakenStop & { placeCode: string; orderId: number; picked: number; short: number };

/** Rounds that are picked for several orders together, and sorted into the slots of a wall afterwards. */
describe('a pooled round', () => {
  let house: House;
  let maren: Caller;
  let ines: Caller;
  let joss: Caller;

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    ines = await house.as('Ines');
    joss = await house.as('Joss');
  });
  // Closing checks the ledger, and what is promised against what orders hold.
  afterAll(() => house.close());

  const order = async (code: string) => (await maren.get(`orders/${code}`)).body as { state: string; version: number };
  const send = async (codes: readonly string[]) =>
    maren.post('rounds', {
      siteId: 1,
      rounds: [
        {
          orders: await Promise.all(codes.map(async (code) => ({ code, version: (await order(code)).version }))),
          sentTo: null,
          pooled: true,
        },
      ],
    });
  const sent = async (...codes: string[]) => ((await send(codes)).body as { rounds: string[] }).rounds[0]!;
  const stops = async (round: string) => (await ines.task<{ stops: Stop[] }>('pick', round)).stops;
  const wall = (round: string, who = ines) => who.task<SortTask>('sort', round);
  const queue = async () => ((await maren.get('bench/queue')).body as { rows: { order: string; tote: string }[] }).rows;
  const down = async (round: string, at = 'WALL-1') => ines.floor({ kind: 'set-down', round, placeId: await house.placeId(at) });
  /** Two orders of brushes, one of them of a book more, picked into one tote and set down at the wall. */
  const picked = async (tote: string, [sku, more] = ['BRSH-BEE', 'TOOL-STD']) => {
    await house.stock(sku, 'B-02-1', 9);
    await house.stock(more, 'B-05-1', 2);
    const codes = [
      await house.order([[sku, 2]]),
      await house.order([
        [sku, 3],
        [more, 1],
      ]),
    ];
    const round = await sent(...codes);
    for (const s of await stops(round)) await ines.floor(pickOf(round, s, s.units, await house.placeId(tote))).expect(200);
    await down(round).then((r) => expect(r.status).toBe(200));
    return { round, codes };
  };
  const sortOf = (round: string, g: SortTask['goods'][number], units: number, slotPlaceId: number) => ({
    kind: 'sort',
    round,
    orderId: g.orderId,
    itemId: g.itemId,
    lotId: g.lotId,
    units,
    fromPlaceId: g.toteId,
    slotPlaceId,
    how: 'scanned',
  });

  it('takes from a bin at once what its orders want there, and counts it for each; undone as one', async () => {
    await house.stock('SMK-LGE', 'A-10-1', 9);
    const codes = [await house.order([['SMK-LGE', 3]]), await house.order([['SMK-LGE', 4]])];
    const round = await sent(...codes);
    const [stop, ...others] = await stops(round);
    expect(others).toEqual([]);
    expect(stop).toMatchObject({ placeCode: 'A-10-1', units: 7, orderId: 0 });
    const tote = await house.placeId('T-01');
    const act = (await ines.floor(pickOf(round, stop!, 5, tote)).expect(200)).body as { activityId: number };
    expect((await stops(round))[0]).toMatchObject({ units: 7, picked: 5 });
    await ines.floor(pickOf(round, stop!, 3, tote)).expect(409);
    await ines.post(`tape/${act.activityId}/undo`).expect(201);
    expect((await stops(round))[0]).toMatchObject({ units: 7, picked: 0 });
    await ines.floor(pickOf(round, stop!, 7, tote)).expect(200);
    expect(JSON.stringify((await (await house.as('Dilys')).get('floor/tasks/pack/T-01')).body)).toContain('sort it first');
    const table = await down(round, 'TABLE-1');
    expect(JSON.stringify(table.body)).toContain('sorting wall');
    await down(round).then((r) => expect(r.status).toBe(200));
    for (const code of codes) expect((await order(code)).state).toBe('picking');
    expect((await queue()).some((r) => codes.includes(r.order))).toBe(false);
  });

  it('goes short for the order that was promised latest, and is sought elsewhere', async () => {
    await house.stock('SMK-SML', 'A-11-1', 5);
    const codes = [await house.order([['SMK-SML', 3]]), await house.order([['SMK-SML', 2]])];
    const round = await sent(...codes);
    const [stop] = await stops(round);
    const short = await ines.floor({ kind: 'short', round, stopId: stop!.id, units: 3, there: 2 }).expect(200);
    expect((await stops(round))[0]).toMatchObject({ units: 5, short: 3 });
    await ines.post(`tape/${(short.body as { activityId: number }).activityId}/undo`).expect(201);
    expect((await stops(round))[0]).toMatchObject({ units: 5, short: 0 });
  });

  it('is sorted into a slot for each order, which is announced to packing once it is complete', async () => {
    const { round, codes } = await picked('T-02');
    const seen = await wall(round);
    expect(seen.wall).toMatchObject({ code: 'WALL-1', columns: 4 });
    expect(seen.goods.map((g) => g.units).sort()).toEqual([1, 2, 3]);
    const [first, second] = seen.orders;
    const [one, two] = seen.slots.filter((s) => !s.busy);
    const of = (orderId: number) => seen.goods.filter((g) => g.orderId === orderId);
    await ines.floor(sortOf(round, of(first!.id)[0]!, 2, one!.placeId)).expect(200);
    expect((await queue()).find((r) => r.order === codes[0])).toMatchObject({ tote: one!.code });
    expect((await order(codes[0]!)).state).toBe('picked');
    // The slot of another order, a slot that is none, and more than is wanted are refused.
    const goods = of(second!.id);
    const wrong = await joss.floor(sortOf(round, goods[0]!, 1, one!.placeId)).expect(409);
    expect(JSON.stringify(wrong.body)).toContain('In use on another order');
    await joss.floor(sortOf(round, goods[0]!, 1, await house.placeId('TABLE-1'))).expect(409);
    await joss.floor(sortOf(round, goods[0]!, 9, two!.placeId)).expect(409);
    const [last, ...rest] = [...goods].reverse();
    for (const g of rest) await joss.floor(sortOf(round, g, g.units, two!.placeId)).expect(200);
    expect((await order(codes[1]!)).state).toBe('picking');
    const end = (await joss.floor(sortOf(round, last!, last!.units, two!.placeId)).expect(200)).body as { activityId: number };
    expect((await order(codes[1]!)).state).toBe('picked');
    // Taken back, its shared tote holds it again, and the order is not complete.
    await joss.post(`tape/${end.activityId}/undo`).expect(201);
    expect((await order(codes[1]!)).state).toBe('picking');
    expect((await wall(round)).goods).toMatchObject([{ units: last!.units }]);
    await joss.floor(sortOf(round, last!, last!.units, two!.placeId)).expect(200);
    for (const code of codes) {
      const packer = await house.packAll(code);
      await packer
        .floor({ kind: 'close-parcel', order: code, parcel: 1, carton: 'B4', weightG: 2000, service: null, weightSeen: true })
        .expect(200);
    }
    const state = await house.source.query<{ state: string }[]>('SELECT state FROM `round` WHERE code = ?', [round]);
    expect(state[0]!.state).toBe('done');
    expect((await wall(round)).slots.filter((s) => s.orderId !== null)).toEqual([]);
  });

  it('goes on without what is in no tote: its bin is counted, and the order waits for the rest', async () => {
    const { round, codes } = await picked('T-03', ['UNC-FORK', 'MRK-PEN']);
    const { goods, orders, slots } = await wall(round);
    const slot = slots.find((s) => !s.busy)!;
    const second = goods.filter((g) => g.orderId === orders[1]!.id);
    const [there, gone] = [second.find((g) => g.units === 3)!, second.find((g) => g.units === 1)!];
    await ines.floor(sortOf(round, there, 3, slot.placeId)).expect(200);
    const { orderId, itemId, lotId, units, toteId: fromPlaceId } = gone;
    await ines.floor({ kind: 'sort-missing', round, orderId, itemId, lotId, units, fromPlaceId }).expect(200);
    const counts = (await maren.get('sites/1/spot-counts')).body as { sku: string; place: string; held: number }[];
    expect(counts.find((c) => c.sku === 'MRK-PEN')).toMatchObject({ place: 'B-05-1', held: 1 });
    expect((await queue()).find((r) => r.order === codes[1])).toMatchObject({ tote: slot.code });
  });

  it('lets go of an order that is called off on the way, and its goods are put back', async () => {
    const { round, codes } = await picked('T-04', ['FDR-RAP', 'TOOL-JH']);
    const before = await wall(round);
    const { version } = await order(codes[0]!);
    await maren.post(`orders/${codes[0]!}/cancel`, { why: 'called off', tell: false }, { 'if-match': `"${version}"` }).expect(200);
    const { goods, spare, orders, slots } = await wall(round);
    expect(spare).toMatchObject([{ units: 2, code: 'T-04' }]);
    expect(goods.every((g) => g.orderId === orders[1]!.id)).toBe(true);
    const late = before.goods.find((g) => g.orderId !== goods[0]!.orderId)!;
    await ines.floor(sortOf(round, late, 2, slots.find((s) => !s.busy)!.placeId)).expect(409);
  });

  it('needs a wall with a slot for each order', async () => {
    await house.stock('TOOL-STD', 'B-05-1', 20);
    const codes = [];
    for (let i = 0; i < 13; i++) codes.push(await house.order([['TOOL-STD', 1]]));
    expect(JSON.stringify((await send(codes)).body)).toContain('has 12 slots');
    await house.source.query(`UPDATE place SET blocked = 1 WHERE code = 'WALL-1'`);
    expect(JSON.stringify((await send(codes.slice(0, 2))).body)).toContain('no sorting wall');
    await house.source.query(`UPDATE place SET blocked = 0 WHERE code = 'WALL-1'`);
  });

  it('is entered from its paper list, a bin once', async () => {
    await house.stock('TOOL-STD', 'B-05-1', 6);
    const round = await sent(await house.order([['TOOL-STD', 1]]), await house.order([['TOOL-STD', 2]]));
    const sheet = (await maren.get(`rounds/${round}`)).body as {
      holders: { id: number }[];
      orders: unknown[];
      stops: { id: number; units: number }[];
      tables: string[];
    };
    expect([sheet.holders.length, sheet.orders.length, sheet.tables]).toEqual([1, 2, ['WALL-1']]);
    const stopsTaken = sheet.stops.map((s) => ({ stopId: s.id, units: s.units }));
    const totes = [{ orderId: sheet.holders[0]!.id, tote: 'T-06' }];
    await ines.post(`rounds/${round}/results`, { totes, stops: stopsTaken, table: 'WALL-1' }).expect(200);
    expect((await wall(round)).goods.map((g) => g.units).sort()).toEqual([1, 2]);
  });

  it('finds its wall made by whoever sets the house up', async () => {
    const wallNew = { siteId: 1, code: 'wall-9', kind: 'sorting-wall', pickable: false, slotRows: 2, slotColumns: 3 };
    await maren.post('places', wallNew).expect(201);
    const made = await house.source.query<{ code: string }[]>(`SELECT code FROM place WHERE code LIKE 'WALL-9-%' ORDER BY walk_order`);
    expect(made.map((p) => p.code)).toEqual(['WALL-9-01', 'WALL-9-02', 'WALL-9-03', 'WALL-9-04', 'WALL-9-05', 'WALL-9-06']);
    await maren.post('places', { ...wallNew, code: 'WALL-8', slotRows: 60, slotColumns: 2 }).expect(400);
    await maren.post('places', { siteId: 1, code: 'LOOSE', kind: 'wall-slot', pickable: false }).expect(400);
    const changed = await maren.patch('places/WALL-9', { kind: 'pick-face' }, { 'if-match': '"1"' });
    expect(changed.status).toBe(400);
  });
});
