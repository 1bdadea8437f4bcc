import { type Caller, House, closing, pickOf, type TakenStop } from './house.js';

interface Entry {
  id: number;
  title: string;
  who: string;
  undoable: boolean;
  document: string | null;
}

describe('finding', () => {
  let house: House;
  let maren: Caller;
  let order: string;

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    await house.stock('SMK-LGE', 'A-01-1', 5);
    order = await house.order([['SMK-LGE', 1]], { customer: 'Łukasz & Daughters' });
  });
  afterAll(() => house.close());

  const find = async (q: string, who = maren) =>
    (await who.get(`find?q=${encodeURIComponent(q)}`).expect(200)).body as {
      opens: string | null;
      found: { kind: string; code: string; link: string }[];
    };

  it('lists words in items, orders, suppliers and bins', async () => {
    expect((await find('smoker, ')).found.map((f) => f.code)).toEqual(['SMK-LGE', 'SMK-SML']);
    expect((await find('łukasz')).found[0]).toMatchObject({ kind: 'Order', code: order });
    expect((await find('A-01')).found.some((f) => f.kind === 'Bin')).toBe(true);
  });

  it('opens what a code names, in whatever case it was typed', async () => {
    expect((await find(order.toLowerCase())).opens).toBe(`/orders/${order}`);
    expect((await find('a-01-1')).opens).toBe('/shelves/places/A-01-1');
    expect((await find('smk-lge')).opens).toBe('/shelves/items/SMK-LGE');
  });

  it('finds nothing in nothing, and takes wildcards as they are written', async () => {
    expect(await find('')).toEqual({ opens: null, found: [] });
    expect((await find('%%')).found).toEqual([]);
    expect((await find('S_K')).found).toEqual([]);
  });

  it('does not show orders of sites that are not one’s own', async () => {
    await house.source.query('UPDATE sales_order SET site_id = 2 WHERE code = ?', [order]);
    const ines = await house.as('Ines');
    expect((await find('łukasz', ines)).found).toEqual([]);
    await ines.get(`orders/${order}`).expect(404);
    await house.source.query('UPDATE sales_order SET site_id = 1 WHERE code = ?', [order]);
  });
});

describe('the tape', () => {
  let house: House;
  let maren: Caller;
  let ines: Caller;
  let order: string;
  let round: string;

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    ines = await house.as('Ines');
    await house.stock('SMK-LGE', 'A-01-1', 5);
    order = await house.order([['SMK-LGE', 2]]);
    round = await house.release(order);
    await house.pickAll(round);
  });
  afterAll(() => house.close());

  const tape = async (who: Caller, query = '') =>
    (await who.get(`tape${query}`).expect(200)).body as { entries: Entry[]; scansToday: number };

  it('is newest first and says who did what', async () => {
    const { entries, scansToday } = await tape(maren);
    expect(entries.map((e) => e.id)).toEqual([...entries.map((e) => e.id)].sort((a, b) => b - a));
    expect(entries[0]).toMatchObject({ title: `${order} picked, set down at TABLE-1`, who: 'Ines Calder', document: order });
    expect(scansToday).toBe(1);
  });

  it('can be read for one document, and for one’s own acts', async () => {
    expect((await tape(maren, `?document=${order}`)).entries.every((e) => e.document === order)).toBe(true);
    expect((await tape(ines, '?mine=1')).entries.every((e) => e.who === 'Ines Calder')).toBe(true);
    expect((await tape(maren, '?limit=2')).entries).toHaveLength(2);
    expect((await tape(maren, '?limit=99999')).entries.length).toBeLessThanOrEqual(100);
  });

  it('lets only those undo who may do the act, and only what can be undone', async () => {
    const { entries } = await tape(maren);
    const pick = entries.find((e) => e.title === '2 smokers: Smoker, large')!;
    const orla = await house.as('Orla');
    expect((await orla.post(`tape/${pick.id}/undo`).expect(403)).body).toMatchObject({ code: 'not-allowed' });
    const came = entries.find((e) => e.title.includes('came in'))!;
    expect((await maren.post(`tape/${came.id}/undo`).expect(409)).body).toMatchObject({
      code: 'undo',
      detail: 'This cannot be undone here',
    });
    await maren.post('tape/999999/undo').expect(404);
  });

  it('undoes once when two people press at the same moment', async () => {
    const next = await house.release(await house.order([['SMK-LGE', 1]]));
    const [stop] = (await ines.task<{ stops: TakenStop[] }>('pick', next)).stops;
    const posted = await ines.floor(pickOf(next, stop!, 1, await house.placeId('T-02'), 'typed'));
    const { activityId } = posted.body as { activityId: number };
    const answers = await Promise.all([maren.post(`tape/${activityId}/undo`), ines.post(`tape/${activityId}/undo`)]);
    expect(answers.map((a) => a.status).sort()).toEqual([201, 409]);
    expect(await house.balance('SMK-LGE', 'T-02')).toBe(0);
  });
});

