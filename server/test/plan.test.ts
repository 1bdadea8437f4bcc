import { type Caller, House } from './house.js';

let house: House;
let maren: Caller;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
});
afterAll(() => house.close());

const aisles = (more: object = {}) => ({
  siteId: 3,
  from: 'x',
  to: 'Y',
  bays: 3,
  levels: 2,
  pickLevels: 1,
  bayM: 2,
  x: 14,
  y: 4,
  gapM: 3,
  preview: false,
  ...more,
});
interface Plan {
  version: number;
  widthM: number;
  depthM: number;
  walkM: number;
  shapes: { id?: number; kind: 'aisle' | 'walkway' | 'wall'; label: string; x: number; y: number; toX: number; toY: number }[];
  points: { code: string; x: number; y: number }[];
  bays: { aisleId: number; bins: number; used: number; moves: number }[];
}
const plan = async (site = 3) => (await maren.get(`plans/${site}`).expect(200)).body as Plan;
const edit = (p: Plan, more: Partial<Plan> = {}) => {
  const { widthM, depthM, shapes, points } = { ...p, ...more };
  return maren.put(
    'plans/3',
    { widthM, depthM, shapes, points: points.map(({ code, x, y }) => ({ code, x, y })) },
    { 'if-match': `"${p.version}"` },
  );
};
const place = async (code: string) =>
  (await maren.get(`places/${code}`).expect(200)).body as {
    x: number;
    y: number;
    walkOrder: number;
    version: number;
    fixedOrder: boolean;
    zone: string;
  };

describe('aisles by rule', () => {
  it('are shown before they are made, then made with their walkways', async () => {
    expect((await maren.post('places/aisles', aisles({ preview: true })).expect(200)).body).toEqual({
      aisles: 2,
      bins: 12,
      pickFaces: 6,
      first: 'X-01-1',
      last: 'Y-03-2',
      taken: [],
      activityId: null,
    });
    await maren.get('places/X-01-1').expect(404);
    await maren.post('places/aisles', aisles()).expect(200);
    expect(await place('X-02-2')).toMatchObject({ kind: 'reserve', pickable: false, x: 14, y: 7, aisle: 'X' });
    expect(await place('Y-03-1')).toMatchObject({ kind: 'pick-face', pickable: true, x: 17, y: 9 });
  });

  it('are refused whole where one code is taken, or the rule cannot be', async () => {
    const before = (await maren.get('places?site=3')).body as { total: number };
    const taken = await maren.post('places/aisles', aisles({ from: 'W', to: 'X' })).expect(400);
    expect((taken.body as { fields: { from: string } }).fields.from).toContain('X-01-1');
    await maren.post('places/aisles', aisles({ bays: 0 })).expect(400);
    await maren.post('places/aisles', aisles({ zone: 'NOWHERE', from: 'Q', to: 'Q' })).expect(400);
    expect(((await maren.get('places?site=3')).body as { total: number }).total).toBe(before.total);
    await (await house.as('Ines')).post('places/aisles', aisles()).expect(403);
  });

  it('can be taken back from the tape while nothing has stood in them', async () => {
    const made = (await maren.post('places/aisles', aisles({ from: 'U', to: 'U', x: 20 })).expect(200)).body as { activityId: number };
    await maren.post(`tape/${made.activityId}/undo`).expect(201);
    await maren.get('places/U-01-1').expect(404);
    const again = (await maren.post('places/aisles', aisles({ from: 'U', to: 'U', x: 20 })).expect(200)).body as { activityId: number };
    await house.stock('JAR-454-RD', 'U-01-1', 1);
    await maren.post(`tape/${again.activityId}/undo`).expect(409);
    await maren.get('places/U-01-1').expect(200);
  });
});

