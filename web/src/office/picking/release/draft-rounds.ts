import { isWithin, minutesLeft, minutesOf, type RoundLimits, type RoundOrder, shareOut, type ToShare } from '@vectrum/core/rounds';
import { type Floor, metresOfWalks, type PlanPoint, walkOn } from '@vectrum/core/walk';
import type { Dto } from '../../../api/client';
import type { BoardOrder } from './board-filter';

/** Rounds while they are put together: the orders of each, by their codes. */
export type Draft = readonly (readonly string[])[];

/** Where an order may be put: a round by its index, a round of its own, or back among those that wait. */
export type Target = { round: number } | 'new' | 'waiting';

/** The draft with an order put somewhere else; rounds that nothing is left of go. */
export function moved(draft: Draft, code: string, to: Target): Draft {
  const without = draft.map((r, i) =>
    typeof to === 'object' && to.round === i ? [...r.filter((c) => c !== code), code] : r.filter((c) => c !== code),
  );
  return [...without, ...(to === 'new' ? [[code]] : [])].filter((r) => r.length > 0);
}

/** The draft as it still can be sent: without orders that have gone from the board. */
export const stillThere = (draft: Draft, orders: readonly BoardOrder[]): Draft => {
  const known = new Set(orders.map((o) => o.code));
  return draft.map((r) => r.filter((code) => known.has(code))).filter((r) => r.length > 0);
};

/** A floor with the places that orders are picked from. */
export interface Ground {
  floor: Floor;
  table: PlanPoint;
  at: ReadonlyMap<number, PlanPoint>;
}

export function groundOf(board: Dto['ReleaseBoardDto'], floor: Floor): Ground {
  const at = new Map(board.places.flatMap((p) => (p.x === null || p.y === null ? [] : [[p.id, { x: p.x, y: p.y }] as const])));
  return { floor, table: board.table, at };
}

const pointsOf = (orders: readonly BoardOrder[], ground: Ground): PlanPoint[] =>
  [...new Set(orders.flatMap((o) => o.stops.map((s) => s.placeId)))].flatMap((id) => ground.at.get(id) ?? []);

/** Metres of the walks of rounds; nought where nothing of a round is on the plan. */
export const metresOf = (rounds: readonly (readonly BoardOrder[])[], ground: Ground): number[] => {
  const walks = rounds.map((r) => pointsOf(r, ground));
  return metresOfWalks(ground.floor, walks, ground.table, ground.table).map((m, i) => (walks[i]?.length ? m : 0));
};

/** The walk of a round as points to draw: from the table past its stops and back. */
export function walkLine(orders: readonly BoardOrder[], ground: Ground): { stops: PlanPoint[]; line: PlanPoint[] } {
  const points = pointsOf(orders, ground);
  const { order } = walkOn(ground.floor, points, ground.table, ground.table);
  const stops = order.flatMap((i) => points[i] ?? []);
  const way = [ground.table, ...stops, ground.table];
  return { stops, line: stops.length === 0 ? [] : way.flatMap((p, i) => (i === 0 ? [p] : ground.floor.wayBetween(way[i - 1] ?? p, p))) };
}

/** What a round comes to. */
export interface Figures {
  orders: BoardOrder[];
  metres: number;
  minutes: number;
  stops: number;
  units: number;
  weightG: number;
  volumeMl: number;
  /** The first van that one of its orders must catch. */
  leavesAt: string;
  fits: boolean;
}

export function figuresOf(rounds: readonly BoardOrder[][], ground: Ground, limits: RoundLimits): Figures[] {
  const metres = metresOf(rounds, ground);
  return rounds.map((orders, i) => {
    const sum = (of: (o: BoardOrder) => number) => orders.reduce((n, o) => n + of(o), 0);
    const work = { metres: metres[i] ?? 0, stops: sum((o) => o.stops.length), units: sum((o) => o.units) };
    return {
      orders,
      ...work,
      minutes: minutesOf(work),
      weightG: sum((o) => o.weightG),
      volumeMl: sum((o) => o.volumeMl),
      leavesAt: orders.map((o) => o.leavesAt).sort()[0] ?? '',
      fits: isWithin([...orders.keys()], orders.map(loadOf), limits) || orders.length === 1,
    };
  });
}

export const loadOf = (o: BoardOrder): RoundOrder => ({ places: [], units: o.units, weightG: o.weightG, volumeMl: o.volumeMl });

/** When a picker is free, in minutes from now: after what is theirs already: by their own pace, or its walking reckoned at some metres a stop. */
const METRES_A_STOP = 12;
export const freeIn = (p: Dto['BoardPickerDto']): number =>
  p.stops === 0 ? 0 : minutesLeft({ metres: p.stops * METRES_A_STOP, stops: p.stops, units: p.units }, p.secondsAStop);

/** Who walks which round, and when: as somebody has decided it, otherwise whoever is free first. */
export interface Walker {
  person: number | null;
  from: number;
  to: number;
}
export function walkersOf(
  rounds: readonly Figures[],
  people: readonly Dto['BoardPickerDto'][],
  decided: ReadonlyMap<string, number | null>,
  now: number,
): Walker[] {
  const leavesIn = (f: Figures) => (new Date(f.leavesAt).getTime() - now) / 60_000;
  const keyed = rounds.map((f) => decided.get(roundKey(f.orders.map((o) => o.code))));
  const free = people.map(freeIn);
  const walkers: Walker[] = rounds.map(() => ({ person: null, from: 0, to: 0 }));
  // What was decided comes first on each one's time, the rest fills it up.
  const settled = [...rounds.keys()]
    .filter((i) => typeof keyed[i] === 'number')
    .sort((a, b) => at(rounds, a, leavesIn) - at(rounds, b, leavesIn));
  for (const i of settled) {
    const person = people.findIndex((p) => p.id === keyed[i]);
    const from = free[person] ?? 0;
    const to = from + (rounds[i]?.minutes ?? 0);
    if (person >= 0) free[person] = to;
    walkers[i] = { person: people[person]?.id ?? null, from, to };
  }
  const open = [...rounds.keys()].filter((i) => keyed[i] === undefined);
  const shares = shareOut(
    open.flatMap((i): ToShare[] => (rounds[i] ? [{ minutes: rounds[i].minutes, leavesIn: leavesIn(rounds[i]) }] : [])),
    free,
  );
  open.forEach((i, k) => {
    const share = shares[k];
    if (share) walkers[i] = { person: people[share.person]?.id ?? null, from: share.from, to: share.to };
  });
  return walkers;
}

const at = (rounds: readonly Figures[], i: number, of: (f: Figures) => number) => (rounds[i] ? of(rounds[i]) : 0);

/** What a round is known by while it is drafted: its orders. */
export const roundKey = (codes: readonly string[]): string => [...codes].sort().join();