describe('the Line and Now', () => {
  let house: House;
  let maren: Caller;
  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
  });
  afterAll(() => house.close());

  interface Stage {
    stage: string;
    count: number;
    stuck: number;
    hours: number;
  }
  const stages = async () => Object.fromEntries(((await maren.get('line')).body as { stages: Stage[] }).stages.map((s) => [s.stage, s]));

  it('follow an order through the house', async () => {
    await house.stock('SMK-LGE', 'A-01-1', 5);
    // Nobody has released an order in this house yet, so nobody knows how long that takes.
    expect((await stages())['orders']).toMatchObject({ count: 0, hours: null });
    const order = await house.order([['SMK-LGE', 2]]);
    expect((await stages())['orders']).toMatchObject({ count: 1 });
    const round = await house.release(order);
    expect(await stages()).toMatchObject({ orders: { count: 0 }, picking: { count: 1 } });
    await house.pickAll(round);
    expect(await stages()).toMatchObject({ picking: { count: 0 }, packing: { count: 1 } });
    const packer = await house.packAll(order);
    await packer.floor(closing(order, { carton: 'B3', weightG: 2100 })).expect(200);
    expect(await stages()).toMatchObject({ packing: { count: 0 }, dispatch: { count: 1 } });
  });

  it('count goods on the dock, and what is stuck', async () => {
    await house.stock('SMK-SML', 'DOCK-1', 5);
    await house.order([['SMK-SML', 1]], { address: { line: '', city: '', postcode: '', country: 'GB' } });
    expect(await stages()).toMatchObject({ shelves: { count: 1 }, orders: { count: 1, stuck: 1 } });
    const now = (await maren.get('now')).body as { stuck: { detail: string; who: string }[] };
    expect(now.stuck[0]).toMatchObject({ who: 'Order desk', detail: 'No postcode or street. Ask the customer' });
  });

  it('say which promises of today are safe', async () => {
    const noon = new Date();
    noon.setUTCHours(23, 59, 0, 0);
    const promisedAt = noon.toISOString();
    const safe = await house.order([['SMK-SML', 1]], { promisedAt });
    const short = await house.order([['SUIT-XL', 1]], { promisedAt });
    const { promised } = (await maren.get('now')).body as { promised: { code: string; safe: boolean }[] };
    expect(promised.find((p) => p.code === safe)!.safe).toBe(true);
    expect(promised.find((p) => p.code === short)!.safe).toBe(false);
  });

  it('list orders with one word for each line', async () => {
    await house.stock('TOOL-JH', 'B-01-1', 1);
    const code = await house.order([
      ['TOOL-JH', 3],
      ['SMK-SML', 1],
      ['SUIT-XL', 1],
    ]);
    const rows = (await maren.get('orders')).body.rows as { code: string; stock: string[] }[];
    expect(rows.find((r) => r.code === code)!.stock).toEqual(['part', 'ready', 'none']);
    expect((await maren.get('orders?show=gone')).body.rows).toEqual([]);
  });
});
