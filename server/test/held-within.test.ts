import { type GatherTask, nextGather } from '@vectrum/core/scan';
import { type Caller, House } from './house.js';

interface Way {
  kind: string;
  wholeAt: string;
  late: boolean;
  atOrdersSite: boolean;
  sendings: { site: string; pieces: number }[];
  fetches: { siteId: number; pieces: number }[];
  waitsFor: { code: string; kind: string }[];
}
const DAY_MS = 86_400_000;

let house: House;
let desk: Caller;
let ines: Caller;
beforeAll(async () => {
  house = await House.open();
  desk = await house.as('Maren');
  ines = await house.as('Ines');
});
afterAll(() => house.close());

const asked = async (sku: string, units: number, from = 1, to = 2) =>
  (
    (await desk.post('transfers', { fromSiteId: from, toSiteId: to, note: '', lines: [{ sku, units }] }).expect(201)).body as {
      code: string;
    }
  ).code;
const sheet = async (t: string) =>
  (await desk.get(`transfers/${t}`).expect(200)).body as {
    version: number;
    state: string;
    note: string;
    lineRows: { sku: string; units: number }[];
  };
const reserved = async (code: string) =>
  ((await desk.get(`orders/${code}`)).body as { lines: { reserved: number }[] }).lines.map((l) => l.reserved);
const order = async (code: string) => (await desk.get(`orders/${code}`)).body as { version: number; promisedAt: string };
const ways = async (code: string) => (await desk.get(`orders/${code}/ways`).expect(200)).body as Way[];
const may = async (t: string) => (await ines.task<GatherTask>('gather', t)).lines.map((l) => l.bins.reduce((n, b) => n + b.spare, 0));
const gather = async (t: string, units: number, who = ines) => {
  const { lines } = await ines.task<GatherTask>('gather', t);
  const [line] = lines;
  const bin = line!.bins[0] ?? { lotId: 0, placeId: 0 };
  return who.floor({
    kind: 'gather',
    document: t,
    lineId: line!.lineId,
    itemId: line!.itemId,
    lotId: bin.lotId,
    placeId: bin.placeId,
    units,
    how: 'scanned',
  });
};

describe('what a transfer or an assembly holds', () => {
  it('is promised to no order, and given to orders once it is called off', async () => {
    await house.stock('JAR-454-RD', 'A-06-1', 10);
    const t = await asked('JAR-454-RD', 7);
    const code = await house.order([['JAR-454-RD', 5]]);
    expect(await reserved(code)).toEqual([3]);
    const figures = await house.figures('JAR-454-RD', 1);
    expect(figures).toMatchObject({ onHand: 10, reserved: 10 });
    expect(JSON.stringify((await desk.get('items/JAR-454-RD/why/reserved/1')).body)).toContain(t);
    await desk.post(`transfers/${t}/cancel`, {}, { 'if-match': `"${(await sheet(t)).version}"` }).expect(200);
    expect(await reserved(code)).toEqual([5]);
  });

  it('is never what an order was promised, however much lies in the bin', async () => {
    await house.stock('JAR-340-HX', 'A-03-1', 10);
    const code = await house.order([['JAR-340-HX', 8]]);
    const t = await asked('JAR-340-HX', 6);
    expect(await may(t)).toEqual([2]);
    expect((await gather(t, 3)).status).toBe(409);
    await gather(t, 2);
    expect(await reserved(code)).toEqual([8]);
    // More comes: orders have theirs, and what is left is held for it.
    await house.stock('JAR-340-HX', 'A-03-1', 5);
    expect(nextGather(await ines.task<GatherTask>('gather', t), { pending: [] })?.units).toBe(4);
    expect((await house.figures('JAR-340-HX', 1)).reserved).toBe(12);
  });

  it('gives way to orders where goods are gone, is taken up by gathering, and comes back by an undo', async () => {
    await house.stock('SUIT-M', 'A-05-1', 6);
    const code = await house.order([['SUIT-M', 2]]);
    const t = await asked('SUIT-M', 4);
    const { body } = await gather(t, 3);
    expect((await house.figures('SUIT-M', 1)).reserved).toBe(3);
    await desk.post(`tape/${(body as { activityId: number }).activityId}/undo`).expect(201);
    expect((await house.figures('SUIT-M', 1)).reserved).toBe(6);
    expect(await may(t)).toEqual([4]);
    // Three turn out to be spoilt: the order keeps its own.
    const { itemId } = (await ines.task<GatherTask>('gather', t)).lines[0]!;
    const goods = { itemId, lotId: 0, placeId: await house.placeId('A-05-1'), condition: 'good' };
    await ines.floor({ kind: 'issue', ...goods, units: 3, purpose: 'scrap', note: 'moths', costCentre: '', how: 'typed' }).expect(200);
    expect(await may(t)).toEqual([1]);
    expect(await reserved(code)).toEqual([2]);
  });

  it('lets go of what it wanted besides when it is sent with less', async () => {
    await house.stock('SMK-LGE', 'A-04-1', 4);
    const t = await asked('SMK-LGE', 4);
    await gather(t, 1);
    await desk.post(`transfers/${t}/send`, { carrier: '', tracking: '' }, { 'if-match': `"${(await sheet(t)).version}"` }).expect(200);
    expect(await house.figures('SMK-LGE', 1)).toMatchObject({ onHand: 3, reserved: 0 });
    const { projected, incoming } = (
      (await desk.get('items/SMK-LGE/stock')).body as { sites: { siteId: number; projected: number; incoming: number }[] }
    ).sites.find((s) => s.siteId === 2)!;
    expect([incoming, projected]).toEqual([1, 1]);
  });

  it('is the same for one of two who gather at once', async () => {
    await house.stock('TOOL-JH', 'A-02-1', 5);
    const t = await asked('TOOL-JH', 5);
    const both = await Promise.all([gather(t, 4), gather(t, 4, desk)]);
    expect(both.map((r) => r.status).sort()).toEqual([200, 409]);
    expect(nextGather(await ines.task<GatherTask>('gather', t), { pending: [] })?.units).toBe(1);
  });
});

