import { DemoLoader } from '../src/demo/demo.loader.js';
import { demoItems } from '../src/demo/goods.js';
import { DEMO_PEOPLE } from '../src/demo/people.js';
import { promiseOf } from '../src/demo/orders.js';
import { demoPlaces } from '../src/demo/places.js';
import { seeded } from '@vectrum/core/random';
import { hasCheckDigit } from '@vectrum/core/barcode';
import { checkLedger } from '../src/stock/ledger-check.js';
import { type Caller, House } from './house.js';

interface OrderRow {
  code: string;
  state: string;
  holdReason: string | null;
  channel: string;
  stock: string[];
}
interface PurchaseRow {
  state: string;
  late: boolean;
  expectedOn: string | null;
}

describe('the demo business on opening', () => {
  let house: House;
  let maren: Caller;
  let orders: OrderRow[];
  let purchases: PurchaseRow[];

  beforeAll(async () => {
    house = await House.open({}, false);
    await house.app.get(DemoLoader).loadOnce();
    maren = await house.as('Maren');
    orders = (await maren.get('orders')).body.rows as OrderRow[];
    purchases = (await maren.get('purchase-orders')).body.rows as PurchaseRow[];
  });
  afterAll(() => house.close());

  it('has a clean ledger', async () => {
    expect(await checkLedger(house.source)).toEqual([]);
  });

  it('has about sixty open orders over all channels', () => {
    expect(orders.length).toBeGreaterThanOrEqual(55);
    expect(new Set(orders.map((o) => o.channel))).toEqual(new Set(['Web shop', 'Lindenmart', 'Trade file', 'Phone']));
  });

  it('has orders that are short, one held for its address and one for an unknown code', () => {
    expect(orders.some((o) => o.state === 'open' && o.stock.includes('none'))).toBe(true);
    expect(orders.filter((o) => o.holdReason?.startsWith('No postcode'))).toHaveLength(1);
    expect(orders.filter((o) => o.holdReason?.startsWith('Unknown code LM-99999'))).toHaveLength(1);
  });

  it('has arrivals today, two that are late, one part received and one draft', () => {
    expect(purchases.filter((p) => p.late)).toHaveLength(2);
    expect(purchases.filter((p) => p.state === 'part-received')).toHaveLength(1);
    expect(purchases.filter((p) => p.state === 'draft')).toHaveLength(1);
    const today = new Date().toISOString().slice(0, 10);
    expect(purchases.filter((p) => p.state === 'placed' && p.expectedOn === today).length).toBeGreaterThanOrEqual(2);
  });

  it('has suppliers whose history shows in their scorecards, and no mail about it', async () => {
    const cards = await Promise.all(
      ['TINDRA', 'PELLOWICK', 'BRINDLEMOOR'].map(async (code) => {
        const { scorecard } = (await maren.get(`suppliers/${code}`)).body as {
          scorecard: Record<'onTime' | 'inFull' | 'priceHeld' | 'unharmed', { good: number; of: number }> & { leadDays: number };
        };
        return scorecard;
      }),
    );
    expect(cards[0]).toMatchObject({ orders: 2, onTime: { good: 2, of: 3 }, unharmed: { good: 159, of: 162 }, leadDays: 20.5 });
    expect(cards[1]).toMatchObject({ priceHeld: { good: 2, of: 3 } });
    expect(cards[2]).toMatchObject({ inFull: { good: 2, of: 3 } });
    const placed = purchases.filter((p) => p.state !== 'draft').length;
    expect((await house.outbox('mail.purchase-order')).length).toBeLessThanOrEqual(placed);
    const returns = (await maren.get('supplier-returns')).body.rows as { state: string }[];
    expect(returns).toMatchObject([{ state: 'credited' }]);
  });

  it('has goods to put away, rounds under way with a short stop, totes to pack and parcels waiting', async () => {
    const { goods } = await maren.task<{ goods: unknown[] }>('store', 1);
    expect(goods.length).toBeGreaterThan(0);
    const rounds = (await maren.get('rounds')).body.rows as { state: string; shortStops: number }[];
    expect(rounds.filter((r) => r.state === 'picking').length).toBeGreaterThanOrEqual(2);
    expect(rounds.some((r) => r.shortStops > 0)).toBe(true);
    const queue = (await maren.get('bench/queue')).body.rows as { note: boolean }[];
    expect(queue.some((o) => o.note)).toBe(true);
    const lanes = (await maren.get('dispatch/lanes')).body as { parcels: unknown[] }[];
    expect(lanes.flatMap((l) => l.parcels).length).toBeGreaterThan(0);
  });

  it('counts at each site what the phone there has to put away', async () => {
    for (const site of [1, 2]) {
      const { stages } = (await maren.get(`line?site=${site}`)).body as { stages: { stage: string; count: number }[] };
      const { goods } = await maren.task<{ goods: object[] }>('store', String(site));
      expect([site, stages.find((s) => s.stage === 'shelves')?.count]).toEqual([site, goods.length]);
    }
  });

  it('shows it all on the Line and on Now', async () => {
    const line = (await maren.get('line')).body as { stages: { stage: string; count: number; hours: number | null }[] };
    expect(line.stages.map((s) => s.stage)).toEqual(['inbound', 'shelves', 'orders', 'picking', 'packing', 'dispatch']);
    expect(line.stages.every((s) => s.count > 0)).toBe(true);
    // Nothing has been handed over yet, so nobody knows how long that takes in this house.
    expect(line.stages.filter((s) => (s.hours ?? 0) > 0).map((s) => s.stage)).toEqual([
      'inbound',
      'shelves',
      'orders',
      'picking',
      'packing',
    ]);
    expect(line.stages.at(-1)?.hours).toBeNull();
    const now = (await maren.get('now')).body as {
      stuck: { who: string; action: string }[];
      expected: unknown[];
      promised: { promisedAt: string; state: string }[];
      departures: { name: string; at: string }[];
      lastLeavesAt: string;
    };
    expect(new Set(now.stuck.map((s) => s.who)).size).toBeGreaterThanOrEqual(3);
    expect(now.stuck.every((s) => s.action.length > 0)).toBe(true);
    // Whenever the demo is begun, vans are still to leave that its orders are promised for.
    expect(now.departures.length).toBeGreaterThan(0);
    for (const d of now.departures) {
      expect(['Harrier Post', 'Northway Freight', 'Pedal & Pannier']).toContain(d.name);
      expect(new Date(d.at).getTime()).toBeGreaterThan(Date.now());
    }
    expect(now.lastLeavesAt).toBe(now.departures.at(-1)?.at);
    // In the last minutes before a van its orders are promised for the next, so they are counted over all that is to come.
    const ahead = (await maren.get('orders')).body.rows as { promisedAt: string; leavesAt: string }[];
    expect(ahead.filter((o) => new Date(o.promisedAt).getTime() > Date.now()).length).toBeGreaterThanOrEqual(50);
    expect(ahead.every((o) => new Date(o.leavesAt).getTime() >= Date.now() - 60_000)).toBe(true);
  });

  it('says in its lists what documents hold, what they are worth and who has them in hand', async () => {
    const order = async (who: Caller) =>
      ((await who.get('purchase-orders')).body.rows as { code: string; holds: string; worth?: string; buyer: string }[]).find(
        (o) => o.code === 'P-1180',
      );
    expect(await order(maren)).toMatchObject({ holds: 'Jar 454 g, round, and 3 more', worth: '862.080000', buyer: 'Piet Sallow' });
    // Costs are not told to those who may not see them.
    expect(await order(await house.as('Ruben'))).not.toHaveProperty('worth');
    const listed = (await maren.get('orders')).body.rows as { state: string; holds: string; worth: string; who: string | null }[];
    expect(listed.every((o) => o.holds !== '' && Number(o.worth) > 0)).toBe(true);
    expect(listed.find((o) => o.state === 'picked')?.who).toBe('Ines Calder');
    expect(listed.find((o) => o.state === 'open')?.who).toBeNull();
  });

  it('tells its story on the tape, by its own people', async () => {
    const tape = ((await maren.get('tape?limit=100')).body as { entries: { who: string; kind: string }[] }).entries;
    expect(new Set(tape.map((e) => e.kind))).toEqual(expect.objectContaining({ size: expect.any(Number) as number }));
    for (const kind of ['pick', 'pack', 'set-down', 'release']) expect(tape.some((e) => e.kind === kind)).toBe(true);
    expect(tape.some((e) => e.who === 'Ines Calder')).toBe(true);
  });

  it('is not loaded twice', async () => {
    await house.app.get(DemoLoader).loadOnce();
    expect(((await maren.get('orders')).body.rows as unknown[]).length).toBe(orders.length);
  });

  it('lists the codes that lie around for the practice scanner, and only codes that mean something', async () => {
    const groups = (await maren.get('practice/codes?site=1')).body as { title: string; codes: { code: string; says: string }[] }[];
    expect(groups.map((g) => g.title)).toEqual([
      'Goods within reach',
      'Bins',
      'Dock, tables, walls, empty totes',
      'Papers',
      'Pallets',
      'Command cards',
    ]);
    const papers = groups.find((g) => g.title === 'Papers')!.codes;
    expect(papers.some((c) => /^P-\d+/.test(c.code))).toBe(true);
    const order = papers.find((c) => c.code.startsWith('P-'))!.code;
    const near = (await maren.get(`practice/codes?site=1&document=${order}`)).body as { codes: { code: string }[] }[];
    expect(near[0]!.codes.length).toBeGreaterThan(2);
  });
});

