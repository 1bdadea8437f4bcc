import { edgesAt, type WalkEdge, type WalkGraph } from './graph.js';

/** How a stretch is walked. What begins at one end only turns round at the furthest stop and comes back. */
export const WALKED = { not: 0, once: 1, twice: 2, fromA: 3, fromB: 4, fromBoth: 5 } as const;
export type Walked = (typeof WALKED)[keyof typeof WALKED];

/** A run of pieces of floor without a fork between its ends. */
export interface Stretch {
  a: number;
  b: number;
  length: number;
  /** What must be reached on it, in metres from `a`, ascending. */
  stops: number[];
  /** Edges of the floor from `a` to `b`, with the metres at which each ends. */
  pieces: { edge: number; to: number }[];
}

/** A floor brought down to what a shortest walk has to decide. */
export interface Reduced {
  stretches: Stretch[];
  /** Nodes that must be reached, besides the start and the end. */
  must: Set<number>;
  /** Metres that every walk needs besides, and the edges that they are, each walked so many times. */
  metres: number;
  walked: Map<number, number>;
}

/** Metres of walking a stretch in a way; Infinity where that way leaves a stop out. */
export function metresWalked({ length, stops }: Stretch, walked: Walked): number {
  const [first, last] = [stops[0], stops.at(-1)];
  switch (walked) {
    case WALKED.not:
      return first === undefined ? 0 : Infinity;
    case WALKED.once:
      return length;
    case WALKED.twice:
      return 2 * length;
    case WALKED.fromA:
      return last === undefined ? Infinity : 2 * last;
    case WALKED.fromB:
      return first === undefined ? Infinity : 2 * (length - first);
    case WALKED.fromBoth:
      return stops.length < 2 ? Infinity : 2 * (length - widestGap(stops).metres);
  }
}

/** The ways in which a stretch may be walked, each with its metres. */
export function waysOf(stretch: Stretch): [walked: Walked, metres: number][] {
  return Object.values(WALKED).flatMap((walked): [Walked, number][] => {
    const metres = metresWalked(stretch, walked);
    return metres === Infinity ? [] : [[walked, metres]];
  });
}

function widestGap(stops: readonly number[]): { from: number; to: number; metres: number } {
  let best = { from: 0, to: 0, metres: -1 };
  for (let i = 1; i < stops.length; i++) {
    const [from = 0, to = 0] = [stops[i - 1], stops[i]];
    if (to - from > best.metres) best = { from, to, metres: to - from };
  }
  return best;
}

/** Adds the edges that walking a stretch in a way takes, each with how often. */
export function addWalked(counts: Map<number, number>, stretch: Stretch, walked: Walked): void {
  const { pieces, stops, length } = stretch;
  const [first = length, last = 0] = [stops[0], stops.at(-1)];
  const gap = walked === WALKED.fromBoth ? widestGap(stops) : { from: 0, to: 0 };
  let from = 0;
  for (const { edge, to } of pieces) {
    const middle = (from + to) / 2;
    const times =
      walked === WALKED.not
        ? 0
        : walked === WALKED.once
          ? 1
          : walked === WALKED.twice ||
              (walked === WALKED.fromA && middle < last) ||
              (walked === WALKED.fromB && middle > first) ||
              (walked === WALKED.fromBoth && (middle < gap.from || middle > gap.to))
            ? 2
            : 0;
    if (times > 0) counts.set(edge, (counts.get(edge) ?? 0) + times);
    from = to;
  }
}

const turned = (s: Stretch): Stretch => ({
  a: s.b,
  b: s.a,
  length: s.length,
  stops: s.stops.map((o) => s.length - o).reverse(),
  pieces: s.pieces.map(({ edge }, i) => ({ edge, to: s.length - (i === 0 ? 0 : (s.pieces[i - 1]?.to ?? 0)) })).reverse(),
});
const beginningAt = (s: Stretch, node: number) => (s.a === node ? s : turned(s));
const joined = (one: Stretch, two: Stretch, stop: boolean): Stretch => ({
  a: one.a,
  b: two.b,
  length: one.length + two.length,
  stops: [...one.stops, ...(stop ? [one.length] : []), ...two.stops.map((o) => o + one.length)],
  pieces: [...one.pieces, ...two.pieces.map((p) => ({ edge: p.edge, to: p.to + one.length }))],
});

