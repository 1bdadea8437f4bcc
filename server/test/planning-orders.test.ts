import { weekOfDate, weekText } from '@vectrum/core/replenish';
import { DemandReading, Planner } from '../src/planning/index.js';
import { siteDay } from '../src/platform/index.js';
import { type Caller, House } from './house.js';
import { takenIn } from './importing.js';

interface Line {
  sku: string;
  units: number;
  factor: number;
  price?: string;
  unitCost?: string;
  free: number;
  onOrder: number;
  point: number;
  weekMean: number;
  leadDays: number;
  broken: number;
  because: string;
  isDue: boolean;
  runsOutOn: string | null;
  yesterday: number | null;
  elsewhere: { site: string; units: number } | null;
}
interface Buying {
  asOf: number;
  today: string;
  knowsYesterday: boolean;
  suppliers: { code: string; isEnough: boolean; orderOn: string; hereOn: string; lines: Line[] }[];
  built: Line[];
  unsourced: Line[];
  exceptions: { sku: string; what: string; says: string }[];
}

let house: House;
let maren: Caller;
let now: number;

beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
  now = weekOfDate((await siteDay(house.source, 1)).today);
});
afterAll(() => house.close());
/** Each test has goods of its own, and nothing is planned when it begins. */
beforeEach(async () => {
  for (const table of ['demand_week', 'demand_read', 'item_plan', 'buying_rule', 'buying_choice', 'buying_day'])
    await sql(`DELETE FROM ${table}`);
  await sql('UPDATE supplier SET least_value = NULL, least_units = NULL, least_pallets = NULL');
});

const planned = async (sites: readonly number[] = [1, 2]) => {
  const planner = house.app.get(Planner);
  await planner.look(sites, true);
  await planner.runDue();
};
const buying = async (site = 1) => (await maren.get(`buying/sites/${site}`).expect(200)).body as Buying;
const lines = (b: Buying) => b.suppliers.flatMap((s) => s.lines);
const lineOf = (b: Buying, sku: string) => lines(b).find((l) => l.sku === sku);
const sql = <T>(text: string, params: unknown[] = []) => house.source.query<T[]>(text, params);
const fixed = <T>(list: readonly T[]): T => list[0]!;

/** So many units a week for so many weeks, up to the last one. */
const past = async (goods: readonly [sku: string, units: number, weeks?: number][], site: 'MILL' | 'QUAY' = 'MILL') => {
  const rows = goods.flatMap(([sku, units, weeks = 60]) =>
    Array.from({ length: weeks }, (_, i) => `${sku},${site},${weekText(now - weeks + i)},${units + (i % 3)}`),
  );
  await takenIn(house, maren, `past-${site}.csv`, `SKU,Site,Week,Units asked for\n${rows.join('\n')}\n`);
};
const taken = new Set<number>();
/** Two items of one supplier that no test has had yet, and that supplier. */
const pair = async () => {
  const found = await sql<{ supplier: string; supplierId: number; sku: string; itemId: number }>(
    `SELECT s.code AS supplier, s.id AS supplierId, i.sku, i.id AS itemId FROM supplier_item p JOIN supplier s ON s.id = p.supplier_id JOIN item i ON i.id = p.item_id AND i.kind = 'single' AND i.tracking = 'none'
     WHERE (SELECT COUNT(*) FROM supplier_item q WHERE q.item_id = i.id) = 1 ORDER BY s.id, i.id`,
  );
  const fresh = found.filter((f) => !taken.has(f.itemId));
  const [one, other] = fresh.filter((f, _, all) => all.filter((g) => g.supplierId === f.supplierId).length > 1);
  for (const f of [one!, other!]) taken.add(f.itemId);
  return { one: one!, other: other! };
};

