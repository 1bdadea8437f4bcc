import type { RefillGoods, RefillTask } from '@vectrum/core/scan';
import { type Caller, House } from './house.js';

/** What lies in reserve is brought to where pickers go: raised by what waits and by pick faces that run low. */
describe('refills', () => {
  let house: House;
  let maren: Caller;
  let joss: Caller;

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    joss = await house.as('Joss');
  });
  afterAll(() => house.close());

  const task = (who = joss) => who.task<RefillTask>('refill', 1);
  const of = async (sku: string): Promise<RefillGoods[]> => {
    const itemId = await house.itemId(sku);
    return (await task()).goods.filter((g) => g.itemId === itemId);
  };
  const bring = async (goods: RefillGoods, to: string, units = goods.units, who = joss) =>
    who.floor({
      kind: 'store',
      itemId: goods.itemId,
      lotId: goods.lotId,
      units,
      fromPlaceId: goods.fromPlaceId,
      toPlaceId: await house.placeId(to),
      how: 'scanned',
    });
  const level = (sku: string, field: string, value: string) => maren.post('items/changes', { skus: [sku], field, value, siteId: 1 });

  it('are raised by an order that no bin open to picking has the goods for, and let it go to picking', async () => {
    await house.stock('SMK-LGE', 'A-10-1', 2);
    await house.stock('SMK-LGE', 'A-10-3', 40);
    const code = await house.order([['SMK-LGE', 5]]);
    const [goods, ...more] = await of('SMK-LGE');
    expect(more).toEqual([]);
    expect(goods).toMatchObject({ fromCode: 'A-10-3', there: 40, orders: 1, units: expect.any(Number) });
    expect(goods!.leavesAt).toMatch(/^\d{4}-/);
    expect(goods!.units).toBeGreaterThanOrEqual(3);
    expect((await task()).goods[0]).toEqual(goods);
    const { version } = (await maren.get(`orders/${code}`)).body as { version: number };
    await maren.post('rounds', { siteId: 1, rounds: [{ orders: [{ code, version }], sentTo: null }] }).expect(409);
    // On a cart it is on its way, and nobody else is sent for it.
    await bring(goods!, 'CART-1').then((r) => expect(r.status).toBe(200));
    expect(await of('SMK-LGE')).toEqual([]);
    const { goods: waiting } = await joss.task<RefillTask>('store', 1);
    const onCart = waiting.find((g) => g.fromCode === 'CART-1')!;
    expect(onCart.suggestion).not.toBeNull();
    await bring(onCart, 'A-10-1').then((r) => expect(r.status).toBe(200));
    await maren.post('rounds', { siteId: 1, rounds: [{ orders: [{ code, version }], sentTo: null }] }).expect(201);
  });

  it('are raised by a pick face that runs low, once nothing more urgent is, and fill it up', async () => {
    await maren.post('items/changes', { skus: ['SMK-SML'], field: 'home', value: 'A-11-1', siteId: 1 }).expect(200);
    await house.stock('SMK-SML', 'A-11-1', 4);
    await house.stock('SMK-SML', 'A-11-3', 30);
    expect(await of('SMK-SML')).toEqual([]);
    await level('SMK-SML', 'refillBelow', '5').expect(200);
    await level('SMK-SML', 'refillUpTo', '14').expect(200);
    const [goods] = await of('SMK-SML');
    expect(goods).toMatchObject({ fromCode: 'A-11-3', orders: 0, leavesAt: null, suggestion: { code: 'A-11-1', reason: 'its pick face' } });
    expect(goods!.units).toBeGreaterThanOrEqual(10);
    await house.stock('FRM-DN1', 'B-12-3', 10);
    await house.order([['FRM-DN1', 1]]);
    expect((await task()).goods.map((g) => g.leavesAt !== null)).toEqual([true, false]);
    await bring(goods!, 'A-11-1').then((r) => expect(r.status).toBe(200));
    expect(await of('SMK-SML')).toEqual([]);
    // What is held for orders is as good as gone.
    const left = await house.balance('SMK-SML', 'A-11-1');
    await house.order([['SMK-SML', left - 3]]);
    expect((await of('SMK-SML'))[0]).toMatchObject({ orders: 0, leavesAt: null });
  });

  it('bring what is due first, once, and never what is held there for somebody', async () => {
    await house.stock('SYR-05', 'A-12-3', 6, { code: 'LATE', expires: '2031-01-01' });
    await house.stock('SYR-05', 'A-12-4', 6, { code: 'SOON', expires: '2030-01-01' });
    await house.order([['SYR-05', 8]]);
    const due = await of('SYR-05');
    expect(due.map((g) => [g.lot, g.units, g.orders]).sort()).toEqual([
      ['LATE', expect.any(Number), 1],
      ['SOON', 6, 1],
    ]);
    const soon = due.find((g) => g.lot === 'SOON');
    const home = soon!.suggestion!.code;
    const answers = await Promise.all([bring(soon!, home, 6, joss), bring(soon!, home, 6, maren)]);
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409]);
    expect((await of('SYR-05')).map((g) => g.lot)).toEqual(['LATE']);
  });

  it('are reported where too few lie, which is held until somebody has counted it', async () => {
    const [late] = await of('SYR-05');
    const { itemId, lotId, fromPlaceId: placeId } = late!;
    const report = { kind: 'report-spot', itemId, lotId, placeId, there: 1, how: 'typed' };
    await joss.floor(report).expect(200);
    expect(await house.figures('SYR-05')).toMatchObject({ held: 5 });
    const counts = (await maren.get('sites/1/spot-counts')).body as { place: string; held: number; raisedBy: string }[];
    expect(counts).toMatchObject([{ place: 'A-12-3', held: 5, raisedBy: expect.stringContaining('Joss') }]);
    // The order that waited for it has been promised what there is, and no more.
    expect((await of('SYR-05')).every((g) => g.units <= 1)).toBe(true);
    await joss.floor(report).expect(409);
    await joss.floor({ ...report, placeId: 999_999 }).expect(403);
    await joss.floor({ ...report, placeId: await house.placeId('T-01') }).expect(409);
    await joss.floor({ ...report, there: -1 }).expect(400);
  });

  it('are for those who put away, at the sites where they work', async () => {
    const beth = await house.as('Beth');
    expect([403, 404]).toContain((await beth.get('floor/tasks/refill/1')).status);
    await joss.get('floor/tasks/refill/999').expect(403);
    await joss.get('floor/tasks/refill/one').expect(404);
    await maren.task<RefillTask>('refill', 2).then((t) => expect(t.goods).toEqual([]));
  });

  it('say why levels that contradict each other cannot be', async () => {
    expect((await level('SMK-SML', 'refillUpTo', '3')).body).toMatchObject({ detail: expect.stringContaining('refilled below more') });
    await level('SMK-SML', 'refillBelow', '-1').expect(400);
    await level('SMK-SML', 'refillBelow', '').expect(200);
    expect((await of('SMK-SML')).every((g) => g.orders > 0)).toBe(true);
    const item = (await maren.get('items/SMK-SML')).body as { version: number; sites: object[] };
    expect(item.sites[0]).toMatchObject({ refillBelow: null, refillUpTo: 14 });
  });
});
