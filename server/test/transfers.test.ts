import { type GatherTask, nextGather, type TakeInTask } from '@vectrum/core/scan';
import { type Caller, House } from './house.js';

interface Sheet {
  state: string;
  version: number;
  missing: number;
  lineRows: { gathered: number; units: number }[];
  goods: {
    goodsId: number;
    lot: string | null;
    sent: number;
    received: number;
    damaged: number;
    lost: number;
    missing: number;
    owes: string | null;
    value: string;
  }[];
}
interface Line {
  sku: string;
  units: number;
}

let house: House;
let maren: Caller;
let ines: Caller;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
  ines = await house.as('Ines');
});
afterAll(() => house.close());

const said = (answer: { body: unknown }) => (answer.body as { detail: string }).detail;
const request = (lines: Line[], more: object = {}) => maren.post('transfers', { fromSiteId: 1, toSiteId: 2, note: '', lines, ...more });
const code = async (lines: Line[]) => ((await request(lines).expect(201)).body as { code: string }).code;
const sheet = async (t: string) => (await maren.get(`transfers/${t}`).expect(200)).body as Sheet;
const act = async (t: string, what: string, body: object = {}, who = maren) =>
  who.post(`transfers/${t}/${what}`, body, { 'if-match': `"${(await sheet(t)).version}"` });
const gatherTask = (t: string) => ines.task<GatherTask>('gather', t);
/** Gathers all that may be gathered, as the phone leads. */
async function gatherAll(t: string): Promise<void> {
  for (;;) {
    const next = nextGather(await gatherTask(t), { pending: [] });
    if (!next) return;
    const { line, bin, units } = next;
    await ines
      .floor({
        kind: 'gather',
        document: t,
        lineId: line.lineId,
        itemId: line.itemId,
        lotId: bin.lotId,
        placeId: bin.placeId,
        units,
        how: 'scanned',
      })
      .expect(200);
  }
}
const takeIn = async (t: string, goods: TakeInTask['goods'][number], units: number, more: object = {}) =>
  maren.floor({
    kind: 'take-in',
    document: t,
    goodsId: goods.goodsId,
    itemId: goods.itemId,
    lotId: goods.lotId,
    units,
    isDamaged: false,
    toPlaceId: await house.placeId('QUAY-DOCK'),
    how: 'scanned',
    ...more,
  });
const transit = async () =>
  Number(
    (
      await house.source.query<{ n: string | null }[]>(
        `SELECT SUM(IF(debit = 'in transit', amount, 0)) - SUM(IF(credit = 'in transit', amount, 0)) AS n FROM value_entry`,
      )
    )[0]?.n ?? 0,
  );
const figures = async (sku: string, site: number) =>
  (
    await house.source.query<{ onHand: number; held: number }[]>(
      'SELECT s.on_hand AS onHand, s.held FROM site_stock s JOIN item i ON i.id = s.item_id WHERE i.sku = ? AND s.site_id = ?',
      [sku, site],
    )
  )[0] ?? { onHand: 0, held: 0 };

