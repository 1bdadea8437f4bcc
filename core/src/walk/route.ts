import { exactWalk } from './exact-walk.js';
import { planOf } from './frontier.js';
import { type Distances, goodWalk, metresOfOrder } from './good-walk.js';
import { edgesAt, type WalkEdge, type WalkGraph, waysFrom } from './graph.js';
import { addWalked, reduced } from './stretches.js';
import { walkBound } from './walk-bound.js';

/** A floor to walk on: nodes with their places, and edges between them. */
export interface WalkFloor extends WalkGraph {
  /** Where a node is, in metres. It says in which order the floor is looked at, and nothing of its lengths. */
  place: (node: number) => { x: number; y: number };
}
/** Where something is: on an edge, so many metres from its node `a`. */
export interface OnFloor {
  edge: number;
  offset: number;
}
export interface Route {
  /** Stops in the order of the walk, by their index. */
  order: number[];
  metres: number;
  /** Whether no shorter walk exists. True only where that was proved; then `lowerBound` is `metres`. */
  optimal: boolean;
  /** No walk is shorter than this. */
  lowerBound: number;
}
/** No way leads to a stop, or to the end. */
export class NoWay extends Error {
  constructor(
    /** The stop by its index; null for the end. */
    readonly stop: number | null,
  ) {
    super(stop === null ? 'No way leads from the start to the end' : `No way leads from the start to stop ${stop}`);
  }
}

/** Entries that the exact search makes, at most: some tenth of a second, enough for sixty stops between five cross aisles. */
const MOST_STATES = 160_000;
/** How often a good order is shaken: to have a bound for the exact search, and where that was not enough. */
const FIRST_TRIES = 1_000;
const MORE_TRIES = 2_500;
/** From so many beginnings, since one that has settled is seldom shaken out of its neighbourhood. */
const MORE_SEEDS = [0, 1, 2, 3];
/** Beyond so many places an order is improved once and not shaken. */
const MOST_SHAKEN = 150;
/** Closer than a hundredth of a millimetre is the same place. */
const SAME_M = 1e-5;

/** The floor cut at its stops: each of them is a node of it. */
interface Cut extends WalkGraph {
  nodeOf: number[];
  place: WalkFloor['place'];
}

function cutAt(floor: WalkFloor, stops: readonly OnFloor[]): Cut {
  const onEdge = new Map<number, { offset: number; stop: number }[]>();
  stops.forEach(({ edge, offset }, stop) => onEdge.set(edge, [...(onEdge.get(edge) ?? []), { offset, stop }]));
  const nodeOf: number[] = [];
  const edges: WalkEdge[] = [];
  const places: { x: number; y: number }[] = [];
  floor.edges.forEach((edge, e) => {
    const on = (onEdge.get(e) ?? []).sort((p, q) => p.offset - q.offset);
    let [from, at] = [edge.a, 0];
    for (const { offset, stop } of on) {
      if (offset - at < SAME_M) nodeOf[stop] = from;
      else if (edge.length - offset < SAME_M) nodeOf[stop] = edge.b;
      else {
        const node = floor.nodes + places.length;
        const [p, q] = [floor.place(edge.a), floor.place(edge.b)];
        const share = offset / edge.length;
        places.push({ x: p.x + (q.x - p.x) * share, y: p.y + (q.y - p.y) * share });
        edges.push({ a: from, b: node, length: offset - at });
        nodeOf[stop] = node;
        [from, at] = [node, offset];
      }
    }
    edges.push({ a: from, b: edge.b, length: edge.length - at });
  });
  const place = (node: number) => (node < floor.nodes ? floor.place(node) : (places[node - floor.nodes] ?? { x: 0, y: 0 }));
  return { nodes: floor.nodes + places.length, edges, nodeOf, place };
}

/** Metres between all places that must be reached, and the edges of shortest ways between them: the others are never needed. */
function between(cut: Cut, stops: readonly number[], start: number, end: number): { distances: Distances; needed: Set<number> } {
  const at = edgesAt(cut);
  const all = [...stops, start, end];
  const size = all.length;
  const metres = new Float64Array(size * size);
  const needed = new Set<number>();
  all.forEach((from, i) => {
    const ways = waysFrom(cut, at, from);
    const taken = new Set<number>();
    all.forEach((to, j) => {
      metres[i * size + j] = ways.metres[to] ?? Infinity;
      for (let node = to; node !== from && !taken.has(node);) {
        taken.add(node);
        const e = ways.by[node] ?? -1;
        const edge = cut.edges[e];
        if (!edge) break;
        needed.add(e);
        node = edge.a === node ? edge.b : edge.a;
      }
    });
  });
  return { distances: { size, metres }, needed };
}

