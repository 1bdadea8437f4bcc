import type { Floor } from './floor.js';
import { goodWalk, metresOfOrder } from './good-walk.js';
import { Apart } from './apart.js';
import type { WalkEdge } from './graph.js';
import type { PlanPoint } from './point.js';
import { Recent } from './recent.js';
import { type OnFloor, shortestRoute, type WalkFloor } from './route.js';
import { WalkMaker } from './walk-meter.js';

/** What a floor may take to be worked out while somebody waits for a page: some ten milliseconds, once. */
const MOST_WAYS = 20_000;
/** How often a good order is shaken, and for how many places at most. */
const TRIES = 500;
const MOST_SHAKEN = 150;

/** A walk through places of a plan: these by their index in their order, and its metres with the steps aside to each of them. */
export interface FloorWalk {
  readonly order: readonly number[];
  readonly metres: number;
}

/** A drawn floor with the places of some walks on it. */
export interface Drawn {
  floor: WalkFloor;
  start: number;
  end: number;
  /** By point: where it is, and how far aside. */
  on: (p: PlanPoint) => { at: OnFloor; aside: number } | undefined;
  aside: number;
  /** Null where the floor is too tangled to measure walks on it at once. */
  maker: WalkMaker | null;
  isReached: (at: OnFloor) => boolean;
  apart: Apart;
}

/** So many pairs of a beginning and an end, so many walks, and of so many walks the metres, are kept of each floor. */
const KEPT_ENDS = 8;
const KEPT_WALKS = 500;
const KEPT_METRES = 2_000;

/** What was worked out last for each floor: a phone asks for the walk of its round again after every pick. */
interface Known {
  plans: Recent<{ drawn: Drawn | null }>;
  walks: Recent<FloorWalk>;
  metres: Recent<number>;
}
const known = new WeakMap<Floor, Known>();
function knownOf(floor: Floor): Known {
  const its = known.get(floor) ?? { plans: new Recent(KEPT_ENDS), walks: new Recent(KEPT_WALKS), metres: new Recent(KEPT_METRES) };
  known.set(floor, its);
  return its;
}
const keyOf = (points: readonly PlanPoint[]) => points.map(({ x, y }) => `${x},${y}`).join(' ');

/** A floor as a graph, with nodes where walks begin and end; null where nothing is drawn. What was asked for last is kept. */
export const planOf = (floor: Floor, start: PlanPoint, end: PlanPoint): Drawn | null =>
  knownOf(floor).plans.get(keyOf([start, end]), () => ({ drawn: drawn(floor, start, end) })).drawn;

function drawn(floor: Floor, start: PlanPoint, end: PlanPoint): Drawn | null {
  const { nodes, edges } = floor.walkways;
  const index = new Map(nodes.map((n, i) => [n.id, i]));
  const [from, to] = [floor.standing(start), floor.standing(end)];
  if (!from || !to) return null;
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
  const whole: WalkFloor = { nodes: places.length, edges: parts, place: (n) => places[n] ?? start };
  const [first, last] = [nodes.length, nodes.length + 1];
  const apart = new Apart(whole);
  return {
    floor: whole,
    start: first,
    end: last,
    maker: WalkMaker.of(whole, first, last, MOST_WAYS),
    isReached: (at) => apart.between(first, at) < Infinity,
    apart,
    aside: from.aside + to.aside,
    on: (p) => {
      const s = floor.standing(p);
      const part = s && partsOf[s.edge]?.findLast((x) => x.from <= s.offset);
      if (!s || !part) return undefined;
      return { at: { edge: part.part, offset: Math.min(s.offset - part.from, parts[part.part]?.length ?? 0) }, aside: s.aside };
    },
  };
}

/** Straight across, where nothing is drawn. */
function straight(floor: Floor, stops: readonly PlanPoint[], start: PlanPoint, end: PlanPoint): FloorWalk {
  const all = [...stops, start, end];
  const metres = new Float64Array(all.length ** 2);
  for (const [i, p] of all.entries())
    for (const [j, q] of all.entries()) metres[i * all.length + j] = i === j ? 0 : floor.metresBetween(p, q);
  const distances = { size: all.length, metres };
  const order = goodWalk(distances, all.length > 150 ? 0 : 500);
  return { order, metres: metresOfOrder(distances, order) };
}

/**
 * The shortest walk from `start` past all stops to `end` along what is drawn, or a good one where the floor is too tangled to find it
 * at once. Stops keep their order where no way leads to one of them. Straight across where nothing is drawn. What was asked for last is
 * kept.
 */
export const walkOn = (floor: Floor, stops: readonly PlanPoint[], start: PlanPoint, end: PlanPoint): FloorWalk =>
  knownOf(floor).walks.get(keyOf([start, end, ...stops]), () => walked(floor, stops, start, end));

