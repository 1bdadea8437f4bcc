import { readWeek, weekOfDate, type WeekNumber } from './iso-week.js';
import type { Units } from './methods.js';

export interface WeekUnits {
  week: string;
  units: number;
}

/** Demand week by week without gaps, from the first week that is known to the last complete one before today. */
export interface Series {
  first: WeekNumber;
  units: Units;
}

/**
 * The history of an item as a series: weeks that are missing between, and from the last one known to today, count as nought; weeks
 * that are named twice are added up. Weeks that are not over are left out. O(weeks).
 */
export function seriesOf(history: readonly WeekUnits[], today: string): Series {
  const now = weekOfDate(today);
  const sums = new Map<WeekNumber, number>();
  for (const { week, units } of history) {
    const n = readWeek(week);
    if (n < now) sums.set(n, (sums.get(n) ?? 0) + units);
  }
  // What was asked for before anybody asked for it says nothing: a new item begins with its first week.
  const first = Math.min(now, ...sums.keys());
  return { first, units: Float64Array.from({ length: now - first }, (_, i) => sums.get(first + i) ?? 0) };
}
