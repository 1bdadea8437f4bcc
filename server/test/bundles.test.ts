import { randomUUID } from 'node:crypto';
import { type Caller, House, pickOf, receipt, type TakenStop } from './house.js';

interface Task {
  lines: { lineId: number; packed: number; received: number }[];
  stops: (TakenStop & { picked: number })[];
  goods: { units: number }[];
}

describe('a bundle names the commands whose effect it holds', () => {
  let house: House;
  let maren: Caller;

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    await house.stock('JAR-454-RD', 'A-01-1', 20);
    await house.stock('JAR-454-RD', 'DOCK-1', 20);
  });
  afterAll(() => house.close());

  const bundle = (kind: string, key: string | number, ...asked: string[]) => maren.task<Task>(kind, key, asked);

  it('in a round and at the bench', async () => {
    const order = await house.order([['JAR-454-RD', 4]]);
    const round = await house.release(order);
    const [stop] = (await bundle('pick', round)).stops;
    const key = randomUUID();
    await maren.floor(pickOf(round, stop!, 4, await house.placeId('T-01')), { id: key }).expect(200);
    const after = await bundle('pick', round, key);
    expect(after.applied).toContain(key);
    expect(after.stops[0]!.picked).toBe(4);
    await maren.floor({ kind: 'set-down', round: round, placeId: await house.placeId('TABLE-1') }).expect(200);
    const packed = randomUUID();
    expect((await bundle('pack', order, packed)).applied).not.toContain(packed);
    await maren.floor({ kind: 'pack', order: order, parcel: 1, line: 1, units: 1, how: 'scanned' }, { id: packed }).expect(200);
    const bench = await bundle('pack', order, packed);
    expect([bench.applied.includes(packed), bench.lines[0]!.packed]).toEqual([true, 1]);
  });

  it('while putting away', async () => {
    const key = randomUUID();
    const away = {
      itemId: await house.itemId('JAR-454-RD'),
      lotId: 0,
      units: 5,
      fromPlaceId: await house.placeId('DOCK-1'),
      toPlaceId: await house.placeId('A-02-1'),
      how: 'scanned',
    };
    await maren.floor({ kind: 'store', ...away }, { id: key }).expect(200);
    const { applied, goods } = await bundle('store', 1, key);
    expect([applied.includes(key), goods[0]!.units]).toEqual([true, 15]);
  });

  it('and never its effect without its name, however many post meanwhile', async () => {
    const made = await maren.post('purchase-orders', {
      supplier: 'QUILLON',
      siteId: 1,
      note: '',
      lines: [{ sku: 'LID-63-GD', factor: 1000, packs: 1, price: '48' }],
    });
    const { code } = made.body as { code: string };
    await maren.post(`purchase-orders/${code}/place`, {}, { 'if-match': '"1"' }).expect(200);
    const { lineId } = (await bundle('receive', code)).lines[0]!;
    const one = { lineId, itemId: await house.itemId('LID-63-GD'), units: 1, toPlaceId: await house.placeId('DOCK-1'), how: 'scanned' };
    const keys: string[] = Array.from({ length: 40 }, () => randomUUID());
    const posting = Promise.all(keys.map((key) => maren.floor(receipt(code, one), { id: key }).expect(200)));
    for (let i = 0; i < 25; i++) {
      const seen = await bundle('receive', code, ...keys);
      expect(seen.lines[0]!.received).toBe(seen.applied.filter((id) => keys.includes(id)).length);
    }
    await posting;
    expect((await bundle('receive', code)).lines[0]!.received).toBe(40);
  });
});
