/** Goods in a bin as the plan of counting sees them. */
export interface Countable {
  placeId: number;
  itemId: number;
  /** Days between counts that the item, its class or the company asks for; null where nobody does. */
  intervalDays: number | null;
  /** Days since it was counted here; null where it never was. */
  daysSince: number | null;
  /** Share of its counts that were within tolerance, 0 to 1; null where there were none. */
  accuracy: number | null;
}

export interface Due extends Countable {
  /** Days over its time; infinite for what was never counted. */
  overdue: number;
}

/** What is off often is due sooner: at half the interval where no count of it was right. */
const wanted = (c: Countable): number => (c.intervalDays ?? Infinity) * (0.5 + 0.5 * (c.accuracy ?? 1));

/**
 * What the plan wants counted within so many days, longest overdue first; what was never counted comes before all else. What
 * nobody gives an interval is not due. The order is one of places and items alone where all else is equal. O(n log n).
 */
export function dueFor(all: readonly Countable[], withinDays = 0): Due[] {
  return all
    .filter((c) => c.intervalDays !== null)
    .map((c) => ({ ...c, overdue: c.daysSince === null ? Infinity : c.daysSince - wanted(c) }))
    .filter((c) => c.overdue >= -withinDays)
    .sort((a, b) => (a.overdue === b.overdue ? a.placeId - b.placeId || a.itemId - b.itemId : b.overdue > a.overdue ? 1 : -1));
}
