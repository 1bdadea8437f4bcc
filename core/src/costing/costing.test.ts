import fc from 'fast-check';
import { fractionOf, fractionText, ratio, scaled, whole, type Fraction } from '../money/index.js';
import { CostingFault, newPool, NotEnough, shares, valued, wholeShares, worth, type CostMovement } from './index.js';

const f = fractionOf;
const text = (v: Fraction) => fractionText(v);
const receipt = (id: string, units: number, price: string, site = 'MILL'): CostMovement => ({
  id,
  type: 'receipt',
  site,
  lines: [{ item: 'JAR', units, unitPrice: f(price) }],
  charges: [],
});
const issue = (id: string, units: number, site = 'MILL'): CostMovement => ({ id, type: 'issue', item: 'JAR', site, units });
const value = (movements: CostMovement[], method: 'average' | 'fifo' = 'average', pool: 'item' | 'site' = 'item') => {
  const { valuation, out } = valued(method, pool, movements);
  return { valuation: valuation.map((v) => [v.site ?? '', v.units, text(v.value)]), out: out.map((o) => [o.id, text(o.value)]) };
};

describe('moving average', () => {
  it('takes at the average of what there is, and keeps the rest at it', () => {
    expect(value([receipt('r1', 100, '0.40'), receipt('r2', 50, '0.70'), issue('i1', 30)])).toEqual({
      valuation: [['', 120, '60.000000']],
      out: [['i1', '15.000000']],
    });
  });

  it('loses nothing to rounding, however often a third is taken', () => {
    const { valuation, out } = valued('average', 'item', [
      receipt('r', 3, '10'),
      receipt('s', 4, '0.01'),
      ...[1, 2, 3, 4, 5, 6].map((n) => issue(`i${n}`, 1)),
    ]);
    const sum = out.reduce((n, o) => n + Number(o.value.num) / Number(o.value.den), 0);
    expect(sum + Number(valuation[0]!.value.num) / Number(valuation[0]!.value.den)).toBeCloseTo(30.04, 12);
    expect(valuation[0]!.value).toEqual(ratio(3004n, 700n));
  });
});

describe('first in, first out', () => {
  it('takes the oldest first, across layers', () => {
    expect(value([receipt('r1', 10, '1'), receipt('r2', 10, '2'), issue('i1', 15), issue('i2', 5)], 'fifo')).toEqual({
      valuation: [['', 0, '0.000000']],
      out: [
        ['i1', '20.000000'],
        ['i2', '10.000000'],
      ],
    });
  });

  it('puts a return back as the newest, at the cost of its issue', () => {
    const all: CostMovement[] = [
      receipt('r1', 4, '1'),
      receipt('r2', 4, '3'),
      issue('i1', 6),
      { id: 'b1', type: 'return', item: 'JAR', site: 'MILL', units: 3, of: 'i1' },
      issue('i2', 2),
      issue('i3', 3),
    ];
    // i1 took 4 at 1 and 2 at 3: 10 for 6. What came back lies behind the two at 3.
    expect(value(all, 'fifo').out).toEqual([
      ['i1', '10.000000'],
      ['i2', '6.000000'],
      ['i3', '5.000000'],
    ]);
  });

  it('carries layers to another site one by one, as its newest', () => {
    const all: CostMovement[] = [
      receipt('q', 1, '9', 'QUAY'),
      receipt('r1', 2, '1'),
      receipt('r2', 2, '2'),
      { id: 't', type: 'transfer', item: 'JAR', from: 'MILL', to: 'QUAY', units: 3 },
      issue('i1', 2, 'QUAY'),
      issue('i2', 2, 'QUAY'),
    ];
    expect(value(all, 'fifo', 'site')).toEqual({
      valuation: [
        ['QUAY', 0, '0.000000'],
        ['MILL', 1, '2.000000'],
      ],
      out: [
        ['i1', '10.000000'],
        ['i2', '3.000000'],
      ],
    });
  });
});

describe('pools', () => {
  const apart = [receipt('r1', 10, '1'), receipt('r2', 10, '3', 'QUAY'), issue('i', 5, 'QUAY')];

  it('of an item hold all sites together, of a site each apart', () => {
    expect(value(apart, 'average', 'item').out).toEqual([['i', '10.000000']]);
    expect(value(apart, 'average', 'site').out).toEqual([['i', '15.000000']]);
  });

  it('of an item are not changed by a transfer, but where goods stand is', () => {
    const moved: CostMovement[] = [receipt('r', 4, '2'), { id: 't', type: 'transfer', item: 'JAR', from: 'MILL', to: 'QUAY', units: 4 }];
    expect(value(moved).valuation).toEqual([['', 4, '8.000000']]);
    expect(() => value([...moved, issue('i', 1)])).toThrow(CostingFault);
    expect(value([...moved, issue('i', 1, 'QUAY')]).out).toEqual([['i', '2.000000']]);
  });
});