/**
 * Brings a floor down: ends that lead nowhere are walked to their furthest stop and back or not at all, loops in their best way, runs
 * without a fork become one stretch, and of two ways between the same forks without stops the longer one goes. What is left has the
 * same shortest walk from `start` to `end`, less `metres`. `stops` are nodes. O(edges).
 */
export function reduced(graph: WalkGraph, stops: ReadonlySet<number>, start: number, end: number): Reduced {
  const out: Reduced = { stretches: [], must: new Set(stops), metres: 0, walked: new Map() };
  const stretches = new Map<number, Stretch>(
    graph.edges.map(({ a, b, length }: WalkEdge, e) => [e, { a, b, length, stops: [], pieces: [{ edge: e, to: length }] }]),
  );
  const at = edgesAt(graph).map((list) => new Set(list));
  let nextId = graph.edges.length;
  const drop = (id: number, s: Stretch) => {
    stretches.delete(id);
    at[s.a]?.delete(id);
    at[s.b]?.delete(id);
  };
  const add = (s: Stretch) => {
    stretches.set(nextId, s);
    at[s.a]?.add(nextId);
    at[s.b]?.add(nextId);
    nextId++;
  };
  /** Walks a stretch in a way that comes back to where it began: it is settled, and its node must be reached. */
  const settle = (id: number, s: Stretch, node: number, walked: Walked) => {
    out.metres += metresWalked(s, walked);
    addWalked(out.walked, s, walked);
    out.must.add(node);
    drop(id, s);
  };
  const todo = new Set(Array.from({ length: graph.nodes }, (_, n) => n));
  for (const node of todo) {
    todo.delete(node);
    const look = (other: number) => todo.add(other);
    for (const id of [...(at[node] ?? [])]) {
      const s = stretches.get(id);
      if (!s || s.a !== s.b) continue;
      if (s.stops.length === 0) drop(id, s);
      else {
        const ways = [WALKED.once, WALKED.fromA, WALKED.fromB, WALKED.fromBoth] as const;
        settle(
          id,
          s,
          node,
          ways.reduce((best, w) => (metresWalked(s, w) < metresWalked(s, best) ? w : best)),
        );
      }
    }
    if (node === start || node === end) continue;
    const [first, second, third] = at[node] ?? [];
    if (first === undefined || third !== undefined) continue;
    const one = stretches.get(first);
    if (!one) continue;
    if (second === undefined) {
      const from = turned(beginningAt(one, node));
      if (out.must.has(node)) from.stops.push(from.length);
      out.must.delete(node);
      if (from.stops.length === 0) drop(first, one);
      else {
        drop(first, one);
        settle(first, from, from.a, WALKED.fromA);
      }
      look(from.a);
      continue;
    }
    const two = stretches.get(second);
    if (!two) continue;
    const whole = joined(turned(beginningAt(one, node)), beginningAt(two, node), out.must.has(node));
    out.must.delete(node);
    drop(first, one);
    drop(second, two);
    add(whole);
    dropLonger(whole, stretches, at, drop);
    look(whole.a);
    look(whole.b);
  }
  out.stretches = [...stretches.values()];
  out.must.delete(start);
  out.must.delete(end);
  return out;
}

/** Of two ways between the same nodes that hold nothing, the longer one is never needed. */
function dropLonger(
  fresh: Stretch,
  stretches: ReadonlyMap<number, Stretch>,
  at: readonly ReadonlySet<number>[],
  drop: (id: number, s: Stretch) => void,
): void {
  if (fresh.a === fresh.b) return;
  let kept: [number, Stretch] | undefined;
  for (const id of [...(at[fresh.a] ?? [])]) {
    const s = stretches.get(id);
    if (!s || s.stops.length > 0 || (s.a !== fresh.b && s.b !== fresh.b)) continue;
    if (!kept) kept = [id, s];
    else if (s.length < kept[1].length) {
      drop(...kept);
      kept = [id, s];
    } else drop(id, s);
  }
}