describe('an order that lacks goods which another site has', () => {
  it('has them fetched: the other site is asked, what it has is held, and the order is promised for when they are in', async () => {
    await house.stock('BOK-WAX', 'M-01-1', 9);
    const code = await house.order([['BOK-WAX', 4]]);
    const way = (await ways(code)).find((w) => w.kind === 'fetched')!;
    expect(way).toMatchObject({ late: true, sendings: [{ pieces: 4 }], fetches: [{ siteId: 2, pieces: 4 }] });
    const { version } = await order(code);
    const match = { 'if-match': `"${version}"` };
    await ines.post(`orders/${code}/fetch`, { at: way.wholeAt }, match).expect(403);
    const soon = new Date(Date.now() + DAY_MS).toISOString();
    expect((await desk.post(`orders/${code}/fetch`, { at: soon }, match)).status).toBe(409);
    const { transfers } = (await desk.post(`orders/${code}/fetch`, { at: way.wholeAt }, match).expect(200)).body as { transfers: string[] };
    expect(await sheet(transfers[0]!)).toMatchObject({ state: 'requested', note: `For ${code}`, lineRows: [{ sku: 'BOK-WAX', units: 4 }] });
    expect((await order(code)).promisedAt).toBe(way.wholeAt);
    expect((await house.figures('BOK-WAX', 2)).reserved).toBe(4);
    // What is on its way is counted on, and says so; nobody else is promised it.
    const next = (await ways(code)).find((w) => w.atOrdersSite && w.kind === 'together');
    expect(next).toMatchObject({ kind: 'together', late: false, waitsFor: [{ code: transfers[0], kind: 'transfer' }] });
    const second = await house.order([['BOK-WAX', 4]]);
    expect((await ways(second)).every((w) => w.fetches.every((f) => f.pieces >= 4))).toBe(true);
    const cures = (await desk.get(`orders/${code}/cures`)).body as { cures: { kind: string; where: string; units: number }[] }[];
    expect(cures[0]!.cures[0]).toMatchObject({ kind: 'on-the-road', where: transfers[0], units: 4 });
  });

  it('keeps what was fetched for it, though others that are due before it lack the same', async () => {
    const soon = { promisedAt: new Date(Date.now() + DAY_MS / 4).toISOString() };
    const first = await house.order([['SUIT-XL', 2]], soon);
    await house.stock('SUIT-XL', 'M-02-1', 3);
    const code = await house.order([['SUIT-XL', 3]]);
    const way = (await ways(code)).find((w) => w.kind === 'fetched')!;
    expect(way.fetches).toMatchObject([{ siteId: 2, pieces: 3 }]);
    const match = { 'if-match': `"${(await order(code)).version}"` };
    const { transfers } = (await desk.post(`orders/${code}/fetch`, { at: way.wholeAt }, match).expect(200)).body as { transfers: string[] };
    const t = transfers[0]!;
    expect((await ways(code)).map((w) => [w.kind, w.late, w.waitsFor.map((x) => x.code)])).toEqual([['together', false, [t]]]);
    expect(await ways(first)).toEqual([]);
    const [line] = (await desk.task<GatherTask>('gather', t)).lines;
    const bin = line!.bins[0]!;
    const gathered = { document: t, lineId: line!.lineId, itemId: line!.itemId, lotId: bin.lotId, placeId: bin.placeId, units: 3 };
    await desk.floor({ kind: 'gather', ...gathered, how: 'scanned' }).expect(200);
    await desk.post(`transfers/${t}/send`, { carrier: '', tracking: '' }, { 'if-match': `"${(await sheet(t)).version}"` }).expect(200);
    const [goods] = (await desk.task<{ goods: { goodsId: number; itemId: number; lotId: number }[] }>('take-in', t)).goods;
    const toPlaceId = await house.placeId('DOCK-1');
    const { goodsId, itemId, lotId } = goods!;
    await desk
      .floor({ kind: 'take-in', document: t, goodsId, itemId, lotId, units: 3, isDamaged: false, toPlaceId, how: 'scanned' })
      .expect(200);
    expect([await reserved(first), await reserved(code)]).toEqual([[0], [3]]);
  });

  it('is one of two that ask for the last of it at once; the other is told to look again', async () => {
    await house.stock('SUIT-L', 'M-02-2', 2);
    const both = await Promise.all([1, 2].map(() => house.order([['SUIT-L', 2]])));
    const asked = await Promise.all(
      both.map(async (code) => {
        const at = (await ways(code)).find((w) => w.kind === 'fetched')!.wholeAt;
        const match = { 'if-match': `"${(await order(code)).version}"` };
        return () => desk.post(`orders/${code}/fetch`, { at }, match);
      }),
    );
    expect((await Promise.all(asked.map((ask) => ask()))).map((r) => r.status).sort()).toEqual([200, 409]);
  });

  it('asks for a thing once where two press at the same time', async () => {
    await house.stock('SMK-SML', 'M-01-1', 3);
    const code = await house.order([['SMK-SML', 3]]);
    const way = (await ways(code)).find((w) => w.kind === 'fetched')!;
    const match = { 'if-match': `"${(await order(code)).version}"` };
    const both = await Promise.all([1, 2].map(() => desk.post(`orders/${code}/fetch`, { at: way.wholeAt }, match)));
    expect(both.map((r) => r.status).sort()).toEqual([200, 412]);
  });
});
