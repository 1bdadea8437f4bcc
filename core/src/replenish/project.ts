import { daysBetween, dayOfWeek } from './iso-week.js';
import type { Plan } from './plan.js';

/** What will happen to the stock of an item at a site. Days are ISO dates; units are base units. */
export interface Ahead {
  today: string;
  /** Good and not held, whether promised or not. */
  onHand: number;
  /** What is promised to orders and when it leaves. What is overdue leaves today. */
  promised: readonly { units: number; due: string }[];
  arrivals: readonly { units: number; due: string }[];
  forecast: Pick<Plan['forecast'], 'weeks'>;
}

/** What if: deliveries come so many days later, or not at all; demand is so many times what is expected. */
export interface WhatIf {
  lateDays?: number;
  noArrivals?: boolean;
  demand?: number;
  /** An order that is placed today, and when it would be here. */
  order?: { units: number; inDays: number };
}

export interface ProjectedDay {
  /** Days from today; nought is now. */
  day: number;
  stock: number;
  /** Below it in one case of twenty. */
  low: number;
  high: number;
}

export interface Projection {
  days: ProjectedDay[];
  /** The first day at whose end nothing is left, from today; null where it lasts. */
  runsOut: number | null;
  /** Units that are expected to be asked for and not there. */
  missed: number;
  /** Promised units that are not there on their day. */
  broken: number;
}

/** Deviates of the standard normal between which nine of ten cases lie. */
const NINE_OF_TEN = 1.645;

/** What comes on a day that has passed is counted on for tomorrow. */
const comingIn = (today: string, due: string): number => Math.max(1, daysBetween(today, due));

/**
 * Stock day by day: what is there, less what is promised on its day and what is expected beyond that, and what comes in. A week's
 * promises are part of what the week was expected to bring, not besides. What is not there is not sold later; what is promised and
 * not there is still owed. O(days + documents).
 */
export function projected(ahead: Ahead, days: number, { lateDays = 0, noArrivals = false, demand = 1, order }: WhatIf = {}): Projection {
  const { today, forecast } = ahead;
  const into = dayOfWeek(today);
  const leaving = new Float64Array(days + 1);
  const coming = new Float64Array(days + 1);
  for (const p of ahead.promised) {
    const day = Math.max(0, daysBetween(today, p.due));
    if (day <= days) leaving[day] = (leaving[day] ?? 0) + p.units;
  }
  if (!noArrivals)
    for (const a of ahead.arrivals) {
      const day = comingIn(today, a.due) + lateDays;
      if (day <= days) coming[day] = (coming[day] ?? 0) + a.units;
    }
  if (order && order.inDays <= days) coming[Math.max(1, order.inDays)] = (coming[Math.max(1, order.inDays)] ?? 0) + order.units;
  // What each week is expected to bring beyond what is promised in it, spread over the days of it that are still to come.
  const beyond = new Float64Array(days + 1);
  const spread = new Float64Array(days + 1);
  for (let k = 0; k * 7 - into <= days; k += 1) {
    const from = Math.max(1, k * 7 - into + (k === 0 ? 1 : 0));
    const to = Math.min(days, (k + 1) * 7 - into - (k === 0 ? 0 : 1));
    const week = forecast.weeks[Math.min(k, forecast.weeks.length - 1)];
    if (!week || to < from) continue;
    const share = (to - from + 1) / 7;
    let promised = 0;
    for (let d = from; d <= to; d += 1) promised += leaving[d] ?? 0;
    const each = Math.max(0, week.mean * demand * share - promised) / (to - from + 1);
    for (let d = from; d <= to; d += 1) {
      beyond[d] = each;
      spread[d] = (week.sd * week.sd) / 7;
    }
  }
  let stock = ahead.onHand;
  let [owed, missed, broken, variance] = [0, 0, 0, 0];
  let runsOut: number | null = null;
  const list: ProjectedDay[] = [{ day: 0, stock: ahead.onHand, low: ahead.onHand, high: ahead.onHand }];
  for (let d = 0; d <= days; d += 1) {
    stock += coming[d] ?? 0;
    const due = owed + (leaving[d] ?? 0);
    const given = Math.min(stock, due);
    stock -= given;
    owed = due - given;
    if (owed > 0) broken = Math.max(broken, owed);
    const sold = Math.min(stock, beyond[d] ?? 0);
    missed += (beyond[d] ?? 0) - sold;
    stock -= sold;
    variance += spread[d] ?? 0;
    if (runsOut === null && stock < 0.5 && (d > 0 || owed > 0)) runsOut = d;
    if (d === 0) continue;
    const band = NINE_OF_TEN * Math.sqrt(variance);
    list.push({ day: d, stock, low: Math.max(0, stock - band), high: stock + band });
  }
  return { days: list, runsOut, missed, broken };
}
