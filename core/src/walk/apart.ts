import { edgesAt, type WalkGraph, waysFrom } from './graph.js';

/** A node, or a place on an edge so many metres from its node `a`. */
export type Spot = number | { edge: number; offset: number };

/** Metres between any two spots of a floor by its shortest ways; ways from a node are worked out when they are first asked for, and kept. */
export class Apart {
  private readonly at: number[][];
  private readonly ways = new Map<number, Float64Array>();

  constructor(private readonly floor: WalkGraph) {
    this.at = edgesAt(floor);
  }

  /** Infinity where no way leads. */
  between(p: Spot, q: Spot): number {
    let best = typeof p !== 'number' && typeof q !== 'number' && p.edge === q.edge ? Math.abs(p.offset - q.offset) : Infinity;
    const others = this.sides(q);
    for (const [a, x] of this.sides(p)) {
      const ways = this.from(a);
      for (const [b, y] of others) best = Math.min(best, x + (ways[b] ?? Infinity) + y);
    }
    return best;
  }

  /** Metres from one spot through others in their order. */
  through(spots: readonly Spot[]): number {
    return spots.slice(1).reduce<number>((sum, spot, i) => sum + this.between(spots[i] ?? spot, spot), 0);
  }

  private sides(spot: Spot): [node: number, metres: number][] {
    if (typeof spot === 'number') return [[spot, 0]];
    const edge = this.floor.edges[spot.edge];
    if (!edge) return [];
    return [
      [edge.a, spot.offset],
      [edge.b, edge.length - spot.offset],
    ];
  }

  private from(node: number): Float64Array {
    const known = this.ways.get(node) ?? waysFrom(this.floor, this.at, node).metres;
    this.ways.set(node, known);
    return known;
  }
}
