import fc from 'fast-check';
import { floorOf, metresOfWalks, type Segment } from '../walk/index.js';
import { minutesLeft, minutesOf, NO_LIMITS, ownSeconds, proposeRounds, shareOut, type RoundLimits, type WaitingToPick } from './index.js';

/** Four aisles between two cross aisles; the table is before them. */
const segments: Segment[] = [
  { id: 1, x: 0, y: 2, toX: 16, toY: 2 },
  { id: 2, x: 0, y: 22, toX: 16, toY: 22 },
  ...[2, 6, 10, 14].map((x, i) => ({ id: 10 + i, x, y: 2, toX: x, toY: 22 })),
];
const floor = floorOf(segments);
const table = { x: 0, y: 2 };
const places = [2, 6, 10, 14].flatMap((x) => [6, 12, 18].map((y) => ({ x: x + 0.5, y })));
const order = (at: number[], more: Partial<WaitingToPick> = {}): WaitingToPick => ({
  places: at,
  units: 1,
  weightG: 500,
  volumeMl: 800,
  departure: '15:30',
  ...more,
});
const propose = (orders: WaitingToPick[], limits: Partial<RoundLimits> = {}, on = { floor, places: places as (typeof table | null)[] }) =>
  proposeRounds({ ...on, table, orders, limits: { ...NO_LIMITS, ...limits } }, { seconds: 0.02, seed: 1 });

describe('rounds that are proposed', () => {
  it('put those together that lie together', () => {
    const rounds = propose([order([0, 1]), order([11]), order([2]), order([9, 10])], { orders: 2 });
    expect(rounds.map((r) => r.join()).sort()).toEqual(['0,2', '1,3']);
  });

  it('never mix vans, and begin with the first', () => {
    const rounds = propose([order([0]), order([0], { departure: '17:00' }), order([1]), order([1], { departure: '17:00' })]);
    expect(rounds).toEqual([
      [0, 2],
      [1, 3],
    ]);
  });

  it('leave an order that is too much for any round a round of its own', () => {
    const rounds = propose([order([0]), order([0], { weightG: 90_000 }), order([1])], { weightG: 80_000 });
    expect(rounds.map((r) => r.join()).sort()).toEqual(['0,2', '1']);
  });

  it('group by the walking order of bins where nothing is drawn, and take places that no way leads to', () => {
    const bare = { floor: floorOf([]), places: places.map(() => null) };
    expect(
      propose([order([0]), order([11]), order([1]), order([10])], { orders: 2 }, bare)
        .map((r) => r.join())
        .sort(),
    ).toEqual(['0,2', '1,3']);
    const island = floorOf([...segments, { id: 99, x: 40, y: 40, toX: 50, toY: 40 }]);
    expect(propose([order([0]), order([12])], {}, { floor: island, places: [...places, { x: 45, y: 40 }] })).toEqual([[0, 1]]);
  });

  it('hold every order once and keep to the limits, whatever waits', () => {
    const any = fc.record({
      places: fc.uniqueArray(fc.nat(11), { minLength: 1, maxLength: 4 }),
      units: fc.integer({ min: 1, max: 30 }),
      weightG: fc.integer({ min: 0, max: 40_000 }),
      volumeMl: fc.nat(9000),
      departure: fc.constantFrom('15:30', '17:00'),
    });
    fc.assert(
      fc.property(fc.array(any, { maxLength: 14 }), fc.integer({ min: 1, max: 4 }), (orders, most) => {
        const limits = { ...NO_LIMITS, orders: most, weightG: 50_000 };
        const heard: number[][][] = [];
        const rounds = proposeRounds({ floor, table, places, orders, limits }, { seconds: 0.003, seed: 2 }, undefined, (r) =>
          heard.push(r),
        );
        for (const found of [rounds, ...heard]) expect(found.flat().sort((a, b) => a - b)).toEqual([...orders.keys()]);
        for (const round of rounds) {
          expect(round.length).toBeLessThanOrEqual(most);
          expect(round.reduce((n, i) => n + orders[i]!.weightG, 0)).toBeLessThanOrEqual(50_000);
          expect(new Set(round.map((i) => orders[i]!.departure)).size).toBe(1);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('walk less than one by one', () => {
    const orders = Array.from({ length: 12 }, (_, i) => order([i % 12, (i * 5) % 12]));
    const metres = (rounds: number[][]) =>
      metresOfWalks(
        floor,
        rounds.map((r) => [...new Set(r.flatMap((i) => orders[i]!.places))].map((p) => places[p]!)),
        table,
        table,
      ).reduce((a, b) => a + b, 0);
    expect(metres(propose(orders, { orders: 4 }))).toBeLessThan(0.6 * metres(orders.map((_, i) => [i])));
  });
});

describe('shares', () => {
  it('go to whoever is free first, the first van before others', () => {
    const shares = shareOut(
      [
        { minutes: 10, leavesIn: 200 },
        { minutes: 20, leavesIn: 60 },
        { minutes: 5, leavesIn: 60 },
      ],
      [0, 4],
    );
    expect(shares).toEqual([
      { person: 1, from: 9, to: 19 },
      { person: 0, from: 0, to: 20 },
      { person: 1, from: 4, to: 9 },
    ]);
  });

  it('are nobody’s where nobody is there', () => {
    expect(shareOut([{ minutes: 1, leavesIn: Infinity }], [])).toEqual([null]);
  });

  it('take as long as the walk, the stops and the pieces', () => {
    expect(minutesOf({ metres: 120, stops: 3, units: 18 })).toBe(3);
    // Whoever was seen at enough stops is reckoned by what they took for them.
    expect(ownSeconds({ stops: 19, seconds: 600 })).toBeNull();
    expect(ownSeconds({ stops: 40, seconds: 40 })).toBeNull();
    expect(ownSeconds({ stops: 40, seconds: 1200 })).toBe(30);
    expect(minutesLeft({ metres: 120, stops: 3, units: 18 }, null)).toBe(3);
    expect(minutesLeft({ metres: 120, stops: 3, units: 18 }, 30)).toBe(1.5);
  });
});
