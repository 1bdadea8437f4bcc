import fc from 'fast-check';
import { allocate, type Allocated, type Demand, type StockRow, type StockRule } from './index.js';

const TODAY = '2027-03-01';
const row = (bin: string, units: number, more: Partial<StockRow> = {}): StockRow => ({
  item: 'JAR',
  site: 'MAIN',
  bin,
  lot: '',
  units,
  pickable: true,
  ...more,
});
const order = (id: string, units: number, more: Partial<Demand> = {}): Demand => ({
  id,
  priority: 0,
  due: 0,
  placed: 0,
  sites: ['MAIN', 'SHOP'],
  completeOnly: false,
  lines: [{ line: 1, item: 'JAR', units }],
  ...more,
});
const rules = (more: Partial<StockRule> = {}) => new Map<string, StockRule>([['JAR', { rotation: 'fefo', minLifeDays: null, ...more }]]);
const binsOf = (answer: Allocated, id = 'S1') => answer.allocations.filter((a) => a.order === id).map((a) => [a.bin, a.units]);
const shortOf = (answer: Allocated) => Object.fromEntries(answer.short.map((s) => [`${s.order}/${s.line}`, s.units]));

describe('giving stock to orders', () => {
  it('serves by priority, then by what is due, then by what was placed, then by id', () => {
    const orders = [
      order('S9', 1),
      order('S10', 1),
      order('late', 1, { due: 5 }),
      order('old', 1, { placed: -5 }),
      order('urgent', 1, { priority: 1, due: 9 }),
    ];
    const answer = allocate(TODAY, [row('A', 3)], rules(), orders);
    expect(answer.allocations.map((a) => a.order)).toEqual(['urgent', 'old', 'S10']);
    expect(answer.short.map((s) => s.order)).toEqual(['urgent', 'old', 'S10', 'S9', 'late']);
  });

  it('takes the earliest date of all sites together, and what has none last', () => {
    const stock = [row('A', 5), row('B', 5, { expires: '2027-06-01' }), row('C', 5, { site: 'SHOP', expires: '2027-05-01' })];
    expect(binsOf(allocate(TODAY, stock, rules(), [order('S1', 12)]))).toEqual([
      ['C', 5],
      ['B', 5],
      ['A', 2],
    ]);
  });

  it('stays in one site where that can fill the rest, otherwise goes by the order of sites', () => {
    const stock = [row('A', 4), row('B', 6, { site: 'SHOP' })];
    expect(binsOf(allocate(TODAY, stock, rules(), [order('S1', 6)]))).toEqual([['B', 6]]);
    expect(binsOf(allocate(TODAY, stock, rules(), [order('S1', 7)]))).toEqual([
      ['A', 4],
      ['B', 3],
    ]);
    expect(binsOf(allocate(TODAY, stock, rules(), [order('S1', 3, { sites: ['SHOP', 'MAIN'] })]))).toEqual([['B', 3]]);
    expect(binsOf(allocate(TODAY, stock, rules(), [order('S1', 9, { sites: ['SHOP'] })]))).toEqual([['B', 6]]);
  });

  it('empties the row that the need just fits, then goes by bin', () => {
    const stock = [row('C', 3), row('A', 5), row('B', 8)];
    expect(binsOf(allocate(TODAY, stock, rules(), [order('S1', 8)]))).toEqual([['B', 8]]);
    expect(binsOf(allocate(TODAY, stock, rules(), [order('S1', 4)]))).toEqual([['A', 4]]);
  });

  it('gives nothing that cannot be picked or lives too short, and what lives just long enough', () => {
    const stock = [
      row('A', 5, { pickable: false }),
      row('B', 5, { expires: '2027-03-14' }),
      row('C', 5, { expires: '2027-03-15' }),
      row('D', 5),
    ];
    expect(binsOf(allocate(TODAY, stock, rules({ minLifeDays: 14 }), [order('S1', 20)]))).toEqual([
      ['C', 5],
      ['D', 5],
    ]);
  });

  it('gives all or nothing where that is asked, and what was refused is there for the next', () => {
    const lines = [
      { line: 1, item: 'JAR', units: 5 },
      { line: 2, item: 'LID', units: 1 },
    ];
    const answer = allocate(TODAY, [row('A', 5)], rules(), [order('S1', 0, { completeOnly: true, lines }), order('S2', 5)]);
    expect(binsOf(answer, 'S2')).toEqual([['A', 5]]);
    expect(shortOf(answer)).toEqual({ 'S1/1': 5, 'S1/2': 1, 'S2/1': 0 });
  });

  const site = fc.constantFrom('MAIN', 'SHOP', 'BARN');
  const item = fc.constantFrom('JAR', 'LID');
  const day = fc.constantFrom(null, '2027-03-05', '2027-04-01', '2027-06-01');
  const stockRow: fc.Arbitrary<StockRow> = fc.record({
    item,
    site,
    bin: fc.constantFrom('A', 'B', 'C', 'D'),
    lot: fc.constantFrom('', 'L1', 'L2'),
    expires: day,
    received: fc.constantFrom(null, '2027-01-01', '2027-02-01'),
    units: fc.integer({ min: 0, max: 9 }),
    pickable: fc.boolean(),
  });
  const demand = (n: number): fc.Arbitrary<Demand> =>
    fc.record({
      id: fc.constant(`S${n}`),
      priority: fc.integer({ min: 0, max: 1 }),
      due: fc.integer({ min: 0, max: 2 }),
      placed: fc.integer({ min: 0, max: 2 }),
      sites: fc.uniqueArray(site, { minLength: 0, maxLength: 3 }),
      completeOnly: fc.boolean(),
      lines: fc
        .array(fc.record({ item, units: fc.integer({ min: 0, max: 15 }) }), { maxLength: 3 })
        .map((lines) => lines.map((l, i) => ({ line: i + 1, ...l }))),
    });
  const instance = fc.record({
    stock: fc.array(stockRow, { maxLength: 14 }),
    orders: fc.integer({ min: 0, max: 6 }).chain((n) => fc.tuple(...Array.from({ length: n }, (_, i) => demand(i)))),
    rules: fc
      .tuple(fc.constantFrom('fefo' as const, 'fifo' as const), fc.constantFrom(null, 0, 4, 40))
      .map(([rotation, minLifeDays]) => new Map([['JAR', { rotation, minLifeDays }]])),
  });

  it('does what the rule says in so many words, on any stock', () => {
    fc.assert(
      fc.property(instance, (x) => {
        expect(allocate(TODAY, x.stock, x.rules, x.orders)).toEqual(plainly(x.stock, x.rules, x.orders));
      }),
      { numRuns: 2_000 },
    );
  });

  it('answers the same in whatever order rows and orders come, and leaves its input as it was', () => {
    fc.assert(
      fc.property(instance, fc.nat(), (x, turn) => {
        const turned = <T>(list: readonly T[]) =>
          [...list.slice(turn % (list.length + 1)), ...list.slice(0, turn % (list.length + 1))].reverse();
        const before = JSON.stringify([x.stock, x.orders]);
        const answer = allocate(TODAY, x.stock, x.rules, x.orders);
        expect(allocate(TODAY, turned(x.stock), x.rules, turned(x.orders))).toEqual(answer);
        expect(JSON.stringify([x.stock, x.orders])).toBe(before);
      }),
      { numRuns: 500 },
    );
  });
});

