import { planRounds, type RoundOrder } from '@vectrum/core/rounds';
import { seeded } from '@vectrum/core/random';
import { type OnFloor, shortestRoute, type WalkEdge, type WalkFloor } from '@vectrum/core/walk';

const AISLE_M = 12;
const GAP_M = 4;
const BAYS = 10;

/** Aisles along y joined by cross aisles, with ten places in each piece of an aisle. */
function grid(columns: number, rows: number): { floor: WalkFloor; places: OnFloor[] } {
  const edges: WalkEdge[] = [];
  const places: OnFloor[] = [];
  for (let n = 0; n < columns * rows; n++) {
    if ((n % columns) + 1 < columns) edges.push({ a: n, b: n + 1, length: GAP_M });
    if (n + columns >= columns * rows) continue;
    for (let bay = 0; bay < BAYS; bay++) places.push({ edge: edges.length, offset: (AISLE_M * (bay + 0.5)) / BAYS });
    edges.push({ a: n, b: n + columns, length: AISLE_M });
  }
  const place = (n: number) => ({ x: (n % columns) * GAP_M, y: Math.floor(n / columns) * AISLE_M });
  return { floor: { nodes: columns * rows, edges, place }, places };
}

/** A floor that is no grid: each crossing joined to those nearest to it, and all of them to one another somehow. */
function tangle(nodes: number, near: number, random: () => number): { floor: WalkFloor; places: OnFloor[] } {
  const at = Array.from({ length: nodes }, () => ({ x: random() * 60, y: random() * 60 }));
  const far = (a: number, b: number) => Math.hypot((at[a]?.x ?? 0) - (at[b]?.x ?? 0), (at[a]?.y ?? 0) - (at[b]?.y ?? 0));
  const edges: WalkEdge[] = [];
  for (let a = 1; a < nodes; a++) {
    const b = [...Array(a).keys()].sort((m, n) => far(a, m) - far(a, n))[0] ?? 0;
    edges.push({ a, b, length: far(a, b) });
  }
  for (let a = 0; a < nodes; a++)
    for (const b of [...at.keys()]
      .filter((n) => n !== a)
      .sort((m, n) => far(a, m) - far(a, n))
      .slice(0, near))
      edges.push({ a, b, length: far(a, b) });
  const places = Array.from({ length: 300 }, () => {
    const edge = Math.floor(random() * edges.length);
    return { edge, offset: random() * (edges[edge]?.length ?? 0) };
  });
  return { floor: { nodes, edges, place: (n) => at[n] ?? { x: 0, y: 0 } }, places };
}

/** Up one aisle that holds something and down the next, each from end to end, and back: what people do who have no plan. */
function snaking(columns: number, rows: number, stops: readonly OnFloor[], floor: WalkFloor): number {
  const wanted = new Set(stops.map((s) => (floor.edges[s.edge]?.a ?? 0) % columns));
  const last = Math.max(...wanted);
  const aisles = wanted.size + (wanted.size % 2);
  return aisles * AISLE_M * (rows - 1) + 2 * last * GAP_M;
}

const median = (list: readonly number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;
const percent = (share: number) => `${(100 * share).toFixed(1)} %`;

/** So many more searches are made where nothing was proved, each from another order of the stops and so by other ways. */
const SEARCHES = 5;

/** The shortest of the walks that searches from other orders of the stops find. */
function shortestFound(floor: WalkFloor, stops: readonly OnFloor[]): number {
  const random = seeded(11);
  const other = () => [...stops].map((s) => [random(), s] as const).sort(([a], [b]) => a - b);
  return Math.min(
    ...Array.from(
      { length: SEARCHES },
      () =>
        shortestRoute(
          floor,
          other().map(([, s]) => s),
          0,
          0,
        ).metres,
    ),
  );
}

/** Walks through 60 stops on several floors, and rounds of 100 and 500 orders, as lines to print. */
export function* walks(): Generator<string> {
  for (const [name, columns, rows] of [
    ['two cross aisles', 20, 2],
    ['three cross aisles', 20, 3],
    ['five cross aisles', 20, 5],
    ['ten cross aisles', 20, 10],
    ['a tangle', 0, 3],
    ['a dense tangle', 0, 6],
  ] as const) {
    const random = seeded(7);
    const [times, gaps, saved, behind]: number[][] = [[], [], [], []];
    let proved = 0;
    for (let n = 0; n < 12; n++) {
      const { floor, places } = columns > 0 ? grid(columns, rows) : tangle(90, rows, random);
      const stops = Array.from({ length: 60 }, () => places[Math.floor(random() * places.length)]).filter((p) => p !== undefined);
      const begun = performance.now();
      const route = shortestRoute(floor, stops, 0, 0);
      times?.push(performance.now() - begun);
      gaps?.push(route.metres / route.lowerBound - 1);
      if (route.optimal) proved++;
      else behind?.push(route.metres / Math.min(route.metres, shortestFound(floor, stops)) - 1);
      if (columns > 0) saved?.push(1 - route.metres / snaking(columns, rows, stops, floor));
    }
    const less = saved?.length ? `, ${percent(median(saved))} less than snaking through the aisles` : '';
    const found = behind?.length ? `, at most ${percent(Math.max(...behind))} above the best of ${SEARCHES} more searches` : '';
    yield `a walk through 60 stops, ${name}: ${proved} of 12 proved shortest${found}, at most ${percent(Math.max(...(gaps ?? [])))} above what no walk can do without${less}; ${median(times ?? []).toFixed(0)} ms, at most ${Math.max(...(times ?? [])).toFixed(0)}`;
  }
  for (const [many, from, to, limit] of [
    [100, 5, 25, 8],
    [500, 1, 4, 12],
  ] as const) {
    const { floor, places } = grid(10, 3);
    const random = seeded(3);
    const orders: RoundOrder[] = Array.from({ length: many }, () => {
      const wanted = new Set<number>();
      for (const lines = from + Math.floor(random() * (to - from + 1)); wanted.size < lines;)
        wanted.add(Math.floor(random() * places.length));
      return { places: [...wanted], units: wanted.size, weightG: 0, volumeMl: 0 };
    });
    const problem = { floor, places, start: 0, end: 0, orders };
    const limits = { orders: limit, units: Infinity, weightG: Infinity, volumeMl: Infinity };
    const metres = (rounds: readonly { metres: number }[]) => rounds.reduce((sum, r) => sum + r.metres, 0);
    const alone = metres(planRounds({ ...problem, limits: { ...limits, orders: 1 } }, { seconds: 0, seed: 1 }));
    const first = metres(planRounds({ ...problem, limits }, { seconds: 0, seed: 1 }));
    const begun = performance.now();
    const rounds = planRounds({ ...problem, limits }, { seconds: 10, seed: 1 });
    yield `${many} orders of ${from} to ${to} lines in ${rounds.length} rounds: ${metres(rounds).toFixed(0)} m, ${percent(1 - metres(rounds) / alone)} less than one by one and ${percent(1 - metres(rounds) / first)} less than the first grouping, in ${((performance.now() - begun) / 1000).toFixed(1)} s`;
  }
}
