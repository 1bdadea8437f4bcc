import { weekText, type WeekNumber } from './iso-week.js';
import { mean } from './methods.js';
import { planFor, type ToPlan } from './plan.js';
import { orderUnits } from './policy.js';
import { type Series, seriesOf } from './series.js';

/** How a rule would have done over a time that was. Money in the currency of `unitCost`. */
export interface BackTested {
  /** Units asked for, and those of them met from the shelf. */
  asked: number;
  met: number;
  orders: number;
  /** Mean of what lay there, in money. */
  stockValue: number;
  /** Ordering and holding over that time. */
  cost: number;
}

/** A rule: where to order and up to what, as known at the beginning of a week. */
type Rule = (known: Series, today: string) => { point: number; upTo: number } | null;

export interface BackTestRules {
  /** As it is planned here. */
  planned: BackTested;
  /** Order up to so many weeks of the last quarter's mean whenever less than half of it is left, as on many a spreadsheet. */
  cover: BackTested;
  /** As points to order at are set by hand; null where none is. */
  fixed: BackTested | null;
}

/** Weeks that must be known before a rule is tried, and the most weeks that it is tried over. */
const LEAST_KNOWN = 26;
const MOST_WEEKS = 52;
/** A plan is made anew so often. */
const PLANNED_WEEKS = 4;
const COVER_WEEKS = 6;

/**
 * What this item's last year would have been by three rules, each beginning with the same stock: what its own first order would come
 * up to. Orders take the mean lead time. Null where too little is known. `today` ends it. O(weeks² / 4).
 */
export function backTest(item: ToPlan & { fixed: { point: number; upTo: number } | null }, today: string): BackTestRules | null {
  const series = seriesOf(item.history, today);
  const from = Math.max(LEAST_KNOWN, series.units.length - MOST_WEEKS);
  if (series.units.length - from < PLANNED_WEEKS) return null;
  const planned: Rule = (known, day) => {
    const plan = planFor({ ...item, history: historyOf(known) }, day);
    return plan.point === null ? null : { point: plan.point, upTo: plan.point + plan.size };
  };
  const cover: Rule = (known) => {
    const usual = mean(known.units.slice(-13));
    const upTo = usual * (COVER_WEEKS + item.leadTimeDays.mean / 7);
    return { point: usual * (item.leadTimeDays.mean / 7) + (usual * COVER_WEEKS) / 2, upTo };
  };
  const { fixed } = item;
  const begin = planned({ first: series.first, units: series.units.slice(0, from) }, mondayOf(series.first + from))?.upTo ?? 0;
  const run = (rule: Rule) => lived(series, from, begin, item, rule);
  return { planned: run(planned), cover: run(cover), fixed: fixed ? run(() => fixed) : null };
}

const historyOf = ({ first, units }: Series) => Array.from(units, (u, i) => ({ week: weekText(first + i), units: u }));

const mondayOf = (week: WeekNumber): string => new Date(week * 7 * 86_400_000 - 3 * 86_400_000).toISOString().slice(0, 10);

function lived({ first, units }: Series, from: number, begin: number, item: ToPlan, rule: Rule): BackTested {
  const lead = Math.max(1, Math.round(item.leadTimeDays.mean));
  const review = Math.max(1, Math.round(item.reviewDays));
  const coming: { day: number; units: number }[] = [];
  let stock = begin;
  let [asked, met, orders, held] = [0, 0, 0, 0];
  let now: ReturnType<Rule> = null;
  const days = (units.length - from) * 7;
  for (let day = 0; day < days; day += 1) {
    const week = from + Math.floor(day / 7);
    if (day % (7 * PLANNED_WEEKS) === 0) now = rule({ first, units: units.slice(0, week) }, mondayOf(first + week));
    for (const c of coming) if (c.day === day) stock += c.units;
    const onOrder = coming.reduce((n, c) => n + (c.day > day ? c.units : 0), 0);
    if (now && day % review === 0 && stock + onOrder <= now.point && now.upTo > 0) {
      const ordered = orderUnits(now.upTo - stock - onOrder, { minimum: item.minimumUnits, multiple: item.multipleUnits });
      if (ordered > 0) {
        coming.push({ day: day + lead, units: ordered });
        orders += 1;
      }
    }
    const wanted = (units[week] ?? 0) / 7;
    const sold = Math.min(stock, wanted);
    asked += wanted;
    met += sold;
    stock -= sold;
    held += stock;
  }
  const stockValue = (held / Math.max(1, days)) * item.unitCost;
  return { asked, met, orders, stockValue, cost: orders * item.orderCost + (stockValue * item.holdingRate * days) / 364 };
}
