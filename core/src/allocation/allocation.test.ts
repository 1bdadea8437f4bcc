import fc from 'fast-check';
import { chooseBins, reserve, type BinStock, type WaitingOrder } from './index.js';

const bin = (placeId: number, units: number, more: Partial<BinStock> = {}): BinStock => ({
  placeId,
  lotId: 0,
  walkOrder: placeId,
  units,
  ...more,
});

describe('choosing bins', () => {
  it('takes the earliest expiry first, and no expiry last', () => {
    const rows = [bin(1, 5), bin(2, 5, { lotId: 2, expires: '2027-09-01' }), bin(3, 5, { lotId: 3, expires: '2027-06-01' })];
    expect(chooseBins(rows, 12, 'fefo')).toEqual({
      choices: [
        { placeId: 3, lotId: 3, units: 5 },
        { placeId: 2, lotId: 2, units: 5 },
        { placeId: 1, lotId: 0, units: 2 },
      ],
      short: 0,
    });
  });

  it('takes first in first out by the day of receipt', () => {
    const rows = [bin(1, 5, { received: '2027-02-01' }), bin(2, 5, { received: '2027-01-01' })];
    expect(chooseBins(rows, 6, 'fifo').choices.map((c) => c.placeId)).toEqual([2, 1]);
  });

  it('prefers the bin that the need empties, then the walk', () => {
    expect(chooseBins([bin(1, 9), bin(2, 4), bin(3, 6)], 4, 'fifo').choices).toEqual([{ placeId: 2, lotId: 0, units: 4 }]);
    expect(chooseBins([bin(5, 9), bin(2, 8)], 3, 'fifo').choices[0]?.placeId).toBe(2);
  });

  it('says what is short', () => {
    expect(chooseBins([bin(1, 2), bin(2, 0)], 5, 'fifo')).toMatchObject({ choices: [{ units: 2 }], short: 3 });
    expect(chooseBins([], 5, 'fifo')).toEqual({ choices: [], short: 5 });
  });

  it('takes no more than is there and no more than is wanted, and leaves the rows alone', () => {
    const rows = fc.array(
      fc.record({
        placeId: fc.integer({ min: 1, max: 9 }),
        lotId: fc.nat(2),
        walkOrder: fc.nat(9),
        units: fc.nat(20),
        expires: fc.option(fc.constantFrom('2027-01-01', '2027-02-01')),
      }),
      { maxLength: 8 },
    );
    fc.assert(
      fc.property(rows, fc.integer({ min: 1, max: 100 }), (list, units) => {
        const before = JSON.stringify(list);
        const { choices, short } = chooseBins(list, units, 'fefo');
        const taken = choices.reduce((n, c) => n + c.units, 0);
        expect(taken + short).toBe(units);
        expect(taken).toBe(
          Math.min(
            units,
            list.reduce((n, r) => n + r.units, 0),
          ),
        );
        expect(JSON.stringify(list)).toBe(before);
      }),
    );
  });
});

describe('reserving', () => {
  const order = (orderId: number, short: number, more: Partial<WaitingOrder> = {}): WaitingOrder => ({
    orderId,
    priority: 0,
    promised: '2027-03-01T15:00:00Z',
    placed: '2027-02-28T10:00:00Z',
    lines: [{ lineId: orderId * 10, itemId: 1, short }],
    ...more,
  });

  it('serves priority, then promise, then placing, then number', () => {
    const orders = [
      order(4, 1),
      order(3, 1, { placed: '2027-02-27T10:00:00Z' }),
      order(2, 1, { promised: '2027-02-28T15:00:00Z' }),
      order(1, 1, { priority: 5, promised: '2027-09-01T00:00:00Z' }),
      order(5, 1),
    ];
    expect(reserve(orders, new Map([[1, 4]])).map((g) => g.lineId)).toEqual([10, 20, 30, 40]);
  });

  it('reads instants as instants, not as text', () => {
    const orders = [order(1, 1, { promised: '2027-03-01T15:00:00+02:00' }), order(2, 1, { promised: '2027-03-01T14:00:00Z' })];
    expect(reserve(orders, new Map([[1, 1]]))[0]?.lineId).toBe(10);
  });

  it('gives a part where there is no more', () => {
    expect(reserve([order(1, 5)], new Map([[1, 3]]))).toEqual([{ lineId: 10, itemId: 1, units: 3 }]);
    expect(reserve([order(1, 5)], new Map())).toEqual([]);
    expect(reserve([order(1, 5)], new Map([[1, -2]]))).toEqual([]);
  });

  it('gives an order that goes only whole all that it lacks or nothing, and leaves to others what it cannot use', () => {
    const whole = {
      ...order(1, 3),
      wholeOnly: true,
      lines: [
        { lineId: 11, itemId: 1, short: 2 },
        { lineId: 12, itemId: 1, short: 2 },
        { lineId: 13, itemId: 2, short: 1 },
      ],
    };
    const after = order(2, 3, { promised: '2027-04-01T15:00:00Z' });
    const units = (grants: ReturnType<typeof reserve>) => grants.map((g) => [g.lineId, g.units]);
    expect(
      units(
        reserve(
          [whole, after],
          new Map([
            [1, 3],
            [2, 1],
          ]),
        ),
      ),
    ).toEqual([[20, 3]]);
    expect(
      units(
        reserve(
          [whole, after],
          new Map([
            [1, 6],
            [2, 1],
          ]),
        ),
      ),
    ).toEqual([
      [11, 2],
      [12, 2],
      [13, 1],
      [20, 2],
    ]);
    expect(units(reserve([whole], new Map([[1, 6]])))).toEqual([]);
  });

  it('never gives out more than there is', () => {
    const line = fc.record({ lineId: fc.nat(), itemId: fc.integer({ min: 1, max: 3 }), short: fc.nat(20) });
    const any = fc.record({
      orderId: fc.nat(),
      priority: fc.nat(3),
      promised: fc.constantFrom('2027-03-01T15:00:00Z', '2027-03-02T15:00:00Z'),
      placed: fc.constant('2027-02-28T10:00:00Z'),
      lines: fc.array(line, { maxLength: 4 }),
    });
    fc.assert(
      fc.property(fc.array(any, { maxLength: 12 }), fc.nat(40), (orders, units) => {
        const grants = reserve(
          orders,
          new Map([
            [1, units],
            [2, 5],
          ]),
        );
        const sum = (item: number) => grants.filter((g) => g.itemId === item).reduce((n, g) => n + g.units, 0);
        expect(sum(1)).toBeLessThanOrEqual(units);
        expect(sum(2)).toBeLessThanOrEqual(5);
        expect(sum(3)).toBe(0);
      }),
    );
  });
});
