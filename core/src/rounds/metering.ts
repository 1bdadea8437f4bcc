import { Apart } from '../walk/apart.js';
import { goodWalk, metresOfOrder } from '../walk/good-walk.js';
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

/** Metres between all places; the last two are the start and the end. */
function placesApart(floor: WalkFloor, places: readonly OnFloor[], start: number, end: number) {
  const apart = new Apart(floor);
  const spots = [...places, start, end];
  const size = spots.length;
  const metres = new Float64Array(size * size);
  for (const [i, p] of spots.entries()) for (const [j, q] of spots.entries()) metres[i * size + j] = apart.between(p, q);
  return { size, metres };
}
