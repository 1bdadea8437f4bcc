import { type Floor, type OnFloor, type PlanPoint, type WalkFloor } from '../walk/index.js';
import { planOf } from '../walk/floor-walk.js';
import type { Grouping } from './grouping.js';
import { planRounds } from './plan-rounds.js';
import { brokenLimit, type RoundLimits, type RoundOrder } from './problem.js';

/** An order that waits to be picked. */
export interface WaitingToPick extends RoundOrder {
  /** The van that it must catch, by any name: orders share a round only with those of the same van. */
  departure: string;
}

export interface RoundsToPropose {
  floor: Floor;
  /** Where walks begin and end. */
  table: PlanPoint;
  /** Where each place is, in walking order; null where it is not on the plan. */
  places: readonly (PlanPoint | null)[];
  orders: readonly WaitingToPick[];
  limits: RoundLimits;
}

/**
 * Proposes rounds with few metres, orders by their index. Vans are hard limits: each one's orders are grouped by themselves, and those
 * of the first van come first. An order that is too much for any round is one of its own. `seconds` is shared among the vans by their
 * orders. Where nothing is drawn, orders are put together by the walking order of their bins.
 */
export function proposeRounds(
  { floor, table, places, orders, limits }: RoundsToPropose,
  { seconds, seed }: { seconds: number; seed: number },
  isOver: () => boolean = () => false,
  onBetter?: (rounds: number[][]) => void,
): number[][] {
  const at = onFloor(floor, table, places);
  const done: number[][] = [];
  const vans = [...new Set(orders.map((o) => o.departure))];
  const indices = vans.map((van) => [...orders.keys()].filter((i) => orders[i]?.departure === van));
  const first = indices.map((own) => own.map((i) => [i]));
  for (const [v, own] of indices.entries()) {
    const alone = own.filter((i) => orders[i] && brokenLimit(orders[i], limits) !== null);
    const isPlaced = (i: number) => orders[i]?.places.some((p) => at.on[p]) === true;
    const together = own.filter((i) => !alone.includes(i) && isPlaced(i));
    const anywhere = own.filter((i) => !alone.includes(i) && !isPlaced(i));
    const rest = first.slice(v + 1).flat();
    const known = (found: Grouping) => [
      ...done,
      ...filled(
        found.rounds.map((r) => r.map((k) => together[k] ?? 0)),
        anywhere,
        orders,
        limits,
      ),
      ...alone.map((i) => [i]),
    ];
    // Places are numbered anew for each van, so that only what its orders want is measured.
    const wanted = [...new Set(together.flatMap((i) => orders[i]?.places ?? []))].filter((p) => at.on[p]).sort((a, b) => a - b);
    const index = new Map(wanted.map((p, k) => [p, k]));
    const rounds = planRounds(
      {
        floor: at.floor,
        start: at.start,
        end: at.end,
        places: wanted.flatMap((p) => at.on[p] ?? []),
        orders: together.map((i) => ({
          ...(orders[i] as RoundOrder),
          places: (orders[i]?.places ?? []).flatMap((p) => index.get(p) ?? []),
        })),
        limits,
      },
      { seconds: (seconds * own.length) / orders.length, seed },
      isOver,
      onBetter && ((found) => onBetter([...known(found), ...rest])),
    );
    done.splice(0, done.length, ...known({ rounds: rounds.map((r) => r.orders), metres: 0 }));
  }
  return done;
}

/** Orders that no walk tells where to put go into the first round that has room for them. */
function filled(rounds: readonly number[][], more: readonly number[], orders: readonly RoundOrder[], limits: RoundLimits): number[][] {
  const all = rounds.map((r) => [...r]);
  for (const i of more) {
    const room = all.find((r) => isWithin([...r, i], orders, limits));
    if (room) room.push(i);
    else all.push([i]);
  }
  return all.map((r) => r.sort((a, b) => a - b));
}

/** Whether orders, by their index, may be picked on one round. */
export function isWithin(round: readonly number[], orders: readonly RoundOrder[], limits: RoundLimits): boolean {
  const sum = (of: 'units' | 'weightG' | 'volumeMl') => round.reduce((n, i) => n + (orders[i]?.[of] ?? 0), 0);
  return (
    round.length <= limits.orders && sum('units') <= limits.units && sum('weightG') <= limits.weightG && sum('volumeMl') <= limits.volumeMl
  );
}

interface PlacesOnFloor {
  floor: WalkFloor;
  start: number;
  end: number;
  on: (OnFloor | undefined)[];
}

/** Places on the drawn floor, those that no way leads to left out; where nothing is drawn, a line through all of them. */
function onFloor(floor: Floor, table: PlanPoint, places: readonly (PlanPoint | null)[]): PlacesOnFloor {
  const plan = planOf(floor, table, table);
  if (plan) {
    const on = places.map((p) => {
      const at = p ? plan.on(p)?.at : undefined;
      return at && plan.isReached(at) ? at : undefined;
    });
    return { floor: plan.floor, start: plan.start, end: plan.end, on };
  }
  const edges = places.map((_, i) => ({ a: i, b: i + 1, length: 1 }));
  const line: WalkFloor = { nodes: places.length + 1, edges, place: (n) => ({ x: n, y: 0 }) };
  return { floor: line, start: 0, end: 0, on: places.map((_, i) => ({ edge: i, offset: 1 })) };
}
