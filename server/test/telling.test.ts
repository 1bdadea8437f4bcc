import { type Caller, House } from './house.js';
import { OutsideWorld } from './outside-world.js';

describe('what channels are told of stock', () => {
  let house: House;
  let world: OutsideWorld;
  let maren: Caller;

  beforeAll(async () => {
    world = await OutsideWorld.open();
    house = await House.open({ VECTRUM_OUTSIDE_URL: world.url });
    maren = await house.as('Maren');
  });
  beforeEach(() => world.heard.splice(0));
  afterAll(async () => {
    await house.close();
    await world.close();
  });

  const told = async (sku: string) => {
    await house.deliver();
    return world.at(`/shop/stock/${sku}`).map((h) => (JSON.parse(h.body) as { units: number }).units);
  };

  it('is what is available, less what is kept back', async () => {
    await house.stock('TOOL-JH', 'A-01-1', 10);
    expect(await told('TOOL-JH')).toEqual([8]);
  });

  it('is nothing rather than less than nothing', async () => {
    await house.stock('TOOL-STD', 'A-01-2', 1);
    // One is here, and two are kept back: it stays at the nought that was told before.
    expect(await told('TOOL-STD')).toEqual([]);
    const { items } = (await maren.get('channels/SHOP')).body as { items: { sku: string; told: number | null }[] };
    expect(items.find((i) => i.sku === 'TOOL-STD')!.told).toBe(0);
  });

  it('is told again only when it changes', async () => {
    const order = await house.order([['TOOL-JH', 3]]);
    expect(await told('TOOL-JH')).toEqual([5]);
    const round = await house.release(order);
    await house.pickAll(round, 'T-01');
    expect(await told('TOOL-JH')).toEqual([5]);
  });

  it('counts whole listing units, rounded down', async () => {
    await house.source.query(
      `UPDATE listing l JOIN channel c ON c.id = l.channel_id SET l.factor = 6, l.keep_back = 0 WHERE c.code = 'SHOP' AND l.channel_sku = 'MRK-PEN'`,
    );
    await house.stock('MRK-PEN', 'A-02-1', 20);
    expect(await told('MRK-PEN')).toEqual([3]);
  });

  it('is fewer where units are doubted: the order that wanted them is promised others', async () => {
    await house.stock('UNC-FORK', 'A-03-1', 2);
    await house.stock('UNC-FORK', 'A-04-1', 7);
    const round = await house.release(await house.order([['UNC-FORK', 2]]));
    const ines = await house.as('Ines');
    const [stop] = (await ines.task<{ stops: { id: number }[] }>('pick', round)).stops;
    await told('UNC-FORK');
    world.heard.splice(0);
    await ines.floor({ kind: 'short', round: round, stopId: stop!.id, units: 2, there: 0 }).expect(200);
    // Nine, of which two are doubted and two promised, and two kept back.
    expect(await told('UNC-FORK')).toEqual([3]);
    expect(await house.figures('UNC-FORK')).toEqual({ onHand: 9, held: 2, reserved: 2 });
  });

  it('reaches the shop once for many changes, in order, with a sequence that grows', async () => {
    for (let i = 0; i < 5; i++) await house.stock('BRSH-BEE', 'A-04-1', 10);
    await house.deliver();
    await house.stock('BRSH-BEE', 'A-04-1', 10);
    await house.deliver();
    const bodies = world.at('/shop/stock/BRSH-BEE').map((h) => JSON.parse(h.body) as { units: number; sequence: number });
    expect(bodies.map((b) => b.units)).toEqual([48, 58]);
    expect(bodies.map((b) => b.sequence)).toEqual([...bodies.map((b) => b.sequence)].sort((a, b) => a - b));
  });

  it('shows in the channel’s sheet', async () => {
    const { items } = (await maren.get('channels/SHOP')).body as { items: { sku: string; told: number | null }[] };
    expect(items.find((i) => i.sku === 'BRSH-BEE')!.told).toBe(58);
    // Of what was never here it is told so.
    expect(items.find((i) => i.sku === 'SUIT-S')!.told).toBe(0);
  });

  it('waits while the shop is down, and comes when it is back', async () => {
    world.answers['PUT /shop/stock/VEIL-RND'] = () => ({ status: 500, body: {} });
    await house.stock('VEIL-RND', 'A-05-1', 10);
    await house.deliver();
    const now = (await maren.get('now')).body as { stuck: { link: string; detail: string }[] };
    expect(now.stuck.find((s) => s.link === '/setup/channels/SHOP')!.detail).toBe('Web shop answered 500');
    world.answers = {};
    world.heard.splice(0);
    await maren.post('channels/SHOP/try').expect(200);
    expect(await told('VEIL-RND')).toEqual([8]);
  });
});
