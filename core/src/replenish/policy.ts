import { type Course, courseLike, isLumpy, MOST_TURNS, NORMAL, type WeekDemand, WEEKS } from './course.js';
import { deviateOfLoss } from './normal.js';

/** What an order is decided by. Days and units; money in whatever currency, all in the same. */
export interface Supply extends WeekDemand {
  leadDays: number;
  leadSd: number;
  /** The next chance to order. */
  reviewDays: number;
  /** Share of demand that the shelf is to meet. */
  fill: number;
  minimum: number;
  multiple: number;
  unitCost: number;
  orderCost: number;
  /** Of what stock is worth, a year. */
  holdingRate: number;
}

/** Order where the position is at or below `point`, at least `lot` units, up to `point + lot`. */
export interface Policy {
  point: number;
  lot: number;
}

/** Of the weeks, so many are lived through before anything is measured. */
const WARM_UP = 30;
const HALVINGS = 9;
const MOST_TRIES = 40;
const NEAR_UNITS = 0.1;
/** Fewer orders than these say little about the weeks before the next comes in, the less so the more a single week may bring. */
const LEAST_ORDERS = 30;
const LEAST_LUMPY_ORDERS = 120;
const YEAR_DAYS = 364;
// A year of days asks for these some thousand times: they are looked up once.
const { ceil, floor, max, min } = Math;
const NEVER = Infinity;
/** No order is for more weeks. */
const MOST_WEEKS = 78;

const leadTimes = ({ leadDays, leadSd }: Pick<Supply, 'leadDays' | 'leadSd'>): number[] =>
  Array.from(NORMAL, (_, i) => Math.max(0, Math.round(leadDays + leadSd * (NORMAL[(i * 7 + 3) % WEEKS] ?? 0))));

export interface Outcome {
  fill: number;
  /** A year's ordering and holding. */
  cost: number;
}

/** How many units an order has: enough to come up to the level, at least the least, in whole multiples. */
export const orderUnits = (lacking: number, { minimum, multiple }: Pick<Supply, 'minimum' | 'multiple'>): number =>
  lacking <= 0 ? 0 : Math.ceil(Math.max(lacking, minimum, 1) / Math.max(1, multiple)) * Math.max(1, multiple);

/**
 * Lives through some years day by day with a policy: stock that is not there is not sold, and not asked for later. `givenUp`: units
 * missed at which it is left off, with a fill rate of nought, since it is known by then to be too little. O(parts of the course).
 */
export function lived(course: Course, leads: ArrayLike<number>, supply: Supply, { point, lot }: Policy, givenUp = NEVER): Outcome {
  const { days } = course;
  const review = max(1, Math.round(supply.reviewDays));
  const level = point + lot;
  // What is on its way, the soonest last.
  const coming: { day: number; units: number }[] = [];
  let stock = point + lot / 2;
  let ordered = 0;
  let [asked, missed, held, orders, nextReview] = [0, 0, 0, 0, 0];
  for (let part = 0, day = 0; part < course.long.length; part += 1) {
    const wants = course.wants[part] ?? 0;
    const counts = day >= WARM_UP * 7;
    const end = day + (course.long[part] ?? 0);
    if (counts) asked += wants * (end - day);
    // From one day on which something happens to the next.
    while (day < end) {
      for (let next = coming.at(-1); next && next.day <= day; next = coming.at(-1)) {
        stock += next.units;
        ordered -= next.units;
        coming.pop();
      }
      if (day >= nextReview) {
        if (stock + ordered <= point) {
          const units = orderUnits(level - stock - ordered, supply);
          const due = day + max(1, leads[orders % leads.length] ?? 1);
          let at = coming.length;
          while (at > 0 && (coming[at - 1]?.day ?? 0) < due) at -= 1;
          coming.splice(at, 0, { day: due, units });
          ordered += units;
          orders += 1;
        }
        const above = stock + ordered - point;
        const until = wants > 0 ? ceil(above / wants) : NEVER;
        nextReview = day + review * max(1, min(ceil(until / review), ceil((end - day) / review)));
      }
      const pause = min(end, nextReview, coming.at(-1)?.day ?? NEVER) - day;
      const sold = min(stock, wants * pause);
      if (counts) {
        missed += wants * pause - sold;
        // Days at whose end something is left, and what is left at each.
        const left = wants > 0 ? min(pause, floor(stock / wants)) : pause;
        held += left * stock - (wants * left * (left + 1)) / 2;
      }
      stock -= sold;
      day += pause;
    }
    if (missed > givenUp) return { fill: 0, cost: NEVER };
  }
  const year = (orders * supply.orderCost * YEAR_DAYS) / days + (held / (days - WARM_UP * 7)) * supply.unitCost * supply.holdingRate;
  return { fill: asked === 0 ? 1 : 1 - missed / asked, cost: year };
}