describe('an order to a supplier', () => {
  it('takes along what is wanted soonest to reach the least order, and says so; what it cannot reach is told', async () => {
    const { one, other } = await pair();
    await past([
      [one.sku, 60],
      [other.sku, 40],
    ]);
    await planned();
    const alone = await buying();
    // The other has plenty, so that the first alone is due.
    await house.stock(other.sku, 'A-01-1', lineOf(alone, other.sku)!.units + 60);
    const before = await buying();
    expect(lineOf(before, other.sku)).toBeUndefined();
    const worth = lineOf(before, one.sku)!;
    const value = (worth.units / worth.factor) * Number(worth.price);
    await sql('UPDATE supplier SET least_value = ? WHERE id = ?', [(value + 5).toFixed(2), one.supplierId]);
    const filled = (await buying()).suppliers[0]!;
    expect(filled.isEnough).toBe(true);
    expect(filled.lines.some((l) => l.because.includes('to reach the least order'))).toBe(true);
    await sql('UPDATE supplier SET least_value = 99999999 WHERE id = ?', [one.supplierId]);
    const short = (await buying()).suppliers[0]!;
    expect(short.isEnough).toBe(false);
    expect(short.lines.map((l) => l.units)).toEqual([worth.units]);
  });

  it('goes out on a day on which the supplier takes orders, and lasts from one such day to the next', async () => {
    const { one } = await pair();
    await past([[one.sku, 60]]);
    await planned();
    const anyDay = await buying();
    const weekday = (new Date(`${anyDay.today}T00:00:00Z`).getUTCDay() + 6) % 7;
    // Yesterday of every week alone: the next chance is six days from now, and another a week later.
    const { body } = await maren.get(`suppliers/${one.supplier}`).expect(200);
    const { version, items: _items, scorecard: _card, sendsDocuments: _sends, id: _id, ...sheet } = body as Record<string, unknown>;
    const orderDays = Array.from({ length: 7 }, (_, d) => (d === (weekday + 6) % 7 ? 'Y' : 'N')).join('');
    const put = (days: string) =>
      maren.put(`suppliers/${one.supplier}`, { ...sheet, orderDays: days }, { 'if-match': `"${String(version)}"` });
    await put('NNNNNNN').expect(400);
    await put(orderDays).expect(200);
    const next = (await buying()).suppliers.find((s) => s.code === one.supplier)!;
    expect(next.orderOn).toBe(new Date(Date.parse(anyDay.today) + 6 * 86_400_000).toISOString().slice(0, 10));
    expect(next.hereOn > anyDay.suppliers.find((s) => s.code === one.supplier)!.hereOn).toBe(true);
    expect(anyDay.suppliers.find((s) => s.code === one.supplier)!.orderOn).toBe(anyDay.today);
    const review = async () =>
      (await sql<{ review_days: number }>('SELECT review_days FROM item_plan WHERE item_id = ? AND site_id = 1', [one.itemId]))[0]!
        .review_days;
    expect(await review()).toBe(7);
    await sql("UPDATE supplier SET order_days = 'NYNYNNN' WHERE id = ?", [one.supplierId]);
    await planned();
    expect(await review()).toBe(5);
    await sql("UPDATE supplier SET order_days = 'YYYYYYY' WHERE id = ?", [one.supplierId]);
  });

  it('is larger where a lower price is worth it, and has that price', async () => {
    const { one } = await pair();
    await past([[one.sku, 60]]);
    await planned();
    const plain = lineOf(await buying(), one.sku)!;
    const packs = plain.units / plain.factor;
    await sql('INSERT INTO supplier_price_break (supplier_id, item_id, from_packs, price) VALUES (?, ?, ?, ?)', [
      one.supplierId,
      one.itemId,
      packs + 1,
      (Number(plain.price) / 2).toFixed(2),
    ]);
    const more = lineOf(await buying(), one.sku)!;
    expect(more.units / more.factor).toBe(packs + 1);
    expect(more.because).toMatch(/the lower price is worth it/);
    const { asOf } = await buying();
    const body = { siteId: 1, asOf, lines: [{ sku: one.sku, supplier: one.supplier, packs: packs + 1 }] };
    const { orders } = (await maren.post('buying/take', body).expect(201)).body as { orders: string[] };
    const order = (await maren.get(`purchase-orders/${orders[0]}`).expect(200)).body as { lines: { price: string }[] };
    expect(Number(order.lines[0]!.price)).toBeCloseTo(Number(plain.price) / 2, 2);
  });

  it('never has more of what expires than is sold before its date', async () => {
    const [mite] = await sql<{ sku: string; id: number; supplierId: number }>(
      "SELECT i.sku, i.id, p.supplier_id AS supplierId FROM item i JOIN supplier_item p ON p.item_id = i.id WHERE i.tracking = 'lot-expiry' ORDER BY i.id LIMIT 1",
    );
    await past([[mite!.sku, 30]]);
    await planned();
    const free = lineOf(await buying(), mite!.sku)!;
    // Lots of it last for two weeks from the day that they come in.
    await sql('INSERT INTO lot (item_id, code, expires_on, first_received_on) VALUES (?, ?, ?, ?)', [
      mite!.id,
      'SHORT',
      '2026-05-15',
      '2026-05-01',
    ]);
    const short = lineOf(await buying(), mite!.sku)!;
    expect(short.units).toBeLessThan(free.units);
    expect(short.units % short.factor).toBe(0);
    expect(short.because).toMatch(/pass its date/);
  });

  it('goes by the point that somebody has set, where that is said, and says what the plan would have', async () => {
    const { one } = await pair();
    await past([[one.sku, 60]]);
    await planned();
    const own = lineOf(await buying(), one.sku)!;
    await sql(
      'INSERT INTO item_site (item_id, site_id, reorder_point, order_up_to) VALUES (?, 1, 5, 6) ON DUPLICATE KEY UPDATE reorder_point = 5, order_up_to = 6',
      [one.itemId],
    );
    expect(lineOf(await buying(), one.sku)!.units).toBe(own.units);
    await maren.post('buying/rules', { sku: one.sku, siteId: 1, isFixed: true, isDropped: false }).expect(201);
    await house.app.get(Planner).runDue();
    const set = lineOf(await buying(), one.sku)!;
    expect(set.units).toBe(Math.ceil(6 / set.factor) * set.factor);
    const plan = (await maren.get(`buying/sites/1/items/${one.sku}`).expect(200)).body as {
      point: number;
      fixedPoint: number;
      isFixed: boolean;
    };
    expect(plan).toMatchObject({ point: own.point, fixedPoint: 5, isFixed: true });
  });
});