/** The rule, one unit of thought at a time and without any haste: what `allocate` is held against. */
function plainly(stock: readonly StockRow[], of: ReadonlyMap<string, StockRule>, orders: readonly Demand[]): Allocated {
  const text = (r: StockRow) =>
    [r.bin, r.lot, r.expires ?? '9999-12-31', r.received ?? '9999-12-31', String(r.units).padStart(4, '0')].join('\n');
  const rows = [...stock].sort((a, b) => (text(a) < text(b) ? -1 : 1)).map((r) => ({ ...r }));
  const answer: Allocated = { allocations: [], short: [] };
  const queue = [...orders];
  while (queue.length > 0) {
    let next = queue[0]!;
    for (const o of queue) {
      const [a, b] = [
        [-o.priority, o.due, o.placed],
        [-next.priority, next.due, next.placed],
      ] as const;
      const at = a.findIndex((n, i) => n !== b[i]);
      if (at >= 0 ? a[at]! < b[at]! : o.id < next.id) next = o;
    }
    queue.splice(queue.indexOf(next), 1);
    const kept = rows.map((r) => r.units);
    const given: Allocated['allocations'] = [];
    const lacks = next.lines.map((line) => {
      let need = line.units;
      const rule = of.get(line.item) ?? { rotation: 'fifo', minLifeDays: null };
      const date = (r: StockRow) => (rule.rotation === 'fefo' ? r.expires : r.received) ?? '9999-12-31';
      const lives = (r: StockRow) =>
        !r.expires || rule.minLifeDays === null || (Date.parse(r.expires) - Date.parse(TODAY)) / 86_400_000 >= rule.minLifeDays;
      for (;;) {
        const may = rows.filter((r) => r.item === line.item && next.sites.includes(r.site) && r.units > 0 && r.pickable && lives(r));
        if (need === 0 || may.length === 0) return need;
        const first = may.map(date).sort()[0];
        const ofDate = may.filter((r) => date(r) === first);
        const sum = (site: string) => ofDate.filter((r) => r.site === site).reduce((n, r) => n + r.units, 0);
        const from = next.sites.find((s) => sum(s) >= need) ?? next.sites.find((s) => sum(s) > 0);
        const here = ofDate.filter((r) => r.site === from);
        const taken = here.find((r) => r.units === need) ?? here[0]!;
        const units = Math.min(need, taken.units);
        given.push({ order: next.id, line: line.line, site: taken.site, bin: taken.bin, lot: taken.lot, units });
        taken.units -= units;
        need -= units;
      }
    });
    const refused = next.completeOnly && lacks.some((n) => n > 0);
    if (refused) kept.forEach((units, i) => (rows[i]!.units = units));
    else answer.allocations.push(...given);
    answer.short.push(...next.lines.map((l, i) => ({ order: next.id, line: l.line, units: refused ? l.units : lacks[i]! })));
  }
  return answer;
}
