import { alongOf, pointOn, segmentLength, type Standing, walkwaysOf, type Segment, type Walkways } from './plan.js';
import type { PlanPoint } from './point.js';

/** The walkable floor of a site: metres between any two places, by the shortest way along its walkways. */
export interface Floor {
  walkways: Walkways;
  /** The nearest point of the walkways to `p`. */
  standAt(p: PlanPoint): PlanPoint;
  /** Where `p` is by the walkways; undefined where nothing is drawn. */
  standing(p: PlanPoint): Standing | undefined;
  /** Metres from a to b along walkways; straight across where the floor has none, or no way joins the two. */
  metresBetween(a: PlanPoint, b: PlanPoint): number;
  /** Metres of a walk through places in their order. */
  metresOf(walk: readonly PlanPoint[]): number;
  /** The points of the way from a to b, both included. */
  wayBetween(a: PlanPoint, b: PlanPoint): PlanPoint[];
}

interface Foot {
  segment: Segment;
  at: PlanPoint;
  aside: number;
}

/** Makes a floor from walkable segments. Making is O(segments²), a question O(nodes² + edges). */
export function floorOf(segments: readonly Segment[]): Floor {
  const walkways = walkwaysOf(segments);
  const at = new Map(walkways.nodes.map((n) => [n.id, n]));
  const near = new Map<string, [string, number][]>(walkways.nodes.map((n) => [n.id, []]));
  for (const [a, b] of walkways.edges) {
    const [p, q] = [at.get(a), at.get(b)];
    if (!p || !q) continue;
    const length = Math.hypot(p.x - q.x, p.y - q.y);
    near.get(a)?.push([b, length]);
    near.get(b)?.push([a, length]);
  }
  const foot = (p: PlanPoint): Foot | undefined => {
    let best: Foot | undefined;
    for (const segment of segments) {
      const on = pointOn(segment, alongOf(segment, p));
      const aside = Math.hypot(on.x - p.x, on.y - p.y);
      if (!best || aside < best.aside - 1e-9) best = { segment, at: on, aside };
    }
    return best;
  };
  /** The nodes on both sides of a foot, with the metres to each. */
  const sides = (f: Foot): [string, number][] => {
    const along = alongOf(f.segment, f.at);
    const names = walkways.onSegment.get(f.segment.id) ?? [];
    const placed = names.map((name): [string, number] => [name, alongOf(f.segment, at.get(name) ?? f.at)]);
    const before = placed.filter(([, m]) => m <= along).at(-1);
    const after = placed.find(([, m]) => m >= along);
    return [before, after].flatMap((s): [string, number][] => (s ? [[s[0], Math.abs(s[1] - along)]] : []));
  };
  const edgeOf = new Map(walkways.edges.map(([a, b], i) => [[a, b].sort().join(), i]));
  const standing = (p: PlanPoint): Standing | undefined => {
    const on = foot(p);
    if (!on) return undefined;
    const names = walkways.onSegment.get(on.segment.id) ?? [];
    for (const [i, to] of names.entries()) {
      const [from = to, edge = -1] = [names[i - 1], edgeOf.get([names[i - 1] ?? to, to].sort().join())];
      const [p0, p1] = [at.get(from), at.get(to)];
      if (edge < 0 || !p0 || !p1 || (alongOf(on.segment, p1) < alongOf(on.segment, on.at) - 1e-9 && i < names.length - 1)) continue;
      const length = Math.hypot(p1.x - p0.x, p1.y - p0.y);
      const along = Math.min(length, Math.max(0, Math.hypot(on.at.x - p0.x, on.at.y - p0.y)));
      return { edge, offset: walkways.edges[edge]?.[0] === from ? along : length - along, aside: on.aside };
    }
    return undefined;
  };
  const search = (a: PlanPoint, b: PlanPoint): { metres: number; way: PlanPoint[] } => {
    const [from, to] = [foot(a), foot(b)];
    const straight = { metres: Math.hypot(a.x - b.x, a.y - b.y), way: [a, b] };
    if (!from || !to) return straight;
    const aside = from.aside + to.aside;
    const goals = new Map(sides(to));
    // Along one straight way nothing is shorter.
    if (from.segment.id === to.segment.id)
      return { metres: aside + Math.abs(alongOf(from.segment, from.at) - alongOf(to.segment, to.at)), way: [a, from.at, to.at, b] };
    let best = { metres: Infinity, way: [] as PlanPoint[] };
    const cost = new Map(sides(from));
    const back = new Map<string, string>();
    const done = new Set<string>();
    for (;;) {
      // Dijkstra (1959) with a plain scan: plans have tens of nodes.
      let next: string | undefined;
      for (const [name, c] of cost) if (!done.has(name) && (next === undefined || c < (cost.get(next) ?? Infinity))) next = name;
      if (next === undefined || (cost.get(next) ?? 0) + aside >= best.metres) break;
      done.add(next);
      const here = cost.get(next) ?? 0;
      const last = goals.get(next);
      if (last !== undefined && here + last + aside < best.metres) {
        const nodes: PlanPoint[] = [];
        for (let n: string | undefined = next; n !== undefined; n = back.get(n)) {
          const node = at.get(n);
          if (node) nodes.unshift({ x: node.x, y: node.y });
        }
        best = { metres: here + last + aside, way: [a, from.at, ...nodes, to.at, b] };
      }
      for (const [other, length] of near.get(next) ?? []) {
        if (here + length < (cost.get(other) ?? Infinity) - 1e-12) {
          cost.set(other, here + length);
          back.set(other, next);
        }
      }
    }
    return Number.isFinite(best.metres) ? best : straight;
  };
  const metresBetween = (a: PlanPoint, b: PlanPoint) => search(a, b).metres;
  return {
    walkways: { nodes: walkways.nodes, edges: walkways.edges },
    standAt: (p) => foot(p)?.at ?? p,
    standing,
    metresBetween,
    metresOf: (walk) => walk.slice(1).reduce((sum, to, i) => sum + metresBetween(walk[i] ?? to, to), 0),
    wayBetween: (a, b) => search(a, b).way.filter((p, i, way) => i === 0 || p.x !== way[i - 1]?.x || p.y !== way[i - 1]?.y),
  };
}