describe('what is there and what is coming', () => {
  it('counts: what is owed to orders, on drafts, on placed orders, late ones and on the road', async () => {
    const { one } = await pair();
    await past([[one.sku, 20]]);
    await planned();
    const before = lineOf(await buying(), one.sku)!;
    await house.order([[one.sku, 7]]);
    expect(lineOf(await buying(), one.sku)!).toMatchObject({ free: before.free - 7, broken: 7 });
    const draft = {
      supplier: one.supplier,
      siteId: 1,
      note: '',
      expectedOn: '2026-01-05',
      lines: [{ sku: one.sku, factor: before.factor, packs: 1, price: '1.00' }],
    };
    const { code } = (await maren.post('purchase-orders', draft).expect(201)).body as { code: string };
    expect(lineOf(await buying(), one.sku)!.onOrder).toBe(before.factor);
    await maren.post(`purchase-orders/${code}/place`, {}, { 'if-match': '"1"' }).expect(200);
    const late = await buying();
    expect(lineOf(late, one.sku)!.onOrder).toBe(before.factor);
    expect(late.exceptions).toMatchObject([{ sku: one.sku, what: 'late' }]);
  });

  it('at another site beyond what it keeps itself is said beside the line', async () => {
    const { one } = await pair();
    await past([[one.sku, 60]]);
    await planned();
    expect(lineOf(await buying(), one.sku)!.elsewhere).toBeNull();
    const bin = fixed(await sql<{ code: string }>("SELECT code FROM place WHERE site_id = 2 AND kind = 'pick-face' ORDER BY id LIMIT 1"));
    await house.stock(one.sku, bin.code, 400);
    expect(lineOf(await buying(), one.sku)!.elsewhere).toMatchObject({ units: 400 });
    await past([[one.sku, 30]], 'QUAY');
    await planned();
    const kept = lineOf(await buying(), one.sku)!.elsewhere;
    expect(kept === null || kept.units < 400).toBe(true);
  });

  it('new since yesterday is told apart', async () => {
    const { one, other } = await pair();
    await past([[one.sku, 60]]);
    await planned();
    const was = lineOf(await buying(), one.sku)!.units;
    expect((await buying()).knowsYesterday).toBe(false);
    // A day goes by: the planner keeps what stood there in the evening.
    await sql('UPDATE demand_read SET read_on = read_on - INTERVAL 1 DAY');
    await house.app.get(Planner).look([1]);
    await past([[other.sku, 50]]);
    await planned();
    const today = await buying();
    expect(today.knowsYesterday).toBe(true);
    expect(lineOf(today, one.sku)!.yesterday).toBe(was);
    expect(lineOf(today, other.sku)!.yesterday).toBeNull();
  });
});

