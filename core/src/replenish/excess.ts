import { demandBetween, type Plan } from './plan.js';

/** Beyond half a year's demand nothing is kept on purpose. */
export const EXCESS_DAYS = 182;

export interface Excess {
  /** More than is wanted within half a year and than an order ever brings it up to. */
  units: number;
  /** How long what is free lasts; null where nobody is expected to ask for it. */
  coverDays: number | null;
}

/** What there is too much of. `free`: units that are promised to nobody. O(weeks). */
export function excessOf(plan: Pick<Plan, 'forecast' | 'point' | 'size'>, free: number, today: string, days = EXCESS_DAYS): Excess {
  const wanted = Math.max(demandBetween(plan.forecast, today, 0, days), (plan.point ?? 0) + plan.size);
  return { units: Math.max(0, Math.floor(free - wanted)), coverDays: coverOf(plan.forecast, free, today) };
}

const LONGEST_DAYS = 3_650;

/** Days until expected demand has taken so many units; null where it never will within ten years. O(weeks). */
export function coverOf(forecast: Plan['forecast'], units: number, today: string): number | null {
  if (units <= 0) return 0;
  let [low, high] = [0, 7];
  while (demandBetween(forecast, today, 0, high) < units) {
    if (high > LONGEST_DAYS) return null;
    [low, high] = [high, high * 2];
  }
  while (high - low > 1) {
    const half = Math.floor((low + high) / 2);
    if (demandBetween(forecast, today, 0, half) >= units) high = half;
    else low = half;
  }
  return high;
}
