import { weekOfDate, weekText } from '@vectrum/core/replenish';
import { Planner } from '../src/planning/index.js';
import { one, siteDay } from '../src/platform/index.js';
import { type Caller, House } from './house.js';
import { checked, settled, takenIn } from './importing.js';

interface Line {
  sku: string;
  units: number;
  factor: number;
  price?: string;
  onOrder: number;
  free: number;
  weekMean: number;
  runsOutOn: string | null;
  isDue: boolean;
  because: string;
}
interface Buying {
  asOf: number;
  items: number;
  planning: number;
  suppliers: { code: string; lines: Line[]; leastValue?: string | null; isEnough: boolean }[];
  built: Line[];
  putOff: { sku: string; until: string }[];
}

const SKU = 'JAR-454-RD';
let house: House;
let maren: Caller;
let piet: Caller;
let today: string;
let now: number;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
  piet = await house.as('Piet');
  today = (await siteDay(house.source, 1)).today;
  now = weekOfDate(today);
});
afterAll(() => house.close());

const planned = async () => {
  const planner = house.app.get(Planner);
  await planner.look([1], true);
  await planner.runDue();
};
const buying = async (who = maren) => (await who.get('buying/sites/1').expect(200)).body as Buying;
const lineOf = (b: Buying, sku = SKU) => b.suppliers.flatMap((s) => s.lines).find((l) => l.sku === sku);
const plan = async (query = '') => (await maren.get(`buying/sites/1/items/${SKU}${query}`).expect(200)).body as Record<string, never>;
const past = (weeks: number, units: number, sku = SKU) =>
  `SKU,Site,Week,Units asked for\n${Array.from({ length: weeks }, (_, i) => `${sku},MILL,${weekText(now - weeks + i)},${units + (i % 5) * 8}`).join('\n')}\n`;

describe('a house that sold before it began here', () => {
  it('has nothing planned until somebody has asked for something', async () => {
    await planned();
    expect(await buying()).toMatchObject({ items: 0, suppliers: [] });
    await maren.get(`buying/sites/1/items/${SKU}`).expect(404);
  });

  it('takes in past demand, and is told what to buy, in whole packs, at once', async () => {
    await takenIn(house, maren, 'past.csv', past(60, 200));
    await planned();
    const b = await buying();
    expect(b).toMatchObject({ items: 1, planning: 0 });
    const line = lineOf(b)!;
    expect(line.weekMean).toBeGreaterThan(190);
    expect(line.units % line.factor).toBe(0);
    expect(line.units).toBeGreaterThan(200);
    expect(line).toMatchObject({ isDue: true, free: 0 });
    expect(line.runsOutOn).not.toBeNull();
  });

  it('is planned once more where a rule was kept while it was planned', async () => {
    const planner = house.app.get(Planner);
    const { work } = planner as unknown as { work: { run: (...asked: unknown[]) => Promise<unknown> } };
    const run = work.run.bind(work);
    let ran = 0;
    work.run = async (...asked) => {
      const plans = await run(...asked);
      ran += 1;
      if (ran === 1) await maren.post('buying/rules', { sku: SKU, servicePercent: '99', isFixed: false, isDropped: false }).expect(201);
      return plans;
    };
    await house.source.query('UPDATE item_plan SET due_at = UTC_TIMESTAMP(3), made_from = NULL');
    await planner.runDue();
    work.run = run;
    expect(ran).toBe(2);
    expect(await house.source.query('SELECT service, due_at FROM item_plan')).toEqual([{ service: 0.99, due_at: null }]);
    await house.source.query('DELETE FROM buying_rule');
    await planned();
  });

  it('knows every figure of it down to the weeks, and what if', async () => {
    const p = (await plan('?late=7&demand=130&order=20000')) as unknown as {
      history: { week: string; units: number }[];
      point: number;
      safety: number;
      position: number;
      usual: { days: { stock: number }[]; runsOutOn: string | null };
      whatIf: { days: { stock: number }[] };
    };
    expect(p.history.find((h) => h.week === weekText(now - 1))!.units).toBeGreaterThanOrEqual(200);
    expect(p.point).toBeGreaterThan(p.safety);
    expect(p.usual.days[0]!.stock).toBe(0);
    expect(p.whatIf.days.at(-1)!.stock).toBeGreaterThan(0);
  });

  it('needs no site where the house has one, and asks for it where there are more', async () => {
    const run = await checked(house, maren, 'nowhere.csv', `SKU,Week,Units asked for\n${SKU},2026-W05,4\n`);
    expect(run.faults.map((f) => f.reason)).toEqual(['Say at which site it was asked for']);
  });

  it('refuses a file with weeks that are none, with the reason', async () => {
    const run = await checked(house, maren, 'bad.csv', `SKU,Site,Week,Units asked for\n${SKU},MILL,2026-W60,4\nNO-SUCH,MILL,2026-W05,4\n`);
    expect(run.faulty).toBe(2);
    expect(run.faults.map((f) => f.reason).join('; ')).toMatch(/A week such as.*There is no item/);
  });
});

