import type { PlanPoint } from './point.js';

/** A straight stretch of floor that can be walked, in metres. An aisle has bins along it. */
export interface Segment {
  id: number;
  x: number;
  y: number;
  toX: number;
  toY: number;
}

/** Walkways as a graph: what `solve -- route` reads. An edge's length is the straight distance between its nodes. */
export interface Walkways {
  nodes: { id: string; x: number; y: number }[];
  edges: [string, string][];
}

/** Where somebody stands: by an edge of the walkways, so far along it from its first node, and so many metres aside of it. */
export interface Standing {
  edge: number;
  offset: number;
  aside: number;
}

export const segmentLength = (s: Segment) => Math.hypot(s.toX - s.x, s.toY - s.y);

/** The point `along` metres from a segment's first end; beyond its ends it stays at them. */
export function pointOn(s: Segment, along: number): PlanPoint {
  const length = segmentLength(s);
  const share = length === 0 ? 0 : Math.min(1, Math.max(0, along / length));
  return { x: s.x + (s.toX - s.x) * share, y: s.y + (s.toY - s.y) * share };
}

/** How far along a segment the point nearest to `p` lies, in metres. */
export function alongOf(s: Segment, p: PlanPoint): number {
  const length = segmentLength(s);
  if (length === 0) return 0;
  const share = ((p.x - s.x) * (s.toX - s.x) + (p.y - s.y) * (s.toY - s.y)) / (length * length);
  return Math.min(1, Math.max(0, share)) * length;
}

/** Ends that lie closer than this are one crossing. */
const TOUCH_M = 0.3;
const cm = (n: number) => Math.round(n * 100) / 100;

/** The crossing of two segments, or where an end of one touches the other; undefined where they are apart. */
function crossing(a: Segment, b: Segment): PlanPoint | undefined {
  const [ax, ay, bx, by] = [a.toX - a.x, a.toY - a.y, b.toX - b.x, b.toY - b.y];
  const cross = ax * by - ay * bx;
  if (Math.abs(cross) > 1e-9) {
    const t = ((b.x - a.x) * by - (b.y - a.y) * bx) / cross;
    const u = ((b.x - a.x) * ay - (b.y - a.y) * ax) / cross;
    if (t >= 0 && t <= 1 && u >= 0 && u <= 1) return { x: a.x + t * ax, y: a.y + t * ay };
  }
  for (const end of [
    { x: b.x, y: b.y },
    { x: b.toX, y: b.toY },
  ]) {
    const on = pointOn(a, alongOf(a, end));
    if (Math.hypot(on.x - end.x, on.y - end.y) <= TOUCH_M) return on;
  }
  return undefined;
}

/** The stretches between crossings as a graph, with the node names in the order of each segment. O(segments²). */
export function walkwaysOf(segments: readonly Segment[]): Walkways & { onSegment: Map<number, string[]> } {
  const nodes: Walkways['nodes'] = [];
  const nodeAt = (p: PlanPoint): string => {
    const known = nodes.find((n) => Math.hypot(n.x - p.x, n.y - p.y) <= TOUCH_M);
    if (known) return known.id;
    nodes.push({ id: `n${nodes.length + 1}`, x: cm(p.x), y: cm(p.y) });
    return `n${nodes.length}`;
  };
  const onSegment = new Map<number, string[]>();
  const edges = new Map<string, [string, string]>();
  for (const s of segments) {
    const cuts = [0, segmentLength(s)];
    for (const other of segments) {
      if (other.id === s.id) continue;
      for (const hit of [crossing(s, other), crossing(other, s)]) if (hit) cuts.push(alongOf(s, hit));
    }
    const names = [...new Set(cuts.sort((a, b) => a - b).map((cut) => nodeAt(pointOn(s, cut))))];
    onSegment.set(s.id, names);
    names.slice(1).forEach((name, i) => {
      const pair: [string, string] = [names[i] ?? name, name];
      edges.set([...pair].sort().join(), pair);
    });
  }
  return { nodes, edges: [...edges.values()], onSegment };
}