describe('the demo’s seeds', () => {
  it('give each pack a GTIN of its own with a right check digit', () => {
    const codes = demoItems().flatMap((i) => i.packs.flatMap((p) => p.barcode ?? []));
    expect(new Set(codes).size).toBe(codes.length);
    expect(codes.every((c) => hasCheckDigit(c))).toBe(true);
  });

  it('have items with and without barcodes, and some kept by lot and date', () => {
    const items = demoItems();
    expect(items.filter((i) => i.packs.every((p) => p.barcode === null)).map((i) => i.sku)).toEqual(['CND-MLD-BE', 'STR-ROLL']);
    expect(items.some((i) => i.tracking === 'lot-expiry')).toBe(true);
    expect(items.every((i) => i.packs[0]?.factor === 1 && i.weightG > 0)).toBe(true);
  });

  it('name each place once, with positions where people walk', () => {
    const places = demoPlaces();
    expect(new Set(places.map((p) => p.code)).size).toBe(places.length);
    expect(places.filter((p) => p.pickable).every((p) => p.x !== null && p.y !== null)).toBe(true);
    expect(places.filter((p) => p.site === 'MILL' && /^[A-H]-/.test(p.code))).toHaveLength(8 * 12 * 4);
  });

  it('have one account for each duty, badges apart', () => {
    expect(new Set(DEMO_PEOPLE.map((p) => p.badge)).size).toBe(DEMO_PEOPLE.length);
    expect(DEMO_PEOPLE.filter((p) => p.duties.includes('picker'))).toHaveLength(2);
  });

  it('are the same every time', () => {
    const [a, b] = [seeded(7), seeded(7)];
    const list = Array.from({ length: 50 }, () => a());
    expect(Array.from({ length: 50 }, () => b())).toEqual(list);
    expect(list.every((n) => n >= 0 && n < 1)).toBe(true);
  });
});