describe('what orders ask for', () => {
  it('counts when it is short, and not when it is called off', async () => {
    await house.order([['BOK-WAX', 30]]);
    const off = await house.order([['BOK-WAX', 500]]);
    const { version } = (await maren.get(`orders/${off}`).expect(200)).body as { version: number };
    await house.source.query(`UPDATE sales_order SET placed_at = placed_at - INTERVAL 14 DAY WHERE state <> 'cancelled'`);
    await planned();
    const units = async () =>
      (
        await house.source.query<{ units: string }[]>(
          'SELECT SUM(ordered_units) AS units FROM demand_week d JOIN item i ON i.id = d.item_id WHERE i.sku = ?',
          ['BOK-WAX'],
        )
      )[0]!.units;
    expect(Number(await units())).toBe(530);
    await maren.post(`orders/${off}/cancel`, { why: 'no longer wanted', tell: false }, { 'if-match': `"${version}"` }).expect(200);
    await planned();
    expect(Number(await units())).toBe(30);
  });
});

describe('what buyers make of proposals', () => {
  it('one draft for a supplier, with pack and price; of two who take the same the second is told', async () => {
    const b = await buying(piet);
    const line = lineOf(b)!;
    const lines = [{ sku: SKU, supplier: 'QUILL', packs: line.units / line.factor }];
    const body = { siteId: 1, asOf: b.asOf, lines };
    const supplier = b.suppliers.find((s) => s.lines.some((l) => l.sku === SKU))!.code;
    body.lines[0]!.supplier = supplier;
    const [one, other] = await Promise.all([piet.post('buying/take', body), maren.post('buying/take', body)]);
    expect([one.status, other.status].sort()).toEqual([201, 409]);
    const { orders } = (one.status === 201 ? one : other).body as { orders: string[] };
    const order = (await maren.get(`purchase-orders/${orders[0]}`).expect(200)).body as {
      state: string;
      lines: { sku: string; packs: number; factor: number }[];
    };
    expect(order).toMatchObject({ state: 'draft', lines: [{ sku: SKU, packs: line.units / line.factor, factor: line.factor }] });
    // What is drafted is on its way: it is not proposed again.
    expect(lineOf(await buying())).toBeUndefined();
    expect(((await plan()) as unknown as { truths: unknown[] }).truths).toMatchObject([{ says: 'taken', taken: line.units }]);
  });

  it('refuses what no supplier sells, what stands twice, and packs that are none; nothing is drafted', async () => {
    const { asOf } = await buying();
    const take = (lines: object[]) => maren.post('buying/take', { siteId: 1, asOf, lines });
    const [{ n: before }] = (await house.source.query<{ n: string }[]>('SELECT COUNT(*) AS n FROM purchase_order')) as [{ n: string }];
    await take([{ sku: 'BOK-WAX', supplier: 'NOBODY', packs: 1 }]).expect(400);
    await take([{ sku: SKU, supplier: 'QUILL', packs: 0 }]).expect(400);
    await take([]).expect(400);
    const [{ n: after }] = (await house.source.query<{ n: string }[]>('SELECT COUNT(*) AS n FROM purchase_order')) as [{ n: string }];
    expect(after).toBe(before);
  });

  it('put off until a day, brought back, and bought no more', async () => {
    await house.source.query("UPDATE purchase_order SET state = 'cancelled' WHERE state = 'draft'");
    expect(lineOf(await buying())).toBeDefined();
    const off = (says: string, until?: string) =>
      maren.post('buying/put-off', { siteId: 1, sku: SKU, says, why: 'the season is over', ...(until ? { until } : {}) });
    await off('later', today).expect(400);
    await off('later', '2099-01-04').expect(200);
    const without = await buying();
    expect(lineOf(without)).toBeUndefined();
    expect(without.putOff).toMatchObject([{ sku: SKU, until: '2099-01-04' }]);
    await maren.post('buying/bring-back', { siteId: 1, sku: SKU }).expect(200);
    expect(lineOf(await buying())).toBeDefined();
    await off('dropped').expect(200);
    expect(lineOf(await buying())).toBeUndefined();
    const rules = (await maren.get('buying/rules').expect(200)).body as { id: number; sku: string; isDropped: boolean; version: number }[];
    expect(rules).toMatchObject([{ sku: SKU, isDropped: true }]);
    await maren.delete(`buying/rules/${rules[0]!.id}`, { 'if-match': `"${rules[0]!.version}"` }).expect(200);
    expect(lineOf(await buying())).toBeDefined();
  });
});

