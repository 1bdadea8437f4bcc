import fc from 'fast-check';
import { seeded } from '../random/index.js';
import { edgesAt, type WalkEdge, waysFrom } from './graph.js';
import { NoWay, type OnFloor, shortestRoute, type WalkFloor, WalkMeter } from './index.js';

interface Case {
  floor: WalkFloor;
  stops: OnFloor[];
  start: number;
  end: number;
}

/** The shortest walk worked out another way: over all orders of the stops (Held and Karp 1962), metres between them by the floor alone. */
function bestOf({ floor, stops, start, end }: Case): number {
  const at = edgesAt(floor);
  const ways = Array.from({ length: floor.nodes }, (_, n) => waysFrom(floor, at, n).metres);
  const sides = ({ edge, offset }: OnFloor): [number, number][] => {
    const e = floor.edges[edge]!;
    return [
      [e.a, offset],
      [e.b, e.length - offset],
    ];
  };
  const metres = (p: OnFloor | number, q: OnFloor | number): number => {
    const [from, to] = [p, q].map((x): [number, number][] => (typeof x === 'number' ? [[x, 0]] : sides(x)));
    const over = Math.min(...from!.flatMap(([m, a]) => to!.map(([n, b]) => a + ways[m]![n]! + b)));
    return typeof p !== 'number' && typeof q !== 'number' && p.edge === q.edge ? Math.min(over, Math.abs(p.offset - q.offset)) : over;
  };
  const n = stops.length;
  if (n === 0) return metres(start, end);
  const best = Array.from({ length: 1 << n }, () => new Float64Array(n).fill(Infinity));
  for (let i = 0; i < n; i++) best[1 << i]![i] = metres(start, stops[i]!);
  for (let set = 1; set < 1 << n; set++)
    for (let i = 0; i < n; i++) {
      if (best[set]![i] === Infinity) continue;
      for (let j = 0; j < n; j++)
        if (!(set & (1 << j)))
          best[set | (1 << j)]![j] = Math.min(best[set | (1 << j)]![j]!, best[set]![i]! + metres(stops[i]!, stops[j]!));
    }
  return Math.min(...stops.map((s, i) => best[(1 << n) - 1]![i]! + metres(s, end)));
}

/** The metres of a route as it says it walks. */
function walkedOf(c: Case, order: readonly number[]): number {
  let sum = 0;
  const one = (stops: OnFloor[], start: number, end: number) => bestOf({ ...c, stops, start, end });
  if (order.length === 0) return one([], c.start, c.end);
  // Between two stops: through both, less what leads to them from a node and back to it.
  const at = edgesAt(c.floor);
  const ways = Array.from({ length: c.floor.nodes }, (_, n) => waysFrom(c.floor, at, n).metres);
  let here: OnFloor | null = null;
  for (const i of order) {
    const next = c.stops[i]!;
    const e = c.floor.edges[next.edge]!;
    const to: [number, number][] = [
      [e.a, next.offset],
      [e.b, e.length - next.offset],
    ];
    if (here === null) sum += Math.min(...to.map(([n, m]) => ways[c.start]![n]! + m));
    else {
      const f: WalkEdge = c.floor.edges[here.edge]!;
      const from: [number, number][] = [
        [f.a, here.offset],
        [f.b, f.length - here.offset],
      ];
      const over = Math.min(...from.flatMap(([m, a]) => to.map(([n, b]) => a + ways[m]![n]! + b)));
      sum += here.edge === next.edge ? Math.min(over, Math.abs(here.offset - next.offset)) : over;
    }
    here = next;
  }
  const last = c.stops[order.at(-1)!]!;
  const f = c.floor.edges[last.edge]!;
  return sum + Math.min(ways[f.a]![c.end]! + last.offset, ways[f.b]![c.end]! + f.length - last.offset);
}

function holds(c: Case): void {
  const route = shortestRoute(c.floor, c.stops, c.start, c.end);
  expect([...route.order].sort((a, b) => a - b)).toEqual([...c.stops.keys()]);
  expect(walkedOf(c, route.order)).toBeCloseTo(route.metres, 4);
  const best = bestOf(c);
  expect(route.lowerBound).toBeLessThanOrEqual(best + 1e-6);
  expect(route.metres).toBeGreaterThanOrEqual(best - 1e-6);
  if (route.optimal) expect(route.metres).toBeCloseTo(best, 4);
}