function walked(floor: Floor, stops: readonly PlanPoint[], start: PlanPoint, end: PlanPoint): FloorWalk {
  const plan = planOf(floor, start, end);
  if (!plan) return straight(floor, stops, start, end);
  const on = stops.flatMap((p) => plan.on(p) ?? []);
  const aside = plan.aside + on.reduce((sum, o) => sum + 2 * o.aside, 0);
  if (on.length < stops.length || !on.every((o) => plan.isReached(o.at)))
    return { order: [...stops.keys()], metres: floor.metresOf([start, ...stops, end]) };
  const places = on.map((o) => o.at);
  if (plan.maker) {
    const shortest = plan.maker.meter(places).metres(new Uint8Array(places.length).fill(1));
    const { order, metres } = shortestRoute(plan.floor, places, plan.start, plan.end, shortest);
    return { order, metres: metres + aside };
  }
  const spots = [...places, plan.start, plan.end];
  const metres = new Float64Array(spots.length ** 2);
  for (const [i, p] of spots.entries()) for (const [j, q] of spots.entries()) metres[i * spots.length + j] = plan.apart.between(p, q);
  const distances = { size: spots.length, metres };
  const order = goodWalk(distances, spots.length > MOST_SHAKEN ? 0 : TRIES);
  return { order, metres: metresOfOrder(distances, order) + aside };
}

/**
 * The metres of many walks over one floor, as `walkOn` would have them; where nothing is drawn, or too tangled, in the order that is
 * given. What was asked for last is kept.
 */
export function metresOfWalks(floor: Floor, walks: readonly (readonly PlanPoint[])[], start: PlanPoint, end: PlanPoint): number[] {
  const { metres } = knownOf(floor);
  const asked = walks.map((stops) => ({ stops, key: keyOf([start, end, ...stops]) }));
  const fresh = asked.filter(({ key }) => metres.known(key) === undefined);
  const measured = new Map(
    measuredWalks(
      floor,
      fresh.map((f) => f.stops),
      start,
      end,
    ).map((m, i) => [fresh[i]?.key, m]),
  );
  return asked.map(({ key }) => metres.get(key, () => measured.get(key) ?? 0));
}

function measuredWalks(floor: Floor, walks: readonly (readonly PlanPoint[])[], start: PlanPoint, end: PlanPoint): number[] {
  const plan = planOf(floor, start, end);
  if (!plan) return walks.map((stops) => floor.metresOf([start, ...stops, end]));
  const placed = walks.map((stops) => stops.flatMap((p) => plan.on(p) ?? []));
  const meter = plan.maker?.meter(placed.flat().map((o) => o.at));
  const wanted = new Uint8Array(placed.reduce((n, own) => n + own.length, 0));
  let from = 0;
  return walks.map((stops, i) => {
    const own = placed[i] ?? [];
    const to = from + own.length;
    wanted.fill(1, from, to);
    const aside = plan.aside + own.reduce((sum, o) => sum + 2 * o.aside, 0);
    const isWhole = own.length === stops.length && own.every((o) => plan.isReached(o.at));
    const metres = isWhole
      ? aside + (meter ? meter.metres(wanted) : plan.apart.through([plan.start, ...own.map((o) => o.at), plan.end]))
      : floor.metresOf([start, ...stops, end]);
    wanted.fill(0, from, to);
    from = to;
    return metres;
  });
}

/**
 * Measures shortest walks through any of the same places, here by their index: what the floor decides is worked out once. Where
 * nothing is drawn, or the floor is too tangled, in the order in which the places are given.
 */
export function metresThrough(
  floor: Floor,
  places: readonly PlanPoint[],
  start: PlanPoint,
  end: PlanPoint,
): (wanted: readonly number[]) => number {
  const plan = planOf(floor, start, end);
  const on = plan ? places.map((p) => plan.on(p)) : [];
  const isWhole = plan !== null && on.every((o) => o !== undefined && plan.isReached(o.at));
  const meter = isWhole ? plan.maker?.meter(on.flatMap((o) => (o ? [o.at] : []))) : undefined;
  const flags = new Uint8Array(places.length);
  return (wanted) => {
    if (!meter) return floor.metresOf([start, ...[...wanted].sort((a, b) => a - b).flatMap((i) => places[i] ?? []), end]);
    let aside = plan?.aside ?? 0;
    for (const i of wanted) {
      flags[i] = 1;
      aside += 2 * (on[i]?.aside ?? 0);
    }
    const metres = meter.metres(flags);
    for (const i of wanted) flags[i] = 0;
    return metres + aside;
  };
}
