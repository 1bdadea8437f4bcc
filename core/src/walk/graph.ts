/** A stretch of floor between two nodes, in metres; it is walked both ways. */
export interface WalkEdge {
  a: number;
  b: number;
  length: number;
}
/** A floor as a graph of nodes 0 to `nodes` − 1. Parallel edges and loops are allowed. */
export interface WalkGraph {
  nodes: number;
  edges: readonly WalkEdge[];
}

/** The edges at each node. */
export function edgesAt({ nodes, edges }: WalkGraph): number[][] {
  const at: number[][] = Array.from({ length: nodes }, () => []);
  edges.forEach(({ a, b }, e) => {
    at[a]?.push(e);
    if (a !== b) at[b]?.push(e);
  });
  return at;
}

/** The shortest ways from one node: metres to each (Infinity where none leads), and the edge by which each is reached (−1 at the source). */
export interface Ways {
  metres: Float64Array;
  by: Int32Array;
}

/** Shortest ways from a node (Dijkstra 1959, with a binary heap). O(edges · log nodes). `at` is `edgesAt` of the graph. */
export function waysFrom(graph: WalkGraph, at: readonly (readonly number[])[], source: number): Ways {
  const metres = new Float64Array(graph.nodes).fill(Infinity);
  const by = new Int32Array(graph.nodes).fill(-1);
  const heap: [metres: number, node: number][] = [[0, source]];
  metres[source] = 0;
  for (let top = pop(heap); top; top = pop(heap)) {
    const [so, node] = top;
    if (so > (metres[node] ?? 0)) continue;
    for (const e of at[node] ?? []) {
      const edge = graph.edges[e];
      if (!edge) continue;
      const other = edge.a === node ? edge.b : edge.a;
      const there = so + edge.length;
      if (there >= (metres[other] ?? 0)) continue;
      metres[other] = there;
      by[other] = e;
      push(heap, [there, other]);
    }
  }
  return { metres, by };
}

function push(heap: [number, number][], entry: [number, number]): void {
  let i = heap.push(entry) - 1;
  while (i > 0) {
    const up = (i - 1) >> 1;
    const above = heap[up];
    if (!above || above[0] <= entry[0]) break;
    heap[i] = above;
    i = up;
  }
  heap[i] = entry;
}

function pop(heap: [number, number][]): [number, number] | undefined {
  const top = heap[0];
  const last = heap.pop();
  if (!top || !last || heap.length === 0) return top;
  let i = 0;
  for (;;) {
    let down = 2 * i + 1;
    const [left, right] = [heap[down], heap[down + 1]];
    if (left && right && right[0] < left[0]) down++;
    const below = heap[down];
    if (!below || below[0] >= last[0]) break;
    heap[i] = below;
    i = down;
  }
  heap[i] = last;
  return top;
}
