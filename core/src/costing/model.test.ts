import fc from 'fast-check';
import { solve } from '../solve/index.js';

/**
 * Another way to the same figures: a pool is the list of its single units, each with a cost of its own as a pair of whole
 * numbers. By average every unit is set to the mean before any is taken.
 */
type Cost = [num: bigint, den: bigint];
const add = ([a, b]: Cost, [c, d]: Cost): Cost => [a * d + c * b, b * d];
const mul = ([a, b]: Cost, n: bigint, d: bigint): Cost => [a * n, b * d];
/** Without this the pairs of a long sequence would outgrow the machine. */
function short([num, den]: Cost): Cost {
  let [a, b] = [num, den];
  while (b > 0n) [a, b] = [b, a % b];
  return [num / a, den / a];
}
const total = (costs: readonly Cost[]): Cost => costs.reduce((sum, c) => short(add(sum, c)), [0n, 1n]);

function six([num, den]: Cost): string {
  const units = (2n * num * 1_000_000n + den) / (2n * den);
  return `${units / 1_000_000n}.${String(units % 1_000_000n).padStart(6, '0')}`;
}

type Step =
  | {
      type: 'receipt';
      site: string;
      lines: { item: string; units: number; pence: number; weightG: number }[];
      charges: { pence: number; by: 'value' | 'units' | 'weight' }[];
    }
  | { type: 'issue' | 'supplierReturn'; item: string; site: string; units: number }
  | { type: 'transfer'; item: string; from: string; to: string; units: number }
  | { type: 'return'; item: string; site: string; units: number; which: number }
  | { type: 'count'; item: string; site: string; counted: number };

class Model {
  readonly pools = new Map<string, Cost[]>();
  readonly standing = new Map<string, number>();
  readonly last = new Map<string, Cost>();
  readonly lastOfItem = new Map<string, Cost>();
  readonly out: { id: string; value: string }[] = [];
  readonly issued: { id: string; item: string; unit: Cost; left: number }[] = [];

  constructor(
    readonly method: string,
    readonly by: string,
  ) {}

  key = (item: string, site: string) => (this.by === 'site' ? `${item}@${site}` : item);
  pool(item: string, site: string): Cost[] {
    const k = this.key(item, site);
    if (!this.pools.has(k)) this.pools.set(k, []);
    return this.pools.get(k)!;
  }
  at = (item: string, site: string) => this.standing.get(`${item}@${site}`) ?? 0;
  stand(item: string, site: string, by: number) {
    this.standing.set(`${item}@${site}`, this.at(item, site) + by);
  }
  put(item: string, site: string, costs: Cost[]) {
    const pool = this.pool(item, site);
    pool.push(...costs);
    this.level(pool);
    if (costs.length > 0) {
      this.last.set(this.key(item, site), pool.at(-1)!);
      this.lastOfItem.set(item, costs.at(-1)!);
    }
    this.stand(item, site, costs.length);
  }
  level(pool: Cost[]) {
    if (this.method !== 'average' || pool.length === 0) return;
    const mean = short(mul(total(pool), 1n, BigInt(pool.length)));
    pool.fill(mean);
  }
  take(item: string, site: string, units: number): Cost[] {
    this.stand(item, site, -units);
    return this.pool(item, site).splice(0, units);
  }
}

