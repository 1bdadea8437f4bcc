import type { ItemId, LotId, PlaceId } from '../ids/index.js';
/**
 * What the goods are like; only `good` stock may be promised. `apart` goods stand in the house but were not taken over from
 * their supplier: they are not ours, and worth nothing to us.
 */
export const CONDITIONS = ['good', 'held', 'damaged', 'to-inspect', 'apart'] as const;
export type Condition = (typeof CONDITIONS)[number];

/** Whether goods in this condition belong to the house. */
export const isOurs = (condition: Condition): boolean => condition !== 'apart';

/** One thing the ledger counts apart: an item in a lot (0 where it has none) and a condition. */
export interface StockKey {
  itemId: ItemId;
  lotId: LotId;
  condition: Condition;
}

/** A whole number of base units of one stock key taken from one place to another, or found to be in another condition. */
export interface Movement extends StockKey {
  fromPlaceId: PlaceId;
  toPlaceId: PlaceId;
  units: number;
  /** Their condition afterwards; absent where it stays. With one, goods may stay where they are. */
  toCondition?: Condition;
}

/** The condition of goods once a movement is done. */
export const conditionAfter = (m: Pick<Movement, 'condition' | 'toCondition'>): Condition => m.toCondition ?? m.condition;

/** A change of one balance: what a movement does to each of its two places. */
export interface BalanceChange extends StockKey {
  placeId: PlaceId;
  change: number;
}

export type LedgerFault =
  | { kind: 'not-whole'; movement: Movement }
  | { kind: 'same-place'; movement: Movement }
  | { kind: 'below-zero'; key: BalanceChange; units: number };

/** The key under which balances are summed, and in whose order their rows are locked. */
export function balanceKey(b: StockKey & { placeId: PlaceId }): string {
  return [b.itemId, b.placeId, b.lotId].map((n) => String(n).padStart(10, '0')).join(':') + `:${b.condition}`;
}

/**
 * The net change of every balance that a set of movements touches, sorted by `balanceKey`, which is the order in which
 * locks are taken. The changes of each item sum to zero. O(n log n).
 */
export function changesOf(movements: readonly Movement[]): BalanceChange[] {
  const sums = new Map<string, BalanceChange>();
  const add = (m: Movement, condition: Condition, placeId: PlaceId, change: number) => {
    const key = { itemId: m.itemId, lotId: m.lotId, condition, placeId };
    const found = sums.get(balanceKey(key));
    if (found) found.change += change;
    else sums.set(balanceKey(key), { ...key, change });
  };
  for (const m of movements) {
    add(m, m.condition, m.fromPlaceId, -m.units);
    add(m, conditionAfter(m), m.toPlaceId, m.units);
  }
  return [...sums].sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0)).map(([, change]) => change);
}

/** The first fault in a movement's own form, before any balance is looked at. */
export function faultOf(movement: Movement): LedgerFault | undefined {
  if (!Number.isSafeInteger(movement.units) || movement.units <= 0) return { kind: 'not-whole', movement };
  const stays = movement.fromPlaceId === movement.toPlaceId && conditionAfter(movement) === movement.condition;
  if (stays) return { kind: 'same-place', movement };
  return undefined;
}

/** The movement that puts another right: the same goods the other way, as they were. */
export function opposite({ toCondition, ...m }: Movement): Movement {
  const back = { ...m, fromPlaceId: m.toPlaceId, toPlaceId: m.fromPlaceId };
  return toCondition ? { ...back, condition: toCondition, toCondition: m.condition } : back;
}

/**
 * Applies movements to balances and says what would go below nought in a bounded place; the given map is not changed.
 * Unbounded places are those outside the house (supplier, customer, count difference and the like).
 */
export function post(
  balances: ReadonlyMap<string, number>,
  movements: readonly Movement[],
  unbounded: ReadonlySet<number>,
): { balances: Map<string, number> } | { fault: LedgerFault } {
  for (const movement of movements) {
    const fault = faultOf(movement);
    if (fault) return { fault };
  }
  const next = new Map(balances);
  for (const change of changesOf(movements)) {
    const key = balanceKey(change);
    const units = (next.get(key) ?? 0) + change.change;
    if (units < 0 && !unbounded.has(change.placeId)) return { fault: { kind: 'below-zero', key: change, units } };
    if (units === 0) next.delete(key);
    else next.set(key, units);
  }
  return { balances: next };
}