describe('parts of what is built here', () => {
  it('are asked for as their assembly is, and what lies in free ones is not bought again', async () => {
    const { one, other } = await pair();
    const [whole] = await sql<{ id: number; sku: string }>("SELECT id, sku FROM item WHERE kind = 'assembly' ORDER BY id LIMIT 1");
    await sql('DELETE FROM item_part WHERE item_id = ?', [whole!.id]);
    await sql('INSERT INTO item_part (item_id, part_item_id, units) VALUES (?, ?, 3), (?, ?, 1)', [
      whole!.id,
      one.itemId,
      whole!.id,
      other.itemId,
    ]);
    await past([
      [whole!.sku, 20],
      [one.sku, 10],
    ]);
    // The part that nobody buys by itself has a plan once it is looked at: it is asked for with the assembly.
    await sql('INSERT IGNORE INTO item_plan (site_id, item_id, due_at) VALUES (1, ?, UTC_TIMESTAMP())', [other.itemId]);
    await planned();
    const b = await buying();
    expect(b.built).toMatchObject([{ sku: whole!.sku, isDue: true }]);
    expect(lineOf(b, one.sku)!.weekMean).toBeGreaterThan(65);
    expect(lineOf(b, other.sku)!.weekMean).toBeGreaterThan(18);
    const part = lineOf(b, one.sku)!;
    await house.stock(whole!.sku, 'A-01-1', 40);
    const after = lineOf(await buying(), one.sku);
    expect((after?.onOrder ?? 0) - part.onOrder).toBe(120);
  });
});

describe('a supplier’s lead time', () => {
  it('is its own word until three orders have come, then what they took', async () => {
    const { one } = await pair();
    await past([[one.sku, 40]]);
    await sql('UPDATE supplier SET lead_days = 11 WHERE id = ?', [one.supplierId]);
    await planned();
    const plan = async () =>
      (await maren.get(`buying/sites/1/items/${one.sku}`).expect(200)).body as {
        leadDays: number;
        suppliers: { leadDays: number; orders: number }[];
      };
    expect(await plan()).toMatchObject({ leadDays: 11, suppliers: [{ leadDays: 11, orders: 0 }] });
    for (const took of [20, 22, 24])
      await sql(
        "INSERT INTO purchase_order (code, supplier_id, site_id, state, created_by, placed_at, first_received_at) VALUES (?, ?, 1, 'closed', ?, UTC_TIMESTAMP() - INTERVAL 60 DAY, UTC_TIMESTAMP() - INTERVAL ? DAY)",
        [`P-90${took}`, one.supplierId, maren.personId, 60 - took],
      );
    await planned();
    const measured = await plan();
    expect(measured.leadDays).toBeCloseTo(22, 0);
    expect(measured.suppliers[0]).toMatchObject({ orders: 3 });
  });
});