describe('what the demo’s orders are promised for', () => {
  const calendar = {
    timeZone: 'Europe/London',
    workingDays: 'YYYYYYY',
    departures: [
      { leavesAt: '15:30', closesMinutes: 90 },
      { leavesAt: '16:30', closesMinutes: 90 },
    ],
  };
  const promises = (now: string) => [0, 1, 24, 25].map((n) => promiseOf(n, calendar, new Date(now)).toISOString().slice(0, 16));

  it.each([
    ['in the morning', '2026-01-14T08:00:00Z', ['2026-01-14T15:30', '2026-01-14T16:30', '2026-01-15T15:30', '2026-01-15T16:30']],
    [
      'shortly before the last van',
      '2026-01-14T15:45:00Z',
      ['2026-01-14T16:30', '2026-01-15T15:30', '2026-01-15T16:30', '2026-01-16T15:30'],
    ],
    ['in the evening', '2026-01-14T22:00:00Z', ['2026-01-15T15:30', '2026-01-15T16:30', '2026-01-16T15:30', '2026-01-16T16:30']],
    ['after midnight', '2026-01-15T00:10:00Z', ['2026-01-15T15:30', '2026-01-15T16:30', '2026-01-16T15:30', '2026-01-16T16:30']],
  ])('is vans that can still be caught: %s', (_, now, expected) => {
    expect(promises(now)).toEqual(expected);
  });
});
