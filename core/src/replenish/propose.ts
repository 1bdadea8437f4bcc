import { daysBetween } from './iso-week.js';
import { type Plan, planFor, type ToPlan } from './plan.js';
import { orderUnits } from './policy.js';

/** What there is of an item on a day. Units are base units. */
export interface Position {
  onHand: number;
  /** Promised to orders, and so not free for later ones. */
  allocated: number;
  onOrder: readonly { units: number; due: string }[];
}

/** An item as a buyer sees it on one day. */
export interface Wanted extends Omit<ToPlan, 'classSeason' | 'marks'>, Position {}

export interface Proposal {
  forecast: Plan['forecast'];
  safetyUnits: number;
  /** Order once the position is at or below it. */
  reorderPoint: number;
  proposedUnits: number;
  /** Stock that is free, with all that is on order. */
  position: number;
  reason: string;
}

/** The least that is ordered, and in what multiples. */
export interface OrderSteps {
  minimumUnits: number;
  multipleUnits: number;
}

const whole = (n: number) => String(Math.round(n)).replace(/\B(?=(\d{3})+(?!\d))/g, ',');

/** Stock that is free, with all that is on order: what is on its way counts, though it is late. */
export const positionOf = ({ onHand, allocated, onOrder }: Position): number =>
  onHand - allocated + onOrder.reduce((n, o) => n + o.units, 0);

/** What to order by a plan, and why: nothing, or at least the least in whole multiples. */
export function proposalBy(plan: Plan, stock: Position, steps: OrderSteps, today: string): Proposal {
  const { forecast, point, size, weekMean, fill } = plan;
  const position = positionOf(stock);
  const none = (reason: string): Proposal => ({ forecast, safetyUnits: 0, reorderPoint: 0, proposedUnits: 0, position, reason });
  if (forecast.method === 'discontinued')
    return none('Nobody has asked for it for longer than chance explains: it is taken to be discontinued, and not bought');
  if (forecast.method === 'nothing known') return none('Nobody has asked for it yet. Say how many to keep until there is a history');
  if (point === null) return none('Nothing of it is expected to be asked for while an order would be on its way');
  const reorderPoint = Math.max(0, Math.round(point));
  const isDue = position <= point;
  const proposedUnits = isDue ? orderUnits(point + size - position, { minimum: steps.minimumUnits, multiple: steps.multipleUnits }) : 0;
  const overdue = stock.onOrder.filter((o) => daysBetween(today, o.due) < 0).length;
  const late = overdue > 0 ? ` ${overdue === 1 ? 'One order is' : `${overdue} orders are`} overdue and counted as coming.` : '';
  const days = (position / weekMean) * 7;
  const has = `${whole(position)} free or on order last some ${whole(Math.max(0, days))} days at ${whole(weekMean)} a week (${forecast.method})`;
  const reason = isDue
    ? `${has}; an order of the next chance would come in ${whole(plan.leadDays + plan.reviewDays)} days. ${whole(reorderPoint)} are the point to order at for ${Math.round(fill * 1000) / 10} % met from the shelf.${late}`
    : `${has}, above the ${whole(reorderPoint)} at which to order.${late}`;
  return { forecast, safetyUnits: plan.safetyUnits, reorderPoint, proposedUnits, position, reason };
}

/** What to order today of an item, planned anew. A discontinued item is never bought. */
export const proposalFor = (item: Wanted, today: string): Proposal => proposalBy(planFor(item, today), item, item, today);