describe('a proposal that was taken', () => {
  it('is held against what was asked for until the next could come, once that is over', async () => {
    const { one } = await pair();
    // Weeks of 70, 71 and 72 in turn: ten a day, and a little more.
    await past([[one.sku, 70]]);
    const choose = (daysAgo: number, expected: number) =>
      sql(
        "INSERT INTO buying_choice (site_id, item_id, chosen_on, says, proposed_units, taken_units, expected_units, horizon_days, person_id) VALUES (1, ?, CURDATE() - INTERVAL ? DAY, 'taken', 100, 120, ?, 14, ?)",
        [one.itemId, daysAgo, expected, maren.personId],
      );
    await choose(60, 141);
    await choose(40, 400);
    await choose(5, 141);
    await planned();
    const { truth } = (await maren.get('buying/sites/1/back-test').expect(200)).body as {
      truth: {
        proposals: number;
        right: number;
        expected: number;
        asked: number;
        asProposed: number;
        farthest: { expected: number; asked: number }[];
      };
    };
    expect(truth).toMatchObject({ proposals: 2, right: 1, expected: 541, asProposed: 0 });
    expect(truth.asked).toBeGreaterThanOrEqual(280);
    expect(truth.asked).toBeLessThanOrEqual(288);
    expect(truth.farthest[0]!.expected).toBe(400);
    const { truths } = (await maren.get(`buying/sites/1/items/${one.sku}`).expect(200)).body as { truths: { asked: number | null }[] };
    // What is not over is not judged.
    expect(truths.map((t) => t.asked === null)).toEqual([true, false, false]);
  });
});

describe('planning', () => {
  it('done by two servers at once does each item once, and what was left off is done again', async () => {
    const goods = await sql<{ sku: string }>("SELECT sku FROM item WHERE kind = 'single' ORDER BY id LIMIT 12");
    await past(goods.map((g, i) => [g.sku, 5 + i, 12] as [string, number, number]));
    const second = await house.another();
    try {
      const two = [house.app.get(Planner), second.get(Planner)];
      await two[0]!.look([1, 2], true);
      await Promise.all(two.map((p) => p.runDue()));
      const state = () =>
        sql<{ due: string; missing: string }>('SELECT SUM(due_at IS NOT NULL) AS due, SUM(weeks IS NULL) AS missing FROM item_plan');
      expect(fixed(await state())).toMatchObject({ due: '0', missing: '0' });
      // A server that ended in the middle has left its lease: when that is over the items are due again.
      await sql('UPDATE item_plan SET due_at = UTC_TIMESTAMP(3) - INTERVAL 1 SECOND, weeks = NULL, made_from = NULL WHERE id % 2 = 0');
      await two[1]!.runDue();
      expect(fixed(await state())).toMatchObject({ due: '0', missing: '0' });
    } finally {
      await second.close();
    }
  });

  it('counts an order in the week that it is at the site, also at the turn of a week and of the clocks', async () => {
    const { one } = await pair();
    await sql("UPDATE site SET time_zone = 'Pacific/Auckland' WHERE id = 1");
    const at = async (instant: string) => {
      const code = await house.order([[one.sku, 1]]);
      await sql('UPDATE sales_order SET placed_at = ? WHERE code = ?', [instant, code]);
    };
    // In Auckland it is Monday from noon of Sunday on (summer time from the 27th of September 2026), an hour later before that.
    await at('2026-09-20 11:30:00');
    await at('2026-09-20 12:30:00');
    await at('2026-10-04 10:59:00');
    await at('2026-10-04 11:01:00');
    await house.app.get(DemandReading).read(1, true);
    const weeks = await sql<{ week: number; units: number }>(
      'SELECT d.week, d.ordered_units AS units FROM demand_week d WHERE d.item_id = ? AND d.site_id = 1 AND d.ordered_units > 0 ORDER BY d.week',
      [one.itemId],
    );
    expect(weeks.map((w) => [weekText(w.week), w.units])).toEqual([
      ['2026-W38', 1],
      ['2026-W39', 1],
      ['2026-W40', 1],
      ['2026-W41', 1],
    ]);
  });
});