describe('rules and marks', () => {
  it('a higher share to be met keeps more; the nearest rule holds', async () => {
    await planned();
    const before = ((await plan()) as unknown as { point: number }).point;
    const { id } = (await maren.post('buying/rules', { sku: SKU, servicePercent: '99.5', isFixed: false, isDropped: false }).expect(201))
      .body as { id: number };
    await maren.post('buying/rules', { servicePercent: '80', isFixed: false, isDropped: false }).expect(201);
    await house.app.get(Planner).runDue();
    expect(((await plan()) as unknown as { point: number }).point).toBeGreaterThan(before);
    await maren.post('buying/rules', { sku: SKU, servicePercent: '95', isFixed: false, isDropped: false }).expect(400);
    await maren.post('buying/rules', { sku: SKU, siteId: 1, servicePercent: '12', isFixed: false, isDropped: false }).expect(400);
    await maren.post('buying/rules', { className: 'Books', isFixed: false, isDropped: false }).expect(400);
    await maren.delete(`buying/rules/${id}`, { 'if-match': '"1"' }).expect(200);
    await house.app.get(Planner).runDue();
    expect(((await plan()) as unknown as { point: number }).point).toBeLessThan(before);
  });

  it('no more is bought than there is room for, and the reason is said', async () => {
    await planned();
    const free = lineOf(await buying())!;
    const rule = (roomUnits: number) => ({ sku: SKU, siteId: 1, roomUnits, isFixed: false, isDropped: false });
    await maren.post('buying/rules', { ...rule(1), sku: undefined, className: 'Books' }).expect(400);
    await maren.post('buying/rules', rule(0)).expect(400);
    const room = free.free + free.units - free.factor;
    const { id } = (await maren.post('buying/rules', rule(room)).expect(201)).body as { id: number };
    const less = lineOf(await buying())!;
    expect(less.units).toBe(free.units - free.factor);
    expect(less.because).toContain(`there is room for ${room} in all`);
    await maren.put(`buying/rules/${id}`, rule(1), { 'if-match': '"1"' }).expect(200);
    expect(lineOf(await buying())).toMatchObject({ units: 0, because: expect.stringContaining('no pack more has room') as string });
    // Also where somebody has set a point by hand that a year's demand would not use up.
    await house.source.query(
      'INSERT INTO item_site (item_id, site_id, reorder_point, order_up_to) SELECT id, 1, 99000, 100000 FROM item WHERE sku = ? ON DUPLICATE KEY UPDATE reorder_point = 99000, order_up_to = 100000',
      [SKU],
    );
    await maren.put(`buying/rules/${id}`, { ...rule(20_000), isFixed: true }, { 'if-match': '"2"' }).expect(200);
    const byHand = lineOf(await buying())!;
    expect(byHand.units).toBeGreaterThan(10_000);
    expect(byHand.units + byHand.free + byHand.onOrder).toBeLessThanOrEqual(20_000);
    await house.source.query('UPDATE item_site SET reorder_point = NULL, order_up_to = NULL WHERE site_id = 1');
    await maren.delete(`buying/rules/${id}`, { 'if-match': '"3"' }).expect(200);
  });

  it('what is worth most is met more often and what is worth least less, where no rule of its own says otherwise', async () => {
    const service = async () =>
      (await one<{ service: number }>(house.source, 'SELECT p.service FROM item_plan p JOIN item i ON i.id = p.item_id WHERE i.sku = ?', [
        SKU,
      ]))!.service;
    const usual = await service();
    const owner = await house.as('Maren');
    await owner.put('company/settings/serviceMoreForA', { value: '40' }).expect(400);
    await owner.put('company/settings/serviceMoreForA', { value: '2' }).expect(204);
    await planned();
    expect(await service()).toBeCloseTo(usual + 0.02, 4);
    // The one that everything is worth is graded A; beside one that is worth a thousand times as much it is C.
    await owner.put('company/settings/serviceLessForC', { value: '10' }).expect(204);
    await house.source.query(
      `INSERT INTO item_plan (site_id, item_id, week_mean, unit_cost) SELECT 1, id, 1000000, 1000 FROM item WHERE sku = 'GLV-L' ON DUPLICATE KEY UPDATE week_mean = 1000000, unit_cost = 1000, due_at = NULL`,
    );
    await house.app.get(Planner).look([1], true);
    await house.source.query("UPDATE item_plan p JOIN item i ON i.id = p.item_id AND i.sku = 'GLV-L' SET p.due_at = NULL");
    await house.app.get(Planner).runDue();
    expect(await service()).toBeCloseTo(usual - 0.1, 4);
    const { id } = (await maren.post('buying/rules', { sku: SKU, servicePercent: '98', isFixed: false, isDropped: false }).expect(201))
      .body as {
      id: number;
    };
    await house.app.get(Planner).runDue();
    expect(await service()).toBeCloseTo(0.98, 4);
    await maren.delete(`buying/rules/${id}`, { 'if-match': '"1"' }).expect(200);
    for (const name of ['serviceMoreForA', 'serviceLessForC']) await owner.put(`company/settings/${name}`, { value: '0' }).expect(204);
    await house.source.query("DELETE p FROM item_plan p JOIN item i ON i.id = p.item_id AND i.sku = 'GLV-L'");
    await planned();
  });

  it('a marked week to come is counted on, and can be taken away', async () => {
    const week = weekText(now + 2);
    const mean = async () =>
      ((await plan()) as unknown as { forecast: { week: string; mean: number }[] }).forecast.find((f) => f.week === week)!.mean;
    const before = await mean();
    const { id } = (await maren.post('buying/marks', { name: 'Open day', sku: SKU, from: week, to: week, liftPercent: 100 }).expect(201))
      .body as { id: number };
    await house.app.get(Planner).runDue();
    expect((await mean()) / before).toBeCloseTo(2, 1);
    await maren.post('buying/marks', { name: 'No', from: weekText(now + 3), to: week, liftPercent: 1 }).expect(400);
    await maren.post('buying/marks', { name: 'No', from: '2026-W60', to: '2026-W60' }).expect(400);
    await maren.delete(`buying/marks/${id}`, { 'if-match': '"1"' }).expect(200);
  });
});

