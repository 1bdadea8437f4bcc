import { goodWalk, metresOfOrder } from '../walk/good-walk.js';
import { edgesAt, waysFrom } from '../walk/graph.js';
import { type OnFloor, type WalkFloor, WalkMeter } from '../walk/index.js';
import type { Metering } from './problem.js';

/** Measures rounds over a floor: exactly where the floor allows it fast, otherwise by a good order of the places. Every place can be reached. */
export function meteringOf(floor: WalkFloor, places: readonly OnFloor[], start: number, end: number): Metering {
  const meter = WalkMeter.of(floor, places, start, end);
  if (meter) return { metres: (wanted) => meter.metres(wanted), exact: true, work: meter.work, ...meter.runs(places.length) };
  const { size, metres } = placesApart(floor, places, start, end);
  const many = places.length;
  return {
    runOf: Int32Array.from(places, (p) => p.edge),
    length: Float64Array.from(floor.edges, (e) => e.length),
    exact: false,
    // A walk through a dozen places.
    work: 40_000,
    metres(wanted) {
      const some = [...places.keys()].filter((p) => wanted[p] !== 0);
      const all = [...some, many, many + 1];
      const part = { size: all.length, metres: new Float64Array(all.length ** 2) };
      for (const [i, p] of all.entries()) for (const [j, q] of all.entries()) part.metres[i * all.length + j] = metres[p * size + q] ?? 0;
      return metresOfOrder(part, goodWalk(part, 0));
    },
  };
}

/** Metres between all places; the last two are the start and the end. O(places · (edges + places)). */
function placesApart(floor: WalkFloor, places: readonly OnFloor[], start: number, end: number) {
  const at = edgesAt(floor);
  const ways = new Map<number, Float64Array>();
  const from = (node: number) => {
    const known = ways.get(node) ?? waysFrom(floor, at, node).metres;
    ways.set(node, known);
    return known;
  };
  const sides = [...places.map(({ edge, offset }) => ({ edge, offset })), { node: start }, { node: end }].map(
    (p): [node: number, metres: number][] => {
      if ('node' in p) return [[p.node, 0]];
      const e = floor.edges[p.edge];
      return e
        ? [
            [e.a, p.offset],
            [e.b, e.length - p.offset],
          ]
        : [];
    },
  );
  const size = sides.length;
  const metres = new Float64Array(size * size);
  for (const [i, own] of sides.entries())
    for (const [j, other] of sides.entries()) {
      const [p, q] = [places[i], places[j]];
      let best = p && q && p.edge === q.edge ? Math.abs(p.offset - q.offset) : Infinity;
      for (const [a, x] of own) for (const [b, y] of other) best = Math.min(best, x + (from(a)[b] ?? Infinity) + y);
      metres[i * size + j] = best;
    }
  return { size, metres };
}