/** Aisles along y, joined by so many cross aisles; the walk begins at a corner. */
export function aisles(columns: number, rows: number, gapM = 4, aisleM = 12): WalkFloor {
  const place = (n: number) => ({ x: (n % columns) * gapM, y: Math.floor(n / columns) * aisleM });
  const edges: WalkEdge[] = [];
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) {
      const n = r * columns + c;
      if (c + 1 < columns) edges.push({ a: n, b: n + 1, length: gapM });
      if (r + 1 < rows) edges.push({ a: n, b: n + columns, length: aisleM });
    }
  return { nodes: columns * rows, edges, place };
}
const some = (floor: WalkFloor, n: number, random: () => number): OnFloor[] =>
  Array.from({ length: n }, () => {
    const edge = Math.floor(random() * floor.edges.length);
    return { edge, offset: Math.round(random() * (floor.edges[edge]?.length ?? 0) * 4) / 4 };
  });

/** Any floor at all: forks and dead ends, ways side by side, loops, ways of no length. */
const tangle = fc
  .record({
    nodes: fc.integer({ min: 1, max: 9 }),
    edges: fc.array(fc.tuple(fc.nat(8), fc.nat(8), fc.integer({ min: 0, max: 12 })), { minLength: 1, maxLength: 14 }),
    stops: fc.array(fc.tuple(fc.nat(), fc.integer({ min: 0, max: 8 })), { maxLength: 7 }),
    ends: fc.tuple(fc.nat(8), fc.nat(8)),
  })
  .map(({ nodes, edges, stops, ends }): Case => {
    const read = edges.map(([a, b, length]): WalkEdge => ({ a: a % nodes, b: b % nodes, length }));
    return {
      floor: { nodes, edges: read, place: (n) => ({ x: n % 3, y: Math.floor(n / 3) }) },
      stops: stops.map(([edge, share]) => ({ edge: edge % read.length, offset: ((read[edge % read.length]?.length ?? 0) * share) / 8 })),
      start: ends[0] % nodes,
      end: ends[1] % nodes,
    };
  });