/** A point to order at with what came of it. */
interface Point {
  point: number;
  outcome: Outcome;
}

/** Missing so many times what may be missed, a point is known to be too low: how far is of no use. */
const TOO_MUCH = 4;

/**
 * Where to try next between a point that is too low and one that is enough. What is missed falls with the point about as an
 * exponential does, and each look is taken on that (regula falsi on its logarithm); now and then in the middle, where it does not.
 */
function between(low: Point, high: Point, may: number, near: number, isMiddle: boolean): number {
  const wide = high.point - low.point;
  if (isMiddle || wide < 2 * near) return low.point + wide / 2;
  const depth = ({ outcome }: Point) => Math.log(Math.min(TOO_MUCH, Math.max(1e-3, (1 - outcome.fill) / may)));
  const [over, under] = [depth(low), depth(high)];
  const share = over - under > 1e-9 ? over / (over - under) : 0.5;
  // Close to one of them it is tried just so far from it that nothing is left to look for where it is on that side.
  return Math.min(high.point - 0.9 * near, Math.max(low.point + 0.9 * near, low.point + share * wide));
}

/**
 * A policy that keeps the fill rate at little cost: of an order's size by the square-root formula (Harris 1913), the lowest point at
 * which enough is met, tried on the same luck. Trying other sizes too saves less than a hundredth, and makes the level leap between
 * sizes that cost the same. O(tries × weeks).
 */
export function policyFor(supply: Supply): Policy & Outcome {
  const leads = leadTimes(supply);
  const daily = supply.weekMean / 7;
  const holding = Math.max(1e-9, supply.unitCost * supply.holdingRate);
  const economic = Math.sqrt((2 * supply.weekMean * 52 * supply.orderCost) / holding);
  const least = Math.max(1, daily * supply.reviewDays);
  // Where holding costs nothing, still no more than lasts for a year and a half.
  const lot = Math.min(supply.weekMean * MOST_WEEKS, Math.max(least * 0.25, economic));
  const enough = isLumpy(supply) ? LEAST_LUMPY_ORDERS : LEAST_ORDERS;
  const turns = Math.min(MOST_TURNS, Math.max(1, Math.ceil((enough * lot) / Math.max(1e-9, supply.weekMean * WEEKS))));
  const course = courseLike(supply, turns);
  const asked = supply.weekMean * (WEEKS * turns - WARM_UP);
  const may = Math.max(1e-6, 1 - supply.fill);
  const tried = (point: number): Point => ({ point, outcome: lived(course, leads, supply, { point, lot }, asked * may * TOO_MUCH) });
  const ahead = daily * (supply.leadDays + supply.reviewDays);
  const spread = Math.sqrt(((supply.leadDays + supply.reviewDays) / 7) * supply.weekSd ** 2 + (daily * supply.leadSd) ** 2);
  // Goods are ordered in whole units: a point need be no nearer than that.
  const near = Math.max(NEAR_UNITS, (ahead + 6 * spread + lot) / 2 ** HALVINGS);
  let step = Math.max(3 * near, spread / 6);
  let [low, high]: [Point | null, Point | null] = [null, null];
  // From what would do were demand normal (Brown 1959) outwards, until one point does and one does not; then between the two.
  const ordered = lot + (daily * supply.reviewDays) / 2;
  let point = Math.max(
    0,
    daily * (supply.leadDays + supply.reviewDays / 2) + spread * deviateOfLoss((may * ordered) / Math.max(1e-9, spread)),
  );
  for (let tries = 1; tries < MOST_TRIES; tries += 1) {
    const found = tried(point);
    if (found.outcome.fill >= supply.fill) high = found;
    else low = found;
    if (low && high) {
      if (high.point - low.point <= near) break;
      point = between(low, high, may, near, tries % 4 === 0);
      continue;
    }
    // It is enough to order when nothing is left; below that nothing would ever be ordered.
    if (high && high.point <= 0) break;
    point = high ? Math.max(0, high.point - step) : point + step;
    step *= 2;
  }
  return high ? { point: high.point, lot, ...high.outcome } : { point, lot, fill: low?.outcome.fill ?? 0, cost: low?.outcome.cost ?? 0 };
}
