import fc from 'fast-check';
import { seeded } from '../random/index.js';
import { NoWay, type OnFloor, shortestRoute, type WalkEdge, type WalkFloor } from '../walk/index.js';
import { NO_LIMITS, type PlannedRound, planRounds, type RoundOrder, type RoundsToPlan } from './index.js';

/** Aisles along y joined by cross aisles, with ten places in each piece of aisle. */
function house(columns: number, rows: number): { floor: WalkFloor; places: OnFloor[] } {
  const place = (n: number) => ({ x: (n % columns) * 4, y: Math.floor(n / columns) * 12 });
  const edges: WalkEdge[] = [];
  const places: OnFloor[] = [];
  for (let n = 0; n < columns * rows; n++) {
    if ((n % columns) + 1 < columns) edges.push({ a: n, b: n + 1, length: 4 });
    if (n + columns >= columns * rows) continue;
    for (let bay = 0; bay < 10; bay++) places.push({ edge: edges.length, offset: 0.6 + 1.2 * bay });
    edges.push({ a: n, b: n + columns, length: 12 });
  }
  return { floor: { nodes: columns * rows, edges, place }, places };
}
function orders(many: number, lines: readonly [number, number], places: number, seed: number): RoundOrder[] {
  const random = seeded(seed);
  return Array.from({ length: many }, () => {
    const n = lines[0] + Math.floor(random() * (lines[1] - lines[0] + 1));
    const wanted = new Set<number>();
    while (wanted.size < n) wanted.add(Math.floor(random() * places));
    return { places: [...wanted], units: n, weightG: 100 * n, volumeMl: 500 * n };
  });
}
const metresOf = (rounds: readonly PlannedRound[]) => rounds.reduce((sum, r) => sum + r.metres, 0);

/** What must be true of any plan: every order once, no limit broken, each walk through all of its places and as long as it says. */
function holds(problem: RoundsToPlan, rounds: readonly PlannedRound[]): void {
  const { floor, places, limits, start, end } = problem;
  expect(rounds.flatMap((r) => r.orders).sort((a, b) => a - b)).toEqual([...problem.orders.keys()]);
  for (const round of rounds) {
    const own = round.orders.map((o) => problem.orders[o]!);
    const sum = (of: (o: RoundOrder) => number) => own.reduce((s, o) => s + of(o), 0);
    expect(own.length).toBeLessThanOrEqual(limits.orders);
    expect(sum((o) => o.units)).toBeLessThanOrEqual(limits.units);
    expect(sum((o) => o.weightG)).toBeLessThanOrEqual(limits.weightG);
    expect(sum((o) => o.volumeMl)).toBeLessThanOrEqual(limits.volumeMl);
    const wanted = [...new Set(own.flatMap((o) => o.places))].sort((a, b) => a - b);
    expect([...round.walk].sort((a, b) => a - b)).toEqual(wanted);
    const route = shortestRoute(
      floor,
      wanted.map((p) => places[p]!),
      start,
      end,
    );
    expect(round.metres).toBeCloseTo(route.metres, 4);
  }
}
const alone = (problem: RoundsToPlan) =>
  metresOf(planRounds({ ...problem, limits: { ...problem.limits, orders: 1 } }, { seconds: 0, seed: 1 }));