describe('the shortest walk through stops', () => {
  it('is what trying every order finds, on any floor, or says that no way leads there', () => {
    let [proved, all] = [0, 0];
    fc.assert(
      fc.property(tangle, (c) => {
        const best = bestOf(c);
        if (!Number.isFinite(best)) return void expect(() => shortestRoute(c.floor, c.stops, c.start, c.end)).toThrow(NoWay);
        holds(c);
        all++;
        if (shortestRoute(c.floor, c.stops, c.start, c.end).optimal) proved++;
      }),
      { numRuns: 300 },
    );
    expect(proved).toBe(all);
  });

  it('is proved where it ends beside a node that closes with the last stretch', () => {
    const edges = [
      [2, 0, 3],
      [1, 3, 4],
      [1, 0, 3],
      [2, 0, 7],
      [0, 1, 12],
      [4, 2, 2],
      [3, 2, 3],
    ].map(([a = 0, b = 0, length = 0]) => ({ a, b, length }));
    const stops = [
      [1, 2.5],
      [3, 2.625],
      [6, 1.875],
      [0, 0],
      [4, 9],
    ].map(([edge = 0, offset = 0]) => ({ edge, offset }));
    const route = shortestRoute({ nodes: 5, edges, place: (n) => ({ x: n % 3, y: Math.floor(n / 3) }) }, stops, 3, 0);
    expect([route.metres, route.optimal]).toEqual([24, true]);
  });

  it.each([1, 2, 3, 4, 5])('is found for certain between %s cross aisles', (rows) => {
    const floor = aisles(7, rows);
    const random = seeded(rows);
    for (let i = 0; i < 6; i++) {
      const ends = [Math.floor(random() * floor.nodes), Math.floor(random() * floor.nodes)] as const;
      const c = { floor, stops: some(floor, 10, random), start: ends[0], end: i % 2 ? ends[0] : ends[1] };
      holds(c);
      expect(shortestRoute(c.floor, c.stops, c.start, c.end).optimal).toBe(true);
    }
  });

  it('is found for certain for sixty stops, and is never longer than a good order', () => {
    for (const [columns, rows] of [
      [20, 2],
      [20, 3],
      [12, 5],
    ] as const) {
      const floor = aisles(columns, rows);
      const stops = some(floor, 60, seeded(columns + rows));
      const route = shortestRoute(floor, stops, 0, 0);
      expect(route).toMatchObject({ optimal: true, lowerBound: route.metres });
      expect(walkedOf({ floor, stops, start: 0, end: 0 }, route.order)).toBeCloseTo(route.metres, 4);
    }
  });

  it('claims nothing where a floor is too tangled, and comes near what no walk can do without', () => {
    const random = seeded(5);
    const nodes = 90;
    const at = Array.from({ length: nodes }, () => ({ x: random() * 60, y: random() * 60 }));
    const edges: WalkEdge[] = [];
    for (let a = 0; a < nodes; a++)
      for (const b of [...at.keys()]
        .filter((n) => n !== a)
        .sort((m, n) => Math.hypot(at[m]!.x - at[a]!.x, at[m]!.y - at[a]!.y) - Math.hypot(at[n]!.x - at[a]!.x, at[n]!.y - at[a]!.y))
        .slice(0, 6))
        edges.push({ a, b, length: Math.hypot(at[b]!.x - at[a]!.x, at[b]!.y - at[a]!.y) });
    const floor: WalkFloor = { nodes, edges, place: (n) => at[n]! };
    const stops = some(floor, 60, random);
    const route = shortestRoute(floor, stops, 0, 1);
    expect(route.lowerBound).toBeLessThanOrEqual(route.metres);
    expect(route.metres / route.lowerBound).toBeLessThan(1.03);
  });

  it('is the same for the same input, whatever the order in which the stops are named', () => {
    const floor = aisles(9, 3);
    const stops = some(floor, 25, seeded(3));
    const route = shortestRoute(floor, stops, 0, 4);
    expect(shortestRoute(floor, stops, 0, 4)).toEqual(route);
    expect(shortestRoute(floor, [...stops].reverse(), 0, 4).metres).toBeCloseTo(route.metres, 6);
  });

  it('of no stops is the way from the start to the end', () => {
    expect(shortestRoute(aisles(3, 2), [], 0, 5)).toEqual({ order: [], metres: 20, optimal: true, lowerBound: 20 });
    expect(shortestRoute(aisles(3, 2), [], 2, 2)).toMatchObject({ metres: 0, optimal: true });
  });

  it('with all stops in one aisle goes in and comes back', () => {
    const floor = aisles(5, 2);
    const aisle = floor.edges.findIndex((e) => e.length === 12);
    const stops = [9, 3, 6, 3].map((offset) => ({ edge: aisle, offset }));
    const route = shortestRoute(floor, stops, floor.edges[aisle]!.a, floor.edges[aisle]!.a);
    expect(route).toMatchObject({ metres: 18, optimal: true });
  });
});

describe('measuring walks through sets of places', () => {
  it('gives what the shortest walk through them is, on any floor', () => {
    fc.assert(
      fc.property(tangle, fc.infiniteStream(fc.boolean()), (c, chosen) => {
        if (!Number.isFinite(bestOf(c))) return;
        const meter = WalkMeter.of(c.floor, c.stops, c.start, c.end)!;
        const wanted = c.stops.map(() => (chosen.next().value ? 1 : 0));
        const some = c.stops.filter((_, i) => wanted[i] === 1);
        expect(meter.metres(wanted)).toBeCloseTo(shortestRoute(c.floor, some, c.start, c.end).metres, 4);
      }),
      { numRuns: 300 },
    );
  });

  it('gives it between cross aisles, for many places', () => {
    for (const rows of [2, 3, 4]) {
      const floor = aisles(10, rows);
      const places = some(floor, 200, seeded(rows));
      const meter = WalkMeter.of(floor, places, 0, 3)!;
      const random = seeded(9);
      for (let n = 0; n < 10; n++) {
        const wanted = places.map(() => (random() < 0.15 ? 1 : 0));
        const route = shortestRoute(
          floor,
          places.filter((_, i) => wanted[i]),
          0,
          3,
        );
        expect(meter.metres(wanted)).toBeCloseTo(route.metres, 4);
      }
    }
  });
});