export interface AisleBin {
  id: number;
  aisleId: number;
  /** Metres from the aisle's first end. */
  along: number;
  /** Breaks ties within a bay: level, side. */
  code: string;
}

/**
 * The bins in the order of a walk that begins at `start`: to the nearest end of an aisle not yet walked, through it, and
 * on to the nearest end of the next. O(aisles² × a question of the floor + bins log bins).
 */
export function walkingOrder(aisles: readonly Segment[], floor: Floor, start: PlanPoint, bins: readonly AisleBin[]): number[] {
  const byAisle = new Map<number, AisleBin[]>();
  for (const bin of bins) byAisle.set(bin.aisleId, [...(byAisle.get(bin.aisleId) ?? []), bin]);
  const left = aisles.filter((a) => byAisle.has(a.id));
  const order: number[] = [];
  let here = start;
  while (left.length > 0) {
    const ends = left.flatMap((aisle, i) => [
      { i, aisle, forward: true, metres: floor.metresBetween(here, pointOn(aisle, 0)) },
      { i, aisle, forward: false, metres: floor.metresBetween(here, pointOn(aisle, segmentLength(aisle))) },
    ]);
    const next = ends.reduce((best, e) => (e.metres < best.metres - 1e-9 ? e : best));
    left.splice(next.i, 1);
    const along = (byAisle.get(next.aisle.id) ?? []).sort(
      (a, b) => (next.forward ? a.along - b.along : b.along - a.along) || (a.code < b.code ? -1 : 1),
    );
    order.push(...along.map((b) => b.id));
    here = pointOn(next.aisle, next.forward ? segmentLength(next.aisle) : 0);
  }
  return order;
}