/** Runs the steps that are possible through the model; returns them as the solver's input. */
function run(model: Model, steps: readonly Step[]): object[] {
  const movements: object[] = [];
  steps.forEach((s, i) => {
    const id = `m${i}`;
    const at = new Date(Date.UTC(2027, 0, 1) + i * 60_000).toISOString();
    const push = (more: object) => movements.push({ id, at, type: s.type, ...more });
    switch (s.type) {
      case 'receipt': {
        const basis = (l: (typeof s.lines)[number], by: string) =>
          BigInt(by === 'units' ? l.units : by === 'weight' ? l.weightG * l.units : l.pence * l.units);
        const charges = s.charges.filter((c) => s.lines.some((l) => basis(l, c.by) > 0n));
        for (const l of s.lines) {
          let value: Cost = [BigInt(l.pence * l.units), 100n];
          for (const c of charges) {
            const sum = s.lines.reduce((n, x) => n + basis(x, c.by), 0n);
            value = add(value, [BigInt(c.pence) * basis(l, c.by), 100n * sum]);
          }
          model.put(
            l.item,
            s.site,
            Array.from({ length: l.units }, () => mul(value, 1n, BigInt(l.units))),
          );
        }
        const lines = s.lines.map(({ pence, ...l }) => ({ ...l, unitPrice: (pence / 100).toFixed(2) }));
        return push({ site: s.site, lines, charges: charges.map((c) => ({ amount: (c.pence / 100).toFixed(2), by: c.by })) });
      }
      case 'issue':
      case 'supplierReturn': {
        const units = Math.min(s.units, model.at(s.item, s.site));
        if (units === 0) return;
        const value = total(model.take(s.item, s.site, units));
        model.out.push({ id, value: six(value) });
        if (s.type === 'issue') model.issued.push({ id, item: s.item, unit: mul(value, 1n, BigInt(units)), left: units });
        return push({ item: s.item, site: s.site, units });
      }
      case 'transfer': {
        const units = Math.min(s.units, model.at(s.item, s.from));
        if (units === 0) return;
        if (model.by === 'site') model.put(s.item, s.to, model.take(s.item, s.from, units));
        else {
          model.stand(s.item, s.from, -units);
          model.stand(s.item, s.to, units);
        }
        return push({ item: s.item, from: s.from, to: s.to, units });
      }
      case 'return': {
        const of = model.issued[s.which % Math.max(1, model.issued.length)];
        const units = Math.min(s.units, of?.left ?? 0);
        if (!of || units === 0) return;
        of.left -= units;
        model.put(
          of.item,
          s.site,
          Array.from({ length: units }, () => of.unit),
        );
        return push({ item: of.item, site: s.site, units, of: of.id });
      }
      case 'count': {
        const book = model.at(s.item, s.site);
        if (s.counted < book) model.out.push({ id, value: six(total(model.take(s.item, s.site, book - s.counted))) });
        if (s.counted > book) {
          const known = model.pool(s.item, s.site).at(-1) ?? model.last.get(model.key(s.item, s.site));
          const cost = known && known[0] !== 0n ? known : (model.lastOfItem.get(s.item) ?? [0n, 1n]);
          model.put(
            s.item,
            s.site,
            Array.from({ length: s.counted - book }, () => cost),
          );
        }
        return push({ item: s.item, site: s.site, counted: s.counted });
      }
    }
  });
  return movements;
}

const item = fc.constantFrom('JAR', 'LID');
const site = fc.constantFrom('MILL', 'QUAY');
const units = fc.integer({ min: 1, max: 9 });
const step: fc.Arbitrary<Step> = fc.oneof(
  {
    weight: 3,
    arbitrary: fc.record({
      type: fc.constant('receipt' as const),
      site,
      lines: fc.array(fc.record({ item, units, pence: fc.integer({ min: 0, max: 999 }), weightG: fc.integer({ min: 0, max: 900 }) }), {
        minLength: 1,
        maxLength: 3,
      }),
      charges: fc.array(
        fc.record({
          pence: fc.integer({ min: 1, max: 5_000 }),
          by: fc.constantFrom('value' as const, 'units' as const, 'weight' as const),
        }),
        { maxLength: 2 },
      ),
    }),
  },
  { weight: 3, arbitrary: fc.record({ type: fc.constantFrom('issue' as const, 'supplierReturn' as const), item, site, units }) },
  fc.record({ type: fc.constant('transfer' as const), item, from: fc.constant('MILL'), to: fc.constant('QUAY'), units }),
  fc.record({ type: fc.constant('return' as const), item, site, units, which: fc.nat(9) }),
  fc.record({ type: fc.constant('count' as const), item, site, counted: fc.nat(12) }),
);