describe('the plan', () => {
  it('moves bins with their aisle, and the walking order with both', async () => {
    const before = await plan();
    const x = before.shapes.find((s) => s.label === 'X')!;
    const [bx, by] = [await place('X-01-1'), await place('Y-01-1')];
    expect(bx.walkOrder).toBeLessThan(by.walkOrder);
    const shapes = before.shapes.map((s) => (s.id === x.id ? { ...s, x: 18.5, toX: 18.5 } : s));
    await edit(before, { shapes }).expect(204);
    expect(await place('X-01-1')).toMatchObject({ x: 18.5, y: 5 });
    expect((await place('X-01-1')).walkOrder).toBeGreaterThan((await place('Y-01-1')).walkOrder);
    await edit(before).expect(412);
  });

  it('leaves a place alone whose order a person has fixed, until the plan may decide again', async () => {
    const { version } = await place('X-02-1');
    await maren.patch('places/X-02-1', { walkOrder: 5 }, { 'if-match': `"${version}"` }).expect(200);
    await edit(await plan()).expect(204);
    expect(await place('X-02-1')).toMatchObject({ walkOrder: 5, fixedOrder: true });
    await maren.patch('places/X-02-1', { walkOrder: null }, { 'if-match': `"${version + 1}"` }).expect(200);
    expect((await place('X-02-1')).walkOrder).toBeGreaterThan(100);
  });

  it('keeps aisles that have bins, stays within its floor, and knows no shapes of other plans', async () => {
    const p = await plan();
    expect((await edit(p, { shapes: p.shapes.filter((s) => s.label !== 'Y') }).expect(409)).body).toMatchObject({
      detail: expect.stringContaining('must stay'),
    });
    await edit(p, { widthM: 10 }).expect(400);
    await edit(p, { shapes: [...p.shapes, { id: 1, kind: 'wall', label: '', x: 0, y: 0, toX: 1, toY: 0 }] }).expect(400);
    await edit(p, { shapes: [...p.shapes, { kind: 'walkway', label: '', x: 1, y: 1, toX: 1, toY: 1.2 }] }).expect(400);
    const walkways = [...p.shapes, { kind: 'walkway' as const, label: '', x: 1, y: 1, toX: 5, toY: 4 }];
    await edit(p, { shapes: walkways }).expect(204);
    expect((await plan()).shapes).toHaveLength(walkways.length);
  });

  it('shows how full and how busy each bay is', async () => {
    const mill = await plan(1);
    const home = mill.bays.find((b) => b.moves > 0);
    expect(home).toBeUndefined();
    await house.stock('JAR-454-RD', 'A-01-1', 40);
    expect((await plan(1)).bays.filter((b) => b.used > 0)).toEqual([expect.objectContaining({ used: 1, moves: 1, bins: 4 })]);
    expect((await plan(1)).walkM).toBeGreaterThan(200);
    await (await house.as('Ines')).get('plans/2').expect(403);
  });

  it('gives walks the metres of its walkways', async () => {
    await house.stock('SMK-LGE', 'H-12-1', 4);
    const near = await house.order([['JAR-454-RD', 1]]);
    const far = await house.order([['SMK-LGE', 1]]);
    await house.release(near);
    await house.release(far);
    const rounds = (await maren.get('rounds')).body.rows as { code: string; orders: { code: string }[]; metres: number }[];
    const of = (code: string) => rounds.find((r) => r.orders[0]!.code === code)!.metres;
    // There and back to where totes are set down.
    expect(of(near)).toBeGreaterThan(0);
    expect(of(far)).toBeGreaterThan(of(near) + 30);
    const walk = await (
      await house.as('Ines')
    ).task<{ stops: { metres: number }[] }>('pick', rounds.find((r) => r.orders[0]!.code === far)!.code);
    expect(walk.stops[0]!.metres).toBeGreaterThan(30);
  });
});

describe('zones', () => {
  it('decide where goods are sent and where they may be put', async () => {
    await house.source.query(`DELETE s FROM item_site s JOIN item i ON i.id = s.item_id WHERE i.sku IN ('MTS-02', 'GLV-S')`);
    await house.stock('MTS-02', 'DOCK-1', 10, { code: 'ZL1', expires: '2028-01-01' });
    await house.stock('GLV-S', 'DOCK-1', 5);
    const ruben = await house.as('Ruben');
    const task = await ruben.task<{
      goods: { itemId: number; lotId: number; fromPlaceId: number; suggestion: { code: string } }[];
    }>('store', 1);
    const goodsOf = async (sku: string) => {
      const id = await house.itemId(sku);
      return task.goods.find((g) => g.itemId === id)!;
    };
    const [strips, gloves] = [await goodsOf('MTS-02'), await goodsOf('GLV-S')];
    expect(strips.suggestion.code).toMatch(/^V-/);
    expect(gloves.suggestion.code).not.toMatch(/^V-/);
    const put = async (goods: typeof strips, code: string) =>
      ruben.floor({
        kind: 'store',
        itemId: goods.itemId,
        lotId: goods.lotId,
        units: 1,
        fromPlaceId: goods.fromPlaceId,
        toPlaceId: await house.placeId(code),
        how: 'scanned',
      });
    expect((await put(strips, 'A-05-1')).body).toMatchObject({ code: 'refused', detail: expect.stringContaining('locked away') });
    expect((await put(gloves, 'V-05-1')).body).toMatchObject({ code: 'refused', detail: expect.stringContaining('Only restricted goods') });
    expect((await put(strips, 'V-05-1')).status).toBe(200);
  });

  it('gather bins under a name and a rule', async () => {
    await maren.post('zones', { siteId: 3, code: 'cool', name: 'Cool room', rule: 'cold' }).expect(201);
    await maren.post('zones', { siteId: 3, code: 'COOL', name: 'Again', rule: 'none' }).expect(400);
    await maren.post('zones', { siteId: 3, code: 'X-01-1', name: 'Bad', rule: 'none' }).expect(400);
    const { version } = await place('X-03-1');
    await maren.patch('places/X-03-1', { zone: 'COLD' }, { 'if-match': `"${version}"` }).expect(400);
    await maren.patch('places/X-03-1', { zone: 'cool', holdsMl: 50_000, holdsG: 20_000 }, { 'if-match': `"${version}"` }).expect(200);
    expect(await place('X-03-1')).toMatchObject({ zone: 'COOL', holdsMl: 50_000, fullPercent: 0 });
    expect((await maren.get('places?zone=COOL')).body).toMatchObject({ total: 1 });
  });

  it('are changed from the version that was seen', async () => {
    const zone = async () =>
      ((await maren.get('zones').expect(200)).body as { code: string; version: number; name: string }[]).find((z) => z.code === 'COOL')!;
    const { version } = await zone();
    const change = (name: string, seen: number, code = 'COOL') =>
      maren.put(`zones/${code}`, { name, rule: 'cold' }, { 'if-match': `"${seen}"` });
    await change('Cold room', version).expect(200);
    await change('Colder room', version).expect(412);
    expect(await zone()).toMatchObject({ name: 'Cold room', version: version + 1 });
    // A bin is no zone, and is not renamed by the way.
    await change('A bin', 1, 'X-01-1').expect(404);
  });
});
