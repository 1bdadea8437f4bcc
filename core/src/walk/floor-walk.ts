import type { Floor } from './floor.js';
import { goodWalk, metresOfOrder } from './good-walk.js';
import { edgesAt, type WalkEdge, waysFrom } from './graph.js';
import type { PlanPoint } from './point.js';
import { NoWay, type OnFloor, shortestRoute, type WalkFloor } from './route.js';
import { WalkMeter } from './walk-meter.js';

/** A walk through places of a plan: these by their index in their order, and its metres with the steps aside to each of them. */
export interface FloorWalk {
  order: number[];
  metres: number;
}

/** A drawn floor with the places of some walks on it. */
interface Drawn {
  floor: WalkFloor;
  start: number;
  end: number;
  /** By point: where it is, and how far aside. */
  on: (p: PlanPoint) => { at: OnFloor; aside: number } | undefined;
  aside: number;
}

/** A floor with nodes where walks begin and end; undefined where nothing is drawn. */
function drawn(floor: Floor, start: PlanPoint, end: PlanPoint): Drawn | undefined {
  const { nodes, edges } = floor.walkways;
  const index = new Map(nodes.map((n, i) => [n.id, i]));
  const [from, to] = [floor.standing(start), floor.standing(end)];
  if (!from || !to) return undefined;
  const places: PlanPoint[] = nodes.map(({ x, y }) => ({ x, y }));
  const parts: WalkEdge[] = [];
  /** Of each edge: its parts, with the metres at which each begins. */
  const partsOf = edges.map(([a, b], e) => {
    const [p, q] = [index.get(a) ?? 0, index.get(b) ?? 0];
    const length = Math.hypot((places[p]?.x ?? 0) - (places[q]?.x ?? 0), (places[p]?.y ?? 0) - (places[q]?.y ?? 0));
    const cuts = [from, to].map((s, i) => ({ node: nodes.length + i, offset: s.offset, own: s.edge === e })).filter((c) => c.own);
    let [node, at] = [p, 0];
    const own: { part: number; from: number }[] = [];
    for (const cut of [...cuts.sort((x, y) => x.offset - y.offset), { node: q, offset: length }]) {
      own.push({ part: parts.length, from: at });
      parts.push({ a: node, b: cut.node, length: Math.max(0, cut.offset - at) });
      [node, at] = [cut.node, cut.offset];
    }
    return own;
  });
  places.push(floor.standAt(start), floor.standAt(end));
  return {
    floor: { nodes: places.length, edges: parts, place: (n) => places[n] ?? start },
    start: nodes.length,
    end: nodes.length + 1,
    aside: from.aside + to.aside,
    on: (p) => {
      const s = floor.standing(p);
      const part = s && partsOf[s.edge]?.findLast((x) => x.from <= s.offset);
      if (!s || !part) return undefined;
      return { at: { edge: part.part, offset: Math.min(s.offset - part.from, parts[part.part]?.length ?? 0) }, aside: s.aside };
    },
  };
}

/** Through all places by metres between each two of them, straight across where no way joins them. */
function byPairs(floor: Floor, stops: readonly PlanPoint[], start: PlanPoint, end: PlanPoint): FloorWalk {
  const all = [...stops, start, end];
  const metres = new Float64Array(all.length ** 2);
  for (const [i, p] of all.entries())
    for (const [j, q] of all.entries()) metres[i * all.length + j] = i === j ? 0 : floor.metresBetween(p, q);
  const distances = { size: all.length, metres };
  const order = goodWalk(distances, all.length > 150 ? 0 : 500);
  return { order, metres: metresOfOrder(distances, order) };
}

/** The shortest walk from `start` past all stops to `end` along what is drawn; a good one straight across where nothing is. */
export function walkOn(floor: Floor, stops: readonly PlanPoint[], start: PlanPoint, end: PlanPoint): FloorWalk {
  const plan = drawn(floor, start, end);
  const on = plan ? stops.flatMap((p) => plan.on(p) ?? []) : [];
  if (!plan || on.length < stops.length) return byPairs(floor, stops, start, end);
  try {
    const places = on.map((o) => o.at);
    const known = WalkMeter.of(plan.floor, places, plan.start, plan.end)?.metres(new Uint8Array(places.length).fill(1));
    const { order, metres } = shortestRoute(plan.floor, places, plan.start, plan.end, known);
    return { order, metres: metres + plan.aside + on.reduce((sum, o) => sum + 2 * o.aside, 0) };
  } catch (thrown) {
    if (!(thrown instanceof NoWay)) throw thrown;
    return byPairs(floor, stops, start, end);
  }
}

/** The metres of many walks over one floor, each as `walkOn` would have it; the floor is worked out once for all. */
export function metresOfWalks(floor: Floor, walks: readonly (readonly PlanPoint[])[], start: PlanPoint, end: PlanPoint): number[] {
  const plan = drawn(floor, start, end);
  const reach = plan && waysFrom(plan.floor, edgesAt(plan.floor), plan.start).metres;
  const isReached = ({ edge }: OnFloor) => (reach?.[plan?.floor.edges[edge]?.a ?? -1] ?? Infinity) < Infinity;
  const places: OnFloor[] = [];
  const placed = walks.map((stops) =>
    stops.map((p) => {
      const on = plan?.on(p);
      if (!on || !isReached(on.at)) return undefined;
      places.push(on.at);
      return { place: places.length - 1, aside: on.aside };
    }),
  );
  const meter = plan && WalkMeter.of(plan.floor, places, plan.start, plan.end);
  const wanted = new Uint8Array(places.length);
  return walks.map((stops, i) => {
    const own = (placed[i] ?? []).filter((p) => p !== undefined);
    if (!plan || !meter || own.length < stops.length) return byPairs(floor, stops, start, end).metres;
    for (const { place } of own) wanted[place] = 1;
    const metres = meter.metres(wanted);
    for (const { place } of own) wanted[place] = 0;
    if (!Number.isFinite(metres)) return byPairs(floor, stops, start, end).metres;
    return metres + plan.aside + own.reduce((sum, { aside }) => sum + 2 * aside, 0);
  });
}
