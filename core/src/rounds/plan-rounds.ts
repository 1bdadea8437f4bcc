import { edgesAt, waysFrom } from '../walk/graph.js';
import { NoWay, type OnFloor, shortestRoute, type WalkFloor } from '../walk/index.js';
import { meteringOf } from './metering.js';
import type { RoundLimits, RoundOrder } from './problem.js';
import { type Grouping } from './grouping.js';
import { RoundsSearch } from './search.js';

/** Steps of measuring that a second is good for, with room to spare; the same number on every machine, so that the answer is the same. */
const STEPS_A_SECOND = 140_000_000;
/** A measurement takes so many steps besides those of the floor. */
const STEPS_BESIDES = 600;

export interface RoundsToPlan {
  floor: WalkFloor;
  start: number;
  end: number;
  places: readonly OnFloor[];
  orders: readonly RoundOrder[];
  limits: RoundLimits;
}
/** A round with its walk: orders by their index, places by theirs in the order of the walk. */
export interface PlannedRound {
  orders: number[];
  walk: number[];
  metres: number;
}

/**
 * Plans rounds with few metres. `seconds` is how long it may improve on a slow machine; `isOver` may end it sooner; `onBetter` hears of the first grouping and of each better one. Throws `NoWay`
 * where a place cannot be reached.
 */
export function planRounds(
  { floor, start, end, places, orders, limits }: RoundsToPlan,
  { seconds, seed }: { seconds: number; seed: number },
  isOver: () => boolean = () => false,
  onBetter?: (found: Grouping) => void,
): PlannedRound[] {
  if (orders.length === 0) return [];
  const { metres: reach } = waysFrom(floor, edgesAt(floor), start);
  places.forEach(({ edge }, place) => {
    if (reach[floor.edges[edge]?.a ?? -1] === Infinity) throw new NoWay(place);
  });
  if (reach[end] === Infinity) throw new NoWay(null);
  const meter = meteringOf(floor, places, start, end);
  let measured = 0;
  const counted = {
    ...meter,
    metres: (wanted: ArrayLike<number>) => {
      measured++;
      return meter.metres(wanted);
    },
  };
  const search = new RoundsSearch({ orders, places: places.length, limits, meter: counted }, seed);
  const measurements = Math.floor((seconds * STEPS_A_SECOND) / (meter.work + STEPS_BESIDES)) - measured;
  onBetter?.(search.found);
  if (measurements > 0) search.improve(measurements, isOver, onBetter);
  return search.found.rounds.map((list) => {
    const own = [...list].sort((a, b) => a - b);
    const wanted = [...new Set(own.flatMap((o) => orders[o]?.places ?? []))].sort((a, b) => a - b);
    const stops = wanted.flatMap((p) => places[p] ?? []);
    const known = meter.exact ? meter.metres(Uint8Array.from(places, (_, p) => (wanted.includes(p) ? 1 : 0))) : undefined;
    const { order, metres } = shortestRoute(floor, stops, start, end, known);
    return { orders: own, walk: order.map((i) => wanted[i] ?? 0), metres };
  });
}