describe('who may see and say what', () => {
  it('is whoever buys; costs are left out for those who may not see them; rules of the whole house are for those at every site', async () => {
    const ruben = await house.as('Ruben');
    await ruben.get('buying/sites/1').expect(403);
    await ruben.post('buying/take', { siteId: 1, asOf: 0, lines: [{ sku: SKU, supplier: 'QUILL', packs: 1 }] }).expect(403);
    await maren.get('buying/sites/99').expect(403);
    await house.source.query('DELETE FROM person_site WHERE person_id = ? AND site_id <> 1', [piet.personId]);
    await piet.post('buying/rules', { servicePercent: '99', isFixed: false, isDropped: false }).expect(403);
    await piet.post('buying/rules', { siteId: 1, className: 'Books', servicePercent: '99', isFixed: false, isDropped: false }).expect(201);
  });
});

describe('the whole range', () => {
  it('is told by what it costs and how even it is, and what there is too much of with what could be done', async () => {
    await planned();
    const { fields, items } = (await maren.get('buying/sites/1/coverage').expect(200)).body as {
      items: number;
      fields: { field: string; items: number }[];
    };
    expect(fields.reduce((n, f) => n + f.items, 0)).toBe(items);
    await house.stock(SKU, 'A-01-1', 60_000);
    const { rows } = (await maren.get('buying/sites/1/excess').expect(200)).body as {
      rows: { sku: string; units: number; coverDays: number }[];
    };
    expect(rows[0]).toMatchObject({ sku: SKU });
    expect(rows[0]!.units).toBeGreaterThan(40_000);
    expect(lineOf(await buying())).toBeUndefined();
  });

  it('is planned anew only where something has changed, and not twice for one week', async () => {
    await planned();
    const made = async () =>
      house.source.query<{ id: number; week_mean: number; made_from: string }[]>(
        'SELECT id, week_mean, made_from FROM item_plan ORDER BY id',
      );
    const before = await made();
    await house.source.query('UPDATE item_plan SET week_mean = 7');
    await planned();
    // What it is made from is the same: nothing is planned, and so the figure that was put there stays.
    expect((await made()).every((p) => p.week_mean === 7)).toBe(true);
    await takenIn(house, maren, 'more.csv', past(20, 500));
    await planned();
    const after = await made();
    expect(after.some((p, i) => p.week_mean !== 7 && p.made_from !== before[i]!.made_from)).toBe(true);
  });

  it('is lived through again by several rules, and says how far it is', async () => {
    const { BackTests } = await import('../src/planning/index.js');
    await maren.post('buying/back-tests', { siteId: 1 }).expect(202);
    const tests = house.app.get(BackTests);
    for (let i = 0; i < 20; i++) if ((await tests.runDue()) === 0) break;
    const { latest } = (await maren.get('buying/sites/1/back-test').expect(200)).body as {
      latest: { isOver: boolean; done: number; total: number; rules: { rule: string; metPercent: number }[] };
    };
    expect(latest).toMatchObject({ isOver: true, done: latest.total });
    expect(latest.rules.find((r) => r.rule === 'planned')!.metPercent).toBeGreaterThan(50);
  });

  it('gives out its lists to whoever buys', async () => {
    for (const list of ['buying', 'excess', 'demand', 'plans', 'buying-rules'])
      expect(String((await maren.bytes(`exports/lists/${list}.csv?site=1`).expect(200)).body as Buffer)).toMatch(/SKU/);
  });

  it('forgets past demand that is taken back', async () => {
    const run = await checked(house, maren, 'once.csv', past(3, 9, 'TOOL-JH'));
    await maren.post(`imports/${run.id}/apply`, { goodRowsOnly: false }).expect(204);
    await settled(house, maren, run.id);
    await maren.post(`imports/${run.id}/undo`).expect(204);
    await settled(house, maren, run.id);
    const left = await house.source.query<unknown[]>('SELECT 1 FROM demand_week d JOIN item i ON i.id = d.item_id WHERE i.sku = ?', [
      'TOOL-JH',
    ]);
    expect(left).toEqual([]);
  });
});
