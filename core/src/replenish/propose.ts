import { type Forecast, forecastOf, FORECAST_WEEKS } from './forecast.js';
import { dayOfWeek, daysBetween } from './iso-week.js';
import { orderUnits, policyFor } from './policy.js';
import type { WeekUnits } from './series.js';

/** An item as a buyer sees it on one day. Units are base units. */
export interface Wanted {
  history: readonly WeekUnits[];
  onHand: number;
  /** Promised to orders, and so not free for later ones. */
  allocated: number;
  onOrder: readonly { units: number; due: string }[];
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

export interface Proposal {
  forecast: Forecast;
  safetyUnits: number;
  /** Order once the position is at or below it. */
  reorderPoint: number;
  proposedUnits: number;
  /** Stock that is free, with all that is on order. */
  position: number;
  reason: string;
}

const whole = (n: number) => String(Math.round(n)).replace(/\B(?=(\d{3})+(?!\d))/g, ',');

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
 * What to order today, and why: nothing, or at least the least in whole multiples. The point to order at and the size of an order
 * are those of least cost that keep the fill rate for demand as it is forecast while an order is on its way; what is on its way
 * counts, though it is late. A discontinued item is never bought.
 */
export function proposalFor(item: Wanted, today: string): Proposal {
  const position = item.onHand - item.allocated + item.onOrder.reduce((n, o) => n + o.units, 0);
  const { mean: leadDays, sd: leadSd } = item.leadTimeDays;
  const reach = leadDays + item.reviewDays;
  const forecast = forecastOf(item.history, today, reach / 7, Math.max(FORECAST_WEEKS, Math.ceil(reach / 7) + 2));
  const none = (reason: string): Proposal => ({ forecast, safetyUnits: 0, reorderPoint: 0, proposedUnits: 0, position, reason });
  if (forecast.method === 'discontinued')
    return none('Nobody has asked for it for longer than chance explains: it is taken to be discontinued, and not bought');
  if (forecast.method === 'nothing known') return none('Nobody has asked for it yet. Say how many to keep until there is a history');
  const ahead = demandBetween(forecast, today, 0, reach);
  const weekMean = (ahead / reach) * 7;
  if (weekMean <= 0) return none('Nothing of it is expected to be asked for while an order would be on its way');
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
  const reorderPoint = Math.max(0, Math.round(point));
  const isDue = position <= point;
  const proposedUnits = isDue ? orderUnits(point + size - position, { minimum: item.minimumUnits, multiple: item.multipleUnits }) : 0;
  const overdue = item.onOrder.filter((o) => daysBetween(today, o.due) < 0).length;
  const late = overdue > 0 ? ` ${overdue === 1 ? 'One order is' : `${overdue} orders are`} overdue and counted as coming.` : '';
  const days = (position / weekMean) * 7;
  const has = `${whole(position)} free or on order last some ${whole(Math.max(0, days))} days at ${whole(weekMean)} a week (${forecast.method})`;
  const reason = isDue
    ? `${has}; an order of the next chance would come in ${whole(reach)} days. ${whole(reorderPoint)} are the point to order at for ${Math.round(fill * 1000) / 10} % met from the shelf.${late}`
    : `${has}, above the ${whole(reorderPoint)} at which to order.${late}`;
  return { forecast, safetyUnits, reorderPoint, proposedUnits, position, reason };
}