describe('costing against single units', () => {
  it.each([
    ['average', 'item'],
    ['average', 'site'],
    ['fifo', 'item'],
    ['fifo', 'site'],
  ])('by %s with a pool for each %s is right to six places on any sequence', (method, by) => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 24 }), (steps) => {
        const model = new Model(method, by);
        const movements = run(model, steps);
        const { output, code } = solve('costing', JSON.stringify({ method, pool: by, movements }));
        expect(code).toBe(0);
        const { valuation, out } = output as { valuation: { item: string; site?: string; units: number; value: string }[]; out: unknown };
        expect(out).toEqual(model.out);
        const expected = [...model.pools].map(([k, costs]) => [k, costs.length, six(total(costs))]);
        expect(valuation.map((v) => [v.site ? `${v.item}@${v.site}` : v.item, v.units, v.value]).sort()).toEqual(expected.sort());
      }),
      { numRuns: 150 },
    );
  });

  it('never loses a millionth: what came in is what went out and what is there', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 30 }), fc.constantFrom('average', 'fifo'), (steps, method) => {
        const only = steps.filter((s) => s.type === 'receipt' || s.type === 'issue' || s.type === 'transfer');
        const movements = run(new Model(method, 'site'), only) as {
          type: string;
          lines?: { units: number; unitPrice: string }[];
          charges?: { amount: string }[];
        }[];
        const { output } = solve('costing', JSON.stringify({ method, pool: 'site', movements }));
        const { valuation, out } = output as { valuation: { value: string }[]; out: { value: string }[] };
        const sum = (values: readonly string[]) => values.reduce((n, v) => n + Number(v), 0);
        const came = movements.flatMap((m) => [
          ...(m.lines ?? []).map((l) => l.units * Number(l.unitPrice)),
          ...(m.charges ?? []).map((c) => Number(c.amount)),
        ]);
        const kept = sum(valuation.map((v) => v.value)) + sum(out.map((o) => o.value));
        expect(kept).toBeCloseTo(
          came.reduce((a, b) => a + b, 0),
          3,
        );
      }),
    );
  });
});

describe('solve costing', () => {
  const base = { method: 'fifo', pool: 'item' };
  const receipt = { id: 'r', at: '2027-01-01', type: 'receipt', site: 'MILL', lines: [{ item: 'JAR', units: 4, unitPrice: '1.250' }] };
  const fails = (input: object) => {
    const { output, code } = solve('costing', JSON.stringify(input));
    expect(code).toBe(1);
    return (output as { error: { path: string; message: string } }).error;
  };

  it('takes movements by their times, not as they are listed', () => {
    const movements = [{ id: 'i', at: '2027-01-02T08:00:00Z', type: 'issue', item: 'JAR', site: 'MILL', units: 1 }, receipt];
    expect(solve('costing', JSON.stringify({ ...base, movements }))).toEqual({
      output: { valuation: [{ item: 'JAR', units: 3, value: '3.750000' }], out: [{ id: 'i', value: '1.250000' }] },
      code: 0,
    });
  });

  it('ignores members that it does not know, and takes no movements for nothing', () => {
    expect(solve('costing', JSON.stringify({ ...base, movements: [], note: 'x' })).output).toEqual({ valuation: [], out: [] });
    expect(solve('costing', JSON.stringify({ ...base, movements: [{ ...receipt, colour: 'red' }] })).code).toBe(0);
  });

  it.each<[string, object]>([
    ['method', { ...base, method: 'lifo', movements: [] }],
    ['pool', { ...base, pool: 'bin', movements: [] }],
    ['movements', { ...base, movements: {} }],
    ['movements[0].type', { ...base, movements: [{ ...receipt, type: 'gift' }] }],
    ['movements[0].at', { ...base, movements: [{ ...receipt, at: 'soon' }] }],
    ['movements[1].id', { ...base, movements: [receipt, receipt] }],
    ['movements[0].lines[0].units', { ...base, movements: [{ ...receipt, lines: [{ item: 'JAR', units: 1.5, unitPrice: '1' }] }] }],
    ['movements[0].lines[0].unitPrice', { ...base, movements: [{ ...receipt, lines: [{ item: 'JAR', units: 1, unitPrice: '1e3' }] }] }],
    [
      'movements[0].lines[0].weightG',
      { ...base, movements: [{ ...receipt, lines: [{ item: 'JAR', units: 1, unitPrice: '1', weightG: -1 }] }] },
    ],
    ['movements[0].charges[0].by', { ...base, movements: [{ ...receipt, charges: [{ amount: '1', by: 'moon' }] }] }],
    [
      'movements[1].units',
      { ...base, movements: [receipt, { id: 'i', at: '2027-01-02', type: 'issue', item: 'JAR', site: 'MILL', units: 5 }] },
    ],
    [
      'movements[1].of',
      { ...base, movements: [receipt, { id: 'b', at: '2027-01-02', type: 'return', item: 'JAR', site: 'MILL', units: 1, of: 'r' }] },
    ],
  ])('says that %s is at fault', (path, input) => {
    expect(fails(input)).toMatchObject({ path, message: expect.stringMatching(/.{8,}/) });
  });
});