/** The order in which a walk that takes each edge so many times comes to each node for the first time (Hierholzer 1873). */
function firstVisits(graph: WalkGraph, counts: ReadonlyMap<number, number>, start: number): number[] {
  const left = new Map(counts);
  const at: number[][] = Array.from({ length: graph.nodes }, () => []);
  for (const e of left.keys()) {
    const edge = graph.edges[e];
    if (!edge) continue;
    at[edge.a]?.push(e);
    if (edge.a !== edge.b) at[edge.b]?.push(e);
  }
  const stack = [start];
  const walk: number[] = [];
  while (stack.length > 0) {
    const node = stack.at(-1) ?? start;
    const edges = at[node] ?? [];
    while (edges.length > 0 && (left.get(edges.at(-1) ?? -1) ?? 0) === 0) edges.pop();
    const e = edges.at(-1);
    const edge = e === undefined ? undefined : graph.edges[e];
    if (e === undefined || !edge) {
      walk.push(node);
      stack.pop();
      continue;
    }
    left.set(e, (left.get(e) ?? 0) - 1);
    stack.push(edge.a === node ? edge.b : edge.a);
  }
  return [...new Set(walk.reverse())];
}

/** The shortest walk where it can be found for certain; null where the floor is too tangled for that. */
function provedWalk(cut: Cut, needed: ReadonlySet<number>, stops: readonly number[], ends: readonly [number, number], bound: number) {
  const kept: WalkGraph = { nodes: cut.nodes, edges: [...needed].map((e) => cut.edges[e]).filter((e) => e !== undefined) };
  const small = reduced(kept, new Set(stops), ends[0], ends[1]);
  const counts = new Map(small.walked);
  let { metres } = small;
  if (small.stretches.length > 0) {
    const plan = planOf(small.stretches, small.must, ends, cut.place);
    const exact = exactWalk(plan, MOST_STATES, bound - metres);
    if (!exact) return null;
    metres += exact.metres;
    exact.walked.forEach((walked, i) => {
      const stretch = plan.steps[i]?.stretch;
      if (stretch) addWalked(counts, stretch, walked);
    });
  }
  const rank = new Map(firstVisits(kept, counts, ends[0]).map((node, i) => [node, i]));
  if (stops.some((s) => !rank.has(s))) return null;
  return { metres, order: [...stops.keys()].sort((i, j) => (rank.get(stops[i] ?? -1) ?? 0) - (rank.get(stops[j] ?? -1) ?? 0)) };
}

/**
 * The shortest walk from a node through all stops to another. It is found for certain on floors of aisles and cross aisles, and on any
 * other that can be looked at a few nodes at a time; elsewhere it is a good one, with metres that no walk can do without. The same
 * input gives the same answer. `known` is its length where a `WalkMeter` has measured it, which spares the search for a bound. Throws `NoWay` where a stop cannot be reached. About a tenth of a second for 60 stops.
 */
export function shortestRoute(floor: WalkFloor, stops: readonly OnFloor[], start: number, end: number, known?: number): Route {
  const cut = cutAt(floor, stops);
  const places = [...new Set(cut.nodeOf)].filter((node) => node !== start && node !== end);
  if (known !== undefined) {
    const walk = provedWalk(cut, new Set(cut.edges.keys()), places, [start, end], known);
    if (walk) return answer(cut, places, walk.order, start, walk.metres, walk.metres);
  }
  const { distances, needed } = between(cut, places, start, end);
  const { size, metres } = distances;
  for (let i = 0; i < size; i++) {
    if (metres[(size - 2) * size + i] !== Infinity) continue;
    throw new NoWay(i === size - 1 ? null : cut.nodeOf.indexOf(places[i] ?? -1));
  }
  const shaken = size <= MOST_SHAKEN;
  let good = goodWalk(distances, shaken ? FIRST_TRIES : 0);
  let upper = metresOfOrder(distances, good);
  const proved = provedWalk(cut, needed, places, [start, end], upper);
  if (proved) {
    const walked = metresOfOrder(distances, proved.order);
    // What is claimed must be what is walked.
    if (Math.abs(walked - proved.metres) < 1e-6) return answer(cut, places, proved.order, start, walked, walked);
  }
  for (const seed of shaken ? MORE_SEEDS : []) {
    const other = goodWalk(distances, MORE_TRIES, seed);
    const metresOfOther = metresOfOrder(distances, other);
    if (metresOfOther < upper) [good, upper] = [other, metresOfOther];
  }
  const bound = walkBound(distances, upper);
  return answer(cut, places, good, start, upper, upper - bound < 1e-6 ? upper : bound);
}

/** Stops that share a place follow each other; those where the walk begins come first, those where it ends last. */
function answer(cut: Cut, places: readonly number[], order: readonly number[], start: number, metres: number, lowerBound: number): Route {
  const rank = new Map(order.map((p, i) => [places[p] ?? -1, i]));
  const of = (stop: number) => {
    const node = cut.nodeOf[stop] ?? -1;
    return node === start ? -1 : (rank.get(node) ?? order.length);
  };
  return {
    order: [...cut.nodeOf.keys()].sort((i, j) => of(i) - of(j) || i - j),
    metres,
    optimal: lowerBound === metres,
    lowerBound,
  };
}