describe('counts', () => {
  const count = (counted: number, site = 'MILL'): CostMovement => ({ id: `c${counted}`, type: 'count', item: 'JAR', site, counted });

  it('below book take away, above come in at the average or the newest cost, and at book do nothing', () => {
    const two = [receipt('r1', 4, '1'), receipt('r2', 4, '2')];
    expect(value([...two, count(8)])).toEqual({ valuation: [['', 8, '12.000000']], out: [] });
    expect(value([...two, count(6)], 'fifo')).toEqual({ valuation: [['', 6, '10.000000']], out: [['c6', '2.000000']] });
    expect(value([...two, count(10)]).valuation).toEqual([['', 10, '15.000000']]);
    expect(value([...two, count(10)], 'fifo').valuation).toEqual([['', 10, '16.000000']]);
  });

  it('find goods where there were none at the last known cost', () => {
    const gone = [receipt('r1', 4, '1.25'), issue('i', 4)];
    for (const method of ['average', 'fifo'] as const) {
      expect(value([...gone, count(2)], method).valuation).toEqual([['', 2, '2.500000']]);
      expect(value([...gone, count(2, 'QUAY')], method, 'site').valuation).toContainEqual(['QUAY', 2, '2.500000']);
    }
    expect(value([count(3)]).valuation).toEqual([['', 3, '0.000000']]);
  });
});

describe('what cannot be', () => {
  it.each<[string, CostMovement[], number, string]>([
    ['takes more than there is', [receipt('r', 3, '1'), issue('i', 4)], 1, 'units'],
    ['returns what was never issued', [{ id: 'b', type: 'return', item: 'JAR', site: 'MILL', units: 1, of: 'i' }], 0, 'of'],
    [
      'returns more than was issued',
      [
        receipt('r', 3, '1'),
        issue('i', 2),
        ...[1, 2].map((n): CostMovement => ({ id: `b${n}`, type: 'return', item: 'JAR', site: 'MILL', units: n, of: 'i' })),
      ],
      3,
      'units',
    ],
    [
      'shares by a weight that no line has',
      [
        {
          id: 'r',
          type: 'receipt',
          site: 'MILL',
          lines: [{ item: 'JAR', units: 1, unitPrice: f('1') }],
          charges: [{ amount: f('3'), by: 'weight' }],
        },
      ],
      0,
      'charges[0].by',
    ],
  ])('is said of what %s', (_, movements, index, member) => {
    try {
      valued('fifo', 'site', movements);
      throw new Error('it was valued');
    } catch (thrown) {
      expect(thrown).toBeInstanceOf(CostingFault);
      expect(thrown).toMatchObject({ index, member });
    }
  });

  it('leaves a pool as it was', () => {
    for (const method of ['average', 'fifo'] as const) {
      const pool = newPool(method);
      pool.put({ units: 3, unitCost: f('2') });
      expect(() => pool.take(4)).toThrow(NotEnough);
      expect([pool.units, text(pool.value)]).toEqual([3, '6.000000']);
    }
  });
});

describe('shares of a charge', () => {
  const line = (units: number, total: string, weight?: number, volume?: number) => ({
    units,
    value: f(total),
    ...(weight === undefined ? {} : { weight: whole(weight) }),
    ...(volume === undefined ? {} : { volume: whole(volume) }),
  });

  it('go by value, units, weight or volume of the lines', () => {
    const lines = [line(10, '30', 500, 4), line(20, '10', 1500, 4)];
    const by = (what: Parameters<typeof shares>[1]) => shares(f('20'), what, lines)?.map(text);
    expect(by('value')).toEqual(['15.000000', '5.000000']);
    expect(by('units')).toEqual(['6.666667', '13.333333']);
    expect(by('weight')).toEqual(['5.000000', '15.000000']);
    expect(by('volume')).toEqual(['10.000000', '10.000000']);
  });

  it('are none where nothing has a part of it', () => {
    expect(shares(f('20'), 'weight', [line(1, '1'), line(2, '2')])).toBeNull();
    expect(wholeShares(f('20'), 'value', [line(1, '0')])).toBeNull();
  });

  it('in pennies give the last one to the largest remainder, the earlier line first', () => {
    expect(wholeShares(f('10.00'), 'units', [line(1, '1'), line(1, '1'), line(1, '1')])).toEqual(['3.34', '3.33', '3.33']);
    expect(wholeShares(f('0.01'), 'units', [line(1, '1'), line(2, '1')])).toEqual(['0.00', '0.01']);
    expect(wholeShares(f('-0.05'), 'units', [line(1, '1'), line(1, '1')])).toEqual(['-0.02', '-0.03']);
  });

  it('add up to the charge to the last penny, and lie within a penny of their exact part', () => {
    const lines = fc.array(
      fc.record({
        units: fc.integer({ min: 1, max: 9_999 }),
        pence: fc.integer({ min: 0, max: 99_999 }),
        grams: fc.integer({ min: 1, max: 9_999 }),
      }),
      { minLength: 1, maxLength: 12 },
    );
    fc.assert(
      fc.property(
        lines,
        fc.integer({ min: -999_999, max: 999_999 }),
        fc.constantFrom('units' as const, 'weight' as const),
        (rows, pence, by) => {
          const of = rows.map((r) => line(r.units, (r.pence / 100).toFixed(2), r.grams));
          const amount = ratio(BigInt(pence), 100n);
          const parts = wholeShares(amount, by, of)!;
          const exact = shares(amount, by, of)!;
          expect(parts.reduce((sum, p) => sum + Math.round(Number(p) * 100), 0)).toBe(pence);
          parts.forEach((p, i) => expect(Math.abs(Number(p) - Number(exact[i]!.num) / Number(exact[i]!.den))).toBeLessThan(0.010001));
        },
      ),
    );
  });
});

describe('layers', () => {
  it('are worth what they cost', () => {
    expect(
      text(
        worth([
          { units: 3, unitCost: f('0.333333') },
          { units: 2, unitCost: scaled(f('1'), 1, 3) },
        ]),
      ),
    ).toBe('1.666666');
    expect(worth([])).toEqual(whole(0));
  });
});