describe('a transfer', () => {
  it('is asked for, gathered by what is due, sent, and taken in with one short and one damaged, which is settled', async () => {
    await house.stock('TOOL-JH', 'A-02-1', 8);
    await house.stock('SYR-05', 'A-02-2', 6, { code: 'LATE', expires: '2028-01-01' });
    await house.stock('SYR-05', 'A-03-1', 2, { code: 'SOON', expires: '2027-06-01' });
    const t = await code([
      { sku: 'TOOL-JH', units: 5 },
      { sku: 'SYR-05', units: 4 },
    ]);
    const task = await gatherTask(t);
    expect(task.lines[1]!.bins.map((b) => b.lot)).toEqual(['SOON', 'LATE']);
    expect(said(await act(t, 'send', { carrier: '', tracking: '' }))).toContain('Nothing of it is gathered');
    await gatherAll(t);
    // What is gathered is promised to nobody else, and is still the house's.
    expect(await figures('TOOL-JH', 1)).toMatchObject({ onHand: 8, held: 5 });
    const over = {
      kind: 'gather',
      document: t,
      lineId: task.lines[0]!.lineId,
      itemId: task.lines[0]!.itemId,
      lotId: 0,
      placeId: task.lines[0]!.bins[0]!.placeId,
      units: 1,
      how: 'typed',
    };
    expect((await ines.floor(over)).status).toBe(409);
    const worth = await transit();
    await act(t, 'send', { carrier: 'own van', tracking: '' });
    expect(await figures('TOOL-JH', 1)).toMatchObject({ onHand: 3, held: 0 });
    expect(await transit()).toBeGreaterThan(worth);
    expect((await sheet(t)).state).toBe('on-the-road');

    const road = await maren.task<TakeInTask>('take-in', t);
    const [tools] = road.goods.filter((g) => g.lot === null);
    const soon = road.goods.find((g) => g.lot === 'SOON')!;
    const late = road.goods.find((g) => g.lot === 'LATE')!;
    expect((await takeIn(t, tools!, 6)).status).toBe(409);
    await takeIn(t, tools!, 3);
    const { body } = await takeIn(t, tools!, 1, { isDamaged: true });
    await maren.post(`tape/${(body as { activityId: number }).activityId}/undo`).expect(201);
    expect((await takeIn(t, tools!, 1, { isDamaged: true })).status).toBe(200);
    await takeIn(t, soon, 2);
    await takeIn(t, late, 2, { toPlaceId: await house.placeId('M-01-1') });
    expect((await takeIn(t, late, 1, { toPlaceId: await house.placeId('A-01-1') })).status).toBe(409);
    await maren.floor({ kind: 'take-in-close', document: t }).expect(200);
    const open = await sheet(t);
    expect(open).toMatchObject({ state: 'received', missing: 1 });
    const short = open.goods.find((g) => g.missing > 0)!;
    expect(short).toMatchObject({ sent: 5, received: 4, damaged: 1, missing: 1 });
    expect(await transit()).toBeCloseTo(Number(short.value) / 5, 4);
    expect((await act(t, 'settle', { goodsId: short.goodsId, owes: 'carrier', neverLeft: false, note: '' })).status).toBe(400);
    await act(t, 'settle', { goodsId: short.goodsId, owes: 'carrier', neverLeft: false, note: 'box torn open' });
    expect(await transit()).toBeCloseTo(0, 4);
    expect((await sheet(t)).goods.find((g) => g.goodsId === short.goodsId)).toMatchObject({ lost: 1, missing: 0, owes: 'carrier' });
    expect(await figures('TOOL-JH', 2)).toMatchObject({ onHand: 4, held: 1 });
  });

  it('may have left less than its paper says: what never left is back at the dock', async () => {
    await house.stock('SMK-LGE', 'A-04-1', 4);
    const t = await code([{ sku: 'SMK-LGE', units: 4 }]);
    await gatherAll(t);
    await act(t, 'send', { carrier: '', tracking: '' });
    const [goods] = (await maren.task<TakeInTask>('take-in', t)).goods;
    await takeIn(t, goods!, 3);
    await maren.floor({ kind: 'take-in-close', document: t }).expect(200);
    await act(t, 'settle', { goodsId: goods!.goodsId, owes: 'sender', neverLeft: true, note: 'stood behind the door' });
    expect(await house.balance('SMK-LGE', 'DOCK-1')).toBe(1);
    expect(await transit()).toBeCloseTo(0, 4);
  });

  it('is called off with what was gathered back in its bins, and an undo takes one act back', async () => {
    await house.stock('SUIT-M', 'A-05-1', 6);
    const t = await code([{ sku: 'SUIT-M', units: 6 }]);
    const { lines } = await gatherTask(t);
    const one = {
      kind: 'gather',
      document: t,
      lineId: lines[0]!.lineId,
      itemId: lines[0]!.itemId,
      lotId: 0,
      placeId: lines[0]!.bins[0]!.placeId,
      how: 'scanned',
    };
    const { body } = await ines.floor({ ...one, units: 2 }).expect(200);
    await ines.floor({ ...one, units: 3 }).expect(200);
    await maren.post(`tape/${(body as { activityId: number }).activityId}/undo`).expect(201);
    expect((await sheet(t)).lineRows[0]).toMatchObject({ gathered: 3 });
    await act(t, 'cancel');
    expect(await house.balance('SUIT-M', 'A-05-1')).toBe(6);
    expect((await sheet(t)).state).toBe('cancelled');
    expect((await ines.floor({ ...one, units: 1 })).status).toBe(409);
    await maren.get(`floor/tasks/gather/${t}`).expect(409);
  });

  it('takes nothing that a round comes for, whoever is quicker', async () => {
    await house.stock('JAR-454-RD', 'A-06-1', 10);
    const order = await house.order([['JAR-454-RD', 4]]);
    const t = await code([{ sku: 'JAR-454-RD', units: 10 }]);
    const { lines } = await gatherTask(t);
    await house.release(order);
    const one = {
      kind: 'gather',
      document: t,
      lineId: lines[0]!.lineId,
      itemId: lines[0]!.itemId,
      lotId: 0,
      placeId: lines[0]!.bins[0]!.placeId,
      how: 'scanned',
    };
    const many = await Promise.all([ines.floor({ ...one, units: 4 }), maren.floor({ ...one, units: 4 })]);
    expect(many.map((m) => m.status).sort()).toEqual([200, 409]);
    expect((await sheet(t)).lineRows[0]).toMatchObject({ gathered: 4 });
  });

  it('is refused where it makes no sense, and tells what another site lacks', async () => {
    await request([{ sku: 'NOPE', units: 1 }]).expect(400);
    await request([{ sku: 'TOOL-JH', units: 1 }], { toSiteId: 1 }).expect(400);
    await request([{ sku: 'TOOL-JH', units: 0 }]).expect(400);
    await request([{ sku: 'KIT-START', units: 1 }]).expect(400);
    await maren.get('transfers/needed?from=1&to=2').expect(200);
    expect(((await maren.get('transfers?state=all').expect(200)).body as { total: number }).total).toBeGreaterThan(3);
    expect(((await ines.get('transfers/open/1').expect(200)).body as object[]).length).toBeGreaterThan(0);
  });
});