describe('rounds', () => {
  it('hold every order once and break no limit, whatever the orders and limits are', () => {
    const { floor, places } = house(5, 2);
    const limit = fc.option(fc.integer({ min: 6, max: 30 }), { nil: Infinity });
    fc.assert(
      fc.property(
        fc.nat(500),
        fc.nat(25),
        limit,
        limit,
        fc.option(fc.integer({ min: 1, max: 6 }), { nil: Infinity }),
        (seed, many, units, hundreds, most) => {
          const limits = { orders: most, units, weightG: hundreds * 100, volumeMl: Infinity };
          const problem = { floor, places, start: 0, end: 4, limits, orders: orders(many, [0, 6], places.length, seed) };
          holds(problem, planRounds(problem, { seconds: 0.01, seed }));
        },
      ),
      { numRuns: 25 },
    );
  });

  it('walk far less than each order by itself, and less the longer they are looked for', () => {
    const { floor, places } = house(10, 3);
    const problem = { floor, places, start: 0, end: 0, limits: { ...NO_LIMITS, orders: 8 }, orders: orders(30, [5, 25], places.length, 3) };
    const [quick, longer] = [0, 0.3].map((seconds) => planRounds(problem, { seconds, seed: 1 }));
    holds(problem, longer!);
    expect(metresOf(quick!)).toBeLessThan(0.4 * alone(problem));
    expect(metresOf(longer!)).toBeLessThan(0.98 * metresOf(quick!));
  });

  it('are the same for the same seed, and told as they get better', () => {
    const { floor, places } = house(6, 2);
    const problem = { floor, places, start: 0, end: 0, limits: { ...NO_LIMITS, units: 30 }, orders: orders(30, [1, 8], places.length, 5) };
    const told: number[] = [];
    const first = planRounds(problem, { seconds: 0.1, seed: 4 }, undefined, (found) => told.push(found.metres));
    expect(planRounds(problem, { seconds: 0.1, seed: 4 })).toEqual(first);
    expect(told).toEqual([...told].sort((a, b) => b - a));
    expect(told.at(-1)).toBeCloseTo(metresOf(first), 4);
  });

  it('are found at once where they are told to stop', () => {
    const { floor, places } = house(6, 2);
    const problem = { floor, places, start: 0, end: 0, limits: NO_LIMITS, orders: orders(20, [1, 4], places.length, 1) };
    holds(
      problem,
      planRounds(problem, { seconds: 60, seed: 1 }, () => true),
    );
  });

  it('are one where nothing binds, and none without orders', () => {
    const { floor, places } = house(4, 2);
    const problem = { floor, places, start: 0, end: 0, limits: NO_LIMITS, orders: orders(12, [2, 5], places.length, 2) };
    expect(planRounds(problem, { seconds: 0.2, seed: 1 })).toHaveLength(1);
    expect(planRounds({ ...problem, orders: [] }, { seconds: 1, seed: 1 })).toEqual([]);
  });

  it('say where no way leads', () => {
    const { floor, places } = house(3, 2);
    const apart = { ...floor, nodes: floor.nodes + 2, edges: [...floor.edges, { a: floor.nodes, b: floor.nodes + 1, length: 5 }] };
    const all = [...places, { edge: floor.edges.length, offset: 2 }];
    const problem = {
      floor: apart,
      places: all,
      start: 0,
      end: 0,
      limits: NO_LIMITS,
      orders: [{ places: [all.length - 1], units: 1, weightG: 0, volumeMl: 0 }],
    };
    expect(() => planRounds(problem, { seconds: 1, seed: 1 })).toThrow(NoWay);
  });

  it('are planned on a floor that is too tangled to be measured fast', () => {
    const random = seeded(2);
    const at = Array.from({ length: 60 }, () => ({ x: random() * 40, y: random() * 40 }));
    const edges: WalkEdge[] = at.flatMap((p, a) =>
      at.flatMap((q, b): WalkEdge[] => {
        const length = Math.hypot(p.x - q.x, p.y - q.y);
        return a < b && length < 16 ? [{ a, b, length }] : [];
      }),
    );
    const floor = { nodes: at.length, edges, place: (n: number) => at[n]! };
    const places = Array.from({ length: 60 }, () => {
      const edge = Math.floor(random() * edges.length);
      return { edge, offset: random() * edges[edge]!.length };
    });
    const problem = { floor, places, start: 0, end: 0, limits: { ...NO_LIMITS, orders: 5 }, orders: orders(15, [1, 4], 60, 8) };
    const rounds = planRounds(problem, { seconds: 0.3, seed: 1 });
    expect(rounds.flatMap((r) => r.orders).sort((a, b) => a - b)).toEqual([...problem.orders.keys()]);
    expect(metresOf(rounds)).toBeLessThan(alone(problem));
  });
});
