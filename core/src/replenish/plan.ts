import { type Beside, type Forecast, forecastOf, FORECAST_WEEKS } from './forecast.js';
import { dayOfWeek } from './iso-week.js';
import { policyFor } from './policy.js';
import type { WeekUnits } from './series.js';

/** What an item is planned by, whatever there is of it today. Units are base units. */
export interface ToPlan extends Beside {
  history: readonly WeekUnits[];
  leadTimeDays: { mean: number; sd: number };
  /** Days to the next chance to order. */
  reviewDays: number;
  /** Share of demand that the shelf is to meet, 0 to 1. */
  serviceLevel: number;
  minimumUnits: number;
  multipleUnits: number;
  unitCost: number;
  orderCost: number;
  /** Of what stock is worth, a year. */
  holdingRate: number;
}

/** What will be asked for, and when to order how much: it holds until a week is over or something that it is made from changes. */
export interface Plan {
  forecast: Forecast;
  /** Expected a week while an order is on its way; nought where nothing is bought. */
  weekMean: number;
  /** Order once what is free or on its way is at or below it; null where nothing is to be bought. */
  point: number | null;
  /** The size of an order, beyond coming up to the point. */
  size: number;
  safetyUnits: number;
  /** Share of demand that is expected to be met. */
  fill: number;
  reviewDays: number;
  leadDays: number;
}

/** What is expected between two days from today, of a forecast by weeks. O(weeks). */
export function demandBetween(forecast: Pick<Forecast, 'weeks'>, today: string, fromDays: number, toDays: number): number {
  const into = dayOfWeek(today);
  let sum = 0;
  for (let k = 0; k < forecast.weeks.length; k += 1) {
    const from = Math.max(fromDays, k * 7 - into);
    const to = Math.min(toDays, (k + 1) * 7 - into);
    if (to > from) sum += ((forecast.weeks[k]?.mean ?? 0) * (to - from)) / 7;
  }
  // Beyond the last week it goes on as in it.
  const end = forecast.weeks.length * 7 - into;
  if (toDays > end) sum += ((forecast.weeks.at(-1)?.mean ?? 0) * (toDays - Math.max(end, fromDays))) / 7;
  return sum;
}

/**
 * The point to order at and the size of an order are those of least cost that keep the fill rate for demand as it is forecast while
 * an order is on its way. O(methods × origins × weeks) and the years that are lived through.
 */
export function planFor(item: ToPlan, today: string): Plan {
  const { mean: leadDays, sd: leadSd } = item.leadTimeDays;
  const reach = leadDays + item.reviewDays;
  const forecast = forecastOf(item.history, today, reach / 7, Math.max(FORECAST_WEEKS, Math.ceil(reach / 7) + 2), item);
  const ahead = demandBetween(forecast, today, 0, reach);
  const weekMean = (ahead / reach) * 7;
  const base = { forecast, weekMean, reviewDays: item.reviewDays, leadDays };
  if (weekMean <= 0) return { ...base, weekMean: 0, point: null, size: 0, safetyUnits: 0, fill: 0 };
  const near = forecast.weeks.slice(0, Math.max(1, Math.ceil(reach / 7)));
  const weekSd = Math.sqrt(near.reduce((n, w) => n + w.sd * w.sd, 0) / near.length);
  const { point, lot, fill } = policyFor({
    weekMean,
    weekSd,
    busy: forecast.busy,
    leadDays,
    leadSd,
    reviewDays: item.reviewDays,
    fill: item.serviceLevel,
    minimum: item.minimumUnits,
    multiple: item.multipleUnits,
    unitCost: item.unitCost,
    orderCost: item.orderCost,
    holdingRate: item.holdingRate,
  });
  // An order lasts beyond its arrival: what is expected then decides how much it is.
  const lasts = (lot / weekMean) * 7;
  const later = demandBetween(forecast, today, leadDays, leadDays + lasts);
  const size = lasts > 0 ? Math.min(lot * 2, later) : lot;
  const safetyUnits = Math.max(0, Math.round(point - demandBetween(forecast, today, 0, leadDays)));
  return { ...base, point, size, safetyUnits, fill };
}
